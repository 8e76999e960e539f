"""What every step takes of every medium: how much stays on the cake, how much is lost, how much must be in hand.

`in_hand` (the float) is what must be in hand beyond what stays and is lost while a step is worked, and comes back
clean: the scrapings of a final coat, the trimmings of a rolled sheet.
"""

from typing import Literal

from amber_spread.core.base import Frozen
from amber_spread.core.coats import CoatsPlan
from amber_spread.core.cover import CoverPlan
from amber_spread.core.design import DiscFinal, NoCover, NoFinal, SoftFilling, Tier
from amber_spread.core.figures import DEFINITION, THIS_KITCHEN, Figure, Quantity, Source, rule
from amber_spread.core.layers import LayersPlan
from amber_spread.core.practice import Practice, Technique

Step = Literal["seal", "dam", "filling", "crumb", "final", "cover"]
STEPS: tuple[Step, ...] = ("seal", "dam", "filling", "crumb", "final", "cover")
"""The steps of one tier in the order the work allows."""


FLOAT_SOURCE = Source(
    origin="this kitchen", reference="against a disc as much is in hand again as stays, by common practice"
)


class Use(Frozen):
    """What one step on one tier takes of one medium in one colour. `tier` counts from 1 at the bottom."""

    tier: int
    step: Step
    medium: str
    colour: str | None
    stays: Figure
    lost: Figure
    in_hand: Figure
    variation: Quantity

    @property
    def kept_g(self) -> float:
        """What does not come back, g: stays + lost."""
        return self.stays.value + self.lost.value


@rule(
    "uses.lost", unit="g", formula="stays * share", source=THIS_KITCHEN,
    words="A share of what stays goes to bowl, bag, blade and crumbs.",
)  # fmt: skip
def lost(stays_g: float, share: float) -> float:
    """Weight lost, g: share x stays. The share is this kitchen's own."""
    return stays_g * share


@rule(
    "uses.float", unit="g", formula="stays * share", source=FLOAT_SOURCE,
    words="A share of what stays must be in hand beyond it while working, and is scraped back.",
)  # fmt: skip
def float_of(stays_g: float, share: float) -> float:
    """Weight in hand beyond what stays and is lost, g: share x stays.

    Against a disc the share is 1: one and a half to two batches are made and half is scraped back
    (common practice). The other shares are this kitchen's own.
    """
    return stays_g * share


@rule(
    "uses.sheet_float", unit="g", formula="max(0, trimmed - lost)", source=DEFINITION,
    words="The trimmings of the sheet, less the dry edges that cannot be rolled again.",
)  # fmt: skip
def sheet_float(trimmed_g: float, lost_g: float) -> float:
    """Trimmings that come back, g: trimmed - lost, never below 0. Source: definition."""
    return max(0.0, trimmed_g - lost_g)


def uses_of_tier(
    number: int, tier: Tier, layers: LayersPlan, coats: CoatsPlan, cover: CoverPlan | None, practice: Practice
) -> list[Use]:
    """Every use of tier `number` (from 1 at the bottom), in working order; steps that take nothing are left out."""
    techniques = practice.techniques
    uses: list[Use] = []

    def take(step: Step, medium: str, colour: str | None, stays: Figure, technique: Technique) -> None:
        lost_figure = lost.figure(stays.value, technique.lost)
        if step == "cover" and cover is not None:
            in_hand = sheet_float.figure(cover.trimmed_weight.value, lost_figure.value)
        else:
            in_hand = float_of.figure(stays.value, technique.float)
        uses.append(
            Use(
                tier=number,
                step=step,
                medium=medium,
                colour=colour,
                stays=stays,
                lost=lost_figure,
                in_hand=in_hand,
                variation=Quantity(value=technique.variation, unit="ratio"),
            )
        )

    filling = tier.filling
    if isinstance(filling, SoftFilling) and layers.filling.seal_weight and layers.filling.dam_weight:
        take("seal", filling.dam_medium, filling.dam_colour, layers.filling.seal_weight, techniques.seal)
        take("dam", filling.dam_medium, filling.dam_colour, layers.filling.dam_weight, techniques.dam)
    take("filling", filling.medium, filling.colour, layers.filling.weight, techniques.filling)
    take("crumb", tier.crumb.medium, tier.crumb.colour, coats.crumb.weight, techniques.crumb)
    if coats.final is not None and not isinstance(tier.final, NoFinal):
        technique = techniques.disc if isinstance(tier.final, DiscFinal) else techniques.freehand
        take("final", tier.final.medium, tier.final.colour, coats.final.weight, technique)
    if cover is not None and not isinstance(tier.cover, NoCover):
        take("cover", tier.cover.medium, tier.cover.colour, cover.over.weight, techniques.drape)
    return [use for use in uses if use.stays.value > 0]
