"""What is added to a finished tier: piped borders along its edges, and a flat piece laid on its top."""

import math
from collections.abc import Callable

from amber_spread.core.base import Made
from amber_spread.core.body import MM3_PER_ML, Body
from amber_spread.core.cover_rules import rolled_weight, trimmed_weight
from amber_spread.core.design import Tier
from amber_spread.core.figures import Figure, chosen, rule, same
from amber_spread.core.flat import Piece, area_of, corners_of, size_of
from amber_spread.core.media import Medium, weight
from amber_spread.core.practice import Practice


class BorderPlan(Made):
    """A piped border: how long, the section of its bead, and what it takes."""

    length: Figure
    bead: Figure
    volume: Figure
    weight: Figure


class OnTopPlan(Made):
    """A piece laid on the top: its outline, what is rolled for it, what stays, and what is trimmed."""

    piece: Piece
    rolled_weight: Figure
    stays_weight: Figure
    trimmed_weight: Figure


@rule(
    "extras.border", unit="ml", formula="length * pi / 4 * bead**2 * share / 1000",
    words="The length of the edge, times the section of the bead: a round, or half of one.",
)  # fmt: skip
def border_volume(length_mm: float, bead_mm: float, share: float) -> float:
    """Volume of a piped border, ml: length x pi/4 bead² x share / 1000; share 1 for a round bead, 1/2 for a half.

    Source: geometry.
    """
    return length_mm * math.pi / 4 * bead_mm**2 * share / MM3_PER_ML


def plan_borders(tier: Tier, practice: Practice, media: dict[str, Medium], finished: Body) -> list[BorderPlan]:
    """Each border along the foot or the top edge of the finished tier."""
    plans = []
    foot = finished.section(finished.foot_mm + 1e-6 * finished.height_mm)
    for border in tier.borders:
        edge = foot if border.at == "foot" or finished.flat_top is None else finished.flat_top
        length = same("length of the edge", edge.perimeter_mm, "mm")
        bead = chosen(border.bead_mm, practice.bead_mm, "mm")
        volume = border_volume.figure(length.value, bead.value, 1.0 if border.bead == "round" else 0.5)
        heavy = weight.figure(volume.value, media[border.medium].density_g_per_ml)
        plans.append(BorderPlan(length=length, bead=bead, volume=volume, weight=heavy))
    return plans


def plan_on_top(
    tier: Tier, practice: Practice, media: dict[str, Medium], hex_of: Callable[[str, str | None], str]
) -> OnTopPlan | None:
    """The piece on top, None where there is none."""
    top = tier.on_top
    if top is None:
        return None
    corners = corners_of(top.shape.outline(top.across_mm))
    wide, high = size_of(corners)
    thickness = chosen(top.thickness_mm, practice.fondant_mm, "mm")
    density = media[top.medium].density_g_per_ml
    rolled = rolled_weight.figure(wide * high, thickness.value, density)
    stays = rolled_weight.figure(area_of(corners), thickness.value, density)
    sizes = {
        "width": same("width of the outline", wide, "mm"),
        "length": same("length of the outline", high, "mm"),
        "thickness": thickness,
    }
    piece = Piece(
        name="On top", count=same("copies", 1, "each"), sizes=sizes, hex=hex_of(top.medium, top.colour), corners=corners
    )
    return OnTopPlan(
        piece=piece,
        rolled_weight=rolled,
        stays_weight=stays,
        trimmed_weight=trimmed_weight.figure(rolled.value, stays.value),
    )
