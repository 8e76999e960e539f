"""A river stone made of triangles: the body of a cake out of a 3D file, until one is read."""

import numpy
from manifold3d import Manifold

from amber_spread.core.geometry.bodies.triangles import Triangles, triangles_of
from amber_spread.core.geometry.rows import Numbers

PIECES = 40


def pebble(wide_mm: float = 200.0, pieces: int = PIECES) -> tuple[Numbers, Triangles]:
    """A stone so wide, flatter than it is deep and a little fuller at one end, cut level at its foot; worn from a ball
    drawn in so many pieces round it.
    """
    half = wide_mm / 2

    def worn(places: Numbers) -> Numbers:
        x, y, z = (places / half).T
        fuller = 1 - 0.22 * x
        return numpy.column_stack([half * x, 0.68 * half * y * fuller, half * (0.5 * z * fuller + 0.05 * x)])

    stone = Manifold.sphere(half, pieces).warp_batch(worn).trim_by_plane([0, 0, 1], -0.36 * half)
    return triangles_of(stone)
