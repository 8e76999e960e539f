"""What holds tiers to their boards and hides their joints: a dab under each board, chocolate on the board inside a
tier, and the bead piped along a joint. Each is a step of its bowl, and weighs on what is below.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from amber_spread.core.design.finishes import NoCoat, NoCover, PlateFinal
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.geometry.flat.outline import Outline, perimeter_at
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import COMMON_PRACTICE, FROM_MEMORY, Figure, carry_over, rule
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import HALF_BEAD, PlannedTier, Step, Use, use_of


@rule(
    "stack.glue",
    unit="g",
    formula="area * thick * faces / 1000 * density",
    source=FROM_MEMORY,
    words="A dab under the cake and, above the lowest tier, another under its board: as much as would cover the whole "
    "board so thin.",
)
def glue_weight(area_mm2: float, thick_mm: float, faces_count: float, density_g_per_ml: float) -> float:
    """Weight of the dabs under a board, g: area x thickness x faces x density. How thick is from memory.

    >>> round(glue_weight(17671, 0.5, 2, 0.8), 1)
    14.1
    """
    return area_mm2 * thick_mm * faces_count / MM3_PER_ML * density_g_per_ml


@rule(
    "stack.bead",
    unit="g",
    formula="length * pi / 8 * bead**2 / 1000 * density",
    source=COMMON_PRACTICE,
    words="Half a round along the joint, smoothed.",
)
def bead_weight(length_mm: float, bead_mm: float, density_g_per_ml: float) -> float:
    """Weight of a smoothed bead, g: length x pi/8 bead² x density. Source: geometry; the bead is common practice.

    >>> round(bead_weight(500, 4, 0.8), 2)
    2.51
    """
    return length_mm * math.pi / 8 * bead_mm**2 / MM3_PER_ML * density_g_per_ml


@rule(
    "stack.coat_left",
    unit="g",
    formula="max(0, coat - area * thick / 1000 * density)",
    words="The final coat goes on once the tiers stand: none lies below the tier above.",
)
def coat_left(coat_g: float, area_mm2: float, thick_mm: float, density_g_per_ml: float) -> float:
    """Final coat of a tier that another stands on already, g: coat - area of that x top thickness x density, never
    below 0.

    Source: geometry.

    >>> round(coat_left(600, 17671, 6, 0.8), 1)
    515.2
    """
    return max(0.0, coat_g - area_mm2 * thick_mm / MM3_PER_ML * density_g_per_ml)


class Bead(NamedTuple):
    """The bead along a joint: how thick, how long, and what it weighs."""

    thick: Figure
    length: Figure
    weight: Figure


@dataclass(frozen=True, eq=False)
class Held:
    """What holds one tier: the dabs of its own coat, of them that under the cake, and the dab under its board; the
    medium on the board inside it, the bead along its joint; and all of these as uses of their bowls.
    """

    glue: Figure
    under_cake_g: float
    under_board_g: float
    slide: Figure | None
    bead: Bead | None
    uses: list[Use]

    @cached_property
    def weight_g(self) -> float:
        """All of it, g."""
        return sum([use.stays.value for use in self.uses])


def coats_after(tier: SettledTier, cake: SettledDesign) -> bool:
    """Whether a tier gets its final coat only once the next stands on it: asked for, and neither scraped against a
    plate nor covered, since neither can be done then.
    """
    asked = tier.asked
    return (
        cake.asked.stacking.coated == "after"
        and isinstance(asked.cover, NoCover)
        and not isinstance(asked.final, NoCoat | PlateFinal)
        and not asked.build.on_side
    )


def held_of(worked: Sequence[PlannedTier], media: Mapping[str, Medium]) -> list[Held]:
    """What holds each tier, bottom first. The same of a tier that nobody changed."""
    return [_held(done, index + 1, _densities(done, media)) for index, done in enumerate(worked)]


def _densities(done: PlannedTier, media: Mapping[str, Medium]) -> tuple[tuple[str, float], ...]:
    """What weighs how much of all that may hold the tier, by key."""
    asked = done.tier.asked
    keys = {asked.crumb.medium, done.tier.outermost, asked.layers.board_medium}
    keys |= {asked.stand.glue_medium or "", asked.stand.bead_medium or ""}
    return tuple([(key, media[key].density_g_per_ml) for key in keys & media.keys()])


@cached(TIERS)
def _held(done: PlannedTier, number: int, densities: tuple[tuple[str, float], ...]) -> Held:
    weighs = dict(densities)
    tier, asked, usual = done.tier, done.tier.asked, done.tier.usual
    edge, uses = done.stands.board_edge, list[Use]()

    def dab(board: Outline, key: str, faces: int) -> Figure:
        return glue_weight.figure(board.area_mm2, usual.glue_mm, faces, weighs[key])

    def take(step: Step, medium: str, colour: str | None, stays: Figure) -> None:
        uses.extend(use_of((number, done.id), step, (medium, colour), stays, usual.techniques.glue))

    crumb = asked.crumb
    below = asked.stand.glue_medium or crumb.medium
    alike = number > 1 and below == crumb.medium
    glue = dab(edge, crumb.medium, 2 if alike else 1)
    take("glue", crumb.medium, crumb.colour, glue)
    own = dab(edge, below, 1)
    if number > 1 and not alike:
        take("glue", below, None, own)
    slide = None
    if done.hidden_edge is not None:
        slide = dab(done.hidden_edge, asked.layers.board_medium, 1)
        take("slide", asked.layers.board_medium, None, slide)
    bead, bordered = None, any(one.at == "foot" for one in done.borders.values())
    thick = tier.settled(asked.stand, "bead_mm")
    if number > 1 and asked.stand.flush and not bordered and thick.value > 0:
        medium, colour = asked.stand.bead_medium, None
        if medium is None:
            final = asked.final
            medium, colour = tier.outermost, crumb.colour if isinstance(final, NoCoat) else final.colour
        length = perimeter_at(done.stands.foot, HALF_BEAD * thick.value)
        heavy = bead_weight.figure(length, thick.value, weighs[medium])
        bead = Bead(thick, carry_over("length along the middle of the bead", length, "mm"), heavy)
        take("joint", medium, colour, heavy)
    under_cake_g = glue.value / 2 if alike else glue.value
    return Held(glue, under_cake_g, own.value if number > 1 else 0.0, slide, bead, uses)


def stands_bare(lower: PlannedTier, upper: PlannedTier, cake: SettledDesign) -> bool:
    """Whether a tier stands on the crumb coat of the one below, which has its final coat only after that. Pillars go
    through and leave the coat whole.
    """
    return not upper.tier.asked.stand.through and coats_after(lower.tier, cake)


def without(lower: PlannedTier, upper: PlannedTier, media: Mapping[str, Medium]) -> tuple[list[Use], float]:
    """What a tier takes less what of its coat would lie below the tier above, and how much that is, g."""
    uses, less_g = list[Use](), 0.0
    area = min(upper.stands.board_edge.area_mm2, lower.bodies.crumbed.top_area_mm2)
    for use in lower.uses:
        left = _less(use, lower, area, media[use.medium].density_g_per_ml) if use.step == "final" else [use]
        less_g += use.stays.value - sum(one.stays.value for one in left)
        uses.extend(left)
    return uses, less_g


@cached(TIERS)
def _less(use: Use, lower: PlannedTier, area_mm2: float, density_g_per_ml: float) -> list[Use]:
    tier = lower.tier
    stays = coat_left.figure(use.stays.value, area_mm2, tier.top.value if tier.top else 0.0, density_g_per_ml)
    technique = tier.usual.techniques.named(kind_of(tier.asked.final).technique)
    return list(use_of((use.tier, use.tier_id), use.step, (use.medium, use.colour), stays, technique))
