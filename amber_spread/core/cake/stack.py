"""Tiers stood on their boards: the running marks up the cake, its width, height and weight, and what holds it."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from amber_spread.core.cake.bearing import all_above, feet_of
from amber_spread.core.cake.cutting import CuttingList, cutting_list
from amber_spread.core.cake.dowel import DowelPlan, plan_dowel, takes_dowel
from amber_spread.core.cake.glue import Held
from amber_spread.core.cake.joints import JointPlan, plan_joints
from amber_spread.core.cake.levels import Mass, PlacedTier, board_weight, stood_of, together
from amber_spread.core.cake.loads import people, push_held, tip_angle
from amber_spread.core.cake.portions import portions_of
from amber_spread.core.cake.task_kinds import STACK_TASKS
from amber_spread.core.cake.tasks import CENTRE, serving_tasks, stacking_tasks
from amber_spread.core.design.settled import SettledBoard, SettledDesign
from amber_spread.core.geometry.flat.places import edge_distance
from amber_spread.core.kernel.base import FrozenDict, PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    FROM_MEMORY,
    Figure,
    carry_over,
    decided,
    decided_or_default,
    of_parts,
    parts_rule,
    rule,
    total,
)
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Task, hands_on
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.media import Medium
from amber_spread.core.stock.supports import SORTS, SupportSort
from amber_spread.core.tier import BoardShape, Footprint, PlannedTier, Size, shape_of

_LEAN = parts_rule(
    "stack.lean",
    "Each joint out of level by one support that differs, each measured tier by its own heights, all the same way: "
    "every one moves all above it sideways. Added up, how far the top may stand off the middle.",
    "sum",
    "geometry",
)


class TierStack(PlanPart):
    """Where a finished tier stands: marks are measured from the table. Only upper tiers have a board of their own.

    `top` is where the next tier stands; a lip, a collar or a border that stands above it is in `height` alone.
    """

    board_shape: BoardShape | None
    board_diameter: Figure | None
    board_length: Figure | None
    board_thickness: Figure | None
    bottom: Figure
    top: Figure
    diameter: Figure
    length: Figure | None
    height: Figure
    weight: Figure
    supports: Figure | None
    support_length: Figure | None
    glue: Figure
    portions: Figure
    larger_portions: dict[str, Figure]


class StackPlan(PlanPart):
    """The whole cake on its base board; the diameter of a board is its width across, whatever its shape.

    `push` is the hardest push to the side that does not tip the whole over the edge of its board, `foot_push` the same
    of the stack over the foot of its lowest tier.
    """

    base_shape: BoardShape
    base_diameter: Figure
    base_length: Figure | None
    base_thickness: Figure
    height: Figure
    weight: Figure
    people: Figure
    middle_up: Figure
    tips: Figure
    push: Figure
    foot_push: Figure
    brake: Figure
    turn: Figure
    weakest: Figure | None
    lean: Figure
    joints: dict[str, JointPlan]
    dowel: DowelPlan | None
    cutting: dict[str, CuttingList]
    portions: Figure
    left_in: dict[str, Figure]
    tasks: list[Task]
    hands_on: Figure
    serving: list[Task]


class Stacked(NamedTuple):
    """The tiers as they stand on each other, where each of them does, and the whole."""

    stood: list[PlacedTier]
    tiers: list[TierStack]
    whole: StackPlan


@rule(
    "stack.base_diameter",
    unit="mm",
    formula="widest + 2 * margin",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The widest tier as finished that way, and a margin of board all round it.",
)
def base_diameter(widest_mm: float, margin_mm: float) -> float:
    """Least size of the base board, mm: widest tier + 2 x margin (at least 2 in wider: common practice).

    >>> base_diameter(203.2, 25.4)
    254.0
    """
    return widest_mm + 2 * margin_mm


@rule(
    "stack.mark",
    unit="mm",
    formula="below + board + tier",
    words="The mark the tier starts from, its board where it has one, and the tier itself.",
)
def mark(below_mm: float, board_mm: float, tier_mm: float) -> float:
    """Height above the table, mm: mark below + board + tier. Source: geometry.

    >>> mark(12, 0, 0)
    12
    """
    return below_mm + board_mm + tier_mm


@rule(
    "stack.with_rise",
    unit="mm",
    formula="tier + above",
    words="The tier up to its flat top, and the lip, collar, border or piece that stands above it.",
)
def with_rise(tier_mm: float, above_mm: float) -> float:
    """Height of a finished tier with what stands above its top, mm. Source: geometry.

    >>> with_rise(110, 0)
    110
    """
    return tier_mm + above_mm


@rule(
    "stack.with_border",
    unit="mm",
    formula="wide + 2 * out",
    words="The tier at its widest, and the border at its foot on both sides.",
)
def with_border(wide_mm: float, out_mm: float) -> float:
    """Width of a finished tier with the border at its foot, mm. Source: geometry.

    >>> with_border(272, 0)
    272
    """
    return wide_mm + 2 * out_mm


@rule(
    "stack.slides",
    unit="g",
    formula="load * share",
    source=FROM_MEMORY,
    rounding="up",
    words="How hard it is pushed to the side, as a share of the weight of all above the base board.",
)
def pushed(load_g: float, share: float) -> float:
    """Push to the side, as a weight in g: load x share of its weight. The share is from memory.

    >>> pushed(6000, 0.5)
    3000.0
    """
    return load_g * share


def plan_stack(cake: SettledDesign, worked: Sequence[PlannedTier], media: Mapping[str, Medium], kit: Kit) -> Stacked:
    """Stand the finished tiers, bottom first, on the base board; `kit` is what the kitchen owns."""
    usual, base_thickness = cake.usual, cake.board.thickness
    stood = stood_of(cake, worked, media)
    size, length = _base(stood, cake.board)
    edge = size.outline(worked[0].stands.outline)
    base_g = board_weight(edge, base_thickness.value, usual)
    above = all_above(stood)
    on_board, feet = above[0].whole, feet_of(stood, above, edge, base_thickness.value)
    dowel = named(plan_dowel(cake, feet, stood[-1]), CENTRE) if takes_dowel(cake) else None
    joints = plan_joints(cake, stood, above, kit.supports, None if dowel is None else dowel.across.value)
    upper = [joint for joint in joints.values() if not joint.inside]
    tiers = [
        _tier_stack(
            one.done,
            joint,
            one.held,
            one.place.level_mm,
            one.less_g,
        )
        for one, joint in zip(stood, [None, *upper], strict=True)
    ]
    whole = together([Mass(base_g, 0.0, 0.0, base_thickness.value / 2), on_board])
    parts = {f"tier {number}": tier.weight.value for number, tier in enumerate(tiers, 1)}
    parts["boards"] = base_g + sum([one.boards_g for one in stood])
    parts["glue and joints"] = sum([one.held.weight_g for one in stood])
    weakest = min(upper, key=lambda joint: joint.push.value, default=None)
    inside_mm = edge_distance(edge, (whole.x, whole.y))
    lean = dict(_lean(joints, stood))
    board, tasks = cake.board, stacking_tasks(cake, stood, joints, dowel)
    return Stacked(
        stood,
        tiers,
        StackPlan(
            base_shape=size.shape,
            base_diameter=decided(size.across_mm, "mm")
            if board.asked.diameter_mm is not None
            else base_diameter.figure(size.across_mm - 2 * board.margin_mm, board.margin_mm),
            base_length=length,
            base_thickness=base_thickness,
            height=carry_over(
                "the highest point of the cake",
                max([one.place.top_mm + one.done.stands.rise_mm for one in stood]),
                "mm",
            ),
            weight=total(parts, "g"),
            people=people.figure(sum(parts.values())),
            middle_up=carry_over("height of the middle of the weight", whole.up, "mm"),
            tips=tip_angle.figure(inside_mm, whole.up),
            push=push_held.figure(max(0.0, inside_mm), whole.up),
            foot_push=push_held.figure(max(0.0, feet[0].inward_mm), feet[0].up_mm),
            brake=pushed.figure(on_board.weight_g, usual.brake_share),
            turn=pushed.figure(on_board.weight_g, usual.turn_share),
            weakest=None
            if weakest is None
            else carry_over("the joint that tips first", weakest.push.value, "ratio", "down"),
            lean=of_parts(_LEAN, sum(lean.values()), lean, "mm", "up"),
            joints=joints,
            dowel=dowel,
            cutting=_cutting(joints),
            portions=total({f"tier {number}": tier.portions.value for number, tier in enumerate(tiers, 1)}, "each"),
            left_in=_left_in(joints, dowel),
            tasks=tasks,
            hands_on=hands_on(tasks, STACK_TASKS),
            serving=list(serving_tasks(joints, dowel)),
        ),
    )


@cached(TIERS)
def _tier_stack(done: PlannedTier, joint: JointPlan | None, held: Held, level_mm: float, less_g: float) -> TierStack:
    """How a tier stands on a level, above a joint or on the base board; the same of one that nothing moved.

    `less_g` is what of its coat is left off below the tier above.
    """
    left_off = {"coat left off below the next": -less_g} if less_g else {}
    body, usual = done.stands, done.tier.usual
    board_mm = usual.tier_board_mm if joint else 0.0
    # A riser or pillars lift a tier above the one below.
    below = level_mm + (joint.gap.value if joint else 0.0)
    served, larger = portions_of(done)
    found = TierStack(
        board_shape=body.board.shape if joint else None,
        board_diameter=carry_over(body.board_words, body.board.across_mm, "mm") if joint else None,
        board_length=carry_over("length of the board", body.board.length_mm, "mm")
        if joint and body.board.oblong
        else None,
        board_thickness=decided_or_default(None, board_mm, "mm") if joint else None,
        bottom=mark.figure(below, board_mm, 0.0),
        top=mark.figure(below, board_mm, body.height_mm),
        diameter=with_border.figure(body.width_mm, body.out_mm),
        length=with_border.figure(body.length_mm, body.out_mm) if _oblong(body) else None,
        height=with_rise.figure(body.height_mm, body.rise_mm),
        weight=total(dict(done.weights) | left_off, "g"),
        supports=joint.count if joint else None,
        support_length=joint.length if joint else None,
        glue=held.glue,
        portions=served,
        larger_portions=larger,
    )
    return named(found, f"{done.path}.stack")


def _lean(joints: Mapping[str, JointPlan], stood: Sequence[PlacedTier]) -> Iterator[tuple[str, float]]:
    """How far the top moves sideways by each joint that is out of level and each tier that was measured so."""
    top = stood[-1].place.top_mm
    for joint in joints.values():
        yield joint.where, math.tan(math.radians(joint.tilt.value)) * (top - joint.level.value)
    for one in stood:
        measured = one.done.tier.asked.measured
        if measured is not None:
            out = max(measured.heights_mm) - min(measured.heights_mm)
            yield f"tier {one.number}, as measured", out / one.done.stands.width_mm * (top - one.place.foot_mm)


def _cutting(joints: Mapping[str, JointPlan]) -> dict[str, CuttingList]:
    """What is cut from what, a list for each sort and length of stock."""
    by_sort: dict[tuple[SupportSort, float], list[JointPlan]] = {}
    for joint in joints.values():
        by_sort.setdefault((joint.sort, joint.stock.value), []).append(joint)
    lists: dict[str, CuttingList] = {
        sort: cutting_list(
            sort,
            found[0].many,
            [joint.length.value for joint in found for _ in joint.supports],
            stock,
            SORTS[sort].kerf_mm,
        )
        for (sort, stock), found in by_sort.items()
        if any(joint.supports for joint in found)
    }
    return FrozenDict(lists)


def _left_in(joints: Mapping[str, JointPlan], dowel: DowelPlan | None) -> dict[str, Figure]:
    """What is not eaten and has to come out again, each counted."""
    found = {f"supports {joint.where}": len(joint.supports) for joint in joints.values()}
    found |= {f"board {joint.where}": 1 for joint in joints.values()}
    found |= {f"riser {joint.where}": 2 for joint in joints.values() if joint.kind == "riser"}
    if dowel is not None:
        found["centre dowel"] = 1
    counts = {name: carry_over("to take out", count, "each") for name, count in found.items()}
    return {name.replace(" ", "_"): count for name, count in counts.items()} | (
        {"in_all": total(found, "each")} if found else {}
    )


def _base(stood: Sequence[PlacedTier], settled: SettledBoard) -> tuple[Size, Figure | None]:
    """The base board: of the shape asked for, or of the lowest tier's own, round where that is sold in none.

    Every tier lies within it by the margin: a round one reaches past all corners, an oval one past the corners of the
    box it stands for where it holds what is no oval.
    """
    board, margin, own = settled.asked, settled.margin_mm, shape_of(stood[0].done.stands.outline)
    shape = board.shape or ("round" if own == "outline" else own)
    wide, long, across = (2 * max(reaches) for reaches in zip(*[one.reach for one in stood], strict=True))
    if shape == "round":
        wide = long = across
    elif shape == "square":
        wide = long = max(wide, long)
    elif shape == "oval" and any(_cornered(one.done.stands) for one in stood):
        wide, long = math.sqrt(2) * wide, math.sqrt(2) * long
    size = Size(shape, wide + 2 * margin, long + 2 * margin)
    if board.diameter_mm is not None:
        length_mm = board.length_mm
        if length_mm is None:
            length_mm = board.diameter_mm + (long - wide if shape in ("rectangle", "oval", "outline") else 0.0)
        size = Size(shape, board.diameter_mm, length_mm)
    if not size.oblong or shape in ("round", "square"):
        return size, None
    if board.diameter_mm is not None:
        return size, decided(size.length_mm, "mm")
    return size, base_diameter.figure(size.length_mm - 2 * margin, margin)


def _cornered(body: Footprint) -> bool:
    """Whether a finished tier reaches past an oval as wide and as long."""
    return body.outline.reach_mm > max(body.width_mm, body.length_mm) / 2 + 0.1


def _oblong(body: Footprint) -> bool:
    """Whether the length of a finished tier is not the same as its width."""
    return abs(body.length_mm - body.width_mm) >= 0.1
