"""Levels: where every tier stands over the base board, how high its foot and top are, and weights with their middles.

Heights in mm above the table, places in mm from the middle of the lowest tier.
"""

from collections.abc import Sequence
from typing import NamedTuple

from amber_spread.core.cake.glue import stands_bare
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.design.stands import RiserStand, StackedStand
from amber_spread.core.geometry.outline import Outline
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, rule, same
from amber_spread.core.tier import Worked


class Mass(NamedTuple):
    """A weight and where its middle lies: right and back of the base's middle, and above the table."""

    weight_g: float
    x: float
    y: float
    up: float


class Place(NamedTuple):
    """Where a tier stands: its middle over the base's, the level its board lies on, its own foot, and its top."""

    x: float
    y: float
    level_mm: float
    foot_mm: float
    top_mm: float


def standing_on(lower: Worked, upper: Worked, cake: SettledDesign) -> float:
    """How high a tier is where the next stands on it, mm: its finished height, or that of its crumb coat."""
    if stands_bare(lower, upper, cake):
        return lower.bodies.crumbed.height_mm
    return lower.stands.height_mm


@rule(
    "stack.gap", unit="mm", formula="gap + plate", source=COMMON_PRACTICE,
    words="How high pillars or a riser hold it above the tier below, and the card a riser stands on.",
)  # fmt: skip
def gap_of(gap_mm: float, plate_mm: float) -> float:
    """Height between two tiers that stand apart, mm: gap + card below a riser. Source: definition.

    >>> gap_of(75, 3)
    78
    """
    return gap_mm + plate_mm


def gap_between(tier: SettledTier) -> Figure:
    """The gap below a tier; none where it is stacked flush."""
    stand = tier.asked.stand
    if isinstance(stand, StackedStand):
        return same("flush, no gap", 0.0, "mm")
    gap = tier.settled(stand, "gap_mm").value
    return gap_of.figure(gap, tier.usual.tier_board_mm if isinstance(stand, RiserStand) else 0.0)


def places_of(cake: SettledDesign, worked: Sequence[Worked]) -> list[Place]:
    """Where every tier stands, bottom first."""
    found: list[Place] = []
    x = y = 0.0
    level = cake.board.thickness.value
    for index, done in enumerate(worked):
        foot = level
        if index:
            stand = done.tier.asked.stand
            x, y = x + stand.off_x_mm, y + stand.off_y_mm
            level = found[-1].foot_mm + standing_on(worked[index - 1], done, cake)
            foot = level + gap_between(done.tier).value + done.tier.usual.tier_board_mm
        found.append(Place(x, y, level, foot, foot + done.stands.height_mm))
    return found


def board_mass(board: Outline, thick_mm: float, place: Place, g_per_ml: float) -> Mass:
    """A tier's board, lying under its foot."""
    return Mass(board.area_mm2 * thick_mm / 1000 * g_per_ml, place.x, place.y, place.foot_mm - thick_mm / 2)


def together(masses: Sequence[Mass]) -> Mass:
    """Several weights as one at their common middle. Source: statics."""
    whole = sum(mass.weight_g for mass in masses)
    if whole <= 0:
        return Mass(0.0, 0.0, 0.0, 0.0)
    x, y, up = (sum(mass.weight_g * mass[at] for mass in masses) / whole for at in (1, 2, 3))
    return Mass(whole, x, y, up)
