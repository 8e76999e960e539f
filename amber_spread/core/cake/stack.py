"""Tiers stood on their boards: the running marks up the cake, its width, height and weight."""

import math
from collections.abc import Sequence

from amber_spread.core.design.settled import SettledBoard, SettledDesign
from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, chosen, decided, rule, same, total
from amber_spread.core.tier import BoardShape, Footprint, Size, Worked, rods_for, shape_of, supports_under


class TierStack(Made):
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
    rods: Figure | None


class StackPlan(Made):
    """The whole cake on its base board; the diameter of a board is its width across, whatever its shape."""

    base_shape: BoardShape
    base_diameter: Figure
    base_length: Figure | None
    base_thickness: Figure
    height: Figure
    weight: Figure


@rule(
    "stack.base_diameter", unit="mm", formula="widest + 2 * margin", source=COMMON_PRACTICE, rounding="up",
    words="The widest tier as finished that way, and a margin of board all round it.",
)  # fmt: skip
def base_diameter(widest_mm: float, margin_mm: float) -> float:
    """Least size of the base board, mm: widest tier + 2 x margin (at least 2 in wider: common practice).

    >>> base_diameter(203.2, 25.4)
    254.0
    """
    return widest_mm + 2 * margin_mm


@rule(
    "stack.mark", unit="mm", formula="below + board + tier",
    words="The mark the tier starts from, its board where it has one, and the tier itself.",
)  # fmt: skip
def mark(below_mm: float, board_mm: float, tier_mm: float) -> float:
    """Height above the table, mm: mark below + board + tier. Source: geometry.

    >>> mark(12, 0, 0)
    12
    """
    return below_mm + board_mm + tier_mm


@rule(
    "stack.with_rise", unit="mm", formula="tier + above",
    words="The tier up to its flat top, and the lip, collar, border or piece that stands above it.",
)  # fmt: skip
def with_rise(tier_mm: float, above_mm: float) -> float:
    """Height of a finished tier with what stands above its top, mm. Source: geometry.

    >>> with_rise(110, 0)
    110
    """
    return tier_mm + above_mm


@rule(
    "stack.with_border", unit="mm", formula="wide + 2 * out",
    words="The tier at its widest, and the border at its foot on both sides.",
)  # fmt: skip
def with_border(wide_mm: float, out_mm: float) -> float:
    """Width of a finished tier with the border at its foot, mm. Source: geometry.

    >>> with_border(272, 0)
    272
    """
    return wide_mm + 2 * out_mm


def plan_stack(cake: SettledDesign, worked: Sequence[Worked]) -> tuple[list[TierStack], StackPlan]:
    """Stand the finished tiers, bottom first, on the base board."""
    base_thickness, practice = cake.board.thickness, cake.usual
    tiers: list[TierStack] = []
    below_mm, reached_mm = base_thickness.value, 0.0
    for done in worked:
        body = done.stands
        upper = bool(tiers)
        board_mm = practice.tier_board_mm if upper else 0.0
        top = mark.figure(below_mm, board_mm, body.height_mm)
        supports = supports_under.figure(body.board.across_mm) if upper else None
        below_high_mm = worked[len(tiers) - 1].stands.height_mm if upper else 0.0
        tiers.append(
            TierStack(
                board_shape=body.board.shape if upper else None,
                board_diameter=same(body.board_words, body.board.across_mm, "mm") if upper else None,
                board_length=same("length of the board", body.board.length_mm, "mm")
                if upper and body.board.oblong
                else None,
                board_thickness=chosen(None, board_mm, "mm") if upper else None,
                bottom=mark.figure(below_mm, board_mm, 0.0),
                top=top,
                diameter=with_border.figure(body.width_mm, body.out_mm),
                length=with_border.figure(body.length_mm, body.out_mm) if _oblong(body) else None,
                height=with_rise.figure(body.height_mm, body.rise_mm),
                weight=total(done.weights(), "g"),
                supports=supports,
                support_length=same("height of the finished tier below", below_high_mm, "mm") if upper else None,
                rods=rods_for.figure(supports.value, below_high_mm, practice.rod_mm) if supports else None,
            )
        )
        below_mm = top.value
        reached_mm = max(reached_mm, below_mm + body.rise_mm)
    size, length = _base([done.stands for done in worked], cake.board)
    return tiers, StackPlan(
        base_shape=size.shape,
        base_diameter=decided(size.across_mm, "mm")
        if cake.board.asked.diameter_mm is not None
        else base_diameter.figure(size.across_mm - 2 * cake.board.margin_mm, cake.board.margin_mm),
        base_length=length,
        base_thickness=base_thickness,
        height=same("the highest point of the cake", reached_mm, "mm"),
        weight=total({f"tier {number}": tier.weight.value for number, tier in enumerate(tiers, 1)}, "g"),
    )


def _base(tiers: list[Footprint], settled: SettledBoard) -> tuple[Size, Figure | None]:
    """The base board: of the shape asked for, or of the lowest tier's own, round where that is sold in none.

    Every tier lies within it by the margin: a round one reaches past all corners, an oval one past the corners of the
    box it stands for where it holds what is no oval.
    """
    board, margin, own = settled.asked, settled.margin_mm, shape_of(tiers[0].outline)
    shape = board.shape or ("round" if own == "outline" else own)
    wide = max(with_border(body.width_mm, body.out_mm) for body in tiers)
    long = max(with_border(body.length_mm, body.out_mm) for body in tiers)
    reach = 2 * max(body.outline.reach_mm + body.out_mm for body in tiers)
    if shape == "round":
        wide = long = reach
    elif shape == "square":
        wide = long = max(wide, long)
    elif shape == "oval" and any(
        body.outline.reach_mm > max(body.width_mm, body.length_mm) / 2 + 0.1 for body in tiers
    ):
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


def _oblong(body: Footprint) -> bool:
    """Whether the length of a finished tier is not the same as its width."""
    return abs(body.length_mm - body.width_mm) >= 0.1
