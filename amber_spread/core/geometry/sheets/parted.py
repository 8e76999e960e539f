"""A surface of triangles cut along a line: straight along a plane, or where two of its sides are faced alike."""

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy
from numpy.typing import NDArray

from amber_spread.core.geometry.bodies.open_surface import Edge, Surface, conforming, edge_between, edges_of
from amber_spread.core.geometry.bodies.triangles import Triangles
from amber_spread.core.geometry.rows import Numbers

Labels = NDArray[numpy.int64]
"""A number for each triangle or corner, counted from 0."""
Mask = NDArray[numpy.bool_]

CLEAR = 0.08
"""No cut passes a corner nearer than this share of an edge: it goes through it, or keeps so far from it."""
ON = -1
"""The label of a corner that a cut goes through."""


class Plane(NamedTuple):
    """A plane so far along the way that lies straight across it."""

    across: Numbers
    at: float

    def beyond(self, corners: Numbers) -> Numbers:
        """How far each corner lies beyond it."""
        return corners @ self.across - self.at


class Within(NamedTuple):
    """On one side of a seam before it, by its number from 0: beyond it, or this side of it."""

    seam: int
    beyond: bool


class Level(NamedTuple):
    """A seam level all round, at a share of the height; or only within what another parts off."""

    at: float
    within: Within | None = None

    def through(self, corners: Numbers) -> Plane:
        """Where it runs through what has these corners."""
        return _at_share(numpy.array([0.0, 0.0, 1.0]), corners, self.at)


class Upright(NamedTuple):
    """An upright seam from one side to the other, from left to right or turned from there about the upright, at a share
    of the way across; or only within what another parts off.
    """

    at: float
    turn_deg: float
    within: Within | None = None

    def through(self, corners: Numbers) -> Plane:
        """Where it runs through what has these corners."""
        turn = math.radians(self.turn_deg)
        return _at_share(numpy.array([-math.sin(turn), math.cos(turn), 0.0]), corners, self.at)


def _at_share(across: Numbers, corners: Numbers, share: float) -> Plane:
    along = corners @ across
    low, high = float(along.min()), float(along.max())
    return Plane(across, low + share * (high - low))


class Parted(NamedTuple):
    """A surface after a cut: the triangle that each of its own comes from, and the label of the side it lies on (0 of
    what was not to be cut).
    """

    surface: Surface
    parents: Labels
    labels: Labels


def sliced(surface: Surface, plane: Plane, there: Mask | None = None) -> Parted:
    """A surface cut straight along a plane, where its triangles are `there`: 1 lies beyond it. A corner that it would
    pass too near is moved onto it, so that no sliver is left.
    """
    there = numpy.ones(len(surface.triangles), dtype=bool) if there is None else there
    beyond = plane.beyond(surface.corners)
    ends = edges_of(surface.triangles[there])
    crossing = ends[(beyond[ends] > 0).sum(axis=1) == 1]
    # How near it each corner lies, by the edge there that it cuts off shortest.
    nearest = numpy.ones(len(beyond))
    shares = numpy.abs(beyond[crossing]) / numpy.abs(numpy.diff(beyond[crossing], axis=1))
    numpy.minimum.at(nearest, crossing.ravel(), shares.ravel())
    near = nearest < CLEAR
    corners, labels = surface.corners.copy(), numpy.where(near, ON, beyond > 0)
    corners[near] -= beyond[near, None] * plane.across
    return _cut(corners, surface.triangles, labels, there, lambda low, high: beyond[low] / (beyond[low] - beyond[high]))


def parted(surface: Surface, scores: Numbers) -> Parted:
    """A surface cut along the lines where two scores of its corners are alike and highest: a label is the number of the
    highest.
    """
    best = scores.argmax(axis=1)

    def share(low: int, high: int) -> float:
        gap = scores[:, best[low]] - scores[:, best[high]]
        return min(1 - CLEAR, max(CLEAR, float(gap[low] / (gap[low] - gap[high]))))

    there = numpy.ones(len(surface.triangles), dtype=bool)
    return _cut(surface.corners, surface.triangles, best, there, share)


def _cut(
    corners: Numbers, triangles: Triangles, labels: Labels, there: Mask, share: Callable[[int, int], float]
) -> Parted:
    """Triangles cut between corners of different labels, at a share of the edge from its lower corner on; those not
    `there` only where they share an edge that is cut.
    """
    places, added = corners.tolist(), dict[Edge, int]()
    done: list[tuple[tuple[int, int, int], int, int]] = []

    def between(one: int, other: int) -> int:
        """The corner where an edge is cut."""
        edge = low, high = edge_between(one, other)
        if edge not in added:
            added[edge] = len(places)
            places.append((corners[low] + share(low, high) * (corners[high] - corners[low])).tolist())
        return added[edge]

    met = labels[triangles]
    mixed = numpy.array([len(set(own) - {ON}) > 1 for own in met.tolist()]) & there
    for index in numpy.flatnonzero(mixed).tolist():
        three, own = triangles[index].tolist(), met[index].tolist()
        if len(set(own)) == 3 and ON not in own:
            cuts = [between(three[at], three[(at + 1) % 3]) for at in range(3)]
            places.append(numpy.mean([places[cut] for cut in cuts], axis=0).tolist())
            middle = len(places) - 1
            for at in range(3):
                done.append(((three[at], cuts[at], middle), index, own[at]))
                done.append(((three[at], middle, cuts[at - 1]), index, own[at]))
            continue
        # The corner that is cut off, or that the cut goes through to the edge across from it.
        at = own.index(ON) if ON in own else next(at for at in range(3) if own.count(own[at]) == 1)
        (lone, left, right), (_, one, other) = (
            [three[(at + step) % 3] for step in range(3)], [own[(at + step) % 3] for step in range(3)]
        )  # fmt: skip
        if ON in own:
            middle = between(left, right)
            done += [((lone, left, middle), index, one), ((lone, middle, right), index, other)]
            continue
        to_left, to_right = between(lone, left), between(right, lone)
        done.append(((lone, to_left, to_right), index, own[at]))
        done += [((to_left, left, right), index, one), ((to_left, right, to_right), index, one)]
    sides = numpy.where(there, met.max(axis=1).clip(0), 0).tolist()
    for index in numpy.flatnonzero(~mixed).tolist():
        done += [(one, index, sides[index]) for one in conforming(triangles[index].tolist(), added)]
    cut, parents, told = zip(*done, strict=True)
    return Parted(Surface(numpy.array(places), numpy.array(cut)), numpy.array(parents), numpy.array(told))
