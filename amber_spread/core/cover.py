"""Covering one tier with a draped sheet: what to roll, what stays, what is trimmed."""

import math

from amber_spread.core.base import Frozen
from amber_spread.core.body import MM3_PER_ML, Straight
from amber_spread.core.coats import CoatPlan, lay
from amber_spread.core.design import NoCover, Tier
from amber_spread.core.figures import COMMON_PRACTICE, Figure, chosen, rule, same
from amber_spread.core.media import Medium
from amber_spread.core.practice import Practice


class CoverPlan(Frozen):
    """A draped cover. `over` is what lies on the tier; the roll is what to roll out."""

    width_over_coat: Figure
    height_over_coat: Figure
    overlap: Figure
    roll_diameter: Figure
    gather: Figure
    rolled_weight: Figure
    trimmed_weight: Figure
    over: CoatPlan


@rule(
    "cover.drape.round", unit="mm", formula="width + 2 * height + 2 * overlap", source=COMMON_PRACTICE, rounding="up",
    words="The width over the coat, the height over the coat down both sides, and what hangs beyond the hem all round.",
)  # fmt: skip
def roll_diameter(width_mm: float, height_mm: float, overlap_mm: float) -> float:
    """Diameter of the circle to roll for a drape, mm: width + 2 x height + 2 x overlap.

    Source: common practice. A bare cake 4 in wide and 3 in high takes a 10 in circle.
    """
    return width_mm + 2 * height_mm + 2 * overlap_mm


@rule(
    "cover.drape.gather", unit="ratio", formula="(radius + height) / radius",
    words="How many times longer the sheet's hem is than the foot of the tier it has to gather to.",
)  # fmt: skip
def gather(radius_mm: float, height_mm: float) -> float:
    """Hem to foot ratio of a drape: (r + h) / r. Source: geometry (two circles)."""
    return (radius_mm + height_mm) / radius_mm


@rule(
    "cover.drape.rolled_weight", unit="g", formula="pi / 4 * diameter**2 * thickness / 1000 * density", rounding="up",
    words="A circle of that diameter and thickness, times how heavy the fondant is.",
)  # fmt: skip
def rolled_weight(diameter_mm: float, thickness_mm: float, density_g_per_ml: float) -> float:
    """Weight of the rolled circle, g: pi/4 d² t x density. Source: geometry (cylinder)."""
    return math.pi / 4 * diameter_mm**2 * thickness_mm / MM3_PER_ML * density_g_per_ml


@rule(
    "cover.drape.trimmed_weight", unit="g", formula="rolled - stays",
    words="What was rolled, less what stays on the tier.",
)  # fmt: skip
def trimmed_weight(rolled_g: float, stays_g: float) -> float:
    """Weight trimmed off, g: rolled - stays; negative when the sheet would be stretched thinner. Source: geometry."""
    return rolled_g - stays_g


def cover_thickness(tier: Tier, practice: Practice) -> Figure | None:
    """The thickness of the cover, None where there is none."""
    if isinstance(tier.cover, NoCover):
        return None
    return chosen(tier.cover.thickness_mm, practice.fondant_mm, "mm")


def plan_cover(
    tier: Tier, practice: Practice, media: dict[str, Medium], coated: Straight
) -> tuple[CoverPlan | None, Straight]:
    """The cover over the coated body, and the body after it."""
    thickness = cover_thickness(tier, practice)
    if isinstance(tier.cover, NoCover) or thickness is None:
        return None, coated
    medium = media[tier.cover.medium]
    overlap = chosen(tier.cover.overlap_mm, practice.overlap_mm, "mm")
    roll = roll_diameter.figure(coated.width_mm, coated.height_mm, overlap.value)
    over, covered = lay(coated, thickness, thickness, medium)
    rolled = rolled_weight.figure(roll.value, thickness.value, medium.density_g_per_ml)
    plan = CoverPlan(
        width_over_coat=same("width over the coat", coated.width_mm, "mm"),
        height_over_coat=same("height over the coat", coated.height_mm, "mm"),
        overlap=overlap,
        roll_diameter=roll,
        gather=gather.figure(coated.width_mm / 2, coated.height_mm),
        rolled_weight=rolled,
        trimmed_weight=trimmed_weight.figure(rolled.value, over.weight.value),
        over=over,
    )
    return plan, covered
