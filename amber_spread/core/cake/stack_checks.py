"""What to know about how a cake stands: supports that do not fit or bear, tiers that tip, dowels that miss."""

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise

from amber_spread.core.cake.bearing import RIM_MM
from amber_spread.core.cake.dowel import DowelPlan
from amber_spread.core.cake.glue import coats_after
from amber_spread.core.cake.joints import BETWEEN_MM, JointPlan
from amber_spread.core.cake.levels import PlacedTier
from amber_spread.core.cake.stack import Stacked, StackPlan
from amber_spread.core.design.finishes import NoCoat
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.geometry.flat.outline import Round
from amber_spread.core.geometry.flat.places import Within, keeps_in
from amber_spread.core.kernel.caching import TIERS, cached_items
from amber_spread.core.kernel.check import Check, Checker, RoundedQuantity, checker, listed, measure, mm, times
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.tier import over_edge, pressure

LEANS_MM = 10.0
"""A top that may stand off the middle by more is seen to (from memory)."""
NUDGED = 0.3
"""A tier that a push of less than this share of its weight tips is not steady on any table (from memory)."""
MANY = 12
"""More supports than this under one tier leave no cake to cut (common practice)."""
CRUSHED = 1.5
"""A tier is too tall for itself from so many times what cake bears: that is from memory, and tiers of 6 in stand
without a board in them (common practice).
"""
ALIKE = 1.02
"""A tier so much wider than its foot narrows downward (from memory)."""
ON_A_RIM_MM = 1.0
"""A tier that reaches over a rim by less does not touch it (from memory)."""
CUSHION_MM = 4.0
"""Soft coat that is lower gives way as a tier is set down (common practice: the gap between tiers is piped)."""
IN_THE_WAY = {
    "board": "it would stand outside the board above",
    "top": "it would break out of the side of the tier below",
    "foot": "it would break out of the foot of the tier below, which is narrower",
    "inside": "it would miss the board inside the tier below",
    "dowel": "the centre dowel is there",
    "cavity": "the hidden cavity is there",
    "support": "it would touch another support",
}
"""What is in the way of a support, in words."""


def checks_of_stack(cake: SettledDesign, stacked: Stacked) -> list[Check]:
    """Everything to know about how the tiers stand, bottom first, then the dowel, the drive, and what is left in."""
    whole, found = stacked.whole, list[Check]()
    for joint in whole.joints.values():
        found += _supports(joint, cake.usual.support_factor)
    for one in stacked.stood:
        found += _crushed(one)
    for lower, upper in pairwise(stacked.stood):
        found += _on_a_rim(lower, upper)
    last, after = len(cake.tiers), cake.asked.stacking.coated == "after"
    for one in stacked.stood:
        found += _boards(one, after and one.number < last and not coats_after(one.done.tier, cake))
    if whole.dowel is not None:
        found += _dowel(cake, stacked.stood, whole, whole.dowel)
    found += _driven(cake, whole)
    found += _cautions(whole)
    return found


@cached_items(TIERS)
def _supports(joint: JointPlan, factor: float) -> Iterator[Check]:
    """What to know about the supports of a joint, which should bear their load `factor` times."""
    check = checker(joint.tier)
    where = "the board inside this tier" if joint.inside else "this tier"
    if not joint.supports:
        yield check(
            "stack.no_room",
            "trouble",
            "stack",
            f"There is no room for a {joint.one} under {where}: dowel, hidden cavity and edges leave none. Take "
            "thinner supports, a larger tier, or leave the dowel or the cavity out.",
        )
        return
    touching = joint.across.value + BETWEEN_MM
    if joint.apart.value < touching - 0.1 and joint.why != "free":
        yield check(
            "stack.crowded",
            "trouble",
            "stack",
            f"There is no room for {joint.count.value:.0f} {joint.many} under {where}: they would stand {{apart}} from "
            "middle to middle and are {across} thick. Take fewer, or thinner ones.",
            apart=measure(joint.apart),
            across=measure(joint.across),
        )
    for name, one in joint.supports.items():
        if one.refused is not None:
            yield check(
                "stack.refused",
                "trouble",
                "stack",
                f"{name.replace('_', ' ').capitalize()} cannot stand there: {IN_THE_WAY[one.refused]}. "
                + (
                    "There is no room for it anywhere."
                    if one.nearest is None
                    else "Move it to the nearest place that will do."
                ),
            )
    if not joint.holds:
        yield check(
            "stack.falls",
            "trouble",
            "stack",
            f"The weight above lies outside the supports of {where}: it would tip off them. Spread the supports, or "
            "set the tier nearer the middle.",
        )
    elif joint.spare is not None and joint.spare.value < factor - 1e-9:
        yield check(
            "stack.weak",
            "trouble" if joint.spare.value < 1 else "care",
            "stack",
            f"The most loaded {joint.one} under {where} bears {{spare}} its load; this kitchen asks for {{factor}}. "
            "Take more of them, or a stronger sort.",
            spare=measure(joint.spare),
            factor=times(factor),
        )
    if joint.stronger is not None:
        yield check(
            "stack.stronger",
            "trouble" if joint.count.value > MANY else "care",
            "stack",
            f"Under {where}, {{load}} asks for {joint.count.value:.0f} {joint.many}. "
            f"{joint.stronger.count:.0f} {joint.stronger.many} bear it: take those.",
            load=measure(joint.load),
        )
    if joint.length.value > joint.stock.value + 0.5:
        yield check(
            "stack.too_long",
            "trouble",
            "stack",
            f"A {joint.one} of yours is {{stock}} long, and these have to be {{length}}. Get longer ones, or put a "
            "board on supports inside the tier below.",
            stock=measure(joint.stock),
            length=measure(joint.length),
        )
    elif joint.length.value < joint.across.value:
        yield check(
            "stack.too_short",
            "care",
            "stack",
            f"The tier below is only {{length}} high: {joint.many} of {{across}} do not stand in it. Set this tier "
            "on a card straight on the cake, or make the tier below higher.",
            length=measure(joint.length),
            across=measure(joint.across),
        )
    if not joint.inside and joint.push.value < NUDGED and joint.holds:
        yield check(
            "stack.unsteady",
            "care",
            "stack",
            "All that stands from this tier up is high for its foot: a push of {push} its weight tips it over. Make "
            "it lower or wider, or build it on the table it stays on.",
            push=measure(joint.push),
        )


@cached_items(TIERS)
def _crushed(one: PlacedTier) -> Iterator[Check]:
    """A tier too tall to bear itself: its weight on its lowest layer, and on the lowest above a hidden board."""
    done, check = one.done, checker(one.number)
    bears, body = done.tier.usual.cake_bears_g_per_cm2, done.bodies.bare
    foot_mm2 = done.stands.board_edge.area_mm2
    light = pressure(one.tier_g, foot_mm2) <= CRUSHED * bears
    if light and body.outline.area_mm2 <= foot_mm2 * ALIKE or done.tipped is not None or done.carving is not None:
        return
    board = next((slab for slab in done.slabs if slab.kind == "board"), None)
    lowest = [(done.slabs[0].high, board.low if board else None)]
    lowest += [(slab.high, None) for slab in done.slabs if board and slab.low == board.high]
    for up_mm, borne_at_mm in lowest:
        if up_mm >= body.height_mm - 1e-6:
            continue
        lies_g = done.load_above(up_mm).weight_g
        if borne_at_mm is not None:
            lies_g -= done.load_above(borne_at_mm).weight_g
        pressed = pressure(lies_g, body.section(up_mm).area_mm2)
        if pressed > CRUSHED * bears:
            yield check(
                "stack.crushed",
                "trouble" if pressed > 2 * bears else "care",
                "stack",
                "Its lowest layer carries {pressed} of the tier's own weight, and this kitchen takes cake to bear "
                "{bears}: fillings squeeze out, and it bulges or sinks. Put a board on supports inside it every 4 to "
                "6 in, or make it lower.",
                pressed=RoundedQuantity(pressed, "g_per_cm2", "up"),
                bears=RoundedQuantity(bears, "g_per_cm2"),
            )
            return


@cached_items(TIERS)
def _on_a_rim(lower: PlacedTier, upper: PlacedTier) -> Iterator[Check]:
    """A rim, a border or a piece on the top edge, where the next tier is set down on it."""
    top = lower.done.stands.top
    stand = upper.done.tier.asked.stand
    if top is None or not lower.done.stands.rise_mm or not stand.flush:
        return
    foot = upper.done.stands.outline
    off = upper.place.x - lower.place.x, upper.place.y - lower.place.y
    for what, width_mm, high_mm in lower.done.on_the_edge():
        try:
            clear = top.offset(-width_mm)
        except ValueError:
            clear = Round(1e-6)
        over_mm = over_edge(foot, clear, off)
        if over_mm > ON_A_RIM_MM:
            yield checker(lower.number)(
                "stack.on_a_rim",
                "trouble" if high_mm > CUSHION_MM else "care",
                "stack",
                f"Tier {upper.number} is set down on {what}, {{high}} high: it is crushed by {{over}} in from its "
                "outer side, and the tier stands up on it. Leave it off there, pipe it once the tiers stand, or set a "
                "narrower tier on it.",
                high=mm(high_mm, "up"),
                over=mm(over_mm, "up"),
            )


@cached_items(TIERS)
def _boards(one: PlacedTier, coated_before: bool) -> Iterator[Check]:
    """The board below a tier, and its coat where it should come after stacking and cannot: it is `coated_before`."""
    done, check, thick = one.done, checker(one.number), one.done.tier.usual.tier_board_mm
    if one.number > 1 and thick >= done.stands.height_mm:
        yield check(
            "stack.board_thick",
            "care",
            "stack",
            "Its board is {board} thick, as high as the tier itself, {tier}. Take a card.",
            board=mm(thick),
            tier=mm(done.stands.height_mm),
        )
    if coated_before and not isinstance(done.tier.asked.final, NoCoat):
        yield check(
            "stack.coat_before",
            "care",
            "stack",
            "This tier cannot have its final coat after stacking: it is covered, or scraped against a disc or card. "
            "It is planned with the coat before.",
        )


def _dowel(cake: SettledDesign, stood: Sequence[PlacedTier], whole: StackPlan, dowel: DowelPlan) -> Iterator[Check]:
    check = checker(None)
    if dowel.length.value < dowel.least.value - 0.5:
        yield check(
            "stack.dowel_short",
            "trouble",
            "stack",
            "A dowel of {length} does not hold the top tier: from the base board to the middle of it are {least}.",
            length=measure(dowel.length),
            least=measure(dowel.least),
        )
    elif dowel.length.value > dowel.most.value + 0.5:
        yield check(
            "stack.dowel_long",
            "trouble",
            "stack",
            "A dowel of {length} comes through the top: cut it to {most}.",
            length=measure(dowel.length),
            most=measure(dowel.most),
        )
    if dowel.across.value < dowel.least_across.value - 0.05:
        yield check(
            "stack.dowel_thin",
            "care",
            "stack",
            "In a hard stop the dowel has to hold the stack up, and {across} is thin for that: take {least} or more, "
            "or drive the tiers apart and stack them there.",
            across=measure(dowel.across),
            least=measure(dowel.least_across),
        )
    if whole.base_thickness.value < cake.usual.dowel_into_base_mm - 0.1:
        yield check(
            "stack.dowel_base",
            "care",
            "stack",
            "The base board is {base} thick: a dowel is not held by it. Take a thicker board, or glue a block on it.",
            base=measure(whole.base_thickness),
        )
    for one in stood:
        yield from _dowel_at(one, dowel.across.value, dowel.hole.value)


@cached_items(TIERS)
def _dowel_at(one: PlacedTier, across_mm: float, hole_mm: float) -> Iterator[Check]:
    """Whether the centre dowel, so thick, and its hole go through a tier where they may."""
    number, done, middle = one.number, one.done, (-one.place.x, -one.place.y)
    stand, check, board = done.tier.asked.stand, checker(number), Within("board", done.stands.board_edge)
    if number > 1 and not keeps_in(board, hole_mm / 2 + RIM_MM, [middle]):
        yield check(
            "stack.dowel_misses",
            "trouble",
            "stack",
            "The centre dowel misses the board of this tier, which stands off the middle. Leave the dowel out and "
            "fix it otherwise, or set the tier nearer the middle.",
        )
    if stand.through and number > 1:
        yield check(
            "stack.dowel_bare",
            "care",
            "stack",
            "The centre dowel would be seen between the pillars. Leave it out, or hide it.",
        )
    cavity = done.layers.cavity
    if cavity is not None and math.hypot(*middle) < cavity.diameter.value / 2 + across_mm / 2:
        yield check(
            "stack.dowel_cavity",
            "care",
            "stack",
            "The centre dowel goes through the hidden cavity. Leave it out, close the cavity, or fill it once the "
            "dowel is in.",
        )


def _driven(cake: SettledDesign, whole: StackPlan) -> Iterator[Check]:
    check, usual = checker(None), cake.usual
    worst = max(usual.brake_share, usual.turn_share)
    if whole.weakest is not None and cake.asked.stacking.driven and whole.dowel is None:
        if whole.weakest.value < worst:
            yield _hard_stop(
                check,
                "stack.brake",
                worst,
                whole.weakest,
                "tips the stack. Drive the tiers apart, put a dowel through them, or stack fewer.",
            )
        elif all(joint.kind == "stacked" for joint in whole.joints.values()):
            yield check(
                "stack.slides",
                "care",
                "stack",
                "No dowel holds the tiers, and in a hard stop they may slide on each other. Put one through, or drive "
                "them apart.",
            )
    if cake.asked.stacking.driven:
        yield from _tipped_whole(whole, worst, check)
    if cake.asked.stacking.driven and any(joint.kind != "stacked" for joint in whole.joints.values()):
        yield check(
            "stack.apart_driven",
            "care",
            "stack",
            "Tiers on pillars or a riser are not driven stacked. Take them apart and set them up there.",
        )
    if whole.lean.value > LEANS_MM:
        yield check(
            "stack.lean",
            "care",
            "stack",
            "Were every support off by {error} the same way, the top would stand {lean} off the middle. Cut all of one "
            "tier to the first, and level each tier before the next.",
            error=mm(usual.cut_error_mm),
            lean=measure(whole.lean),
        )


def _tipped_whole(whole: StackPlan, worst: float, check: Checker) -> Iterator[Check]:
    """Whether a hard stop tips the whole cake over the edge of its board, or off it at the foot of the lowest tier."""
    if whole.push.value < worst:
        wide_mm = whole.base_diameter.value + 2 * (worst - whole.push.value) * whole.middle_up.value
        yield _hard_stop(
            check,
            "stack.whole_tips",
            worst,
            whole.push,
            "tips the whole cake over the edge of its base board. Take a base board of {wide} or more, drive the tiers "
            "apart, or brace it in a box that fits.",
            wide=mm(wide_mm, "up"),
        )
    if whole.foot_push.value < worst and whole.dowel is None:
        yield _hard_stop(
            check,
            "stack.foot_tips",
            worst,
            whole.foot_push,
            "tips the cake off its base board over the foot of its lowest tier. Drive a dowel through it into the "
            "board, drive the tiers apart, or brace it in a box that fits.",
        )


def _hard_stop(check: Checker, code: str, worst: float, held: Figure, what: str, **more: RoundedQuantity) -> Check:
    """A push that a hard stop or a sharp turn outdoes, and what it does."""
    text = f"A hard stop pushes with {{brake}} its weight, and {{held}} {what}"
    return check(code, "trouble", "stack", text, brake=times(worst), held=measure(held), **more)


def _cautions(whole: StackPlan) -> Iterator[Check]:
    if not whole.left_in:
        return
    check, kinds = checker(None), {joint.kind for joint in whole.joints.values()}
    many = sorted({joint.many for joint in whole.joints.values()})
    yield check(
        "caution.left_in",
        "caution",
        "stack",
        f"Of this cake {whole.left_in['in_all'].value:.0f} things are not eaten: {listed(many)}, boards"
        + (" and the dowel" if whole.dowel is not None else "")
        + ". Count them in, hand the count to whoever cuts the cake, and count them out.",
    )
    yield check(
        "caution.food_wood",
        "caution",
        "stack",
        "Use supports sold for food: other wood and plastic may splinter, bleed or be treated. Skewers, sticks, "
        "picks and wires that go in with figures and toppers count too: count them in, count them out, and tell "
        "whoever serves it. Your local food code decides.",
    )
    if whole.dowel is not None:
        yield check(
            "caution.sharp_dowel",
            "caution",
            "stack",
            "Sharpen a dowel away from your hand, and drive it with another on top of it, never with the flat hand.",
        )
    if "pillars" in kinds:
        yield check(
            "caution.pillars",
            "caution",
            "stack",
            "Pillars of glass or thin plastic break when a tier is set down askew. Set it down with two people, and "
            "keep everybody clear.",
        )
