"""What holds tiers to their boards and hides their joints: a dab under each board, chocolate on the board inside a
tier, and the bead piped along a joint. Each is a step of its bowl, and weighs on what is below.
"""

import math
from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import NamedTuple

from amber_spread.core.design.finishes import NoCoat, NoCover, PlateFinal
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.practice import Technique
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.design.stands import PillarsStand, StackedStand
from amber_spread.core.geometry.body import MM3_PER_ML
from amber_spread.core.geometry.outline import Outline, perimeter_at
from amber_spread.core.kernel.base import Same
from amber_spread.core.kernel.figures import COMMON_PRACTICE, FROM_MEMORY, Figure, Quantity, rule, same
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import HALF_BEAD, Footprint, HiddenBoard, Size, Step, Use, Worked, bowl_key, float_of, lost

KEPT = 256


@rule(
    "stack.glue", unit="g", formula="area * thick * faces / 1000 * density", source=FROM_MEMORY,
    words="A dab under the cake and, above the lowest tier, another under its board: as much as would cover the whole "
    "board so thin.",
)  # fmt: skip
def glue_weight(area_mm2: float, thick_mm: float, faces_count: float, density_g_per_ml: float) -> float:
    """Weight of the dabs under a board, g: area x thickness x faces x density. How thick is from memory.

    >>> round(glue_weight(17671, 0.5, 2, 0.8), 1)
    14.1
    """
    return area_mm2 * thick_mm * faces_count / MM3_PER_ML * density_g_per_ml


@rule(
    "stack.bead", unit="g", formula="length * pi / 8 * bead**2 / 1000 * density", source=COMMON_PRACTICE,
    words="Half a round along the joint, smoothed.",
)  # fmt: skip
def bead_weight(length_mm: float, bead_mm: float, density_g_per_ml: float) -> float:
    """Weight of a smoothed bead, g: length x pi/8 bead² x density. Source: geometry; the bead is common practice.

    >>> round(bead_weight(500, 4, 0.8), 2)
    2.51
    """
    return length_mm * math.pi / 8 * bead_mm**2 / MM3_PER_ML * density_g_per_ml


@rule(
    "stack.coat_left", unit="g", formula="max(0, coat - area * thick / 1000 * density)",
    words="The final coat goes on once the tiers stand: none lies below the tier above.",
)  # fmt: skip
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


class Held(NamedTuple):
    """What holds one tier: the dab under it, the medium on the board inside it, the bead along its joint; and all three
    as uses of their bowls.
    """

    glue: Figure
    slide: Figure | None
    bead: Bead | None
    uses: list[Use]

    @property
    def weight_g(self) -> float:
        """All of it, g."""
        return sum(use.stays.value for use in self.uses)


def board_outline(foot: Footprint) -> Outline:
    """The edge of a tier's own board."""
    return foot.board.outline(foot.outline)


def hidden_outline(done: Worked, hidden: HiddenBoard) -> Outline:
    """The edge of the board hidden in a tier."""
    size = Size(hidden.shape, hidden.diameter.value, (hidden.length or hidden.diameter).value)
    return size.outline(done.bodies.bare.section(hidden.height.value))


def coats_after(tier: SettledTier, cake: SettledDesign) -> bool:
    """Whether a tier gets its final coat only once the next stands on it: asked for, and neither scraped against a
    plate nor covered, since neither can be done then.
    """
    asked = tier.asked
    bare = isinstance(asked.cover, NoCover) and not isinstance(asked.final, NoCoat | PlateFinal)
    return cake.asked.stacking.coated == "after" and bare and not asked.build.on_side


def held_of(worked: Sequence[Worked], media: Mapping[str, Medium]) -> list[Held]:
    """What holds each tier, bottom first. The same of a tier that nobody changed."""
    return [_held(Same(done), index + 1, _densities(done, media)) for index, done in enumerate(worked)]


def _densities(done: Worked, media: Mapping[str, Medium]) -> tuple[tuple[str, float], ...]:
    """What weighs how much of all that may hold the tier, by key."""
    asked = done.tier.asked
    keys = {asked.crumb.medium, done.tier.outermost, asked.layers.board_medium}
    keys |= {asked.stand.glue_medium or "", asked.stand.bead_medium or ""}
    return tuple((key, media[key].density_g_per_ml) for key in keys & media.keys())


@lru_cache(maxsize=KEPT)
def _held(of: Same[Worked], number: int, densities: tuple[tuple[str, float], ...]) -> Held:
    done, weighs = of.one, dict(densities)
    tier, asked, usual = done.tier, done.tier.asked, done.tier.usual
    board, uses = board_outline(done.stands), list[Use]()

    def take(step: Step, medium: str, colour: str | None, stays: Figure) -> None:
        technique = usual.techniques.glue
        use = _use(number, step, (medium, colour), stays, technique)
        if use.kept_g > 0:
            uses.append(named(use, f"bowls.{bowl_key(medium, colour)}.steps.tier_{number}_{step}"))

    crumb, own = asked.crumb, asked.stand.glue_medium
    faces = 2 if number > 1 and own in (None, crumb.medium) else 1
    glue = glue_weight.figure(board.area_mm2, usual.glue_mm, faces, weighs[crumb.medium])
    take("glue", crumb.medium, crumb.colour, glue)
    if number > 1 and own is not None and own != crumb.medium:
        below = glue_weight.figure(board.area_mm2, usual.glue_mm, 1, weighs[own])
        take("glue", own, None, below)
    slide = None
    if done.layers.board is not None:
        area, key = hidden_outline(done, done.layers.board).area_mm2, asked.layers.board_medium
        slide = glue_weight.figure(area, usual.glue_mm, 1, weighs[key])
        take("slide", key, None, slide)
    bead = None
    if number > 1 and isinstance(asked.stand, StackedStand) and all(one.at != "foot" for one in done.borders.values()):
        thick = tier.settled(asked.stand, "bead_mm")
        length = perimeter_at(done.stands.foot, HALF_BEAD * thick.value)
        final = asked.final
        medium, colour = tier.outermost, crumb.colour if isinstance(final, NoCoat) else final.colour
        if asked.stand.bead_medium is not None:
            medium, colour = asked.stand.bead_medium, None
        along = same("length along the middle of the bead", length, "mm")
        heavy = bead_weight.figure(length, thick.value, weighs[medium])
        if thick.value > 0:
            bead = Bead(thick, along, heavy)
            take("joint", medium, colour, heavy)
    return Held(glue, slide, bead, uses)


def _use(number: int, step: Step, of: tuple[str, str | None], stays: Figure, technique: Technique) -> Use:
    medium, colour = of
    return Use(
        tier=number, step=step, medium=medium, colour=colour, stays=stays,
        lost=lost.figure(stays.value, technique.lost), in_hand=float_of.figure(stays.value, technique.float),
        variation=Quantity(technique.variation, "ratio"),
    )  # fmt: skip


def stands_bare(lower: Worked, upper: Worked, cake: SettledDesign) -> bool:
    """Whether a tier stands on the crumb coat of the one below, which has its final coat only after that. Pillars go
    through and leave the coat whole.
    """
    return coats_after(lower.tier, cake) and not isinstance(upper.tier.asked.stand, PillarsStand)


def uses_left(cake: SettledDesign, worked: Sequence[Worked], media: Mapping[str, Medium]) -> list[list[Use]]:
    """The uses of each tier, bottom first, less what of a coat would lie below the tier above."""
    found = [list(done.uses) for done in worked]
    for uses, lower, upper in zip(found, worked, worked[1:], strict=False):
        if stands_bare(lower, upper, cake):
            area = min(board_outline(upper.stands).area_mm2, lower.bodies.crumbed.top_area_mm2)
            for at, use in enumerate(uses):
                if use.step == "final":
                    uses[at] = _without(Same(use), Same(lower), area, media[use.medium])
    return found


@lru_cache(maxsize=KEPT)
def _without(use: Same[Use], done: Same[Worked], area_mm2: float, medium: Medium) -> Use:
    tier, one = done.one.tier, use.one
    thick = tier.top.value if tier.top else 0.0
    stays = coat_left.figure(one.stays.value, area_mm2, thick, medium.density_g_per_ml)
    technique = tier.usual.techniques.named(kind_of(tier.asked.final).technique)
    found = _use(one.tier, one.step, (one.medium, one.colour), stays, technique)
    return named(found, f"bowls.{bowl_key(one.medium, one.colour)}.steps.tier_{one.tier}_{one.step}")
