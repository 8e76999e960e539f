"""Levels: where every tier stands over the base board, how high its foot and top are, and what weighs where.

Heights in mm above the table, places in mm from the middle of the lowest tier.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from amber_spread.core.cake.glue import Held, held_of, stands_bare, without
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, carry_over, rule
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import PlannedTier, Use


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

    @property
    def off(self) -> Point:
        """How far off the base's middle it is drawn."""
        return round(self.x, 2), round(self.y, 2)


@dataclass(frozen=True, eq=False)
class PlacedTier:
    """One tier as it stands on the others: as it was worked, where, what holds it, what it and its boards and glue
    weigh by name, and all it takes. Of a tier that nothing moved it is the same object from plan to plan.

    The next tier stands on it `carries_at_mm` above its foot: on its finished top, or on its crumb coat, where
    `less_g` of its final coat is left off.
    """

    number: int
    done: PlannedTier
    place: Place
    held: Held
    carries_at_mm: float
    less_g: float
    masses: dict[str, Mass]
    uses: list[Use]

    @property
    def tier_g(self) -> float:
        """What the tier alone weighs, g."""
        return self.masses[f"tier {self.number}"].weight_g

    @cached_property
    def reach(self) -> tuple[float, float, float]:
        """How far it reaches from the base's middle with the border at its foot, mm: to its sides, to the front and
        back, and to its farthest corner.
        """
        body, place = self.done.stands, self.place
        return (
            body.width_mm / 2 + body.out_mm + abs(place.x),
            body.length_mm / 2 + body.out_mm + abs(place.y),
            body.outline.reach_mm + body.out_mm + math.hypot(place.x, place.y),
        )

    @cached_property
    def boards_g(self) -> float:
        """What its boards weigh, g."""
        return sum([mass.weight_g for name, mass in self.masses.items() if name.startswith("board")])

    @cached_property
    def weight_g(self) -> float:
        """What is lifted with it, g: the tier, its boards and its glue."""
        return sum([mass.weight_g for mass in self.masses.values()])


@rule(
    "stack.gap",
    unit="mm",
    formula="gap + plate",
    source=COMMON_PRACTICE,
    words="How high pillars or a riser hold it above the tier below, and the card a riser stands on.",
)
def gap_of(gap_mm: float, plate_mm: float) -> float:
    """Height between two tiers that stand apart, mm: gap + card below a riser. Source: definition.

    >>> gap_of(75, 3)
    78
    """
    return gap_mm + plate_mm


@cached(TIERS)
def gap_between(tier: SettledTier) -> Figure:
    """The gap below a tier; none where it is stacked flush."""
    stand = tier.asked.stand
    if stand.flush:
        return carry_over("flush, no gap", 0.0, "mm")
    return gap_of.figure(tier.settled(stand, "gap_mm").value, tier.usual.tier_board_mm if stand.plate else 0.0)


def stood_of(cake: SettledDesign, worked: Sequence[PlannedTier], media: Mapping[str, Medium]) -> list[PlacedTier]:
    """Every tier of a cake as it stands, bottom first."""
    found: list[PlacedTier] = []
    x = y = 0.0
    level_mm = cake.board.thickness.value
    after = cake.asked.stacking.coated == "after"
    for index, (done, held) in enumerate(zip(worked, held_of(worked, media), strict=True)):
        foot_mm = level_mm
        if index:
            stand = done.tier.asked.stand
            x, y = x + stand.off_x_mm, y + stand.off_y_mm
            foot_mm += gap_between(done.tier).value + done.tier.usual.tier_board_mm
        uses, less_g, carries_at_mm = done.uses, 0.0, done.stands.height_mm
        if after and index + 1 < len(worked) and stands_bare(done, worked[index + 1], cake):
            uses, less_g = without(done, worked[index + 1], media)
            carries_at_mm = done.bodies.crumbed.height_mm
        place = Place(x, y, level_mm, foot_mm, foot_mm + done.stands.height_mm)
        found.append(_placed(index + 1, done, place, held, carries_at_mm, less_g, tuple(uses)))
        level_mm = foot_mm + carries_at_mm
    return found


@cached(TIERS)
def _placed(
    number: int,
    done: PlannedTier,
    place: Place,
    held: Held,
    carries_at_mm: float,
    less_g: float,
    uses: tuple[Use, ...],
) -> PlacedTier:
    masses = _masses(done.tier.usual, done, place, number, held.weight_g, less_g)
    return PlacedTier(number, done, place, held, carries_at_mm, less_g, masses, [*uses, *held.uses])


def _masses(
    usual: Practice, done: PlannedTier, place: Place, number: int, glue_g: float, less_g: float
) -> dict[str, Mass]:
    """A tier and its boards and glue, each with its middle over the table. The lowest stands on the base board."""
    x, y, up = place.x + done.centre.x, place.y + done.centre.y, place.foot_mm + done.centre.up
    found = {
        f"tier {number}": Mass(sum([g for _, g in done.weights]) - less_g, x, y, up),
        f"glue of tier {number}": Mass(glue_g, place.x, place.y, place.foot_mm),
    }
    if number > 1:
        weight_g, thick = board_weight(done.stands.board_edge, usual.tier_board_mm, usual), usual.tier_board_mm
        found[f"board under tier {number}"] = Mass(weight_g, place.x, place.y, place.foot_mm - thick / 2)
    if done.hidden_edge is not None and done.layers.board is not None:
        weight_g = board_weight(done.hidden_edge, done.layers.board.thickness.value, usual)
        up = place.foot_mm + done.layers.board.height.value
        found[f"board inside tier {number}"] = Mass(weight_g, place.x, place.y, up)
    return found


def board_weight(edge: Outline, thick_mm: float, usual: Practice) -> float:
    """What a board weighs, g: area x thickness x what boards weigh (from memory)."""
    return edge.area_mm2 * thick_mm / MM3_PER_ML * usual.board_g_per_ml


def together(masses: Sequence[Mass]) -> Mass:
    """Several weights as one at their common middle. Source: statics."""
    whole = sum([mass.weight_g for mass in masses])
    if whole <= 0:
        return Mass(0.0, 0.0, 0.0, 0.0)
    x = y = up = 0.0
    for mass in masses:
        x += mass.weight_g * mass.x
        y += mass.weight_g * mass.y
        up += mass.weight_g * mass.up
    return Mass(whole, x / whole, y / whole, up / whole)
