"""What is added to a finished tier: piped borders along its edges, and a flat piece laid on its top."""

import math
from collections.abc import Callable
from typing import Literal

from amber_spread.core.design.finishes import OnTop, PipedRegion
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body
from amber_spread.core.geometry.flat.outline import Outline, perimeter_at
from amber_spread.core.geometry.flat.pieces import Piece, area_of, corners_of, size_of
from amber_spread.core.geometry.flat.sector import Sector
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, decided, rule
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.cover.rules import piece_weight, rolled_weight, trimmed_weight

BEADS = {"half": 0.5, "round": 1.0, "shell": 1.25, "rope": 1.6}
"""What a border takes of a round bead as wide: shells lie half on each other, each loop of a rope on the last (from
memory; half and round: geometry).
"""
HALF_BEAD = 2 / (3 * math.pi)
"""How far the middle of half a round lies from its flat, as a share of its width (geometry: 4 r / 3 pi)."""


class BorderPlan(PlanPart):
    """A piped border: how long, the section of its bead, how far it stands out and up, and what it takes."""

    at: Literal["foot", "top"]
    out: Figure
    up: Figure
    length: Figure
    bead: Figure
    volume: Figure
    weight: Figure


class RegionPlan(PlanPart):
    """A piped region: of what, between which heights of the finished tier, how much of what goes all round there lies
    in it, how far it stands out, and what it takes.
    """

    medium: str
    colour: str | None
    hex: str
    low: Figure
    high: Figure
    share: Figure
    relief: Figure
    volume: Figure
    weight: Figure
    on_top: bool


class OnTopPlan(PlanPart):
    """A piece laid on the top: its outline, what is rolled for it, what stays, and what is trimmed."""

    piece: Piece
    rolled_weight: Figure
    stays_weight: Figure
    trimmed_weight: Figure


@rule(
    "extras.border", unit="ml", formula="length * pi / 4 * bead**2 * share / 1000",
    words="The length of the edge, times the section of the bead: a round, half of one, or more where shells or loops "
    "lie on each other.",
)  # fmt: skip
def border_volume(length_mm: float, bead_mm: float, share: float) -> float:
    """Volume of a piped border, ml: length x pi/4 bead² x share / 1000; share 1 for a round bead, 1/2 for a half, more
    for shells and ropes.

    Source: geometry; what shells and ropes take besides is from memory.

    >>> round(border_volume(847.8, 8, 0.5), 2)
    21.31
    """
    return length_mm * math.pi / 4 * bead_mm**2 * share / MM3_PER_ML


@rule(
    "extras.region", unit="ml", formula="(outer - inner) * share",
    words="What lies between the tier and itself grown by the relief, all round; and of that what is on this side.",
)  # fmt: skip
def region_volume(outer_ml: float, inner_ml: float, share: float) -> float:
    """Volume of a piped region, ml: (outer - inner) x share; all the way round the share is 1. Source: geometry.

    >>> region_volume(2100, 1900, 0.25)
    50.0
    """
    return (outer_ml - inner_ml) * share


def plan_borders(tier: SettledTier, media: dict[str, Medium], foot: Outline, flat: Outline | None) -> list[BorderPlan]:
    """Each border along the foot or the top edge of the finished tier: round the wall at the foot, within the edge on
    the top. A tier without a flat top takes it at its foot.
    """
    plans = []
    for border in tier.asked.borders:
        at: Literal["foot", "top"] = border.at if flat is not None else "foot"
        bead = tier.settled(border, "bead_mm")
        # A round bead stands out by its width, its middle at half of it; half of one lies against the wall or the top.
        out_mm = bead.value / 2 if border.bead == "half" else bead.value
        edge, way = (foot, 1) if at == "foot" or flat is None else (flat, -1)
        centroid_mm = bead.value / 2 if border.bead != "half" or at == "top" else HALF_BEAD * bead.value
        length = carry_over("length along the middle of the bead", perimeter_at(edge, way * centroid_mm), "mm")
        volume = border_volume.figure(length.value, bead.value, BEADS[border.bead])
        heavy = weight.figure(volume.value, media[border.medium].density_g_per_ml)
        plans.append(
            BorderPlan(
                at=at,
                out=carry_over("out from the wall", out_mm if at == "foot" else 0.0, "mm"),
                up=carry_over("up from the top", out_mm if at == "top" else 0.0, "mm"),
                length=length,
                bead=bead,
                volume=volume,
                weight=heavy,
            )
        )
    return plans


def plan_regions(
    tier: SettledTier, media: dict[str, Medium], covered: Body, hex_of: Callable[[str, str | None], str]
) -> list[RegionPlan]:
    """Each piped region: the room between the finished tier and itself grown by the relief, between its heights and on
    its side.
    """
    plans = []
    for region in tier.asked.regions:
        relief = tier.settled(region, "relief_mm")
        low, high = (covered.foot_mm + share * covered.height_mm for share in (region.low, region.high))
        outer, on_top = region_over(covered, relief.value), region.high >= 1
        far = outer.foot_mm + outer.height_mm if on_top else high
        sector = sector_of(region)
        share = 1.0 if sector.whole else outer.ring_share(covered, low, far, sector)
        volume = region_volume.figure(outer.volume_between(low, far), covered.volume_between(low, high), share)
        plans.append(
            RegionPlan(
                medium=region.medium,
                colour=region.colour,
                hex=hex_of(region.medium, region.colour),
                low=carry_over("begins so far up", region.low * covered.height_mm, "mm"),
                high=carry_over("ends so far up", region.high * covered.height_mm, "mm"),
                share=carry_over("of what goes all round", share, "ratio"),
                relief=relief,
                volume=volume,
                weight=weight.figure(volume.value, media[region.medium].density_g_per_ml),
                on_top=on_top,
            )
        )
    return plans


def sector_of(region: PipedRegion) -> Sector:
    """The side of a tier that a region is piped on."""
    return Sector(region.round_deg, region.turn_deg)


def region_over(covered: Body, relief_mm: float) -> Body:
    """A finished tier grown by a relief all over."""
    return covered.envelope(relief_mm, relief_mm)


def plan_on_top(
    tier: SettledTier, media: dict[str, Medium], hex_of: Callable[[str, str | None], str]
) -> list[OnTopPlan]:
    """Every flat piece laid on the top, cut out of a sheet a little larger."""
    return [_plan_piece(top, tier, media[top.medium], hex_of(top.medium, top.colour)) for top in tier.asked.on_top]


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
        name="On top", count=decided(top.count, "each"), sizes=sizes, hex=hex, colour=top.colour, corners=corners
    )
    return OnTopPlan(
        piece=piece,
        rolled_weight=rolled,
        stays_weight=stays,
        trimmed_weight=trimmed_weight.figure(rolled.value, stays.value),
    )
