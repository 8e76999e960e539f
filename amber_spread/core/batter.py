"""Batter for the whole cake: how much the tins take, how many batches of a recipe, and what the rest would make."""

import math

from amber_spread.core.base import Made
from amber_spread.core.design import Design, MeasuredBake, TinBake
from amber_spread.core.figures import COMMON_PRACTICE, DEFINITION, Figure, chosen, rule, total
from amber_spread.core.practice import Practice
from amber_spread.core.shapes import BallBuild

QUARTER = 0.25


class BatterPlan(Made):
    """Batter by tier, by cake and in all; `batches` in quarters of a recipe, `spare` small cakes from the rest of a
    whole one.
    """

    tiers: dict[str, Figure]
    cakes: dict[str, Figure]
    whole: Figure
    batch: Figure
    batches: Figure
    rest: Figure
    spare: Figure


@rule(
    "batter.tins", unit="ml", formula="tins * area * depth / 1000 * fill", source=COMMON_PRACTICE, rounding="up",
    words="As many tins as there are layers to bake, each filled to this share of its depth.",
)  # fmt: skip
def batter_volume(tins_count: int, area_mm2: float, depth_mm: float, fill: float) -> float:
    """Batter for the tins, ml: tins x area x depth / 1000 x fill. The share to fill is this kitchen's own."""
    return tins_count * area_mm2 * depth_mm / 1000 * fill


@rule(
    "batter.ball", unit="ml", formula="halves * pi * across**3 / 12 / 1000 * fill", source=COMMON_PRACTICE,
    rounding="up", words="Half-ball tins, each filled to this share of what it holds.",
)  # fmt: skip
def ball_batter(halves_count: int, across_mm: float, fill: float) -> float:
    """Batter for half-ball tins, ml: halves x pi d³ / 12 / 1000 x fill. Source: geometry (half a ball)."""
    return halves_count * math.pi * across_mm**3 / 12 / 1000 * fill


@rule(
    "batter.batches", unit="each", formula="ceil(4 * batter / batch) / 4", source=COMMON_PRACTICE, rounding="up",
    words="Batches of the recipe, up to a quarter: people make three quarters of one rather than throw batter away.",
)  # fmt: skip
def batches_of(batter_ml: float, batch_ml: float) -> float:
    """Batches of a recipe to make, in quarters: batter / batch, up. Source: common practice."""
    return math.ceil(4 * batter_ml / batch_ml - 1e-9) / 4


@rule(
    "batter.rest", unit="ml", formula="ceil(batches) * batch - batter", source=DEFINITION, rounding="down",
    words="What whole batches would leave over.",
)  # fmt: skip
def rest_of(batches: float, batch_ml: float, batter_ml: float) -> float:
    """Batter left if only whole batches are made, ml. Source: definition."""
    return math.ceil(batches) * batch_ml - batter_ml


@rule(
    "batter.spare", unit="each", formula="floor(rest / small)", source=COMMON_PRACTICE, rounding="down",
    words="As many small spare cakes as the rest of whole batches would make.",
)  # fmt: skip
def spare_cakes(rest_ml: float, small_ml: float) -> float:
    """Spare small cakes from the rest: rest / batter of one small tin, down. Source: common practice."""
    return math.floor(rest_ml / small_ml)


def plan_batter(design: Design, practice: Practice) -> BatterPlan:
    """The batter for every layer still to be baked; layers that are baked and measured take none."""
    tiers = {}
    for number, tier in enumerate(design.tiers, 1):
        bake = tier.layers.bake
        if isinstance(bake, MeasuredBake):
            continue
        if isinstance(tier.build, BallBuild):
            figure = ball_batter.figure(tier.build.halves, tier.tin_diameter_mm, practice.batter_fill)
        else:
            torte, depth = (bake.torte, bake.depth_mm) if isinstance(bake, TinBake) else (1, practice.tin_depth_mm)
            area = tier.shape.outline(tier.tin_diameter_mm).area_mm2
            figure = batter_volume.figure(math.ceil(tier.layers.count / torte), area, depth, practice.batter_fill)
        tiers[f"tier_{number}"] = figure
    cakes: dict[str, dict[str, float]] = {}
    for number, tier in enumerate(design.tiers, 1):
        if f"tier_{number}" in tiers:
            cakes.setdefault(tier.layers.cake, {})[f"tier {number}"] = tiers[f"tier_{number}"].value
    whole = total({name: figure.value for name, figure in tiers.items()}, "ml")
    batch = chosen(None, practice.batch_ml, "ml")
    batches = batches_of.figure(whole.value, batch.value)
    rest = rest_of.figure(batches.value, batch.value, whole.value)
    small_ml = math.pi / 4 * practice.spare_tin_mm**2 * practice.tin_depth_mm / 1000 * practice.batter_fill
    return BatterPlan(
        tiers=tiers,
        cakes={cake: total(parts, "ml") for cake, parts in cakes.items()},
        whole=whole,
        batch=batch,
        batches=batches,
        rest=rest,
        spare=spare_cakes.figure(rest.value, small_ml),
    )
