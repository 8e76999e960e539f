"""The Practice: this kitchen's thicknesses, allowances and habits, used wherever a design does not say.

Thicknesses and allowances are common practice unless marked otherwise; the shares lost and held in
hand are this program's own starting values, to be corrected by each kitchen (see docs/method.md).
"""

from typing import Annotated, Self

from pydantic import model_validator

from amber_spread.core import limits
from amber_spread.core.base import Frozen, at

Thickness = Annotated[float, limits.COAT_THICKNESS.field()]
FillingThickness = Annotated[float, limits.FILLING_THICKNESS.field()]
Share = Annotated[float, limits.FRACTION.field()]


class Technique(Frozen):
    """How a way of working treats a medium, as shares of what stays on the cake.

    `lost` goes to bowl, bag, blade and crumbs; `float` must be in hand while working and comes back;
    `variation` is the coefficient of variation of what stays.
    """

    lost: Share
    float: Share
    variation: Share


class Techniques(Frozen):
    """One technique for every kind of step."""

    filling: Technique = Technique(lost=0.03, float=0.05, variation=0.10)
    seal: Technique = Technique(lost=0.05, float=0.10, variation=0.25)
    dam: Technique = Technique(lost=0.10, float=0.15, variation=0.15)
    crumb: Technique = Technique(lost=0.25, float=0.25, variation=0.25)
    freehand: Technique = Technique(lost=0.08, float=0.50, variation=0.20)
    disc: Technique = Technique(lost=0.08, float=1.00, variation=0.15)
    drape: Technique = Technique(lost=0.03, float=0.0, variation=0.10)


class Practice(Frozen):
    """This kitchen's usual. Lengths in mm, weights in g."""

    trimmed_skin_mm: Annotated[float, limits.TRIMMED_SKIN.field()] = 2.0
    filling_mm: FillingThickness = 6.0
    filling_least_mm: FillingThickness = 4.0
    filling_most_mm: FillingThickness = 8.0
    seal_mm: Annotated[float, limits.SEAL_THICKNESS.field()] = 1.0
    cut_least_mm: Annotated[float, limits.LAYER_HEIGHT.field()] = 12.0
    crumb_coat_mm: Thickness = 2.0
    coat_side_mm: Thickness = 6.0
    coat_top_mm: Thickness = 6.0
    coat_least_mm: Thickness = 3.0
    fondant_mm: Annotated[float, limits.FONDANT_THICKNESS.field()] = 3.0
    overlap_mm: Annotated[float, limits.OVERLAP.field()] = 25.0
    tier_board_mm: Annotated[float, limits.BOARD_THICKNESS.field()] = 3.0
    base_board_mm: Annotated[float, limits.BOARD_THICKNESS.field()] = 12.0
    base_margin_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 25.4
    cake_density_g_per_ml: Annotated[float, limits.DENSITY.field()] = 0.5
    weigh_step_g: Annotated[float, limits.WEIGH_STEP.field()] = 5.0
    run_out_risk: Annotated[float, limits.RUN_OUT_RISK.field()] = 0.05
    techniques: Techniques = Techniques()

    @model_validator(mode="after")
    def least_filling_is_below_most(self) -> Self:
        """The thinnest usual filling is no thicker than the thickest."""
        if self.filling_least_mm > self.filling_most_mm:
            raise at(("filling_least_mm",), f"should be no more than the thickest filling, {self.filling_most_mm} mm")
        return self
