"""Flat pieces cut from a sheet and laid on the top of a finished tier."""

from collections.abc import Callable

from amber_spread.core.design.finishes import OnTop
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.flat.pieces import Piece, area_of, corners_of, size_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, decided
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier.cover.rules import piece_weight, rolled_weight, trimmed_weight


class OnTopPlan(PlanPart):
    """A piece laid on the top: its outline, what is rolled for it, what stays, and what is trimmed."""

    piece: Piece
    rolled_weight: Figure
    stays_weight: Figure
    trimmed_weight: Figure


def plan_on_top(
    tier: SettledTier, media: dict[str, Medium], hex_of: Callable[[str, str | None], str]
) -> dict[str, OnTopPlan]:
    """Every flat piece laid on the top by its id, cut out of a sheet a little larger."""
    return {
        f"piece_{top.id}": _plan_piece(top, tier, media[top.medium], hex_of(top.medium, top.colour))
        for top in tier.asked.on_top
    }


def _plan_piece(top: OnTop, tier: SettledTier, medium: Medium, hex: str) -> OnTopPlan:
    corners = corners_of(top.shape.outline(top.across_mm))
    wide, high = size_of(corners)
    thickness = tier.settled(top, "thickness_mm")
    density, margin = medium.density_g_per_ml, 2 * tier.usual.roll_margin_mm
    rolled = rolled_weight.figure(top.count * (wide + margin) * (high + margin), thickness.value, density)
    stays = piece_weight.figure(top.count * area_of(corners), thickness.value, density)
    sizes = {
        "width": carry_over("width of the outline", wide, "mm"),
        "length": carry_over("length of the outline", high, "mm"),
        "thickness": thickness,
    }
    piece = Piece(
        name="On top", count=decided(top.count, "each"), sizes=sizes, paint=hex, colour=top.colour, corners=corners
    )
    return OnTopPlan(
        piece=piece,
        rolled_weight=rolled,
        stays_weight=stays,
        trimmed_weight=trimmed_weight.figure(rolled.value, stays.value),
    )
