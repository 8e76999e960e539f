"""Everything to know about a design: each tier's rooms in the order of the work, then the cake as a whole."""

import itertools
from collections.abc import Iterator, Mapping, Sequence

from amber_spread.core.cake.joints import JointPlan, most_out
from amber_spread.core.cake.levels import PlacedTier
from amber_spread.core.cake.loads import people_in_words
from amber_spread.core.cake.stack import Stacked, StackPlan
from amber_spread.core.cake.stack_checks import checks_of_stack
from amber_spread.core.design.design import Design
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import Interned
from amber_spread.core.kernel.caching import TIERS, cached_items
from amber_spread.core.kernel.check import Check, checker, listed, measure, mm
from amber_spread.core.stock.contents import Allergy
from amber_spread.core.stock.kit import Kit, KitNeed
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import (
    PlannedTier,
    Size,
    checks_of_coats,
    checks_of_cover,
    checks_of_foot,
    checks_of_layers,
    checks_of_media,
    checks_of_thickness,
    over_edge,
)

OVER_EDGE_MM = 0.5
"""What hangs over by less than this lies on the edge: outlines are traced so nearly."""


@cached_items(TIERS)
def checks_of_tier(number: int, done: PlannedTier, kit: Interned[Kit]) -> Iterator[Check]:
    """Everything to know about tier `number`, in the order of the work; the same of one that nothing changed."""
    check, media = checker(number), {medium.key: medium for medium in done.takes}
    yield from checks_of_media(done, media, check)
    yield from checks_of_layers(done, media, check)
    yield from checks_of_foot(done, check)
    yield from checks_of_thickness(done, check)
    yield from checks_of_coats(done, media, check)
    yield from checks_of_cover(done, media, kit.value, check)


def checks_of_cake(
    cake: SettledDesign,
    stacked: Stacked,
    used: Mapping[str, Medium],
    owned: Sequence[KitNeed],
    allergens: Sequence[Allergy],
) -> list[Check]:
    """Everything to know about the cake as a whole, cautions last; `used` are the media it takes, by key."""
    stood, whole, found = stacked.stood, stacked.whole, list[Check]()
    for lower, upper in itertools.pairwise(stood):
        joint = whole.joints[f"tier_{upper.done.id}"]
        found += _standing(upper.done, lower.done, joint)
    found += checks_of_stack(cake, stacked)
    found += _board(stood, whole)
    found += _scrapers(owned)
    found += _cautions(cake.asked, whole, used, allergens)
    return found


@cached_items(TIERS)
def _standing(upper_tier: PlannedTier, lower_tier: PlannedTier, joint: JointPlan) -> Iterator[Check]:
    """Whether a tier stands well on the one below it."""
    check, upper, lower = checker(joint.tier), upper_tier.stands, lower_tier.stands
    if lower.top is None:
        yield check(
            "stack.no_flat",
            "trouble",
            "stack",
            "The tier below has no flat top: the board lies on its highest point, and the supports stand up to {out} "
            "out of it. Put that tier on top, cut a flat in it, or hide the supports with piping.",
            out=mm(most_out(joint)),
        )
        return
    over_mm = over_edge(upper.foot, lower.top, (joint.off_x, joint.off_y))
    if over_mm <= OVER_EDGE_MM:
        return
    wider = upper.foot.half_width_mm > lower.top.half_width_mm + OVER_EDGE_MM
    if wider or upper.foot.half_length_mm > lower.top.half_length_mm + OVER_EDGE_MM:
        yield check(
            "stack.overhang",
            "care",
            "order",
            "This tier is {above} wide and stands on one of {below}: it overhangs by {over}. Put the wider tier below.",
            above=mm(2 * (upper.foot.half_width_mm if wider else upper.foot.half_length_mm)),
            below=mm(2 * (lower.top.half_width_mm if wider else lower.top.half_length_mm)),
            over=mm(over_mm),
        )
    else:
        yield check(
            "stack.corners_over",
            "care",
            "order",
            "The corners of this tier hang {over} over the edge of the tier below. Take a smaller tin, or a wider tier "
            "below it.",
            over=mm(over_mm),
        )


def _board(stood: Sequence[PlacedTier], whole: StackPlan) -> Iterator[Check]:
    length_mm = whole.base_length.value if whole.base_length else whole.base_diameter.value
    board = Size(whole.base_shape, whole.base_diameter.value, length_mm).outline(stood[0].done.stands.outline)
    over_mm = max([over_edge(one.done.stands.outline, board, (one.place.x, one.place.y)) for one in stood])
    if over_mm > OVER_EDGE_MM:
        yield checker(None)(
            "stack.board_small",
            "trouble",
            "order",
            "The base board is {board} wide and the cake hangs {over} over its edge. Take a larger board.",
            board=measure(whole.base_diameter),
            over=mm(over_mm),
        )


def _scrapers(owned: Sequence[KitNeed]) -> Iterator[Check]:
    for need in owned:
        if need.tool == "scraper" and need.status != "have":
            yield checker(need.tier)(
                "kit.scraper_short",
                "care",
                "coats",
                "No scraper of yours reaches {tall}, the height of this tier: the wall would be drawn in two "
                "passes and "
                "show the join. Get a taller one.",
                tall=measure(need.size),
            )


def _cautions(
    design: Design, whole: StackPlan, used: Mapping[str, Medium], allergens: Sequence[Allergy]
) -> Iterator[Check]:
    check = checker(None)
    if whole.people.value > 1:
        yield check(
            "caution.heavy",
            "caution",
            "order",
            f"The whole cake weighs about {{weight}}. Lift it with {people_in_words(whole.people.value)} and from "
            "below the board, and keep to your local rules on lifting.",
            weight=measure(whole.weight),
        )
    named = [f"{one.allergen} ({', '.join(name.lower() for name in one.found_in)})" for one in allergens]
    filled = any(tier.layers.cavity and tier.layers.cavity.filled_with for tier in design.tiers)
    if named:
        yield check(
            "caution.allergens",
            "caution",
            "order",
            f"By the recipes in use this cake usually contains {listed(named)}. "
            + ("What is hidden in it comes on top. " if filled else "")
            + "Go by the labels of what you use, and tell the customer as your local food law asks.",
        )
    perishable = sorted(medium.name for medium in used.values() if medium.perishable)
    if perishable:
        yield check(
            "caution.fridge",
            "caution",
            "layers",
            f"{listed(perishable)} must not stand out of the fridge for long. Your local food code says how "
            "long; plan the work and the table around it.",
        )
    if any(medium.raw_egg for medium in used.values()):
        yield check(
            "caution.raw_egg",
            "caution",
            "layers",
            "A medium here is made with raw egg. Use pasteurised egg, and follow your local food code.",
        )
