"""Openings cut out of a carved tier once it is stacked, and filled up flush or left empty: what comes out, what goes
in, and how much cake there is about one that opens nowhere.

Layers and fillings are made as if there were none, since they are cut away only then.
"""

import math
from collections.abc import Callable, Iterator, Mapping
from itertools import pairwise
from typing import NamedTuple

import numpy
from manifold3d import Manifold
from shapely import Polygon, box, unary_union
from shapely.affinity import translate

from amber_spread.core.design.builds import Carvable
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body
from amber_spread.core.geometry.bodies.meshed import FLAT, UPRIGHT, region_of, seen
from amber_spread.core.geometry.bodies.sculpted import Sculpted, rings_right
from amber_spread.core.geometry.bodies.sliced import DRAWN_MM, parts_of, rings_of
from amber_spread.core.geometry.bodies.triangles import triangles_of
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.pieces import Piece, edge_of, paper_of
from amber_spread.core.geometry.flat.traced import Region, areas_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import DEFINITION, Figure, carry_over, rule, total
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.carve.emptied import Emptied, placed
from amber_spread.core.tier.layers.layers import LayersPlan
from amber_spread.core.tier.layers.slabs import Slab

APART_MM = 12.0
"""A level of a tier is measured in steps no higher than this, each at five heights or more."""
HAIR_MM, FINEST_MM, AGREED = 0.01, 0.1, 0.002
"""How far inside the ends of a step its areas are looked at; the lowest step; and how well two halves agree with it."""
WALL_MM, FROM_MM = 3.0, 8.0
"""How near an opening comes to the outside, in places so close to each other, is looked at from places on it so close
to each other.
"""
INSIDE_MM = 0.5
"""What comes no nearer to the outside opens nowhere."""


class OpeningPlan(PlanPart):
    """One opening: how much of the tier it takes, the cake and the filling that come out, and what fills it, nothing
    where it is left empty. Of one that opens nowhere `wall` is the least cake about it, sideways and up.

    `open` says whether it reaches the outside. `side` and `above` are what is seen of it, a ring a part, and `cut` what
    of it the section shows; `pieces` are its templates.
    """

    medium: str | None
    colour: str | None
    hex: str | None
    volume: Figure
    cake: Figure
    filling: Figure
    weight: Figure | None
    open: bool
    wall: Figure | None
    side: list[list[Point]]
    above: list[list[Point]]
    cut: list[list[Point]]
    pieces: dict[str, Piece]


@rule(
    "openings.filling",
    unit="g",
    formula="fillings * opening / whole",
    source=DEFINITION,
    words="Of all that lies between the layers, the share by volume that is cut away with the opening.",
)
def filling_out(fillings_g: float, opening_ml: float, whole_ml: float) -> float:
    """Filling that comes out with an opening, g: all of it x the opening's share of its volume. Source: definition.

    >>> filling_out(400, 20, 200)
    40.0
    """
    return fillings_g * opening_ml / whole_ml


class Taken(NamedTuple):
    """What an opening takes out of a body: of its layers and its fillings, ml, whether it reaches the outside, and how
    far from the outside it stays, mm.
    """

    layers_ml: float
    fillings_ml: float
    open: bool
    wall_mm: float


def plan_openings(
    tier: SettledTier,
    bare: Body,
    layers: LayersPlan,
    emptied: Emptied | None,
    media: Mapping[str, Medium],
    hex_of: Callable[[str, str | None], str],
) -> dict[str, OpeningPlan]:
    """Every opening of a tier, in their order: a later one takes nothing that an earlier one took. Raises ValueError
    where one cannot be made; its message says which.
    """
    build = tier.asked.build
    if not isinstance(bare, Sculpted) or not isinstance(build, Carvable) or not build.openings or emptied is None:
        return {}
    taken = bare.core.cached("openings", emptied.key, lambda: _taken(bare, emptied))
    filling = layers.filling
    fillings_g = sum(part.value for part in (filling.weight, filling.dam_weight, filling.seal_weight) if part)
    between_ml = sum(bare.volume_between(slab.low, slab.high) for slab in emptied.slabs if slab.kind == "filling")
    found = {}
    each = zip(build.openings, placed(build.openings), taken, cuts_of(bare, emptied), strict=True)
    for number, (asked, solid, of, cut) in enumerate(each, 1):
        volume = total({"out of the layers": of.layers_ml, "out of the fillings": of.fillings_ml}, "ml")
        side = areas_of(seen(solid, UPRIGHT).intersection(bare.core.side))
        above = areas_of(seen(solid, FLAT).intersection(bare.core.edge))
        found[f"opening_{asked.id}"] = OpeningPlan(
            medium=asked.medium,
            colour=asked.colour,
            hex=None if asked.medium is None else hex_of(asked.medium, asked.colour),
            volume=volume,
            cake=weight.figure(of.layers_ml, tier.usual.cake_density_g_per_ml),
            filling=filling_out.figure(fillings_g, of.fillings_ml, max(1.0, between_ml)),
            weight=None if asked.medium is None else weight.figure(volume.value, media[asked.medium].density_g_per_ml),
            open=of.open,
            wall=None if of.open else carry_over("of cake at its thinnest", of.wall_mm, "mm", "down"),
            side=rings_of(side),
            above=rings_of(above),
            cut=rings_right(cut),
            pieces=dict(_templates(number, {"side": side, "top": above})),
        )
    return found


def _taken(bare: Sculpted, emptied: Emptied) -> list[Taken]:
    """What each takes: the integral of its area over the height of every level, halved again wherever that jumps.

    Source: published (adaptive Simpson's rule, as in any textbook of numerical analysis; from memory).
    """
    solids, none = emptied.solids, numpy.zeros(len(emptied.solids))
    ml = {"layer": none, "filling": none}
    opens = numpy.zeros(len(solids), dtype=bool)
    ends = [end for solid in placed(emptied.asked) for end in (solid.bounding_box()[2], solid.bounding_box()[5])]
    for slab in emptied.slabs:
        if slab.kind == "board":
            continue

        def areas(up_mm: float, slab: Slab = slab) -> Numbers:
            whole = bare.core.region(up_mm)
            found = emptied.by_openings(slab, up_mm, whole)
            if any(not own.is_empty for own in found):
                inner = whole.buffer(-INSIDE_MM)
                opens[:] |= [own.difference(inner).area > INSIDE_MM for own in found]
            return numpy.array([own.area for own in found])

        steps = numpy.linspace(slab.low, slab.high, max(1, math.ceil((slab.high - slab.low) / APART_MM)) + 1)
        marks = sorted({*steps.tolist(), *(end for end in ends if slab.low < end < slab.high)})
        taken = sum((_integral(areas, low, high) for low, high in pairwise(marks) if high > low), start=none)
        ml[slab.kind] = ml[slab.kind] + taken / MM3_PER_ML
    top = bare.core.height_mm
    through = [
        bool(open) or solid.bounding_box()[5] > top - INSIDE_MM for open, solid in zip(opens, solids, strict=True)
    ]
    walls = [0.0 if open else _wall(solid, bare) for open, solid in zip(through, solids, strict=True)]
    each = zip(ml["layer"].tolist(), ml["filling"].tolist(), through, walls, strict=True)
    return [Taken(layers_ml, fillings_ml, open, wall) for layers_ml, fillings_ml, open, wall in each]


def _integral(areas: Callable[[float], Numbers], low_mm: float, high_mm: float) -> Numbers:
    """The integral of areas between two heights, mm³, by Simpson's rule on halves until they agree."""
    hair = min(HAIR_MM, (high_mm - low_mm) / 8)
    first, last, middle = areas(low_mm + hair), areas(high_mm - hair), areas((low_mm + high_mm) / 2)

    def part(low: float, high: float, first: Numbers, middle: Numbers, last: Numbers) -> Numbers:
        deep = high - low
        whole = deep / 6 * (first + 4 * middle + last)
        ends = areas((3 * low + high) / 4), areas((low + 3 * high) / 4)
        halves = deep / 12 * (first + 4 * ends[0] + 2 * middle + 4 * ends[1] + last)
        off = abs(halves - whole)
        if deep <= FINEST_MM or (off <= AGREED * abs(halves) + FINEST_MM * deep).all():
            return halves
        center = (low + high) / 2
        return part(low, center, first, ends[0], middle) + part(center, high, middle, ends[1], last)

    return part(low_mm, high_mm, first, middle, last)


def _wall(solid: Manifold, bare: Sculpted) -> float:
    """How far a solid within a body stays from its outside but for the foot, which stands on a board, mm: from all over
    it to places of the outside; 0 where there is nothing of it.
    """
    from scipy.spatial import cKDTree

    places, facing = bare.core.skin(WALL_MM)
    outside = places[(places[:, 2] > INSIDE_MM) | (facing[:, 2] > -0.9)]
    corners, _ = triangles_of(solid.refine_to_length(FROM_MM))
    above = corners[corners[:, 2] > 0]
    return float(cKDTree(outside).query(above)[0].min()) if len(above) else 0.0


def cuts_of(bare: Sculpted, emptied: Emptied) -> list[Region]:
    """What of every opening the section on the right of the axis shows; nothing of it in a board or a hidden room."""
    return bare.get_or_compute(("openings", emptied.key), lambda: list(_cuts(bare, emptied)))


def _cuts(bare: Sculpted, emptied: Emptied) -> Iterator[Region]:
    levels = [
        box(emptied.hidden.get(slab, 0.0), slab.low, bare.width_mm, slab.high)
        for slab in emptied.slabs
        if slab.kind != "board"
    ]
    cake = unary_union(levels).intersection(bare.core.plane) if emptied.solids else Polygon()
    for solid in emptied.solids:
        yield areas_of(region_of(solid.rotate(UPRIGHT).slice(0.0)).intersection(cake))


def _templates(number: int, views: Mapping[str, Region]) -> Iterator[tuple[str, Piece]]:
    """What to cut an opening by, as it is seen from the side and from the top."""
    for name, view in views.items():
        if view.area:
            (largest, *_) = parts_of(view)
            left, low, _, _ = largest.bounds
            edge = edge_of(translate(largest.simplify(DRAWN_MM), -left, -low))
            yield f"opening_{number}_{name}", paper_of(f"Opening {number}, from the {name}", edge, [])
