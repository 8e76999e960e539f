"""Carving a tier to its views: what to cut every layer to, how far the knife moves up it, and what hangs over.

Layers lie flat, with the fillings between them, so each is cut to a template of its own before they are stacked, or
along it once they are; what the outline does between its two faces is then carved by eye, along the board of the view
from the side.
"""

import math
from collections.abc import Iterator
from typing import NamedTuple

import shapely
from shapely import Point as Point2
from shapely import Polygon, get_coordinates, unary_union

from amber_spread.core.design.shapes import CarvedBuild
from amber_spread.core.geometry.flat import Corner, Mark, Piece, placed
from amber_spread.core.geometry.outline import Point
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.traced import Region, Traced
from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.figures import GEOMETRY, Figure, rule, same
from amber_spread.core.tier.coats import CoatsPlan
from amber_spread.core.tier.slabs import Slab

PAPER_HEX = "#FFFDF7"
LOOKED_AT = 5
"""A layer is looked at at so many heights, since it may be widest between its faces."""
DRAWN_MM = 0.15
"""Templates leave out corners that stand out by less: no knife follows them (common practice)."""
CRUMB_MM2 = 25.0
"""A part of a slice smaller than this is a crumb."""
CROSS_MM = 6.0
STEP_MM = 4.0


class SlicePlan(Made):
    """One layer as it is carved: between which heights, how large at its widest, and what is left of it.

    `circle` is the least round it, `least` the sides of the least rectangle. `moves` is the farthest its outline goes
    in or out between its two faces, `hangs` how far it reaches out beyond what it lies on. `whole` is all of it from
    above about the axis, `bottom` and `top` its faces, a ring a part; `pieces` are its templates.
    """

    number: int
    low: Figure
    high: Figure
    wide: Figure
    long: Figure
    circle: Figure
    least: tuple[float, float]
    area: Figure
    girth: Figure
    volume: Figure
    moves: Figure
    hangs: Figure
    whole: list[list[Point]]
    bottom: list[list[Point]]
    top: list[list[Point]]
    pieces: dict[str, Piece]


class CarvingPlan(Made):
    """A carved tier: its slices from the foot up, its view from the side to hold against it, what it stands on, and
    what its coats would come to by its surface alone. `front_agrees` is how long the tin would be for the
    view from the front to agree with the one from the side, where there is one.
    """

    slices: dict[str, SlicePlan]
    view: Piece
    foot: Figure
    footprint: Figure
    surface: Figure
    coats: Figure
    by_surface: Figure
    front_agrees: Figure | None


@rule(
    "carve.by_surface", unit="ml", formula="surface * (crumb + final) / 1000",
    words="All of its surface, times both coats. What a coat takes differs: it runs together in hollows, and goes "
    "farther round over edges.",
)  # fmt: skip
def by_surface(surface_mm2: float, crumb_mm: float, final_mm: float) -> float:
    """What coats of a carved body would take by its surface, ml: surface x thickness. Source: geometry.

    >>> by_surface(100000, 2, 6)
    800.0
    """
    return surface_mm2 * (crumb_mm + final_mm) / 1000


@rule(
    "carve.front_agrees", unit="mm", formula="high * front / up", source=GEOMETRY,
    words="A view from the front, drawn as high as the cake is, is so wide.",
)  # fmt: skip
def front_agrees(high_mm: float, front_mm: float, up_mm: float) -> float:
    """How long a cake is that agrees with its view from the front, mm: its height x width / height of the view.

    Source: geometry.

    >>> front_agrees(90, 120, 60)
    180.0
    """
    return high_mm * front_mm / up_mm


def _front_agrees(build: CarvedBuild, bare: Sculpted) -> Figure | None:
    if build.front_mm is None:
        return None
    left, low, right, high = Polygon(build.front_mm).bounds
    return front_agrees.figure(bare.core.height_mm, right - left, high - low)


def plan_carving(build: CarvedBuild, bare: Sculpted, slabs: list[Slab], coats: CoatsPlan) -> CarvingPlan:
    """The slices of a carved tier. `bare` is its body without coats, `slabs` what lies at which height in it."""
    layers = tuple((slab.number, slab.low, slab.high) for slab in slabs if slab.kind == "layer")
    cuts = bare.core.keep("cuts", layers, lambda: _cuts(bare, layers))
    surface = same("all that is coated", bare.wall_area_mm2 + bare.top_area_mm2, "mm2", "up")
    final_mm = max(0.0, coats.final.side.value) if coats.final else 0.0
    both = coats.crumb.volume.value + (coats.final.volume.value if coats.final else 0.0)
    return CarvingPlan(
        slices={f"layer_{cut.number}": _slice(bare, cut) for cut in cuts},
        view=_board_of(bare.core.side),
        foot=same("on the board", cuts[0].foot_mm2, "mm2", "down"),
        footprint=same("seen from above", bare.outline.area_mm2, "mm2"),
        surface=surface,
        coats=same("both coats", both, "ml", "up"),
        front_agrees=_front_agrees(build, bare),
        by_surface=by_surface.figure(surface.value, coats.crumb.side.value, final_mm),
    )


class _Cut(NamedTuple):
    """A layer as it is cut out of a body: its measures in mm and mm², its rings from above, and its templates as their
    name, edge and marks. `foot_mm2` is what of it lies on the board or the layer below at its lower face.
    """

    number: int
    low: float
    high: float
    foot_mm2: float
    wide: float
    long: float
    circle: float
    least: tuple[float, float]
    area: float
    girth: float
    moves: float
    hangs: float
    whole: list[list[Point]]
    bottom: list[list[Point]]
    top: list[list[Point]]
    templates: list[tuple[str, list[Corner], list[Mark]]]


def _cuts(bare: Sculpted, layers: tuple[tuple[int, float, float], ...]) -> list[_Cut]:
    """Every layer cut out of a body, from the foot up; what it is laid on is the upper face of the one before."""
    below, found = _at(bare, 0.0), []
    for number, low, high in layers:
        faces = [_at(bare, low + (high - low) * step / (LOOKED_AT - 1)) for step in range(LOOKED_AT)]
        bottom, top, whole = faces[0], faces[-1], unary_union(faces)
        left, front, right, back = whole.bounds
        widest = max(faces, key=lambda face: float(face.area))
        hangs = 0.0 if below.is_empty else shapely.distance(below, shapely.points(get_coordinates(whole))).max()
        found.append(
            _Cut(
                number, low, high,
                foot_mm2=float(bottom.area),
                wide=right - left,
                long=back - front,
                circle=2 * float(shapely.minimum_bounding_radius(whole)),
                least=_least(whole),
                area=float(widest.area),
                girth=float(widest.length),
                moves=_moved(bottom, top),
                hangs=float(hangs),
                whole=_rings(whole),
                bottom=_rings(bottom),
                top=_rings(top),
                templates=list(_templates(number, whole, bottom, top)),
            )
        )  # fmt: skip
        below = top
    return found


def _least(whole: Region) -> tuple[float, float]:
    """The short and the long side of the least rectangle round a region."""
    corners = list(shapely.oriented_envelope(whole.convex_hull).exterior.coords)
    short, long = sorted(math.dist(a, b) for a, b in zip(corners[:2], corners[1:3], strict=True))
    return short, long


def _slice(bare: Sculpted, cut: _Cut) -> SlicePlan:
    return SlicePlan(
        number=cut.number,
        low=same("height of its lower face", cut.low, "mm"),
        high=same("height of its upper face", cut.high, "mm"),
        wide=same("across at its widest", cut.wide, "mm", "up"),
        long=same("from front to back at its longest", cut.long, "mm", "up"),
        circle=same("the least circle round it", cut.circle, "mm", "up"),
        least=cut.least,
        area=same("at its largest", cut.area, "mm2"),
        girth=same("once round at its largest", cut.girth, "mm"),
        volume=same("between its faces", bare.volume_between(cut.low, cut.high), "ml"),
        moves=same("from face to face", cut.moves, "mm"),
        hangs=same("beyond what it lies on", cut.hangs, "mm"),
        whole=cut.whole,
        bottom=cut.bottom,
        top=cut.top,
        pieces={
            f"layer_{cut.number}_{at}": _paper(name, corners, marks)
            for at, (name, corners, marks) in enumerate(cut.templates, 1)
        },
    )


def _paper(name: str, corners: list[Corner], marks: list[Mark], **sizes: Figure) -> Piece:
    """A template on paper."""
    return Piece(
        name=name,
        count=same("copies", 1, "each"),
        sizes=sizes,
        hex=PAPER_HEX,
        corners=corners,
        marks=marks,
        stuff="paper",
    )


def _at(bare: Sculpted, up_mm: float) -> Region:
    """What of a body is at a height, as fine as a knife."""
    least = 1e-6 * bare.height_mm
    section = bare.section(min(bare.height_mm - least, max(least, up_mm)))
    assert isinstance(section, Traced)
    return section.polygon.simplify(DRAWN_MM)


def _moved(bottom: Region, top: Region) -> float:
    """How far the outline moves up a layer, mm: the farthest any place of its upper edge is from its lower one.

    Source: geometry (the directed Hausdorff distance, by GEOS).
    """
    places = shapely.points(get_coordinates(top.boundary.segmentize(STEP_MM)))
    return float(shapely.distance(bottom.boundary, places).max())


def _parts(region: Region) -> list[Polygon]:
    """The parts of a region that are worth cutting, the largest first."""
    parts = [region] if isinstance(region, Polygon) else list(region.geoms)
    large = [part for part in parts if part.area > CRUMB_MM2] or parts[:1]
    return sorted(large, key=lambda part: -float(part.area))


def _rings(region: Region) -> list[list[Point]]:
    return [[(round(x, 2), round(y, 2)) for x, y in part.exterior.coords[:-1]] for part in _parts(region)]


def _templates(
    number: int, whole: Region, bottom: Region, top: Region
) -> Iterator[tuple[str, list[Corner], list[Mark]]]:
    """What to cut a layer by: its outline where it is largest, with both faces, holes, the axis and the front on it."""
    parts = _parts(whole)
    for index, part in enumerate(parts, 1):
        left, front, right, _ = part.bounds
        marks = [*_drawn("lower face", bottom, part), *_drawn("upper face", top, part)]
        for hole in part.interiors:
            marks += _drawn("cut out", Polygon(hole), part)
        if part.contains(Point2(0, 0).buffer(CROSS_MM)):
            # The axis is common to all layers, so that they are stacked as they were drawn.
            marks += [Mark(name="axis", x0=-CROSS_MM, y0=0, x1=CROSS_MM, y1=0)]
            marks += [Mark(name="", x0=0, y0=-CROSS_MM, x1=0, y1=CROSS_MM)]
        middle = (left + right) / 2
        marks += [Mark(name="front", x0=middle, y0=front, x1=middle, y1=front + 2 * CROSS_MM)]
        name = f"Layer {number}" if len(parts) == 1 else f"Layer {number}, part {index} of {len(parts)}"
        moved = [
            mark.but(x0=mark.x0 - left, x1=mark.x1 - left, y0=mark.y0 - front, y1=mark.y1 - front) for mark in marks
        ]
        yield name, placed([(x, y, 0.0) for x, y in part.exterior.coords[:-1]]), moved


def _drawn(name: str, face: Region, within: Polygon) -> list[Mark]:
    """The edge of a face as lines, where it is not the edge of the template itself; its name stands at the first."""
    inside = face.boundary.intersection(within.buffer(-2 * DRAWN_MM))
    found: list[Mark] = []
    for line in getattr(inside, "geoms", [inside]):
        points = get_coordinates(line).tolist()
        for (x0, y0), (x1, y1) in zip(points, points[1:], strict=False):
            found.append(Mark(name="" if found else name, x0=x0, y0=y0, x1=x1, y1=y1))
    return found


def _board_of(view: Polygon) -> Piece:
    """The view from the side as a board to hold against the cake."""
    drawn = view.simplify(DRAWN_MM)
    left, _, right, high = drawn.bounds
    corners: list[Corner] = [(x, z, 0.0) for x, z in drawn.exterior.coords[:-1]]
    marks = [Mark(name="axis", x0=-left, y0=0, x1=-left, y1=min(high, 4 * CROSS_MM))]
    wide, tall = same("across", right - left, "mm"), same("high", high, "mm")
    return _paper("View from the side", placed(corners), marks, wide=wide, high=tall)
