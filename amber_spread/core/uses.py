"""What every step takes of every medium: how much stays on the cake, how much is lost, how much must be in hand.

`in_hand` (the float) is what must be in hand beyond what stays and is lost while a step is worked, and comes back
clean: the scrapings of a final coat, the trimmings of a rolled sheet.
"""

from collections.abc import Callable
from typing import Literal

from amber_spread.core.base import Made
from amber_spread.core.coats import SCHOOLS, CoatsPlan
from amber_spread.core.cover_plan import CoverPlan
from amber_spread.core.design import Tier
from amber_spread.core.extras import BorderPlan, OnTopPlan
from amber_spread.core.figures import DEFINITION, THIS_KITCHEN, Figure, Quantity, Source, rule, same
from amber_spread.core.finishes import (
    CollarCover,
    NoCover,
    NoFinal,
    PanelCover,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
)
from amber_spread.core.layers import LayersPlan
from amber_spread.core.practice import Practice, Technique

Step = Literal["syrup", "seal", "dam", "filling", "crumb", "final", "cover", "on_top", "border"]
STEPS: tuple[Step, ...] = ("syrup", "seal", "dam", "filling", "crumb", "final", "cover", "on_top", "border")
"""The steps of one tier in the order the work allows."""


FLOAT_SOURCE = Source(
    origin="this kitchen", reference="against a disc as much is in hand again as stays, by common practice"
)


class Use(Made):
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
    "uses.squeezed", unit="g", formula="stays * share + stays * settling / (1 - settling)", source=THIS_KITCHEN,
    words="A share goes to bowl, bag and knife, and as the filling settles a ring is squeezed out and scraped off.",
)  # fmt: skip
def squeezed(stays_g: float, share: float, settling: float) -> float:
    """Filling lost, g: share x stays + what settling squeezes out. The shares are this kitchen's own."""
    return stays_g * share + stays_g * settling / (1 - settling)


@rule(
    "uses.stripe", unit="g", formula="whole * share", source=DEFINITION,
    words="This colour's share of the whole panel.",
)  # fmt: skip
def of_stripe(whole_g: float, share: float) -> float:
    """Weight of one colour of a panel, g: whole x share. Source: definition."""
    return whole_g * share


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
    number: int,
    tier: Tier,
    layers: LayersPlan,
    coats: CoatsPlan,
    cover: CoverPlan | None,
    on_top: OnTopPlan | None,
    borders: list[BorderPlan],
    practice: Practice,
) -> list[Use]:
    """Every use of tier `number` (from 1 at the bottom), in working order; steps that take nothing are left out."""
    techniques = practice.techniques
    uses: list[Use] = []

    def take(
        step: Step, medium: str, colour: str | None, stays: Figure, technique: Technique,
        trimmed: Figure | None = None, gone: Figure | None = None,
    ) -> None:  # fmt: skip
        gone = gone or lost.figure(stays.value, technique.lost)
        if trimmed is None:
            in_hand = float_of.figure(stays.value, technique.float)
        else:
            in_hand = sheet_float.figure(trimmed.value, gone.value)
        variation = Quantity(value=technique.variation, unit="ratio")
        uses.append(
            Use(tier=number, step=step, medium=medium, colour=colour, stays=stays, lost=gone, in_hand=in_hand,
                variation=variation)
        )  # fmt: skip

    if layers.syrup and tier.layers.syrup:
        take("syrup", tier.layers.syrup.medium, tier.layers.syrup.colour, layers.syrup.weight, techniques.syrup)
    filling = tier.filling
    if isinstance(filling, SoftFilling) and layers.filling.seal_weight and layers.filling.dam_weight:
        take("seal", filling.dam_medium, filling.dam_colour, layers.filling.seal_weight, techniques.seal)
        take("dam", filling.dam_medium, filling.dam_colour, layers.filling.dam_weight, techniques.dam)
    stays = layers.filling.weight
    gone = squeezed.figure(stays.value, techniques.filling.lost, practice.settling)
    take("filling", filling.medium, filling.colour, stays, techniques.filling, gone=gone)
    crumb = techniques.semi_naked if isinstance(tier.final, SemiNakedFinal) else techniques.crumb
    take("crumb", tier.crumb.medium, tier.crumb.colour, coats.crumb.weight, crumb)
    final = tier.final
    if coats.stays is not None and not isinstance(final, NoFinal | SemiNakedFinal):
        technique = getattr(techniques, SCHOOLS[final.kind].technique)
        take("final", final.medium, final.colour, coats.stays, technique)
    if cover is not None and cover.over is not None and not isinstance(tier.cover, NoCover | PrintedCover):
        _take_cover(tier, cover, cover.over.weight, practice, take)
    if on_top is not None and tier.on_top is not None:
        top = tier.on_top
        take("on_top", top.medium, top.colour, on_top.stays_weight, techniques.pieces, trimmed=on_top.trimmed_weight)
    by_bowl: dict[tuple[str, str | None], list[float]] = {}
    for border, plan in zip(tier.borders, borders, strict=True):
        by_bowl.setdefault((border.medium, border.colour), []).append(plan.weight.value)
    for (medium, colour), weights in by_bowl.items():
        take("border", medium, colour, same("borders of this colour", sum(weights), "g"), techniques.border)
    return [use for use in uses if use.stays.value > 0]


def _take_cover(tier: Tier, cover: CoverPlan, stays: Figure, practice: Practice, take: Callable[..., None]) -> None:
    """What a cover takes: of each colour its share, or of one colour all of it; trimmings come back."""
    asked, techniques = tier.cover, practice.techniques
    assert not isinstance(asked, NoCover | PrintedCover)
    if isinstance(asked, CollarCover):
        take("cover", asked.medium, asked.colour, stays, techniques.collar)
        return
    technique = techniques.drape if asked.kind == "drape" else techniques.pieces
    stripes = asked.stripes if isinstance(asked, PanelCover) else ()
    if not stripes:
        take("cover", asked.medium, asked.colour, stays, technique, trimmed=cover.trimmed_weight)
        return
    shares: dict[str | None, float] = {}
    for stripe in stripes:
        shares[stripe.colour] = shares.get(stripe.colour, 0.0) + stripe.share
    whole, trimmed_g = sum(shares.values()), cover.trimmed_weight.value if cover.trimmed_weight else 0.0
    for colour, share in shares.items():
        part = share / whole
        trimmed = of_stripe.figure(trimmed_g, part)
        take("cover", asked.medium, colour, of_stripe.figure(stays.value, part), technique, trimmed=trimmed)
