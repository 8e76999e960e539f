"""Convex outlines side by side against published packings, another way to look for room, and shapely."""

import itertools
import math

import numpy
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import MultiPoint, Point, Polygon, box
from shapely.affinity import rotate, translate

from amber_spread.core.cake.nested import Bed, Lying, laid_on
from amber_spread.core.geometry.flat.no_fit import hull_of, laid_against, room_for

DISC = hull_of(Point(50, 50).buffer(50, 64))
TWO, THREE = 2 + math.sqrt(2), 2 + 1 / math.sqrt(2) + math.sqrt(6) / 2
"""The sides of the least squares that two and three circles of radius 1 lie in (published: J. Schaer, The densest packing
of nine circles in a square, 1965, and the works it names; from memory)."""

convex = (
    st.lists(st.tuples(st.floats(-90, 90), st.floats(-60, 60)), min_size=3, max_size=9)
    .map(lambda points: MultiPoint(points).convex_hull)
    .filter(lambda found: found.geom_type == "Polygon" and found.area > 200)
    .map(hull_of)
)


def lying(hull):
    """A slice of that outline, as it lies upright in the corner."""
    left, low, right, high = Polygon(hull).bounds
    if right - left > high - low:
        return lying(hull_of(rotate(Polygon(hull), 90, origin=(0, 0))))
    return Lying(right - left, high - low, tuple((x - left, y - low) for x, y in hull))


def as_they_lie(ones, room):
    """The outlines where a room says they lie."""
    for spot in sorted(room.spots):
        one = ones[spot.which]
        turned = rotate(Polygon(one.outline), 90 * spot.quarters, origin=(0, 0))
        left, low, _, _ = rotate(box(0, 0, one.short, one.long), 90 * spot.quarters, origin=(0, 0)).bounds
        yield translate(turned, spot.x - left, spot.y - low)


def held(ones, room, gap, bed):
    """All of them lie on the bed, and as far apart as was asked."""
    sheet = Point(bed.wide / 2, bed.wide / 2).buffer(bed.wide / 2, 256) if bed.round else box(0, 0, bed.wide, bed.high)
    lie = list(as_they_lie(ones, room))
    assert len(lie) == len(ones)
    assert all(sheet.buffer(0.02).covers(one) for one in lie)
    assert all(one.distance(other) >= gap - 1e-4 for one, other in itertools.combinations(lie, 2))
    assert sum(one.area for one in lie) <= sheet.area + 1e-3
    assert sum(one.area(gap) for one in ones) <= bed.area(gap) + 1e-3


def test_two_circles_lie_in_the_least_square_there_is_for_them_and_three_in_none_less():
    pair, three = (lying(DISC),) * 2, (lying(DISC),) * 3
    for share in (1.004, 1.1):
        side = 50 * TWO * share
        held(pair, laid_on(pair, 0.0, Bed(side, side)), 0.0, Bed(side, side))
    assert laid_on(pair, 0.0, Bed(50 * TWO * 0.995, 50 * TWO * 0.995)) is None
    assert laid_on(three, 0.0, Bed(50 * THREE * 0.995, 50 * THREE * 0.995)) is None
    # Two against each other and one beside them take no more than three in a row and in a square of four.
    assert laid_on(three, 0.0, Bed(200.0, 200.0)) is not None


def test_two_halves_of_a_rectangle_fill_it_and_lie_on_no_less():
    half = ((0.0, 0.0), (100.0, 0.0), (0.0, 200.0))
    assert min(abs(one.wide - 100) + abs(one.high - 200) for one in laid_against(half, half, 0.0)) < 0.3
    pair = (lying(half),) * 2
    assert laid_on(pair, 0.0, Bed(100.3, 200.3)) is not None
    assert laid_on(pair, 0.0, Bed(99.5, 200.3)) is None
    assert laid_on(pair, 5.0, Bed(100.3, 200.3)) is None
    # The rectangles round them find no room for both.
    assert laid_on((pair[0]._replace(outline=None),) * 2, 5.0, Bed(130.0, 215.0)) is None
    assert laid_on(pair, 5.0, Bed(130.0, 215.0)) is not None


@given(convex, convex, st.sampled_from([0.0, 5.0]))
def test_two_against_each_other_lie_in_the_rectangle_that_is_told_and_nearly_touch(one, other, gap):
    ones = lying(one), lying(other)
    ways = laid_against(ones[0].outline, ones[1].outline, gap)
    assert [way.wide for way in ways] == sorted(way.wide for way in ways)
    assert [way.high for way in ways] == sorted((way.high for way in ways), reverse=True)
    for way in ways:
        lie = [
            translate(rotate(Polygon(each.outline), 90 * turns, origin=(0, 0)), *moved)
            for each, turns, moved in zip(ones, way.quarters, way.moved, strict=True)
        ]
        assert MultiPoint([*lie[0].exterior.coords, *lie[1].exterior.coords]).bounds == pytest.approx(
            (0, 0, way.wide, way.high), abs=1e-6
        )
        assert lie[0].distance(lie[1]) >= gap - 1e-6
        # A corner of the sum drawn out by the gap is mitred.
        assert lie[0].distance(lie[1]) <= max(0.3, 5.1 * gap)


@given(st.lists(convex.map(lying), min_size=1, max_size=4), st.floats(60, 400), st.floats(60, 400), st.booleans())
def test_what_is_laid_lies_on_its_bed_and_apart_and_lies_on_a_larger_one_too(ones, wide, high, disc):
    ones = tuple(ones)
    bed = Bed(wide, wide, True) if disc else Bed(*sorted((wide, high)))
    room = laid_on(ones, 5.0, bed)
    by_rectangles = laid_on(tuple(one._replace(outline=None) for one in ones), 5.0, bed)
    assert room is not None or by_rectangles is None
    assume(room is not None)
    held(ones, room, 5.0, bed)
    assert laid_on(ones, 5.0, bed._replace(wide=bed.wide + 7, high=bed.high + 7)) is not None


@given(convex.map(lying), convex.map(lying), st.floats(100, 260), st.floats(100, 260), st.integers(0, 2**32 - 1))
def test_where_trying_at_random_finds_room_for_two_it_is_found_here(one, other, wide, high, seed):
    """Both thrown on the bed many times in all of their turns; a step along an edge is let go."""
    tried = numpy.random.default_rng(seed)
    found = False
    for turn, second in itertools.product((0, 90, 180, 270), repeat=2):
        lie = [rotate(Polygon(each.outline), by, origin=(0, 0)) for each, by in ((one, turn), (other, second))]
        room = [(wide - (b.bounds[2] - b.bounds[0]), high - (b.bounds[3] - b.bounds[1])) for b in lie]
        if min(min(pair) for pair in room) < 0:
            continue
        for _ in range(40):
            shares = tried.choice([0.0, 0.5, 1.0, float(tried.random())], size=4)
            spots = [
                translate(b, share_x * w - b.bounds[0], share_y * h - b.bounds[1])
                for b, (w, h), share_x, share_y in zip(lie, room, shares[::2], shares[1::2], strict=True)
            ]
            found = found or spots[0].distance(spots[1]) >= 5
    more = Bed(*sorted((wide + 2, high + 2)))
    assert laid_on((one, other), 5.0, more) is not None or not found


def test_what_an_outline_takes_with_half_the_gap_round_it_is_its_own_buffer():
    for hull in (DISC, ((0.0, 0.0), (100.0, 0.0), (0.0, 200.0))):
        assert room_for(hull, 10.0) == pytest.approx(Polygon(hull).buffer(5.0, 64).area, rel=1e-4)
