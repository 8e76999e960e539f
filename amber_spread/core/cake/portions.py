"""Portions: how many pieces a tier is cut into."""

import math
from functools import partial

from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, rule
from amber_spread.core.tier import PlannedTier


@rule(
    "stack.portions",
    unit="each",
    formula="floor(max(0.97 * area / (wide * deep), floor(girth / (1.5 * wide) + 1e-9)) "
    "* max(1, floor(4 * height / high + 0.05) / 4) * (1 - share) + 1e-9)",
    source=COMMON_PRACTICE,
    rounding="down",
    words="As many pieces of that size as the tin has room for from above, one in thirty less for what is cut crooked. "
    "A tier too narrow for two rows is cut in wedges instead, half as wide again at the rim. A taller one makes more, "
    "by quarters of its height. What is hidden or left empty in it feeds nobody.",
)
def portions(
    area_mm2: float, girth_mm: float, wide_mm: float, deep_mm: float, height_mm: float, high_mm: float, share: float
) -> float:
    """Portions of a straight tier: the more of pieces of wide x deep and, below a girth, of wedges; times its height in
    quarters of a portion's; less the `share` of it that is hollow. A girth of 0 is that of a tier not cut in wedges.

    Source: common practice: wedding charts count 1 x 2 in pieces of a tier about 4 in high by the size of its tin: 8
    from a 4 in, 24 from an 8 in, 38 from a 10 in, 56 from a 12 in round, 32 from an 8 in square (from memory).

    >>> portions(32429, 0, 25.4, 50.8, 100, 101.6, 0)
    24
    """
    pieces = max(0.97 * area_mm2 / (wide_mm * deep_mm), math.floor(girth_mm / (1.5 * wide_mm) + 1e-9))
    return math.floor(pieces * max(1, math.floor(4 * height_mm / high_mm + 0.05) / 4) * (1 - share) + 1e-9)


@rule(
    "stack.portions.carved",
    unit="each",
    formula="floor(volume * 1000 / (wide * deep * high) + 1e-9)",
    source=COMMON_PRACTICE,
    rounding="down",
    words="What is not straight is cut as it comes: as many pieces of that size as its volume makes, without what is "
    "hidden or left empty in it.",
)
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
WEDGE_DEEP = 1.3
"""A tier that reaches no farther from its middle than this many times the depth of a portion is cut in wedges."""


@cached(TIERS)
def portions_of(done: PlannedTier) -> tuple[Figure, dict[str, Figure]]:
    """The portions of a tier of the kitchen's usual size, and by each larger cut: of a straight one by its tin, as
    charts count them, of any other by its cake without coats.
    """
    bare, asked, usual = done.bodies.bare, done.tier.asked, done.tier.usual
    deep_mm, high_mm = usual.portion_deep_mm, usual.portion_high_mm
    hollow = min(1.0, hollow_ml(done) / bare.volume_ml) if done.layers.cavity or done.carving else 0.0
    if asked.build.straight:
        tin = asked.shape.outline(asked.tin_diameter_mm)
        girth_mm = tin.perimeter_mm if tin.reach_mm <= WEDGE_DEEP * deep_mm else 0.0
        cut = partial(portions.figure, tin.area_mm2, girth_mm, height_mm=bare.height_mm, share=hollow)
    else:
        cut = partial(portions_by_volume.figure, bare.volume_ml * (1 - hollow))
    of_width = partial(cut, deep_mm=deep_mm, high_mm=high_mm)
    larger = {name: of_width(wide_mm=wider * usual.portion_wide_mm) for name, wider in LARGER.items()}
    return of_width(wide_mm=usual.portion_wide_mm), larger


def hollow_ml(done: PlannedTier) -> float:
    """What of a bare tier is no cake, ml: its hidden cavity, and openings that are left empty."""
    room = done.layers.cavity.volume.value if done.layers.cavity else 0.0
    openings = done.carving.openings.values() if done.carving else ()
    return room + sum(one.volume.value for one in openings if one.medium is None)
