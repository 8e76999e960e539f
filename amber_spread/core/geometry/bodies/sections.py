"""A section across a carved body: how far it reaches to the front and to the back at each share of its height."""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy
from shapely import Polygon, get_coordinates

from amber_spread.core.geometry.bodies.stations import BESIDE_MM
from amber_spread.core.geometry.flat.views import Corners, extents, front_view
from amber_spread.core.geometry.rows import Numbers

SQUARE_BELOW = 0.02
"""A roundness of less is none."""


@dataclass(frozen=True)
class Section:
    """One section, at a share of the body's width from its left end.

    `round` is 0 where it is box-like and 1 where it is elliptical, rounded above only where the body has a flat foot;
    where it is drawn by `points`, it has that form, drawn out to its own height and depth.
    """

    round: float
    flat_foot: bool
    points: Corners | None = None
    at: float = 0.0

    @cached_property
    def form(self) -> Polygon | None:
        """Its form between -1 and 1 across and 0 and 1 up. Raises ValueError where it is none."""
        return None if self.points is None else front_view(self.points)

    @property
    def made_of(self) -> bytes:
        """What it is known by."""
        form = b"" if self.form is None else self.form.wkb
        return form + repr((self.round, self.flat_foot, self.at)).encode()

    def reaches(self, up: Numbers) -> tuple[Numbers, Numbers]:
        """From where to where it reaches at shares of its height, as shares of half its depth.

        By its own form; else (1 - u^n)^(1/n) both ways with n = 2 / round, u the share above the foot, or from the
        middle where it is rounded below too. Source: published: the superellipse (M. Gardner, Mathematical Carnival,
        chapter 18; from memory).
        """
        if self.form is not None:
            low, high = extents(get_coordinates(self.form.exterior)[:, ::-1], numpy.clip(up, 1e-9, 1 - 1e-9).ravel())
            return low.reshape(up.shape), high.reshape(up.shape)
        if self.round < SQUARE_BELOW:
            return -numpy.ones_like(up), numpy.ones_like(up)
        n = 2 / self.round
        u = up if self.flat_foot else numpy.abs(2 * up - 1)
        found: Numbers = numpy.maximum(0.0, 1 - numpy.minimum(1.0, numpy.maximum(0.0, u)) ** n) ** (1 / n)
        return -found, found

    def shares(self, high: int, deep: int) -> Numbers:
        """Shares of its height, close together where its edge stands upright and where it lies level."""
        even = (1 - numpy.cos(numpy.linspace(0, math.pi, high + 1))) / 2
        if self.form is not None:
            corners = get_coordinates(self.form)[:, 1]
            beside = numpy.concatenate([corners - BESIDE_MM, corners + BESIDE_MM])
            return numpy.unique(numpy.concatenate([even, numpy.clip(beside, 0, 1)]))
        if self.round < SQUARE_BELOW:
            return even
        n = 2 / self.round
        level = (1 - numpy.linspace(0, 1, deep + 1) ** n) ** (1 / n)
        if not self.flat_foot:
            level = numpy.concatenate([(1 - level) / 2, (1 + level) / 2])
        return numpy.unique(numpy.concatenate([even, level]))
