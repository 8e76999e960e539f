"""A journey from tiers to a printed placement template: how they stand, what is refused, what is told, in Chromium."""

import io
import re

from playwright.sync_api import expect
from pypdf import PdfReader

from tests.screens.test_journeys import fill, lens, new_cake, panel, saved, what_is_owned


def three_tiers(screen, address):
    new_cake(screen, address, "Stack of three")
    for _ in range(2):
        panel(screen).get_by_role("button", name="Add a tier on top").click()
    lens(screen, "Stack")
    expect(panel(screen).get_by_role("heading", name="Stack, top tier")).to_be_visible()


def row(screen, label):
    return panel(screen).locator(".row", has_text=re.compile(f"^{label}"))


def test_from_an_order_to_a_printed_placement_template(screen, address):
    new_cake(screen, address, "Stack of three")
    for _ in range(2):
        panel(screen).get_by_role("button", name="Add a tier on top").click()
    travels = panel(screen).get_by_label("Does it travel?")
    travels.select_option(label="it is driven")
    fill(panel(screen).get_by_label("Driven for"), "40")
    lens(screen, "Stack")
    expect(panel(screen).get_by_label("Driven for")).to_have_value("40")
    supports = screen.locator(".above .support")
    expect(supports).to_have_count(int(row(screen, "One fewer than its inches: taken").inner_text().split()[-1]))
    panel(screen).locator("label.pick", has_text=re.compile("^Supports")).locator("select").select_option(
        label="wooden dowels"
    )
    expect(panel(screen)).to_contain_text("wooden dowels")
    expect(panel(screen)).to_contain_text("Cut from wooden dowels")
    with screen.expect_download() as cards:
        panel(screen).get_by_role("button", name="Stacking, travel and serving cards").click()
    words = "".join(page.extract_text() for page in PdfReader(cards.value.path()).pages)
    assert "Stack of three: travel card" in words and "Driven for" in words and "40 min" in words
    assert "wooden dowels" in words and "Order of taking down" in words
    with screen.expect_download() as templates:
        panel(screen).get_by_role("button", name=re.compile(r"^Print .*\(PDF\)$")).click()
    printed = "".join(page.extract_text() for page in PdfReader(templates.value.path()).pages)
    assert printed.count("Supports under it") >= 2 and "Front" in printed


def test_a_support_is_moved_by_keys_and_dragged_and_a_place_that_will_not_do_is_told(screen, address):
    three_tiers(screen, address)
    panel(screen).get_by_role("button", name="Move them one by one").click()
    first = screen.locator(".above .support").first
    expect(first).to_have_attribute("aria-label", re.compile("^Support 1: "))
    before = first.get_attribute("aria-label")
    first.focus()
    screen.keyboard.press("ArrowUp")
    expect(first).not_to_have_attribute("aria-label", before)
    box = first.locator(".seen").bounding_box()
    screen.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    screen.mouse.down()
    screen.mouse.move(box["x"] + 160, box["y"] + 40, steps=5)
    screen.mouse.up()
    note = panel(screen).locator(".note.trouble", has_text="Support 1 cannot stand there")
    expect(note).to_contain_text("outside the board above")
    expect(screen.locator(".above .why")).to_contain_text("outside the board above")
    panel(screen).get_by_role("button", name="Move support 1 to the nearest place").click()
    expect(note).to_have_count(0)
    saved(screen)


def test_tiers_that_stand_apart_grow_the_cake_and_a_tested_support_is_counted_by(screen, address):
    three_tiers(screen, address)
    high = screen.locator(".label.total")
    was = high.inner_text()
    panel(screen).get_by_role("radio", name="On pillars").check(force=True)
    expect(high).not_to_have_text(was)
    expect(panel(screen)).to_contain_text("not driven stacked")
    kit = what_is_owned(screen)
    field = kit.locator(".support", has_text="Plastic tubes").get_by_label("One bears, from memory")
    fill(field, "500")
    expect(kit.locator(".support", has_text="Plastic tubes").get_by_label("One bears, by your test")).to_have_value(
        "500"
    )
    kit.get_by_role("button", name="Close").click()
    expect(panel(screen)).to_contain_text("By your own test")
    fill(panel(screen).get_by_label("Off the middle, to the right"), "-1")
    expect(panel(screen).get_by_label("Off the middle, to the right")).to_have_value("-1")


def test_the_cards_are_a_pdf_in_the_units_asked_for(screen, address):
    three_tiers(screen, address)
    saved(screen)
    order = screen.url.split("/orders/")[1].split("/")[0]
    answer = screen.request.get(f"{address}/api/orders/{order}/stacking.pdf?paper=letter&length=mm&weight=oz")
    assert answer.ok
    pages = PdfReader(io.BytesIO(answer.body())).pages
    assert round(float(pages[0].mediabox.width)) == 612
    words = "".join(page.extract_text() for page in pages)
    assert re.search(r"\d mm", words) and re.search(r"\d oz", words) and not re.search(r"\d in\b", words)
