"""From a colour on one tier to the bowls, the risk, the list for the shop and the prices, in headless Chromium."""

import re

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

from amber_spread.browser import page
from tests.clients import OURS
from tests.screens.test_journeys import fill, lens, overlaps, panel, saved, serious, spills
from tests.screens.test_mixing import grams

PRICES = """item;pack;price
Butter;250 g;2,65
Unicorn dust;1 kg;9,00
Cake board 8 in;5;3,10
Sugar;-1 kg;1,20
"""


def choose(screen, label, words):
    panel(screen).get_by_role("combobox", name=re.compile(f"^{label}: ")).click(force=True)
    screen.get_by_role("option", name=words).click()


def send(screen, label, name, text):
    file = {"name": name, "mimeType": "text/csv", "buffer": text.encode("cp1252")}
    screen.get_by_label(label).set_input_files(file)


def prices(screen, address):
    screen.goto(f"{address}/pantry")
    screen.get_by_role("radio", name="Prices").check(force=True)


def smallest_butter(screen):
    return screen.get_by_label("Butter, price").first


def test_a_colour_splits_the_bowls_a_risk_fills_them_and_the_list_is_printed(screen, demo_address, tmp_path):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Hundred hives jubilee").click()
    expect(screen.locator("svg .outside").first).to_be_visible()
    lens(screen, "Mix")
    expect(screen.locator("[data-vessel]")).to_have_count(4)
    honey = screen.locator("[data-vessel='meringue_buttercream~honey']")
    honey.click()
    shared = grams(panel(screen).locator("[data-figure='bowls.meringue_buttercream~honey.mix']"))

    lens(screen, "Brief")
    panel(screen).get_by_role("button", name="Add a colour").click()
    fill(panel(screen).get_by_role("textbox", name=re.compile("^Name of colour")).last, "smoke")
    lens(screen, "Coats")
    choose(screen, "Final coat, colour", "smoke")
    lens(screen, "Mix")
    expect(screen.locator("[data-vessel]")).to_have_count(5)
    honey.click()
    mix = panel(screen).locator("[data-figure='bowls.meringue_buttercream~honey.mix']")
    alone = grams(mix)
    assert alone < shared
    base = panel(screen).locator("[data-figure^='bases.meringue_buttercream.tints']")
    expect(base).to_have_count(4)

    panel(screen).get_by_role("radio", name="1 in 100").check(force=True)
    at_risk = panel(screen).locator("[data-figure='bowls.meringue_buttercream~honey.at_risk.1_in_100']")
    expect(mix).to_have_text(at_risk.inner_text())
    assert grams(mix) > alone
    saved(screen)

    screen.locator("h2").first.click()
    screen.keyboard.press("8")
    expect(screen.locator("[data-want='butter']")).to_be_visible()
    assert serious(screen) == []
    with screen.expect_download() as printed:
        screen.get_by_role("button", name="Print the list (PDF)").click()
    printed.value.save_as(tmp_path / "list.pdf")
    words = " ".join(sheet.extract_text() for sheet in PdfReader(tmp_path / "list.pdf").pages)
    for row in screen.locator("label:has([data-want]) .name").all_inner_texts():
        assert " ".join(row.split()) in " ".join(words.split()), row
    price = panel(screen).locator("[data-figure$='cost.price']").first.inner_text()
    assert re.search(r"€\s*\d", price)


def test_a_price_list_with_two_bad_lines_is_refused_line_by_line_and_mended_is_taken(screen, demo_address):
    prices(screen, demo_address)
    before = smallest_butter(screen).input_value()
    assert before not in ("", "2.65")
    send(screen, "Take over a price list", "fair.csv", PRICES)
    told = screen.get_by_role("alert")
    expect(told).to_contain_text("Nothing of fair.csv was taken over")
    expect(told.locator("li")).to_have_count(2)
    expect(told).to_contain_text("Line 3, item: “Unicorn dust” is not known here")
    expect(told).to_contain_text("Line 5, pack: “-1” is less than nothing")
    expect(smallest_butter(screen)).to_have_value(before)

    mended = "\n".join(line for line in PRICES.splitlines() if "Unicorn" not in line).replace("-1 kg", "1 kg")
    send(screen, "Take over a price list", "fair.csv", mended)
    expect(screen.locator("main").get_by_role("status")).to_contain_text("every line of it")
    expect(smallest_butter(screen)).to_have_value("2.65")
    screen.get_by_role("button", name="Undo").click()
    expect(smallest_butter(screen)).to_have_value(before)
    screen.get_by_role("button", name="Redo").click()
    expect(smallest_butter(screen)).to_have_value("2.65")


def test_a_changed_recipe_outlives_the_page_and_counts_once_it_is_kept(screen, demo_address):
    screen.goto(f"{demo_address}/pantry")
    screen.get_by_role("button", name=re.compile("^Sugar syrup")).click()
    fill(screen.get_by_label("Ingredient 1: amount"), "gravel")
    expect(screen.get_by_role("alert")).to_be_visible()
    expect(screen.get_by_label("Ingredient 1: amount")).to_have_value("gravel")
    fill(screen.get_by_label("Ingredient 1: amount"), "640 g")
    screen.reload()
    syrup = screen.get_by_role("button", name=re.compile("^Sugar syrup"))
    expect(syrup).to_contain_text("changed, not kept")
    syrup.click()
    expect(screen.get_by_label("Ingredient 1: amount")).to_have_value("640 g")
    screen.get_by_role("button", name="Keep these changes").click()
    expect(syrup).to_contain_text("ours")
    screen.get_by_role("button", name="Take ours away").click()
    expect(syrup).not_to_contain_text("ours")
    expect(screen.get_by_label("Ingredient 1: amount")).not_to_have_value("640 g")


def test_a_medium_of_ones_own_is_weighed_and_offered_as_a_coat(screen, demo_address):
    screen.goto(f"{demo_address}/pantry")
    screen.get_by_role("radio", name="What we use").check(force=True)
    screen.get_by_role("button", name="A medium of ours").click()
    fill(screen.get_by_label("Name", exact=True), "Heather cream")
    expect(screen.get_by_role("button", name=re.compile("^Heather cream"))).to_be_visible()
    fill(screen.get_by_label(re.compile("^It weighs")), "168")
    screen.get_by_role("button", name="Take this weight").click()
    expect(screen.locator("article")).to_contain_text("0.7 g")
    screen.goto(demo_address)
    screen.get_by_role("button", name="New cake").first.click()
    expect(screen.locator("svg .part").first).to_be_visible()
    lens(screen, "Coats")
    choose(screen, "Final coat", "Heather cream")
    expect(screen.locator("footer")).to_contain_text("Heather cream")


def test_a_recipe_that_two_people_change_is_neither_lost_nor_silently_replaced(screen, demo_address):
    screen.goto(f"{demo_address}/pantry")
    screen.get_by_role("button", name=re.compile("^Cooked-flour buttercream")).click()
    field = screen.get_by_label("Ingredient 1: amount")
    fill(field, "111 g")
    keep = screen.get_by_role("button", name="Keep these changes")
    keep.click()
    expect(keep).to_be_disabled()

    kept = screen.request.get(f"{demo_address}/api/pantry").json()
    theirs = next(one for one in kept["pantry"]["recipes"] if one["lines"][0]["amount"] == 111)
    theirs["lines"][0]["amount"] = 222
    sent = {"began_from": kept["number"], "pantry": kept["pantry"]}
    fill(field, "333 g")
    with screen.expect_response("**/api/pantry"):
        assert screen.request.put(f"{demo_address}/api/pantry", data=sent, headers=dict(OURS)).ok
    expect(field).to_have_value("333 g")
    keep.click()
    expect(screen.get_by_role("alert")).to_contain_text("Somebody else changed this recipe meanwhile")
    expect(field).to_have_value("333 g")
    keep.click()
    expect(keep).to_be_disabled()
    found = screen.request.get(f"{demo_address}/api/pantry").json()["pantry"]["recipes"]
    assert next(one for one in found if one["key"] == theirs["key"])["lines"][0]["amount"] == 333

    kept = screen.request.get(f"{demo_address}/api/pantry").json()
    next(one for one in kept["pantry"]["recipes"] if one["key"] == theirs["key"])["lines"][0]["amount"] = 444
    field.press_sequentially("5")
    with screen.expect_response("**/api/pantry"):
        sent = {"began_from": kept["number"], "pantry": kept["pantry"]}
        assert screen.request.put(f"{demo_address}/api/pantry", data=sent, headers=dict(OURS)).ok
    expect(field).to_have_value(re.compile("5"))
    field.press("Escape")
    expect(field).to_have_value("444 g")


SLOW = """const quick = window.fetch;
window.fetch = async (...asked) => {
  await new Promise((done) => setTimeout(done, 500));
  return quick(...asked);
};"""


def test_over_a_slow_line_nothing_typed_is_lost_and_a_second_click_takes_nothing_more(screen, demo_address):
    screen.add_init_script(SLOW)
    screen.goto(f"{demo_address}/pantry")
    screen.get_by_role("radio", name="What we use").check(force=True)
    screen.get_by_role("button", name="A medium of ours").click()
    screen.keyboard.type("Clover cream")
    screen.keyboard.press("Enter")
    screen.get_by_role("checkbox", name="soya").click()
    screen.get_by_role("checkbox", name="crusts").click()
    expect(screen.get_by_role("button", name="Clover cream ours")).to_be_visible()
    expect(screen.get_by_role("checkbox", name="soya")).to_be_checked()
    expect(screen.get_by_role("checkbox", name="crusts")).to_be_checked()
    expect(screen.locator("header [role='status']")).to_have_text("Saving …")
    expect(screen.locator("header [role='status']")).to_have_text("Saved")
    screen.reload()
    screen.get_by_role("radio", name="What we use").check(force=True)
    screen.get_by_role("button", name="Clover cream ours").click()
    expect(screen.get_by_role("checkbox", name="soya")).to_be_checked()
    expect(screen.get_by_role("checkbox", name="crusts")).to_be_checked()
    screen.get_by_role("button", name="Take ours away").click()
    expect(screen.get_by_role("button", name=re.compile("^Clover cream"))).to_have_count(0)

    screen.get_by_role("radio", name="Larder").check(force=True)
    lines = screen.locator("tbody tr")
    before = lines.count()
    assert before > 2
    name = lines.first.get_attribute("data-item")
    lines.first.get_by_role("button").dblclick()
    expect(lines).to_have_count(before - 1)
    expect(screen.locator(f"tr[data-item='{name}']")).to_have_count(0)
    screen.get_by_role("button", name="Undo").click()
    expect(lines).to_have_count(before)

    screen.get_by_role("radio", name="Prices").check(force=True)
    item, pack = screen.get_by_label("Item", exact=True), screen.get_by_label("A pack holds", exact=True)
    item.fill("Salt")
    pack.fill("750 g")
    pack.press("Enter")
    item.fill("Honey")
    expect(screen.locator("tr[data-item='salt']")).to_have_count(2)
    expect(pack).to_have_value("")
    expect(item).to_have_value("Honey")


@pytest.mark.parametrize("size", [(1280, 800), (1024, 768)])
def test_the_pantry_reads_well_and_axe_finds_nothing_serious(browser, demo_address, size):
    with page(browser, size) as screen:
        screen.goto(f"{demo_address}/pantry")
        for room in ("Recipes", "What we use", "Prices", "Larder", "What work costs"):
            screen.get_by_role("radio", name=room).check(force=True)
            screen.wait_for_timeout(200)
            assert serious(screen) == [], room
            assert overlaps(screen) == [], room
            assert spills(screen) == [0, 0], room
