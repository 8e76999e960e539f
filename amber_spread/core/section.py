"""The half-section: what the drawing shows, as closed outlines in mm, x from the axis and z up from the table."""

from amber_spread.core.base import Made
from amber_spread.core.drawn import BOARD_HEX, Drawn, Part, Silhouette, lifted, slab
from amber_spread.core.stack import StackPlan, TierStack


class Section(Made):
    """Every part of the cut half, every tier's outside, bottom first, and what is added to them: borders along edges,
    pieces on the top.
    """

    parts: list[Part]
    tiers: list[Silhouette]
    added: list[Part]


def draw_section(tiers: list[Drawn], standing: list[TierStack], whole: StackPlan) -> Section:
    """The half-section of a whole cake, from the base board up; `tiers` and `standing` are bottom first."""
    base = slab(0, whole.base_diameter.value / 2, 0, whole.base_thickness.value)
    parts = [Part(place="stack", kind="board", hex=BOARD_HEX, outline=base)]
    outsides, added = list[Silhouette](), list[Part]()
    for tier, stands in zip(tiers, standing, strict=True):
        bottom = stands.bottom.value
        if stands.board_thickness and stands.board_diameter:
            board = slab(0, stands.board_diameter.value / 2, bottom - stands.board_thickness.value, bottom)
            parts.append(Part(place=f"{tier.outside.place}.stack", kind="board", hex=BOARD_HEX, outline=board))
        parts.extend(lifted(part, bottom) for part in tier.parts)
        outsides.append(lifted(tier.outside, bottom))
        added.extend(lifted(part, bottom) for part in tier.added)
    return Section(parts=parts, tiers=outsides, added=added)
