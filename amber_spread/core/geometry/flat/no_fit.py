"""Two convex outlines laid against each other, so far apart, and the least rectangles that lie round both.

Seen from the one, the other may lie anywhere but within the Minkowski sum of the one and the other turned about
(published: the no-fit polygon, as in J. A. Bennell and J. F. Oliveira, The geometry of nesting problems, 2008; from
memory); laid against it it lies on the edge of that sum, drawn out by the gap. Outlines are turned by quarters alone.
Lengths are in mm.
"""

import math
from typing import NamedTuple

import numpy
from shapely import Geometry, Polygon, get_coordinates
from shapely.geometry.polygon import orient

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.rows import Numbers, Whole
from amber_spread.core.kernel.caching import cached

Hull = tuple[Point, ...]
"""The corners of a convex outline, anticlockwise."""
STEP_MM = 2.0
"""The one is moved along the edge of the other in steps no longer."""
LOWER_MM = 0.5
"""A wider rectangle is worth telling where it is lower by so much."""
FINE_MM = 0.05
"""Corners that stand out by less are left out there, and made up for."""
QUARTERS = numpy.array([[[c, -s], [s, c]] for c, s in ((1, 0), (0, 1), (-1, 0), (0, -1))], dtype=numpy.float64)


class Against(NamedTuple):
    """The least rectangle round two outlines where they lie against each other, at 0, 0: how wide and high it is, by
    how many quarters each is turned about 0, 0, and where it is moved to then.
    """

    wide: float
    high: float
    quarters: tuple[int, int]
    moved: tuple[Point, Point]


def hull_of(region: Geometry) -> Hull:
    """The least convex outline round a region."""
    return tuple((float(x), float(y)) for x, y in get_coordinates(orient(region.convex_hull).exterior)[:-1])


def room_for(hull: Hull, gap: float) -> float:
    """What an outline takes with half of the gap all round it, mm² (published: Steiner's formula)."""
    shape = Polygon(hull)
    return float(shape.area + shape.length * gap / 2) + math.pi * gap**2 / 4


@cached(256)
def laid_against(one: Hull, other: Hull, gap: float) -> tuple[Against, ...]:
    """The least rectangles round two outlines that are at least so far apart, from the narrowest to the widest, each
    lower than the one before.
    """
    rows = _against(one, other, gap)
    return tuple(
        Against(wide, high, (int(quarters), int(turns)), ((-left, -low), (x - left, y - low)))
        for wide, high, quarters, turns, left, low, x, y in rows[least_of(rows[:, :2], LOWER_MM)].tolist()
    )


def least_of(sizes: Numbers, lower: float) -> Whole:
    """Which of some widths and heights, a row each, are the least: from the narrowest to the widest, each lower by so
    much than the last.

    >>> least_of(numpy.array([[3.0, 1.0], [1.0, 5.0], [2.0, 5.0], [2.0, 4.0]]), 0.5).tolist()
    [1, 3, 0]
    """
    order = numpy.lexsort((sizes[:, 1], sizes[:, 0]))
    highs = sizes[order, 1]
    # Only what is lower than all that is narrower can be among them.
    lowest = numpy.concatenate([[math.inf], numpy.minimum.accumulate(highs)[:-1]])
    kept, last = [], math.inf
    for at in numpy.flatnonzero(highs < lowest).tolist():
        if highs[at] < last - lower:
            kept.append(at)
            last = float(highs[at])
    return order[kept]


def _against(one: Hull, other: Hull, gap: float) -> Numbers:
    """A row for each place along the one, and each turn of both: how wide and high both are, their turns, the left
    lower corner of both, and where the other is moved to.
    """
    found = []
    # All of it turned by half a turn is as wide and as high, so that the first is turned by a quarter at most.
    for quarters, first in enumerate(_turned(one)[:2]):
        for turns, second in enumerate(_turned(other)):
            apart = Polygon(_summed(first, -second)).simplify(FINE_MM).buffer(gap + FINE_MM, join_style="mitre")
            moved = get_coordinates(apart.exterior.segmentize(STEP_MM))
            low = numpy.minimum(first.min(axis=0), second.min(axis=0) + moved)
            high = numpy.maximum(first.max(axis=0), second.max(axis=0) + moved)
            turned = numpy.full((len(moved), 2), (quarters, turns))
            found.append(numpy.hstack([high - low, turned, low, moved]))
    return numpy.vstack(found)


def _summed(one: Numbers, other: Numbers) -> Numbers:
    """The Minkowski sum of two convex outlines: their sides one after another, by the way they run (published; from
    memory).
    """
    sides = numpy.vstack([numpy.roll(each, -1, axis=0) - each for each in (one, other)])
    sides = sides[numpy.argsort(numpy.arctan2(sides[:, 1], sides[:, 0]) % (2 * math.pi), kind="stable")]
    start = sum(each[numpy.lexsort((each[:, 0], each[:, 1]))[0]] for each in (one, other))
    found: Numbers = start + numpy.vstack([[0.0, 0.0], numpy.cumsum(sides, axis=0)[:-1]])
    return found


def _turned(hull: Hull) -> Numbers:
    """The corners of an outline in each of its turns."""
    found: Numbers = numpy.array(hull) @ QUARTERS.transpose(0, 2, 1)
    return found
