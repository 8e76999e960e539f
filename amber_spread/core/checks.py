"""What is wrong or risky in a design, where it stands, what will happen and what to do; and the usual cautions.

A check never stops anyone. Its text holds places such as `{disc}` for the measures in `values`, so
that the reader's own units are put in where it is shown.
"""

from collections.abc import Iterator, Sequence
from typing import Literal

from amber_spread.core.base import Frozen
from amber_spread.core.coats import CoatsPlan
from amber_spread.core.cover import CoverPlan
from amber_spread.core.design import Design, DiscFinal, DrapeCover, NoFinal, PlainFilling, Tier
from amber_spread.core.figures import Quantity
from amber_spread.core.layers import LayersPlan, TargetPlan
from amber_spread.core.media import Medium
from amber_spread.core.practice import Practice
from amber_spread.core.stack import StackPlan, TierStack

Severity = Literal["trouble", "care", "caution"]
Lens = Literal["brief", "layers", "coats", "cover"]

GATHER_MOST = 2.2
"""Above this hem-to-foot ratio a drape pleats badly (from memory, as a rule of thumb)."""
HEAVY_G = 10_000.0
"""From this weight on, the cake is for two people to lift (common practice; local rules on lifting decide)."""
TARGET_TOLERANCE_MM = 1.0
"""A height this near its target is on target: a ruler shows no less on a cake."""


class Check(Frozen):
    """One thing to know. `tier` counts from 1 at the bottom; None is the whole cake."""

    code: str
    severity: Severity
    lens: Lens
    tier: int | None
    text: str
    values: dict[str, Quantity] = {}


def mm(value: float) -> Quantity:
    """A length for a check's text."""
    return Quantity(value=value, unit="mm")


def checks_of_tier(
    number: int,
    tier: Tier,
    layers: LayersPlan,
    coats: CoatsPlan,
    cover: CoverPlan | None,
    practice: Practice,
    media: dict[str, Medium],
) -> Iterator[Check]:
    """Everything to know about tier `number`, in the order of the work."""

    def check(code: str, severity: Severity, lens: Lens, text: str, **values: Quantity) -> Check:
        return Check(code=code, severity=severity, lens=lens, tier=number, text=text, values=values)

    filling = media[tier.filling.medium]
    thickness_mm = layers.filling.thickness.value
    several = tier.layers.count > 1
    if several and not practice.filling_least_mm <= thickness_mm <= practice.filling_most_mm:
        yield check(
            "filling.thickness", "care", "layers",
            "A filling of {thickness} is outside this kitchen's usual {least} to {most}: a thin one tears the crumb, "
            "a thick one slides and bulges.",
            thickness=mm(thickness_mm), least=mm(practice.filling_least_mm), most=mm(practice.filling_most_mm),
        )  # fmt: skip
    if several and filling.soft and isinstance(tier.filling, PlainFilling):
        yield check(
            "filling.undammed", "trouble", "layers",
            f"{filling.name} runs, and nothing holds it at the rim: it will squeeze out and bulge under the coat. "
            "Choose a soft filling with a dam.",
        )  # fmt: skip
    if layers.filling.dam_width and layers.filling.dam_width.value >= layers.cake_diameter.value / 2:
        yield check(
            "filling.all_dam", "trouble", "layers",
            "The dam is {dam} wide, which fills the whole cake of {cake} and leaves no room for filling.",
            dam=mm(layers.filling.dam_width.value), cake=mm(layers.cake_diameter.value),
        )  # fmt: skip
    if layers.filling.seal_thickness and layers.filling.seal_thickness.value >= thickness_mm:
        yield check(
            "filling.all_seal", "trouble", "layers",
            "The seal is {seal} thick, as high as the dam: there is no room left for filling.",
            seal=mm(layers.filling.seal_thickness.value),
        )  # fmt: skip
    if layers.target is not None:
        yield from _target_checks(check_number=number, target=layers.target)
    if isinstance(tier.final, DiscFinal) and coats.final is not None:
        side_mm = coats.final.side.value
        least_disc = mm(coats.crumb.diameter.value + 2 * practice.coat_least_mm)
        if side_mm < 0:
            yield check(
                "coats.disc_small", "trouble", "coats",
                "The disc is narrower than the crumb-coated cake, which is {cake} wide, so the scraper would cut into "
                "it. Trim the cake, or take a disc of {least} or more.",
                cake=mm(coats.crumb.diameter.value), least=least_disc,
            )  # fmt: skip
        elif side_mm < practice.coat_least_mm:
            yield check(
                "coats.disc_thin", "care", "coats",
                "This disc leaves only {side} of final coat at the side, and crumbs will show through. For {wanted} "
                "take a disc of {least}.",
                side=mm(side_mm), wanted=mm(practice.coat_least_mm), least=least_disc,
            )  # fmt: skip
    if isinstance(tier.cover, DrapeCover) and cover is not None:
        beneath = media[tier.crumb.medium if isinstance(tier.final, NoFinal) else tier.final.medium]
        if not beneath.suits_under_fondant:
            yield check(
                "cover.melts", "trouble", "cover",
                f"{beneath.name} under fondant weeps and melts it from below. Coat this tier with buttercream or "
                "ganache, or leave the cover off.",
            )  # fmt: skip
        if cover.gather.value > GATHER_MOST:
            yield check(
                "cover.pleats", "care", "cover",
                "The sheet's hem is {times} as long as the foot it must gather to, so pleats will form. "
                "Ease it down a little at a time, and leave more to trim.",
                times=Quantity(value=cover.gather.value, unit="ratio"),
            )  # fmt: skip
        if cover.trimmed_weight.value < 0:
            yield check(
                "cover.short", "trouble", "cover",
                "The sheet holds less fondant than the tier takes at this thickness, so it would stretch thin. Allow "
                "more beyond the hem.",
            )  # fmt: skip


def _target_checks(check_number: int, target: TargetPlan) -> Iterator[Check]:
    missing_mm = target.missing.value
    if abs(missing_mm) <= TARGET_TOLERANCE_MM:
        return
    side = "short of" if missing_mm > 0 else "over"
    ways = bool(target.filling_thickness or target.cut_height or target.other_count)
    advice = (
        "One of the changes listed reaches it."
        if ways
        else "No filling within this kitchen's usual, no cut these layers allow and no number of layers reaches it: "
        + ("bake higher layers, or choose a lower height." if missing_mm > 0 else "choose a greater height.")
    )
    yield Check(
        code="layers.target", severity="care", lens="layers", tier=check_number,
        text=f"The tier ends {{missing}} {side} the {{target}} you asked for. {advice}",
        values={"missing": mm(abs(missing_mm)), "target": mm(target.height.value)},
    )  # fmt: skip


def checks_of_cake(
    design: Design, tiers: list[TierStack], whole: StackPlan, media: dict[str, Medium]
) -> Iterator[Check]:
    """Everything to know about the cake as a whole, cautions last."""
    for number in range(2, len(tiers) + 1):
        upper, lower = tiers[number - 1], tiers[number - 2]
        sizes = [(upper.diameter.value, lower.diameter.value)]
        sizes.append(((upper.length or upper.diameter).value, (lower.length or lower.diameter).value))
        above, below = max(sizes, key=lambda size: size[0] - size[1])
        if above > below + 1e-6:
            yield Check(
                code="stack.overhang", severity="care", lens="brief", tier=number,
                text="This tier is {above} wide and stands on one of {below}: it overhangs. Put the wider tier below.",
                values={"above": mm(above), "below": mm(below)},
            )  # fmt: skip
    # A board with a length of its own is cut to the cake; any other must be as wide as the cake is long.
    lengths = [] if whole.base_length else [tier.length.value for tier in tiers if tier.length]
    widest = max([tier.diameter.value for tier in tiers] + lengths)
    if whole.base_diameter.value < widest:
        yield Check(
            code="stack.board_small", severity="trouble", lens="brief", tier=None,
            text="The base board is {board} wide and the cake {cake}: it would hang over the edge.",
            values={"board": mm(whole.base_diameter.value), "cake": mm(widest)},
        )  # fmt: skip
    if whole.weight.value >= HEAVY_G:
        yield Check(
            code="caution.heavy", severity="caution", lens="brief", tier=None,
            text="The whole cake weighs about {weight}. Lift it with two people and from below the board, and keep to "
            "your local rules on lifting.",
            values={"weight": Quantity(value=whole.weight.value, unit="g")},
        )  # fmt: skip
    taken = {key: media[key] for _, key, _ in design.taken()}
    allergens = sorted({allergen for medium in taken.values() for allergen in medium.allergens})
    if allergens:
        yield Check(
            code="caution.allergens", severity="caution", lens="brief", tier=None,
            text=f"The fillings, coats and covers chosen usually contain {_listed(allergens)}; the cake itself most "
            "often wheat, egg and milk. Go by the labels of what you use, and tell the customer as your local food law "
            "asks.",
        )  # fmt: skip
    perishable = sorted(medium.name for medium in taken.values() if medium.perishable)
    if perishable:
        yield Check(
            code="caution.fridge", severity="caution", lens="layers", tier=None,
            text=f"{_listed(perishable)} must not stand out of the fridge for long. Your local food code says how "
            "long; plan the work and the table around it.",
        )  # fmt: skip
    if any(medium.raw_egg for medium in taken.values()):
        yield Check(
            code="caution.raw_egg", severity="caution", lens="layers", tier=None,
            text="A medium here is made with raw egg. Use pasteurised egg, and follow your local food code.",
        )  # fmt: skip


def _listed(words: Sequence[str]) -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"
