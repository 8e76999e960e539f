"""A surface of triangles cut into patches, each of which lies flat with little stretching, and the seams between them.

A surface is parted by which way it faces, as a person would who lays a piece on its top and one on each side; what does
not lie flat then is cut in two. Lengths are in mm.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, NamedTuple

import numpy
from numpy.typing import NDArray
from shapely import Polygon

from amber_spread.core.geometry.triangles import Numbers, Triangles, alone, crossed
from amber_spread.core.geometry.unrolled import Flat, unrolled

if TYPE_CHECKING:
    from scipy.sparse import csr_matrix

Labels = NDArray[numpy.int64]
"""The patch of each triangle, counted from 0."""
Mask = NDArray[numpy.bool_]

WAYS = (2, 4, 6, 8)
"""Cut into a front and a back, or into a top and so many sides round it; tried in this order."""
EVENED = 6
"""So often what a corner faces is evened out with what its neighbours face, so that a dent makes no seam."""
SMALL_SHARE = 0.015
"""A part of less of the surface goes to the patch it has most of its edge with."""
DEEPEST, HELPS = 4, 0.75
"""So often a patch that does not lie flat is cut in two, where that leaves this share of the stretching or less."""
CLEAR = 0.08
"""A seam that would pass a corner nearer than this share of an edge keeps so far from it."""


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
    surface: "Surface"
    strained: Numbers

    @property
    def strain(self) -> float:
        """How much the patch that gives most is stretched or gathered; beyond measure where one does not lie flat."""
        return max(patch.strain for patch in self.patches)


@dataclass(frozen=True, eq=False)
class Surface:
    """An open surface of triangles, each edge of which belongs to no more than two of them."""

    corners: Numbers
    triangles: Triangles

    @cached_property
    def _crossed(self) -> Numbers:
        return crossed(self.corners, self.triangles)

    @cached_property
    def areas(self) -> Numbers:
        """The area of each triangle."""
        found: Numbers = numpy.linalg.norm(self._crossed, axis=1) / 2
        return found

    @cached_property
    def normals(self) -> Numbers:
        """Which way each faces."""
        return self._crossed / numpy.maximum(1e-12, 2 * self.areas)[:, None]

    @cached_property
    def middles(self) -> Numbers:
        """The middle of each."""
        found: Numbers = self.corners[self.triangles].mean(axis=1)
        return found

    @cached_property
    def beside(self) -> "csr_matrix":
        """How many triangles have each two corners beside each other, a row and a column a corner."""
        from scipy import sparse

        ends, count = edges_of(self.triangles), len(self.corners)
        found = sparse.csr_matrix((numpy.ones(len(ends)), (ends[:, 0], ends[:, 1])), (count, count))
        return found + found.T

    @cached_property
    def pairs(self) -> Triangles:
        """The triangles that share an edge, two and two."""
        edges = edges_of(self.triangles)
        keys = edges[:, 0] * len(self.corners) + edges[:, 1]
        order = numpy.argsort(keys, kind="stable")
        owners = numpy.tile(numpy.arange(len(self.triangles)), 3)[order]
        same = keys[order][1:] == keys[order][:-1]
        return numpy.column_stack([owners[:-1][same], owners[1:][same]])


def edges_of(triangles: Triangles) -> Triangles:
    """The edges of triangles, each with its lower corner first: all first edges, then all second, then all third."""
    return numpy.sort(numpy.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]]), axis=1)


class Level(NamedTuple):
    """A seam level all round, at a share of the height."""

    at: float

    @property
    def across(self) -> Numbers:
        """Which way lies straight across it."""
        return numpy.array([0.0, 0.0, 1.0])

    def beyond(self, corners: Numbers) -> Numbers:
        """How far each corner lies above it."""
        return _past(corners @ self.across, self.at)


class Upright(NamedTuple):
    """An upright seam from one side to the other, from left to right or turned from there about the upright, at a share
    of the way across.
    """

    at: float
    turn_deg: float

    @property
    def across(self) -> Numbers:
        """Which way lies straight across it."""
        turn = math.radians(self.turn_deg)
        return numpy.array([-math.sin(turn), math.cos(turn), 0.0])

    def beyond(self, corners: Numbers) -> Numbers:
        """How far each corner lies behind it."""
        return _past(corners @ self.across, self.at)


def _past(along: Numbers, share: float) -> Numbers:
    low, high = float(along.min()), float(along.max())
    return along - (low + share * (high - low))


def cut_up(
    surface: Surface,
    most: float,
    parts: int | None = None,
    turn_deg: float = 0.0,
    own: Sequence[Level | Upright] = (),
) -> Cut:
    """A surface in patches by what it faces: a front and a back, or a top and so many sides, turned about the upright;
    and cut along seams of one's `own`, which alone part it where 0 `parts` are asked for.

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
        surface, _, labels = _parted(surface, _scores(surface, way, turn_deg), numpy.ones(len(labels), dtype=bool))
    # A front and a back are those of an upright seam through the middle.
    for seam in [Upright(0.5, turn_deg), *own] if way == 2 else own:
        surface, parents, sides = _sliced(surface, seam)
        labels = _components(surface, 2 * labels[parents] + sides)
    return surface, _tidied(surface, _components(surface, labels))


def _sliced(surface: Surface, seam: Level | Upright) -> tuple[Surface, Labels, Labels]:
    """A surface cut straight along a seam, with the triangle that each comes from and the side it lies on. A corner
    that the seam passes by a share of an edge is moved onto it, so that no sliver is left.
    """
    ends = edges_of(surface.triangles)
    beyond = seam.beyond(surface.corners)
    crossing = ends[(beyond[ends] > 0).sum(axis=1) == 1]
    # How near the seam each corner lies, by the edge there that it cuts off shortest.
    share = numpy.ones(len(beyond))
    apart = numpy.abs(beyond[crossing]) / numpy.abs(numpy.diff(beyond[crossing], axis=1))
    numpy.minimum.at(share, crossing.ravel(), apart.ravel())
    near = share < CLEAR
    corners, sides = surface.corners.copy(), numpy.sign(numpy.where(near, 0.0, beyond))
    corners[near] -= beyond[near, None] * seam.across
    places, added = corners.tolist(), dict[tuple[int, int], int]()

    def between(one: int, other: int) -> int:
        key = _key(one, other)
        if key not in added:
            low, high = key
            along = beyond[low] / (beyond[low] - beyond[high])
            added[key] = len(places)
            places.append((corners[low] + along * (corners[high] - corners[low])).tolist())
        return added[key]

    found = sides[surface.triangles]
    cut = (found.min(axis=1) < 0) & (found.max(axis=1) > 0)
    whole = numpy.flatnonzero(~cut)
    done = [
        (tuple(three), index, int(side > 0))
        for three, index, side in zip(
            surface.triangles[whole].tolist(), whole.tolist(), found[whole].sum(axis=1).tolist(), strict=True
        )
    ]
    for index in numpy.flatnonzero(cut).tolist():
        three, own = surface.triangles[index].tolist(), found[index].tolist()
        if 0 in own:
            # Through a corner and the edge across from it.
            at = own.index(0)
            corner, left, right = (three[(at + step) % 3] for step in range(3))
            middle = between(left, right)
            done.append(((corner, left, middle), index, int(sides[left] > 0)))
            done.append(((corner, middle, right), index, int(sides[right] > 0)))
            continue
        at = next(at for at in range(3) if own.count(own[at]) == 1)
        lone, left, right = (three[(at + step) % 3] for step in range(3))
        to_left, to_right = between(lone, left), between(right, lone)
        done.append(((lone, to_left, to_right), index, int(sides[lone] > 0)))
        done.append(((to_left, left, right), index, int(sides[left] > 0)))
        done.append(((to_left, right, to_right), index, int(sides[left] > 0)))
    triangles, parents, labels = zip(*done, strict=True)
    return Surface(numpy.array(places), numpy.array(triangles)), numpy.array(parents), numpy.array(labels)


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


def _parted(surface: Surface, scores: Numbers, there: Mask) -> tuple[Surface, Labels, Labels]:
    """A surface whose triangles, where they are `there`, are cut along the lines where two scores of its corners are
    alike and highest; the others only where they share an edge that is cut. With the triangle that each comes from, and
    the highest score of each that was there (0 elsewhere).
    """
    best = scores.argmax(axis=1)
    corners, added = surface.corners.tolist(), dict[tuple[int, int], int]()

    def between(one: int, other: int) -> int:
        """The corner where an edge is cut: where the scores of its ends are alike."""
        key = _key(one, other)
        if key not in added:
            low, high = key
            gap = scores[:, best[low]] - scores[:, best[high]]
            share = min(1 - CLEAR, max(CLEAR, float(gap[low] / (gap[low] - gap[high]))))
            added[key] = len(corners)
            corners.append((surface.corners[low] + share * (surface.corners[high] - surface.corners[low])).tolist())
        return added[key]

    def place(*points: int) -> int:
        corners.append(numpy.mean([corners[point] for point in points], axis=0).tolist())
        return len(corners) - 1

    done: list[tuple[tuple[int, int, int], int, int]] = []
    mixed = there & (best[surface.triangles] != best[surface.triangles][:, :1]).any(axis=1)
    for index in numpy.flatnonzero(mixed).tolist():
        three = surface.triangles[index].tolist()
        labels = best[three].tolist()
        if len(set(labels)) == 3:
            cuts = [between(three[at], three[(at + 1) % 3]) for at in range(3)]
            middle = place(*cuts)
            for at in range(3):
                done.append(((three[at], cuts[at], middle), index, labels[at]))
                done.append(((three[at], middle, cuts[at - 1]), index, labels[at]))
            continue
        at = next(at for at in range(3) if labels.count(labels[at]) == 1)
        alone, left, right = (three[(at + step) % 3] for step in range(3))
        to_left, to_right = between(alone, left), between(right, alone)
        done.append(((alone, to_left, to_right), index, labels[at]))
        done.append(((to_left, left, right), index, labels[(at + 1) % 3]))
        done.append(((to_left, right, to_right), index, labels[(at + 1) % 3]))
    for index in numpy.flatnonzero(~mixed).tolist():
        three = surface.triangles[index].tolist()
        label = int(best[three[0]]) if there[index] else 0
        done += [(one, index, label) for one in conforming(three, added)]
    triangles = numpy.array([one for one, _, _ in done], dtype=numpy.int64)
    found = Surface(numpy.array(corners), triangles)
    return found, numpy.array([index for _, index, _ in done]), numpy.array([label for _, _, label in done])


def conforming(three: list[int], added: dict[tuple[int, int], int]) -> list[tuple[int, int, int]]:
    """A triangle as those it falls into where its edges are cut by its neighbours."""
    for at in range(3):
        one, other, opposite = (three[(at + step) % 3] for step in range(3))
        cut = added.get(_key(one, other))
        if cut is not None:
            return [*conforming([one, cut, opposite], added), *conforming([cut, other, opposite], added)]
    return [(three[0], three[1], three[2])]


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
            along = _longest(surface, there)
            parted, parents, halves = _parted(surface, numpy.column_stack([-along, along]), there)
            apart = there[parents]
            both = [_lay(parted, apart & (halves == half))[1] for half in (0, 1)]
            if max(both) < HELPS * strain:
                labels = numpy.where(apart & (halves == 1), count, labels[parents])
                surface, count = parted, count + 1
        if count == len(found.strains):
            break
        found = _laid(surface, _tidied(surface, _components(surface, labels)))
    return found


def _longest(surface: Surface, there: Mask) -> Numbers:
    """How far each corner lies from the middle of a patch along the longest way through it."""
    middles, areas = surface.middles[there], surface.areas[there, None]
    centre = (middles * areas).sum(axis=0) / areas.sum()
    axis = numpy.linalg.svd((middles - centre) * numpy.sqrt(areas), full_matrices=False)[2][0]
    found: Numbers = (surface.corners - centre) @ axis
    return found


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
    edges, counts = numpy.unique(edges_of(triangles), axis=0, return_counts=True)
    if len(numpy.unique(triangles)) - len(edges) + len(triangles) != 1:
        return False
    _, met = numpy.unique(edges[counts == 1], return_counts=True)
    return bool((met == 2).all()) and len(_edge_of(triangles)) == int((counts == 1).sum())


def _edge_of(triangles: Triangles) -> list[int]:
    """The corners along the edge of triangles in order, anticlockwise seen from outside; of the first edge met."""
    return next(rings_along(triangles), [])


def rings_along(triangles: Triangles) -> Iterator[list[int]]:
    """The corners along each edge of triangles in order, anticlockwise seen from outside."""
    every = numpy.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    _, back, counts = numpy.unique(edges_of(triangles), axis=0, return_inverse=True, return_counts=True)
    after: dict[int, int] = dict(every[counts[back.ravel()] == 1].tolist())
    while after:
        at = min(after)
        ring = []
        while at in after:
            ring.append(at)
            at = after.pop(at)
        yield ring


def _told(found: _Tried) -> Cut:
    """The patches as pieces, upright, and their seams."""
    surface, labels = found.surface, found.labels
    owner: dict[tuple[int, int], list[int]] = {}
    rings = [_edge_of(surface.triangles[labels == patch]) for patch in range(len(found.flats))]
    for patch, ring in enumerate(rings):
        for one, other in zip(ring, [*ring[1:], ring[0]], strict=True):
            owner.setdefault(_key(one, other), []).append(patch)
    seams: list[Seam] = []
    along: list[dict[int, Numbers]] = [{} for _ in rings]
    places = [_upright(surface, labels == patch, flat) for patch, flat in enumerate(found.flats)]
    for patch, ring in enumerate(rings):
        for run in _runs(patch, ring, owner):
            met = [one for one in owner[_key(run[0], run[1])] if one != patch]
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


def _key(one: int, other: int) -> tuple[int, int]:
    return min(one, other), max(one, other)


def _runs(patch: int, ring: list[int], owner: dict[tuple[int, int], list[int]]) -> Iterable[list[int]]:
    """The stretches of an edge along which it meets the same neighbour."""
    edges = list(zip(ring, [*ring[1:], ring[0]], strict=True))
    beside = [next((one for one in owner[_key(*edge)] if one != patch), -1) for edge in edges]
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
