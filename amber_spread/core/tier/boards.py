"""Boards: of what shape and size one is under a cake, whether a cake stands on it, and the supports below it."""

import math
from functools import lru_cache
from typing import Literal, NamedTuple

from shapely import MultiPoint, Polygon

from amber_spread.core.geometry.outline import Cornered, Outline, Oval, Round
from amber_spread.core.kernel.figures import COMMON_PRACTICE, rule

BoardShape = Literal["round", "square", "rectangle", "oval", "outline"]
BOARD_SHAPES: dict[BoardShape, str] = {
    "round": "round", "square": "square", "rectangle": "rectangle", "oval": "oval", "outline": "cut to the outline",
}  # fmt: skip
"""Every shape of board, and what it is called."""
"""The shapes a board has; `outline` is cut to the cake's own."""
EQUAL_MM = 1.0
"""A board whose sides differ by less than this is square, or round (from memory)."""
EDGE_POINTS = 240


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


def over_edge(inner: Outline, outer: Outline) -> float:
    """How far the outline `inner` stands out over the edge of `outer`, both about one axis, mm; 0 where it does not.

    Source: geometry.
    """
    if inner.reach_mm <= outer.inner_mm:
        return 0.0
    if isinstance(outer, Round):
        return max(0.0, inner.reach_mm - outer.radius_mm)
    if isinstance(inner, Cornered | Round) and isinstance(outer, Cornered) and not outer.corner_mm:
        return max(
            0.0, inner.half_width_mm - outer.half_width_mm, inner.half_length_mm - outer.half_length_mm
        )  # fmt: skip
    return _over_edge(inner, outer)


@lru_cache(maxsize=256)
def _over_edge(inner: Outline, outer: Outline) -> float:
    edge = Polygon(_points(outer))
    out = MultiPoint(_points(inner)).difference(edge)
    return 0.0 if out.is_empty else max(float(edge.distance(point)) for point in getattr(out, "geoms", [out]))


def _points(outline: Outline) -> list[tuple[float, float]]:
    return outline.traced(EDGE_POINTS) if isinstance(outline, Oval) else outline.points


@rule(
    "stack.supports", unit="each", formula="max(3, floor(board / 25.4 + 0.5) - 1)", source=COMMON_PRACTICE,
    rounding="up",
    words="One fewer than the upper tier's width in inches, and never fewer than three. Your local practice and the "
    "weight above decide.",
)  # fmt: skip
def supports_under(board_mm: float) -> float:
    """Supports under an upper tier: its width in inches - 1, at least 3. Source: common practice.

    >>> supports_under(123)
    4
    """
    return max(3, math.floor(board_mm / 25.4 + 0.5) - 1)


@rule(
    "stack.rods", unit="each", formula="ceil(supports / max(1, floor(rod / length))) * ceil(length / rod)",
    source=COMMON_PRACTICE, rounding="up",
    words="As many rods as these supports are cut from, all of one length.",
)  # fmt: skip
def rods_for(supports_count: float, length_mm: float, rod_mm: float) -> float:
    """Rods to buy: supports over how many one rod gives, up; where one is too short, so many end to end.

    Source: arithmetic; the rod's length is this kitchen's own.

    >>> rods_for(6, 54, 300)
    2
    """
    return math.ceil(supports_count / max(1, math.floor(rod_mm / length_mm))) * math.ceil(length_mm / rod_mm)
