"""Where a carved body is looked at along its width, and how far it reaches there."""

from dataclasses import dataclass

import numpy

from amber_spread.core.geometry.rows import Numbers

BESIDE_MM = 1e-5
"""A corner is looked at so close on either side of it."""


@dataclass(frozen=True, slots=True)
class Stations:
    """A body's extents at places along it: from where to where it is high, and from where to where it is deep."""

    x: Numbers
    low: Numbers
    high: Numbers
    front: Numbers
    back: Numbers

    def at(self, x: Numbers) -> "Stations":
        """The same at other places, straight in between."""
        ends = (self.low, self.high, self.front, self.back)
        return Stations(x, *(numpy.interp(x, self.x, end) for end in ends))
