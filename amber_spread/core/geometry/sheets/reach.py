"""How far a sheet laid on the middle of a body must reach over it, down to the hem, in every direction."""

import math
from typing import NamedTuple

import numpy
from shapely import Polygon, get_coordinates

from amber_spread.core.geometry.bodies.body import Body, Carried
from amber_spread.core.geometry.bodies.convexity import ways_straight_down
from amber_spread.core.geometry.bodies.profile import Line
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.flat.outline import Outline, Oval, Round
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.geometry.sheets.draped import over
from amber_spread.core.kernel.caching import cached

EVENLY = 72
"""So many directions are looked in besides those of the corners."""
FINE = 120
FEW, SIMPLE_MM = 60, 0.05
SHORT = 1.02
"""Ways over the triangles of a carved body come out up to so many times too short (measured against exact offsets)."""
SHARP = 2 - math.pi / 2
"""A coat worked sharp over an edge is longer than one rounded over it by this share of its thickness (geometry)."""
SHARP_TURN, MOST_TURN = math.radians(30), math.radians(120)
"""An edge that turns by less has no corner there; one that turns by more is rounded off in any coat."""
OVER_A_CORNER = 1.11
"""A way straight down over the corner of a box is at most so many times the shortest (geometry: 1.082 for a square one
as high as half its width); where the wall leans in below, more would be asked for than any sheet needs.
"""


class Reach(NamedTuple):
    """The longest ways down a body: in any direction, along the width and along the length, mm from the middle."""

    farthest: float
    across: float
    along: float


def reach_over(body: Body) -> Reach:
    """The reach a sheet needs over a body.

    In each direction the way runs from the axis over the flat top and down the wall, in the upright plane through the
    axis: the sum of sqrt(d rho² + dz²), rho the distance of the edge from the axis. A corner of a slanted wall is
    farther down than its faces: it moves out by more than they do. Along the width and the length a sheet needs the
    greatest part of any of these ways in that direction. Over a carved body that is convex the ways run in the same
    planes, so that a cake comes out alike, carved or not; over any other they are the shortest along its surface,
    wherever they run, and a little for its triangles, which cut across its edges. Source: geometry.
    """
    if isinstance(body, Sculpted):
        return body.cached("reach", lambda: _over_carved(body))
    if not isinstance(body, Carried):
        radii = _radii(body.outline, _directions((body.outline,)))
        return _of(_directions((body.outline,)), radii + body.height_mm)
    if isinstance(body.base, Round):
        way = way_down(body)
        return Reach(way, way, way)
    return _over_profile(body)


def _over_carved(body: Sculpted) -> Reach:
    sheet = over(body).follows
    if not sheet.hull.convex:
        left, low, right, high = sheet.extent
        return Reach(SHORT * sheet.farthest, SHORT * max(-left, right), SHORT * max(-low, high))
    turns, mitres = _mitres(body.core.edge)
    directions, ways = ways_straight_down(sheet.hull, sheet.surface.corners[sheet.start], turns)
    ways = ways + SHARP * body.side_mm
    ways[numpy.searchsorted(directions, turns)] += mitres * body.side_mm
    found = _of(directions, numpy.minimum(ways, OVER_A_CORNER * sheet.farthest))
    return found._replace(farthest=max(found.farthest, sheet.farthest))


def _mitres(edge: Polygon) -> tuple[Numbers, Numbers]:
    """The directions of the sharp corners of an edge, and how much farther out than its thickness a coat stands there
    when it is worked sharp: 1 / sin(half the angle of the corner) - 1.
    """
    ring = get_coordinates(edge.simplify(SIMPLE_MM).exterior)[:-1]
    into, out = ring - numpy.roll(ring, 1, axis=0), numpy.roll(ring, -1, axis=0) - ring
    lengths = numpy.linalg.norm(into, axis=1) * numpy.linalg.norm(out, axis=1)
    turned = numpy.arctan2(into[:, 0] * out[:, 1] - into[:, 1] * out[:, 0], (into * out).sum(axis=1))
    if edge.exterior.is_ccw is False:
        turned = -turned
    sharp = (turned > SHARP_TURN) & (lengths > 1.0)
    found: Numbers = numpy.arctan2(ring[sharp, 1], ring[sharp, 0]) % (2 * math.pi)
    return found, 1 / numpy.cos(numpy.minimum(turned[sharp], MOST_TURN) / 2) - 1


def way_down(body: Body) -> float:
    """The way from the axis over the top and down the wall to the foot, in the plane of the half-section, mm."""
    if not isinstance(body, Carried):
        return body.outline.half_width_mm + body.height_mm
    flat = body.profile[-1]
    on_top = body.base.half_width_mm + flat.x0 if _is_flat(body) else 0.0
    walls = body.profile[:-1] if _is_flat(body) else body.profile
    return on_top + sum(length for piece in walls if piece.face != "under" for _, length, _ in piece.along())


def _is_flat(body: Carried) -> bool:
    last = body.profile[-1]
    return isinstance(last, Line) and last.level


def _over_profile(body: Carried) -> Reach:
    knots: list[tuple[Outline, float]] = []
    for piece in body.profile:
        if piece.face == "under" or (piece is body.profile[-1] and _is_flat(body)):
            continue
        for out, up in piece.drawn():
            if not knots or knots[-1][1] != up or abs(out - knots[-1][0].half_width_mm) > 1e-9:
                try:
                    knots.append((body.base.offset(out, body.rounded and out > 0), up))
                except ValueError:
                    break
    directions = _directions(tuple(outline for outline, _ in knots))
    radii = [_radii(outline, directions) for outline, _ in knots]
    ways = radii[-1].copy()
    for (low, z0), (high, z1) in zip(
        zip(radii, (up for _, up in knots), strict=True), zip(radii[1:], (up for _, up in knots[1:]), strict=True),
        strict=False,
    ):  # fmt: skip
        ways += numpy.hypot(high - low, z1 - z0)
    return _of(directions, ways)


def _of(directions: Numbers, ways: Numbers) -> Reach:
    return Reach(
        float(ways.max()),
        float(abs(ways * numpy.cos(directions)).max()),
        float(abs(ways * numpy.sin(directions)).max()),
    )


@cached(256)
def _corners(outline: Outline) -> Numbers:
    """The edge as corners; of a traced one those that matter to a twentieth of a millimetre."""
    if isinstance(outline, Oval):
        return numpy.asarray(outline.traced(FINE))
    points = numpy.asarray(outline.points)
    if len(points) < FEW:
        return points
    found: Numbers = get_coordinates(Polygon(points).simplify(SIMPLE_MM).exterior)[:-1]
    return found


@cached(256)
def _directions(outlines: tuple[Outline, ...]) -> Numbers:
    """The directions of every corner, and evenly spaced ones between them, radians."""
    corners = numpy.vstack([_corners(outline) for outline in outlines])
    even = numpy.arange(EVENLY) * (2 * math.pi / EVENLY)
    turns = numpy.concatenate([numpy.arctan2(corners[:, 1], corners[:, 0]) % (2 * math.pi), even])
    found: Numbers = numpy.unique(turns.round(6))
    return found


def _radii(outline: Outline, directions: Numbers) -> Numbers:
    """How far the edge lies from the axis in each direction: its farthest crossing with that ray."""
    if isinstance(outline, Round):
        return numpy.full(len(directions), outline.radius_mm)
    starts = _corners(outline)
    turns = numpy.arctan2(starts[:, 1], starts[:, 0]) % (2 * math.pi)
    first = int(turns.argmin())
    starts, turns = numpy.roll(starts, -first, axis=0), numpy.roll(turns, -first)
    if turns[1] > turns[-1]:
        starts, turns = numpy.roll(starts[::-1], 1, axis=0), numpy.roll(turns[::-1], 1)
    if (numpy.diff(turns) > 0).all():
        # Seen whole from the axis: each ray crosses the one edge between the corners beside it.
        after = numpy.searchsorted(turns, directions, side="right")
        low, high = starts[after - 1], starts[after % len(starts)]
        return _crossing(low, high - low, directions)[0]
    found = numpy.zeros(len(directions))
    for low, edge in zip(starts, numpy.roll(starts, -1, axis=0) - starts, strict=True):
        far, share = _crossing(low, edge, directions)
        met = (share >= -1e-9) & (share <= 1 + 1e-9) & (far >= 0) & numpy.isfinite(far)
        numpy.maximum(found, numpy.where(met, far, 0.0), out=found)
    return found


def _crossing(starts: Numbers, edges: Numbers, directions: Numbers) -> tuple[Numbers, Numbers]:
    """Where rays from the axis meet edges: how far out, and at what share of the edge."""
    cos, sin = numpy.cos(directions), numpy.sin(directions)
    x, y, wide, long = starts[..., 0], starts[..., 1], edges[..., 0], edges[..., 1]
    with numpy.errstate(divide="ignore", invalid="ignore"):
        cross = cos * long - sin * wide
        return (x * long - y * wide) / cross, (x * sin - y * cos) / cross
