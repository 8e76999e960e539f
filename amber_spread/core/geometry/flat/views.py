"""Views that are drawn by hand: closed lines that must enclose something, and how far they reach at a place."""

import math

import numpy
from numpy.typing import NDArray
from shapely import Polygon, get_coordinates
from shapely.affinity import affine_transform

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.traced import FINE_CORNERS, KNIFE_MM
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import cached

Corners = tuple[Point, ...]
LEAST_SIDE, LEAST_AREA = 0.02, 0.05
"""The least a view may have of its longer side, and of the box round it."""


@cached(64)
def side_view(points: Corners, across_mm: float) -> Polygon:
    """A view from the side, that wide, its middle at 0 and its foot at height 0. Raises ValueError where it is none."""
    drawn = _drawn(points, "side")
    left, _, right, _ = drawn.bounds
    scale = across_mm / (right - left)
    found = _placed(drawn, scale, scale)
    return found if len(points) <= FINE_CORNERS else found.simplify(KNIFE_MM)


@cached(64)
def front_view(points: Corners) -> Polygon:
    """A view from the front as the form of a section: between -1 and 1 across, and 0 and 1 up.

    Raises ValueError where it is none, or has a hollow in its side or its top: a section is filled from edge to edge.
    """
    drawn = _drawn(points, "front")
    left, low, right, high = drawn.bounds
    corners = get_coordinates(drawn.exterior)[:, ::-1]
    ups = numpy.unique(corners[:, 0])
    if (crossings(corners, (ups[1:] + ups[:-1]) / 2) > 2).any():
        raise ValueError("the view from the front has a hollow in its side or its top, which no section can have")
    return _placed(drawn, 2 / (right - left), 1 / (high - low))


def _drawn(points: Corners, name: str) -> Polygon:
    """A view as it was drawn. Raises ValueError where it crosses itself or encloses next to nothing."""
    drawn = Polygon(points)
    if not drawn.is_valid:
        raise ValueError(f"the view from the {name} crosses or touches itself")
    left, low, right, high = drawn.bounds
    wide, tall = right - left, high - low
    if min(wide, tall) < LEAST_SIDE * max(wide, tall) or drawn.area < LEAST_AREA * wide * tall:
        raise ValueError(f"the view from the {name} encloses next to nothing")
    return drawn


def _placed(drawn: Polygon, across: float, up: float) -> Polygon:
    """A view so many times as wide and as high, its middle at 0 and its foot at height 0."""
    left, low, right, _ = drawn.bounds
    return affine_transform(drawn, [across, 0, 0, up, -across * (left + right) / 2, -up * low])


def extents(corners: Numbers, x: Numbers) -> tuple[Numbers, Numbers]:
    """The lowest and the highest place of a closed line at each x; infinite where it does not reach."""
    low, high = numpy.full(len(x), math.inf), numpy.full(len(x), -math.inf)
    for (x0, y0), (x1, y1) in zip(corners, numpy.roll(corners, -1, axis=0), strict=True):
        if x0 == x1:
            continue
        there = (x >= min(x0, x1)) & (x <= max(x0, x1))
        y = y0 + (y1 - y0) * (x[there] - x0) / (x1 - x0)
        low[there], high[there] = numpy.minimum(low[there], y), numpy.maximum(high[there], y)
    return low, high


def crossings(corners: Numbers, x: Numbers) -> NDArray[numpy.int64]:
    """How often a closed line crosses the upright line at each x."""
    x0, x1 = corners[:-1, 0], corners[1:, 0]
    low, high = numpy.minimum(x0, x1)[:, None], numpy.maximum(x0, x1)[:, None]
    found: NDArray[numpy.int64] = ((x[None, :] >= low) & (x[None, :] < high)).sum(axis=0)
    return found


def crossed(corners: Numbers, up: float) -> Numbers:
    """Where a closed line crosses a height, from left to right."""
    (x0, z0), (x1, z1) = corners[:-1].T, corners[1:].T
    there = (numpy.minimum(z0, z1) <= up) & (numpy.maximum(z0, z1) > up)
    found: Numbers = x0[there] + (x1 - x0)[there] * (up - z0[there]) / (z1 - z0)[there]
    return numpy.sort(found)
