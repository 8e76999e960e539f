"""What each layer of a carved tier is cut by: its outline with both faces on it, and all that is cut out of it."""

from collections.abc import Iterator, Mapping
from typing import NamedTuple

from shapely import Point as Point2
from shapely import Polygon, get_coordinates, unary_union
from shapely.affinity import translate

from amber_spread.core.geometry.bodies.sliced import DRAWN_MM, Slice, parts_of
from amber_spread.core.geometry.flat.pieces import Corner, Mark, drawn_along, edge_of
from amber_spread.core.geometry.flat.traced import Region, areas_of
from amber_spread.core.tier.carve.emptied import ROOM, Emptied

CROSS_MM = 6.0
"""How far a cross and the front mark reach on a template."""
Template = tuple[str, list[Corner], list[Mark]]
"""A template by its name, its edge and what is drawn on it."""
NOTHING = Polygon()
AS_ONE_MM = 1.0
"""What is cut out of a layer is drawn as one outline where its edges at the faces lie nowhere farther apart."""


class Emptying(NamedTuple):
    """What is cut out of a layer: at its lower face, at its upper one, and all of it seen from above."""

    bottom: Region
    top: Region
    whole: Region


def emptying_of(one: Slice, emptied: Emptied) -> dict[str, Emptying]:
    """What is cut out of a layer, looked at at the heights the layer is."""
    slab = emptied.layer(one.number)
    count = len(one.faces)
    looks = [emptied.at(slab, slab.low + (slab.high - slab.low) * step / (count - 1)) for step in range(count)]
    names = dict.fromkeys(name for look in looks for name in look)
    return {
        name: Emptying(
            bottom=_simple(looks[0].get(name, NOTHING)),
            top=_simple(looks[-1].get(name, NOTHING)),
            whole=_simple(unary_union([look[name] for look in looks if name in look])),
        )
        for name in names
    }


def _simple(region: Region) -> Region:
    return areas_of(region.simplify(DRAWN_MM))


def templates_of(one: Slice, out: Mapping[str, Emptying]) -> Iterator[Template]:
    """What to cut a layer by: its outline where it is largest, with both faces, holes, what is cut out of it, the axis
    and the front on it.
    """
    parts = parts_of(one.whole)
    for index, part in enumerate(parts, 1):
        left, front, right, _ = part.bounds
        whole, bottom, top = (translate(region, -left, -front) for region in (part, one.bottom, one.top))
        marks = [*_drawn("lower face", bottom, whole), *_drawn("upper face", top, whole)]
        for hole in whole.interiors:
            marks += drawn_along("cut out", hole.coords)
        for name, each in out.items():
            called = "hidden room" if name == ROOM else name.replace("_", " ")
            marks += _cut_out(called, Emptying(*(translate(region, -left, -front) for region in each)), whole)
        if whole.contains(Point2(-left, -front).buffer(CROSS_MM)):
            # The axis is common to all layers, so that they are stacked as they were drawn.
            marks += drawn_along("axis", [(-left - CROSS_MM, -front), (-left + CROSS_MM, -front)])
            marks += drawn_along("", [(-left, -front - CROSS_MM), (-left, -front + CROSS_MM)])
        middle = (right - left) / 2
        marks += drawn_along("front", [(middle, 0.0), (middle, 2 * CROSS_MM)])
        name = f"Layer {one.number}" if len(parts) == 1 else f"Layer {one.number}, part {index} of {len(parts)}"
        yield name, edge_of(whole), marks


def _cut_out(name: str, each: Emptying, within: Polygon) -> Iterator[Mark]:
    """What is cut out of a layer as lines: once where both faces are alike, or else on each face that it reaches."""
    reached = {f"{name}, lower face": each.bottom, f"{name}, upper face": each.top}
    reached = {words: face for words, face in reached.items() if not face.is_empty}
    if not reached:
        reached = {f"{name}, between the faces": each.whole}
    elif len(reached) == 2 and each.bottom.hausdorff_distance(each.top) <= AS_ONE_MM:
        reached = {name: each.whole}
    for words, face in reached.items():
        yield from _drawn(words, face, within)


def _drawn(name: str, face: Region, within: Polygon) -> list[Mark]:
    """The edge of a face as lines, where it is not the edge of the template itself."""
    inside = face.boundary.intersection(within.buffer(-2 * DRAWN_MM))
    lines = [get_coordinates(line).tolist() for line in getattr(inside, "geoms", [inside])]
    return [mark for at, line in enumerate(lines) for mark in drawn_along("" if at else name, line)]
