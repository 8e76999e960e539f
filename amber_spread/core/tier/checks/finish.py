"""What to know about the coats and the cover of one tier: thin coats, unfit media, pleats, short strips, hot work."""

import math
from collections.abc import Iterator, Mapping

from amber_spread.core.design.finishes import (
    CollarCover,
    DeckledFinal,
    FreehandFinal,
    HalvesCover,
    NoCover,
    PanelCover,
    PatchesCover,
    PlateFinal,
    PrintedCover,
    SemiNakedFinal,
    TexturedFinal,
    TowelFinal,
    covers_top,
)
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.kernel.check import Check, Checker, RoundedQuantity, measure, mm
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier.worked import PlannedTier

GATHER_CARE, GATHER_MOST = 2.6, 3.4
"""Above the first hem-to-foot ratio a drape wants easing down with patience, above the second it pleats (from memory).

Everyday tiers 4 in high are draped without a word: 2.3 for one 6 in across, 2.0 for 8 in. A 4 in tier 4 in high comes
to 2.9, a 6 in one of double height to 4."""
TRIM_RATHER_MM = 12.0
"""A side lower or narrower than this is trimmed or re-levelled rather than built up with coat (from memory)."""
MEASURED_OFF_MM = 3.0
"""A measured cake is told beside the planned one where they differ by more than this, 1/8 in (from memory)."""

HAIR_MM = 0.01
"""Two thicknesses that differ by less are the same."""
TORN_MOST = 0.05
"""So much of a tier may be drawn out by more than fondant gives: over sharp corners, where it is eased by hand."""
GIVES_MORE = 0.005
"""A patch that gives no more than so much beyond what was asked for is no trouble."""


def checks_of_coats(done: PlannedTier, media: Mapping[str, Medium], check: Checker) -> Iterator[Check]:
    """Everything to know about both coats of a tier."""
    tier, coats = done.tier.asked, done.coats
    final = tier.final
    yield from _hollows(done, check)
    if isinstance(final, PlateFinal) and coats.final is not None:
        yield from _plate(final, done, check)
    elif coats.final is not None and not isinstance(final, TexturedFinal):
        thin = min(coats.final.side.value, coats.final.top.value)
        if 0 < thin < done.tier.usual.coat_least_mm - HAIR_MM:
            yield check(
                "coats.thin",
                "care",
                "coats",
                "A final coat of {thin} lets the crumbs show through. This kitchen spreads {least} or more.",
                thin=mm(thin),
                least=mm(done.tier.usual.coat_least_mm),
            )
    if isinstance(final, TowelFinal) and not media[final.medium].crusting:
        yield check(
            "coats.no_crust",
            "trouble",
            "coats",
            f"{media[final.medium].name} does not crust: a paper towel will stick to it and pull it off. Take a "
            "crusting buttercream, or finish with a hot scraper.",
        )
    if isinstance(final, FreehandFinal) and final.edges == "rounded" and tier.build.on_side:
        yield check(
            "coats.rounded_faces",
            "care",
            "coats",
            "Only the upper face's edge is worked out as rounded here.",
        )
    if isinstance(final, DeckledFinal) and covers_top(tier.cover, tier.build):
        yield check(
            "coats.no_lip",
            "care",
            "coats",
            "A cover over the top leaves no room for a rough lip, so none is counted here. Leave the cover off, or "
            "choose another finish.",
        )
    if isinstance(final, SemiNakedFinal):
        yield check(
            "coats.semi_naked",
            "care",
            "coats",
            "So thin a coat does not keep the cake from drying: finish it the same day, and keep it covered and cool.",
        )
    if isinstance(final, TexturedFinal):
        yield check(
            "coats.one_mix",
            "care",
            "coats",
            "Mix all of this colour at once: a second mix never matches, and a textured coat cannot be scraped and "
            "redone.",
        )
    build_up = coats.build_up
    if build_up is not None:
        off = max(
            abs(build_up.width.value - build_up.planned_width.value),
            abs(build_up.height.value - build_up.planned_height.value),
        )
        if off > MEASURED_OFF_MM:
            yield check(
                "coats.not_as_planned",
                "care",
                "coats",
                "The cake was planned {planned_width} wide and {planned_height} high and measures {width} by {height}. "
                "Coats, cover, supports and weights here go by what was measured.",
                planned_width=measure(build_up.planned_width),
                planned_height=measure(build_up.planned_height),
                width=measure(build_up.width),
                height=measure(build_up.height),
            )
        worst = max(max(side.foot.value, side.top.value, side.rise.value) for side in build_up.sides.values())
        if worst > TRIM_RATHER_MM:
            yield check(
                "coats.trim_rather",
                "care",
                "coats",
                "One side would take {worst} of coat to come straight, which sags. Trim the high or wide side first, "
                "or press the cake level.",
                worst=mm(worst),
            )


def _plate(final: PlateFinal, done: PlannedTier, check: Checker) -> Iterator[Check]:
    assert done.coats.final is not None
    side_mm, plate = done.coats.final.side.value, "card" if final.kind == "inverted" else "disc"
    crumbed = done.coats.crumb.diameter.value
    least = mm(crumbed + 2 * done.tier.usual.coat_least_mm)
    if side_mm < 0:
        yield check(
            "coats.disc_small",
            "trouble",
            "coats",
            f"The {plate} is narrower than the crumb-coated cake, which is {{cake}} wide, so the scraper would cut "
            f"into "
            f"it. Trim the cake, or take a {plate} of {{least}} or more.",
            cake=mm(crumbed),
            least=least,
        )
    elif side_mm < done.tier.usual.coat_least_mm - HAIR_MM:
        yield check(
            "coats.disc_thin",
            "care",
            "coats",
            f"This {plate} leaves only {{side}} of final coat at the side, and crumbs will show through. For "
            f"{{wanted}} "
            f"take a {plate} of {{least}}.",
            side=mm(side_mm),
            wanted=mm(done.tier.usual.coat_least_mm),
            least=least,
        )
    body = done.bodies.crumbed
    if abs(body.length_mm - body.width_mm) > 1 or abs(body.outline.reach_mm - body.width_mm / 2) > 1:
        yield check(
            "coats.plate_shape",
            "care",
            "coats",
            f"The {plate} must have the tier's own shape, {{width}} across. A round one does not guide these corners.",
            width=mm(final.disc_diameter_mm),
        )


def _hollows(done: PlannedTier, check: Checker) -> Iterator[Check]:
    """What of a carved tier a flat scraper or smoother does not reach."""
    carving, final = done.carving, done.tier.asked.final
    smoothed = kind_of(final).scraper or kind_of(done.tier.asked.cover).smoother
    if carving is None or carving.bent is None or not smoothed:
        return
    yield check(
        "coats.hollows",
        "care",
        "coats",
        "A flat scraper or smoother reaches {parts} per cent of this tier. For its hollows take one that bends to a "
        "radius of {radius}, and a fingertip or the back of a spoon for its inner corners.",
        parts=RoundedQuantity(value=math.floor(100 * carving.flat.value), unit="each"),
        radius=measure(carving.bent),
    )


def checks_of_cover(done: PlannedTier, media: Mapping[str, Medium], kit: Kit, check: Checker) -> Iterator[Check]:
    """Everything to know about the cover of a tier."""
    tier, cover = done.tier.asked, done.cover
    asked = tier.cover
    if isinstance(asked, NoCover) or cover is None:
        return
    if isinstance(asked, PatchesCover) and asked.own_seams and not cover.suits:
        yield check(
            "cover.seams_missing",
            "trouble",
            "cover",
            "A piece between your seams runs all round or over itself, and cannot be laid flat. Add a seam through it, "
            "or let sides be found beside your own; the sheet shown is the nearest that can be cut.",
        )
    elif not cover.suits:
        yield check(
            "cover.suits_not",
            "trouble",
            "cover",
            f"{kind_of(asked).called.capitalize()} does not lie flat on this shape. The pieces shown are the nearest "
            "that can be cut; choose another cover to be sure of a clean finish.",
        )
    beneath = media[done.tier.outermost]
    if not beneath.suits_under_fondant and not isinstance(asked, CollarCover):
        what = "fondant" if not isinstance(asked, PrintedCover) else "a printed sheet"
        yield check(
            "cover.melts",
            "trouble",
            "cover",
            f"{beneath.name} under {what} weeps and melts it from below. Coat this tier with buttercream or "
            "ganache, or leave the cover off.",
        )
    if cover.gather is not None and cover.gather.value > GATHER_MOST:
        better = "A panel and a top piece lie smooth" if tier.build.straight else "Pieces lie smooth"
        yield check(
            "cover.pleats",
            "trouble",
            "cover",
            "The sheet's hem is {times} as long as the foot it must gather to: it will fall in pleats. "
            f"{better}; or leave more to trim and cut the fullness out at the back.",
            times=measure(cover.gather),
        )
    elif cover.gather is not None and cover.gather.value > GATHER_CARE:
        yield check(
            "cover.ease",
            "care",
            "cover",
            "The sheet's hem is {times} as long as the foot it must gather to. Ease it down a little at a time, "
            "opening the folds before you press them, and leave more to trim.",
            times=measure(cover.gather),
        )
    if cover.torn is not None and cover.torn.value > TORN_MOST:
        better = "patches lie flat" if isinstance(asked, HalvesCover) else "halves or patches may lie better"
        yield check(
            "cover.tears",
            "trouble",
            "cover",
            "Over {parts} per cent of the tier the sheet would be drawn out by more than fondant gives: it tears, or "
            f"hangs across the hollow. See where in the round, under Carve; {better}.",
            parts=RoundedQuantity(value=math.ceil(100 * cover.torn.value), unit="each"),
        )
    if cover.short is not None:
        yield check(
            "cover.sheet_short",
            "trouble",
            "cover",
            "The sheet you have rolled ends {short} above the board. Roll it larger, or cover in two halves.",
            short=measure(cover.short),
        )
    if cover.top_parts is not None:
        yield check(
            "cover.top_in_parts",
            "care",
            "cover",
            "The top is larger than one sheet: it is laid in {parts} parts, and their joins show. Take larger sheets, "
            "or leave the top to another cover.",
            parts=measure(cover.top_parts),
        )
    if cover.trimmed_weight is not None and cover.trimmed_weight.value < -1e-6:
        yield check(
            "cover.short",
            "trouble",
            "cover",
            "The sheet holds less fondant than the tier takes at this thickness, so it would stretch thin. Allow "
            "more beyond the hem.",
        )
    yield from _strips(done, kit, check)
    if isinstance(asked, CollarCover):
        yield check(
            "caution.hot_chocolate",
            "caution",
            "cover",
            "Melted chocolate burns skin. Let it cool to the touch before it is spread, dress the top tier first, and "
            "go by the maker's leaflet for acetate and papers.",
        )


def _strips(done: PlannedTier, kit: Kit, check: Checker) -> Iterator[Check]:
    tier, cover = done.tier.asked, done.cover
    asked = tier.cover
    assert cover is not None
    if not cover.on_mat:
        yield check(
            "cover.off_mat",
            "care",
            "cover",
            "A piece is larger than your mat of {width} by {length}. Roll it on the bare worktop, cover in pieces, or "
            "make the tier lower.",
            width=mm(kit.mat.width_mm),
            length=mm(kit.mat.length_mm),
        )
    gives = cover.strain.value if cover.strain is not None else 0.0
    if isinstance(asked, PatchesCover) and gives > asked.stretch + GIVES_MORE:
        yield check(
            "cover.patches_give",
            "care",
            "cover",
            "A patch must give by {parts} per cent, which is more than was asked for. Ease it on over the corners a "
            "little at a time, and smooth what gathers there before it sets.",
            parts=RoundedQuantity(value=math.ceil(100 * gives), unit="each"),
        )
    if isinstance(asked, PanelCover):
        if cover.stretch is not None and cover.stretch.value > done.tier.usual.stretch_most:
            assert asked.strip_mm is not None
            yield check(
                "cover.strip_short",
                "trouble",
                "cover",
                "A strip of {strip} would have to stretch past what fondant gives before it tears. Was the right tier "
                "measured? Cut it again, or fill the gap with a second piece.",
                strip=mm(asked.strip_mm),
            )
        if asked.trim_mm == 0:
            yield check(
                "cover.no_trim",
                "care",
                "cover",
                "The panel is cut exactly to height, with nothing to trim level. Leave a little more.",
            )
    if cover.printed is not None and cover.printed.too_tall is not None:
        yield check(
            "cover.printed_short",
            "trouble",
            "cover",
            "The sheet is {missing} too short for this tier. Take a taller sheet, lower the tier, or hide the gap "
            "under a band or border.",
            missing=measure(cover.printed.too_tall),
        )
