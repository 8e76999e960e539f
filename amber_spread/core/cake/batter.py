"""Batter for the whole cake: how much the tins take, how many batches of a recipe, and what the rest would make."""

import math
from collections.abc import Mapping, Sequence

from amber_spread.core.design.builds import BallBuild
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    Figure,
    carry_over,
    decided_or_default,
    rule,
    total,
)
from amber_spread.core.stock.contents import CakeMix
from amber_spread.core.stock.recipes import QUARTER
from amber_spread.core.tier import LayersPlan


class MixPlan(PlanPart):
    """The batter of one cake: what its tins take, what a recipe of it fills, how many recipes to make in the shares it
    can be made in (`step`), the `rest` that leaves, and whether that makes a `spare` small cake.
    """

    name: str
    batter: Figure
    batch: Figure
    step: Figure
    batches: Figure
    rest: Figure
    spare: Figure


class BatterPlan(PlanPart):
    """Batter by tier, by cake and in all, and how each cake's comes in batches."""

    tiers: dict[str, Figure]
    cakes: dict[str, Figure]
    whole: Figure
    mixes: dict[str, MixPlan]


@rule(
    "batter.layers",
    unit="ml",
    formula="area * (layers * cut + tins * level) / 1000 * fill",
    source=COMMON_PRACTICE,
    rounding="up",
    words="All the layers at the height they are cut to, and what is levelled off each tin: baked it is as high as "
    "that, and the batter is this share of it.",
)
def batter_volume(
    area_mm2: float, layers_count: int, cut_mm: float, tins_count: float, level_mm: float, fill: float
) -> float:
    """Batter for the layers, ml: area x (layers x cut + tins x levelled) / 1000 x fill.

    An 8 in tin 2 in deep takes 710 to 830 ml (common practice: charts of batter by the tin, from memory), which is
    0.43 to 0.50 of it. The share is this kitchen's own.

    >>> round(batter_volume(41616, 3, 30, 3, 5, 0.48), 2)
    2097.45
    """
    return area_mm2 * (layers_count * cut_mm + tins_count * level_mm) / 1000 * fill


@rule(
    "batter.ball",
    unit="ml",
    formula="halves * pi * across**3 / 12 / 1000 * fill",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Half-ball tins, each filled to this share of what it holds.",
)
def ball_batter(halves_count: int, across_mm: float, fill: float) -> float:
    """Batter for half-ball tins, ml: halves x pi d³ / 12 / 1000 x fill. Source: geometry (half a ball).

    >>> round(ball_batter(2, 204, 0.48), 2)
    2133.69
    """
    return halves_count * math.pi * across_mm**3 / 12 / 1000 * fill


@rule(
    "batter.batches",
    unit="each",
    formula="ceil(batter / batch / step - 1e-9) * step",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Recipes of it, up to the least share in which every egg stays whole, or to a quarter: people make three "
    "quarters of one rather than throw batter away.",
)
def batches_of(batter_ml: float, batch_ml: float, step: float) -> float:
    """Recipes to make: batter / what one fills, up to a multiple of `step`. Source: common practice.

    >>> batches_of(5363, 2318.2, 0.5)
    2.5
    """
    return math.ceil(batter_ml / batch_ml / step - 1e-9) * step


@rule(
    "batter.rest",
    unit="ml",
    formula="batches * batch - batter",
    source=DEFINITION,
    rounding="down",
    words="What the recipes you make leave over.",
)
def rest_of(batches: float, batch_ml: float, batter_ml: float) -> float:
    """Batter left of the recipes that are made, ml. Source: definition.

    >>> round(rest_of(0.75, 2318.2, 1434), 2)
    304.65
    """
    return batches * batch_ml - batter_ml


@rule(
    "batter.spare",
    unit="each",
    formula="min(1, floor(rest / small))",
    source=COMMON_PRACTICE,
    rounding="down",
    words="One small spare cake, where the batter left over fills its tin.",
)
def spare_cakes(rest_ml: float, small_ml: float) -> float:
    """One spare small cake where the rest fills its tin, else none. Source: common practice (one is baked to try).

    >>> spare_cakes(304.7, 197.7)
    1
    """
    return min(1, math.floor(rest_ml / small_ml))


def plan_batter(
    cake: SettledDesign,
    layers: Sequence[LayersPlan],
    carved: Mapping[int, Figure],
    cakes: Mapping[str, CakeMix],
) -> BatterPlan:
    """The batter for every layer still to be baked; layers that are baked and measured take none.

    `layers` are the plans of the design's tiers, `carved` the batter of those that are carved by their numbers; `cakes`
    say how the batter of each cake comes. One that is not among them comes in batches of this kitchen's usual.
    """
    practice = cake.usual
    tiers: dict[str, Figure] = {}
    taken: dict[str, dict[str, float]] = {}
    for number, (tier, plan) in enumerate(zip(cake.tiers, layers, strict=True), 1):
        if number in carved:
            figure = carved[number]
        elif plan.tins is None:
            continue
        else:
            figure = _batter_of(tier, plan)
        tiers[f"tier_{tier.asked.id}"] = figure
        taken.setdefault(tier.asked.layers.cake, {})[f"tier {number}"] = figure.value
    small_ml = math.pi / 4 * practice.spare_tin_mm**2 * practice.tin_depth_mm / 1000 * practice.batter_fill
    volumes = {key: total(parts, "ml") for key, parts in taken.items()}
    return BatterPlan(
        tiers=tiers,
        cakes=volumes,
        whole=total({name: figure.value for name, figure in tiers.items()}, "ml"),
        mixes={key: _mix(key, volume, practice, cakes.get(key), small_ml) for key, volume in volumes.items()},
    )


@cached(TIERS)
def _batter_of(tier: SettledTier, plan: LayersPlan) -> Figure:
    """The batter of a tier that is not carved."""
    asked, usual = tier.asked, tier.usual
    assert plan.tins is not None
    if isinstance(asked.build, BallBuild):
        return ball_batter.figure(asked.build.halves, asked.tin_diameter_mm, usual.batter_fill)
    area_mm2, cut_mm = asked.shape.outline(asked.tin_diameter_mm).area_mm2, plan.cut_height.value
    return batter_volume.figure(
        area_mm2, asked.layers.count, cut_mm, plan.tins.value, usual.level_mm, usual.batter_fill
    )


def _mix(cake: str, volume: Figure, practice: Practice, known: CakeMix | None, small_ml: float) -> MixPlan:
    batch = decided_or_default(None, practice.batch_ml, "ml")
    if known is not None:
        batch = carry_over("what one recipe fills", known.batch_ml, "ml")
    step = carry_over("the share it is made in", QUARTER if known is None else known.step, "ratio")
    batches = batches_of.figure(volume.value, batch.value, step.value)
    rest = rest_of.figure(batches.value, batch.value, volume.value)
    return MixPlan(
        name=cake.replace("_", " ").capitalize() if known is None else known.name,
        batter=carry_over("batter of this cake", volume.value, "ml", "up"),
        batch=batch,
        step=step,
        batches=batches,
        rest=rest,
        spare=spare_cakes.figure(rest.value, small_ml),
    )
