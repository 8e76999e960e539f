"""The half-section: what the drawing shows, as closed outlines in mm, x from the axis and z up from the table."""

from functools import lru_cache

from amber_spread.core.cake.stack import StackPlan, TierStack
from amber_spread.core.geometry.outline import Outline, Point
from amber_spread.core.kernel.base import Made
from amber_spread.core.tier import BOARD_HEX, Drawn, Part, Silhouette, Size, slab


class Section(Made):
    """Every part of the cut half, every tier's outside, bottom first, and what is added to them: borders along edges,
    pieces on the top; and the base board as it is seen from above.
    """

    parts: list[Part]
    tiers: list[Silhouette]
    added: list[Part]
    board_from_above: list[Point]


def draw_section(tiers: list[Drawn], standing: list[TierStack], whole: StackPlan, below: Outline) -> Section:
    """The half-section of a whole cake, from the base board up; `tiers` and `standing` are bottom first, `below` is the
    outline of the lowest.
    """
    base = slab(0, whole.base_diameter.value / 2, 0, whole.base_thickness.value)
    parts = [Part(place="stack", kind="board", hex=BOARD_HEX, outline=base)]
    outsides, added = list[Silhouette](), list[Part]()
    for tier, stands in zip(tiers, standing, strict=True):
        bottom = stands.bottom.value
        if stands.board_thickness and stands.board_diameter:
            board = slab(0, stands.board_diameter.value / 2, bottom - stands.board_thickness.value, bottom)
            parts.append(Part(place=f"{tier.outside.place}.stack", kind="board", hex=BOARD_HEX, outline=board))
        stood = tier.raised(bottom)
        parts.extend(stood.parts)
        outsides.append(stood.outside)
        added.extend(stood.added)
    long = whole.base_length.value if whole.base_length else whole.base_diameter.value
    seen = _from_above(Size(whole.base_shape, whole.base_diameter.value, long), below)
    return Section(parts=parts, tiers=outsides, added=added, board_from_above=list(seen))


@lru_cache(maxsize=256)
def _from_above(board: Size, below: Outline) -> tuple[Point, ...]:
    """The edge of a base board, below a tier of that outline. Most edits leave it as it is."""
    return tuple((round(x, 2), round(y, 2)) for x, y in board.outline(below).points)
