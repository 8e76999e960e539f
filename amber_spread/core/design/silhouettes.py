"""How a shape and a build look as silhouettes on a button: drawn by the very outlines a cake is planned by."""

from collections.abc import Sequence
from typing import Any

from manifold3d import Manifold
from shapely import Polygon, get_coordinates
from shapely.geometry.polygon import orient

from amber_spread.core.geometry.bodies.body import Body, Sideways
from amber_spread.core.geometry.bodies.meshed import FLAT, UPRIGHT, seen
from amber_spread.core.geometry.flat.outline import Outline, Point, Round
from amber_spread.core.geometry.flat.traced import largest_of

BOX = 24.0
"""The side of the box a silhouette stands in."""
EDGE = 2.0
"""What is left free of it all round."""
ACROSS_MM, HIGH_MM = 160.0, 130.0
"""The tier whose silhouette is shown."""
TOLERANCE = 0.06
"""How far the line drawn may lie from the outline, in the box's own units: less than the eye sees."""


def from_above(outline: Outline) -> str:
    """A shape from above, as an SVG path."""
    return _path(list(outline.points))


def from_the_side(build: Any) -> str:
    """A build from the side, as an SVG path."""
    outline = Round(ACROSS_MM / 2)
    body: Body | Sideways
    if build.on_side:
        body = Sideways(ACROSS_MM / 2, HIGH_MM, ACROSS_MM * 0.36)
    else:
        body = build.body(outline, build.own_height_mm(outline) if build.own_height else HIGH_MM)
    right, left = body.half_profile(), body.left_profile()
    return _path([*right, *((-x, z) for x, z in reversed(left) if x > 0)])


def of_solid(solid: Manifold) -> str:
    """A simple solid from the side, as an SVG path; a ring, which is alike from there, from above."""
    flat = solid.genus() > 0
    found = largest_of(seen(solid, FLAT if flat else UPRIGHT))
    return _path(*(get_coordinates(ring).tolist() for ring in (found.exterior, *found.interiors)))


def _path(points: Sequence[Point], *holes: Sequence[Point]) -> str:
    """Points as a closed path in the middle of the box, upright and as large as it holds them, and holes in it."""
    left, right = min(x for x, _ in points), max(x for x, _ in points)
    low, high = min(y for _, y in points), max(y for _, y in points)
    scale = (BOX - 2 * EDGE) / max(right - left, high - low)
    about_x, about_y = (left + right) / 2, (low + high) / 2

    def placed(ring: Sequence[Point]) -> list[Point]:
        return [(BOX / 2 + scale * (x - about_x), BOX / 2 - scale * (y - about_y)) for x, y in ring]

    drawn = orient(Polygon(placed(points), [placed(hole) for hole in holes]).simplify(TOLERANCE))
    rings = (ring.coords[:-1] for ring in (drawn.exterior, *drawn.interiors))
    return "".join("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in ring) + "z" for ring in rings)
