"""Where a body is hollow: how far a flat smoother reaches, and to what radius one must bend to reach the rest.

Lengths are in mm.
"""

import math
from typing import NamedTuple

import numpy

from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.surface import even_surface_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.geometry.sheets.unrolled import LEFT_OUT, mostly

LONG_MM = 150.0
"""A smoother is about so long (from memory): what lies farther off is not in its way."""
SHALLOW_MM = 1.5
"""A hollow no deeper is smoothed over (from memory)."""
FLAT_MM = 1000.0
"""What asks for no smaller radius is reached by a flat smoother."""
NEAR_MM2 = 1.0
"""What lies no farther off, squared, is less deep than a hollow."""
AT_ONCE = 50
"""So many places are looked at together: few enough to stay in the processor's cache."""


class Hollows(NamedTuple):
    """The share of a surface that a flat smoother reaches, and the radius of one that bends and reaches all but a
    little of it; None where a flat one does.
    """

    flat: float
    radius: float | None


def hollows_of(body: Sculpted) -> Hollows:
    """The hollows of a body under its coats; kept with the bare one.

    At each place the largest ball that touches it from outside and holds no other place of the surface: its radius is
    the least of |q - p|² / (2 n (q - p)) over the places q that lie before the flat through p. Source: geometry
    (the medial axis; as it is found by shrinking balls: published: J. Ma, S. W. Bae and S. Choi, 3D medial axis point
    approximation using nearest neighbors and the normal field, The Visual Computer 28, 2012, from memory).
    """
    return body.cached("hollows", lambda: _found(body))


def _found(body: Sculpted) -> Hollows:
    surface = even_surface_of(body)
    places, outward = surface.corners, body.outward(surface.corners)
    shares = numpy.repeat(surface.areas / 3, 3)
    each = numpy.bincount(surface.triangles.ravel(), weights=shares, minlength=len(places)).astype(float)
    radii = _radii(places, outward)
    flat = float(each[radii >= FLAT_MM].sum() / each.sum())
    # What asks for less than that are corners, which are done with a finger.
    return Hollows(flat, None if flat >= 1 - LEFT_OUT else -mostly(-radii, each))


def _radii(places: Numbers, outward: Numbers) -> Numbers:
    """The radius at each place, by products of matrices, since each is held against all others; in single precision,
    which tells a millionth of the width and is twice as fast.
    """
    spots, normals = places.astype(numpy.float32), outward.astype(numpy.float32)
    squares, found = (spots**2).sum(axis=1), numpy.empty(len(spots))
    for at in range(0, len(spots), AT_ONCE):
        here = slice(at, at + AT_ONCE)
        before = normals[here] @ spots.T
        before -= ((normals[here] * spots[here]).sum(axis=1) + SHALLOW_MM)[:, None]
        far = -2 * spots[here] @ spots.T
        far += squares
        far += squares[here, None]
        far[(far >= (LONG_MM / 2) ** 2) | (far < NEAR_MM2)] = math.inf
        before /= far
        found[here] = before.max(axis=1, initial=0.0)
    radii: Numbers = numpy.divide(0.5, found, out=numpy.full(len(found), math.inf), where=found > 0)
    return radii
