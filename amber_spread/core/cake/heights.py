"""How high a finished tier is at a spot on its top, flat or not."""

import math
from collections.abc import Sequence

from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.geometry.flat.places import Within, keeps_in
from amber_spread.core.tier import PlannedTier

STEPS_UP = 60
HALVINGS = 20


def heights_at(lower: PlannedTier, spots: Sequence[Point]) -> list[float]:
    """How high the finished tier is at spots about its own middle, mm; 0 outside it. Source: geometry.

    Most supports stand below a flat top, and one look tells it of all of them.
    """
    if spots and lower.stands.top is not None and _holds(lower.stands.top, spots):
        return [lower.stands.height_mm] * len(spots)
    return [_height_at(lower, x, y) for x, y in spots]


def _height_at(lower: PlannedTier, x: float, y: float) -> float:
    if lower.stands.top is not None and _holds(lower.stands.top, [(x, y)]):
        return lower.stands.height_mm
    if lower.tipped is not None:
        drum = lower.tipped["covered"]
        if abs(x) >= drum.radius_mm or abs(y) > drum.thick_mm / 2:
            return 0.0
        return drum.centre_mm + math.sqrt(drum.radius_mm**2 - x**2)
    body = lower.bodies.covered
    for step in range(STEPS_UP - 1, -1, -1):
        low = body.foot_mm + body.height_mm * step / STEPS_UP
        if _reaches(lower, low, x, y):
            high = low + body.height_mm / STEPS_UP
            for _ in range(HALVINGS):
                middle = (low + high) / 2
                low, high = (middle, high) if _reaches(lower, middle, x, y) else (low, middle)
            return low - body.foot_mm
    return 0.0


def _reaches(lower: PlannedTier, up: float, x: float, y: float) -> bool:
    try:
        return _holds(lower.bodies.covered.section(up), [(x, y)])
    except ValueError:
        return False


def _holds(outline: Outline, spots: Sequence[Point]) -> bool:
    return keeps_in(Within("top", outline), 0.0, spots)
