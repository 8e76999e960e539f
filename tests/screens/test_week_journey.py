"""A journey through the week: hands and places, several orders by the hour, better hours, in Chromium."""

import re

from playwright.sync_api import expect

from amber_spread.browser import page
from tests.screens.test_journeys import fill, new_cake, panel, saved


def days(screen):
    return screen.get_by_role("group", name="The steps of the week by the hour")


def words(screen):
    return screen.get_by_role("complementary", name="The week in words")


def dated(screen, address, title, due):
    new_cake(screen, address, title)
    panel(screen).get_by_label("Due").first.fill(due)
    panel(screen).get_by_label("Due").first.press("Enter")
    saved(screen)


def test_two_orders_are_by_the_hour_on_one_page_and_each_opens_its_clock(screen, address):
    dated(screen, address, "Skep for the week", "2032-05-07T14:00")
    dated(screen, address, "Comb for the week", "2032-05-07T15:00")
    screen.goto(address)
    screen.get_by_role("link", name="The week", exact=True).click()
    expect(days(screen)).to_contain_text(re.compile("No order is due|due"))
    screen.get_by_label("Seven days from").fill("2032-05-03")
    expect(days(screen).locator(".sheet .label").first).to_be_visible()
    expect(words(screen)).to_contain_text("Skep for the week")
    with screen.expect_download() as taken:
        words(screen).get_by_role("link", name="Day sheets, Everybody (PDF)").click()
    assert taken.value.suggested_filename == "The week from 2032-05-03 day sheets.pdf"
    with screen.expect_download() as taken:
        words(screen).get_by_role("link", name="Calendar, Everybody (ICS)").click()
    assert taken.value.suggested_filename == "The week from 2032-05-03.ics"
    letters = words(screen).locator(".orders .letter")
    assert letters.all_text_contents() == ["A", "B"]
    days(screen).focus()
    screen.keyboard.press("ArrowDown")
    step = words(screen).get_by_role("region", name="The step selected")
    expect(step.locator("h2")).to_be_visible()
    first = step.locator("h2").inner_text()
    screen.keyboard.press("ArrowDown")
    expect(step.locator("b.number")).to_be_visible()
    screen.keyboard.press("ArrowUp")
    expect(step.locator("h2")).to_have_text(first)
    hours = step.locator("b.number").inner_text()
    step.get_by_role("link", name="Open its clock").click()
    expect(screen.get_by_role("group", name="The steps by the hour").locator(".sheet .label").first).to_be_visible()
    begins = re.search(r"\d\d:\d\d", hours)[0]
    expect(panel(screen).locator(".line", has_text=re.compile("^ ?Begin"))).to_contain_text(begins)


def test_better_hours_are_shown_before_they_are_kept(screen, address):
    dated(screen, address, "First of two", "2033-05-06T14:00")
    dated(screen, address, "Second of two", "2033-05-06T14:30")
    screen.goto(f"{address}/week")
    screen.get_by_label("Seven days from").fill("2033-05-02")
    expect(days(screen).locator(".sheet .label").first).to_be_visible()
    better = words(screen).get_by_role("region", name="Better hours")
    better.get_by_role("button", name="Look for better hours").click()
    expect(better.get_by_role("progressbar")).to_be_visible()
    better.get_by_role("button", name="Stop").click()
    better.get_by_role("button", name="Look for better hours").click()
    expect(better.get_by_text(re.compile("These orders would move|No better hours"))).to_be_visible(timeout=120_000)
    keep = better.get_by_role("button", name="Keep these hours")
    if keep.count():
        keep.click()
        expect(better.get_by_role("button", name="Give up the hours you kept")).to_be_visible()
        better.get_by_role("button", name="Give up the hours you kept").click()
    else:
        better.get_by_role("button", name="Close").click()
    expect(better.get_by_role("button", name="Look for better hours")).to_be_visible()
    expect(better.get_by_role("button", name="Give up the hours you kept")).to_have_count(0)


def test_hands_days_off_and_shelves_are_kept_and_undone(browser, demo_address):
    with page(browser) as screen:
        screen.goto(f"{demo_address}/places")
        linnet = screen.get_by_role("region", name="Linnet")
        expect(linnet).to_contain_text("Monday")
        off = linnet.get_by_label("Linnet works on Monday", exact=True)
        expect(off).not_to_be_checked()
        off.check()
        expect(screen.get_by_label("Linnet, Monday from")).to_have_value("6:00")
        linnet.get_by_role("button", name="Add a day off").click()
        expect(linnet.get_by_text("Choose a day.")).to_be_visible()
        linnet.get_by_label("A day off for Linnet").fill("2031-05-09")
        linnet.get_by_role("button", name="Add a day off").click()
        expect(linnet).to_contain_text("Friday 9 May")
        fridge = screen.get_by_role("region", name="Fridge")
        fill(screen.get_by_label("Fridge, shelf 1, high"), "3 miles")
        expect(fridge.get_by_text(re.compile("Type"))).to_be_visible()
        fill(screen.get_by_label("Fridge, shelf 1, high"), "10in")
        expect(screen.get_by_label("Fridge, shelf 1, high")).to_have_value("10")
        fridge.get_by_role("button", name="Add a shelf").click()
        expect(screen.get_by_label("Fridge, shelf 4, wide")).to_be_visible()
        screen.reload()
        expect(screen.get_by_label("Fridge, shelf 4, wide")).to_be_visible()
        fridge.get_by_role("button", name="Remove shelf 4").click()
        expect(screen.get_by_label("Fridge, shelf 4, wide")).to_have_count(0)
        for _ in range(2):
            screen.get_by_role("button", name="Undo").click()
            expect(screen.get_by_label("Fridge, shelf 4, wide")).to_be_visible()
            screen.get_by_role("button", name="Redo").click()
            expect(screen.get_by_label("Fridge, shelf 4, wide")).to_have_count(0)


def test_the_week_is_whole_on_a_tablet_held_upright(browser, demo_address):
    with page(browser, (768, 1024)) as screen:
        screen.goto(f"{demo_address}/week")
        expect(days(screen).locator(".sheet .label").first).to_be_visible(timeout=60_000)
        assert screen.evaluate("document.documentElement.scrollWidth") <= 768
        expect(words(screen).get_by_role("button", name="Look for better hours")).to_be_attached()
        screen.goto(f"{demo_address}/places")
        expect(screen.get_by_role("region", name="Wren")).to_be_visible()
        assert screen.evaluate("document.documentElement.scrollWidth") <= 768
