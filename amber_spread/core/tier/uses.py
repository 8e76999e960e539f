"""What every step takes of every medium: how much stays on the cake, how much is lost, how much must be in hand.

`in_hand` (the float) is what must be in hand beyond what stays and is lost while a step is worked, and comes back
clean: the scrapings of a final coat, the trimmings of a rolled sheet.
"""

from collections.abc import Callable, Collection, Iterable, Iterator
from functools import cached_property
from typing import Literal

from amber_spread.core.design.finishes import (
    CollarCover,
    NoCoat,
    NoCover,
    PrintedCover,
    SoftFilling,
)
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.practice import Technique
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.kernel.base import PlanPart, slug
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    THIS_KITCHEN,
    Figure,
    Quantity,
    Source,
    carry_over,
    rule,
)
from amber_spread.core.kernel.naming import named
from amber_spread.core.tier.coats.coats import CoatsPlan
from amber_spread.core.tier.cover.plan import CoverPlan
from amber_spread.core.tier.decorate.on_top import OnTopPlan
from amber_spread.core.tier.drawn import Cut

Step = Literal[
    "syrup",
    "seal",
    "dam",
    "filling",
    "refill",
    "crumb",
    "final",
    "cover",
    "on_top",
    "border",
    "region",
    "glue",
    "slide",
    "joint",
]
STEPS: tuple[Step, ...] = (
    "syrup", "seal", "dam", "filling", "refill", "crumb", "final", "cover", "on_top", "border", "region", "glue",
    "slide", "joint",
)  # fmt: skip
"""The steps of one tier in the order the work allows."""
_PLACES = {step: place for place, step in enumerate(STEPS)}


FLOAT_SOURCE = Source(
    origin="this kitchen", reference="against a disc one and a half to two batches are in hand, by common practice"
)


TierRef = tuple[int, str]
"""A tier: its number from 1 at the bottom, and its id."""


class Use(PlanPart):
    """What one step on one tier takes of one medium in one colour. `tier` counts from 1 at the bottom."""

    tier: int
    tier_id: str
    step: Step
    medium: str
    colour: str | None
    stays: Figure
    lost: Figure
    in_hand: Figure
    variation: Quantity

    @cached_property
    def kept_g(self) -> float:
        """What does not come back, g: stays + lost."""
        return self.stays.value + self.lost.value

    @cached_property
    def forward(self) -> tuple[int, int]:
        """Its place in the order of tiers and of the work on each."""
        return self.tier, _PLACES[self.step]

    @cached_property
    def backward(self) -> tuple[float, int, int]:
        """Its place in Lawler's backward rule: the smallest float first, ties from the last step back."""
        tier, place = self.forward
        return self.in_hand.value, -tier, -place

    @cached_property
    def bowl_key(self) -> str:
        """The name of its bowl among the plan's bowls."""
        return bowl_key(self.medium, self.colour)

    @cached_property
    def step_key(self) -> str:
        """Its name among its bowl's steps, by the id of its tier: `tier_1_crumb`."""
        return f"tier_{self.tier_id}_{self.step}"


def bowl_key(medium: str, colour: str | None) -> str:
    """The name of a bowl among the plan's bowls: `meringue_buttercream`, or with its colour `fondant~blush`."""
    return medium if colour is None else f"{medium}~{slug(colour)}"


@rule(
    "uses.lost",
    unit="g",
    formula="stays * share",
    source=THIS_KITCHEN,
    words="A share of what stays goes to bowl, bag, blade and crumbs.",
)
def lost(stays_g: float, share: float) -> float:
    """Weight lost, g: share x stays. The share is this kitchen's own.

    >>> lost(16, 0.15)
    2.4
    """
    return stays_g * share


@rule(
    "uses.squeezed",
    unit="g",
    formula="stays * share + stays * settling / (1 - settling)",
    source=THIS_KITCHEN,
    words="A share goes to bowl, bag and knife, and as the filling settles a ring is squeezed out and scraped off.",
)
def squeezed(stays_g: float, share: float, settling: float) -> float:
    """Filling lost, g: share x stays + what settling squeezes out. The shares are this kitchen's own.

    >>> round(squeezed(217, 0.03, 0.05), 2)
    17.93
    """
    return stays_g * share + stays_g * settling / (1 - settling)


@rule(
    "uses.scraped_off",
    unit="g",
    formula="(coat - stays) * crumbs_share + coat * share",
    source=COMMON_PRACTICE,
    words="The whole coat goes on and is scraped back. The scrapings with crumbs are lost, and besides a share of the "
    "coat to bowl and blade.",
)
def scraped_off(coat_g: float, stays_g: float, crumbs_share: float, share: float) -> float:
    """What is lost of a coat that is scraped back, g: (coat - stays) x share with crumbs + share x coat.

    A full coat goes on and nearly all of it comes off; scrapings without crumbs go back (common practice). The shares
    are this kitchen's own.

    >>> round(scraped_off(199, 48.5, 0.3, 0.1), 2)
    65.05
    """
    return (coat_g - stays_g) * crumbs_share + coat_g * share


@rule(
    "uses.scraped_back",
    unit="g",
    formula="(coat - stays) * (1 - crumbs_share) + coat * share",
    source=COMMON_PRACTICE,
    words="The scrapings without crumbs go back in the bowl, with a share of the coat that was in hand besides.",
)
def scraped_back(coat_g: float, stays_g: float, crumbs_share: float, share: float) -> float:
    """What comes back of a coat that is scraped back, g: (coat - stays) x (1 - share with crumbs) + share x coat.

    Source: common practice; the shares are this kitchen's own.

    >>> round(scraped_back(199, 48.5, 0.3, 0.6), 2)
    224.75
    """
    return (coat_g - stays_g) * (1 - crumbs_share) + coat_g * share


@rule(
    "uses.plate_float",
    unit="g",
    formula="max(stays, by_hand) * (1 + share) - stays",
    source=FLOAT_SOURCE,
    words="You fill out to a disc or a card with a whole batch, as much as a coat by hand takes, and a share of one "
    "more. All of it but what stays is scraped back.",
)
def plate_float(stays_g: float, by_hand_g: float, share: float) -> float:
    """Weight in hand beyond what stays on a tier scraped against a plate, g: max(stays, by hand) x (1 + share) - stays.

    One and a half to two batches are made and much is scraped back (common practice); a batch is what the same tier
    would take by hand.

    >>> plate_float(200, 500, 0.75)
    675.0
    """
    return max(stays_g, by_hand_g) * (1 + share) - stays_g


@rule(
    "uses.marble",
    unit="g",
    formula="max(0, trimmed)",
    source=COMMON_PRACTICE,
    words="Kneaded again, the trimmings of a marbled sheet turn one plain colour: none of them serves the next sheet.",
)
def trimmed_marble(trimmed_g: float) -> float:
    """What is lost of a marbled sheet, g: all that is trimmed off. Source: common practice.

    >>> trimmed_marble(46)
    46
    """
    return max(0.0, trimmed_g)


@rule(
    "uses.float",
    unit="g",
    formula="stays * share",
    source=FLOAT_SOURCE,
    words="A share of what stays must be in hand beyond it while working, and is scraped back.",
)
def float_of(stays_g: float, share: float) -> float:
    """Weight in hand beyond what stays and is lost, g: share x stays. The share is this kitchen's own.

    >>> float_of(16, 0.1)
    1.6
    """
    return stays_g * share


@rule(
    "uses.sheet_float",
    unit="g",
    formula="max(0, trimmed - lost)",
    source=DEFINITION,
    words="The trimmings of the sheet, less the dry edges that cannot be rolled again.",
)
def sheet_float(trimmed_g: float, lost_g: float) -> float:
    """Trimmings that come back, g: trimmed - lost, never below 0. Source: definition.

    >>> sheet_float(306, 14.3)
    291.7
    """
    return max(0.0, trimmed_g - lost_g)


def use_of(
    tier: TierRef,
    step: Step,
    of: tuple[str, str | None],
    stays: Figure,
    technique: Technique,
    gone: Figure | None = None,
    spare: Figure | None = None,
) -> Iterator[Use]:
    """What a step of a tier takes of a medium and colour, its figures called as they stand in their bowl; none where it
    takes nothing. What is `gone` and `spare` besides is by its technique where it is not given.
    """
    (number, tier_id), (medium, colour) = tier, of
    use = Use(
        tier=number,
        tier_id=tier_id,
        step=step,
        medium=medium,
        colour=colour,
        stays=stays,
        lost=lost.figure(stays.value, technique.lost) if gone is None else gone,
        in_hand=float_of.figure(stays.value, technique.float) if spare is None else spare,
        variation=Quantity(technique.variation, "ratio"),
    )
    if use.kept_g > 0:
        yield named(use, f"bowls.{use.bowl_key}.steps.{use.step_key}")


def uses_of_tier(
    number: int,
    tier: SettledTier,
    cut: Cut,
    marbled: Collection[str | None] = (),
) -> list[Use]:
    """Every use of tier `number` (from 1 at the bottom), in working order, its figures called as they stand in their
    bowls; steps that take nothing are left out.

    `marbled` are the colours kneaded as marble, whose trimmings cannot be rolled again as such.
    """
    techniques, layers, coats, cover = tier.usual.techniques, cut.layers, cut.coats, cut.cover
    uses, ref = list[Use](), (number, tier.asked.id)

    def take(
        step: Step,
        of: tuple[str, str | None],
        stays: Figure,
        technique: Technique,
        trimmed: Figure | None = None,
        gone: Figure | None = None,
        spare: Figure | None = None,
    ) -> None:
        gone = lost.figure(stays.value, technique.lost) if gone is None else gone
        if spare is None and trimmed is not None:
            spare = sheet_float.figure(trimmed.value, gone.value)
        uses.extend(use_of(ref, step, of, stays, technique, gone, spare))

    syrup = tier.asked.layers.syrup
    if layers.syrup and syrup:
        take("syrup", (syrup.medium, syrup.colour), layers.syrup.weight, techniques.syrup)
    filling = tier.asked.filling
    if isinstance(filling, SoftFilling) and layers.filling.seal_weight and layers.filling.dam_weight:
        take("seal", (filling.dam_medium, filling.dam_colour), layers.filling.seal_weight, techniques.seal)
        take("dam", (filling.dam_medium, filling.dam_colour), layers.filling.dam_weight, techniques.dam)
    stays = layers.filling.weight
    gone = squeezed.figure(stays.value, techniques.filling.lost, tier.usual.settling)
    take("filling", (filling.medium, filling.colour), stays, techniques.filling, gone=gone)
    filled = [(one.medium, one.colour, one.weight) for one in cut.openings.values()]
    for of, filled_g in _by_bowl(((key, hue), heavy.value) for key, hue, heavy in filled if key and heavy):
        take("refill", of, carry_over("openings filled with it", filled_g, "g"), techniques.filling)
    _take_coats(tier, coats, take)
    if cover is not None and cover.over is not None and not isinstance(tier.asked.cover, NoCover | PrintedCover):
        _take_cover(tier, cover, marbled, take)
    by_sheet: dict[tuple[str, str | None], list[OnTopPlan]] = {}
    for top, laid in zip(tier.asked.on_top, cut.on_top.values(), strict=True):
        by_sheet.setdefault((top.medium, top.colour), []).append(laid)
    for (medium, colour), laid_on in by_sheet.items():
        stays = carry_over("pieces of this colour", sum(one.stays_weight.value for one in laid_on), "g")
        trimmed = carry_over("trimmed off them", sum(one.trimmed_weight.value for one in laid_on), "g")
        marble = trimmed_marble.figure(trimmed.value) if colour in marbled else None
        take("on_top", (medium, colour), stays, techniques.pieces, trimmed=trimmed, gone=marble)
    borders = zip(tier.asked.borders, cut.borders.values(), strict=True)
    for of, piped_g in _by_bowl(((border.medium, border.colour), plan.weight.value) for border, plan in borders):
        take("border", of, carry_over("borders of this colour", piped_g, "g"), techniques.border)
    for of, piped_g in _by_bowl(((one.medium, one.colour), one.weight.value) for one in cut.regions.values()):
        take("region", of, carry_over("regions piped of this colour", piped_g, "g"), techniques.textured)
    return uses


def _take_coats(tier: SettledTier, coats: CoatsPlan, take: Callable[..., None]) -> None:
    """What both coats take; what is scraped back of a semi-naked one, or off a disc or card, comes back."""
    techniques, final = tier.usual.techniques, tier.asked.final
    crumbs = tier.asked.crumb.medium, tier.asked.crumb.colour
    if coats.goes_on is None:
        take("crumb", crumbs, coats.crumb_stays, techniques.crumb)
    else:
        crumbed = coats.goes_on.value, coats.crumb_stays.value, tier.usual.semi_naked_crumbs
        back = scraped_off.figure(*crumbed, techniques.semi_naked.lost)
        spare = scraped_back.figure(*crumbed, techniques.semi_naked.float)
        take("crumb", crumbs, coats.crumb_stays, techniques.semi_naked, gone=back, spare=spare)
    if coats.stays is not None and not isinstance(final, NoCoat):
        technique, more = techniques.named(kind_of(final).technique), None
        if coats.by_hand is not None:
            more = plate_float.figure(coats.stays.value, coats.by_hand.value, technique.float)
        take("final", (final.medium, final.colour), coats.stays, technique, spare=more)


def _by_bowl(
    parts: Iterable[tuple[tuple[str, str | None], float]],
) -> Iterable[tuple[tuple[str, str | None], float]]:
    """What parts weigh together, g, by their medium and colour."""
    found: dict[tuple[str, str | None], float] = {}
    for of, grams in parts:
        found[of] = found.get(of, 0.0) + grams
    return found.items()


def _take_cover(
    tier: SettledTier, cover: CoverPlan, marbled: Collection[str | None], take: Callable[..., None]
) -> None:
    """What a cover takes of each of its colours. Trimmings come back, but those of a marbled sheet not as marble."""
    asked, techniques = tier.asked.cover, tier.usual.techniques
    assert not isinstance(asked, NoCover | PrintedCover)
    if isinstance(asked, CollarCover):
        assert cover.stays is not None
        take("cover", (asked.medium, asked.colour), cover.stays, techniques.collar)
        return
    technique = techniques.named(kind_of(asked).technique)
    for share in cover.colours.values():
        gone = trimmed_marble.figure(share.trimmed.value) if share.colour in marbled else None
        take("cover", (share.medium, share.colour), share.stays, technique, trimmed=share.trimmed, gone=gone)
