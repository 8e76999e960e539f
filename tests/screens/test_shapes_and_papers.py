"""Journeys through shapes, covers, the kit, templates and the quick line, in headless Chromium."""

import io
import re

from playwright.sync_api import expect
from pypdf import PdfReader

from amber_spread.browser import page
from tests.screens.test_journeys import fill, lens, new_cake, panel, saved, spills, what_is_owned

HEART = b"""<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="160mm" viewBox="0 0 180 160">
<path d="M90 150 C-40 60 40 -30 90 30 C140 -30 220 60 90 150 Z"/></svg>"""


def choose(screen, name):
    panel(screen).get_by_role("radio", name=name, exact=True).check(force=True)


def number(screen, id):
    return float(screen.locator(f"[data-figure='{id}'] .number").first.inner_text().split()[0])


def test_a_drum_is_stood_on_its_side_and_what_cannot_be_cut_is_said_there(screen, address):
    new_cake(screen, address, "Drum")
    choose(screen, "on its side")
    expect(panel(screen)).to_contain_text("Flat foot, wide")
    fill(panel(screen).get_by_label("Cut off the rim"), "4.5 in")
    expect(panel(screen).get_by_role("alert").first).to_contain_text("higher than the middle")
    fill(panel(screen).get_by_label("Cut off the rim"), "1 in")
    expect(panel(screen).get_by_role("alert")).to_have_count(0)
    saved(screen)
    screen.reload()
    expect(panel(screen).get_by_label("Cut off the rim")).to_have_value("1")


def test_dragging_an_edge_catches_at_an_owned_tin_and_is_one_step_to_undo(screen, address):
    new_cake(screen, address, "Edge")
    grip = screen.locator("svg .grip").bounding_box()
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    across = screen.locator("svg .outside path").first.bounding_box()["width"]
    screen.mouse.move(x, y)
    screen.mouse.down()
    screen.mouse.move(x - across * 0.24, y, steps=5)
    expect(screen.locator(".frame svg")).to_contain_text("10 in tin, owned")
    screen.mouse.up()
    tin = panel(screen).get_by_label("Tin, across").first
    expect(tin).to_have_value("10")
    screen.get_by_role("button", name="Undo").click()
    expect(tin).to_have_value("8")


def test_a_turned_wall_is_drawn_by_its_points(screen, address):
    new_cake(screen, address, "Vase")
    choose(screen, "turned")
    point = screen.locator("svg circle[r='9']").nth(1)
    box = point.bounding_box()
    screen.mouse.move(box["x"] + 9, box["y"] + 9)
    screen.mouse.down()
    screen.mouse.move(box["x"] - 40, box["y"] - 15, steps=4)
    screen.mouse.up()
    saved(screen)
    middle = panel(screen).locator(".point").nth(1)
    assert int(middle.get_by_role("textbox").nth(1).input_value()) < 75
    assert int(middle.get_by_role("textbox").nth(0).input_value()) > 50
    screen.get_by_role("button", name="Another point").click()
    expect(screen.locator("svg circle[r='9']")).to_have_count(4)
    assert spills(screen) == [0, 0]


def test_a_piece_lights_up_on_the_mat_in_the_panel_and_on_the_cake(screen, demo_address):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Raffle hive").click()
    lens(screen, "Cover")
    piece = screen.locator(".mat .piece").first
    piece.hover()
    expect(panel(screen).locator(".piece.lit")).to_have_count(1)
    expect(screen.locator(".frame svg .part.lit")).to_have_count(1)
    panel(screen).locator(".piece").nth(1).hover()
    expect(screen.locator(".mat .piece.lit")).to_have_count(1)


def test_templates_are_printed_as_the_screen_has_them(screen, address):
    new_cake(screen, address, "Paper wasps")
    lens(screen, "Cover")
    choose(screen, "Panel")
    expect(panel(screen)).to_contain_text("Ends overlap")
    with screen.expect_download() as caught:
        panel(screen).get_by_role("button", name=re.compile(r"^Print .*\(PDF\)$")).click()
    with open(caught.value.path(), "rb") as file:
        pages = PdfReader(io.BytesIO(file.read())).pages
    words = " ".join(page.extract_text() for page in pages)
    assert "Panel" in words and "Paper wasps" in words and "This side up" in words
    for name, file in (("As SVG", "templates.svg"), ("As DXF", "templates.dxf"), ("Amounts, CSV", "amounts.csv")):
        with screen.expect_download() as caught:
            panel(screen).get_by_role("button", name=name).click()
        assert caught.value.suggested_filename == f"Paper wasps {file}"


def test_what_is_owned_changes_what_is_to_be_got(screen, address):
    new_cake(screen, address, "Discs")
    lens(screen, "Coats")
    choose(screen, "Disc")
    fill(panel(screen).get_by_label("Disc or card, across"), "9")
    need = panel(screen).locator(".need", has_text="Disc")
    expect(need).to_contain_text("next best")
    dialog = what_is_owned(screen)
    dialog.get_by_label("Another disc").fill("wide")
    dialog.get_by_role("button", name="Add a disc").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Type a length")
    dialog.get_by_label("Another disc").fill("9")
    dialog.get_by_role("button", name="Add a disc").click()
    expect(dialog.get_by_role("button", name="Remove the 9 in disc")).to_be_visible()
    screen.keyboard.press("Escape")
    # Closing goes a step back in the history; a reload before that is done would be aborted.
    expect(dialog).to_be_hidden()
    expect(need).to_contain_text("have")
    screen.reload()
    expect(panel(screen).locator(".need", has_text="Disc")).to_contain_text("have")


def test_a_cake_is_typed_as_a_line_and_what_cannot_be_read_is_explained(screen, address):
    new_cake(screen, address, "Line")
    screen.locator("h2").first.click()
    screen.keyboard.press("/")
    line = screen.get_by_role("textbox", name="The cake in one line")
    expect(line).to_have_value(re.compile("^8in round"))
    line.fill("10 x 5 round; 8 x 5 wobbly | fill lemon curd dam | fondant 3mm")
    expect(screen.locator(".under .unread")).to_have_text("wobbly")
    expect(screen.get_by_role("button", name="Make this cake")).to_be_disabled()
    line.fill("10in hexgon, 8in, dark ganache")
    screen.get_by_role("button", name="Yes, hexagon").click()
    expect(line).to_have_value("10in hexagon, 8in, dark ganache")
    expect(screen.get_by_role("img", name="The cake as the line says it")).to_be_visible()
    line.fill("10 x 5 round; 8 x 5; 6 x 4 tapered 5in | fill lemon curd dam | coat meringue 6mm | fondant 3mm")
    expect(screen.locator(".under .unread")).to_have_count(0)
    screen.keyboard.press("Enter")
    expect(screen.locator(".frame svg .outside")).to_have_count(3)
    saved(screen)
    screen.get_by_role("button", name="Undo").click()
    expect(screen.locator(".frame svg .outside")).to_have_count(1)


def test_an_outline_is_read_from_a_drawing_and_a_bad_one_changes_nothing(screen, address):
    new_cake(screen, address, "Drawn")
    choose(screen, "an outline of your own")
    upload = panel(screen).locator("input[type=file]")
    upload.set_input_files(
        {
            "name": "open.svg",
            "mimeType": "image/svg+xml",
            "buffer": b"<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0 H300 V300'/></svg>",
        }
    )
    expect(panel(screen).get_by_role("alert")).to_contain_text("The edge is open")
    before = panel(screen).get_by_label("Tin, across").first.input_value()
    upload.set_input_files({"name": "heart.svg", "mimeType": "image/svg+xml", "buffer": HEART})
    expect(panel(screen).get_by_label("Tin, across").first).not_to_have_value(before)
    saved(screen)


def test_a_cake_that_came_out_leaning_says_where_to_build_up(screen, address):
    new_cake(screen, address, "Leaning")
    lens(screen, "Coats")
    screen.get_by_role("button", name="Measure this tier").click()
    fill(panel(screen).get_by_label("Top, left to right"), "7 1/2")
    expect(panel(screen)).to_contain_text("Build up left, at the top")
    expect(panel(screen).locator("[data-figure='tiers.1.coats.build_up.weight']")).not_to_have_text(re.compile("^0"))
    assert number(screen, "tiers.1.coats.build_up.weight") > 10
    saved(screen)


def test_every_page_goes_to_paper_whole_and_without_its_buttons(browser, demo_address):
    with page(browser) as screen:
        for path, last in (
            ("/", "Hundred hives jubilee"),
            ("/usual", "Baked cake weighs"),
            ("/pantry", "Beat in the sugar"),
        ):
            screen.goto(demo_address + path)
            expect(screen.get_by_text(last).first).to_be_attached()
            printed = PdfReader(io.BytesIO(screen.pdf(format="A4")))
            words = " ".join(" ".join(sheet.extract_text().split()) for sheet in printed.pages)
            assert last in words, path
            assert not any(act in words for act in ("Undo", "New cake", "Save as CSV", "Back to the shelf")), path
