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
from collections.abc import Iterable
from statistics import NormalDist

from amber_spread.core.base import Frozen, slug
from amber_spread.core.figures import COMMON_PRACTICE, DEFINITION, Figure, Source, of_parts, parts_rule, rule, total
from amber_spread.core.uses import STEPS, Use

RESERVE_SOURCE = Source(
    origin="definition", reference="standard deviation of a sum of independent amounts, and a normal quantile"
)
_NEED = parts_rule(
    "bowls.need",
    "Each step needs in the bowl all that the steps before it took, what it takes itself, and what it must have in "
    "hand. The greatest of these is what the bowl must hold.",
    "greatest",
    "geometry",
)


class Bowl(Frozen):
    """One medium in one colour: what to mix for all its steps, in the order that needs least."""

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


@rule(
    "bowls.comes_back", unit="g", formula="need - stays - lost", source=DEFINITION, rounding="down",
    words="What was needed in hand, less what stayed on the cake and what was lost.",
)  # fmt: skip
def comes_back(need_g: float, stays_g: float, lost_g: float) -> float:
    """What is left clean at the end, g: need - stays - lost. Source: definition."""
    return need_g - stays_g - lost_g


@rule(
    "bowls.reserve", unit="g", formula="surety * spread", source=RESERVE_SOURCE,
    words="How far the amounts together may run over, at the risk of running short you chose.",
)  # fmt: skip
def reserve(surety: float, spread_g: float) -> float:
    """The reserve, g: z x spread, z the standard normal quantile of 1 - risk, spread from `spread_of`.

    A one-sided normal margin over independent steps: a simple stand-in that pooling already
    lowers. Source: elementary statistics (standard deviation of a sum of independent amounts).
    """
    return surety * spread_g


@rule(
    "bowls.mix", unit="g", formula="ceil((need + reserve) / step) * step", source=COMMON_PRACTICE, rounding="up",
    words="What is needed and the reserve, rounded up to what the scale weighs well.",
)  # fmt: skip
def mix(need_g: float, reserve_g: float, step_g: float) -> float:
    """What to mix, g: need + reserve, up to a multiple of `step_g`. Source: common practice."""
    return math.ceil((need_g + reserve_g) / step_g) * step_g


def spread_of(uses: Iterable[Use]) -> float:
    """Standard deviation of what stays in all uses together, g: root of the sum of (variation x stays)²."""
    return math.sqrt(sum((use.variation.value * use.stays.value) ** 2 for use in uses))


def surety_of(risk: float) -> float:
    """How many standard deviations cover all but `risk`: the standard normal quantile of 1 - risk, never below 0."""
    return max(0.0, NormalDist().inv_cdf(1 - risk))


def best_order(uses: Iterable[Use]) -> list[Use]:
    """The order of working that needs least in the bowl, each tier's own steps in their order.

    Lawler's backward rule (see the head of this file). Ties keep lower tiers and earlier steps first.
    """
    waiting = sorted(uses, key=_rank)
    placed: list[Use] = []
    while waiting:
        last_of_tier = {use.tier: use for use in waiting}
        chosen = min(last_of_tier.values(), key=lambda use: (use.in_hand.value, tuple(-part for part in _rank(use))))
        waiting.remove(chosen)
        placed.append(chosen)
    return placed[::-1]


def levels(ordered: Iterable[Use]) -> dict[str, float]:
    """For each step in order, all that must have been in the bowl for it, g: taken so far + its float."""
    taken, reached = 0.0, {}
    for use in ordered:
        taken += use.kept_g
        reached[step_key(use)] = taken + use.in_hand.value
    return reached


def step_key(use: Use) -> str:
    """The name of a use among its bowl's steps: `tier_1_crumb`."""
    return f"tier_{use.tier}_{use.step}"


def bowl_key(medium: str, colour: str | None) -> str:
    """The name of a bowl among the plan's bowls: `meringue_buttercream`, or with its colour `fondant~blush`."""
    return medium if colour is None else f"{medium}~{slug(colour)}"


def fill_bowl(uses: Iterable[Use], name: str, hex: str, risk: float, step_g: float) -> Bowl:
    """The bowl that serves `uses`, which are all of one medium and colour. Raises ValueError when there are none."""
    ordered = best_order(uses)
    if not ordered:
        raise ValueError("a bowl serves at least one use")
    reached = levels(ordered)
    need = of_parts(_NEED, max(reached.values()), reached, "g")
    stays = total({step_key(use): use.stays.value for use in ordered}, "g")
    lost = total({step_key(use): use.lost.value for use in ordered}, "g")
    margin = reserve.figure(surety_of(risk), spread_of(ordered))
    tiers = sorted({use.tier for use in ordered})
    alone = {
        f"tier {tier}": max(levels(best_order(use for use in ordered if use.tier == tier)).values()) for tier in tiers
    }
    return Bowl(
        medium=ordered[0].medium,
        colour=ordered[0].colour,
        name=name,
        hex=hex,
        steps={step_key(use): use for use in ordered},
        stays=stays,
        lost=lost,
        need=need,
        reserve=margin,
        mix=mix.figure(need.value, margin.value, step_g),
        comes_back=comes_back.figure(need.value, stays.value, lost.value),
        apart=total(alone, "g"),
    )


def _rank(use: Use) -> tuple[int, int]:
    return use.tier, STEPS.index(use.step)
