"""Surfaces of triangles as arrays, and as the library (manifold3d) has them.

Corners are a row each, triangles three of their rows each, anticlockwise seen from outside. Lengths are in mm.
"""

from typing import TypeAlias

import numpy
from manifold3d import Manifold, Mesh64
from numpy.typing import NDArray

from amber_spread.core.geometry.rows import Numbers

Triangles: TypeAlias = NDArray[numpy.int64]


def mesh_of(corners: Numbers, triangles: Triangles) -> Mesh64:
    """Triangles as the library takes them."""
    return Mesh64(
        numpy.array(corners, dtype=numpy.float64, order="C"), numpy.array(triangles, dtype=numpy.uint64, order="C")
    )


def solid_of(corners: Numbers, triangles: Triangles) -> Manifold:
    """The solid inside triangles; its `status` says what is wrong with them, if anything is."""
    return Manifold(mesh_of(corners, triangles))


def triangles_of(solid: Manifold) -> tuple[Numbers, Triangles]:
    """The corners and triangles of a solid."""
    mesh = solid.to_mesh64()
    corners = numpy.array(mesh.vert_properties, dtype=numpy.float64)[:, :3].copy()
    return corners, numpy.array(mesh.tri_verts, dtype=numpy.int64)


def alone(corners: Numbers, triangles: Triangles) -> tuple[Numbers, Triangles]:
    """Some of the triangles with their own corners alone."""
    used, back = numpy.unique(triangles, return_inverse=True)
    return corners[used], back.reshape(-1, 3)


def crossed(corners: Numbers, triangles: Triangles) -> Numbers:
    """Straight out of each triangle, twice as long as its area is large (geometry: the cross product of two sides)."""
    first, second, third = (corners[triangles[:, index]] for index in range(3))
    found: Numbers = numpy.cross(second - first, third - first)
    return found
