"""Flat pieces against what they are laid on: developments, gores and laps, with the kernel's areas beside them.

Handbook: a developed frustum is a ring sector of radii s R / (R - r) and s r / (R - r) and angle 2 pi (R - r) / s
(Bronshtein and Semendyayev, Handbook of Mathematics, elementary geometry; from memory).
"""

import math

import pytest
from hypothesis import given
from shapely import Polygon

from amber_spread.core.design.builds import BallBuild, SideBuild, TaperedBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import (
    BoxCover,
    CrumbCoat,
    DrapeCover,
    GoresCover,
    HalvesCover,
    NoFinal,
    PanelCover,
    PrintedCover,
    TwinFinal,
)
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import PolygonShape, SquareShape
from amber_spread.core.geometry.flat import pieces as flat
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.core.plan import plan
from tests.designs import MEDIA, designs, planned, tier

BARE = {"crumb": CrumbCoat(thickness_mm=0), "final": NoFinal()}
NO_SKIN = Practice(trimmed_skin_mm=0)


def cover_of(*tiers, practice=NO_SKIN):
    return planned(*tiers, practice=practice).tiers[0].cover


def test_the_edges_of_a_developed_wall_are_the_girths_of_the_frustum():
    cover = cover_of(
        tier(250, build=TaperedBuild(narrow_mm=200), cover=PanelCover(overlap_mm=0, trim_mm=0, thickness_mm=2), **BARE)
    )
    piece = cover.pieces["panel"]
    turn = math.radians(piece.sizes["angle"].value) * piece.count.value
    # At the middle of the sheet's thickness the frustum is a little wider; a sloped offset moves both radii alike.
    foot, top = turn * piece.sizes["outer"].value / math.pi, turn * piece.sizes["inner"].value / math.pi
    assert foot == pytest.approx(252, abs=0.6)
    assert top == pytest.approx(202, abs=0.6)
    assert foot - top == pytest.approx(50, abs=0.01)
    slant = piece.sizes["outer"].value - piece.sizes["inner"].value
    assert slant == pytest.approx(math.hypot(102, 25), abs=0.01)


def test_the_area_of_a_set_of_gores_tends_to_the_balls():
    ball = math.pi * 152.0**2
    for count, near in ((6, 0.02), (12, 0.02), (24, 0.02)):
        cover = cover_of(tier(150, build=BallBuild(), cover=GoresCover(count=count, thickness_mm=2), **BARE))
        gore = cover.pieces["gore"]
        assert flat.area_of(gore.corners) * count == pytest.approx(ball, rel=near)
        assert gore.sizes["long"].value == pytest.approx(math.pi * 76, rel=0.01)
        assert gore.sizes["wide"].value == pytest.approx(math.pi * 152 / count, rel=1e-6)


def test_a_panel_goes_round_the_middle_of_its_own_thickness():
    cover = cover_of(tier(150, cover=PanelCover(thickness_mm=4, overlap_mm=20, trim_mm=10), **BARE))
    panel = cover.pieces["panel"]
    assert panel.sizes["long"].value == pytest.approx(math.pi * 154 + 20)
    assert panel.sizes["high"].value == pytest.approx(102 + 10)


def test_who_laps_whom_changes_both_sizes_by_the_thickness():
    over = cover_of(tier(150, cover=PanelCover(top="over", thickness_mm=4), **BARE)).pieces
    inside = cover_of(tier(150, cover=PanelCover(top="inside", thickness_mm=4), **BARE)).pieces
    assert over["top"].sizes["diameter"].value - inside["top"].sizes["diameter"].value == pytest.approx(8)
    assert inside["panel"].sizes["high"].value - over["panel"].sizes["high"].value == pytest.approx(4)


def test_the_sides_of_a_box_close_round_it():
    """Butted, two sides are as the cake and two lap both neighbours; mitred, all four reach the outer corner."""
    butt = cover_of(tier(200, shape=SquareShape(), cover=BoxCover(thickness_mm=3), **BARE)).pieces
    assert (butt["front"].sizes["wide"].value, butt["ends"].sizes["wide"].value) == pytest.approx((200, 206))
    mitre = cover_of(tier(200, shape=SquareShape(), cover=BoxCover(corners="mitre", thickness_mm=3), **BARE)).pieces
    assert (mitre["front"].sizes["wide"].value, mitre["ends"].sizes["wide"].value) == pytest.approx((206, 206))
    hexagon = cover_of(tier(200, shape=PolygonShape(), cover=BoxCover(thickness_mm=3), **BARE)).pieces["sides"]
    assert hexagon.sizes["wide"].value == pytest.approx(206 * math.tan(math.pi / 6))
    assert hexagon.count.value == 6


def test_a_short_mat_cuts_the_panel_into_strips_that_go_round():
    cover = cover_of(tier(300, cover=PanelCover(overlap_mm=20), **BARE))
    panel = cover.pieces["panel"]
    assert panel.count.value == 2
    assert panel.count.value * (panel.sizes["long"].value - 20) == pytest.approx(math.pi * 303)
    assert cover.on_mat


def test_sheets_that_cover_half_a_6_in_tier_need_two():
    """Common practice: a 10 in sheet goes half way round a bare 6 in tier."""
    cover = cover_of(tier(6 * MM_PER_INCH, cover=PrintedCover(), **BARE))
    assert (cover.printed.strips.value, cover.printed.sheets.value) == (2, 2)
    assert cover.printed.seams == [0, 180]
    assert cover.printed.too_tall is None
    tall = cover_of(tier(6 * MM_PER_INCH, cover=PrintedCover(), layers=Layers(count=8), **BARE))
    assert tall.printed.too_tall.value > 0


def test_1_and_a_half_cm_off_a_6_and_a_quarter_in_drum_gives_a_foot_to_stand_on():
    """Common practice for the depth; the chord by Pythagoras."""
    drum = tier(
        6 * MM_PER_INCH,
        build=SideBuild(cut_mm=15),
        final=TwinFinal(disc_diameter_mm=6.25 * MM_PER_INCH),
        layers=Layers(count=4),
        cover=HalvesCover(),
    )
    foot = planned(drum).tiers[0].foot
    radius = 6.25 * MM_PER_INCH / 2
    assert foot.width.value == pytest.approx(2 * math.sqrt(radius**2 - (radius - 15) ** 2))
    assert foot.width.value == pytest.approx(93, abs=0.5)
    assert foot.height_left.value == pytest.approx(6.25 * MM_PER_INCH - 15)
    assert foot.lean_forward.value > 30


def test_a_tall_tier_gathers_more_than_a_wide_one():
    """Common practice: tall tiers drape badly. The ratio is (r + h) / r by geometry."""
    tall = cover_of(tier(100, layers=Layers(count=5), cover=DrapeCover(), **BARE))
    wide = cover_of(tier(300, layers=Layers(count=2), cover=DrapeCover(), **BARE))
    assert tall.gather.value == pytest.approx((50 + 174) / 50)
    assert wide.gather.value < 1.5 < 2.2 < tall.gather.value


@given(designs)
def test_every_piece_has_the_area_and_size_the_kernel_gives_it_and_lies_apart_on_its_mat(design):
    for one in plan(design, Practice(), MEDIA).tiers:
        if one.cover is None:
            continue
        for piece in one.cover.pieces.values():
            polygon = Polygon(flat.flattened(piece.corners, 0.02))
            assert polygon.is_valid
            assert flat.area_of(piece.corners) == pytest.approx(polygon.area, rel=2e-3)
            left, low, right, high = polygon.bounds
            assert flat.size_of(piece.corners) == pytest.approx((right - left, high - low), rel=1e-3)
            assert (left, low) == pytest.approx((0, 0), abs=0.05)
            # What is worked out to cut a piece by is never said a little too small.
            for size in piece.sizes.values():
                if size.rule not in ("decided", "usual") and min(abs(size.value - side) for side in piece.size) < 1e-6:
                    assert size.rounding == "up", size.id
        sheets = [piece for piece in one.cover.pieces.values() if piece.stuff == "sheet"]
        assert len(one.cover.laid) == sum(piece.count.value for piece in sheets)
        boxes = []
        for laid in one.cover.laid:
            wide, high = flat.size_of(one.cover.pieces[laid.piece].corners)
            wide, high = (high, wide) if laid.turned else (wide, high)
            boxes.append((laid.mat, laid.x, laid.y, laid.x + wide, laid.y + high))
        for index, (mat, x0, y0, x1, y1) in enumerate(boxes):
            for other, u0, v0, u1, v1 in boxes[:index]:
                assert mat != other or x1 <= u0 + 0.1 or u1 <= x0 + 0.1 or y1 <= v0 + 0.1 or v1 <= y0 + 0.1
