"""A cover wrapped round the wall: straight strips, ring sectors, flat sides or a developed wall, and their stripes."""

import math
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from amber_spread.core.design.finishes import Cover, PanelCover, Stripe
from amber_spread.core.design.kinds import suits
from amber_spread.core.geometry.bodies.body import Carried, Sideways
from amber_spread.core.geometry.flat.develop import Facet, NotFlat, anticlockwise, facets_of, finer, split, unrolled
from amber_spread.core.geometry.flat.outline import Cornered, Outline, Oval, Point, Regular, Round
from amber_spread.core.geometry.flat.pieces import (
    Band,
    Corner,
    Mark,
    Piece,
    bounds,
    fits,
    piece_of,
    rectangle,
    sector,
    sector_about,
    size_of,
    trapezoid,
)
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.tier.coats.rules import across_slope
from amber_spread.core.tier.coats.side import tipped
from amber_spread.core.tier.cover.plan import Job, Way, carrier_of, top_of
from amber_spread.core.tier.cover.rules import (
    box_side,
    sector_angle,
    sector_inner,
    sector_outer,
    stretch,
    strip_count,
    strip_height,
    strip_length,
)

EVEN_MM = 0.5
"""A wall that narrows by less than this in all is taken as upright."""
MOST_STRIPS = 12
LOOKED_AT = 24
FACETS = 90
"""A curved wall is laid out in about so many facets."""
WAVE_MM = 6.0
"""How far an irregular edge between two stripes swings, at most (from memory)."""
At = Callable[[float, float], Point]
"""A place on a strip, by its shares of the way along and up."""


class Wall(NamedTuple):
    """A wall laid out flat: its pieces, its girth, and whether it lies smooth."""

    pieces: dict[str, Piece]
    girth_mm: float
    smooth: bool = True


class Strip(NamedTuple):
    """A strip of a developed wall: its edge at the foot, that at the top, and whether the foot's is the wide one."""

    foot: list[Point]
    top: list[Point]
    wide_at_foot: bool

    @property
    def edge(self) -> list[Corner]:
        """Once round the strip."""
        return [(x, y, 0.0) for x, y in (*self.foot, *reversed(self.top))]

    @property
    def wide_mm(self) -> float:
        """How long its wide edge is, mm."""
        wide = self.foot if self.wide_at_foot else self.top
        return sum(map(math.dist, wide, wide[1:]))


class Run(NamedTuple):
    """One strip as its stripes need it: a place on it, the shares of the girth it covers, and how much is trimmed."""

    at: At
    start: float
    end: float
    trimmed: float


def wrap(job: Job, cover: Cover) -> Way:
    """A strip round the wall, in as many pieces as the mat asks for, and the top piece over or inside its edge."""
    panel = cover if isinstance(cover, PanelCover) else PanelCover(top="over", colour=getattr(cover, "colour", None))
    coated, thickness_mm = job.coated, job.thickness.value
    overlap = job.tier.settled(panel, "overlap_mm")
    trim = job.tier.settled(panel, "trim_mm")
    laps_mm = thickness_mm if panel.top == "inside" else 0.0
    wall = _wall(job, panel, overlap.value, trim.value, laps_mm)
    pieces, flat = dict(wall.pieces), coated.flat_top
    covered = panel.top != "none" and flat is not None
    if covered and flat is not None:
        colour = panel.stripes[0].colour if panel.stripes else panel.colour
        count = 2 if job.build.on_side else 1
        lap_mm = level_thickness(job) if panel.top == "over" else 0.0
        pieces["top"] = top_of(flat, lap_mm, job.hex_of(colour), count, colour)
    pieces |= {f"carrier_{key}": carrier_of(piece, "acetate") for key, piece in wall.pieces.items()}
    own: dict[str, object] = {"overlap": overlap}
    if panel.strip_mm is not None:
        own["stretch"] = stretch.figure(wall.girth_mm, panel.strip_mm)
    return Way(pieces, covered, own, wall.smooth and suits("panel", job.build))


def _wall(job: Job, panel: PanelCover, overlap_mm: float, trim_mm: float, laps_mm: float) -> Wall:
    coated = job.coated
    if job.build.leaning and isinstance(coated, Carried):
        low, high = wall_ends(coated)
        if abs(high - low) > EVEN_MM:
            if isinstance(coated.base, Round):
                return _sector(job, panel, overlap_mm, trim_mm, laps_mm)
            sharp = isinstance(coated.base, Cornered | Regular) and not coated.base.corner_mm
            if not sharp:
                return _developed(job, panel, overlap_mm, trim_mm, laps_mm)
            if coated.flat_top is not None:
                return Wall(sides(job, panel, trim_mm + laps_mm), coated.girth_mm)
            return _straight(job, panel, overlap_mm, trim_mm, laps_mm)._replace(smooth=False)
    return _straight(job, panel, overlap_mm, trim_mm, laps_mm)


def wall_ends(body: Carried) -> tuple[float, float]:
    """How far out of the outline a leaning wall begins at its foot and would end at its top were its rim sharp, mm."""
    wall = next(piece for piece in body.profile if piece.face == "wall")
    return wall.out_at(body.foot_mm), wall.out_at(body.foot_mm + body.height_mm)


def level_thickness(job: Job) -> float:
    """How thick the sheet on the wall is along a level line: thicker than it is, where the wall leans."""
    if job.build.leaning and isinstance(job.coated, Carried):
        low, high = wall_ends(job.coated)
        return across_slope(job.thickness.value, math.atan2(abs(high - low), job.coated.height_mm))
    return job.thickness.value


def _hex(job: Job, panel: PanelCover) -> tuple[str | None, str]:
    colour = panel.stripes[0].colour if panel.stripes else panel.colour
    return colour, job.hex_of(colour)


def _longest_girth(body: Carried) -> float:
    """The longest way round a wall at any height: with creases it is not always the widest."""
    ups = (body.foot_mm + body.height_mm * (step + 0.001) / (LOOKED_AT + 0.002) for step in range(LOOKED_AT + 1))
    return max(body.section(up).perimeter_mm for up in ups)


def _straight(
    job: Job, panel: PanelCover, overlap_mm: float, trim_mm: float, laps_mm: float, least_mm: float = 0.0
) -> Wall:
    """A strip straight round the tier, as long as its widest girth and no shorter than `least_mm`."""
    coated = job.coated
    girth_mm = max(least_mm, coated.outline.offset(job.thickness.value / 2).perimeter_mm)
    if job.build.on_side:
        # Round the rim the sheet's middle runs outside the coat, and it ends at the flat of the foot all the same.
        drum = tipped(coated, job.tier)
        girth_mm = Sideways(drum.radius_mm + job.thickness.value / 2, drum.thick_mm, drum.centre_mm).rim_mm
        laps_mm *= 2
    mat_mm = max(job.mat.width_mm, job.mat.length_mm, 2 * overlap_mm + 1)
    count = strip_count.figure(girth_mm, mat_mm, overlap_mm)
    long = strip_length.figure(girth_mm, count.value, overlap_mm)
    high = strip_height.figure(coated.slant_mm if coated.flat_top else coated.height_mm, laps_mm, trim_mm)
    colour, hex = _hex(job, panel)
    wide, tall = long.value, high.value
    strip = piece_of("Panel", rectangle(wide, tall), hex, count.value, colour, long=long, high=high)
    if trim_mm:
        strip = strip.replace(marks=[Mark(name="trim to here", x0=0, y0=tall - trim_mm, x1=wide, y1=tall - trim_mm)])

    def at(along: float, up: float) -> Point:
        return along * wide, up * tall

    starts = [number / count.value for number in range(int(count.value))]
    runs = [Run(at, start, start + wide / girth_mm, trim_mm / tall) for start in starts]
    return Wall(_striped(job, panel, strip, runs), girth_mm)


def _striped(job: Job, panel: PanelCover, strip: Piece, runs: Sequence[Run], steps: int = 1) -> dict[str, Piece]:
    """A strip as often as there are runs, with its stripes; a piece to each where upright stripes run on round."""
    if not panel.stripes:
        return {"panel": strip}
    if panel.run == "round" or len(runs) == 1:
        return {"panel": strip.replace(bands=list(_bands(job, panel, runs[0], steps)))}
    one = carry_over("copies", 1, "each")
    return {
        f"panel_{number}": strip.replace(
            name=f"Panel {number}", count=one, sizes={**strip.sizes}, bands=list(_bands(job, panel, run, steps))
        )
        for number, run in enumerate(runs, 1)
    }


def _bands(job: Job, panel: PanelCover, run: Run, steps: int = 1) -> Iterator[Band]:
    """Every stripe across one strip, along its own way; upright ones go on from strip to strip, the lap among them."""
    shares = [stripe.share for stripe in panel.stripes]
    if panel.run == "round":
        whole, low = sum(shares), 0.0
        top = 1.0 - run.trimmed
        for index, share in enumerate(shares):
            last = index == len(shares) - 1
            high = 1.0 if last else low + share / whole * top
            edges = [_wave(panel, index, run), _wave(panel, index + 1, run)]
            edges = [edges[0] if index else _level, _level if last else edges[1]]
            below, above = (_line_across(run.at, share, edge) for share, edge in zip((low, high), edges, strict=True))
            yield _band(job, panel.stripes, index, [*below, *reversed(above)], below)
            low = high
        return
    for index, start, end in _round_and_on(shares, run.start, run.end):
        low, high = ((place - run.start) / (run.end - run.start) for place in (start, end))
        across = [low + (high - low) * step / steps for step in range(steps + 1)]
        corners = [run.at(low, 1.0), *(run.at(way, 0.0) for way in across)]
        corners.extend(run.at(way, 1.0) for way in reversed(across[1:]))
        yield _band(job, panel.stripes, index, corners, corners[1::-1])


def _band(job: Job, stripes: Sequence[Stripe], index: int, edge: Sequence[Point], join: Sequence[Point]) -> Band:
    colour = stripes[index].colour
    corners = [(x, y, 0.0) for x, y in edge]
    return Band(stripe=index + 1, colour=colour, hex=job.hex_of(colour), corners=corners, join=list(join))


def _round_and_on(shares: Sequence[float], start: float, end: float) -> Iterator[tuple[int, float, float]]:
    """The stripes from one share of the girth to another, the pattern beginning anew after each whole girth."""
    whole, place, index = sum(shares), 0.0, 0
    while place < end - 1e-9:
        after = place + shares[index % len(shares)] / whole
        low, high = max(place, start), min(after, end)
        if high - low > 1e-9:
            yield index % len(shares), low, high
        place, index = after, index + 1


def _level(_: float) -> float:
    return 0.0


def _wave(panel: PanelCover, number: int, run: Run) -> Callable[[float], float]:
    """How far, as a share of the height, an irregular edge swings off its level line: as much up as down."""
    if panel.stripe_edges == "straight" or not 0 < number < len(panel.stripes):
        return _level
    whole = sum(stripe.share for stripe in panel.stripes)
    next_to = min(panel.stripes[number - 1].share, panel.stripes[number].share) / whole
    tall = math.dist(run.at(0.0, 0.0), run.at(0.0, 1.0))
    swing = min(WAVE_MM / tall, 0.3 * next_to)
    turns = 5 + number % 3
    return lambda along: swing * math.sin(2 * math.pi * turns * along + number)


def _line_across(at: At, up: float, edge: Callable[[float], float], steps: int = 120) -> list[Point]:
    """A line along a strip at a share of its height, swinging by `edge`: two points where it runs straight."""
    straight = edge is _level and at(0.5, up)[1] == at(0.0, up)[1]
    shares = [0.0, 1.0] if straight else [step / steps for step in range(steps + 1)]
    return [at(share, up + edge(share)) for share in shares]


def _sector(job: Job, panel: PanelCover, overlap_mm: float, trim_mm: float, laps_mm: float) -> Wall:
    """The unrolled wall of a tapered round tier, in as many pieces as lie on the mat.

    What is trimmed stands at the top, be that its wide or its narrow edge.
    """
    coated = job.coated
    assert isinstance(coated, Carried)
    middle = coated.envelope(job.thickness.value / 2, 0.0)
    assert isinstance(middle, Carried)
    foot_mm, top_mm = (max(0.0, 2 * (middle.base.half_width_mm + out)) for out in wall_ends(middle))
    narrow_mm, wide_mm = sorted((foot_mm, top_mm))
    slant_mm = math.hypot((wide_mm - narrow_mm) / 2, middle.height_mm)
    beyond = trim_mm + laps_mm
    trims = (0.0, beyond) if top_mm == narrow_mm else (beyond, 0.0)
    outer = sector_outer.figure(slant_mm, wide_mm, narrow_mm, trims[0])
    inner = sector_inner.figure(slant_mm, wide_mm, narrow_mm, trims[1])
    for strips in range(1, MOST_STRIPS + 1):
        angle = sector_angle.figure(wide_mm, narrow_mm, slant_mm, strips, overlap_mm, outer.value - trims[0])
        corners = sector(inner.value, outer.value, math.radians(angle.value)) if angle.value < 350 else []
        if corners and fits(*size_of(corners), (job.mat.width_mm, job.mat.length_mm)):
            break
    box = size_of(corners)
    colour, hex = _hex(job, panel)
    piece = piece_of(
        "Panel", corners, hex, strips, colour, outer=outer, inner=inner, angle=angle,
        box_long=carry_over("box round it, long", box[0], "mm", "up"),
        box_high=carry_over("box round it, high", box[1], "mm", "up"),
    )  # fmt: skip
    turn = math.radians(angle.value)
    left, bottom, _, _ = bounds(sector_about(inner.value, outer.value, turn))
    from_foot = (outer.value, inner.value) if top_mm == narrow_mm else (inner.value, outer.value)

    def at(along: float, up: float) -> Point:
        radius, way = from_foot[0] + (from_foot[1] - from_foot[0]) * up, turn / 2 - along * turn
        return -radius * math.sin(way) - left, radius * math.cos(way) - bottom

    whole = math.radians(180 * (wide_mm - narrow_mm) / slant_mm)
    girth_mm = math.pi * wide_mm
    runs = [
        Run(at, strip / strips, strip / strips + turn / whole, beyond and trim_mm / (outer.value - inner.value))
        for strip in range(strips)
    ]
    return Wall(_striped(job, panel, piece, runs, steps=24), girth_mm)


def sides(job: Job, cover: Cover, beyond_mm: float = 0.0, corners: str = "mitre") -> dict[str, Piece]:
    """A flat piece to each side of a tier with sharp corners: rectangles, or trapezoids where it tapers.

    Each laps its neighbours by the sheet's thickness along a level line: mitred, by half the turn of the corner at
    both ends; butted, one pair laps the other. `beyond_mm` is carried on at the top, to be trimmed.
    """
    coated, thick_mm = job.coated, level_thickness(job)
    colour = getattr(cover, "colour", None)
    stripes = cover.stripes if isinstance(cover, PanelCover) else ()
    if stripes:
        colour = stripes[0].colour
    hex, slant_mm = job.hex_of(colour), coated.slant_mm
    low, top = coated.section(coated.foot_mm), coated.flat_top
    assert top is not None
    high = (
        strip_height.figure(slant_mm, 0.0, beyond_mm) if beyond_mm else carry_over("up the wall", slant_mm, "mm", "up")
    )
    pieces: dict[str, Piece] = {}
    upright = bool(stripes) and isinstance(cover, PanelCover) and cover.run == "upright"

    def side(key: str, name: str, count: int, ends: tuple[float, float], laps: float, start: float) -> None:
        foot_mm, top_mm = ends
        on_mm = foot_mm + (top_mm - foot_mm) * high.value / slant_mm
        wide = box_side.figure(foot_mm, laps, thick_mm)
        end = box_side.figure(on_mm, laps, thick_mm)
        sizes: dict[str, Figure] = {"wide": wide, "high": high}
        if abs(on_mm - foot_mm) > 0.05:
            sizes["wide_at_top"] = end
        edge = trapezoid(wide.value, max(0.0, end.value), high.value)
        piece = piece_of(name, edge, hex, count, colour, **sizes)
        if beyond_mm:
            up = high.value - beyond_mm
            piece = piece.replace(marks=[Mark(name="trim to here", x0=0, y0=up, x1=piece.size[0], y1=up)])
        if isinstance(cover, PanelCover) and stripes:
            run = Run(_on_trapezoid(edge), start, start + foot_mm / coated.girth_mm, beyond_mm / high.value)
            piece = piece.replace(bands=list(_bands(job, cover, run)))
        pieces[key] = piece

    if isinstance(low, Cornered) and isinstance(top, Cornered):
        girth = 2 * (low.width_mm + low.length_mm)
        across, along = (low.width_mm, top.width_mm), (low.length_mm, top.length_mm)
        if upright:
            walked = 0.0
            for name, ends in (("Front", across), ("Right", along), ("Back", across), ("Left", along)):
                side(name.lower(), name, 1, ends, 2.0, walked / girth)
                walked += ends[0]
        else:
            side("front", "Front and back", 2, across, 0.0 if corners == "butt" else 2.0, 0.0)
            side("ends", "Left and right", 2, along, 2.0, low.width_mm / girth)
    else:
        assert isinstance(low, Regular) and isinstance(top, Regular)
        turn = math.tan(math.pi / low.sides)
        ends = (low.across_mm * turn, top.across_mm * turn)
        if upright:
            for number in range(low.sides):
                side(f"side_{number + 1}", f"Side {number + 1}", 1, ends, 2 * turn, number / low.sides)
        else:
            side("sides", "Side", low.sides, ends, 2 * turn, 0.0)
    return pieces


def _on_trapezoid(edge: Sequence[Corner]) -> At:
    (ax, ay, _), (bx, by, _), (cx, cy, _), (dx, dy, _) = edge

    def at(along: float, up: float) -> Point:
        left = (ax + (dx - ax) * up, ay + (dy - ay) * up)
        right = (bx + (cx - bx) * up, by + (cy - by) * up)
        return left[0] + (right[0] - left[0]) * along, left[1] + (right[1] - left[1]) * along

    return at


def _developed(job: Job, panel: PanelCover, overlap_mm: float, trim_mm: float, laps_mm: float) -> Wall:
    """The wall of a tapered oval, heart, petal or drawn tier laid out flat, in as many strips as lie on the mat.

    Where an edge is gone before the narrow end is reached, or a crease opens on the way, no one strip lies smooth: then
    it is cut as a straight panel, which says so.
    """
    coated = job.coated
    assert isinstance(coated, Carried)
    middle = coated.envelope(job.thickness.value / 2, 0.0)
    assert isinstance(middle, Carried)
    beyond = trim_mm + laps_mm
    low, high = wall_ends(middle)
    rise = middle.height_mm
    slant_mm = math.hypot(high - low, rise)
    more = 1 + beyond / slant_mm
    high, rise = low + (high - low) * more, rise * more
    narrow_on_top = high < low
    try:
        wide = _traced(middle.base.offset(max(low, high)))
        facets = finer(facets_of(wide, abs(high - low), rise, max(low, high) > 0), middle.girth_mm / FACETS)
    except (NotFlat, ValueError):
        girth_mm = _longest_girth(middle)
        return _straight(job, panel, overlap_mm, trim_mm, laps_mm, girth_mm)._replace(smooth=False)
    girth_mm = sum(facet.wide for facet in facets)
    mat = (job.mat.width_mm, job.mat.length_mm)
    for strips in range(1, MOST_STRIPS + 1):
        shapes = [_laid_flat(own, narrow_on_top) for own in split(facets, strips, overlap_mm)]
        boxes = [size_of(shape.edge) for shape in shapes]
        if all(fits(*box, mat) for box in boxes):
            break
    colour, hex = _hex(job, panel)
    pieces: dict[str, Piece] = {}
    for number, (shape, box) in enumerate(zip(shapes, boxes, strict=True), 1):
        name = "Panel" if strips == 1 else f"Panel {number}"
        piece = piece_of(
            name,
            shape.edge,
            hex,
            1,
            colour,
            girth=carry_over("along its wide edge", shape.wide_mm, "mm", "up"),
            slant=carry_over("up the slope, what is trimmed among it", slant_mm + beyond, "mm", "up"),
            box_long=carry_over("box round it, long", box[0], "mm", "up"),
            box_high=carry_over("box round it, high", box[1], "mm", "up"),
        )
        if panel.stripes:
            start = (number - 1) / strips
            run = Run(_on_strip(shape), start, start + shape.wide_mm / girth_mm, trim_mm / (slant_mm + beyond))
            piece = piece.replace(bands=list(_bands(job, panel, run, steps=60)))
        pieces["panel" if strips == 1 else f"panel_{number}"] = piece
    return Wall(pieces, girth_mm)


def _traced(outline: Outline) -> list[Point]:
    points = outline.traced(FACETS) if isinstance(outline, Oval) else outline.points
    return anticlockwise(points)


def _laid_flat(facets: Sequence[Facet], narrow_on_top: bool) -> Strip:
    """A strip stood as it goes on, the corner of its box at 0, 0."""
    wide, narrow = unrolled(facets)
    middle, first = wide[len(wide) // 2], wide[0]
    # Turned so that the strip lies level about its middle, its foot below.
    lean = math.atan2(wide[-1][1] - first[1], wide[-1][0] - first[0])
    sign = 1.0 if narrow_on_top else -1.0
    cos, sin = math.cos(lean), math.sin(lean)

    def turned(point: Point) -> Point:
        x, y = point[0] - middle[0], point[1] - middle[1]
        return x * cos + y * sin, sign * (y * cos - x * sin)

    wide, narrow = [turned(point) for point in wide], [turned(point) for point in narrow]
    left, bottom = (min(point[axis] for point in (*wide, *narrow)) for axis in (0, 1))
    wide, narrow = ([(x - left, y - bottom) for x, y in line] for line in (wide, narrow))
    return Strip(wide, narrow, True) if narrow_on_top else Strip(narrow, wide, False)


def _on_strip(strip: Strip) -> At:
    def along_line(line: Sequence[Point], share: float) -> Point:
        lengths = [math.dist(low, high) for low, high in zip(line, line[1:], strict=False)]
        left = share * sum(lengths)
        for (x0, y0), (x1, y1), length in zip(line, line[1:], lengths, strict=False):
            if left <= length and length > 0:
                return x0 + (x1 - x0) * left / length, y0 + (y1 - y0) * left / length
            left -= length
        return line[-1]

    def at(along: float, up: float) -> Point:
        low, high = along_line(strip.foot, along), along_line(strip.top, along)
        return low[0] + (high[0] - low[0]) * up, low[1] + (high[1] - low[1]) * up

    return at
