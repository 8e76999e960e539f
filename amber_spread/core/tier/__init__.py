"""One tier, worked through in the order of the work: layers, coats, cover, what stands on it.

How it is drawn, and what every step of it takes.
"""

from amber_spread.core.tier.boards import BOARD_SHAPES, BoardShape, Size, over_edge, shape_of
from amber_spread.core.tier.carve.carving import CarvingPlan, slices_of
from amber_spread.core.tier.carve.tasks import CARVE_TASKS
from amber_spread.core.tier.checks.finish import checks_of_coats, checks_of_cover
from amber_spread.core.tier.checks.layers import checks_of_layers
from amber_spread.core.tier.checks.media import checks_of_foot, checks_of_media, checks_of_thickness
from amber_spread.core.tier.coats.coats import CoatsPlan
from amber_spread.core.tier.coats.side import FootPlan
from amber_spread.core.tier.cover.plan import CoverPlan, roll_margin
from amber_spread.core.tier.decorate.borders import HALF_BEAD, BorderPlan
from amber_spread.core.tier.decorate.on_top import OnTopPlan
from amber_spread.core.tier.decorate.regions import RegionPlan
from amber_spread.core.tier.drawn import Drawn, Part, Silhouette, slab
from amber_spread.core.tier.gauge import GaugeMark
from amber_spread.core.tier.in_the_round import (
    Envelope,
    RoundTin,
    RoundView,
    envelope_of,
    in_the_round,
    levels_of,
)
from amber_spread.core.tier.layers.layers import LayersPlan
from amber_spread.core.tier.layers.rules import cut_for_height, offcut
from amber_spread.core.tier.mass import pressure
from amber_spread.core.tier.uses import STEPS, Step, Use, bowl_key, use_of
from amber_spread.core.tier.worked import (
    Footprint,
    PlannedTier,
    TierRooms,
    UnknownMedium,
    Unmade,
    carved_of,
    work_tiers,
)

__all__ = [
    "BOARD_SHAPES",
    "BoardShape",
    "BorderPlan",
    "CARVE_TASKS",
    "CarvingPlan",
    "CoatsPlan",
    "CoverPlan",
    "Drawn",
    "Envelope",
    "FootPlan",
    "HALF_BEAD",
    "Footprint",
    "GaugeMark",
    "LayersPlan",
    "OnTopPlan",
    "Part",
    "RoundTin",
    "RoundView",
    "RegionPlan",
    "STEPS",
    "Silhouette",
    "Size",
    "Step",
    "TierRooms",
    "UnknownMedium",
    "Unmade",
    "Use",
    "PlannedTier",
    "bowl_key",
    "carved_of",
    "checks_of_coats",
    "checks_of_cover",
    "checks_of_foot",
    "checks_of_layers",
    "checks_of_media",
    "checks_of_thickness",
    "cut_for_height",
    "envelope_of",
    "in_the_round",
    "levels_of",
    "offcut",
    "over_edge",
    "pressure",
    "roll_margin",
    "shape_of",
    "slab",
    "slices_of",
    "use_of",
    "work_tiers",
]
