"""Every bound a typed number must keep, in one place.

The types of `design`, `practice` and `media` take their bounds from here, the screen shows the
same ones, and docs/formats.md lists them. A limit is wide enough for any real cake and narrow
enough that a slip of the finger (a tin of 3 m) is caught where it was typed.
"""

from typing import Any, Literal

from pydantic import Field

from amber_spread.core.kernel.base import Frozen

LimitUnit = Literal["mm", "ml", "g", "g_per_ml", "g_per_cm2", "each", "ratio", "min", "time", "money", "deg", "degC"]


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
BOWL_ORDERS = Limit(low=0, high=60, unit="each")
OWN_MEDIA = Limit(low=0, high=60, unit="each")
NARROW_WIDTH = Limit(low=5, high=600, unit="mm")
BEVEL = Limit(low=1, high=200, unit="mm")
RISE = Limit(low=1, high=300, unit="mm")
BALL_FOOT = Limit(low=0, high=500, unit="mm")
FOOT_CUT = Limit(low=1, high=200, unit="mm")
PROFILE_POINTS = Limit(low=2, high=12, unit="each")
PROFILE_SHARE = Limit(low=0.05, high=1, unit="ratio")
SHARE = Limit(low=0, high=1, unit="ratio")
COORDINATE = Limit(low=-2000, high=2000, unit="mm")
SOLID_SIZE = Limit(low=2, high=900, unit="mm")
SOLID_TOP = Limit(low=0, high=900, unit="mm")
SOLID_PLACE = Limit(low=-900, high=900, unit="mm")
SOLIDS = Limit(low=1, high=24, unit="each")
TURN = Limit(low=-180, high=180, unit="deg")
PICTURE_WIDTH = Limit(low=10, high=4000, unit="mm")
BODY_VOLUME = Limit(low=50, high=100000, unit="ml")
MESH_ERROR = Limit(low=0, high=20, unit="mm")
OUTLINE_CORNERS = Limit(low=3, high=400, unit="each")
TORTE = Limit(low=1, high=5, unit="each")
TIN_DEPTH = Limit(low=20, high=200, unit="mm")
BOARD_AFTER = Limit(low=1, high=11, unit="each")
CAVITY = Limit(low=10, high=400, unit="mm")
SYRUP_SOAK = Limit(low=0, high=5, unit="mm")
LEVELLED = Limit(low=0, high=40, unit="mm")
SETTLING = Limit(low=0, high=0.5, unit="ratio")
BATTER_FILL = Limit(low=0.2, high=1, unit="ratio")
BATCH = Limit(low=100, high=20000, unit="ml")
MIXER = Limit(low=500, high=60000, unit="ml")
RIM = Limit(low=0, high=60, unit="mm")
SECTIONS = Limit(low=0, high=8, unit="each")
PATCHES = Limit(low=0, high=40, unit="each")
DOME_LEFT = Limit(low=1, high=60, unit="mm")
OPENINGS = Limit(low=0, high=4, unit="each")
OWN_SEAMS = Limit(low=0, high=8, unit="each")
OWN_SEAM = Limit(low=1, high=OWN_SEAMS.high, unit="each")
STRIPES = Limit(low=0, high=12, unit="each")
STRIPE_SHARE = Limit(low=0.01, high=100, unit="ratio")
STRIP_LENGTH = Limit(low=50, high=5000, unit="mm")
BAND_WIDTH = Limit(low=0, high=150, unit="mm")
OVEN_SIDE = Limit(low=150, high=2000, unit="mm")
OVEN_SHELVES = Limit(low=1, high=20, unit="each")
TINS_OF_EACH = Limit(low=1, high=40, unit="each")
MOST_BAKES = Limit(low=1, high=40, unit="each")
PASTE_OUT = Limit(low=1, high=60, unit="mm")
SCORED = Limit(low=3, high=150, unit="mm")
GORES = Limit(low=4, high=24, unit="each")
SHEET_SIDE = Limit(low=50, high=1500, unit="mm")
ON_TOP_WIDTH = Limit(low=10, high=600, unit="mm")
BEAD = Limit(low=1, high=40, unit="mm")
BORDERS = Limit(low=0, high=4, unit="each")
REGIONS = Limit(low=0, high=4, unit="each")
REGION_ROUND = Limit(low=5, high=360, unit="deg")
SPREAD = Limit(low=0.05, high=1, unit="ratio")
PIECES = Limit(low=1, high=200, unit="each")
ON_TOPS = Limit(low=0, high=12, unit="each")
STRETCH = Limit(low=0, high=0.2, unit="ratio")
SCRAPER = Limit(low=30, high=600, unit="mm")
PIN = Limit(low=100, high=1200, unit="mm")
MAT_SIDE = Limit(low=100, high=2000, unit="mm")
OWNED = Limit(low=0, high=80, unit="each")
ROD = Limit(low=50, high=2000, unit="mm")
IN_HAND = Limit(low=0, high=100000, unit="g")
COLOUR_PARTS = Limit(low=0, high=6, unit="each")
PARTS = Limit(low=0.01, high=1000, unit="ratio")
PIECE_WEIGHT = Limit(low=0.01, high=5000, unit="g")
CUP = Limit(low=1, high=5000, unit="ratio")
RECIPE_AMOUNT = Limit(low=0.01, high=100000, unit="ratio")
RECIPE_LINES = Limit(low=1, high=60, unit="each")
RECIPE_STEPS = Limit(low=0, high=30, unit="each")
RECIPE_YIELD = Limit(low=1, high=200000, unit="g")
OWN_ITEMS = Limit(low=0, high=400, unit="each")
PACKS = Limit(low=0, high=3000, unit="each")
PACK_SIZE = Limit(low=0.01, high=500000, unit="ratio")
STOCK = Limit(low=0, high=500000, unit="ratio")
PRICE = Limit(low=0, high=100000, unit="money")
MINUTES = Limit(low=0, high=6000, unit="min")
PASTE = Limit(low=1, high=12, unit="each")
SERVINGS = Limit(low=1, high=5000, unit="each")
ROUND_TO = Limit(low=0.01, high=100, unit="money")
SHIFT = Limit(low=-400, high=400, unit="mm")
TIER_GAP = Limit(low=0, high=400, unit="mm")
SUPPORTS = Limit(low=3, high=40, unit="each")
JOINT_BEAD = Limit(low=0, high=20, unit="mm")
DOWEL = Limit(low=2, high=40, unit="mm")
SUPPORT_ACROSS = Limit(low=2, high=60, unit="mm")
BEARS = Limit(low=10, high=200000, unit="g")
CAKE_BEARS = Limit(low=1, high=200, unit="g_per_cm2")
SAFETY = Limit(low=1, high=20, unit="each")
PUSH = Limit(low=0.05, high=1.5, unit="ratio")
CUT_ERROR = Limit(low=0, high=10, unit="mm")
GLUE = Limit(low=0, high=5, unit="mm")
PORTION = Limit(low=10, high=200, unit="mm")

TIME_OF_DAY = Limit(low=0, high=1440, unit="time")
HANDS = Limit(low=1, high=12, unit="each")
DAYS_OFF = Limit(low=0, high=120, unit="each")
RESOURCES = Limit(low=1, high=12, unit="each")
COLD_SHELF = Limit(low=50, high=2000, unit="mm")
READY_BEFORE = Limit(low=0, high=2880, unit="min")
KITCHEN_TEMPERATURE = Limit(low=5, high=45, unit="degC")
HUMIDITY = Limit(low=0.05, high=0.95, unit="ratio")
FRIDGE_TEMPERATURE = Limit(low=-2, high=15, unit="degC")
FREEZER_TEMPERATURE = Limit(low=-40, high=-5, unit="degC")
COLD_PACE = Limit(low=0.25, high=4, unit="ratio")
TOOK = Limit(low=1, high=1440, unit="min")

MAX_FILE_BYTES = 512 * 1024
MAX_MODEL_BYTES = 24 * 1024 * 1024
"""The largest design file or request body that is read at all."""

LIMITS: dict[str, Limit] = {
    "time_of_day": TIME_OF_DAY,
    "hands": HANDS,
    "resources": RESOURCES,
    "cold_shelf_mm": COLD_SHELF,
    "ready_before_min": READY_BEFORE,
    "kitchen_degc": KITCHEN_TEMPERATURE,
    "fridge_degc": FRIDGE_TEMPERATURE,
    "humidity": HUMIDITY,
    "freezer_degc": FREEZER_TEMPERATURE,
    "cold_pace": COLD_PACE,
    "took_min": TOOK,
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
    "bowl_orders": BOWL_ORDERS,
    "own_media": OWN_MEDIA,
    "narrow_mm": NARROW_WIDTH,
    "bevel_mm": BEVEL,
    "rise_mm": RISE,
    "ball_foot_mm": BALL_FOOT,
    "foot_cut_mm": FOOT_CUT,
    "profile_points": PROFILE_POINTS,
    "profile_share": PROFILE_SHARE,
    "share": SHARE,
    "coordinate_mm": COORDINATE,
    "solid_mm": SOLID_SIZE,
    "solid_top_mm": SOLID_TOP,
    "place_mm": SOLID_PLACE,
    "solids": SOLIDS,
    "turn_deg": TURN,
    "picture_mm": PICTURE_WIDTH,
    "body_ml": BODY_VOLUME,
    "mesh_error_mm": MESH_ERROR,
    "outline_corners": OUTLINE_CORNERS,
    "torte": TORTE,
    "tin_depth_mm": TIN_DEPTH,
    "board_after": BOARD_AFTER,
    "cavity_mm": CAVITY,
    "syrup_soak_mm": SYRUP_SOAK,
    "levelled": LEVELLED,
    "settling": SETTLING,
    "batter_fill": BATTER_FILL,
    "batch_ml": BATCH,
    "mixer_ml": MIXER,
    "rim_mm": RIM,
    "openings": OPENINGS,
    "dome_left_mm": DOME_LEFT,
    "own_seams": OWN_SEAMS,
    "sections": SECTIONS,
    "stripes": STRIPES,
    "stripe_share": STRIPE_SHARE,
    "strip_mm": STRIP_LENGTH,
    "band_mm": BAND_WIDTH,
    "scored_mm": SCORED,
    "oven_side_mm": OVEN_SIDE,
    "oven_shelves": OVEN_SHELVES,
    "tins_of_each": TINS_OF_EACH,
    "most_bakes": MOST_BAKES,
    "paste_out_mm": PASTE_OUT,
    "gores": GORES,
    "sheet_side_mm": SHEET_SIDE,
    "on_top_mm": ON_TOP_WIDTH,
    "bead_mm": BEAD,
    "borders": BORDERS,
    "regions": REGIONS,
    "round_deg": REGION_ROUND,
    "spread": SPREAD,
    "pieces": PIECES,
    "on_tops": ON_TOPS,
    "stretch": STRETCH,
    "scraper_mm": SCRAPER,
    "pin_mm": PIN,
    "mat_mm": MAT_SIDE,
    "owned": OWNED,
    "rod_mm": ROD,
    "have_g": IN_HAND,
    "colour_parts": COLOUR_PARTS,
    "parts": PARTS,
    "each_g": PIECE_WEIGHT,
    "cup": CUP,
    "recipe_amount": RECIPE_AMOUNT,
    "recipe_lines": RECIPE_LINES,
    "recipe_steps": RECIPE_STEPS,
    "yield_g": RECIPE_YIELD,
    "own_items": OWN_ITEMS,
    "packs": PACKS,
    "pack_size": PACK_SIZE,
    "stock": STOCK,
    "price": PRICE,
    "minutes": MINUTES,
    "servings": SERVINGS,
    "paste": PASTE,
    "round_to": ROUND_TO,
    "shift_mm": SHIFT,
    "tier_gap_mm": TIER_GAP,
    "supports": SUPPORTS,
    "joint_bead_mm": JOINT_BEAD,
    "dowel_mm": DOWEL,
    "support_across_mm": SUPPORT_ACROSS,
    "bears_g": BEARS,
    "cake_bears": CAKE_BEARS,
    "safety": SAFETY,
    "push": PUSH,
    "cut_error_mm": CUT_ERROR,
    "glue_mm": GLUE,
    "portion_mm": PORTION,
}
"""The limits by the name of the field they bound, as the screen asks for them."""
