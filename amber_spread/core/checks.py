"""Everything to know about a design: each tier's rooms in the order of the work, then the cake as a whole."""

from collections.abc import Iterator, Sequence

from amber_spread.core.check import Check, checker, listed, mm
from amber_spread.core.design import Design, Tier
from amber_spread.core.figures import Quantity
from amber_spread.core.finish_checks import checks_of_coats, checks_of_cover
from amber_spread.core.kit import Kit, KitNeed
from amber_spread.core.layer_checks import checks_of_layers
from amber_spread.core.media import Medium
from amber_spread.core.practice import Practice
from amber_spread.core.stack import StackPlan
from amber_spread.core.worked import Footprint, Worked

HEAVY_G = 10_000.0
"""From this weight on, the cake is for two people to lift (common practice; local rules on lifting decide)."""


def checks_of_tier(
    number: int, tier: Tier, done: Worked, practice: Practice, media: dict[str, Medium], kit: Kit
) -> Iterator[Check]:
    """Everything to know about tier `number`, in the order of the work."""
    check = checker(number)
    yield from checks_of_layers(tier, done.layers, done.foot, practice, media, check)
    yield from checks_of_coats(tier, done, practice, media, check)
    yield from checks_of_cover(tier, done, practice, media, kit, check)


def checks_of_cake(
    design: Design, tiers: Sequence[Footprint], whole: StackPlan, media: dict[str, Medium], owned: Sequence[KitNeed]
) -> Iterator[Check]:
    """Everything to know about the cake as a whole, cautions last."""
    for number, (lower, upper) in enumerate(zip(tiers, tiers[1:], strict=False), 2):
        yield from _standing(number, upper, lower)
    yield from _board(tiers, whole)
    yield from _scrapers(owned)
    yield from _cautions(design, whole, media)


def _standing(number: int, upper: Footprint, lower: Footprint) -> Iterator[Check]:
    """Whether a tier stands well on the one below it."""
    check = checker(number)
    if lower.top_mm <= 0:
        yield check(
            "stack.no_flat", "trouble", "brief",
            "The tier below has no flat top to stand on. Put it on top, or cut a flat and set supports in it.",
        )  # fmt: skip
        return
    straight = lower.top_mm >= lower.width_mm - 1e-6
    sizes = [(upper.foot_mm, lower.top_mm)]
    if straight and upper.foot_mm >= upper.width_mm - 1e-6:
        sizes.append((upper.length_mm, lower.length_mm))
    above, below = max(sizes, key=lambda size: size[0] - size[1])
    if above > below + 1e-6:
        yield check(
            "stack.overhang", "care", "brief",
            "This tier is {above} wide and stands on one of {below}: it overhangs. Put the wider tier below.",
            above=mm(above), below=mm(below),
        )  # fmt: skip


def _board(tiers: Sequence[Footprint], whole: StackPlan) -> Iterator[Check]:
    # A board with a length of its own is cut to the cake; any other must be as wide as the cake is long.
    widest = max(tier.width_mm if whole.base_length else max(tier.width_mm, tier.length_mm) for tier in tiers)
    if whole.base_diameter.value < widest:
        yield checker(None)(
            "stack.board_small", "trouble", "brief",
            "The base board is {board} wide and the cake {cake}: it would hang over the edge.",
            board=mm(whole.base_diameter.value), cake=mm(widest),
        )  # fmt: skip


def _scrapers(owned: Sequence[KitNeed]) -> Iterator[Check]:
    for need in owned:
        if need.tool == "scraper" and need.status != "have":
            yield checker(need.tier)(
                "kit.scraper_short", "care", "coats",
                "No scraper of yours reaches {tall}, the height of this tier: the wall would be drawn in two "
                "passes and "
                "show the join. Get a taller one.",
                tall=mm(need.size.value),
            )  # fmt: skip


def _cautions(design: Design, whole: StackPlan, media: dict[str, Medium]) -> Iterator[Check]:
    check = checker(None)
    if whole.weight.value >= HEAVY_G:
        yield check(
            "caution.heavy", "caution", "brief",
            "The whole cake weighs about {weight}. Lift it with two people and from below the board, and keep to "
            "your local rules on lifting.",
            weight=Quantity(value=whole.weight.value, unit="g"),
        )  # fmt: skip
    taken = {key: media[key] for _, key, _ in design.taken()}
    allergens = sorted({allergen for medium in taken.values() for allergen in medium.allergens})
    if allergens:
        yield check(
            "caution.allergens", "caution", "brief",
            f"The fillings, coats and covers chosen usually contain {listed(allergens)}; the cake itself most "
            "often wheat, egg and milk. Go by the labels of what you use, and tell the customer as your local food law "
            "asks.",
        )  # fmt: skip
    perishable = sorted(medium.name for medium in taken.values() if medium.perishable)
    if perishable:
        yield check(
            "caution.fridge", "caution", "layers",
            f"{listed(perishable)} must not stand out of the fridge for long. Your local food code says how "
            "long; plan the work and the table around it.",
        )  # fmt: skip
    if any(medium.raw_egg for medium in taken.values()):
        yield check(
            "caution.raw_egg", "caution", "layers",
            "A medium here is made with raw egg. Use pasteurised egg, and follow your local food code.",
        )  # fmt: skip
