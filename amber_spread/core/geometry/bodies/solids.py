"""The simple solids a body is built of, each standing on height 0 about its own axis, by manifold3d.

Lengths are in mm, turns in degrees.
"""

import math
from collections.abc import Iterable

import numpy
from manifold3d import CrossSection, FillRule, Manifold
from shapely import Polygon, box, get_coordinates
from shapely.affinity import affine_transform

from amber_spread.core.geometry.flat.outline import Point

CHORD_MM = 0.05
"""A curve is as many straight pieces as it takes to lie no farther from them."""
LEAST_PIECES, MOST_PIECES = 24, 160


def pieces_of(radius_mm: float) -> int:
    """In how many pieces a circle is drawn: pi / acos(1 - chord / r). Source: geometry."""
    if radius_mm <= CHORD_MM:
        return LEAST_PIECES
    wanted = math.ceil(math.pi / math.acos(1 - CHORD_MM / radius_mm) / 4) * 4
    return min(MOST_PIECES, max(LEAST_PIECES, wanted))


def block(wide_mm: float, deep_mm: float, high_mm: float, edge_mm: float = 0.0) -> Manifold:
    """A box, its edges rounded to a radius. Raises ValueError where that does not fit."""
    _fits(edge_mm, wide_mm, deep_mm, high_mm)
    if not edge_mm:
        return Manifold.cube([wide_mm, deep_mm, high_mm], True).translate([0, 0, high_mm / 2])
    ball = Manifold.sphere(edge_mm, pieces_of(edge_mm))
    x, y = wide_mm / 2 - edge_mm, deep_mm / 2 - edge_mm
    corners = [(sx * x, sy * y, z) for sx in (-1, 1) for sy in (-1, 1) for z in (edge_mm, high_mm - edge_mm)]
    return Manifold.batch_hull([ball.translate(list(corner)) for corner in corners])


def frustum(across_mm: float, top_mm: float, high_mm: float, edge_mm: float = 0.0) -> Manifold:
    """A cylinder, cone or frustum, its edges rounded to a radius. Raises ValueError where that does not fit."""
    half = [(-across_mm / 2, 0.0), (across_mm / 2, 0.0), (top_mm / 2, high_mm), (-top_mm / 2, high_mm)]
    cut = Polygon(half)
    if edge_mm:
        _fits(edge_mm, across_mm, high_mm)
        cut = cut.buffer(-edge_mm).buffer(edge_mm, quad_segs=pieces_of(edge_mm) // 4)
        if cut.is_empty:
            raise ValueError(f"edges of {edge_mm:g} mm do not fit")
        # Rounding a point takes it down a little: it is drawn out to its height again.
        cut = _stretched(cut, high_mm)
    right = cut.intersection(box(0, -1, across_mm + top_mm, high_mm + 1))
    return revolved([(float(x), float(z)) for x, z in get_coordinates(right.exterior)[:-1]])


def ball(across_mm: float) -> Manifold:
    """A ball."""
    return Manifold.sphere(across_mm / 2, pieces_of(across_mm / 2)).translate([0, 0, across_mm / 2])


def wedge(wide_mm: float, deep_mm: float, high_mm: float) -> Manifold:
    """A wedge that rises from its left end to `high_mm` at its right."""
    half = wide_mm / 2
    upright = raised([(-half, 0.0), (half, 0.0), (half, high_mm)], deep_mm).rotate([90, 0, 0])
    return upright.translate([0, deep_mm / 2, 0])


def ring(across_mm: float, thick_mm: float) -> Manifold:
    """A ring of round section lying flat. Raises ValueError where it has no hole and would cross itself."""
    if 2 * thick_mm > across_mm:
        raise ValueError("the ring is thicker than half its width")
    out, radius = across_mm / 2 - thick_mm / 2, thick_mm / 2
    turns = numpy.linspace(0, 2 * math.pi, pieces_of(radius), endpoint=False)
    return revolved([(out + radius * math.cos(turn), radius + radius * math.sin(turn)) for turn in turns])


def revolved(points: Iterable[Point]) -> Manifold:
    """A closed line, (from the axis, up), turned about the upright axis."""
    line = [(max(0.0, x), z) for x, z in points]
    return Manifold.revolve(CrossSection([numpy.array(line)], FillRule.EvenOdd), pieces_of(max(x for x, _ in line)))


def raised(points: Iterable[Point], high_mm: float) -> Manifold:
    """A closed line from above raised straight up. Raises ValueError where it crosses itself or encloses nothing."""
    drawn = Polygon(list(points))
    if not drawn.is_valid or drawn.area < 1:
        raise ValueError("the outline crosses itself or encloses nothing")
    return Manifold.extrude(CrossSection([get_coordinates(drawn)[:-1]], FillRule.EvenOdd), high_mm)


def _fits(edge_mm: float, *sides_mm: float) -> None:
    if 2 * edge_mm >= min(sides_mm) and edge_mm:
        raise ValueError(f"edges of {edge_mm:g} mm do not fit a side of {min(sides_mm):g} mm")


def _stretched(cut: Polygon, high_mm: float) -> Polygon:
    _, low, _, high = cut.bounds
    by = high_mm / (high - low)
    return affine_transform(cut, [1, 0, 0, by, 0, -low * by])
