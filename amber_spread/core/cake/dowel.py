"""The centre dowel: whether there is one, how long and how thick it has to be, and the holes it goes through."""

import math
from collections.abc import Sequence

from amber_spread.core.cake.bearing import Foot
from amber_spread.core.cake.levels import PlacedTier
from amber_spread.core.cake.loads import dowel_across
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, carry_over, decided, rule


class DowelPlan(PlanPart):
    """The centre dowel: how thick, how long it is cut, the least and the most that would do, the least thickness that
    holds, and the hole in every board above the base.
    """

    across: Figure
    length: Figure
    into: Figure
    least: Figure
    most: Figure
    least_across: Figure
    hole: Figure


SOLD_MM, THICKEST_MM = 1.5875, 25.4
"""Dowels are sold in sixteenths of an inch, up to 1 in (common practice)."""


@rule(
    "stack.dowel.most",
    unit="mm",
    formula="top - base + into - below",
    source=COMMON_PRACTICE,
    rounding="down",
    words="From as deep in the base board as it is driven to so far below the top that it is not seen.",
)
def longest_dowel(top_mm: float, base_mm: float, into_mm: float, below_mm: float) -> float:
    """Longest dowel, mm: top of the cake - top of the base board + depth driven in - what is left above it.

    Source: common practice.

    >>> longest_dowel(332, 12, 8, 25)
    303
    """
    return top_mm - base_mm + into_mm - below_mm


@rule(
    "stack.dowel.least",
    unit="mm",
    formula="foot + height / 2 - base + into",
    source=COMMON_PRACTICE,
    rounding="up",
    words="From as deep in the base board as it is driven to the middle of the top tier, so that it holds that too.",
)
def shortest_dowel(foot_mm: float, height_mm: float, base_mm: float, into_mm: float) -> float:
    """Shortest dowel, mm: foot of the top tier + half its height - top of the base board + depth driven in.

    Source: common practice for driving it in; that it reaches the middle of the top tier is from memory.

    >>> shortest_dowel(226, 106, 12, 8)
    275.0
    """
    return foot_mm + height_mm / 2 - base_mm + into_mm


@rule(
    "stack.dowel.hole",
    unit="mm",
    formula="across + 2",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The dowel and a little room round it, in the middle of every board above the base.",
)
def hole_for(across_mm: float) -> float:
    """The hole in a board, mm: the dowel and 2 mm. Source: common practice.

    >>> hole_for(9.5)
    11.5
    """
    return across_mm + 2


@rule(
    "stack.dowel.size",
    unit="mm",
    formula="max(usual, min(ceil(least / 1.5875 - 1e-9) * 1.5875, 25.4))",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The thinnest dowel you use, or the least that holds the stack in a hard stop, up to a sixteenth of an inch "
    "as dowels are sold. None is thicker than 1 in.",
)
def dowel_size(usual_mm: float, least_mm: float) -> float:
    """Width of a dowel, mm: the usual one, or the least that holds, up to 1/16 in and to no more than 1 in.
    Source: common practice.

    >>> round(dowel_size(6.4, 7.2), 2)
    7.94
    """
    return max(usual_mm, min(math.ceil(least_mm / SOLD_MM - 1e-9) * SOLD_MM, THICKEST_MM))


def takes_dowel(cake: SettledDesign) -> bool:
    """Whether a centre dowel goes through the cake: as decided, else in one of two tiers or more that is driven stacked
    and whose tiers all stand flush.
    """
    wanted = cake.asked.stacking.dowel
    if len(cake.tiers) < 2:
        return False
    if wanted is not None:
        return wanted
    return cake.asked.stacking.driven and all(tier.asked.stand.flush for tier in cake.tiers[1:])


def plan_dowel(cake: SettledDesign, feet: Sequence[Foot], highest: PlacedTier) -> DowelPlan:
    """The dowel of a cake of two tiers or more, up into the highest: as wide as decided, else the least sold size that
    holds what turns over each of these feet in a hard stop or a sharp turn.
    """
    share = max(cake.usual.brake_share, cake.usual.turn_share)
    # The width follows from the moment, and grows with it.
    worst = max(feet, key=lambda one: one.weight_g * (share * one.up_mm - one.inward_mm))
    least = dowel_across.figure(worst.weight_g, share, worst.up_mm, worst.inward_mm)
    decided_mm = cake.asked.stacking.dowel_mm
    across = cake.dowel if decided_mm is not None else dowel_size.figure(cake.dowel.value, least.value)
    base_mm, top, usual = cake.board.thickness.value, highest.place, cake.usual
    into_mm = min(usual.dowel_into_base_mm, base_mm)
    high = highest.done.stands.height_mm
    below_mm = min(usual.dowel_below_top_mm, high / 2)
    most = longest_dowel.figure(top.top_mm, base_mm, into_mm, below_mm)
    own = cake.asked.stacking.dowel_length_mm
    return DowelPlan(
        across=across,
        length=decided(own, "mm") if own is not None else most,
        into=carry_over("deep in the base board", into_mm, "mm"),
        least=shortest_dowel.figure(top.foot_mm, high, base_mm, into_mm),
        most=most,
        least_across=least,
        hole=hole_for.figure(across.value),
    )
