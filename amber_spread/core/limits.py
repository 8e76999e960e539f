"""Every bound a typed number must keep, in one place.

The types of `design`, `practice` and `media` take their bounds from here, the screen shows the
same ones, and docs/formats.md lists them. A limit is wide enough for any real cake and narrow
enough that a slip of the finger (a tin of 3 m) is caught where it was typed.
"""

from typing import Any, Literal

from pydantic import Field

from amber_spread.core.base import Frozen

LimitUnit = Literal["mm", "g", "g_per_ml", "each", "ratio"]


class Limit(Frozen):
    """The least and the greatest value a field takes, in the field's own unit, both allowed."""

    low: float
    high: float
    unit: LimitUnit

    def field(self) -> Any:
        """A strict Pydantic field that keeps this limit: text and true/false are not numbers."""
        return Field(strict=True, ge=self.low, le=self.high, allow_inf_nan=False)


TIN_DIAMETER = Limit(low=50, high=600, unit="mm")
TIN_LENGTH = Limit(low=50, high=900, unit="mm")
CORNER_RADIUS = Limit(low=0, high=150, unit="mm")
LAYER_COUNT = Limit(low=1, high=12, unit="each")
LAYER_HEIGHT = Limit(low=5, high=150, unit="mm")
FILLING_THICKNESS = Limit(low=1, high=50, unit="mm")
SEAL_THICKNESS = Limit(low=0, high=5, unit="mm")
DAM_WIDTH = Limit(low=2, high=60, unit="mm")
TARGET_HEIGHT = Limit(low=20, high=800, unit="mm")
COAT_THICKNESS = Limit(low=0, high=40, unit="mm")
DISC_DIAMETER = Limit(low=40, high=700, unit="mm")
FONDANT_THICKNESS = Limit(low=1, high=15, unit="mm")
OVERLAP = Limit(low=0, high=150, unit="mm")
TRIMMED_SKIN = Limit(low=0, high=15, unit="mm")
BOARD_DIAMETER = Limit(low=50, high=1200, unit="mm")
BOARD_THICKNESS = Limit(low=1, high=40, unit="mm")
BOARD_MARGIN = Limit(low=0, high=200, unit="mm")
WEIGH_STEP = Limit(low=1, high=100, unit="g")
RUN_OUT_RISK = Limit(low=0.01, high=0.5, unit="ratio")
FRACTION = Limit(low=0, high=3, unit="ratio")
DENSITY = Limit(low=0.1, high=3, unit="g_per_ml")
TIERS = Limit(low=1, high=30, unit="each")
COLOURS = Limit(low=0, high=24, unit="each")
OWN_MEDIA = Limit(low=0, high=60, unit="each")

MAX_FILE_BYTES = 512 * 1024
"""The largest design file or request body that is read at all."""

LIMITS: dict[str, Limit] = {
    "tin_diameter_mm": TIN_DIAMETER,
    "length_mm": TIN_LENGTH,
    "corner_mm": CORNER_RADIUS,
    "layer_count": LAYER_COUNT,
    "layer_height_mm": LAYER_HEIGHT,
    "filling_thickness_mm": FILLING_THICKNESS,
    "seal_thickness_mm": SEAL_THICKNESS,
    "dam_width_mm": DAM_WIDTH,
    "target_height_mm": TARGET_HEIGHT,
    "coat_thickness_mm": COAT_THICKNESS,
    "disc_diameter_mm": DISC_DIAMETER,
    "fondant_thickness_mm": FONDANT_THICKNESS,
    "overlap_mm": OVERLAP,
    "trimmed_skin_mm": TRIMMED_SKIN,
    "board_diameter_mm": BOARD_DIAMETER,
    "board_thickness_mm": BOARD_THICKNESS,
    "board_margin_mm": BOARD_MARGIN,
    "weigh_step_g": WEIGH_STEP,
    "run_out_risk": RUN_OUT_RISK,
    "fraction": FRACTION,
    "density_g_per_ml": DENSITY,
    "tiers": TIERS,
    "colours": COLOURS,
    "own_media": OWN_MEDIA,
}
"""The limits by the name of the field they bound, as the screen asks for them."""
