"""How far every place about a body is from its surface, on an even lattice: what a coat of any thickness takes.

The lattice holds the distance to the nearest place of the surface, below 0 within the body. A coat that thick is all
that lies no farther out; its volume is the sum of the lattice's cells, each filled as far as the level through its
middle fills it: within 0.7 per cent of a ball's and a box's own (tests/outside/test_carved.py).
"""

import math
from dataclasses import dataclass, field

import numpy
from numpy.typing import NDArray

from amber_spread.core.geometry.bodies.bare import BareBody
from amber_spread.core.geometry.flat.sector import ALL_ROUND, Sector
from amber_spread.core.geometry.rows import Numbers, keys_of
from amber_spread.core.kernel.latest import Latest

MARGIN_MM = 30.0
"""How far out from a body distances are known."""
FAR_MM = 4 * MARGIN_MM
"""What stands for the distance of what lies farther out."""
CELLS = 260_000
"""About so many cells a lattice has."""
FINEST_MM, TINY_MM = 2.0, 1e-3
MOST_RISEN = 4
FINER = 6
"""What of a column lies in a sector is seen by so many places each way."""
SKIN_SHARE = 0.6
"""Places on the surface lie so much closer than the lattice's."""
DEEP_CELLS = 2
"""How far away what lies so many cells within is no coat asks: it is told by counting cells, for drawing levels."""
NEAR_CELLS, FAR_SHARE = 4, 2
"""Beyond so many cells from the body, so many times fewer places each way are looked at: they are seen as one."""
FINELY = 1 << 20
"""Into so many steps the way from the middle of a cell to its corner is told apart."""
BEYOND_CELLS = 2
"""How far beyond the margin distances are still told, so that what lies between two places of it is."""
LEAF = 24
"""So many places are looked at one by one (the k-d tree's leaf: what is fastest for these)."""
BESIDE = 1.0
"""The nearest of places that far apart on a flat lies no farther beside a spot than this share of it."""


@dataclass(frozen=True, eq=False)
class DistanceField:
    """The distance from a body's surface at every place of a lattice, mm: `away[i, j, k]` at x[i], y[j], z[k]."""

    x: Numbers
    y: Numbers
    z: Numbers
    away: NDArray[numpy.float32]
    _risen: Latest[float, NDArray[numpy.float32]] = field(default_factory=lambda: Latest(MOST_RISEN))

    def __getstate__(self) -> dict[str, object]:
        """Sent to another process without what is soon worked out again."""
        return {**self.__dict__, "_risen": Latest(MOST_RISEN)}

    @property
    def step_mm(self) -> float:
        """How far apart the places are."""
        return float(self.x[1] - self.x[0])

    def risen(self, more_mm: float) -> NDArray[numpy.float32]:
        """The distances with the body drawn out upward by so much, or with so much less of a coat on its top.

        Grown by a ball and an upright line: a place is as far away as the nearest of those so far below it.
        """
        if abs(more_mm) < TINY_MM:
            return self.away
        return self._risen.get_or_compute(more_mm, lambda: self._rise(more_mm))

    def _rise(self, more_mm: float) -> NDArray[numpy.float32]:
        layers = more_mm / self.step_mm
        by = [0.0, layers, *(math.copysign(whole, layers) for whole in range(1, int(abs(layers)) + 1))]
        moved = [_shifted(self.away, one) for one in by]
        found: NDArray[numpy.float32] = (numpy.minimum if more_mm > 0 else numpy.maximum).reduce(moved)
        return found

    def layers_ml(self, out_mm: float, more_mm: float, low_mm: float, sector: Sector = ALL_ROUND) -> Numbers:
        """The volume within that distance in each layer of the lattice from a height up, in a sector, ml."""
        step = self.step_mm
        held = numpy.clip(0.5 + (out_mm - self.risen(more_mm)) / step, 0, 1)
        if not sector.whole:
            held = held * self.columns_in(sector)[:, :, None]
        filled = held.sum(axis=(0, 1), dtype=numpy.float64)
        part = numpy.clip((self.z + step / 2 - low_mm) / step, 0, 1)
        found: Numbers = filled * part * step**3 / 1000
        return found

    def columns_in(self, sector: Sector) -> NDArray[numpy.float32]:
        """How much of each upright column of the lattice lies in a sector, by `FINER` places each way in it."""
        apart = ((numpy.arange(FINER) + 0.5) / FINER - 0.5) * self.step_mm
        x, y = ((axis[:, None] + apart).ravel() for axis in (self.x, self.y))
        there = sector.holds(x, y).reshape(len(self.x), FINER, len(self.y), FINER)
        found: NDArray[numpy.float32] = there.mean(axis=(1, 3), dtype=numpy.float32)
        return found

    def level(self, up_mm: float, more_mm: float, lowest_mm: float) -> NDArray[numpy.float32]:
        """The distances at a height, straight between the lattice's layers; from `lowest_mm` up alone."""
        away, place = self.risen(more_mm), (up_mm - self.z[0]) / self.step_mm
        first = int(numpy.searchsorted(self.z, lowest_mm))
        below = min(len(self.z) - 2, max(first, math.floor(place)))
        share = min(1.0, max(0.0, place - below))
        low, high = away[:, :, below], away[:, :, below + 1]
        return low + (high - low) * numpy.float32(share)

    def through(self, more_mm: float) -> NDArray[numpy.float32]:
        """The distances in the plane through the middle, by x and z."""
        middle, away = len(self.y) // 2, self.risen(more_mm)
        return (away[:, middle - 1] + away[:, middle]) * numpy.float32(0.5)

    def middle(self, out_mm: float, low_mm: float) -> tuple[float, float]:
        """Where the middle of what lies within that distance is, from above."""
        filled = numpy.clip(0.5 + (out_mm - self.away[:, :, self.z > low_mm]) / self.step_mm, 0, 1)
        whole = float(filled.sum(dtype=numpy.float64))
        along_x, along_y = (filled.sum(axis=axes, dtype=numpy.float64) for axes in ((1, 2), (0, 2)))
        return float(along_x @ self.x) / whole, float(along_y @ self.y) / whole


def _shifted(away: NDArray[numpy.float32], by: float) -> NDArray[numpy.float32]:
    """Distances moved up by so many layers, part of one too; what comes in at the end is far away."""
    whole, part = math.floor(by), by - math.floor(by)

    def moved(layers: int) -> NDArray[numpy.float32]:
        found = numpy.full_like(away, FAR_MM)
        if layers >= 0:
            found[:, :, layers:] = away[:, :, : away.shape[2] - layers]
        else:
            found[:, :, :layers] = away[:, :, -layers:]
        return found

    return moved(whole) if part < 1e-9 else moved(whole) * (1 - part) + moved(whole + 1) * part


def distances(body: BareBody) -> DistanceField:
    """The distances about a body, worked out once and kept with it."""
    return body.cached("distances", None, lambda: _measured(body))


def _measured(body: BareBody) -> DistanceField:
    """The distances about a body: from the nearest place of its surface, or from the flat through that place where that
    lies straight out from it. Source: geometry; the nearest places by scipy's k-d tree.
    """
    from scipy.ndimage import binary_dilation, binary_erosion, distance_transform_edt

    left, front, right, back = body.edge.bounds
    wide, deep, high = right - left, back - front, body.height_mm
    room = (wide + 2 * MARGIN_MM) * (deep + 2 * MARGIN_MM) * (high + 2 * MARGIN_MM)
    step = max(FINEST_MM, (room / CELLS) ** (1 / 3))
    x = _places((left + right) / 2, wide / 2 + MARGIN_MM, step)
    y = _places(0.0, max(abs(front), abs(back)) + MARGIN_MM, step)
    z = step * (numpy.arange(-math.ceil(MARGIN_MM / step), math.ceil((high + MARGIN_MM) / step)) + 0.5)
    within = body.holds(x, y, z)
    apart = SKIN_SHARE * step
    places, normals = _thinned(*body.skin(apart), apart / 2)
    few = _thinned(places, normals, FAR_SHARE * apart)
    lattice = numpy.stack(numpy.meshgrid(x, y, z, indexing="ij"), axis=-1)
    wanted, near = ~binary_erosion(within, iterations=DEEP_CELLS), binary_dilation(within, iterations=NEAR_CELLS)
    away = (-step * (DEEP_CELLS - 0.5 + distance_transform_edt(~wanted))).astype(numpy.float32)
    farthest = MARGIN_MM + BEYOND_CELLS * step
    # What is thinner than the lattice holds none of its places, and has a surface all the same.
    there = within.copy()
    there[tuple((((few[0] - lattice[0, 0, 0]) / step).round().astype(int)).T)] = True
    asked = distance_transform_edt(~there, sampling=step) <= farthest
    away[~asked] = FAR_MM
    for cells, skin, close in ((wanted & near, (places, normals), apart), (asked & ~near, few, FAR_SHARE * apart)):
        away[cells] = _nearest(lattice[cells], *skin, close, farthest)
    numpy.negative(away, out=away, where=within & wanted)
    return DistanceField(x, y, z, away)


def _nearest(spots: Numbers, places: Numbers, normals: Numbers, close_mm: float, farthest_mm: float) -> Numbers:
    """The distance of each spot from the nearest place of a surface, or straight from the flat there where it is close
    to standing on that; that of what is farther than so much is not told.
    """
    from scipy.spatial import cKDTree

    far, index = cKDTree(places, leafsize=LEAF).query(spots, distance_upper_bound=farthest_mm)
    met = numpy.isfinite(far)
    far[~met] = FAR_MM
    straight = numpy.abs(((spots[met] - places[index[met]]) * normals[index[met]]).sum(axis=1))
    beside = numpy.sqrt(numpy.maximum(0.0, far[met] ** 2 - straight**2))
    far[met] = numpy.where(beside <= BESIDE * close_mm, straight, far[met])
    return numpy.asarray(far, dtype=numpy.float64)


def _thinned(places: Numbers, normals: Numbers, cell_mm: float) -> tuple[Numbers, Numbers]:
    """No more than one place to each small cell and direction, the one nearest its middle: where nets run together they
    are far too many.
    """
    within = places / cell_mm
    corner = numpy.floor(within)
    off = ((within - corner - 0.5) ** 2).sum(axis=1) / 0.75
    keys = keys_of(numpy.column_stack([corner, numpy.round(normals * 2)]).astype(numpy.int64))
    # Sorted once, by the cell and in it by how near its middle.
    order = numpy.argsort(keys * FINELY + (off * (FINELY - 1)).astype(numpy.int64))
    first = order[numpy.concatenate([[True], numpy.diff(keys[order]) > 0])]
    return places[first], normals[first]


def _places(middle: float, reach: float, step: float) -> Numbers:
    """Places so far apart on both sides of a middle, which lies half-way between two of them."""
    count = math.ceil(reach / step)
    return numpy.asarray(middle + step * (numpy.arange(-count, count) + 0.5), dtype=numpy.float64)
