"""The kitchen's usual on its page and in an order; and what a full browser, a bad link and a search do."""

import re

import pytest
from playwright.sync_api import expect

from amber_spread.browser import page
from tests.screens.test_journeys import fill, lens, panel, saved, serious, spills

FULL = """Storage.prototype.setItem = () => { throw new DOMException("full", "QuotaExceededError"); }; null"""


def test_what_is_usual_is_changed_once_and_taken_by_the_next_order(screen, address):
    screen.goto(f"{address}/usual")
    fill(screen.get_by_role("textbox", name="Filling", exact=True), "9 mm")
    expect(screen.get_by_role("status").filter(has_text="Saved")).to_be_visible()
    assert serious(screen) == []
    assert spills(screen) == [0, 0]
    screen.get_by_role("radio", name="Techniques").check(force=True)
    fill(screen.get_by_role("textbox", name=re.compile("^By scraper: In hand")), "40")
    expect(screen.get_by_role("status").filter(has_text="Saved")).to_be_visible()
    screen.get_by_role("button", name="Earlier ones").click()
    expect(screen.get_by_role("dialog").get_by_role("listitem")).to_have_count(2)
    screen.keyboard.press("Escape")

    screen.goto(address)
    screen.get_by_role("button", name="New cake").first.click()
    panel(screen).get_by_text("How this order is worked").click()
    expect(panel(screen)).to_contain_text("All of it is as our usual is now")
    crumb = panel(screen).get_by_role("textbox", name="Crumb coat", exact=True)
    fill(crumb, "3 mm")
    expect(panel(screen)).to_contain_text("Other than our usual: Crumb coat.")
    panel(screen).get_by_role("button", name="Take these as our usual").click()
    expect(panel(screen)).to_contain_text("The kitchen works so from now on")
    fill(crumb, "4 mm")
    panel(screen).get_by_role("button", name="Bring this order up to our usual").click()
    expect(panel(screen)).to_contain_text("All of it is as our usual is now")
    saved(screen)
    lens(screen, "Layers")
    expect(screen.locator(".panel input[data-edits='tiers.1.layers.filling.thickness']")).to_have_value(
        re.compile("3/8")
    )


def test_a_browser_that_is_full_loses_no_edit_and_says_nothing_untrue(screen, address):
    screen.goto(address)
    screen.get_by_role("button", name="New cake").first.click()
    screen.evaluate(FULL)
    fill(screen.get_by_role("textbox", name="Title"), "Kept all the same")
    saved(screen)
    screen.reload()
    expect(screen.get_by_role("textbox", name="Title")).to_have_value("Kept all the same")


def test_what_one_screen_saves_the_others_show_at_once(browser, screen, empty_address):
    screen.goto(empty_address)
    screen.get_by_role("button", name="New cake").first.click()
    fill(screen.get_by_role("textbox", name="Title"), "One cake, two screens")
    saved(screen)
    with page(browser) as other, page(browser, (1024, 768)) as shelf:
        shelf.goto(empty_address)
        expect(shelf.get_by_text("One cake, two screens")).to_be_visible()
        other.goto(screen.url)
        expect(other.get_by_role("textbox", name="Title")).to_have_value("One cake, two screens")
        fill(screen.get_by_role("textbox", name="Title"), "Two screens, one cake")
        saved(screen)
        expect(other.get_by_role("textbox", name="Title")).to_have_value("Two screens, one cake", timeout=3000)
        expect(other.get_by_text("Changed elsewhere")).to_be_visible()
        expect(shelf.get_by_text("Two screens, one cake")).to_be_visible(timeout=3000)
        assert spills(other) == [0, 0]
        assert serious(other) == []


def test_the_api_is_described_with_scripts_of_our_own(screen, address):
    asked = []
    screen.on("request", lambda request: asked.append(request.url))
    screen.goto(f"{address}/api/docs")
    expect(screen.get_by_text("/api/orders/{id}/revisions/{number}/again")).to_be_visible()
    assert all(url.startswith((address, "data:", "blob:")) for url in asked)


@pytest.mark.parametrize("size", [(1024, 768), (768, 1024), (640, 400)])
def test_no_page_reaches_over_a_smaller_window(browser, demo_address, size):
    with page(browser, size) as screen:
        for place in ("", "/usual", "/pantry"):
            screen.goto(demo_address + place)
            expect(screen.get_by_role("heading", level=1)).to_be_visible()
            assert spills(screen) == [0, 0]
