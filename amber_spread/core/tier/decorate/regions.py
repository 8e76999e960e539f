"""Piped regions: piping over a part of the outside of a finished tier."""

from collections.abc import Callable

from amber_spread.core.design.finishes import PipedRegion
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import Body
from amber_spread.core.geometry.flat.sector import Sector
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, rule
from amber_spread.core.stock.media import Medium, weight


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


@rule(
    "extras.region",
    unit="ml",
    formula="(outer - inner) * share",
    words="What lies between the tier and itself grown by the relief, all round; and of that what is on this side.",
)
def region_volume(outer_ml: float, inner_ml: float, share: float) -> float:
    """Volume of a piped region, ml: (outer - inner) x share; all the way round the share is 1. Source: geometry.

    >>> region_volume(2100, 1900, 0.25)
    50.0
    """
    return (outer_ml - inner_ml) * share


def plan_regions(
    tier: SettledTier, media: dict[str, Medium], covered: Body, hex_of: Callable[[str, str | None], str]
) -> dict[str, RegionPlan]:
    """Each piped region by its id: the room between the finished tier and itself grown by the relief, between its
    heights and on its side.
    """
    plans = {}
    for region in tier.asked.regions:
        relief = tier.settled(region, "relief_mm")
        low, high = (covered.foot_mm + share * covered.height_mm for share in (region.low, region.high))
        outer, on_top = region_over(covered, relief.value), region.high >= 1
        far = outer.foot_mm + outer.height_mm if on_top else high
        sector = sector_of(region)
        share = 1.0 if sector.whole else outer.ring_share(covered, low, far, sector)
        volume = region_volume.figure(outer.volume_between(low, far), covered.volume_between(low, high), share)
        plans[f"region_{region.id}"] = RegionPlan(
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
    return plans


def sector_of(region: PipedRegion) -> Sector:
    """The side of a tier that a region is piped on."""
    return Sector(region.round_deg, region.turn_deg)


def region_over(covered: Body, relief_mm: float) -> Body:
    """A finished tier grown by a relief all over."""
    return covered.envelope(relief_mm, relief_mm)
