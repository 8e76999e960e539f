"""The Practice: this kitchen's thicknesses, allowances and habits, used wherever a design does not say.

Thicknesses and allowances are common practice unless marked otherwise. Losses and reserves are starting
values of our own. Each kitchen corrects them (see docs/method/).
"""

from typing import Annotated, Any, Literal, Self

from pydantic import model_validator

from amber_spread.core.design.finishes import FillingThickness, Thickness
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, at
from amber_spread.core.kernel.units import MM_PER_INCH

SIXTEENTHS = {
    "shrinkage_mm": 2, "trimmed_skin_mm": 1, "filling_mm": 4, "filling_least_mm": 3, "filling_most_mm": 5, "dam_mm": 7,
    "seal_mm": 1, "cut_least_mm": 8, "level_mm": 4, "hidden_board_in_mm": 5, "crumb_coat_mm": 1, "semi_naked_mm": 2,
    "relief_mm": 5, "rim_mm": 8, "foot_cut_mm": 10, "coat_side_mm": 4, "coat_top_mm": 4, "coat_least_mm": 2,
    "fondant_mm": 2, "overlap_mm": 16, "panel_overlap_mm": 12, "panel_trim_mm": 8, "roll_margin_mm": 6, "band_mm": 12,
    "printed_overlap_mm": 2, "tab_mm": 10, "collar_mm": 1, "collar_above_mm": 10, "bead_mm": 6, "tier_board_mm": 2,
    "base_board_mm": 8, "cut_error_mm": 1, "oven_wide_mm": 288, "oven_deep_mm": 232, "joint_bead_mm": 3,
    "tier_gap_mm": 48, "dowel_mm": 4, "dowel_into_base_mm": 5,
}  # fmt: skip
"""The lengths of an inch kitchen that are not the same on both rulers, in sixteenths of an inch."""
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
    """One technique for every kind of step.

    The float of a rolled sheet is its trimmings. Of a semi-naked coat the shares are of the whole coat that goes on. A
    disc or a card takes a whole batch, as for a coat by hand, and its float is the share of one more.
    """

    filling: Technique = Technique(lost=0.03, float=0.05, variation=0.08)
    seal: Technique = Technique(lost=0.05, float=0.10, variation=0.25)
    dam: Technique = Technique(lost=0.10, float=0.15, variation=0.15)
    crumb: Technique = Technique(lost=0.15, float=0.15, variation=0.20)
    freehand: Technique = Technique(lost=0.08, float=0.25, variation=0.12)
    disc: Technique = Technique(lost=0.08, float=0.75, variation=0.10)
    twin: Technique = Technique(lost=0.08, float=0.75, variation=0.10)
    inverted: Technique = Technique(lost=0.08, float=0.60, variation=0.10)
    towel: Technique = Technique(lost=0.08, float=0.25, variation=0.12)
    deckled: Technique = Technique(lost=0.08, float=0.25, variation=0.15)
    semi_naked: Technique = Technique(lost=0.10, float=0.60, variation=0.20)
    textured: Technique = Technique(lost=0.12, float=0.10, variation=0.20)
    drape: Technique = Technique(lost=0.03, float=0.0, variation=0.10)
    pieces: Technique = Technique(lost=0.04, float=0.0, variation=0.08)
    collar: Technique = Technique(lost=0.15, float=0.20, variation=0.15)
    border: Technique = Technique(lost=0.15, float=0.10, variation=0.25)
    syrup: Technique = Technique(lost=0.10, float=0.10, variation=0.20)
    glue: Technique = Technique(lost=0.10, float=0.0, variation=0.30)

    def named(self, name: str) -> Technique:
        """The technique of that name."""
        found: Technique = getattr(self, name)
        return found


class Practice(Frozen):
    """This kitchen's usual. Lengths in mm, weights in g, times of day in minutes after midnight.

    A cake is narrower than its tin, each side, by what it shrinks and by the browned skin you trim off.
    `semi_naked_crumbs` is how much of what you scrape off a semi-naked coat carries crumbs, `level_mm` how much you cut
    off the top of a baked layer to level it, and `batter_fill` how far you fill a tin, as a share of the baked height.
    `fridge_pace` and `freezer_pace` are how well they cool, as shares of what is usual; coats firm in `firm_in`.
    """

    shrinkage_mm: Annotated[float, limits.TRIMMED_SKIN.field()] = 2.0
    trimmed_skin_mm: Annotated[float, limits.TRIMMED_SKIN.field()] = 2.0
    filling_mm: FillingThickness = 6.0
    filling_least_mm: FillingThickness = 4.0
    filling_most_mm: FillingThickness = 8.0
    dam_mm: Annotated[float, limits.DAM_WIDTH.field()] = 11.0
    seal_mm: Annotated[float, limits.SEAL_THICKNESS.field()] = 1.0
    cut_least_mm: Annotated[float, limits.LAYER_HEIGHT.field()] = 12.0
    settling: Annotated[float, limits.SETTLING.field()] = 0.05
    tin_depth_mm: Annotated[float, limits.TIN_DEPTH.field()] = 50.8
    level_mm: Annotated[float, limits.LEVELLED.field()] = 5.0
    batter_fill: Annotated[float, limits.BATTER_FILL.field()] = 0.48
    batch_ml: Annotated[float, limits.BATCH.field()] = 2000.0
    spare_tin_mm: Annotated[float, limits.TIN_DIAMETER.field()] = 101.6
    mixer_ml: Annotated[float, limits.MIXER.field()] = 4800.0
    mixer_fill: Annotated[float, limits.BATTER_FILL.field()] = 0.6
    sweets_g_per_ml: Annotated[float, limits.DENSITY.field()] = 0.6
    syrup_soak_mm: Annotated[float, limits.SYRUP_SOAK.field()] = 0.4
    hidden_board_in_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 9.0
    crumb_coat_mm: Thickness = 1.0
    semi_naked_mm: Thickness = 3.0
    semi_naked_share: Annotated[float, limits.SHARE.field()] = 0.25
    semi_naked_crumbs: Annotated[float, limits.SHARE.field()] = 0.3
    relief_mm: Thickness = 8.0
    rim_mm: Annotated[float, limits.RIM.field()] = 12.0
    foot_cut_mm: Annotated[float, limits.FOOT_CUT.field()] = 15.0
    coat_side_mm: Thickness = 6.0
    coat_top_mm: Thickness = 6.0
    coat_least_mm: Thickness = 3.0
    fondant_mm: Annotated[float, limits.FONDANT_THICKNESS.field()] = 3.0
    overlap_mm: Annotated[float, limits.OVERLAP.field()] = 25.0
    panel_overlap_mm: Annotated[float, limits.OVERLAP.field()] = 20.0
    panel_trim_mm: Annotated[float, limits.OVERLAP.field()] = 12.0
    stretch_most: Annotated[float, limits.STRETCH.field()] = 0.03
    roll_margin_mm: Annotated[float, limits.OVERLAP.field()] = 10.0
    band_mm: Annotated[float, limits.BAND_WIDTH.field()] = 20.0
    printed_overlap_mm: Annotated[float, limits.OVERLAP.field()] = 2.5
    tab_mm: Annotated[float, limits.OVERLAP.field()] = 15.0
    collar_mm: Annotated[float, limits.FONDANT_THICKNESS.field()] = 2.0
    collar_above_mm: Annotated[float, limits.OVERLAP.field()] = 15.0
    bead_mm: Annotated[float, limits.BEAD.field()] = 10.0
    tier_board_mm: Annotated[float, limits.BOARD_THICKNESS.field()] = 3.0
    base_board_mm: Annotated[float, limits.BOARD_THICKNESS.field()] = 12.0
    base_margin_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 25.4
    support_inset_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 50.8
    support_apart_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 50.8
    support_factor: Annotated[float, limits.SAFETY.field()] = 3.0
    cut_error_mm: Annotated[float, limits.CUT_ERROR.field()] = 1.0
    cake_bears_g_per_cm2: Annotated[float, limits.CAKE_BEARS.field()] = 8.0
    paste_parts: Annotated[float, limits.PASTE.field()] = 5.0
    oven_wide_mm: Annotated[float, limits.OVEN_SIDE.field()] = 450.0
    oven_deep_mm: Annotated[float, limits.OVEN_SIDE.field()] = 370.0
    oven_shelves: Annotated[int, limits.OVEN_SHELVES.field()] = 2
    tins_of_each: Annotated[int, limits.TINS_OF_EACH.field()] = 2
    board_g_per_ml: Annotated[float, limits.DENSITY.field()] = 0.6
    glue_mm: Annotated[float, limits.GLUE.field()] = 0.5
    joint_bead_mm: Annotated[float, limits.JOINT_BEAD.field()] = 4.0
    tier_gap_mm: Annotated[float, limits.TIER_GAP.field()] = 75.0
    dowel_mm: Annotated[float, limits.DOWEL.field()] = 6.4
    dowel_into_base_mm: Annotated[float, limits.BOARD_THICKNESS.field()] = 8.0
    dowel_below_top_mm: Annotated[float, limits.BOARD_MARGIN.field()] = 25.4
    brake_share: Annotated[float, limits.PUSH.field()] = 0.5
    turn_share: Annotated[float, limits.PUSH.field()] = 0.4
    portion_wide_mm: Annotated[float, limits.PORTION.field()] = 25.4
    portion_deep_mm: Annotated[float, limits.PORTION.field()] = 50.8
    portion_high_mm: Annotated[float, limits.PORTION.field()] = 101.6
    cake_density_g_per_ml: Annotated[float, limits.DENSITY.field()] = 0.5
    weigh_step_g: Annotated[float, limits.WEIGH_STEP.field()] = 5.0
    run_out_risk: Annotated[float, limits.RUN_OUT_RISK.field()] = 0.05
    ready_before_min: Annotated[float, limits.READY_BEFORE.field()] = 30.0
    kitchen_degc: Annotated[float, limits.KITCHEN_TEMPERATURE.field()] = 22.0
    fridge_degc: Annotated[float, limits.FRIDGE_TEMPERATURE.field()] = 4.0
    kitchen_humidity: Annotated[float, limits.HUMIDITY.field()] = 0.5
    freezer_degc: Annotated[float, limits.FREEZER_TEMPERATURE.field()] = -18.0
    fridge_pace: Annotated[float, limits.COLD_PACE.field()] = 1.0
    freezer_pace: Annotated[float, limits.COLD_PACE.field()] = 1.0
    firm_in: Literal["fridge", "freezer"] = "fridge"
    techniques: Techniques = Techniques()

    @property
    def narrower_mm(self) -> float:
        """How much narrower than its tin a trimmed cake is, each side."""
        return self.shrinkage_mm + self.trimmed_skin_mm

    @classmethod
    def in_inches(cls) -> Self:
        """What an inch kitchen starts from: the same habits on the marks of an inch ruler."""
        return cls.model_validate({name: count / 16 * MM_PER_INCH for name, count in SIXTEENTHS.items()})

    @model_validator(mode="before")
    @classmethod
    def skin_once_meant_both(cls, data: Any) -> Any:
        """A usual written before shrinkage had a value of its own gave both as skin."""
        if isinstance(data, dict) and "trimmed_skin_mm" in data and "shrinkage_mm" not in data:
            return data | {"shrinkage_mm": 0.0}
        return data

    @model_validator(mode="after")
    def least_filling_is_below_most(self) -> Self:
        """The thinnest usual filling is no thicker than the thickest."""
        if self.filling_least_mm > self.filling_most_mm:
            raise at(("filling_least_mm",), f"should be no more than the thickest filling, {self.filling_most_mm} mm")
        return self
