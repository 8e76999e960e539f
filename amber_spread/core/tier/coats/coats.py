"""Crumb coat and final coat of one tier, by any school, as the room between nested envelopes."""

import math

from amber_spread.core.design.builds import TaperedBuild
from amber_spread.core.design.finishes import (
    DeckledFinal,
    FreehandFinal,
    NoCoat,
    NoFinal,
    PlateFinal,
    SemiNakedFinal,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
    covers_top,
)
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import Body, Straight
from amber_spread.core.geometry.flat.outline import area_at
from amber_spread.core.geometry.flat.traced import Traced
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, total
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.coats.measured import BuildUp, plan_build_up
from amber_spread.core.tier.coats.rules import (
    across_slope,
    coat_volume,
    coated_diameter,
    coated_height,
    parchment,
    relief_volume,
    rim_volume,
    scraper,
    side_from_disc,
)


class CoatPlan(PlanPart):
    """One coat: how thick, what the tier measures over it, and how much of it stays."""

    side: Figure
    top: Figure
    under: Figure | None = None
    across_slope: Figure | None = None
    diameter: Figure
    height: Figure
    volume: Figure
    weight: Figure


class CoatsPlan(PlanPart):
    """Both coats; `final` is None where the tier stays at its crumb coat. `stays` is all of the final coat that
    stays, `by_hand` what a coat of the usual thickness would weigh where a disc or a card sets this one, and
    `crumb_stays` all of the crumb coat. `goes_on` is the whole coat of a tier that is scraped back.
    """

    crumb: CoatPlan
    crumb_stays: Figure
    goes_on: Figure | None
    final: CoatPlan | None
    stays: Figure | None
    rim_height: Figure | None
    rim_weight: Figure | None
    build_up: BuildUp | None
    parchment: Figure | None
    papers: Figure | None
    scraper: Figure | None
    by_hand: Figure | None = None


def coats_underneath(tier: SettledTier) -> float:
    """The coat below the foot, mm: of a tier coated on both faces."""
    if both_faces(tier):
        return tier.crumb.value + (tier.top.value if tier.top else 0.0)
    return 0.0


def both_faces(tier: SettledTier) -> bool:
    """Whether the lower face is coated too: between twin discs, or to stand the tier on its side."""
    return isinstance(tier.asked.final, TwinFinal) or tier.asked.build.on_side


def plan_coats(tier: SettledTier, media: dict[str, Medium], bare: Body, planned: Body) -> tuple[CoatsPlan, Body, Body]:
    """Both coats over the bare body, with the body after the crumb coat and after the final coat.

    `planned` is the bare body the layers were to make, which a measured cake may differ from.
    """
    thickness, final, top = tier.crumb, tier.asked.final, tier.top
    faces = both_faces(tier)
    lean = _lean(tier, bare)
    crumb, crumbed = add_coat(
        bare, thickness, thickness, media[tier.asked.crumb.medium], under=thickness if faces else None, lean=lean
    )
    build_up = plan_build_up(tier, media, bare, planned)
    crumb_parts = {"coat": crumb.weight.value}
    if isinstance(final, NoCoat) or top is None:
        if build_up:
            crumb_parts["building up"] = build_up.weight.value
        nothing = CoatsPlan(
            crumb=crumb,
            crumb_stays=total(crumb_parts, "g"),
            goes_on=_goes_on(tier, media, bare, build_up),
            final=None,
            stays=None,
            rim_height=None,
            rim_weight=None,
            build_up=build_up,
            parchment=None,
            papers=None,
            scraper=None if isinstance(final, NoFinal) else scraper.figure(crumbed.height_mm),
        )
        return nothing, crumbed, crumbed
    medium, side = media[final.medium], tier.side
    if isinstance(final, PlateFinal):
        side = side_from_disc.figure(final.disc_diameter_mm, crumbed.width_mm)
    assert side is not None
    rounded = isinstance(final, FreehandFinal | TowelFinal) and final.edges == "rounded"
    coat, coated = add_coat(crumbed, side, top, medium, under=top if faces else None, rounded=rounded, lean=lean)
    if isinstance(final, TexturedFinal):
        area_mm2 = crumbed.wall_area_mm2 + (2 if faces else 1) * crumbed.top_area_mm2
        volume = relief_volume.figure(area_mm2, side.value)
        heavy = weight.figure(volume.value, medium.density_g_per_ml)
        coat = coat.replace(volume=volume, weight=heavy)
    rim_high = rim = None
    if (
        isinstance(final, DeckledFinal)
        and coated.flat_top is not None
        and not (faces or covers_top(tier.asked.cover, tier.asked.build))
    ):
        rim_high = tier.settled(final, "rim_mm")
        inside = area_at(coated.flat_top, -max(0.0, side.value))
        ring = rim_volume(coated.flat_top.area_mm2, inside, rim_high.value)
        rim = weight.figure(ring, medium.density_g_per_ml)
    parts = {"coat": coat.weight.value}
    if rim:
        parts["rim"] = rim.value
    if build_up:
        parts["building up"] = build_up.weight.value
    school = kind_of(final)
    plan = CoatsPlan(
        crumb=crumb,
        crumb_stays=total(crumb_parts, "g"),
        goes_on=None,
        final=coat,
        stays=total(parts, "g"),
        rim_height=rim_high,
        rim_weight=rim,
        build_up=build_up,
        parchment=parchment.figure(final.disc_diameter_mm) if isinstance(final, PlateFinal) else None,
        papers=carry_over("circles of parchment", school.papers, "each") if isinstance(final, PlateFinal) else None,
        scraper=scraper.figure(coated.height_mm + (rim_high.value if rim_high else 0.0)) if school.scraper else None,
        by_hand=_by_hand(tier, crumbed, medium, faces) if isinstance(final, PlateFinal) else None,
    )
    return plan, crumbed, coated


def _by_hand(tier: SettledTier, crumbed: Body, medium: Medium, faces: bool) -> Figure:
    """What a final coat of the usual thickness would weigh on the same tier."""
    usual = tier.usual
    under_mm = usual.coat_top_mm if faces else 0.0
    whole = crumbed.envelope(usual.coat_side_mm, usual.coat_top_mm, under_mm)
    return weight.figure(coat_volume(whole.volume_ml, crumbed.volume_ml), medium.density_g_per_ml)


def _goes_on(tier: SettledTier, media: dict[str, Medium], bare: Body, build_up: BuildUp | None) -> Figure | None:
    """The weight of the whole coat that goes on before it is scraped back; None where nothing is scraped back."""
    if not isinstance(tier.asked.final, SemiNakedFinal):
        return None
    thick = tier.goes_on.value
    whole = bare.envelope(thick, thick, thick if both_faces(tier) else 0.0)
    density = media[tier.asked.crumb.medium].density_g_per_ml
    parts = {"coat": weight(coat_volume(whole.volume_ml, bare.volume_ml), density)}
    if build_up:
        parts["building up"] = build_up.weight.value
    return total(parts, "g")


def add_coat(
    inner: Body,
    side: Figure,
    top: Figure,
    medium: Medium,
    under: Figure | None = None,
    rounded: bool = False,
    lean: float = 0.0,
) -> tuple[CoatPlan, Body]:
    """A coat laid on a body. A side thickness below zero is kept as a figure but takes nothing off the body.

    `lean` is how far the wall leans from upright, radians.
    """
    side_mm = max(0.0, side.value)
    outer = inner.envelope(side_mm, top.value, under.value if under else 0.0, rounded)
    volume = coat_volume.figure(outer.volume_ml, inner.volume_ml)
    straight = isinstance(inner, Straight) and isinstance(outer, Straight)
    # A sharp point of a drawn outline moves out by more than the coat's thickness.
    even = straight and not isinstance(inner.outline, Traced)
    plan = CoatPlan(
        side=side,
        top=top,
        under=under,
        across_slope=across_slope.figure(side_mm, lean) if lean else None,
        diameter=coated_diameter.figure(inner.width_mm, side_mm) if even else _same_width(outer),
        height=coated_height.figure(inner.height_mm, top.value) if straight else _same_height(outer),
        volume=volume,
        weight=weight.figure(volume.value, medium.density_g_per_ml),
    )
    return plan, outer


def _same_width(body: Body) -> Figure:
    return carry_over("over the coat at its widest", body.width_mm, "mm")


def _same_height(body: Body) -> Figure:
    return carry_over("over the coat at its highest", body.height_mm, "mm")


def _lean(tier: SettledTier, bare: Body) -> float:
    """How far the wall of a tapered tier leans from upright, radians."""
    if not isinstance(tier.asked.build, TaperedBuild):
        return 0.0
    return math.atan2(bare.width_mm / 2 - tier.asked.build.narrow_mm / 2, bare.height_mm)
