"""Convex bodies: whether a surface is one, and how far a sheet set down on it must reach, laid straight down.

On a convex surface the shortest ways from a place spread out no farther than on a flat sheet (published: Toponogov's
comparison theorem, from memory), so a sheet is taken in everywhere and drawn out nowhere. Lengths are in mm.
"""

import math
from typing import NamedTuple

import numpy
import shapely

from amber_spread.core.geometry.bodies.open_surface import Surface
from amber_spread.core.geometry.rows import Numbers

DENT_MM = 2.5
"""A surface whose corners lie no deeper below its convex hull is convex: its triangles are as rough as that."""
DIRECTIONS = 360
FLAT = 1e-6
FOOT_MM = 1e-6


class Hull(NamedTuple):
    """The convex hull of a surface: its corners, the pairs of them that are edges, and how deep the surface dents."""

    corners: Numbers
    edges: tuple[Numbers, Numbers]
    dent_mm: float

    @property
    def convex(self) -> bool:
        """Whether the surface is convex but for the roughness of its triangles."""
        return self.dent_mm <= DENT_MM


def hull_over(surface: Surface) -> Hull:
    """The convex hull of a surface. Source: published (quickhull, by Qhull)."""
    from scipy.spatial import ConvexHull

    sizes = numpy.linalg.svd(surface.corners - surface.corners.mean(axis=0), compute_uv=False)
    if sizes[-1] < FLAT * sizes[0]:
        # What lies in a plane has no hull to speak of.
        return Hull(surface.corners, (surface.corners[:0], surface.corners[:0]), math.inf)
    found = ConvexHull(surface.corners)
    planes = numpy.unique(found.equations.round(6), axis=0)
    deep = 0.0
    for start in range(0, len(surface.corners), 512):
        out = surface.corners[start : start + 512] @ planes[:, :3].T + planes[:, 3]
        deep = max(deep, float(-out.max(axis=1).min()))
    triangles = found.simplices
    pairs = numpy.unique(numpy.sort(triangles[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1), axis=0)
    return Hull(surface.corners, (surface.corners[pairs[:, 0]], surface.corners[pairs[:, 1]]), deep)


def ways_straight_down(hull: Hull, start: Numbers, besides: Numbers) -> tuple[Numbers, Numbers]:
    """Directions about a place on top of a convex hull, radians, and the way down to its foot in each: in the upright
    plane through the place, along the hull. Source: geometry.
    """
    directions = numpy.unique(numpy.concatenate([numpy.arange(DIRECTIONS) * 2 * math.pi / DIRECTIONS, besides]))
    first, second = (ends - start for ends in hull.edges)
    return directions, numpy.array([_way(first, second, float(turn)) for turn in directions])


def _way(first: Numbers, second: Numbers, turn: float) -> float:
    """The way from the start, at 0, down one half of a section: once round the half, less its axis and its foot."""
    along, across = numpy.array([math.cos(turn), math.sin(turn)]), numpy.array([-math.sin(turn), math.cos(turn)])
    low, high = first[:, :2] @ across, second[:, :2] @ across
    met = (low > 0) != (high > 0)
    share = (low[met] / (low[met] - high[met]))[:, None]
    places = first[met] + share * (second[met] - first[met])
    points = numpy.column_stack([places[:, :2] @ along, places[:, 2]])
    points = points[points[:, 0] > 0]
    foot = float(points[:, 1].min(initial=0.0))
    on_foot = float(points[points[:, 1] <= foot + FOOT_MM, 0].max(initial=0.0))
    half = shapely.multipoints(numpy.vstack([points, [(0.0, 0.0), (0.0, foot)]]))
    return float(shapely.convex_hull(half).length) + foot - on_foot
