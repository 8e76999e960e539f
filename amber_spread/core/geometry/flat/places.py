"""Places for supports: spread evenly inside an edge, clear of what is in the way, or set one by one and looked over.

Everything is in mm about the middle of the tier that stands on them: x to the right, y to the back.
"""

import itertools
import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy
import shapely
from numpy.typing import ArrayLike, NDArray
from shapely import LineString, MultiPoint, Polygon, affinity, ops
from shapely import Point as Point2
from shapely.geometry.base import BaseGeometry

from amber_spread.core.geometry.flat.outline import Outline, Oval, Point, Round
from amber_spread.core.geometry.flat.traced import Region, Traced
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import TIERS, cached

SLACK_MM = 0.1
"""Edges are traced as polygons: what lies outside by less is on the edge."""
TINY_MM = 1e-9
ROUND_STEPS = 32
FINE = 240
TRIES = 8
"""So many turns of an arrangement are tried where the first is in the way of something."""
HALVINGS = 8
INSETS = 5
Places = Sequence[Point] | Numbers


class Within(NamedTuple):
    """An edge that supports stay inside of, and what it is the edge of."""

    what: str
    outline: Outline
    middle: Point = (0.0, 0.0)


class Hole(NamedTuple):
    """A round place that supports keep out of, and what is there."""

    what: str
    middle: Point
    radius_mm: float


class SupportArea(NamedTuple):
    """Where supports of a radius may stand: inside every edge and out of every hole, `rim_mm` clear of both.

    The first edge is that of the board they carry.
    """

    within: tuple[Within, ...]
    holes: tuple[Hole, ...]
    radius_mm: float
    rim_mm: float


class Spread(NamedTuple):
    """Places found: their points, how far the outermost lies inside the board's edge, and the least distance of two."""

    points: tuple[Point, ...]
    inset_mm: float
    apart_mm: float


class Refused(NamedTuple):
    """A place where no support can stand: what is in the way, and the nearest place where one could."""

    what: str
    nearest: Point | None


@cached(2 * TIERS)
def _polygon(outline: Outline) -> Region:
    """An outline as a polygon, about its own middle; of a slice through a carved cake, all its parts."""
    if isinstance(outline, Traced):
        return outline.polygon
    if isinstance(outline, Round):
        return Point2(0.0, 0.0).buffer(outline.radius_mm, quad_segs=ROUND_STEPS)
    return Polygon(outline.traced(FINE) if isinstance(outline, Oval) else outline.points)


def polygon_of(outline: Outline, middle: Point = (0.0, 0.0)) -> Region:
    """An outline as a polygon, about a middle."""
    found = _polygon(outline)
    return affinity.translate(found, *middle) if middle != (0.0, 0.0) else found


@cached(TIERS)
def allowed(ground: SupportArea) -> BaseGeometry:
    """Where the middle of a support may lie; empty where there is no room for one. Source: geometry."""
    away = ground.radius_mm + ground.rim_mm
    edges = [polygon_of(edge.outline, edge.middle).buffer(-away) for edge in ground.within]
    found = edges[0]
    for edge in edges[1:]:
        found = found.intersection(edge)
    for hole in ground.holes:
        found = found.difference(Point2(hole.middle).buffer(hole.radius_mm + away, quad_segs=ROUND_STEPS))
    return found


@cached(TIERS)
def place_supports(ground: SupportArea, count: int, inset_mm: float, apart_mm: float, ring: bool = False) -> Spread:
    """So many places evenly along the board's edge, `inset_mm` inside it; in a `ring`, on a circle about its middle.

    Where two would lie nearer than `apart_mm`, or something is in the way, all move out towards the edge until they
    do not; where they do even at the edge, they are as far apart as may be. Source: common practice for inset and
    spacing; the rest is geometry.
    """
    edge, least = ground.within[0].outline, ground.radius_mm + ground.rim_mm
    most, circle = max(least, inset_mm), ring or isinstance(edge, Round)
    # Where all lies round one middle, a circle of places is as good or bad however it is turned.
    turns = 1 if circle and _concentric(ground) else TRIES

    def best(inset: float, apart: float) -> Spread | None:
        for points in itertools.islice(_arranged(edge, inset, count, ring), turns):
            if (nearest := least_apart(points)) < apart - 1e-6:
                if circle:
                    return None
                continue
            if _clear(ground, points):
                return Spread(_as_points(points), inside_edge(edge, points), nearest)
        return None

    found = best(most, apart_mm)
    if found is not None:
        return found
    closest = _inset_for(edge, count, apart_mm, ring)
    if closest is not None and least <= closest < most:
        most = closest
        found = best(most, apart_mm)
        if found is not None:
            return found
    found = best(least, apart_mm)
    if found is not None:
        low, high = least, most
        for _ in range(HALVINGS):
            middle = (low + high) / 2
            tried = best(middle, apart_mm)
            low, high, found = (middle, high, tried) if tried is not None else (low, middle, found)
        return found
    crowded = [best(least + (most - least) * step / INSETS, 0.0) for step in range(INSETS + 1)]
    kept = [one for one in crowded if one is not None]
    if kept:
        return max(kept, key=lambda one: one.apart_mm)
    area = allowed(ground)
    wanted = () if area.is_empty else _as_points(next(_arranged(edge, least, count, ring), numpy.empty((0, 2))))
    moved = tuple(_nearest(area, point) for point in wanted)
    return Spread(moved, inside_edge(edge, moved), least_apart(moved))


def _concentric(ground: SupportArea) -> bool:
    """Whether all its edges and holes are round about the middle of the board."""
    middles = [*[edge.middle for edge in ground.within], *[hole.middle for hole in ground.holes]]
    return not any(map(any, middles)) and all([isinstance(edge.outline, Round) for edge in ground.within])


def _inset_for(edge: Outline, count: int, apart_mm: float, ring: bool) -> float | None:
    """How far inside the edge a circle of so many places lies whose neighbours are so far apart: the chord of a turn.

    None where the places lie on no circle.
    """
    if not (ring or isinstance(edge, Round)):
        return None
    return _reach(edge) - apart_mm / (2 * math.sin(math.pi / count))


def _reach(edge: Outline) -> float:
    return edge.radius_mm if isinstance(edge, Round) else edge.inner_mm


def looked_over(ground: SupportArea, points: Sequence[Point], touching_mm: float) -> list[Refused | None]:
    """What is in the way of each place that was set, None where nothing is; two nearer than `touching_mm` touch.

    Source: geometry.
    """
    area, away, found = allowed(ground), ground.radius_mm + ground.rim_mm - SLACK_MM, list[Refused | None]()
    for index, point in enumerate(points):
        others = [other for at, other in enumerate(points) if at != index]
        ways = itertools.chain(
            (edge.what for edge in ground.within if not keeps_in(edge, away, [point])),
            (hole.what for hole in ground.holes if not keeps_out(hole, away, [point])),
            ("support" for other in others if math.dist(point, other) < touching_mm - SLACK_MM),
        )
        what = next(ways, None)
        if what is None:
            found.append(None)
            continue
        free = area.difference(MultiPoint(others).buffer(touching_mm, quad_segs=ROUND_STEPS)) if others else area
        found.append(Refused(what, None if free.is_empty else _nearest(free, point)))
    return found


def keeps_in(edge: Within, away_mm: float, points: Places) -> bool:
    """Whether every one of the points lies within an edge, and so far from it. Source: geometry."""
    xs, ys = (numpy.asarray(points) - edge.middle).T
    if isinstance(edge.outline, Round):
        return bool(numpy.hypot(xs, ys).max() <= edge.outline.radius_mm - away_mm + TINY_MM)
    return bool(shapely.contains_xy(_shrunk(edge.outline, away_mm), xs, ys).all())


def keeps_out(hole: Hole, away_mm: float, points: Places) -> bool:
    """Whether every one of the points lies so far outside a hole. Source: geometry."""
    return bool(numpy.hypot(*(numpy.asarray(points) - hole.middle).T).min() >= hole.radius_mm + away_mm)


def hull_of(points: ArrayLike) -> BaseGeometry:
    """The smallest convex outline round points; a line or a point where they lie on one. Source: geometry."""
    return shapely.convex_hull(shapely.multipoints(numpy.asarray(points).reshape(-1, 2)))


@cached(TIERS)
def _hull(outline: Outline) -> BaseGeometry:
    """The convex hull of an outline about its own middle."""
    return hull_of(shapely.get_coordinates(outline.polygon) if isinstance(outline, Traced) else outline.points)


def edge_distance(outline: Outline, at: Point) -> float:
    """Distance from a place to the convex hull of an outline, mm: the edge a body on that foot tips over. Below 0
    where the place lies outside. Source: geometry.
    """
    if isinstance(outline, Round):
        return outline.radius_mm - math.hypot(*at)
    return hull_distance(_hull(outline), at)


def common_edge_distance(areas: Sequence[Within], at: Point) -> float:
    """Distance from a place to the convex hull of what all areas have in common, mm: the edge over which a board tips
    that rests where it and the surface below it overlap. Below 0 where the place lies outside.

    Of convex areas it is the least of the distances to each edge, since the edge of their overlap is made of theirs.
    Source: geometry (a place is inside an intersection by as much as by the nearest boundary).
    """
    least = min(edge_distance(one.outline, (at[0] - one.middle[0], at[1] - one.middle[1])) for one in areas)
    if least <= 0 or not any(isinstance(one.outline, Traced) for one in areas):
        return least
    return hull_distance(_common_hull(tuple(areas)), at)


@cached(TIERS)
def _common_hull(areas: tuple[Within, ...]) -> BaseGeometry:
    common = polygon_of(areas[0].outline, areas[0].middle)
    for one in areas[1:]:
        common = common.intersection(polygon_of(one.outline, one.middle))
    return hull_of(shapely.get_coordinates(common))


def hull_distance(hull: BaseGeometry, at: Point) -> float:
    """How far a place lies inside a convex outline, mm; below 0 where it lies outside. Source: geometry."""
    spot = Point2(at)
    if not isinstance(hull, Polygon):
        return -float(hull.distance(spot))
    away = float(hull.exterior.distance(spot))
    return away if hull.covers(spot) else -away


def hull_width(hull: BaseGeometry) -> float:
    """The least width of a convex outline, mm: over its sides, the farthest corner from each; 0 for a line.

    Source: geometry (the least width lies at right angles to one of the sides).
    """
    if not isinstance(hull, Polygon):
        return 0.0
    ring = shapely.get_coordinates(hull.exterior)
    sides = ring[1:] - ring[:-1]
    xs, ys = (ring[None, :-1] - ring[:-1, None]).transpose(2, 0, 1)
    # How far each corner lies off the line through each side, times the length of that side.
    off = numpy.abs(sides[:, :1] * ys - sides[:, 1:] * xs).max(axis=1)
    return float((off / numpy.hypot(*sides.T)).min())


def _arranged(edge: Outline, inset_mm: float, count: int, ring: bool) -> Iterator[Numbers]:
    """Arrangements of places at that inset from the edge, one array each, turned step by step."""
    if ring or isinstance(edge, Round):
        radius = _reach(edge) - inset_mm
        for turn in range(TRIES if radius > 0 else 0):
            turns = 2 * math.pi / count * (numpy.arange(count) + turn / TRIES) - math.pi / 2
            yield radius * numpy.array((numpy.cos(turns), numpy.sin(turns))).T
        return
    line = _inner_line(edge, inset_mm)
    if line is None:
        return
    shares = (numpy.arange(count) + numpy.arange(TRIES)[:, None] / TRIES) / count % 1
    spots = shapely.get_coordinates(shapely.line_interpolate_point(line, shares.ravel(), normalized=True))
    yield from spots.reshape(TRIES, count, 2)


@cached(2 * TIERS)
def _inner_line(edge: Outline, inset_mm: float) -> LineString | None:
    """The largest closed line so far inside an edge, from its front left corner; None where nothing is left."""
    inner = _polygon(edge).buffer(-inset_mm, join_style="mitre")
    parts = [part for part in getattr(inner, "geoms", [inner]) if not part.is_empty]
    if not parts:
        return None
    corners = shapely.get_coordinates(max(parts, key=lambda part: part.area).exterior)[:-1]
    first = int(corners.sum(axis=1).round(3).argmin())
    return LineString(numpy.vstack([corners[first:], corners[: first + 1]]))


def _clear(ground: SupportArea, points: Places) -> bool:
    """Whether every place keeps inside every edge and out of every hole."""
    away = ground.radius_mm + ground.rim_mm - SLACK_MM
    clear = all([keeps_out(hole, away, points) for hole in ground.holes])
    return clear and all([keeps_in(edge, away, points) for edge in ground.within])


@cached(2 * TIERS)
def _shrunk(outline: Outline, away_mm: float) -> BaseGeometry:
    found = _polygon(outline).buffer(-away_mm)
    shapely.prepare(found)
    return found


def least_apart(points: Places) -> float:
    """The least distance between two of them, mm; 0 where there are not two. Source: geometry."""
    if len(points) < 2:
        return 0.0
    found = numpy.asarray(points)
    one, other = _pairs(len(found))
    return float(numpy.hypot(*(found[one] - found[other]).T).min())


@cached(64)
def _pairs(count: int) -> tuple[NDArray[numpy.intp], NDArray[numpy.intp]]:
    """The indices of every pair out of `count` places."""
    one, other = numpy.triu_indices(count, 1)
    return one, other


def inside_edge(edge: Outline, points: Places) -> float:
    """How far inside an edge the outermost of them lies, mm; below 0 where one lies outside, 0 where there are none.

    Source: geometry.
    """
    if not len(points):
        return 0.0
    spots = numpy.asarray(points)
    if isinstance(edge, Round):
        return edge.radius_mm - float(numpy.hypot(*spots.T).max())
    polygon = _polygon(edge)
    away = shapely.distance(polygon.boundary, shapely.points(spots))
    return float(numpy.where(shapely.contains_xy(polygon, spots), away, -away).min())


def _as_points(places: Numbers) -> tuple[Point, ...]:
    return tuple([(x, y) for x, y in places.tolist()])


def _nearest(area: BaseGeometry, point: Point) -> Point:
    found = ops.nearest_points(area, Point2(point))[0]
    return (float(found.x), float(found.y))
