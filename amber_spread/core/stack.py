"""Tiers stood on their boards: the running marks up the cake, its width, height and weight."""

import math

from amber_spread.core.base import Made
from amber_spread.core.design import BaseBoard
from amber_spread.core.figures import COMMON_PRACTICE, Figure, chosen, decided, rule, same, total
from amber_spread.core.practice import Practice
from amber_spread.core.worked import Footprint

OBLONG_MM = 1.0
"""A board this much longer than wide is given a length of its own."""


class TierStack(Made):
    """Where a finished tier stands: marks are measured from the table. Only upper tiers have a board of their own."""

    board_diameter: Figure | None
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
    """The whole cake on its base board."""

    base_diameter: Figure
    base_length: Figure | None
    base_thickness: Figure
    height: Figure
    weight: Figure


@rule(
    "stack.base_diameter", unit="mm", formula="widest + 2 * margin", source=COMMON_PRACTICE, rounding="up",
    words="The widest tier as finished, and a margin of board all round it.",
)  # fmt: skip
def base_diameter(widest_mm: float, margin_mm: float) -> float:
    """Least diameter of the base board, mm: widest tier + 2 x margin (at least 2 in wider: common practice)."""
    return widest_mm + 2 * margin_mm


@rule(
    "stack.mark", unit="mm", formula="below + board + tier",
    words="The mark the tier starts from, its board where it has one, and the tier itself.",
)  # fmt: skip
def mark(below_mm: float, board_mm: float, tier_mm: float) -> float:
    """Height above the table, mm: mark below + board + tier. Source: geometry."""
    return below_mm + board_mm + tier_mm


@rule(
    "stack.supports", unit="each", formula="max(3, floor(board / 25.4 + 0.5) - 1)", source=COMMON_PRACTICE,
    rounding="up",
    words="One fewer than the upper tier's width in inches, and never fewer than three. Your local practice and the "
    "weight above decide.",
)  # fmt: skip
def supports_under(board_mm: float) -> float:
    """Supports under an upper tier: its width in inches - 1, at least 3. Source: common practice."""
    return max(3, math.floor(board_mm / 25.4 + 0.5) - 1)


@rule(
    "stack.rods", unit="each", formula="ceil(supports / max(1, floor(rod / length))) * ceil(length / rod)",
    source=COMMON_PRACTICE, rounding="up",
    words="As many rods as these supports are cut from, all of one length.",
)  # fmt: skip
def rods_for(supports_count: float, length_mm: float, rod_mm: float) -> float:
    """Rods to buy: supports over how many one rod gives, up; where one is too short, so many end to end.

    Source: arithmetic; the rod's length is this kitchen's own.
    """
    return math.ceil(supports_count / max(1, math.floor(rod_mm / length_mm))) * math.ceil(length_mm / rod_mm)


def plan_stack(
    finished: list[tuple[Footprint, dict[str, float]]], board: BaseBoard, practice: Practice
) -> tuple[list[TierStack], StackPlan]:
    """Stand the finished tiers, bottom first, on the base board.

    Each tier is its footprint in mm, and the named weights in g that make it up.
    """
    base_thickness = chosen(board.thickness_mm, practice.base_board_mm, "mm")
    widest_mm = max(body.width_mm for body, _ in finished)
    if board.diameter_mm is None:
        diameter = base_diameter.figure(widest_mm, practice.base_margin_mm)
    else:
        diameter = decided(board.diameter_mm, "mm")
    longest_mm = max(body.length_mm for body, _ in finished)
    oblong = board.diameter_mm is None and longest_mm > widest_mm + OBLONG_MM
    length = base_diameter.figure(longest_mm, practice.base_margin_mm) if oblong else None
    tiers: list[TierStack] = []
    below_mm = base_thickness.value
    for body, parts in finished:
        upper = bool(tiers)
        board_mm = practice.tier_board_mm if upper else 0.0
        top = mark.figure(below_mm, board_mm, body.height_mm)
        supports = supports_under.figure(body.board_mm) if upper else None
        below_high_mm = tiers[-1].height.value if upper else 0.0
        tiers.append(
            TierStack(
                board_diameter=same("foot of the bare cake", body.board_mm, "mm") if upper else None,
                board_thickness=chosen(None, board_mm, "mm") if upper else None,
                bottom=mark.figure(below_mm, board_mm, 0.0),
                top=top,
                diameter=same("finished width", body.width_mm, "mm"),
                length=_length_of(body),
                height=same("finished height", body.height_mm, "mm"),
                weight=total(parts, "g"),
                supports=supports,
                support_length=same("height of the finished tier below", below_high_mm, "mm") if upper else None,
                rods=rods_for.figure(supports.value, below_high_mm, practice.rod_mm) if supports else None,
            )
        )
        below_mm = top.value
    return tiers, StackPlan(
        base_diameter=diameter,
        base_length=length,
        base_thickness=base_thickness,
        height=same("top of the top tier", below_mm, "mm"),
        weight=total({f"tier {number}": tier.weight.value for number, tier in enumerate(tiers, 1)}, "g"),
    )


def _length_of(body: Footprint) -> Figure | None:
    """The length of a finished tier as a figure, where it is not the same as its width."""
    if abs(body.length_mm - body.width_mm) < 0.1:
        return None
    return same("length from above", body.length_mm, "mm")
