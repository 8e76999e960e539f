"""Covering one tier: what to roll, cut or print, what stays, what is trimmed, and where the pieces lie on the mat."""

import math
from collections.abc import Callable

from amber_spread.core.body import Body, Carried, Sideways
from amber_spread.core.coat_rules import coat_volume
from amber_spread.core.coats import CoatPlan, lay
from amber_spread.core.cover_plan import Asked, CoverPlan, Way, on_mat, piece_of, top_of
from amber_spread.core.cover_rules import (
    band_length,
    box_side,
    collar_height,
    gather,
    gather_over_profile,
    gore_width,
    half_face,
    half_high,
    half_long,
    roll_diameter,
    roll_over_profile,
    roll_side,
    rolled_weight,
    sector_angle,
    sector_inner,
    sector_outer,
    stretch,
    strip_count,
    strip_height,
    strip_length,
    stripe_weight,
    trimmed_weight,
)  # fmt: skip
from amber_spread.core.design import Tier
from amber_spread.core.figures import Figure, chosen, of_parts, parts_rule, same
from amber_spread.core.finishes import (
    BoxCover,
    CollarCover,
    Cover,
    DrapeCover,
    GoresCover,
    HalvesCover,
    NoCover,
    PanelCover,
    PrintedCover,
    Stripe,
)  # fmt: skip
from amber_spread.core.flat import (
    Band,
    Corner,
    Mark,
    Piece,
    circle,
    fits,
    lay_out,
    placed,
    rectangle,
    rectangle_bands,
    sector,
    sector_bands,
    size_of,
    trapezoid,
)  # fmt: skip
from amber_spread.core.kit import Mat
from amber_spread.core.media import Medium, weight
from amber_spread.core.outline import Cornered, Regular, Round, cornered_area, round_area
from amber_spread.core.practice import Practice
from amber_spread.core.printed import plan_printed
from amber_spread.core.shapes import BallBuild, BevelledBuild, DomedBuild, SideBuild, TaperedBuild, TurnedBuild
from amber_spread.core.side import tipped

_FLAT_AREA = parts_rule(
    "cover.pieces.area", "What must be rolled for each piece, box or circle round it, added up.", "sum", "geometry"
)


def cover_thickness(tier: Tier, practice: Practice) -> Figure | None:
    """The thickness of the cover, None where there is none or it is a printed sheet's."""
    if isinstance(tier.cover, NoCover | PrintedCover):
        return None
    usual = practice.collar_mm if isinstance(tier.cover, CollarCover) else practice.fondant_mm
    return chosen(tier.cover.thickness_mm, usual, "mm")


def plan_cover(
    tier: Tier,
    practice: Practice,
    media: dict[str, Medium],
    coated: Body,
    mat: Mat,
    hex_of: Callable[[str, str | None], str],
) -> tuple[CoverPlan | None, Body]:
    """The cover over the coated body, and the body after it. `hex_of` gives the colour a medium is mixed to."""
    cover = tier.cover
    if isinstance(cover, NoCover):
        return None, coated
    if isinstance(cover, PrintedCover):
        return plan_printed(cover, practice, coated, tier), coated
    thickness = cover_thickness(tier, practice)
    assert thickness is not None
    medium = media[cover.medium]
    asked = Asked(tier, practice, coated, thickness, medium, lambda colour: hex_of(cover.medium, colour), mat)
    way = _WAYS[cover.kind](asked, cover)
    top = thickness if way.top_covered else same("nothing on top", 0.0, "mm")
    under = thickness if isinstance(tier.build, SideBuild) and way.top_covered else None
    over, covered = lay(coated, thickness, top, medium, under=under)
    if isinstance(tier.build, SideBuild):
        over = _on_its_side(over, coated, covered, tier, practice, medium)
    area = of_parts(_FLAT_AREA, *_areas(way.pieces), "mm2")
    rolled = rolled_weight.figure(area.value, thickness.value, medium.density_g_per_ml)
    stripes = getattr(cover, "stripes", ())
    plan = CoverPlan(
        kind=cover.kind,
        suits=way.suits,
        width_over_coat=same("width over the coat", coated.width_mm, "mm"),
        height_over_coat=same("height over the coat", coated.height_mm, "mm"),
        overlap=way.own.pop("overlap", None),  # type: ignore[arg-type]
        roll_area=area,
        rolled_weight=rolled,
        trimmed_weight=trimmed_weight.figure(rolled.value, over.weight.value),
        over=over,
        stripes=_stripe_weights(stripes, rolled.value),
        pieces=way.pieces,
        laid=lay_out(way.pieces, mat.width_mm, mat.length_mm),
        on_mat=all(on_mat(piece, mat) for piece in way.pieces.values()),
        **way.own,  # type: ignore[arg-type]
    )
    return plan, covered


def _on_its_side(
    over: CoatPlan, coated: Body, covered: Body, tier: Tier, practice: Practice, medium: Medium
) -> CoatPlan:
    """The cover of a drum that already stands on its foot: nothing goes where the slice was cut off."""
    inner = tipped(coated, tier, practice)
    outer = Sideways(covered.width_mm / 2, covered.height_mm, inner.centre_mm)
    volume = coat_volume.figure(outer.volume_ml, inner.volume_ml)
    return over.but(volume=volume, weight=weight.figure(volume.value, medium.density_g_per_ml))


def _is_circle(corners: list[Corner]) -> bool:
    return len(corners) == 2


def _areas(pieces: dict[str, Piece]) -> tuple[float, dict[str, float]]:
    """What has to be rolled for each piece: a circle for a circle, else the box round it."""
    parts = {}
    for key, piece in pieces.items():
        wide, high = piece.size
        parts[key.replace("_", " ")] = piece.count.value * (
            round_area(wide) if _is_circle(piece.corners) else cornered_area(wide, high, 0.0)
        )
    return sum(parts.values()), parts


def _stripe_weights(stripes: tuple[Stripe, ...], rolled_g: float) -> dict[str, Figure]:
    shares = sum(stripe.share for stripe in stripes)
    return {
        f"stripe_{number}": stripe_weight.figure(rolled_g, stripe.share, shares)
        for number, stripe in enumerate(stripes, 1)
    }


def _drape(asked: Asked, cover: Cover) -> Way:
    """One sheet over the whole tier: a circle or a rectangle, whichever is least of those the mat holds."""
    coated = asked.coated
    if isinstance(asked.tier.build, SideBuild):
        return _halves(asked, HalvesCover(medium=asked.medium.key))._replace(suits=False)
    own_overlap = cover.overlap_mm if isinstance(cover, DrapeCover) else None
    overlap = chosen(own_overlap, asked.practice.overlap_mm, "mm")
    flat, slant_mm = coated.flat_top, coated.slant_mm
    if isinstance(coated, Carried):
        reach, wide, long = (2 * flat.reach_mm, 2 * flat.half_width_mm, 2 * flat.half_length_mm) if flat else (0.0,) * 3
        across = roll_over_profile.figure(reach, slant_mm, overlap.value)
        width = roll_over_profile.figure(wide, slant_mm, overlap.value)
        length = roll_over_profile.figure(long, slant_mm, overlap.value)
        foot = coated.section(coated.foot_mm + 0.01 * coated.height_mm).perimeter_mm
        pleats = gather_over_profile.figure(flat.perimeter_mm if flat else 0.0, slant_mm, max(1.0, foot))
    else:
        across = roll_diameter.figure(2 * coated.outline.reach_mm, slant_mm, overlap.value)
        width = roll_side.figure(coated.width_mm, slant_mm, overlap.value)
        length = roll_side.figure(coated.length_mm, slant_mm, overlap.value)
        pleats = gather.figure(coated.girth_mm, slant_mm)
    mat = (asked.mat.width_mm, asked.mat.length_mm)
    ways = [
        (not fits(across.value, across.value, mat), round_area(across.value), True),
        (not fits(width.value, length.value, mat), cornered_area(width.value, length.value, 0.0), False),
    ]
    as_circle = min(ways)[2]
    hex = asked.hex_of(getattr(cover, "colour", None))
    if as_circle:
        piece = piece_of("Sheet", circle(across.value), hex, diameter=across)
    else:
        piece = piece_of("Sheet", rectangle(width.value, length.value), hex, width=width, length=length)
    own: dict[str, object] = {
        "overlap": overlap,
        "gather": pleats,
        "roll_diameter": across if as_circle else None,
        "roll_width": None if as_circle else width,
        "roll_length": None if as_circle else length,
    }
    return Way({"sheet": piece}, True, own)


def _panel(asked: Asked, cover: Cover) -> Way:
    """A strip round the wall, in as many pieces as the mat asks for, and the top piece over or inside its edge."""
    panel = cover if isinstance(cover, PanelCover) else PanelCover(top="over")
    coated, thickness_mm, practice = asked.coated, asked.thickness.value, asked.practice
    overlap = chosen(panel.overlap_mm, practice.panel_overlap_mm, "mm")
    trim = chosen(panel.trim_mm, practice.panel_trim_mm, "mm")
    laps_mm = thickness_mm if panel.top == "inside" else 0.0
    mat_mm = max(asked.mat.width_mm, asked.mat.length_mm, 2 * overlap.value + 1)
    build = asked.tier.build
    hex = asked.hex_of(panel.stripes[0].colour if panel.stripes else getattr(cover, "colour", None))
    if isinstance(build, TaperedBuild) and isinstance(coated, Carried) and isinstance(coated.base, Round):
        girth_mm, pieces = _sector(asked, coated, overlap.value, trim.value + laps_mm, hex, panel.stripes)
    else:
        girth_mm = coated.outline.offset(thickness_mm / 2).perimeter_mm
        if isinstance(build, SideBuild):
            girth_mm = tipped(coated, asked.tier, practice).rim_mm
        count = strip_count.figure(girth_mm, mat_mm, overlap.value)
        long = strip_length.figure(girth_mm, count.value, overlap.value)
        high = strip_height.figure(coated.slant_mm if coated.flat_top else coated.height_mm, laps_mm, trim.value)
        strip = piece_of("Panel", rectangle(long.value, high.value), hex, count.value, long=long, high=high)
        marks = [Mark(name="trim to here", x0=0, y0=high.value - trim.value, x1=long.value, y1=high.value - trim.value)]
        edges = rectangle_bands(long.value, high.value, [stripe.share for stripe in panel.stripes])
        bands = _bands(asked, panel.stripes, edges)
        pieces = {"panel": strip.but(marks=marks if trim.value else [], bands=bands)}
    flat = coated.flat_top
    if panel.top != "none" and flat is not None:
        pieces["top"] = top_of(
            flat, thickness_mm if panel.top == "over" else 0.0, hex, 2 if isinstance(build, SideBuild) else 1
        )
    own: dict[str, object] = {"overlap": overlap}
    if panel.strip_mm is not None:
        own["stretch"] = stretch.figure(girth_mm, panel.strip_mm)
    suits = not isinstance(build, BallBuild | DomedBuild | TurnedBuild | BevelledBuild)
    return Way(pieces, panel.top != "none" and flat is not None, own, suits)


def _sector(
    asked: Asked, coated: Carried, overlap_mm: float, trim_mm: float, hex: str, stripes: tuple[Stripe, ...]
) -> tuple[float, dict[str, Piece]]:
    """The unrolled wall of a tapered round tier, in as many pieces as lie on the mat."""
    middle = coated.envelope(asked.thickness.value / 2, 0.0)
    points = [point for point in middle.half_profile() if point[0] > 0]
    widths = sorted((2 * points[0][0], 2 * points[-1][0]))
    narrow_mm, wide_mm = widths
    slant_mm = math.dist(points[0], points[-1])
    girth_mm = math.pi * wide_mm
    for strips in range(1, 13):
        outer = sector_outer.figure(slant_mm, wide_mm, narrow_mm, trim_mm)
        inner = sector_inner.figure(slant_mm, wide_mm, narrow_mm)
        angle = sector_angle.figure(wide_mm, narrow_mm, slant_mm, strips, overlap_mm, outer.value - trim_mm)
        if angle.value >= 350:
            continue
        corners = sector(inner.value, outer.value, math.radians(angle.value))
        box = size_of(corners)
        if fits(*box, (asked.mat.width_mm, asked.mat.length_mm)):
            break
    piece = piece_of(
        "Panel", corners, hex, strips, outer=outer, inner=inner, angle=angle,
        box_long=same("box round it, long", box[0], "mm", "up"),
        box_high=same("box round it, high", box[1], "mm", "up"),
    )  # fmt: skip
    shares = [stripe.share for stripe in stripes]
    bands = _bands(asked, stripes, sector_bands(inner.value, outer.value, math.radians(angle.value), shares))
    return girth_mm, {"panel": piece.but(bands=bands)}


def _bands(asked: Asked, stripes: tuple[Stripe, ...], edges: list[list[Corner]]) -> list[Band]:
    return [
        Band(colour=stripe.colour, hex=asked.hex_of(stripe.colour), corners=corners)
        for stripe, corners in zip(stripes, edges, strict=True)
    ]


def _box(asked: Asked, cover: Cover) -> Way:
    """A flat piece to each side and one on top; rectangles, or trapezoids where the tier tapers."""
    assert isinstance(cover, BoxCover)
    coated, thickness_mm = asked.coated, asked.thickness.value
    foot, flat = coated.outline, coated.flat_top
    straight = not isinstance(asked.tier.build, BevelledBuild | DomedBuild | BallBuild | TurnedBuild | SideBuild)
    cornered = isinstance(foot, Cornered | Regular) and not foot.corner_mm
    if not (straight and cornered) or flat is None:
        return _panel(asked, PanelCover(top="over", colour=cover.colour))._replace(suits=False)
    low = coated.section(0.0)
    hex, high = asked.hex_of(cover.colour), same("up the wall", coated.slant_mm, "mm", "up")
    pieces: dict[str, Piece] = {}

    def side(key: str, name: str, count: int, foot_mm: float, top_mm: float, laps: float) -> None:
        wide = box_side.figure(foot_mm, laps, thickness_mm)
        sizes = {"wide": wide, "high": high}
        end = box_side(top_mm, laps, thickness_mm)
        if abs(top_mm - foot_mm) > 0.05:
            sizes["wide_at_top"] = box_side.figure(top_mm, laps, thickness_mm)
        pieces[key] = piece_of(name, trapezoid(wide.value, end, high.value), hex, count, **sizes)

    if isinstance(low, Cornered) and isinstance(flat, Cornered):
        butt = cover.corners == "butt"
        side("front", "Front and back", 2, low.width_mm, flat.width_mm, 0.0 if butt else 2.0)
        side("ends", "Left and right", 2, low.length_mm, flat.length_mm, 2.0)
    else:
        assert isinstance(low, Regular) and isinstance(flat, Regular)
        turn = math.tan(math.pi / low.sides)
        side("sides", "Side", low.sides, low.across_mm * turn, flat.across_mm * turn, 2 * turn)
    pieces["top"] = top_of(flat, thickness_mm, hex)
    return Way(pieces, True, {})


def _halves(asked: Asked, cover: Cover) -> Way:
    """One half and then the other, each from a sheet of its own, and a band along the seam."""
    halves = cover if isinstance(cover, HalvesCover) else HalvesCover()
    coated, practice = asked.coated, asked.practice
    overlap = chosen(halves.overlap_mm, practice.overlap_mm, "mm")
    band_mm = practice.band_mm if halves.band_mm is None else halves.band_mm
    hex = asked.hex_of(halves.colour)
    if isinstance(asked.tier.build, SideBuild):
        face = half_face.figure(coated.width_mm, coated.height_mm, overlap.value)
        pieces = {"half": piece_of("Half", circle(face.value), hex, 2, diameter=face)}
        seam = same("round the rim", tipped(coated, asked.tier, practice).rim_mm, "mm", "up")
    else:
        flat_mm = coated.flat_top.half_width_mm if coated.flat_top else 0.0
        long = half_long.figure(max(coated.girth_mm / 2, coated.width_mm), overlap.value)
        high = half_high.figure(coated.slant_mm, flat_mm, overlap.value)
        pieces = {"half": piece_of("Half", rectangle(long.value, high.value), hex, 2, long=long, high=high)}
        seam = band_length.figure(coated.slant_mm, 2 * flat_mm, coated.slant_mm)
    if band_mm:
        wide = chosen(halves.band_mm, practice.band_mm, "mm")
        pieces["band"] = piece_of("Band", rectangle(seam.value, band_mm), hex, 1, long=seam, wide=wide)
    return Way(pieces, True, {"overlap": overlap})


def _gores(asked: Asked, cover: Cover) -> Way:
    """Lens-shaped slices of any round body: at each way up from the foot, as wide as its share of the girth there."""
    assert isinstance(cover, GoresCover)
    coated = asked.coated
    if not isinstance(coated.outline, Round) or isinstance(asked.tier.build, SideBuild):
        return _drape(asked, cover)._replace(suits=False)
    middle = coated.envelope(asked.thickness.value / 2, asked.thickness.value / 2)
    points = _wall_of(middle)
    share = 2 * math.pi / cover.count / 2
    right = [(up, out * share) for up, out in points]
    edge = [(half, up, 0.0) for up, half in right] + [(-half, up, 0.0) for up, half in reversed(right)]
    corners = placed(
        [corner for index, corner in enumerate(edge) if not index or math.dist(corner[:2], edge[index - 1][:2]) > 1e-6]
    )
    hex = asked.hex_of(cover.colour)
    wide = gore_width.figure(middle.girth_mm, cover.count)
    long = same("up the wall, foot to tip", points[-1][0], "mm", "up")
    pieces = {"gore": piece_of("Gore", corners, hex, cover.count, wide=wide, long=long)}
    if coated.flat_top is not None:
        pieces["top"] = top_of(coated.flat_top, 0.0, hex)
    return Way(pieces, True, {})


def _wall_of(body: Body) -> list[tuple[float, float]]:
    """The wall of a round body as (way up from the foot, distance from the axis), without flat top or coated foot."""
    found: list[tuple[float, float]] = []
    way, before = 0.0, None
    for out, up in body.half_profile():
        if before is not None:
            if abs(up - before[1]) < 1e-9:
                before = (out, up)
                continue
            if not found:
                found.append((0.0, before[0]))
            way += math.dist((out, up), before)
            found.append((way, out))
        before = (out, up)
    return found


def _collar(asked: Asked, cover: Cover) -> Way:
    assert isinstance(cover, CollarCover)
    coated, practice = asked.coated, asked.practice
    overlap = chosen(cover.overlap_mm, practice.overlap_mm, "mm")
    above_mm = practice.collar_above_mm if cover.above_mm is None else cover.above_mm
    girth_mm = coated.outline.offset(asked.thickness.value / 2).perimeter_mm
    long = strip_length.figure(girth_mm, 1, overlap.value)
    high = collar_height.figure(coated.height_mm, above_mm)
    piece = piece_of("Paper", rectangle(long.value, high.value), asked.hex_of(cover.colour), 1, long=long, high=high)
    fold = Mark(name="top of the tier", x0=0, y0=coated.height_mm, x1=long.value, y1=coated.height_mm)
    suits = not isinstance(asked.tier.build, BallBuild | DomedBuild | TurnedBuild | TaperedBuild | SideBuild)
    return Way({"paper": piece.but(marks=[fold])}, False, {"overlap": overlap}, suits)


_WAYS: dict[str, Callable[[Asked, Cover], Way]] = {
    "drape": _drape,
    "panel": _panel,
    "box": _box,
    "halves": _halves,
    "gores": _gores,
    "collar": _collar,
}
"""Every way of covering with something rolled or spread, by its kind in the design."""
