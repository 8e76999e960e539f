"""Boards: of what shape and size one is under a cake, and whether a cake stands on it."""

import math
from typing import Literal, NamedTuple

from shapely import MultiPoint, get_coordinates

from amber_spread.core.geometry.flat.outline import Cornered, Outline, Oval, Point, Round
from amber_spread.core.geometry.flat.places import polygon_of
from amber_spread.core.kernel.caching import TIERS, cached

BoardShape = Literal["round", "square", "rectangle", "oval", "outline"]
BOARD_SHAPES: dict[BoardShape, str] = {
    "round": "round", "square": "square", "rectangle": "rectangle", "oval": "oval", "outline": "cut to the outline",
}  # fmt: skip
"""Every shape of board, and what it is called."""
"""The shapes a board has; `outline` is cut to the cake's own."""
EQUAL_MM = 1.0
"""A board whose sides differ by less than this is square, or round (from memory)."""


class Size(NamedTuple):
    """A board from above: its shape, its width across, and its length at right angles to that."""

    shape: BoardShape
    across_mm: float
    length_mm: float

    @property
    def oblong(self) -> bool:
        """Whether its length has to be said beside its width."""
        return abs(self.length_mm - self.across_mm) > EQUAL_MM

    def outline(self, own: Outline) -> Outline:
        """Its edge; of one cut to an outline, that outline stretched to its size."""
        if self.shape == "round":
            return Round(self.across_mm / 2)
        if self.shape == "oval":
            return Oval(self.across_mm, self.length_mm)
        if self.shape == "outline":
            return own.stretched(self.across_mm / (2 * own.half_width_mm), self.length_mm / (2 * own.half_length_mm))
        return Cornered(self.across_mm, self.length_mm)


def own_shape(outline: Outline) -> Size:
    """The board of a cake's own outline and size."""
    wide, long = 2 * outline.half_width_mm, 2 * outline.half_length_mm
    return Size(shape_of(outline), wide, long)


def shape_of(outline: Outline) -> BoardShape:
    """The shape a board of that outline is sold in; what is sold in none is cut to the outline."""
    oblong = abs(outline.half_length_mm - outline.half_width_mm) > EQUAL_MM / 2
    if isinstance(outline, Round):
        return "round"
    if isinstance(outline, Cornered):
        return "rectangle" if oblong else "square"
    if isinstance(outline, Oval):
        return "oval" if oblong else "round"
    return "outline"


def over_edge(inner: Outline, outer: Outline, off: Point = (0.0, 0.0)) -> float:
    """How far the outline `inner` stands out over the edge of `outer`, mm; 0 where it does not. `off` is how far the
    middle of the inner one lies off that of the outer.

    Source: geometry.
    """
    away = math.hypot(*off)
    if inner.reach_mm + away <= outer.inner_mm:
        return 0.0
    if isinstance(outer, Round) and (not away or isinstance(inner, Round)):
        return max(0.0, inner.reach_mm + away - outer.radius_mm)
    if not away and isinstance(inner, Cornered | Round) and isinstance(outer, Cornered) and not outer.corner_mm:
        return max(0.0, inner.half_width_mm - outer.half_width_mm, inner.half_length_mm - outer.half_length_mm)
    return _over_edge(inner, outer, off)


@cached(TIERS)
def _over_edge(inner: Outline, outer: Outline, off: Point) -> float:
    edge = polygon_of(outer)
    out = MultiPoint(get_coordinates(polygon_of(inner, off))).difference(edge)
    return 0.0 if out.is_empty else max(float(edge.distance(point)) for point in getattr(out, "geoms", [out]))
