"""Portions: how many pieces a tier is cut into."""

import math

from amber_spread.core.design.practice import Practice
from amber_spread.core.geometry.body import MM3_PER_ML
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, rule
from amber_spread.core.tier import Worked


@rule(
    "stack.portions", unit="each",
    formula="floor(area / (wide * deep) + 1e-9) * max(1, floor(height / high + 0.25))", source=COMMON_PRACTICE,
    rounding="down",
    words="As many pieces of that size as the cake has room for from above; one as high as two is cut in two storeys.",
)  # fmt: skip
def portions(area_mm2: float, wide_mm: float, deep_mm: float, height_mm: float, high_mm: float) -> float:
    """Portions of a tier: area / (wide x deep), down, times its storeys. Source: common practice (1 x 2 in pieces:
    about 12 from a 6 in, 24 from an 8 in, 38 from a 10 in tier, from memory).

    >>> portions(31172, 25.4, 50.8, 100, 101.6)
    24
    """
    return math.floor(area_mm2 / (wide_mm * deep_mm) + 1e-9) * max(1, math.floor(height_mm / high_mm + 0.25))


@rule(
    "stack.portions.carved", unit="each", formula="floor(volume * 1000 / (wide * deep * high) + 1e-9)",
    source=COMMON_PRACTICE, rounding="down",
    words="What is not straight is cut as it comes: as many pieces of that size as its volume makes.",
)  # fmt: skip
def portions_by_volume(volume_ml: float, wide_mm: float, deep_mm: float, high_mm: float) -> float:
    """Portions of a tier that is not straight: volume / (wide x deep x high), down. Source: common practice.

    >>> portions_by_volume(2000, 25.4, 50.8, 101.6)
    15
    """
    return math.floor(volume_ml * MM3_PER_ML / (wide_mm * deep_mm * high_mm) + 1e-9)


def volume_for(portions_count: float, wide_mm: float, deep_mm: float, high_mm: float) -> float:
    """The volume of a tier that makes so many portions and is not straight, ml: portions x wide x deep x high.

    Source: common practice, as `portions_by_volume`, turned about.

    >>> round(volume_for(15, 25.4, 50.8, 101.6), 1)
    1966.4
    """
    return portions_count * wide_mm * deep_mm * high_mm / MM3_PER_ML


LARGER = {"half_as_wide_again": 1.5, "twice_as_wide": 2.0}
"""Larger cuts that are asked for, by how much wider than the kitchen's usual portion (common practice)."""


def larger_portions(done: Worked, usual: Practice) -> dict[str, Figure]:
    """The portions of a tier by each larger cut."""
    return {name: portions_of(done, usual, wider) for name, wider in LARGER.items()}


def portions_of(done: Worked, usual: Practice, wider: float = 1.0) -> Figure:
    """The portions of a tier, by its cake without coats, so many times as wide as the usual one."""
    bare, size = done.bodies.bare, (wider * usual.portion_wide_mm, usual.portion_deep_mm)
    if done.tier.asked.build.straight:
        return portions.figure(bare.top_area_mm2, *size, bare.height_mm, usual.portion_high_mm)
    return portions_by_volume.figure(bare.volume_ml, *size, usual.portion_high_mm)
