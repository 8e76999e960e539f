"""Flat pieces by themselves: corners, mats and sheets, held to what is true of anything laid out."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon, box

from amber_spread.core.geometry.flat.outline import Cornered, Oval, Regular, Round
from amber_spread.core.geometry.flat.packing import pack
from amber_spread.core.geometry.flat.pieces import (
    Piece,
    area_of,
    bounds,
    corners_of,
    flattened,
    lay_out,
    rectangle,
    size_of,
)
from amber_spread.core.kernel.figures import carry_over
from amber_spread.core.tier.cover.printed import _in_rows

SIDES = st.integers(20, 700).map(float)


def piece(width, height, count):
    return Piece(
        name="A piece",
        corners=rectangle(width, height),
        paint="#FFFFFF",
        colour=None,
        count=carry_over("pieces", count, "each"),
        sizes={},
        marks=[],
    )


def lie_apart(placed, width, length):
    """Boxes (mat, x, y, wide, high) lie on their mats and not on one another; one too large lies alone at the corner."""
    for mat in {one[0] for one in placed}:
        boxes = [one for one in placed if one[0] == mat]
        for _, x, y, wide, high in boxes:
            inside = x + wide <= width + 0.02 and y + high <= length + 0.02
            assert (x, y) == (0, 0) if not inside else min(x, y) >= 0
        shapes = [box(x + 0.01, y + 0.01, x + wide - 0.01, y + high - 0.01) for _, x, y, wide, high in boxes]
        for index, one in enumerate(shapes):
            assert not any(one.intersects(other) for other in shapes[:index])
    assert {one[0] for one in placed} == set(range(len({one[0] for one in placed})))


@given(st.lists(st.tuples(SIDES, SIDES, st.integers(1, 4)), min_size=1, max_size=6), SIDES, SIDES)
def test_pieces_lie_apart_on_as_many_mats_as_are_counted(wanted, width, length):
    pieces = {f"piece_{index}": piece(*one) for index, one in enumerate(wanted)}
    laid = lay_out(pieces, width, length)
    assert len(laid) == sum(count for _, _, count in wanted)
    placed = []
    for one in laid:
        wide, high = pieces[one.piece].size
        placed.append((one.mat, one.x, one.y, *((high, wide) if one.turned else (wide, high))))
    lie_apart(placed, width, length)


@pytest.mark.parametrize("turn", [False, True])
@given(
    st.floats(150, 400), st.floats(150, 400), st.floats(0.05, 1), st.floats(0.05, 1), st.integers(1, 40), st.booleans()
)
def test_boxes_in_rows_lie_on_their_sheets(turn, wide, high, along, up, count, turned):
    long, tall = along * wide, up * high
    packed = _in_rows([(long, tall)] * count, (wide, high), turned, turn)
    assert len(packed.laid) == count
    assert packed.sheets == 1 + max(sheet for sheet, _, _, _ in packed.laid)
    placed = [(sheet, x, y, *((tall, long) if on_side else (long, tall))) for sheet, x, y, on_side in packed.laid]
    assert turn or not any(on_side for _, _, _, on_side in packed.laid)
    lie_apart(placed, wide, high)
    fits_flat = math.floor((wide + 1e-6) / long) * math.floor((high + 1e-6) / tall)
    if not turn:
        assert packed.sheets == math.ceil(count / fits_flat)


def test_what_lies_on_a_sheet_only_when_turned_is_turned():
    packed = _in_rows([(250.0, 100.0)] * 4, (200.0, 300.0), turned=True, turn=True)
    assert packed.sheets == 2
    assert all(on_side for _, _, _, on_side in packed.laid)
    tight = pack([(100.0, 80.0)] * 6, (200.0, 240.0), False)
    assert tight.sheets == 1


@pytest.mark.parametrize(
    "outline",
    [
        Cornered(240, 160, 25),
        Cornered(240, 160),
        Regular(200, 6),
        Regular(200, 6, 22),
        Regular(260, 10, 15),
        Round(90),
        Oval(180, 260),
    ],
)
def test_the_edge_of_a_piece_is_the_outline_it_is_cut_to(outline):
    corners = corners_of(outline)
    left, bottom, right, top = bounds(corners)
    assert (left, bottom) == pytest.approx((0, 0), abs=1e-6)
    assert (right, top) == pytest.approx((2 * outline.half_width_mm, 2 * outline.half_length_mm), rel=2e-3)
    assert area_of(corners) == pytest.approx(outline.area_mm2, rel=2e-3)
    drawn = Polygon(flattened(corners, 0.02))
    assert drawn.is_valid
    assert drawn.area == pytest.approx(outline.area_mm2, rel=3e-3)
    assert drawn.length == pytest.approx(outline.perimeter_mm, rel=3e-3)
    assert size_of(corners) == pytest.approx((drawn.bounds[2], drawn.bounds[3]), rel=3e-3)


def test_a_box_that_lies_on_no_sheet_is_not_laid():
    assert pack([(400, 400)], (450, 370), True) is None
    assert pack([(360, 440)], (450, 370), False) is None
    assert pack([(360, 440)], (450, 370), True).laid == [(0, 0, 0, True)]
