"""What to know about the media of one tier and how thick they go on: what cannot be worked so, and what is too thin or
too thick to work.
"""

from collections.abc import Iterator, Mapping

from amber_spread.core.design.finishes import (
    CollarCover,
    NoCover,
    PrintedCover,
    TexturedFinal,
)
from amber_spread.core.design.kinds import kind_of, needs_at
from amber_spread.core.kernel.check import Check, Checker, Subject, listed, mm
from amber_spread.core.stock.media import ABILITIES, CAN, MEDIUM_KINDS, Medium, kinds_that
from amber_spread.core.tier.worked import PlannedTier

SUBJECTS: dict[str, Subject] = {
    "layers": "layers", "filling": "layers", "crumb": "coats", "final": "coats", "cover": "cover", "on_top": "cover",
    "borders": "cover", "regions": "cover", "build": "body", "stand": "stack",
}  # fmt: skip
"""What a check of each part of a tier is about."""
SHEET_THIN_MM, SHEET_THICK_MM = 2.0, 6.0
"""A sheet is rolled between these: thinner it tears and shows what lies below, thicker it drags itself down (common
practice: 3 to 5 mm).
"""
COAT_CARE_MM, COAT_MOST_MM = 12.0, 20.0
"""A coat thicker than the first is built up in two, chilled between; than the second it slides off (from memory)."""
CRUMB_MOST_MM = 5.0
"""A thicker crumb coat is a coat: it holds no crumbs back (common practice: about 1 mm)."""
STICKS_MM = 0.5
"""A sheet has nothing to stick to on less coat than this (from memory)."""
POINT_SHARE = 0.03
"""A tier whose foot is less than this share of its outline stands on a point."""


def checks_of_media(done: PlannedTier, media: Mapping[str, Medium], check: Checker) -> Iterator[Check]:
    """Every medium of a tier that cannot be worked as it is asked to be, once for each medium and use."""
    said = set()
    for path, key, _ in done.tier.taken:
        wanted, medium = needs_at(done.tier.asked, path), media[key]
        if not wanted or medium.can(*wanted):
            continue
        if (path[0], path[-1], key) not in said:
            said.add((path[0], path[-1], key))
            able = [MEDIUM_KINDS[kind] for kind in kinds_that(*wanted)]
            own = [ABILITIES[one] for one in CAN[medium.kind]]
            why = " It runs when it is pressed." if medium.soft and "dam" in wanted else ""
            name = medium.name[:1].upper() + medium.name[1:]
            yield check(
                "media.unfit",
                "trouble",
                SUBJECTS[str(path[0])],
                f"{name} cannot {ABILITIES[wanted[0]]}.{why} It can {listed(own)}. Here take {listed(able, 'or')}.",
            )


def checks_of_thickness(done: PlannedTier, check: Checker) -> Iterator[Check]:
    """Coats and sheets too thin or too thick to work, and a sheet over what does not carry one."""
    tier, coats, cover = done.tier, done.coats, done.tier.asked.cover
    crumb_mm = tier.crumb.value
    if crumb_mm > CRUMB_MOST_MM and not kind_of(tier.asked.final).crumb:
        yield check(
            "coats.crumb_thick",
            "care",
            "coats",
            "A crumb coat of {crumb} is a coat of its own. Spread it thin, about {thin}: it only holds the crumbs.",
            crumb=mm(crumb_mm),
            thin=mm(tier.usual.crumb_coat_mm),
        )
    final = coats.final
    if final is not None and not isinstance(tier.asked.final, TexturedFinal):
        most = max(final.side.value, final.top.value)
        if most > COAT_CARE_MM:
            slides = most > COAT_MOST_MM
            yield check(
                "coats.thick",
                "trouble" if slides else "care",
                "coats",
                "A coat of {coat} slides down its own weight before it sets. Take {most} or less, or a larger tin."
                if slides
                else "A coat of {coat} is thick: build it up in two, chilled between, or it sags. "
                "{most} is the most usual.",
                coat=mm(most),
                most=mm(COAT_CARE_MM),
            )
    if isinstance(cover, NoCover | PrintedCover | CollarCover):
        return
    assert tier.cover is not None
    sheet_mm = tier.cover.value
    if sheet_mm < SHEET_THIN_MM:
        yield check(
            "cover.sheet_thin",
            "trouble",
            "cover",
            "A sheet rolled to {sheet} tears as it is lifted and shows every bump. Roll it to {thin} or more.",
            sheet=mm(sheet_mm),
            thin=mm(SHEET_THIN_MM),
        )
    elif sheet_mm > SHEET_THICK_MM:
        yield check(
            "cover.sheet_thick",
            "trouble",
            "cover",
            "A sheet rolled to {sheet} drags itself down and cracks at the edge. Roll it to {thick} or less.",
            sheet=mm(sheet_mm),
            thick=mm(SHEET_THICK_MM),
        )
    if isinstance(tier.asked.final, TexturedFinal):
        yield check(
            "cover.over_piping",
            "trouble",
            "cover",
            "A sheet over {relief} of piping shows every ridge and bridges the hollows. Scrape the coat smooth, or "
            "leave the cover off.",
            relief=mm(final.side.value if final is not None else 0.0),
        )
    elif crumb_mm + (max(0.0, final.side.value) if final is not None else 0.0) < STICKS_MM:
        yield check(
            "cover.over_bare",
            "trouble",
            "cover",
            "A sheet does not stick to bare cake, and crumbs and gaps show through it. Spread a coat of {least} first.",
            least=mm(tier.usual.coat_least_mm),
        )


def checks_of_foot(done: PlannedTier, check: Checker) -> Iterator[Check]:
    """Whether an upright tier stands on a point, as a whole ball does."""
    stands = done.stands
    if done.tipped is None and stands.foot.area_mm2 < POINT_SHARE * stands.outline.area_mm2:
        yield check(
            "layers.rolls",
            "trouble",
            "layers",
            "It stands on a point and would roll. Cut a flat foot about a third of its width, {foot}, or set it in a "
            "ring that holds it.",
            foot=mm(stands.width_mm / 3),
        )
