"""An open surface of triangles: their areas and which way they face, what lies beside what, and its edges."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING

import numpy

from amber_spread.core.geometry.bodies.triangles import Triangles, crossed
from amber_spread.core.geometry.rows import Numbers, keys_of

if TYPE_CHECKING:
    from scipy.sparse import csr_matrix

Edge = tuple[int, int]
"""The corners of an edge, the lower first."""


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
        keys = keys_of(edges_of(self.triangles))
        order = numpy.argsort(keys, kind="stable")
        owners = numpy.tile(numpy.arange(len(self.triangles)), 3)[order]
        same = keys[order][1:] == keys[order][:-1]
        return numpy.column_stack([owners[:-1][same], owners[1:][same]])


def edges_of(triangles: Triangles) -> Triangles:
    """The edges of triangles, each with its lower corner first: all first edges, then all second, then all third."""
    return numpy.sort(numpy.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]]), axis=1)


def edges_once(triangles: Triangles) -> tuple[Triangles, Triangles, Triangles]:
    """Each edge of triangles once, in order; which of them each of `edges_of` is, a row for the first, the second and
    the third of each triangle; and how many triangles have it.
    """
    edges = edges_of(triangles)
    _, first, back, counts = numpy.unique(keys_of(edges), return_index=True, return_inverse=True, return_counts=True)
    return edges[first], back.reshape(3, -1), counts


def edge_between(one: int, other: int) -> Edge:
    """The edge between two corners."""
    return min(one, other), max(one, other)


def conforming(three: list[int], added: dict[Edge, int]) -> list[tuple[int, int, int]]:
    """A triangle as those it falls into where its edges are cut by its neighbours."""
    for at in range(3):
        one, other, opposite = (three[(at + step) % 3] for step in range(3))
        cut = added.get(edge_between(one, other))
        if cut is not None:
            return [*conforming([one, cut, opposite], added), *conforming([cut, other, opposite], added)]
    return [(three[0], three[1], three[2])]


def rings_along(triangles: Triangles) -> Iterator[list[int]]:
    """The corners along each edge of triangles in order, anticlockwise seen from outside."""
    every = numpy.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    _, back, counts = edges_once(triangles)
    after: dict[int, int] = dict(every[counts[back.ravel()] == 1].tolist())
    while after:
        at = min(after)
        ring = []
        while at in after:
            ring.append(at)
            at = after.pop(at)
        yield ring
