"""A surface of triangles cut into patches, each of which lies flat with little stretching, and the seams between them.

A surface is parted by which way it faces, as a person would who lays a piece on its top and one on each side; what does
not lie flat then is cut in two. Lengths are in mm.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy
from shapely import Polygon

from amber_spread.core.geometry.bodies.open_surface import Edge, Surface, edge_between, edges_once, rings_along
from amber_spread.core.geometry.bodies.triangles import Triangles, alone
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.geometry.sheets.parted import Labels, Level, Mask, Plane, Upright, parted, sliced
from amber_spread.core.geometry.sheets.unrolled import Flat, unrolled

WAYS = (2, 4, 6, 8)
"""Cut into a front and a back, or into a top and so many sides round it; tried in this order."""
EVENED = 6
"""So often what a corner faces is evened out with what its neighbours face, so that a dent makes no seam."""
SMALL_SHARE = 0.015
"""A part of less of the surface goes to the patch it has most of its edge with."""
NEITHER = -1
"""On neither side of a seam: where it does not run."""
DEEPEST, HELPS = 4, 0.75
"""So often a patch that does not lie flat is cut in two, where that leaves this share of the stretching or less."""


class Seam(NamedTuple):
    """Where two patches meet, counted from 0, or where one ends at the foot (`other` is None): its places in order."""

    one: int
    other: int | None
    line: Numbers

    @property
    def length(self) -> float:
        """How long it is."""
        return float(numpy.linalg.norm(numpy.diff(self.line, axis=0), axis=1).sum())


class Patch(NamedTuple):
    """One patch: its edge laid flat, up being up on the body; how much of it is stretched or gathered at most, its area
    on the body, and where each seam runs along its edge.
    """

    edge: list[tuple[float, float]]
    strain: float
    area: float
    seams: dict[int, Numbers]


@dataclass(frozen=True, eq=False)
class Cut:
    """A surface in patches, their seams, and how much each of its triangles is stretched or gathered."""

    patches: list[Patch]
    seams: list[Seam]
    surface: Surface
    strained: Numbers

    @property
    def strain(self) -> float:
        """How much the patch that gives most is stretched or gathered; beyond measure where one does not lie flat."""
        return max(patch.strain for patch in self.patches)


def cut_up(
    surface: Surface,
    most: float,
    parts: int | None = None,
    turn_deg: float = 0.0,
    own: Sequence[Level | Upright] = (),
) -> Cut:
    """A surface in patches by what it faces: a front and a back, or a top and so many sides, turned about the upright;
    and cut along seams of one's `own`, which alone part it where 0 `parts` are asked for. One of these that runs within
    what another parts off ends at that one.

    With no number of `parts` the fewest are taken of which each lies flat with no more than that stretching or
    gathering, else those that come nearest. What does not is cut in two across its longest way, as often as it helps;
    where all seams are one's own there are no others.
    """
    tried: list[_Tried] = []
    for way in WAYS if parts is None else (parts,):
        tried.append(_laid(*_by_sides(surface, way, turn_deg, own)))
        if tried[-1].worst <= most:
            break
    best = min(tried, key=lambda one: max(most, one.worst))
    return _told(_halved(best, most) if best.worst > most and parts != 0 else best)


def _by_sides(surface: Surface, way: int, turn_deg: float, own: Sequence[Level | Upright]) -> tuple[Surface, Labels]:
    """A surface cut between its sides and along every seam of one's own, small parts given to a neighbour."""
    labels: Labels = numpy.zeros(len(surface.triangles), dtype=numpy.int64)
    if way > 2:
        surface, _, labels = parted(surface, _scores(surface, way, turn_deg))
    elif way == 2:
        # A front and a back are those of an upright seam through the middle.
        surface, _, labels = sliced(surface, Upright(0.5, turn_deg).through(surface.corners))
    # On which side of each seam every triangle lies.
    beside: list[Labels] = []
    for seam in own:
        there = None if seam.within is None else beside[seam.within.seam] == seam.within.beyond
        surface, parents, sides = sliced(surface, seam.through(surface.corners), there)
        labels = _components(surface, 2 * labels[parents] + sides)
        runs = sides if there is None else numpy.where(there[parents], sides, NEITHER)
        beside = [*(one[parents] for one in beside), runs]
    return surface, _tidied(surface, _components(surface, labels))


class _Tried(NamedTuple):
    """A surface in patches, each laid flat, and how much each is stretched or gathered at most: beyond measure where it
    is no disc, or lies over itself.
    """

    surface: Surface
    labels: Labels
    flats: list[Flat]
    strains: list[float]

    @property
    def worst(self) -> float:
        """That of the patch that gives most."""
        return max(self.strains)


def _scores(surface: Surface, way: int, turn_deg: float) -> Numbers:
    """How nearly each corner faces up, or each of so many sides, evened out with its neighbours. The sides are turned
    about the upright.
    """
    turns = [2 * math.pi * number / way - math.pi / 2 + math.radians(turn_deg) for number in range(way)]
    directions = numpy.array([(0.0, 0.0, 1.0), *((math.cos(turn), math.sin(turn), 0.0) for turn in turns)])
    count, triangles = len(surface.corners), surface.triangles
    from scipy import sparse

    met = sparse.csr_matrix(
        (numpy.repeat(surface.areas, 3), (triangles.ravel(), numpy.repeat(numpy.arange(len(triangles)), 3))),
        (count, len(triangles)),
    )
    facing = met @ surface.normals
    for _ in range(EVENED):
        facing = facing + surface.beside @ facing
        facing /= numpy.maximum(1e-12, numpy.linalg.norm(facing, axis=1))[:, None]
    found: Numbers = facing @ directions.T
    return found


def _components(surface: Surface, labels: Labels) -> Labels:
    """A label of its own for each part of a label that hangs together by edges."""
    from scipy import sparse
    from scipy.sparse.csgraph import connected_components

    one, other = surface.pairs[labels[surface.pairs[:, 0]] == labels[surface.pairs[:, 1]]].T
    count = len(labels)
    joined = sparse.csr_matrix((numpy.ones(len(one)), (one, other)), (count, count))
    found: Labels = connected_components(joined, directed=False)[1].astype(int)
    return found


def _tidied(surface: Surface, labels: Labels) -> Labels:
    """Small parts given to the neighbour they have most of their edge with."""
    least = SMALL_SHARE * float(surface.areas.sum())
    labels = labels.copy()
    while True:
        areas = numpy.bincount(labels, weights=surface.areas)
        small = [label for label in numpy.argsort(areas).tolist() if 0 < areas[label] < least]
        met = labels[surface.pairs]
        for label in small:
            beside = numpy.concatenate([met[met[:, 0] == label, 1], met[met[:, 1] == label, 0]])
            beside = beside[beside != label]
            if len(beside):
                labels[labels == label] = numpy.bincount(beside).argmax()
                break
        else:
            return numpy.unique(labels, return_inverse=True)[1]


def _halved(found: _Tried, most: float) -> _Tried:
    """Patches that do not lie flat cut in two across their longest way, and again, where both halves lie flatter."""
    for _ in range(DEEPEST):
        surface, labels, count = found.surface, found.labels, len(found.strains)
        for label, strain in enumerate(found.strains):
            if strain <= most:
                continue
            there = labels == label
            cut, parents, halves = sliced(surface, _across(surface, there), there)
            apart = there[parents]
            both = [_lay(cut, apart & (halves == half))[1] for half in (0, 1)]
            if max(both) < HELPS * strain:
                labels = numpy.where(apart & (halves == 1), count, labels[parents])
                surface, count = cut, count + 1
        if count == len(found.strains):
            break
        found = _laid(surface, _tidied(surface, _components(surface, labels)))
    return found


def _across(surface: Surface, there: Mask) -> Plane:
    """The plane straight across the longest way through a patch, in its middle."""
    middles, areas = surface.middles[there], surface.areas[there, None]
    centre = (middles * areas).sum(axis=0) / areas.sum()
    axis = numpy.linalg.svd((middles - centre) * numpy.sqrt(areas), full_matrices=False)[2][0]
    return Plane(axis, float(centre @ axis))


def _laid(surface: Surface, labels: Labels) -> _Tried:
    each = [_lay(surface, labels == label) for label in range(int(labels.max()) + 1)]
    return _Tried(surface, labels, [flat for flat, _ in each], [strain for _, strain in each])


def _lay(surface: Surface, there: Mask) -> tuple[Flat, float]:
    """A patch laid flat, and how much it is stretched or gathered at most."""
    triangles = surface.triangles[there]
    corners, faces = alone(surface.corners, triangles)
    flat = unrolled(corners, faces)
    whole = _is_disc(faces) and Polygon(flat.places[_edge_of(faces)]).is_valid
    return flat, flat.most if whole else math.inf


def _is_disc(triangles: Triangles) -> bool:
    """Whether triangles hang together in one piece with one edge and no hole (Euler: corners - edges + faces = 1)."""
    edges, _, counts = edges_once(triangles)
    if len(numpy.unique(triangles)) - len(edges) + len(triangles) != 1:
        return False
    _, met = numpy.unique(edges[counts == 1], return_counts=True)
    return bool((met == 2).all()) and len(_edge_of(triangles)) == int((counts == 1).sum())


def _edge_of(triangles: Triangles) -> list[int]:
    """The corners along the edge of triangles in order, anticlockwise seen from outside; of the first edge met."""
    return next(rings_along(triangles), [])


def _told(found: _Tried) -> Cut:
    """The patches as pieces, upright, and their seams."""
    surface, labels = found.surface, found.labels
    owner: dict[Edge, list[int]] = {}
    rings = [_edge_of(surface.triangles[labels == patch]) for patch in range(len(found.flats))]
    for patch, ring in enumerate(rings):
        for one, other in zip(ring, [*ring[1:], ring[0]], strict=True):
            owner.setdefault(edge_between(one, other), []).append(patch)
    seams: list[Seam] = []
    along: list[dict[int, Numbers]] = [{} for _ in rings]
    places = [_upright(surface, labels == patch, flat) for patch, flat in enumerate(found.flats)]
    for patch, ring in enumerate(rings):
        for run in _runs(patch, ring, owner):
            met = [one for one in owner[edge_between(run[0], run[1])] if one != patch]
            if met and met[0] < patch:
                continue
            number = len(seams)
            seams.append(Seam(patch, met[0] if met else None, surface.corners[run]))
            for side in (patch, *met[:1]):
                along[side][number] = numpy.array([places[side][corner] for corner in run])
    patches = [
        Patch([places[patch][corner] for corner in ring], strain, float(flat.areas.sum()), along[patch])
        for patch, (ring, flat, strain) in enumerate(zip(rings, found.flats, found.strains, strict=True))
    ]
    strained = numpy.zeros(len(labels))
    for patch, flat in enumerate(found.flats):
        strained[labels == patch] = flat.strained
    return Cut(patches, seams, surface, strained)


def _runs(patch: int, ring: list[int], owner: dict[Edge, list[int]]) -> Iterable[list[int]]:
    """The stretches of an edge along which it meets the same neighbour."""
    edges = list(zip(ring, [*ring[1:], ring[0]], strict=True))
    beside = [next((one for one in owner[edge_between(*edge)] if one != patch), -1) for edge in edges]
    starts = [index for index in range(len(edges)) if beside[index] != beside[index - 1]] or [0]
    for start, stop in zip(starts, [*starts[1:], starts[0] + len(edges)], strict=True):
        yield [edges[index % len(edges)][0] for index in range(start, stop)] + [edges[(stop - 1) % len(edges)][1]]


def _upright(surface: Surface, there: Mask, flat: Flat) -> dict[int, tuple[float, float]]:
    """The places of a patch turned so that up on the body is up, or to the back where it lies level; by its corners."""
    own = numpy.unique(surface.triangles[there])
    corners = surface.corners[own]
    middle = flat.places - flat.places.mean(axis=0)
    for axis in (2, 1):
        rise = numpy.linalg.lstsq(middle, corners[:, axis] - corners[:, axis].mean(), rcond=None)[0]
        if math.hypot(*rise) > (0.3 if axis == 2 else 0.0):
            break
    turn = math.pi / 2 - math.atan2(rise[1], rise[0])
    turned = middle @ numpy.array([[math.cos(turn), math.sin(turn)], [-math.sin(turn), math.cos(turn)]])
    return {corner: (float(x), float(y)) for corner, (x, y) in zip(own.tolist(), turned, strict=True)}
