"""Covering one tier with a draped sheet: what to roll, what stays, what is trimmed."""

import math

from amber_spread.core.base import Frozen
from amber_spread.core.body import MM3_PER_ML, Straight
from amber_spread.core.coats import CoatPlan, lay
from amber_spread.core.design import NoCover, Tier
from amber_spread.core.figures import COMMON_PRACTICE, Figure, chosen, rule, same
from amber_spread.core.media import Medium
from amber_spread.core.outline import cornered_area, round_area
from amber_spread.core.practice import Practice


class CoverPlan(Frozen):
    """A draped cover. `over` is what lies on the tier; the roll is a circle or a rectangle, whichever takes less."""

    width_over_coat: Figure
    height_over_coat: Figure
    overlap: Figure
    roll_diameter: Figure | None
    roll_width: Figure | None
    roll_length: Figure | None
    roll_area: Figure
    gather: Figure
    rolled_weight: Figure
    trimmed_weight: Figure
    over: CoatPlan


@rule(
    "cover.drape.round", unit="mm", formula="width + 2 * height + 2 * overlap", source=COMMON_PRACTICE, rounding="up",
    words="The width over the coat at its widest, the height over the coat down both sides, and what hangs beyond the "
    "hem all round.",
)  # fmt: skip
def roll_diameter(width_mm: float, height_mm: float, overlap_mm: float) -> float:
    """Diameter of the circle to roll for a drape, mm: width + 2 x height + 2 x overlap.

    Source: common practice. A bare cake 4 in wide and 3 in high takes a 10 in circle.
    """
    return width_mm + 2 * height_mm + 2 * overlap_mm


@rule(
    "cover.drape.side", unit="mm", formula="side + 2 * height + 2 * overlap", source=COMMON_PRACTICE, rounding="up",
    words="The tier that way over the coat, the height over the coat at both ends, and what hangs beyond the hem.",
)  # fmt: skip
def roll_side(side_mm: float, height_mm: float, overlap_mm: float) -> float:
    """Side of the rectangle to roll for a drape, mm: side + 2 x height + 2 x overlap. Source: common practice."""
    return side_mm + 2 * height_mm + 2 * overlap_mm


@rule(
    "cover.drape.gather", unit="ratio", formula="(girth + 2 * pi * height) / girth",
    words="How many times as long as the foot of the tier the sheet's hem is that has to gather to it.",
)  # fmt: skip
def gather(girth_mm: float, height_mm: float) -> float:
    """Hem to foot ratio of a drape: (P + 2 pi h) / P; for a round tier (r + h) / r.

    Source: geometry: an outline that bulges everywhere, grown by h, is 2 pi h longer (Steiner's formula).
    """
    return (girth_mm + 2 * math.pi * height_mm) / girth_mm


@rule(
    "cover.drape.rolled_weight", unit="g", formula="area * thickness / 1000 * density", rounding="up",
    words="A sheet of that area and thickness, times how heavy the fondant is.",
)  # fmt: skip
def rolled_weight(area_mm2: float, thickness_mm: float, density_g_per_ml: float) -> float:
    """Weight of the rolled sheet, g: area x thickness x density. Source: geometry (prism)."""
    return area_mm2 * thickness_mm / MM3_PER_ML * density_g_per_ml


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
    height_mm = coated.height_mm
    circle = roll_diameter.figure(2 * coated.outline.reach_mm, height_mm, overlap.value)
    width = roll_side.figure(coated.width_mm, height_mm, overlap.value)
    length = roll_side.figure(coated.length_mm, height_mm, overlap.value)
    area = round_area.figure(circle.value)
    rectangle = cornered_area.figure(width.value, length.value, 0.0)
    as_circle = area.value <= rectangle.value
    if not as_circle:
        area = rectangle
    over, covered = lay(coated, thickness, thickness, medium)
    rolled = rolled_weight.figure(area.value, thickness.value, medium.density_g_per_ml)
    plan = CoverPlan(
        width_over_coat=same("width over the coat", coated.width_mm, "mm"),
        height_over_coat=same("height over the coat", coated.height_mm, "mm"),
        overlap=overlap,
        roll_diameter=circle if as_circle else None,
        roll_width=None if as_circle else width,
        roll_length=None if as_circle else length,
        roll_area=area,
        gather=gather.figure(coated.girth_mm, height_mm),
        rolled_weight=rolled,
        trimmed_weight=trimmed_weight.figure(rolled.value, over.weight.value),
        over=over,
    )
    return plan, covered
