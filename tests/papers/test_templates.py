"""Templates read back: twenty designs whose PDF, SVG and DXF are measured against the pieces they were written from."""

import io
import math
import re
from datetime import datetime
from xml.etree import ElementTree

import ezdxf
import pytest
from pypdf import PdfReader
from pypdf.generic import ContentStream
from shapely import box
from svgelements import SVG, Path

from amber_spread.core.design.builds import BallBuild, DomedBuild, SideBuild, TaperedBuild
from amber_spread.core.design.finishes import (
    BoxCover,
    CollarCover,
    DiscFinal,
    DrapeCover,
    GoresCover,
    HalvesCover,
    OnTop,
    PanelCover,
    PrintedCover,
    Stripe,
    TwinFinal,
)
from amber_spread.core.design.shapes import (
    FreeShape,
    HeartShape,
    OvalShape,
    PetalShape,
    PolygonShape,
    RectangleShape,
    SquareShape,
)
from amber_spread.core.document.document import plan_document
from amber_spread.core.geometry.flat.pieces import size_of
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.stock.pantry import Pantry
from amber_spread.papers.amounts import write_amounts
from amber_spread.papers.dxf import draw_dxf, write_dxf
from amber_spread.papers.letters import BROAD, lettered
from amber_spread.papers.pdf import write_pdf
from amber_spread.papers.shopping_list import write_list
from amber_spread.papers.strip import COLUMN_MM, PIN_MM, is_round, is_straight, with_strip
from amber_spread.papers.svg import write_svg
from amber_spread.papers.templates import LABEL_MM, templates_of
from amber_spread.papers.tiling import GAP_MM, MARGIN_MM, OVERLAP_MM, SIDE_MM, pages_of, room_of, tiling_of
from tests.designs import document, tier

NEAR = 0.2  # mm
MM = 72 / 25.4
TWENTY = [
    [tier(cover=DrapeCover())],
    [tier(152.4, cover=PanelCover(top="over"))],
    [tier(cover=PanelCover(top="inside", stripes=(Stripe(colour="ivory"), Stripe(colour="blush", share=2))))],
    [tier(shape=SquareShape(), cover=BoxCover())],
    [tier(shape=SquareShape(), cover=BoxCover(corners="mitre"))],
    [tier(shape=PolygonShape(), cover=BoxCover())],
    [tier(shape=RectangleShape(length_mm=330), cover=DrapeCover())],
    [tier(shape=SquareShape(corner_mm=20), cover=PanelCover(top="over"))],
    [tier(shape=OvalShape(length_mm=280), cover=PanelCover(top="over"))],
    [tier(shape=HeartShape(), cover=PanelCover(top="over"))],
    [tier(shape=PetalShape(), cover=PanelCover(top="inside"))],
    [tier(254, build=TaperedBuild(narrow_mm=200), cover=PanelCover(top="over"))],
    [tier(203.2, build=TaperedBuild(narrow_mm=150, narrow="foot"), cover=PanelCover())],
    [tier(shape=SquareShape(), build=TaperedBuild(narrow_mm=150), cover=BoxCover())],
    [tier(152.4, build=BallBuild(), cover=GoresCover(count=12))],
    [tier(152.4, build=BallBuild(halves=1), cover=HalvesCover())],
    [tier(152.4, build=SideBuild(), final=TwinFinal(disc_diameter_mm=160), cover=HalvesCover())],
    [tier(152.4, cover=PrintedCover(top="circle")), tier(101.6, cover=CollarCover())],
    [tier(build=DomedBuild(rise_mm=40), cover=DrapeCover(), on_top=(OnTop(shape=HeartShape(), across_mm=80),))],
    [
        tier(
            shape=FreeShape(points_mm=((0, 0), (200, 0), (200, 120), (90, 180), (0, 120))),
            cover=PanelCover(top="over"),
            final=DiscFinal(disc_diameter_mm=215),
        )
    ],
]


@pytest.fixture(params=range(len(TWENTY)), ids=lambda index: f"design-{index + 1}")
def templates(request):
    paper = document(*TWENTY[request.param], title="Skep & comb", due=datetime(2026, 12, 5, 11))
    return templates_of(paper, plan_document(paper))


def spans(points):
    xs, ys = zip(*points, strict=True)
    return max(xs) - min(xs), max(ys) - min(ys)


def bezier(p0, p1, p2, p3, steps=40):
    for step in range(1, steps + 1):
        t = step / steps
        a, b, c, d = (1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3
        yield tuple(a * w + b * x + c * y + d * z for w, x, y, z in zip(p0, p1, p2, p3, strict=True))


def times(new, old):
    a, b, c, d, e, f = new
    A, B, C, D, E, F = old
    return (a * A + b * C, a * B + b * D, c * A + d * C, c * B + d * D, e * A + f * C + E, e * B + f * D + F)


def drawn(page):
    """What a page strokes: closed paths in the colour of cutting, and every single line, in mm of the page."""
    matrix, stack, colour, cuts, lines = (1, 0, 0, 1, 0, 0), [], None, [], []
    path, run = [], []

    def put(x, y):
        a, b, c, d, e, f = matrix
        return ((a * x + c * y + e) / MM, (b * x + d * y + f) / MM)

    for operands, operator in ContentStream(page.get_contents(), page.pdf).operations:
        numbers = [float(one) for one in operands] if operator in (b"cm", b"m", b"l", b"c", b"re", b"RG") else []
        if operator == b"q":
            stack.append((matrix, colour))
        elif operator == b"Q":
            matrix, colour = stack.pop()
        elif operator == b"cm":
            matrix = times(numbers, matrix)
        elif operator == b"RG":
            colour = tuple(numbers)
        elif operator == b"m":
            run = [put(*numbers)]
            path.append(run)
        elif operator == b"l":
            run.append(put(*numbers))
        elif operator == b"c":
            handles = [put(*numbers[index : index + 2]) for index in (0, 2, 4)]
            run.extend(bezier(run[-1], *handles))
        elif operator in (b"S", b"s", b"B", b"b", b"n"):
            if operator == b"S":
                if colour == (0.7, 0.25, 0.12):
                    cuts.extend(path)
                else:
                    lines.extend(path)
            path = []
    return cuts, lines


def test_the_pdf_is_true_to_size_and_every_page_carries_both_bars(templates):
    for paper, wide in (("a4", 210), ("letter", 215.9)):
        pages = PdfReader(io.BytesIO(write_pdf(templates, paper))).pages
        laid = pages_of(templates, paper)
        assert len(laid) == len(pages)
        for page, placed in zip(pages, laid, strict=True):
            assert float(page.mediabox.width) / MM == pytest.approx(wide, abs=0.1)
            cuts, lines = drawn(page)
            assert len(cuts) == len(placed)
            for edge, one in zip(cuts, placed, strict=True):
                size = one.one.size[::-1] if one.turned else one.one.size
                assert spans(edge) == pytest.approx(size, abs=NEAR)
                left, low = min(x for x, _ in edge), min(y for _, y in edge)
                assert (left, low) == pytest.approx((MARGIN_MM + SIDE_MM + one.x, MARGIN_MM + one.y), abs=NEAR)
            lengths = [math.dist(*line) for line in lines if len(line) == 2]
            assert any(length == pytest.approx(100, abs=0.01) for length in lengths)
            assert any(length == pytest.approx(101.6, abs=0.01) for length in lengths)


def test_every_piece_lies_on_the_pages_and_none_on_another(templates):
    for paper in ("a4", "letter"):
        wide, high = room_of(paper)
        laid = pages_of(templates, paper)
        whole = [one.one for page in laid for one in page if one.part is None]
        spread = [
            one.one
            for page in laid
            for one in page
            if one.part is not None and one.part.tile == one.part.tiling.tiles[0]
        ]
        assert sorted(one.key for one in (*whole, *spread)) == sorted(one.key for one in templates)
        for page in laid:
            boxes = []
            for one in page:
                across, up = one.one.size[::-1] if one.turned else one.one.size
                boxes.append(box(one.x, one.y, one.x + across, one.y + up))
            if page[0].part is None:
                assert all(one.within(box(-0.1, -0.1, wide + 0.1, high + 0.1)) for one in boxes)
            for at, one in enumerate(boxes):
                assert all(one.distance(other) >= GAP_MM - 0.11 for other in boxes[at + 1 :])
        area = sum(one.size[0] * one.size[1] for one in whole)
        together = sum(1 for page in laid if page[0].part is None)
        assert area / (wide * high) <= together <= len(whole)


def test_plain_circles_and_rectangles_are_one_strip_that_measures_each_of_them(templates):
    kept = with_strip(templates)
    plain = [one for one in templates if is_round(one) or is_straight(one)]
    if not plain:
        assert kept == templates
        return
    strip = kept[-1]
    assert [one.key for one in kept[:-1]] == [one.key for one in templates if one not in plain]
    ups = [mark.y0 for mark in strip.marks if mark.x0 in (0, COLUMN_MM) and mark.y0 == mark.y1 and not mark.name]
    for one in plain:
        if is_round(one):
            assert any(up - PIN_MM == pytest.approx(one.size[0] / 2) for up in ups)
        else:
            assert all(any(up == pytest.approx(side) for up in ups) for side in one.size)
    assert max(ups) < strip.size[1]
    said = [mark.name for mark in strip.marks if mark.name and mark.name != "Pin here"]
    assert all(any(name.startswith(f"{one.tier}: {one.name}") for name in said) for one in plain)
    for column in (0, COLUMN_MM):
        labels = sorted(mark.y0 for mark in strip.marks if mark.x0 == column + 12 and mark.name)
        assert all(above - below >= LABEL_MM - 1e-9 for below, above in zip(labels, labels[1:], strict=False))
    assert len(pages_of(kept, "a4")) <= len(pages_of(templates, "a4"))


def test_a_ten_inch_circle_with_its_supports_takes_two_pages_of_either_paper():
    for paper in ("a4", "letter"):
        assert len(tiling_of(254, 254, paper).tiles) == 2


def test_the_tiles_of_a_piece_cover_it_and_lap(templates):
    room = room_of("a4")
    for one in templates:
        tiling = tiling_of(*one.size, "a4")
        size = one.size[::-1] if tiling.turned else one.size
        for axis, count in ((0, tiling.columns), (1, tiling.rows)):
            assert count * (room[axis] - OVERLAP_MM) + OVERLAP_MM >= size[axis] - 1e-6


def test_registration_crosses_lie_at_the_same_points_of_the_piece_on_neighbouring_pages():
    paper = document(tier(254, cover=DrapeCover()))
    found = [one for one in templates_of(paper, plan_document(paper)) if one.name == "Sheet"]
    tiling, pages = tiling_of(*found[0].size, "a4"), PdfReader(io.BytesIO(write_pdf(found))).pages
    assert len(pages) > 1

    def crosses(number):
        tile = tiling.tiles[number]
        _, lines = drawn(pages[number])
        bars = [line for line in lines if len(line) == 2 and math.dist(*line) == pytest.approx(8, abs=0.01)]
        middles = [
            (
                round((a[0] + b[0]) / 2 - MARGIN_MM - SIDE_MM + tile.x + 0.01, 1),
                round((a[1] + b[1]) / 2 - MARGIN_MM + tile.y + 0.01, 1),
            )
            for a, b in bars
        ]
        # A cross is two bars about one middle; the arrow on the piece is one.
        return {middle for middle in middles if middles.count(middle) == 2}

    room = room_of("a4")

    def on_both(points):
        return {
            (x, y)
            for x, y in points
            if all(0 <= x - tile.x <= room[0] and 0 <= y - tile.y <= room[1] for tile in tiling.tiles[:2])
        }

    assert on_both(crosses(0)) == on_both(crosses(1))
    assert len(on_both(crosses(0))) >= 3
    # None is drawn that no page could show.
    for number, tile in enumerate(tiling.tiles):
        for x, y in crosses(number):
            assert -4.1 <= x - tile.x <= room[0] + 4.1
            assert -4.1 <= y - tile.y <= room[1] + 4.1


def test_the_words_of_a_piece_lie_at_one_place_in_svg_and_dxf_and_clear_of_its_marks():
    paper = document(tier(254, cover=PanelCover(top="over")), tier(203.2), title="Skep & comb")
    found = templates_of(paper, plan_document(paper))
    drawn_words = [text for text in draw_dxf(found).modelspace().query("TEXT") if text.dxf.text == "Skep & comb"]
    svg = ElementTree.fromstring(write_svg(found))
    groups = [group for group in svg if group.tag.endswith("}g")]
    up = 0.0
    for one, group, dxf in zip(found, groups, drawn_words, strict=True):
        line = one.lines[1]
        wide, high = one.size
        assert 0 < line.x < wide and 0 < line.y < high
        (text,) = [part for part in group if part.text == "Skep & comb"]
        assert (float(text.get("x")), -float(text.get("y"))) == pytest.approx((line.x, line.y), abs=1e-3)
        assert float(text.get("font-size")) == pytest.approx(line.high)
        at = dxf.get_placement()[1]
        assert (at.x, at.y - up) == pytest.approx((line.x, line.y))
        assert dxf.dxf.rotation == (90 if one.words_turned else 0)
        up += high + 15
        if "Supports" in one.name:
            spots = [mark for mark in one.marks if mark.name.isdecimal()]
            assert all(abs(mark.y0 - line.y) > line.high for mark in spots if abs(mark.x0 - line.x) < 20)


def test_every_page_says_what_it_belongs_to():
    paper = document(tier(cover=PanelCover(top="over")), title="Skep & comb", due=datetime(2026, 12, 5, 11))
    for page in PdfReader(io.BytesIO(write_pdf(templates_of(paper, plan_document(paper))))).pages:
        words = page.extract_text()
        assert all(
            part in words
            for part in ("Skep & comb", "2026-12-05 11:00", "Cake:", "This side up", "Page ", "100 mm", "4 in")
        )


@pytest.mark.parametrize("title", ["Miód na święto", "Μέλι της γιορτής", "Медовый пирог", "Kovářova včelí hostina"])
def test_a_title_in_any_letters_of_europe_is_printed_as_it_was_typed(title):
    paper = document(tier(cover=PanelCover(top="over")), title=title)
    read = PdfReader(io.BytesIO(write_pdf(templates_of(paper, plan_document(paper)))))
    assert all(title in page.extract_text() for page in read.pages)
    assert title in read.metadata.title
    listed = write_list(
        shop([Asked("one", paper, bill_of(paper, plan_document(paper)))], Pantry()), title, "cm", "g", "a4"
    )
    assert title in PdfReader(io.BytesIO(listed)).pages[0].extract_text()


def test_letters_that_no_font_here_has_are_question_marks():
    assert lettered("Honey", "Helvetica") == ("Honey", "Helvetica")
    assert lettered("Мёд 蜂", "Helvetica") == ("Мёд ?", BROAD)


def test_the_svg_is_true_to_size(templates):
    text = write_svg(templates)
    root = ElementTree.fromstring(text)
    assert root.get("width").removesuffix("mm") == root.get("viewBox").split()[2]
    groups = root.findall("{http://www.w3.org/2000/svg}g")
    assert [group.get("id") for group in groups] == [one.key for one in templates]
    for one, group in zip(templates, groups, strict=True):
        data = group.find("{http://www.w3.org/2000/svg}path[@class='cut']").get("d")
        left, top, right, bottom = Path(data).bbox()
        assert (right - left, bottom - top) == pytest.approx(one.size, abs=NEAR)
        assert bottom == pytest.approx(0, abs=NEAR)  # it stands on its own foot
        assert any("This side up" in (label.text or "") for label in group.iter("{http://www.w3.org/2000/svg}text"))
    # A general reader, which knows millimetres, finds the same drawing 96 units to the inch.
    whole = SVG.parse(io.StringIO(text), ppi=25.4)
    widest = max(Path(shape).bbox()[2] - Path(shape).bbox()[0] for shape in whole.select() if isinstance(shape, Path))
    assert widest == pytest.approx(max(one.size[0] for one in templates), abs=NEAR)


def test_the_dxf_is_true_to_size_in_millimetres(templates):
    drawing = ezdxf.read(io.StringIO(write_dxf(templates)))
    assert drawing.units == ezdxf.units.MM
    edges = drawing.modelspace().query("LWPOLYLINE[layer=='CUT']")
    assert len(edges) == len(templates)
    for one, edge in zip(templates, edges, strict=True):
        assert edge.closed
        corners = [(x, y, bulge) for x, y, bulge in edge.get_points("xyb")]
        assert size_of(corners) == pytest.approx(one.size, abs=NEAR)
    assert any("This side up" in text.dxf.text for text in drawing.modelspace().query("TEXT"))


def test_the_gauge_carries_a_mark_for_every_layer_filling_and_coat():
    paper = document(tier(cover=DrapeCover()))
    plan = plan_document(paper)
    (gauge,) = [one for one in templates_of(paper, plan) if "gauge" in one.name]
    names = [mark.name for mark in gauge.marks if mark.name]
    assert names == [
        "Cover",
        "Final coat",
        "Crumb coat",
        "Layer 3",
        "Filling 2",
        "Layer 2",
        "Filling 1",
        "Layer 1",
    ]
    ups = [mark.y0 for mark in gauge.marks if mark.x0 == 0]
    assert ups == pytest.approx(sorted((one.up.value for one in plan.tiers[0].gauge.values()), reverse=True))
    assert ups[0] == pytest.approx(plan.tiers[0].stack.height.value)
    labels = [mark.y0 for mark in gauge.marks if mark.name]
    assert all(above - below >= LABEL_MM - 1e-9 for above, below in zip(labels, labels[1:], strict=False))
    assert 0 < labels[-1] < labels[0] < ups[0]


def test_one_tier_alone_can_be_asked_for():
    paper = document(tier(254, cover=DrapeCover()), tier(203.2, cover=DrapeCover()))
    found = templates_of(paper, plan_document(paper), tier=2)
    assert {one.tier for one in found} == {"Top"}
    assert [one.key for one in found] == ["tier_2_sheet", "tier_2_gauge", "tier_2_supports_below"]


def test_the_amounts_are_a_line_a_step_and_nothing_a_spreadsheet_would_run():
    paper = document(tier(cover=DrapeCover(colour="blush"), name="=2+2"))
    plan = plan_document(paper)
    head, *lines = write_amounts(plan).strip().split("\r\n")
    assert head.startswith("tier,name,step,medium,colour,stays_g")
    assert len(lines) == sum(len(bowl.steps) for bowl in plan.bowls.values())
    (cover,) = [line.split(",") for line in lines if ",cover," in line]
    assert cover[1] == "'=2+2"
    assert float(cover[5]) == pytest.approx(plan.tiers[0].cover.over.weight.value, abs=0.06)
    assert all(re.fullmatch(r"-?\d+\.\d", number) for line in lines for number in line.split(",")[5:])
