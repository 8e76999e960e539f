"""A cake is carved to a view, from the first corner to the printed layers, in headless Chromium."""

import io
import re

import ezdxf
import pytest
import trimesh
from PIL import Image, ImageDraw
from playwright.sync_api import expect
from pypdf import PdfReader

from tests.screens.test_journeys import lens, new_cake, overlaps, panel, saved, serious, spills

SIDE = b"""<svg xmlns="http://www.w3.org/2000/svg" width="220mm" height="90mm" viewBox="0 0 220 90">
<path d="M10 90 H210 V60 L150 10 H60 L10 60 Z"/></svg>"""


def figure(screen, name):
    return panel(screen).locator(f"[data-figure='tiers.1.{name}']")


def figure_of(screen, parts, name):
    """A figure of the one part in that list, whatever its id."""
    return panel(screen).locator(f"[data-figure^='tiers.1.{parts}.'][data-figure$='.{name}']")


def corners(screen):
    return screen.locator(".views .corner")


def test_what_is_seen_from_above_is_drawn_by_corners_too_or_read_from_a_drawing(screen, address, tmp_path):
    new_cake(screen, address, "Leaf")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="Carve the cake").click()
    expect(figure(screen, "carving.coats")).to_be_visible(timeout=30_000)
    layer = screen.locator(".views .above")
    before = layer.get_attribute("aria-label")
    panel(screen).get_by_role("radio", name="Above").check(force=True)
    panel(screen).get_by_role("button", name="Draw it from above").click()
    expect(corners(screen)).to_have_count(8)
    # The corner at the back is drawn in by keys, and what each layer is cut to follows.
    corners(screen).nth(2).focus()
    for _ in range(4):
        screen.keyboard.press("ArrowDown")
    expect(corners(screen).nth(2)).to_have_attribute("aria-label", re.compile("to the back$"))
    expect(layer).not_to_have_attribute("aria-label", before)
    saved(screen)
    drawing = ezdxf.new("R2010")
    drawing.header["$INSUNITS"] = 4
    corners_mm = [(0, 0), (240, 20), (300, 90), (200, 150), (40, 120)]
    drawing.modelspace().add_lwpolyline(corners_mm, close=True)
    drawing.saveas(tmp_path / "leaf.dxf")
    panel(screen).get_by_label("Read a drawing (SVG, DXF)").set_input_files(tmp_path / "leaf.dxf")
    expect(corners(screen)).to_have_count(5)
    expect(panel(screen).get_by_label("Tin, across").first).to_have_value(re.compile("11 13/16"))
    panel(screen).get_by_role("button", name="As a round tin instead").click()
    expect(panel(screen).get_by_text("From above it is as the tin.")).to_be_visible()
    assert serious(screen) == []


def test_a_cake_is_carved_to_a_view_and_its_layers_are_printed(screen, address):
    new_cake(screen, address, "Stone")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="Carve the cake").click()
    expect(corners(screen)).to_have_count(8)
    expect(figure(screen, "carving.coats")).to_be_visible(timeout=30_000)
    high = figure(screen, "layers.height").inner_text()

    # By the pointer: its highest corner is drawn up, and the cake is higher.
    box = corners(screen).nth(5).locator(".seen").bounding_box()
    screen.mouse.move(box["x"] + 5, box["y"] + 5)
    screen.mouse.down()
    screen.mouse.move(box["x"] + 5, box["y"] - 24, steps=4)
    screen.mouse.up()
    expect(figure(screen, "layers.height")).not_to_have_text(high)

    # By the keys: a corner more, moved, and taken out again.
    screen.get_by_role("button", name="Another corner after corner 3").focus()
    screen.keyboard.press("Enter")
    expect(corners(screen)).to_have_count(9)
    fourth = corners(screen).nth(3)
    fourth.focus()
    before = fourth.get_attribute("aria-label")
    screen.keyboard.press("ArrowRight")
    expect(fourth).not_to_have_attribute("aria-label", before)
    screen.keyboard.press("Delete")
    expect(corners(screen)).to_have_count(8)

    # Smooth by the keys, so that the line runs through it in a curve; and turned there again by its button.
    line = screen.locator("#carved-view path")
    corners(screen).nth(5).focus()
    screen.keyboard.press("s")
    expect(corners(screen).nth(5)).to_have_attribute("aria-label", re.compile("^Smooth corner 6"))
    expect(line).to_have_attribute("d", re.compile("C.*C"))
    panel(screen).get_by_role("button", name="Let it turn").click()
    expect(line).not_to_have_attribute("d", re.compile("C"))
    panel(screen).get_by_role("button", name="Make it smooth").click()
    expect(line).to_have_attribute("d", re.compile("C.*C"))
    saved(screen)

    panel(screen).get_by_text("the outline moves").nth(1).click()
    expect(screen.locator(".views .above")).to_have_attribute("aria-label", re.compile("Layer 2: .* from above"))
    assert serious(screen) == []
    assert overlaps(screen) == []
    assert spills(screen) == [0, 0]

    # Sliced at any height, by the keys and by the pointer; and whole layers again.
    handle, above = screen.get_by_role("slider", name="Slice at a height"), screen.locator(".views .above")
    handle.focus()
    screen.keyboard.press("Home")
    expect(above).to_have_attribute("aria-label", re.compile("^Sliced 0 in up"))
    foot = above.locator("path.bottom").first.get_attribute("d")
    screen.keyboard.press("ArrowUp")
    expect(handle).to_have_attribute("aria-valuetext", re.compile("^[1-3]/(8|16) in up, layer 1"))
    expect(above.locator("path.bottom").first).not_to_have_attribute("d", foot)
    box = handle.locator(".track").bounding_box()
    screen.mouse.move(box["x"] + 22, box["y"] + box["height"] - 22)
    screen.mouse.down()
    screen.mouse.move(box["x"] + 22, box["y"] - 60, steps=6)
    expect(screen.locator(".given .sliced")).to_have_count(1)
    screen.mouse.up()
    expect(above).to_have_attribute("aria-label", re.compile(r"^Sliced [3-9].* in up"))
    assert serious(screen) == []
    assert overlaps(screen) == []
    screen.keyboard.press("Escape")
    expect(above).to_have_attribute("aria-label", re.compile("Layer .* from above"))
    expect(screen.locator(".given .sliced")).to_have_count(0)

    # Paste built out beyond a tin lets a smaller one serve; nonsense is said where it was typed.
    beyond, built = panel(screen).get_by_label("Paste beyond a tin, up to"), "[data-figure='carved.tier_1.built_paste']"
    expect(panel(screen).locator("[data-figure='carved.tier_1.loads']")).to_be_visible()
    beyond.fill("plenty")
    beyond.press("Enter")
    expect(panel(screen).get_by_text("Type a length, such as")).to_be_visible()
    beyond.fill("1")
    beyond.press("Enter")
    expect(panel(screen).locator(built)).to_be_visible(timeout=30_000)
    beyond.fill("")
    beyond.press("Enter")
    expect(panel(screen).locator(built)).to_have_count(0)

    # A view from the front gives every section its form, and what is drawn too slim is said.
    stays = figure(screen, "carving.coats").inner_text()
    panel(screen).get_by_role("radio", name="Front").check(force=True)
    panel(screen).get_by_role("button", name="Draw its sections").click()
    expect(corners(screen)).to_have_count(7)
    expect(figure(screen, "carving.coats")).not_to_have_text(stays)
    corners(screen).nth(4).focus()
    for _ in range(12):
        screen.keyboard.press("ArrowUp")
    expect(panel(screen).locator(".notes")).to_contain_text("Seen from the front")
    saved(screen)

    # It differs from end to end: the drawn section at both, then the right end rounded off, and one more between.
    stays = figure(screen, "carving.coats").inner_text()
    panel(screen).get_by_role("button", name="Let it differ from end to end").click()
    panel(screen).get_by_text("100 % along, drawn").click()
    panel(screen).get_by_role("button", name="Round it off instead").click()
    expect(figure(screen, "carving.coats")).not_to_have_text(stays)
    panel(screen).get_by_role("button", name="Another section").click()
    expect(panel(screen).get_by_text("50 % along, drawn")).to_be_visible()
    at = panel(screen).get_by_label("So far from the left end")
    at.fill("0")
    at.press("Enter")
    expect(panel(screen).get_by_text("a place of its own")).to_be_visible(timeout=30_000)
    at.fill("75")
    at.press("Enter")
    expect(screen.locator(".given svg text").first).to_have_text("Section 2 of 3")
    screen.locator(".given").get_by_role("button", name="Closer").click()
    expect(screen.locator(".given").get_by_role("button", name="All of it")).to_be_visible()
    saved(screen)
    assert serious(screen) == []

    with screen.expect_download() as taken:
        panel(screen).get_by_role("button", name=re.compile(r"^Print .*\(PDF\)$")).click()
    words = "".join(sheet.extract_text() for sheet in PdfReader(io.BytesIO(taken.value.path().read_bytes())).pages)
    assert "View from the side" in words
    assert "Layer 1" in words and "Layer 3" in words


def test_a_view_is_read_from_a_drawing_and_one_that_crosses_itself_is_said(screen, address, tmp_path):
    new_cake(screen, address, "Cliff")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="Carve the cake").click()
    expect(corners(screen)).to_have_count(8)
    (tmp_path / "side.svg").write_bytes(SIDE)
    panel(screen).locator("input[type=file]").first.set_input_files(tmp_path / "side.svg")
    expect(corners(screen)).to_have_count(6)
    expect(panel(screen).get_by_label("Tin, across").first).to_have_value("7 7/8")
    saved(screen)

    # A corner drawn through the edge on the other side.
    box, foot = (corners(screen).nth(at).locator(".seen").bounding_box() for at in (2, 0))
    screen.mouse.move(box["x"] + 5, box["y"] + 5)
    screen.mouse.down()
    screen.mouse.move(foot["x"] + 60, foot["y"] + 60, steps=5)
    screen.mouse.up()
    expect(panel(screen).get_by_role("alert").first).to_contain_text("crosses or touches itself")
    screen.get_by_role("button", name="Undo").click()
    expect(panel(screen).get_by_role("alert")).to_have_count(0, timeout=30_000)
    panel(screen).get_by_role("button", name="Round its corners").click()
    expect(corners(screen)).to_have_count(10)
    saved(screen)


def test_a_cake_is_built_of_solids_and_seen_in_the_round(screen, address):
    new_cake(screen, address, "Tower")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="Solids", exact=True).click()
    solids = screen.locator(".views .solid")
    expect(solids).to_have_count(3)
    width = panel(screen).get_by_label("Wide, all of it").first
    expect(width).to_have_value("8")

    # One more, moved by the keys and dragged: the body is as wide as its solids come to.
    panel(screen).get_by_role("button", name="Another").click()
    expect(solids).to_have_count(4)
    fourth = screen.get_by_role("button", name="Solid 4, ball")
    fourth.focus()
    before = fourth.get_attribute("aria-label")
    screen.keyboard.press("ArrowRight")
    expect(screen.get_by_role("button", name=before, exact=True)).to_have_count(0)
    box = fourth.locator("path").bounding_box()
    at = box["x"] + box["width"] / 2, box["y"] + 6
    screen.mouse.move(*at)
    screen.mouse.down()
    screen.mouse.move(at[0] + 70, at[1], steps=4)
    screen.mouse.up()
    expect(width).not_to_have_value("8")
    expect(panel(screen)).not_to_contain_text("drawn out to that width")
    field = panel(screen).get_by_label("Across", exact=True)
    field.fill("4 in")
    field.press("Enter")
    expect(field).to_have_value("4")

    # Drawn out to another width its solids are larger than is said of them, until they are given that size.
    width.fill("12 in")
    width.press("Enter")
    expect(panel(screen)).to_contain_text("drawn out to that width")
    panel(screen).get_by_role("button", name="Give every solid the size").click()
    expect(panel(screen)).not_to_contain_text("drawn out to that width", timeout=30_000)
    expect(width).to_have_value("12")
    saved(screen)
    assert serious(screen) == []
    assert overlaps(screen) == []
    assert spills(screen) == [0, 0]

    # Far off, and back: what does not hang together is said where it was done.
    far = panel(screen).get_by_label("Moved to the right")
    far.fill("30 in")
    far.press("Enter")
    expect(panel(screen).get_by_role("alert").first).to_contain_text("do not touch")
    screen.get_by_role("button", name="Undo").click()
    expect(panel(screen).get_by_role("alert")).to_have_count(0, timeout=30_000)

    screen.get_by_role("button", name="In the round").click()
    canvas = screen.locator(".round canvas")
    expect(screen.locator(".round .head")).to_contain_text("In the round")
    canvas.focus()
    said = canvas.get_attribute("aria-label")
    screen.keyboard.press("ArrowLeft")
    expect(canvas).not_to_have_attribute("aria-label", said)
    screen.get_by_label("tins", exact=True).check()
    assert serious(screen) == []

    # A bite out of it is filled with something else, which has a bowl of its own.
    panel(screen).get_by_role("button", name="Cut an opening").click()
    takes = figure_of(screen, "carving.openings", "volume")
    expect(takes).to_be_visible(timeout=30_000)
    openings, before = panel(screen).get_by_role("group", name="Openings"), takes.inner_text()
    openings.get_by_label("Across", exact=True).fill("2 in")
    openings.get_by_label("Across", exact=True).press("Enter")
    expect(takes).not_to_have_text(before, timeout=30_000)
    assert serious(screen) == []
    filled = figure_of(screen, "carving.openings", "weight")
    expect(filled).to_be_visible()
    openings.get_by_label("Opening 1 is").select_option("left empty")
    expect(filled).to_have_count(0, timeout=30_000)
    lens(screen, "Cover")
    panel(screen).get_by_role("radio", name="Patches").check(force=True)
    expect(panel(screen)).to_contain_text("What the patches are cut from", timeout=60_000)
    panel(screen).get_by_role("button", name="Choose a seam").click()
    expect(panel(screen).get_by_label("So far across the tier")).to_have_value("50")
    panel(screen).get_by_role("button", name="Another seam").click()
    panel(screen).get_by_label("Seam 2 goes").select_option("behind seam 1")
    panel(screen).get_by_text("Piped regions", exact=True).click()
    panel(screen).get_by_role("button", name="Add a region").click()
    piped = figure_of(screen, "regions", "weight")
    expect(piped).to_be_visible(timeout=60_000)
    whole = piped.inner_text()
    panel(screen).get_by_label("Lies").select_option("on the front half")
    expect(piped).not_to_have_text(whole, timeout=30_000)
    expect(panel(screen).get_by_label("Goes round by")).to_have_value("180")
    # What ran behind a seam that is taken out runs where that one ran.
    panel(screen).get_by_role("button", name="Take it out: seam 1").click()
    expect(panel(screen).get_by_label("Seam 2 goes")).to_have_count(0)
    assert serious(screen) == []
    saved(screen)


def test_a_body_out_of_a_file_is_made_to_a_size(screen, address, tmp_path):
    ring = trimesh.creation.torus(60, 25)
    ring.export(tmp_path / "ring.stl")
    (tmp_path / "torn.obj").write_text("v 0 0 0\nv 90 0 0\nv 0 90 0\nf 1 2 3\n")
    new_cake(screen, address, "Ring")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="3D file").click()
    expect(figure(screen, "carving.kept.triangles")).to_be_visible(timeout=30_000)
    chooser = panel(screen).locator("input[type=file]")
    chooser.set_input_files(tmp_path / "torn.obj")
    expect(panel(screen).get_by_role("alert").first).to_contain_text("there is a hole")
    chooser.set_input_files(tmp_path / "ring.stl")
    expect(panel(screen)).to_contain_text(f"ring.stl: {len(ring.faces):,} triangles")
    width = panel(screen).get_by_label("Wide, all of it").first
    expect(width).to_have_value(re.compile("6 11/16"))
    high = panel(screen).get_by_label("High", exact=True)
    high.fill("220 mm")
    high.press("Enter")
    # A ring 170 across and 50 high, 220 high: 748 is more than a tier may be, and is said.
    expect(panel(screen).get_by_role("alert").first).to_contain_text("wide; a tier is")
    width.fill("220 mm")
    width.press("Enter")
    expect(figure(screen, "carving.volume")).to_have_count(0)
    expect(high).to_have_value(re.compile("2 9/16"))
    volume = panel(screen).get_by_label("Of a volume")
    volume.fill("1500")
    volume.press("Enter")
    expect(high).not_to_have_value(re.compile("2 9/16"))
    # For so many portions it makes them, and not one less.
    portions = panel(screen).get_by_label("For portions")
    portions.fill("24")
    portions.press("Enter")
    expect(volume).not_to_have_value(re.compile("1.5"))
    expect(portions).to_have_value("24")
    expect(screen.locator(".views .above .bottom").first).to_be_visible()
    saved(screen)
    assert serious(screen) == []
    assert overlaps(screen) == []
    with screen.expect_download() as taken:
        panel(screen).get_by_role("button", name=re.compile(r"^Print .*\(PDF\)$")).click()
    words = "".join(sheet.extract_text() for sheet in PdfReader(io.BytesIO(taken.value.path().read_bytes())).pages)
    assert "Layer 1" in words and "cut out" in words


def test_a_view_is_traced_over_a_photograph_at_its_true_size(screen, address, tmp_path):
    photo = Image.new("RGB", (1200, 700), (190, 210, 200))
    ImageDraw.Draw(photo).polygon([(200, 300), (280, 500), (980, 500), (1060, 280)], fill=(90, 70, 50))
    photo.save(tmp_path / "boat.jpg")
    (tmp_path / "no.jpg").write_bytes(b"<svg/>")
    new_cake(screen, address, "Boat")
    lens(screen, "Carve")
    panel(screen).get_by_role("button", name="Carve the cake").click()
    expect(corners(screen)).to_have_count(8)
    chooser = panel(screen).locator("input[type=file]").nth(1)
    chooser.set_input_files(tmp_path / "no.jpg")
    expect(panel(screen).get_by_role("alert").first).to_contain_text("no picture that is read")
    chooser.set_input_files(tmp_path / "boat.jpg")
    expect(screen.locator(".views image")).to_have_count(1)

    # One end is dragged under the magnifier, the other moved by the keys; then what they span is said.
    panel(screen).get_by_role("button", name="Mark a length you know").click()
    first = screen.get_by_role("button", name="First end of the length").bounding_box()
    at = first["x"] + first["width"] / 2, first["y"] + first["height"] / 2
    screen.mouse.move(*at)
    screen.mouse.down()
    screen.mouse.move(at[0] - 30, at[1] + 10, steps=4)
    expect(screen.locator(".views .rim")).to_have_count(1)
    screen.mouse.up()
    expect(screen.locator(".views .rim")).to_have_count(0)
    known = panel(screen).get_by_label("That is", exact=True)
    before = known.input_value()
    screen.get_by_role("button", name="Second end of the length").focus()
    screen.keyboard.press("ArrowRight")
    expect(known).not_to_have_value(before)
    wide = screen.locator(".views image").bounding_box()["width"]
    known.fill("14 in")
    known.press("Enter")
    expect(known).to_have_value("14")
    assert serious(screen) == []

    # A corner drawn out over the photograph is at its true size: the tin follows.
    tin = panel(screen).get_by_label("Tin, across").first
    expect(tin).to_have_value("8")
    corners(screen).nth(1).focus()
    for _ in range(3):
        screen.keyboard.press("ArrowRight")
    expect(tin).to_have_value(re.compile("7 7/8"))
    saved(screen)
    screen.reload()
    expect(screen.locator(".views image")).to_have_count(1)
    assert screen.locator(".views image").bounding_box()["width"] == pytest.approx(wide, rel=0.4)
    panel(screen).get_by_role("button", name="Take it away").click()
    expect(screen.locator(".views image")).to_have_count(0)
