"""Outlines that have no closed form: traced as polygons true to size, and grown by GEOS through shapely."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, TypeAlias

import numpy
from shapely import MultiPolygon, Polygon, get_coordinates, get_num_coordinates
from shapely import Point as Point2
from shapely.affinity import scale, translate

from amber_spread.core.geometry.flat.outline import Point, arc
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.figures import Figure, of_parts, parts_rule

Region: TypeAlias = Polygon | MultiPolygon
ARC_STEP = math.radians(5)
ROUND_STEPS = 10
"""A quarter turn of a rounded corner is traced in so many steps."""
HAIR_MM = 0.005
"""Corners of a grown outline that stand out by less than this are left out."""
KNIFE_MM = 0.1
"""No knife follows what stands out by less (common practice)."""
FINE_CORNERS = 200
"""A drawn outline of more corners than this has some that no knife follows left out."""
MOST_CORNERS = 600
"""An outline of more corners than this is drawn by fewer, as far as a knife can tell: growing it takes the square of
their number.
"""
LOBE, CHEEK = 0.275, 0.775625
"""The radii of a heart's lobes and cheeks, as shares of its width."""
EVEN = math.sqrt(ARC_STEP / math.sin(ARC_STEP))
"""How much larger a traced arc's corners stand, so that it encloses the area of the true arc."""
_TRACED = parts_rule("outline.area.traced", "Measured off the outline, drawn true to size.", "same", "geometry")


@dataclass(frozen=True, eq=False)
class Traced:
    """Any outline drawn as a polygon true to size; its area and length are the polygon's (within 0.1 per cent).

    Two are equal when they are one and the same, so that what is grown from them can be kept from plan to plan. One
    that `may_part`, such as a slice through a carved cake, may be of several parts, or come apart when it is shrunk.
    """

    polygon: Region
    may_part: bool = False

    @cached_property
    def area_mm2(self) -> float:
        return float(self.polygon.area)

    @cached_property
    def perimeter_mm(self) -> float:
        return float(self.polygon.length)

    @cached_property
    def half_width_mm(self) -> float:
        left, _, right, _ = self.polygon.bounds
        return float(right - left) / 2

    @cached_property
    def half_length_mm(self) -> float:
        _, front, _, back = self.polygon.bounds
        return float(back - front) / 2

    @cached_property
    def reach_mm(self) -> float:
        return float(numpy.hypot(*get_coordinates(self.polygon).T).max())

    @cached_property
    def inner_mm(self) -> float:
        middle = Point2(0, 0)
        return float(self.polygon.boundary.distance(middle)) if self.polygon.contains(middle) else 0.0

    @property
    def curved(self) -> bool:
        return True

    @cached_property
    def points(self) -> list[Point]:
        return [(x, y) for x, y in get_coordinates(largest_of(self.polygon).exterior)[:-1].tolist()]

    @property
    def edges_mm(self) -> list[float]:
        return []

    def area_figure(self) -> Figure:
        return of_parts(_TRACED, self.area_mm2, {"area": self.area_mm2}, "mm2")

    def offset(self, distance_mm: float, rounded: bool = False) -> "Traced":
        return self if distance_mm == 0 else _grown(self, distance_mm, rounded)

    def stretched(self, across: float, along: float) -> "Traced":
        return _stretched(self, across, along)


@cached(2048)
def _grown(outline: Traced, distance_mm: float, rounded: bool) -> Traced:
    # Shrunk, an outline keeps what lies that far inside its edge: the notch between two petals is rounded, as no knife
    # or coat goes deeper there. Grown, a sharp corner is carried on to a point.
    join: Literal["round", "mitre"] = "round" if rounded or distance_mm < 0 else "mitre"
    grown = outline.polygon.buffer(distance_mm, quad_segs=ROUND_STEPS, join_style=join, mitre_limit=5)
    if outline.may_part:
        if grown.is_empty:
            raise ValueError("the outline is too narrow to shrink so far")
        return Traced(_bounded(grown.simplify(HAIR_MM)), may_part=True)
    if isinstance(grown, MultiPolygon):
        # The tips of petals may come off as crumbs; anything more is a tier in pieces.
        largest = largest_of(grown)
        grown = largest if largest.area > 0.98 * grown.area else None
    if not isinstance(grown, Polygon) or grown.is_empty:
        raise ValueError("the outline is too narrow to shrink so far")
    return Traced(_bounded(Polygon(grown.exterior).simplify(HAIR_MM)))


def areas_of(found: object) -> Region:
    """The areas of what shapely made, without stray lines and points."""
    if isinstance(found, Polygon | MultiPolygon):
        return found
    return MultiPolygon([one for one in getattr(found, "geoms", ()) if isinstance(one, Polygon)])


def largest_of(region: Region) -> Polygon:
    """The largest part of an area."""
    return region if isinstance(region, Polygon) else max(region.geoms, key=lambda part: float(part.area))


def _bounded(polygon: Region) -> Region:
    """The same outline with no more corners than are worth working with, where a knife cannot tell the difference."""
    fewer_mm = HAIR_MM
    while get_num_coordinates(polygon) > MOST_CORNERS and fewer_mm < KNIFE_MM:
        fewer_mm *= 2
        polygon = polygon.simplify(fewer_mm)
    return polygon


@cached(64)
def _stretched(outline: Traced, across: float, along: float) -> Traced:
    return Traced(scale(outline.polygon, across, along, origin=(0, 0)), outline.may_part)


@cached(64)
def heart(across_mm: float) -> Traced:
    """A heart of the given width, as long as it is wide: two round lobes, and cheeks of wider arcs that run from their
    sides to the tip.

    With width w the lobes have a radius of 0.275 w and the cheeks one of 0.775625 w; the area is 0.7536 w². It stands
    on the middle of its height. Source: geometry; the form is that of sold tins, by their volume: 8 in wide and 2 1/2
    in deep hold about 8 cups (common practice; from memory).
    """
    lobe, cheek = LOBE * across_mm, CHEEK * across_mm
    middle, notch = across_mm / 2 - lobe, math.acos(-(0.5 - LOBE) / LOBE)
    tip = math.asin((1 - LOBE) / CHEEK)
    right = [
        *arc((across_mm / 2 - cheek, 0.0), cheek * EVEN, -tip, 0.0, ARC_STEP)[1:-1],
        *arc((middle, 0.0), lobe * EVEN, 0.0, notch, ARC_STEP),
    ]
    left = [(-x, y) for x, y in reversed(right[:-1])]
    down = (LOBE - (1 - LOBE)) / 2 * across_mm
    points = [(0.0, -(1 - LOBE) * across_mm), *right[:-1], (0.0, right[-1][1]), *left]
    return Traced(Polygon([(x, y - down) for x, y in points]))


@cached(64)
def petal(across_mm: float, petals: int) -> Traced:
    """A ring of half circles on the sides of a regular polygon, as a petal tin has them, of the given width.

    With side s the width is s / tan(pi/n) + s and the area that of the polygon and n half circles.
    Source: geometry; the shape of the usual tin is common practice.
    """
    turn = math.pi / petals
    side = across_mm / (1 / math.tan(turn) + 1)
    out = side / (2 * math.tan(turn))
    found: list[Point] = []
    for index in range(petals):
        facing = 2 * turn * index
        middle = (out * math.cos(facing), out * math.sin(facing))
        found.extend(arc(middle, side / 2 * EVEN, facing - math.pi / 2, facing + math.pi / 2, ARC_STEP)[:-1])
    return Traced(Polygon(found))


@cached(64)
def free(across_mm: float, points: tuple[Point, ...]) -> Traced:
    """An outline of one's own, of so many corners, scaled to the given width and stood with its middle on the axis.

    Raises ValueError when it crosses or touches itself, or encloses next to nothing. Source: geometry.
    """
    polygon = Polygon(points)
    if not polygon.is_valid:
        raise ValueError("its edge crosses or touches itself")
    left, front, right, back = polygon.bounds
    thin = min(right - left, back - front) < 0.02 * max(right - left, back - front)
    if thin or polygon.area < 0.02 * (right - left) * (back - front):
        raise ValueError("it encloses next to nothing")
    stood = translate(polygon, -(left + right) / 2, -(front + back) / 2)
    factor = across_mm / (right - left)
    drawn = scale(stood, factor, factor, origin=(0, 0))
    return Traced(drawn if len(points) <= FINE_CORNERS else drawn.simplify(KNIFE_MM / 5))
