"""The bowl walk: every use of one medium in one colour, out of one bowl, and what must be mixed for them.

Each step takes what stays and what is lost out of the bowl for good, and needs its float in hand
while it is worked. So a bowl must hold, over all steps i in working order,

    need = max over i of ( sum over j <= i of (stays_j + lost_j) + float_i )

Which order needs least is a known scheduling problem: jobs of length stays + lost, each with a tail
of length float, on one machine, least latest finish, with some jobs before others. Lawler's
backward rule solves it exactly: from the end, always place, among the steps that nothing unplaced
must follow, one with the smallest float. (E. L. Lawler, "Optimal sequencing of a single machine
subject to precedence constraints", Management Science 19, 1973; cited from memory.)
"""

import math
from collections.abc import Iterable, Sequence
from heapq import heapify, heappop, heapreplace
from operator import attrgetter
from typing import NamedTuple

from amber_spread.core.bowls.reserve import Walks, walk
from amber_spread.core.kernel.base import FrozenDict, PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    Figure,
    Source,
    decided,
    of_part,
    of_parts,
    parts_rule,
    rule,
    total,
)
from amber_spread.core.tier import Use

RESERVE_SOURCE = Source(
    origin="published",
    reference="log-normal amounts (Johnson, Kotz, Balakrishnan, Continuous Univariate Distributions 1, ch. 14) over a "
    "scrambled Sobol sample (Owen, Journal of Complexity 14, 1998); both cited from memory",
)
RISKS = (5, 10, 20, 50, 100)
"""The risks of running short that are offered: 1 in so many."""
LEFT = {"least": 0.1, "likely": 0.5, "most": 0.9}
"""What is shown of the amounts left over: the least and most in 8 of 10, and the middle."""
_NEED = parts_rule(
    "bowls.need",
    "Each step needs in the bowl all that the steps before it took, what it takes itself, and what it must have in "
    "hand. The greatest of these is what the bowl must hold.",
    "greatest",
    "geometry",
)
_RISK = parts_rule(
    "bowls.risk",
    "The share of all walks of the bowl that need more than this.",
    "same",
    "definition",
)
_LEFT = parts_rule(
    "bowls.left",
    "How much of the mix is left over in each walk of the bowl, from the least to the most.",
    "same",
    "definition",
)
_AT_RISK = parts_rule(
    "bowls.at_risk",
    "What would be mixed at this risk of running short, up to what the scale weighs well.",
    "same",
    "definition",
)


class Mixer(NamedTuple):
    """How a medium that is beaten comes in batches: its density, the mixer's bowl, and how full it beats well."""

    density_g_per_ml: float
    mixer_ml: float
    fill: float


LIKE = 20
"""So many cakes stand for how far amounts run over or under."""


class Bowl(PlanPart):
    """One medium in one colour: what to mix for all its steps, in the order that needs least.

    `have` is what is there already; `risk_have` the risk with that alone, `risk_more` and `left_more` the risk and the
    likely leftover with one more batch on top of it, or of what is mixed. `apart` is what its tiers would need one by
    one, `mixed_apart` what would be mixed for them, each with a reserve of its own; null where there is one tier only.
    `spread_g` is what each of `LIKE` such cakes would need, from the least to the most.
    """

    medium: str
    colour: str | None
    name: str
    hex: str
    steps: dict[str, Use]
    stays: Figure
    lost: Figure
    need: Figure
    reserve: Figure
    mix: Figure
    comes_back: Figure
    apart: Figure
    risk: Figure
    risk_bare: Figure
    left: dict[str, Figure]
    at_risk: dict[str, Figure]
    spread_g: list[float]
    mixed_apart: Figure | None = None
    order_cost: Figure | None = None
    batches: Figure | None = None
    batch: Figure | None = None
    have: Figure | None = None
    still_to_mix: Figure | None = None
    risk_have: Figure | None = None
    risk_more: Figure | None = None
    left_more: Figure | None = None


@rule(
    "bowls.comes_back",
    unit="g",
    formula="need - stays - lost",
    source=DEFINITION,
    rounding="down",
    words="What was needed in hand, less what stayed on the cake and what was lost.",
)
def comes_back(need_g: float, stays_g: float, lost_g: float) -> float:
    """What is left clean at the end, g: need - stays - lost. Source: definition.

    >>> round(comes_back(135, 115.7, 9.2), 2)
    10.1
    """
    return need_g - stays_g - lost_g


@rule(
    "bowls.reserve",
    unit="g",
    formula="max(0, enough - need)",
    source=RESERVE_SOURCE,
    words="The bowl is walked many times, with amounts that vary as they do in the hand: what is enough in all walks "
    "but the share you risk, less what the amounts as planned need.",
)
def reserve(enough_g: float, need_g: float) -> float:
    """The reserve, g: enough - need, never below 0; `enough` is a quantile of many walks (see `reserve.py`).

    Source: published (log-normal amounts; scrambled Sobol sample).

    >>> reserve(166, 135)
    31
    """
    return max(0.0, enough_g - need_g)


@rule(
    "bowls.mix",
    unit="g",
    formula="ceil((need + reserve) / step) * step",
    source=COMMON_PRACTICE,
    rounding="up",
    words="What is needed and the reserve, rounded up to what the scale weighs well.",
)
def mix(need_g: float, reserve_g: float, step_g: float) -> float:
    """What to mix, g: need + reserve, up to a multiple of `step_g`. Source: common practice.

    >>> mix(135, 31, 5)
    170
    """
    return math.ceil((need_g + reserve_g) / step_g) * step_g


@rule(
    "bowls.order_cost",
    unit="g",
    formula="need - least",
    source=DEFINITION,
    rounding="up",
    words="What the order you chose needs more than the order that needs least.",
)
def order_cost(need_g: float, least_g: float) -> float:
    """What a chosen order costs, g: its need - the least need. Source: definition.

    >>> order_cost(480, 455)
    25
    """
    return need_g - least_g


@rule(
    "bowls.batches",
    unit="each",
    formula="ceil(mix / density / (mixer * fill))",
    source=COMMON_PRACTICE,
    rounding="up",
    words="As many times as the mixer must be filled, each time no fuller than it beats well.",
)
def batches(mix_g: float, density_g_per_ml: float, mixer_ml: float, fill: float) -> float:
    """Batches to mix: mix / density / (mixer x fill), up. Source: common practice; the share is this kitchen's own.

    >>> batches(1405, 1, 4800, 0.6)
    1
    """
    return math.ceil(mix_g / density_g_per_ml / (mixer_ml * fill) - 1e-9)


@rule(
    "bowls.still_to_mix",
    unit="g",
    formula="max(0, mix - have)",
    source=DEFINITION,
    rounding="up",
    words="What is to be mixed in all, less what is there already.",
)
def still_to_mix(mix_g: float, have_g: float) -> float:
    """What is still to be mixed, g: mix - have, never below 0. Source: definition.

    >>> still_to_mix(485, 200)
    285
    """
    return max(0.0, mix_g - have_g)


@rule(
    "bowls.batch",
    unit="g",
    formula="mix / batches",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Equal batches, rather than full ones and a scrap that never matches.",
)
def batch(mix_g: float, batches_count: float) -> float:
    """Weight of each of equal batches, g. Source: common practice.

    >>> batch(485, 1)
    485.0
    """
    return mix_g / batches_count


def best_order(uses: Iterable[Use]) -> list[Use]:
    """The order of working that needs least in the bowl, each tier's own steps in their order.

    Lawler's backward rule (see the head of this file). Ties keep lower tiers and earlier steps first.
    """
    waiting = by_tier(sorted(uses, key=attrgetter("forward")))
    last = [(own[-1].backward, own) for own in waiting.values()]
    heapify(last)
    placed: list[Use] = []
    while last:
        own = last[0][1]
        placed.append(own.pop())
        if own:
            heapreplace(last, (own[-1].backward, own))
        else:
            heappop(last)
    return placed[::-1]


def by_tier(uses: Iterable[Use]) -> dict[int, list[Use]]:
    """The uses of each tier in the order they come."""
    found: dict[int, list[Use]] = {}
    for use in uses:
        found.setdefault(use.tier, []).append(use)
    return found


def kept_order(uses: Iterable[Use], wanted: Sequence[str]) -> list[Use]:
    """The uses in a wanted order of their keys, each tier's own steps put back into the order of the work.

    What is not named comes after, in the order that needs least.
    """
    best = best_order(uses)
    place = {key: number for number, key in enumerate(wanted)}
    ordered = sorted(best, key=lambda use: place.get(use.step_key, len(place)))
    own = {tier: iter(uses) for tier, uses in by_tier(best).items()}
    return [next(own[use.tier]) for use in ordered]


def levels(ordered: Iterable[Use]) -> dict[str, float]:
    """For each step in order, all that must have been in the bowl for it, g: taken so far + its float."""
    taken, reached = 0.0, {}
    for use in ordered:
        taken += use.kept_g
        reached[use.step_key] = taken + use.in_hand.value
    return reached


class Care(NamedTuple):
    """How carefully a bowl is filled: how often it may run short, and to what step it is weighed, g."""

    risk: float
    step_g: float


def fill_bowl(
    uses: Iterable[Use],
    name: str,
    hex: str,
    care: Care,
    wanted: Sequence[str] = (),
    have_g: float | None = None,
    mixer: Mixer | None = None,
) -> Bowl:
    """The bowl that serves `uses`, which are all of one medium and colour, in the order that needs least or as wanted.

    `have_g` is what of it is there already; `mixer` says how it comes in batches. Raises ValueError when there are no
    uses.
    """
    risk, step_g = care
    best = best_order(uses)
    ordered = kept_order(best, wanted) if wanted else best
    if not ordered:
        raise ValueError("a bowl serves at least one use")
    steps = FrozenDict({use.step_key: use for use in ordered})
    reached = levels(ordered)
    need = of_parts(_NEED, max(reached.values()), reached, "g", "up")
    stays = total({key: use.stays.value for key, use in steps.items()}, "g")
    lost = total({key: use.lost.value for key, use in steps.items()}, "g")
    cost = order_cost.figure(need.value, max(levels(best).values())) if wanted else None
    walks = walk(ordered)
    margin = reserve.figure(walks.enough(risk), need.value)
    mixed = mix.figure(need.value, margin.value, step_g)
    # One tier's own steps have one order only, that of the work.
    each_tier = {f"tier {tier}": own for tier, own in sorted(by_tier(ordered).items())}
    alone = {name: max(levels(own).values()) for name, own in each_tier.items()}
    mixed_alone = {}
    if len(each_tier) > 1:
        mixed_alone = {name: _mixed_alone(tuple(own), alone[name], risk, step_g) for name, own in each_tier.items()}
    many = None if mixer is None else batches.figure(mixed.value, *mixer)
    each = None if many is None else batch.figure(mixed.value, max(1.0, many.value))
    in_hand_g = mixed.value if have_g is None else have_g
    more_g = None if each is None else in_hand_g + each.value
    return Bowl(
        medium=ordered[0].medium,
        colour=ordered[0].colour,
        name=name,
        hex=hex,
        steps=steps,
        stays=stays,
        lost=lost,
        need=need,
        reserve=margin,
        mix=mixed,
        comes_back=comes_back.figure(need.value, stays.value, lost.value),
        apart=total(alone, "g"),
        mixed_apart=total(mixed_alone, "g") if mixed_alone else None,
        order_cost=cost,
        batches=many,
        batch=each,
        have=None if have_g is None else decided(have_g, "g"),
        still_to_mix=None if have_g is None else still_to_mix.figure(mixed.value, have_g),
        risk_have=None if have_g is None else of_part(_RISK, "risk", walks.risk_of(have_g), "ratio"),
        risk_more=None if more_g is None else of_part(_RISK, "risk", walks.risk_of(more_g), "ratio"),
        left_more=None if more_g is None else _left(walks, more_g, LEFT["likely"]),
        risk=of_part(_RISK, "risk", walks.risk_of(mixed.value), "ratio"),
        risk_bare=of_part(_RISK, "risk", walks.risk_of(need.value), "ratio"),
        left={name: _left(walks, mixed.value, share) for name, share in LEFT.items()},
        at_risk={
            f"1_in_{odds}": of_part(_AT_RISK, "mix", _mixed(walks, need.value, 1 / odds, step_g), "g", "up")
            for odds in RISKS
        },
        spread_g=walks.like(LIKE),
    )


def _left(walks: Walks, mixed_g: float, share: float) -> Figure:
    """A quantile of the leftovers of a mixed amount: this share of the walks leave less."""
    return of_part(_LEFT, "left", walks.left_of(mixed_g, share), "g", "down")


@cached(4 * TIERS)
def _mixed_alone(own: tuple[Use, ...], need_g: float, risk: float, step_g: float) -> float:
    """What a risk asks to be mixed for one tier by itself, g."""
    return _mixed(walk(own), need_g, risk, step_g)


def _mixed(walks: Walks, need_g: float, risk: float, step_g: float) -> float:
    """What a risk asks to be mixed, g."""
    return mix.function(need_g, reserve.function(walks.enough(risk), need_g), step_g)
