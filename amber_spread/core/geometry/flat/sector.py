"""What lies about the upright axis in some directions: a sector of what is seen from above.

A direction is told in degrees from the front, anticlockwise seen from above: the right is at 90, the back at 180.
x runs to the right, y to the back. Lengths are in mm.
"""

import math
from typing import NamedTuple

import numpy
from numpy.typing import NDArray
from shapely import LineString, Polygon

from amber_spread.core.geometry.flat.outline import Outline, Point, Round
from amber_spread.core.geometry.flat.places import polygon_of
from amber_spread.core.geometry.flat.traced import areas_of
from amber_spread.core.geometry.rows import Numbers

WHOLE_DEG = 360.0
STEP_DEG = 45.0
"""Its far edge is drawn in straight pieces no longer."""


class Sector(NamedTuple):
    """So many degrees about the axis, the middle of them so far from the front."""

    round_deg: float = WHOLE_DEG
    turn_deg: float = 0.0

    @property
    def whole(self) -> bool:
        """Whether it goes all the way round."""
        return self.round_deg >= WHOLE_DEG

    @property
    def of_a_turn(self) -> float:
        """How much of a whole turn it is."""
        return min(1.0, self.round_deg / WHOLE_DEG)

    def faces(self, turn_deg: float) -> bool:
        """Whether a direction lies in it."""
        return bool(self._has(numpy.array(turn_deg)))

    def holds(self, x: Numbers, y: Numbers) -> NDArray[numpy.bool_]:
        """Whether each place of a lattice lies in it, by x and y."""
        return self._has(numpy.degrees(numpy.arctan2(x[:, None], -y[None, :])))

    def _has(self, turns_deg: Numbers) -> NDArray[numpy.bool_]:
        found: NDArray[numpy.bool_] = numpy.abs((turns_deg - self.turn_deg + 180) % 360 - 180) < self.round_deg / 2
        return found

    def area(self, far_mm: float) -> Polygon:
        """All of it as far from the axis as that, or somewhat farther."""
        out = far_mm / math.cos(math.radians(STEP_DEG) / 2)
        steps = math.ceil(self.round_deg / STEP_DEG)
        turns = [self.turn_deg + self.round_deg * (step / steps - 0.5) for step in range(steps + 1)]
        return Polygon([*([] if self.whole else [(0.0, 0.0)]), *(_toward(turn, out) for turn in turns)])

    def share(self, outer: Outline, inner: Outline | None) -> float:
        """How much of what lies between two outlines lies in it, as a share of that; of all within where there is no
        inner one. Source: geometry.
        """
        if self.whole or (isinstance(outer, Round) and isinstance(inner, Round | None)):
            return self.of_a_turn
        ring = polygon_of(outer)
        if inner is not None:
            ring = areas_of(ring.difference(polygon_of(inner)))
        return float(ring.intersection(self.area(2 * outer.reach_mm)).area / ring.area) if ring.area else 0.0

    def seen_between(self) -> list[tuple[float, float]]:
        """The directions in it that are seen from the front, from the left to the right: those between two of them."""
        low, high = self.turn_deg - self.round_deg / 2, self.turn_deg + self.round_deg / 2
        found = [(max(-90.0, low + turn), min(90.0, high + turn)) for turn in (-WHOLE_DEG, 0.0, WHOLE_DEG)]
        return sorted(one for one in found if one[0] < one[1])


ALL_ROUND = Sector()


def farthest_across(outline: Outline, turn_deg: float) -> float:
    """How far to the right the farthest of an outline lies that is met from the axis in a direction, mm; to the left
    it is below 0.
    """
    if isinstance(outline, Round):
        return outline.radius_mm * math.sin(math.radians(turn_deg))
    ray = LineString([(0.0, 0.0), _toward(turn_deg, 2 * outline.reach_mm)])
    low, _, high, _ = ray.intersection(polygon_of(outline)).bounds
    if math.isnan(low):
        return 0.0
    return float(high if turn_deg > 0 else low)


def _toward(turn_deg: float, out_mm: float) -> Point:
    turn = math.radians(turn_deg)
    return out_mm * math.sin(turn), -out_mm * math.cos(turn)
