"""The half-section: what the drawing shows, as closed outlines in mm, x from the axis and z up from the table."""

from collections.abc import Sequence

from amber_spread.core.cake.bearing import RISER_SHARE
from amber_spread.core.cake.joints import JointPlan
from amber_spread.core.cake.levels import Place, PlacedTier
from amber_spread.core.cake.stack import StackPlan, TierStack
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.tier import Part, Silhouette, Size, slab


class Section(PlanPart):
    """Every part of the cut half, every tier's outside, bottom first, and what is added to them: borders along edges,
    pieces on the top, pillars and risers; and the base board as it is seen from above.
    """

    parts: list[Part]
    tiers: list[Silhouette]
    added: list[Part]
    board_from_above: list[Point]


def draw_section(stood: Sequence[PlacedTier], standing: Sequence[TierStack], whole: StackPlan) -> Section:
    """The half-section of a whole cake, from the base board up; `stood` and `standing` are bottom first."""
    base = slab(0, whole.base_diameter.value / 2, 0, whole.base_thickness.value)
    parts = [Part(place="stack", kind="board", paint="board", outline=base)]
    outsides, added = list[Silhouette](), list[Part]()
    for one, stands in zip(stood, standing, strict=True):
        tier, bottom, off = one.done.drawn, stands.bottom.value, one.place.off
        if stands.board_thickness and stands.board_diameter:
            board = slab(0, stands.board_diameter.value / 2, bottom - stands.board_thickness.value, bottom)
            parts.append(Part(place=f"{tier.outside.place}.stack", kind="board", paint="board", outline=board, off=off))
        raised = tier.raised(bottom, off)
        parts.extend(raised.parts)
        outsides.append(raised.outside)
        added.extend(raised.added)
    long = whole.base_length.value if whole.base_length else whole.base_diameter.value
    seen = _from_above(Size(whole.base_shape, whole.base_diameter.value, long), stood[0].done.stands.outline)
    for joint in whole.joints.values():
        place = stood[joint.tier - 1].place
        added.extend(_apart(joint, standing[joint.tier - 1], place))
    return Section(parts=parts, tiers=outsides, added=added, board_from_above=list(seen))


def _apart(joint: JointPlan, stands: TierStack, place: Place) -> list[Part]:
    """What is seen between two tiers that stand apart: the pillars, or the riser on its card."""
    if joint.kind == "stacked" or stands.board_diameter is None or stands.board_thickness is None:
        return []
    low, high = joint.level.value, stands.bottom.value - stands.board_thickness.value
    off, path = place.off, joint.path
    if joint.kind == "pillars":
        half = joint.across.value / 2
        spots = [abs(one.x) for one in joint.supports.values()]
        return [
            Part(
                place=path,
                kind="support",
                paint="support",
                off=off,
                outline=slab(max(0.0, x - half), x + half, low, high),
            )
            for x in dict.fromkeys(round(spot, 1) for spot in spots)
        ]
    wide, card = stands.board_diameter.value / 2, stands.board_thickness.value
    return [
        Part(place=path, kind="board", paint="board", outline=slab(0, wide, low, low + card), off=off),
        Part(
            place=path, kind="support", paint="support", outline=slab(0, RISER_SHARE * wide, low + card, high), off=off
        ),
    ]


@cached(TIERS)
def _from_above(board: Size, below: Outline) -> tuple[Point, ...]:
    """The edge of a base board, below a tier of that outline. Most edits leave it as it is."""
    return tuple([(round(x, 2), round(y, 2)) for x, y in board.outline(below).points])
