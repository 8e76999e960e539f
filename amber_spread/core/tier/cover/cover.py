"""Covering one tier: what to roll, cut or print, what stays, what is trimmed, and where the pieces lie on the mat."""

import math
from collections.abc import Callable, Iterator
from typing import NamedTuple

from amber_spread.core.design.finishes import (
    BoxCover,
    CollarCover,
    Cover,
    DrapeCover,
    GoresCover,
    HalvesCover,
    NoCover,
    PanelCover,
    PatchesCover,
    PrintedCover,
)
from amber_spread.core.design.kinds import suits
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import Body, Sideways, Straight
from amber_spread.core.geometry.flat.outline import Cornered, Regular, Round, cornered_area, round_area
from amber_spread.core.geometry.flat.pieces import (
    Mark,
    Piece,
    area_of,
    circle,
    fits,
    lay_out,
    piece_of,
    placed,
    rectangle,
)
from amber_spread.core.geometry.sheets.reach import reach_over
from amber_spread.core.kernel.figures import Figure, carry_over, of_parts, parts_rule, total
from amber_spread.core.stock.kit import Mat
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.coats.coats import CoatPlan, add_coat
from amber_spread.core.tier.coats.rules import coat_volume
from amber_spread.core.tier.coats.side import tipped
from amber_spread.core.tier.cover.draped import gives_over, hem_of, plan_halves
from amber_spread.core.tier.cover.panel import level_thickness, sides, wrap
from amber_spread.core.tier.cover.patched import plan_patches
from amber_spread.core.tier.cover.plan import (
    ColourShare,
    CoverPlan,
    Job,
    Way,
    band_over,
    carrier_of,
    on_mat,
    roll_margin,
    top_of,
    within_margin,
)
from amber_spread.core.tier.cover.printed import plan_printed
from amber_spread.core.tier.cover.rules import (
    band_length,
    collar_height,
    collar_volume,
    gather,
    gather_over_profile,
    gore_width,
    half_face,
    half_high,
    half_long,
    piece_weight,
    roll_diameter,
    roll_side,
    roll_to_reach,
    rolled_weight,
    sheet_short,
    strip_length,
    stripe_weight,
    trimmed_weight,
)

_FLAT_AREA = parts_rule(
    "cover.pieces.area",
    "What must be rolled for each piece: the box or circle round it, and the margin cut away.",
    "sum",
    "geometry",
)  # fmt: skip


def plan_cover(
    tier: SettledTier,
    media: dict[str, Medium],
    coated: Body,
    mat: Mat,
    hex_of: Callable[[str, str | None], str],
) -> tuple[CoverPlan | None, Body]:
    """The cover over the coated body, and the body after it. `hex_of` gives the colour a medium is mixed to."""
    cover = tier.asked.cover
    if isinstance(cover, NoCover):
        return None, coated
    if isinstance(cover, PrintedCover):
        return plan_printed(cover, coated, tier), coated
    thickness = tier.cover
    assert thickness is not None
    medium = media[cover.medium]
    margin_mm = roll_margin(tier)
    job = Job(tier, coated, thickness, medium, media, hex_of, within_margin(mat, margin_mm))
    way = _WAYS[cover.kind](job, cover)
    own = way.own
    top = thickness if way.top_covered else carry_over("nothing on top", 0.0, "mm")
    under = thickness if tier.asked.build.on_side and way.top_covered else None
    over, covered = add_coat(coated, thickness, top, medium, under=under)
    if tier.asked.build.on_side:
        over = _on_its_side(over, coated, covered, tier, medium)
    if isinstance(cover, CollarCover):
        paper = way.pieces["paper"].sizes
        volume = collar_volume.figure(paper["long"].value, paper["high"].value, thickness.value, cover.spread)
        over = over.replace(volume=volume, weight=weight.figure(volume.value, medium.density_g_per_ml))
    rolled_mm2 = dict(_rolled_areas(way.pieces, margin_mm))
    if isinstance(cover, CollarCover):
        rolled_mm2 = {"paper_spread": rolled_mm2["paper"] * cover.spread}
    parts = {key.replace("_", " "): each for key, each in rolled_mm2.items()}
    area = of_parts(_FLAT_AREA, sum(parts.values()), parts, "mm2")
    rolled = rolled_weight.figure(area.value, thickness.value, medium.density_g_per_ml)
    if len({piece.medium for piece in way.pieces.values()}) > 1:
        over, rolled = _of_several(over, way, rolled_mm2, job)
    seams = {way.pieces[key].name.lower(): _piece_g(way.pieces[key], job) for key in way.over}
    stays = total({"over the tier": over.weight.value, **seams}, "g")
    wall = _striped_wall(way.pieces, rolled_mm2, job)
    plan = CoverPlan(
        kind=cover.kind,
        suits=way.suits,
        width_over_coat=carry_over("width over the coat", coated.width_mm, "mm"),
        height_over_coat=carry_over("height over the coat", coated.height_mm, "mm"),
        overlap=own.pop("overlap", None),  # type: ignore[arg-type]
        roll_area=area,
        rolled_weight=rolled,
        trimmed_weight=trimmed_weight.figure(rolled.value, stays.value),
        over=over,
        stays=stays,
        stripes=_stripe_weights(wall) if wall else {},
        colours=_by_colour(way.pieces, wall, rolled_mm2, rolled.value, stays.value, job, cover.colour),
        pieces=way.pieces,
        laid=lay_out(way.pieces, mat.width_mm, mat.length_mm),
        on_mat=isinstance(cover, CollarCover) or all(on_mat(piece, job.mat) for piece in way.pieces.values()),
        **own,  # type: ignore[arg-type]
    )
    return plan, covered


def _on_its_side(over: CoatPlan, coated: Body, covered: Body, tier: SettledTier, medium: Medium) -> CoatPlan:
    """The cover of a drum that already stands on its foot: nothing goes where the slice was cut off."""
    inner = tipped(coated, tier)
    outer = Sideways(covered.width_mm / 2, covered.height_mm, inner.centre_mm)
    volume = coat_volume.figure(outer.volume_ml, inner.volume_ml)
    return over.replace(volume=volume, weight=weight.figure(volume.value, medium.density_g_per_ml))


def _of_several(over: CoatPlan, way: Way, rolled_mm2: dict[str, float], job: Job) -> tuple[CoatPlan, Figure]:
    """What lies on the tier and what is rolled for it where pieces are cut from several media: each by its own."""
    sheets = [piece for key, piece in way.pieces.items() if key in rolled_mm2 and key not in way.over]
    areas = [area_of(piece.corners) * piece.count.value for piece in sheets]
    mean = sum(area * job.density_of(one) for area, one in zip(areas, sheets, strict=True)) / sum(areas)
    rolled = {
        way.pieces[key].name.lower(): rolled_weight(each, job.thickness.value, job.density_of(way.pieces[key]))
        for key, each in rolled_mm2.items()
    }
    return over.replace(weight=weight.figure(over.volume.value, mean)), total(rolled, "g")


def _piece_g(piece: Piece, job: Job) -> float:
    area_mm2 = area_of(piece.corners) * piece.count.value
    return piece_weight(area_mm2, job.thickness.value, job.density_of(piece))


def _rolled_areas(pieces: dict[str, Piece], margin_mm: float) -> Iterator[tuple[str, float]]:
    """What has to be rolled for each piece: a circle for a circle, else the box round it, and the margin all round."""
    for key, piece in pieces.items():
        if piece.stuff != "sheet":
            continue
        wide, high = (side + 2 * margin_mm for side in piece.size)
        each = round_area(wide) if len(piece.corners) == 2 else cornered_area(wide, high, 0.0)
        yield key, piece.count.value * each


Of = tuple[str, str | None]
"""A medium and a colour of it."""


class StripedWall(NamedTuple):
    """The pieces a striped wall is cut in: what is rolled for them, g, and each stripe's colour and area, mm²."""

    keys: tuple[str, ...]
    rolled_g: float
    colours: dict[int, str | None]
    areas: dict[int, float]

    @property
    def shares(self) -> dict[int, float]:
        """The share of the wall each stripe takes, by its number."""
        whole = sum(self.areas.values())
        return {number: area / whole for number, area in self.areas.items()}


def _striped_wall(pieces: dict[str, Piece], rolled_mm2: dict[str, float], job: Job) -> StripedWall | None:
    keys = tuple(key for key, piece in pieces.items() if piece.bands)
    if not keys:
        return None
    colours: dict[int, str | None] = {}
    areas: dict[int, float] = {}
    for piece in map(pieces.__getitem__, keys):
        for band in piece.bands:
            colours[band.stripe] = band.colour
            areas[band.stripe] = areas.get(band.stripe, 0.0) + area_of(band.corners) * piece.count.value
    wall_mm2 = sum(rolled_mm2[key] for key in keys)
    grams = rolled_weight(wall_mm2, job.thickness.value, job.medium.density_g_per_ml)
    return StripedWall(keys, grams, colours, areas)


def _stripe_weights(wall: StripedWall) -> dict[str, Figure]:
    """What to roll of each stripe's log, by its share of the striped pieces."""
    return {
        f"stripe_{number}": stripe_weight.figure(wall.rolled_g, 100 * share, 100.0)
        for number, share in sorted(wall.shares.items())
    }


def _by_colour(
    pieces: dict[str, Piece],
    wall: StripedWall | None,
    rolled_mm2: dict[str, float],
    rolled_g: float,
    stays_g: float,
    job: Job,
    colour: str | None,
) -> dict[str, ColourShare]:
    """What is rolled, what stays and what is trimmed of each colour: a striped wall by its stripes, the rest piece by
    piece where they differ, else whole.
    """
    rolled: dict[Of, dict[str, float]] = {}
    stays: dict[Of, dict[str, float]] = {}
    own = job.medium.key

    def put(into: dict[Of, dict[str, float]], of: Of, what: str, grams: float) -> None:
        parts = into.setdefault(of, {})
        parts[what] = parts.get(what, 0.0) + grams

    sheets = {key: piece for key, piece in pieces.items() if piece.stuff == "sheet"}
    alike = {(piece.medium or own, piece.colour) for piece in sheets.values()}
    if wall is None and len(alike) <= 1:
        # What is spread on paper has no sheets of its own.
        (of,) = alike or {(own, colour)}
        put(rolled, of, "all pieces", rolled_g)
        put(stays, of, "the whole cover", stays_g)
        wall_g = 0.0
    else:
        whole_g = {key: _piece_g(piece, job) for key, piece in sheets.items() if wall is None or key not in wall.keys}
        wall_g = 0.0 if wall is None else stays_g - sum(whole_g.values())
        # What a sheet is cut or drawn to lie as it does is shared out among the pieces.
        share = (stays_g - wall_g) / sum(whole_g.values()) if whole_g else 1.0
        for key, grams in whole_g.items():
            one = sheets[key]
            of = one.medium or own, one.colour
            out_g = rolled_weight(rolled_mm2[key], job.thickness.value, job.density_of(one))
            put(rolled, of, one.name.lower(), out_g)
            put(stays, of, one.name.lower(), grams * share)
    if wall is not None:
        for number, share in wall.shares.items():
            put(rolled, (own, wall.colours[number]), f"stripe {number}", wall.rolled_g * share)
            put(stays, (own, wall.colours[number]), f"stripe {number}", wall_g * share)
    found = {}
    for number, ((stuff, name), parts) in enumerate(rolled.items(), 1):
        out, left = total(parts, "g"), total(stays[stuff, name], "g")
        found[f"colour_{number}"] = ColourShare(
            medium=stuff,
            colour=name,
            hex=job.hex_of(name, stuff),
            rolled=out,
            stays=left,
            trimmed=trimmed_weight.figure(out.value, left.value),
        )
    return found


def _drape(job: Job, cover: Cover) -> Way:
    """One sheet over the whole tier: a circle, a square or a rectangle, whichever is least of those the mat holds."""
    if job.build.on_side:
        return _halves(job, HalvesCover(medium=job.medium.key, colour=getattr(cover, "colour", None)))._replace(
            suits=False
        )
    drape = cover if isinstance(cover, DrapeCover) else DrapeCover()
    overlap = job.tier.settled(drape, "overlap_mm")
    across, width, length, own = _reached(job, overlap.value)
    square = max(width, length, key=lambda side: side.value)
    ways = [
        ("circle", across, across, round_area(across.value)),
        ("square", square, square, cornered_area(square.value, square.value, 0.0)),
        ("rectangle", width, length, cornered_area(width.value, length.value, 0.0)),
    ]
    mat = (job.mat.width_mm, job.mat.length_mm)
    if drape.sheet is not None:
        ways = [way for way in ways if way[0] == drape.sheet]
    kind, wide, long, _ = min(ways, key=lambda way: (not fits(way[1].value, way[2].value, mat), way[3]))
    hex, colour = job.hex_of(getattr(cover, "colour", None)), getattr(cover, "colour", None)
    if kind == "circle":
        piece = piece_of("Sheet", circle(wide.value), hex, colour=colour, diameter=wide)
    else:
        piece = piece_of("Sheet", rectangle(wide.value, long.value), hex, colour=colour, width=wide, length=long)
    piece = piece.replace(marks=hem_of(job, (wide.value / 2, long.value / 2)))
    needed_mm = min(wide.value, long.value) - 2 * overlap.value
    own |= {
        "overlap": overlap,
        "roll_diameter": wide if kind == "circle" else None,
        "roll_width": None if kind == "circle" else wide,
        "roll_length": None if kind == "circle" else long,
        "short": sheet_short.figure(needed_mm, drape.rolled_mm)
        if drape.rolled_mm is not None and drape.rolled_mm < needed_mm
        else None,
    }
    return Way({"sheet": piece}, True, own, suits("drape", job.build))


def _reached(job: Job, overlap_mm: float) -> tuple[Figure, Figure, Figure, dict[str, object]]:
    """How wide a circle, and how wide and long a rectangle over a tier is; and how its hem gathers."""
    coated = job.coated
    if isinstance(coated, Straight):
        return (
            roll_diameter.figure(2 * coated.outline.reach_mm, coated.height_mm, overlap_mm),
            roll_side.figure(coated.width_mm, coated.height_mm, overlap_mm),
            roll_side.figure(coated.length_mm, coated.height_mm, overlap_mm),
            {"gather": gather.figure(coated.girth_mm, coated.height_mm)},
        )
    across, width, length = (roll_to_reach.figure(way, overlap_mm) for way in reach_over(coated))
    own = gives_over(job)
    if own is None:
        flat, foot = coated.flat_top, coated.section(coated.foot_mm + 0.01 * coated.height_mm).perimeter_mm
        top_mm = flat.perimeter_mm if flat else 0.0
        own = {"gather": gather_over_profile.figure(top_mm, coated.slant_mm, max(1.0, foot))}
    return across, width, length, own


def _box(job: Job, cover: Cover) -> Way:
    """A flat piece to each side and one on top; rectangles, or trapezoids where the tier tapers."""
    assert isinstance(cover, BoxCover)
    foot, flat = job.coated.outline, job.coated.flat_top
    cornered = isinstance(foot, Cornered | Regular) and not foot.corner_mm
    if not (suits("box", job.build) and cornered) or flat is None:
        return wrap(job, PanelCover(top="over", colour=cover.colour))._replace(suits=False)
    hex = job.hex_of(cover.colour)
    pieces = sides(job, cover, corners=cover.corners)
    pieces["top"] = top_of(flat, level_thickness(job), hex, colour=cover.colour)
    return Way(pieces, True, {})


def _halves(job: Job, cover: Cover) -> Way:
    """One half and then the other, each from a sheet of its own, and a band along the seam, which runs the long way."""
    halves = cover if isinstance(cover, HalvesCover) else HalvesCover()
    coated = job.coated
    if (way := plan_halves(job, halves)) is not None:
        return way
    overlap = job.tier.settled(halves, "overlap_mm")
    wide = job.tier.settled(halves, "band_mm")
    colour, hex = halves.colour, job.hex_of(halves.colour)
    if job.build.on_side:
        face = half_face.figure(coated.width_mm, coated.height_mm, overlap.value)
        pieces = {"half": piece_of("Half", circle(face.value), hex, 2, colour, diameter=face)}
        seam = carry_over("round the rim", tipped(coated, job.tier).rim_mm, "mm", "up")
    else:
        reach, top = reach_over(coated), coated.flat_top
        short_mm, long_mm = sorted((top.half_width_mm, top.half_length_mm)) if top else (0.0, 0.0)
        down_mm = max(min(reach.across, reach.along) - short_mm, coated.slant_mm)
        long = half_long.figure(max(coated.girth_mm / 2, coated.width_mm, coated.length_mm), overlap.value)
        high = half_high.figure(down_mm, short_mm, overlap.value)
        pieces = {"half": piece_of("Half", rectangle(long.value, high.value), hex, 2, colour, long=long, high=high)}
        seam = band_length.figure(down_mm, 2 * long_mm, down_mm)
    band = {"band": band_over("Band", seam, wide, job, colour)} if wide.value else {}
    return Way(pieces | band, True, {"overlap": overlap}, suits("halves", job.build), tuple(band))


def _gores(job: Job, cover: Cover) -> Way:
    """Lens-shaped slices of any round body: at each way up from the foot, as wide as its share of the girth there."""
    assert isinstance(cover, GoresCover)
    coated = job.coated
    if not isinstance(coated.outline, Round) or job.build.on_side:
        return _drape(job, cover)._replace(suits=False)
    # Gores stand as high as the coat where a piece on the flat top laps over their ends.
    flat, half_mm = coated.flat_top, job.thickness.value / 2
    middle = coated.envelope(half_mm, half_mm if flat is None else 0.0)
    points = _wall_of(middle)
    share = 2 * math.pi / cover.count / 2
    right = [(up, out * share) for up, out in points]
    edge = [(half, up, 0.0) for up, half in right] + [(-half, up, 0.0) for up, half in reversed(right)]
    corners = placed(
        [corner for index, corner in enumerate(edge) if not index or math.dist(corner[:2], edge[index - 1][:2]) > 1e-6]
    )
    hex = job.hex_of(cover.colour)
    wide = gore_width.figure(middle.girth_mm, cover.count)
    long = carry_over("up the wall, foot to tip", points[-1][0], "mm", "up")
    pieces = {"gore": piece_of("Gore", corners, hex, cover.count, cover.colour, wide=wide, long=long)}
    if flat is not None:
        pieces["top"] = top_of(flat, level_thickness(job), hex, colour=cover.colour)
    return Way(pieces, True, {}, suits("gores", job.build))


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


def _patches(job: Job, cover: Cover) -> Way:
    assert isinstance(cover, PatchesCover)
    return plan_patches(job, cover) or _drape(job, cover)._replace(suits=False)


def _collar(job: Job, cover: Cover) -> Way:
    assert isinstance(cover, CollarCover)
    coated = job.coated
    overlap = job.tier.settled(cover, "overlap_mm")
    above = job.tier.settled(cover, "above_mm")
    girth_mm = coated.outline.offset(job.thickness.value / 2).perimeter_mm
    long = strip_length.figure(girth_mm, 1, overlap.value)
    high = collar_height.figure(coated.height_mm, above.value)
    hex = job.hex_of(cover.colour)
    piece = piece_of("Chocolate", rectangle(long.value, high.value), hex, 1, cover.colour, long=long, high=high)
    edge = Mark(name="top of the tier", x0=0, y0=coated.height_mm, x1=long.value, y1=coated.height_mm)
    pieces = {"paper": piece.replace(marks=[edge])}
    pieces["carrier_paper"] = carrier_of(piece, "paper")
    return Way(pieces, False, {"overlap": overlap, "above": above}, suits("collar", job.build))


_WAYS: dict[str, Callable[[Job, Cover], Way]] = {
    "drape": _drape,
    "panel": wrap,
    "box": _box,
    "halves": _halves,
    "gores": _gores,
    "patches": _patches,
    "collar": _collar,
}
"""Every way of covering with something rolled or spread, by its kind in the design."""
