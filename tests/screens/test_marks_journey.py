"""A journey through a day at the bench: steps are begun, done and moved, and what that moves is seen, in Chromium."""

import re
from datetime import datetime, timedelta

import pytest
from playwright.sync_api import expect

from tests.screens.test_clock_journey import days
from tests.screens.test_journeys import lens, panel
from tests.screens.test_week_journey import dated, words
from tests.screens.test_week_journey import days as week_days

SOON = (datetime.now() + timedelta(days=4)).replace(hour=14, minute=0, second=0, microsecond=0)


def step(screen):
    return panel(screen).get_by_role("region", name="The step selected")


@pytest.fixture
def clock(screen, address, request):
    dated(screen, address, request.node.name[:60], SOON.isoformat(timespec="minutes"))
    lens(screen, "Clock")
    expect(days(screen).locator(".sheet .label").first).to_be_visible()
    return screen


def drag(screen, ribbon, by):
    ribbon.scroll_into_view_if_needed()
    box = ribbon.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + 2
    screen.mouse.move(x, y)
    screen.mouse.down()
    screen.mouse.move(x, y + by, steps=4)
    expect(days(screen).locator(".ghost")).to_be_visible()
    screen.mouse.up()


def test_a_step_is_dragged_later_seen_first_and_only_then_moved(clock):
    coat = days(clock).locator(".ribbon.movable", has_text="Crumb coat")
    drag(clock, coat, 120)
    expect(step(clock)).to_contain_text(re.compile(r"\d+ steps? moves?:"))
    before = step(clock).locator("b.number").first.inner_text()
    step(clock).get_by_role("button", name="Leave it").click()
    expect(days(clock).locator(".ghost")).to_have_count(0)
    expect(step(clock).locator("b.number").first).to_have_text(before)
    drag(clock, coat, 120)
    step(clock).get_by_role("button", name="Move it").click()
    expect(step(clock)).to_contain_text("You moved it to")
    expect(step(clock).locator("b.number").first).not_to_have_text(before)
    clock.reload()
    expect(days(clock).locator(".sheet .label").first).to_be_visible()
    days(clock).locator(".label", has_text="Crumb coat").click()
    step(clock).get_by_role("button", name="Let it move with the plan").click()
    expect(step(clock).locator("b.number").first).to_have_text(before)


def test_the_keys_move_a_step_and_marks_say_what_is_done_and_what_comes_next(clock):
    days(clock).focus()
    clock.keyboard.press("ArrowDown")
    first = step(clock).locator("h3").inner_text()
    expect(panel(clock).locator(".band")).to_contain_text(first)
    clock.keyboard.press("Alt+ArrowDown")
    expect(step(clock).get_by_role("button", name="Move it")).to_be_visible()
    step(clock).get_by_role("button", name="Leave it").click()
    step(clock).get_by_role("button", name="Begin now").click()
    expect(panel(clock).locator(".band")).to_contain_text("Now")
    expect(panel(clock).locator(".band")).to_contain_text(first)
    step(clock).get_by_role("button", name="Done now").click()
    expect(days(clock).locator(".label.done")).to_contain_text("✓")
    expect(panel(clock).locator(".band .name")).not_to_have_text(first)
    at = step(clock).get_by_label("Done at")
    at.fill((SOON + timedelta(days=1)).isoformat(timespec="minutes"))
    at.press("Tab")
    expect(step(clock).get_by_role("alert")).to_contain_text("should be an hour that has passed")
    step(clock).get_by_role("button", name="Not done after all").click()
    step(clock).get_by_role("button", name="Not begun after all").click()
    expect(step(clock).get_by_role("button", name="Begin now")).to_be_visible()
    expect(days(clock).locator(".label.done")).to_have_count(0)


def test_a_mark_on_the_week_can_be_taken_back(screen, address):
    dated(screen, address, "Marked in the week", SOON.isoformat(timespec="minutes"))
    screen.goto(f"{address}/week")
    screen.get_by_label("Seven days from").fill(datetime.now().date().isoformat())
    expect(week_days(screen).locator(".sheet .label").first).to_be_visible()
    screen.get_by_role("group", name="The steps of the week by the hour").focus()
    screen.keyboard.press("ArrowDown")
    chosen = words(screen).get_by_role("region", name="The step selected")
    chosen.get_by_role("button", name="It is done").click()
    expect(chosen.get_by_label("Done at")).to_be_visible()
    chosen.get_by_role("button", name="Undo").click()
    expect(chosen.get_by_role("button", name="It is done")).to_be_visible()


def test_an_order_taken_too_late_says_what_gives_and_one_press_makes_it_so(screen, address):
    dated(screen, address, "Taken too late", (datetime.now() + timedelta(hours=4)).isoformat(timespec="minutes"))
    lens(screen, "Clock")
    gives = panel(screen).get_by_role("region", name="What gives")
    gives.get_by_role("button", name="What would make it fit?").click()
    later = gives.locator("li", has_text="Ask the customer for")
    expect(later).to_contain_text("as you want it")
    expect(gives).to_contain_text(re.compile("As it is|as it is: Ready on"))
    due = panel(screen).get_by_text(re.compile("^due ")).first.inner_text()
    later.get_by_role("button", name="Change the order").click()
    expect(gives).to_have_count(0)
    expect(panel(screen).get_by_text(re.compile("^due ")).first).not_to_have_text(due)
    screen.get_by_role("button", name="Undo").first.click()
    expect(gives.get_by_role("button", name="What would make it fit?")).to_be_visible()
    panel(screen).get_by_role("button", name="Nothing has begun: plan it from now").click()
    expect(panel(screen)).to_contain_text("Planned from now on.")
    panel(screen).get_by_role("button", name="Count back from its due hour again").click()
    expect(panel(screen).get_by_role("button", name="Nothing has begun: plan it from now")).to_be_visible()
