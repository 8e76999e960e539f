"""Heat flow in one dimension through layers, from the air at their face to what lies behind them.

Finite volumes in space. In time the solution is exact, as a sum of modes that each die away: the properties of a layer
do not change with its temperature. Slabs, and cylinders from their wall to their axis.
"""

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np
from scipy.linalg import eigh_tridiagonal

from amber_spread.core.clock.heat.air import Air
from amber_spread.core.clock.heat.materials import Material

Array = np.ndarray[Any, np.dtype[np.float64]]
CELL_MM = 1.0
"""A layer is cut into cells of this, but into at least `CELLS[0]` and at most `CELLS[1]`."""
CELLS = (3, 12)
LATEST_MIN = 4320.0
"""Nothing is followed for longer than three days."""
TIMES_MIN: Array = np.concatenate(([0.0], np.geomspace(0.05, LATEST_MIN, 160)))
"""The times temperatures are looked at, min; between two of them a line is drawn."""


class Slice(NamedTuple):
    """One layer: how thick it is, mm, what it is made of, and how warm it is at the beginning, °C."""

    thick_mm: float
    material: Material
    degc: float


class Layers:
    """Some layers cut into cells, the first one at the air.

    `radius_mm` is that of a cylinder whose wall the layers are; None makes them a slab. No heat passes behind the last:
    at the axis, or where a board lies on a shelf. Every layer gets `fine` times as many cells. Raises ValueError where
    the layers are thicker than the radius.
    """

    def __init__(self, slices: Sequence[Slice], radius_mm: float | None = None, fine: int = 1) -> None:
        least, most = CELLS
        counts = [fine * min(most, max(least, math.ceil(one.thick_mm / CELL_MM))) for one in slices]
        self.ends = np.cumsum(counts).tolist()
        """How many cells the layers have up to the end of each."""
        thick: Array = np.repeat(
            [one.thick_mm / 1000 / count for one, count in zip(slices, counts, strict=True)], counts
        )
        edges = np.concatenate(([0.0], np.cumsum(thick)))
        if radius_mm is not None and 1000 * edges[-1] > radius_mm + 1e-6:
            raise ValueError("these layers are thicker than the radius")
        area = np.ones_like(edges) if radius_mm is None else np.maximum(0.0, 1 - 1000 * edges / radius_mm)
        half = thick / 2 / np.repeat([one.material.conductivity for one in slices], counts)
        kept = np.repeat([1000 * one.material.heat_capacity for one in slices], counts)
        self.degc: Array = np.repeat([float(one.degc) for one in slices], counts)
        # For each square metre of the face: J/K of each cell, W/K from each cell to the next.
        self.capacity: Array = kept * thick * (area[:-1] + area[1:]) / 2
        self.between: Array = area[1:-1] / (half[:-1] + half[1:])
        self.first_half = float(half[0])


class Cooling:
    """Some layers in air from one moment on, at the temperatures in `degc`: each cell's."""

    def __init__(self, layers: Layers, air: Air, degc: Array | None = None) -> None:
        self.layers, self.air = layers, air
        outer = 1 / (1 / air.film + layers.first_half)
        leaving = np.concatenate(([outer], layers.between)) + np.concatenate((layers.between, [0.0]))
        root = np.sqrt(layers.capacity)
        rates, modes = eigh_tridiagonal(leaving / layers.capacity, -layers.between / (root[:-1] * root[1:]))
        self.rates: Array = 60 * np.maximum(rates, 0.0)
        amounts = modes.T @ (root * ((layers.degc if degc is None else degc) - air.degc))
        self.modes: Array = modes / root[:, None] * amounts
        self.at_face = outer / air.film
        """By how much the face differs from the air, for each degree that the first cell does."""

    def cells(self, minutes: float) -> Array:
        """The temperature of every cell after some minutes, °C."""
        found: Array = self.air.degc + self.modes @ np.exp(-self.rates * minutes)
        return found

    def face(self) -> Array:
        """The temperature of the face at each of `TIMES_MIN`, °C."""
        found: Array = self.air.degc + self.at_face * (self.modes[0] @ np.exp(np.outer(-self.rates, TIMES_MIN)))
        return found

    def minutes_until(self, degc: float, *depths: int) -> list[float]:
        """For each of some depths, minutes until so many cells from the face are no warmer than that, and stay so.
        Infinite where that takes longer than three days.
        """
        cells = self.air.degc + self.modes[: max(depths)] @ np.exp(np.outer(-self.rates, TIMES_MIN))
        warmest = np.maximum.accumulate(cells, axis=0)
        return [last_crossing(warmest[depth - 1] - degc) for depth in depths]


def last_crossing(over: Array) -> float:
    """The time after which values at `TIMES_MIN` stay at or below 0."""
    above = np.flatnonzero(over > 0)
    if not len(above):
        return 0.0
    at = int(above[-1])
    if at + 1 == len(over):
        return math.inf
    share = over[at] / (over[at] - over[at + 1])
    return float(TIMES_MIN[at] + share * (TIMES_MIN[at + 1] - TIMES_MIN[at]))
