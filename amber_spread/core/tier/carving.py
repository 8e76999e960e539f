"""Carving a tier to its views: what to cut every layer to, how far the knife moves up it, and what hangs over.

Layers lie flat, with the fillings between them, so each is cut to a template of its own before they are stacked, or
along it once they are; what the outline does between its two faces is then carved by eye, along the board of the view
from the side.
"""

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

    `moves` is the farthest its outline goes in or out between its two faces, `hangs` how far it reaches out beyond
    what it lies on. `whole` is all of it from above about the axis, `bottom` and `top` its faces, a ring a part;
    `pieces` are its templates.
    """

    number: int
    low: Figure
    high: Figure
    wide: Figure
    long: Figure
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
    slices: dict[str, SlicePlan] = {}
    foot = below = _at(bare, 0.0)
    for slab in slabs:
        if slab.kind == "layer":
            one = _slice(bare, slab, below)
            slices[f"layer_{slab.number}"] = one
            below = _at(bare, slab.high)
    surface = same("all that is coated", bare.wall_area_mm2 + bare.top_area_mm2, "mm2", "up")
    final_mm = max(0.0, coats.final.side.value) if coats.final else 0.0
    both = coats.crumb.volume.value + (coats.final.volume.value if coats.final else 0.0)
    return CarvingPlan(
        slices=slices,
        view=_board_of(bare.core.side),
        foot=same("on the board", float(foot.area), "mm2", "down"),
        footprint=same("seen from above", bare.outline.area_mm2, "mm2"),
        surface=surface,
        coats=same("both coats", both, "ml", "up"),
        front_agrees=_front_agrees(build, bare),
        by_surface=by_surface.figure(surface.value, coats.crumb.side.value, final_mm),
    )


def _slice(bare: Sculpted, slab: Slab, below: Region) -> SlicePlan:
    faces = [_at(bare, slab.low + (slab.high - slab.low) * step / (LOOKED_AT - 1)) for step in range(LOOKED_AT)]
    bottom, top = faces[0], faces[-1]
    whole = unary_union(faces)
    left, front, right, back = whole.bounds
    widest = max(faces, key=lambda face: float(face.area))
    hangs = shapely.distance(below, shapely.points(get_coordinates(whole))).max() if not below.is_empty else 0.0
    return SlicePlan(
        number=slab.number,
        low=same("height of its lower face", slab.low, "mm"),
        high=same("height of its upper face", slab.high, "mm"),
        wide=same("across at its widest", right - left, "mm", "up"),
        long=same("from front to back at its longest", back - front, "mm", "up"),
        area=same("at its largest", float(widest.area), "mm2"),
        girth=same("once round at its largest", float(widest.length), "mm"),
        volume=same("between its faces", bare.volume_between(slab.low, slab.high), "ml"),
        moves=same("from face to face", _moved(bottom, top), "mm"),
        hangs=same("beyond what it lies on", float(hangs), "mm"),
        whole=_rings(whole),
        bottom=_rings(bottom),
        top=_rings(top),
        pieces=_templates(slab.number, whole, bottom, top),
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


def _templates(number: int, whole: Region, bottom: Region, top: Region) -> dict[str, Piece]:
    """What to cut a layer by: its outline where it is largest, with both faces, holes, the axis and the front on it."""
    parts = _parts(whole)
    found = {}
    for index, part in enumerate(parts):
        name = f"Layer {number}" if len(parts) == 1 else f"Layer {number}, part {index + 1} of {len(parts)}"
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
        corners: list[Corner] = [(x, y, 0.0) for x, y in part.exterior.coords[:-1]]
        found[f"layer_{number}_{index + 1}"] = Piece(
            name=name,
            count=same("copies", 1, "each"),
            sizes={},
            hex=PAPER_HEX,
            corners=placed(corners),
            marks=[
                mark.but(x0=mark.x0 - left, x1=mark.x1 - left, y0=mark.y0 - front, y1=mark.y1 - front) for mark in marks
            ],
            stuff="paper",
        )
    return found


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
    return Piece(
        name="View from the side",
        count=same("copies", 1, "each"),
        sizes={"wide": same("across", right - left, "mm"), "high": same("high", high, "mm")},
        hex=PAPER_HEX,
        corners=placed(corners),
        marks=[Mark(name="axis", x0=-left, y0=0, x1=-left, y1=min(high, 4 * CROSS_MM))],
        stuff="paper",
    )
