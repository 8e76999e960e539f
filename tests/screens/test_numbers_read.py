"""Numbers that cannot be misread, on screen: whole, at their place, and the same everywhere."""

import re

import pytest
from playwright.sync_api import expect

from tests.screens.test_journeys import fill, lens, new_cake, panel, saved

LONG = "A very long name that somebody gave this tier because the couple wanted it to be called so"


def boxes(screen, selector):
    return screen.locator(selector).evaluate_all(
        """all => all.map((one) => {
            const box = one.getBoundingClientRect();
            return [box.left, box.top, box.right, box.bottom, one.getClientRects().length];
        })"""
    )


@pytest.mark.parametrize("width", [1280, 768])
def test_no_figure_wraps_or_is_pushed_away_by_a_name(screen, address, width):
    screen.set_viewport_size({"width": width, "height": 1024})
    new_cake(screen, address, "Read me")
    fill(panel(screen).get_by_label(re.compile("^(Tier’s name|Name)")).first, LONG)
    for name in ("Cover", "Stack", "Layers"):
        lens(screen, name)
        rows = panel(screen).locator(".row")
        expect(rows.first).to_be_visible()
        found = rows.evaluate_all(
            """all => all.map((row) => {
                const value = row.querySelector('.value');
                if (!value) return null;
                const number = row.querySelector('.number');
                return [value.getBoundingClientRect().right - row.getBoundingClientRect().right,
                    number.getClientRects().length, value.scrollWidth - value.clientWidth];
            }).filter(Boolean)"""
        )
        assert found
        for beyond, lines, hidden in found:
            assert beyond <= 1 and lines == 1 and hidden <= 1
        # A mixed number stands on one line with its fraction.
        for left, top, right, bottom, count in boxes(screen, "aside.panel .frac"):
            assert count == 1 and right > left and bottom > top


def test_a_measure_taken_over_as_it_is_opens_no_working_and_others_do(screen, address):
    new_cake(screen, address, "Workings")
    panel(screen).get_by_role("button", name="Add a tier on top").click()
    lens(screen, "Stack")
    plain = panel(screen).locator("[data-figure$='.apart']").first
    expect(plain).to_be_visible()
    assert plain.evaluate("one => one.tagName") == "SPAN"
    explained = panel(screen).locator("button[data-figure$='.push']").first
    explained.click()
    expect(screen.get_by_role("dialog")).to_contain_text("push")


def test_the_lowest_tier_shows_the_supports_that_are_pushed_into_it_and_weak_ones_are_replaced_by_a_press(
    screen, address
):
    new_cake(screen, address, "Pushed in")
    panel(screen).get_by_role("button", name="Add a tier on top").click()
    lens(screen, "Layers")
    screen.keyboard.press("ArrowUp")
    expect(panel(screen).get_by_role("heading", name=re.compile("^Layers, top"))).to_be_visible()
    fill(panel(screen).get_by_label("Layers", exact=True), "12")
    fill(panel(screen).get_by_label("Each cut at"), "2")
    lens(screen, "Stack")
    panel(screen).locator("label.pick", has_text=re.compile("^Supports")).locator("select").select_option(
        label="straws"
    )
    stronger = panel(screen).get_by_role("button", name=re.compile("^Take "))
    stronger.click()
    expect(stronger).to_have_count(0)
    screen.locator("h2").first.click()
    screen.keyboard.press("ArrowDown")
    expect(panel(screen).get_by_role("heading", name="Pushed into this tier")).to_be_visible()
    expect(screen.locator(".above .support").first).to_be_visible()


def test_a_bowl_in_the_strip_keeps_its_medium_and_its_colour(screen, demo_address):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Fair centrepiece").click()
    bowls = screen.locator("[data-bowl]")
    expect(bowls.filter(has_text="ivory")).to_have_count(1)
    found = bowls.locator("h3:has(b)").evaluate_all(
        """all => all.map((head) => {
            const [medium, colour] = [head.querySelector('span'), head.querySelector('b')];
            const right = head.getBoundingClientRect().right;
            return [medium.clientWidth || medium.getBoundingClientRect().width,
                colour.getBoundingClientRect().right - right, colour.scrollWidth - colour.clientWidth];
        })"""
    )
    assert len(found) >= 2
    for medium, beyond, hidden in found:
        assert medium > 30 and beyond <= 1 and hidden <= 1


def test_a_part_without_a_price_says_so_and_is_never_free(screen, address):
    new_cake(screen, address, "Unpriced")
    lens(screen, "Shop")
    expect(panel(screen).get_by_text("no price", exact=True).first).to_be_visible()
    expect(panel(screen)).not_to_contain_text(re.compile(r"(?<!\d)0\.00"))


def test_an_order_is_called_by_its_tiers_until_somebody_names_it(screen, address):
    screen.goto(address)
    screen.get_by_role("button", name="New cake").first.click()
    title = screen.get_by_label("Title")
    expect(title).to_have_value(re.compile("round$"))
    first = title.input_value()
    panel(screen).get_by_role("button", name="Add a tier on top").click()
    expect(title).not_to_have_value(first)
    assert "/" in title.input_value()
    fill(title, "Named at last")
    panel(screen).get_by_role("button", name="Add a tier on top").click()
    saved(screen)
    expect(title).to_have_value("Named at last")


def test_forced_colours_show_every_digit_once(browser, address):
    context = browser.new_context(forced_colors="active", viewport={"width": 1280, "height": 800})
    try:
        screen = context.new_page()
        new_cake(screen, address, "High contrast")
        lens(screen, "Coats")
        overlays = screen.locator(".measure .fraction")
        assert overlays.count() > 0
        assert not any(overlays.evaluate_all("all => all.map(one => getComputedStyle(one).display !== 'none')"))
    finally:
        context.close()


def test_an_inch_kitchen_begins_with_marks_of_its_ruler(screen, empty_address):
    new_cake(screen, empty_address, "By the inch")
    saved(screen)
    order = screen.url.split("/orders/")[1].split("/")[0]
    practice = screen.request.get(f"{empty_address}/api/orders/{order}").json()["document"]["practice"]
    for name in ("crumb_coat_mm", "coat_side_mm", "fondant_mm", "dam_mm"):
        marks = practice[name] / 25.4 * 16
        assert abs(marks - round(marks)) < 1e-6, name
    assert practice["fondant_mm"] == pytest.approx(25.4 / 8)
