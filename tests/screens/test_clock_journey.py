"""A journey through the clock: from an order without an hour to a printed day sheet, in Chromium."""

import io
import re

import pytest
from icalendar import Calendar
from playwright.sync_api import expect
from pypdf import PdfReader

from amber_spread.browser import page
from tests.screens.test_journeys import fill, lens, new_cake, panel, saved


def days(screen):
    return screen.get_by_role("group", name="The steps by the hour")


def test_from_an_order_without_an_hour_to_its_day_sheet(screen, address):
    new_cake(screen, address, "By the clock")
    lens(screen, "Clock")
    expect(days(screen)).to_contain_text("no due hour yet")
    days(screen).get_by_role("link", name="Set its day and hour in Brief").click()
    panel(screen).get_by_label("Due").first.fill("2031-05-09T14:00")
    panel(screen).get_by_label("Due").first.press("Enter")
    lens(screen, "Clock")
    expect(days(screen).locator(".sheet .label").first).to_be_visible()
    expect(panel(screen)).to_contain_text("due Friday 9 May, 14:00")
    ready = panel(screen).locator(".line", has_text=re.compile("^ ?Ready"))
    expect(ready).to_contain_text("Fri 13:30")
    fill(panel(screen).get_by_label("Ready before it is due"), "1h")
    expect(ready).to_contain_text("Fri 13:00")

    before = panel(screen).locator(".big").inner_text()
    panel(screen).get_by_role("link", name="Change hands and places").click()
    begins = screen.get_by_label("Hands 1, Thursday from")
    fill(begins, "noonish")
    expect(screen.get_by_text("Type a time of day, such as 8:00, 17.30 or 5 pm.")).to_be_visible()
    fill(begins, "9.30")
    expect(begins).to_have_value("9:30")
    ends = screen.get_by_label("Hands 1, Thursday to")
    fill(ends, "9")
    expect(screen.get_by_text("The hour work ends should be at least an hour after work begins")).to_be_visible()
    fill(ends, "13")
    expect(ends).to_have_value("13:00")
    screen.get_by_role("button", name="Back to the order").click()
    expect(panel(screen).locator(".big")).not_to_have_text(before)
    expect(panel(screen)).to_contain_text("9:30 to 13:00")

    count = panel(screen).get_by_role("button", name="Count these minutes in the price")
    count.click()
    expect(panel(screen).get_by_role("button", name="The price counts these minutes")).to_be_disabled()
    saved(screen)
    with screen.expect_download() as sheet:
        panel(screen).get_by_role("button", name="Print the day sheet (PDF)").click()
    words = " ".join(one.extract_text() for one in PdfReader(io.BytesIO(sheet.value.path().read_bytes())).pages)
    assert "By the clock: day sheet" in words and "Friday 9 May" in words
    with screen.expect_download() as file:
        panel(screen).get_by_role("button", name="Put it in a calendar (ICS)").click()
    events = Calendar.from_ical(file.value.path().read_bytes()).walk("VEVENT")
    assert "Due: By the clock" in [str(one["summary"]) for one in events]
    screen.reload()
    expect(panel(screen)).to_contain_text("9:30 to 13:00")
    panel(screen).get_by_role("link", name="Change hands and places").click()
    screen.get_by_role("button", name="Every day as Monday").click()
    expect(screen.get_by_label("Hands 1, Thursday from")).to_have_value("8:00")


def test_a_cake_of_one_tier_names_no_tier_and_a_drive_is_counted(screen, address):
    new_cake(screen, address, "One tier")
    panel(screen).get_by_label("Due").first.fill("2031-05-09T14:00")
    panel(screen).get_by_label("Due").first.press("Enter")
    lens(screen, "Clock")
    names = days(screen).locator(".sheet .label text:not(.min)")
    expect(names.first).to_be_visible()
    shown = [one.strip() for one in names.all_text_contents()]
    assert "Crumb coat" in shown and not any(one.endswith(",") for one in shown)
    fill(panel(screen).get_by_label("Driven for"), "1h10")
    expect(days(screen).locator(".label", has_text="Drive")).to_contain_text("70 min")


def test_a_step_is_selected_by_keys_and_by_a_touch_and_says_what_to_do(browser, demo_address):
    with page(browser) as screen:
        screen.goto(demo_address)
        screen.get_by_role("link", name="Open Raffle hive").click()
        lens(screen, "Clock")
        expect(days(screen).locator(".sheet .label").first).to_be_visible()
        days(screen).focus()
        screen.keyboard.press("ArrowDown")
        step = panel(screen).get_by_role("region", name="The step selected")
        expect(step.get_by_role("heading")).to_have_text(re.compile("^Mix the batter, "))
        screen.keyboard.press("ArrowDown")
        expect(step.get_by_role("heading")).to_have_text(re.compile("^Bake, "))
        expect(step).to_contain_text("skewer comes out clean")
        days(screen).locator(".label text", has_text="Turn back, bottom").click()
        expect(step).to_contain_text("work on at once")
        step.get_by_role("button", name="Close").click()
        expect(step).to_have_count(0)
        panel(screen).get_by_text("Every step in order").click()
        panel(screen).get_by_role("button", name=re.compile("Firm it right through")).click()
        expect(step).to_contain_text("Done when nothing comes off on your finger.")


def test_what_a_coat_really_took_is_typed_and_its_fridge_is_learnt(screen, address):
    new_cake(screen, address, "By the thermometer")
    panel(screen).get_by_label("Due").first.fill("2031-05-09T14:00")
    panel(screen).get_by_label("Due").first.press("Enter")
    lens(screen, "Clock")
    panel(screen).get_by_text("Every step in order").click()
    panel(screen).get_by_role("button", name=re.compile("Firm the final coat")).click()
    step = panel(screen).get_by_role("region", name="The step selected")
    through = step.locator(".row", has_text="Wait, planned")
    expect(through).to_contain_text("min")
    took = step.get_by_label("It took, in the fridge")
    fill(took, "a while")
    expect(step.get_by_text("Type minutes or hours, such as 90, 2 h or 1h30.")).to_be_visible()
    fill(took, "24 h")
    expect(step.get_by_role("alert")).to_have_text(
        re.compile(r"^It is too far off: \d+ minutes are planned. Check the temperatures, and what you timed.$")
    )
    fill(took, "50")
    expect(step).to_contain_text("as well as a usual one")
    expect(through).to_contain_text(re.compile("(49|50|51) min"))
    pace = panel(screen).get_by_label("How well the fridge cools")
    learnt = float(pace.input_value())
    assert 25 <= learnt < 100
    fill(panel(screen).get_by_label("Kitchen is at"), "cosy")
    expect(panel(screen).get_by_text("Type a temperature, such as 21 °C or 70 °F.")).to_be_visible()
    fill(panel(screen).get_by_label("Kitchen is at"), "86 F")
    expect(panel(screen).get_by_label("Kitchen is at")).to_have_value("30")
    panel(screen).get_by_role("group", name="Coats firm in").get_by_text("Freezer").click()
    expect(days(screen)).to_contain_text("Freezer")
    expect(step.get_by_label("It took, in the freezer")).to_be_visible()
    saved(screen)
    screen.reload()
    expect(panel(screen).get_by_label("How well the fridge cools")).to_have_value(f"{learnt:g}")


@pytest.mark.parametrize("size", [(1280, 800), (1024, 768), (768, 1024), (390, 844)])
def test_no_words_of_the_clock_cover_others_or_reach_out(browser, demo_address, size):
    with page(browser, size) as screen:
        for title in ("Fair centrepiece", "Hundred hives jubilee", "Stone from the ford"):
            screen.goto(demo_address)
            screen.get_by_role("link", name=f"Open {title}").click()
            lens(screen, "Clock")
            expect(days(screen).locator(".sheet .label").first).to_be_visible()
            boxes = (
                days(screen)
                .locator(".sheet .label text")
                .evaluate_all(
                    """all => all.map(one => {
                    const box = one.getBoundingClientRect();
                    return [box.left, box.top, box.right, box.bottom, one.textContent.trim()];
                })"""
                )
            )
            room = days(screen).bounding_box()
            assert len(boxes) > 30
            for at, (left, top, right, bottom, words) in enumerate(boxes):
                assert room["x"] <= left and right <= room["x"] + room["width"] + 1, (title, words)
                for other in boxes[at + 1 : at + 6]:
                    apart = (
                        other[0] >= right - 1 or other[2] <= left + 1 or other[1] >= bottom - 4 or other[3] <= top + 4
                    )
                    assert apart, (title, words, other[4])
