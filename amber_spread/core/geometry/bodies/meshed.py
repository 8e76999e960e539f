"""A body whose surface is known as triangles: solids joined and cut, or a 3D file that was read.

The triangles close up, their corners run round anticlockwise seen from outside, and all of them hang together; its
slices, volumes and silhouettes are manifold3d's.
"""

import atexit
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from hashlib import sha256

import numpy
import shapely
from manifold3d import CrossSection, Error, FillRule, Manifold
from numpy.typing import NDArray
from shapely import Polygon, unary_union

from amber_spread.core.geometry.bodies.bare import MOST_KEPT, BareBody, Places, known_as
from amber_spread.core.geometry.bodies.triangles import Triangles, crossed, solid_of, triangles_of
from amber_spread.core.geometry.flat.traced import KNIFE_MM, Region, Traced, areas_of, largest_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import cached, forgettable
from amber_spread.core.kernel.latest import Latest

LEVEL_STEP = 1e-4
"""A face that rises by less than this share of the body is level."""
WORTH_MM2 = 1.0
"""A face that is level is told as a step from so large on."""
LEAST_ML = 1.0
STANDS_MM = 1e-6
CRUMB_ML = 0.01
"""A part of less is left out as a splinter."""
UPRIGHT, FLAT = [-90.0, 0.0, 0.0], [0.0, 0.0, 0.0]
"""How a body is turned so that what is seen of it is seen from above."""
QUARTER = [0.0, 0.0, -90.0]
"""How it is turned so that its back is on the right."""


@dataclass(frozen=True, eq=False)
class Meshed(BareBody):
    """A body inside triangles: `corners` a row each, `triangles` three of their rows each."""

    corners: Numbers
    triangles: Triangles

    @cached_property
    def key(self) -> str:
        return sha256(b"mesh|" + self.corners.tobytes() + self.triangles.tobytes()).hexdigest()

    @property
    def solid(self) -> Manifold:
        """The body as the library has it."""
        return _SOLIDS.get_or_compute(self.key, lambda: solid_of(self.corners, self.triangles))

    @cached_property
    def height_mm(self) -> float:
        return float(self.corners[:, 2].max())

    @cached_property
    def side(self) -> Polygon:
        return largest_of(_filled(seen(self.solid, UPRIGHT)))

    @cached_property
    def front(self) -> Polygon:
        return largest_of(_filled(seen(self.solid.rotate(QUARTER), UPRIGHT)))

    @cached_property
    def plane(self) -> Region:
        return region_of(self.solid.rotate(UPRIGHT).slice(0.0))

    @cached_property
    def steps_mm(self) -> Numbers:
        ups = self.corners[self.triangles][:, :, 2]
        level = numpy.ptp(ups, axis=1) < LEVEL_STEP * self.height_mm
        area = numpy.linalg.norm(crossed(self.corners, self.triangles), axis=1) / 2
        found = numpy.unique(ups[level & (area > WORTH_MM2)].mean(axis=1).round(3))
        inner = found[(found > 1e-3) & (found < self.height_mm - 1e-3)]
        return numpy.concatenate([[0.0], inner, [self.height_mm]])

    def region(self, up_mm: float) -> Region:
        return region_of(self.solid.slice(up_mm))

    def area(self, up_mm: float) -> float:
        return float(self.solid.slice(up_mm).area())

    def holds(self, x: Numbers, y: Numbers, z: Numbers) -> NDArray[numpy.bool_]:
        found = numpy.zeros((len(x), len(y), len(z)), dtype=bool)
        for index, up in enumerate(z):
            if 0 < up < self.height_mm:
                region = self.region(float(up))
                shapely.prepare(region)
                found[:, :, index] = shapely.contains_xy(region, x[:, None], y[None, :])
        return found

    @cached_property
    def surface_mm2(self) -> float:
        standing = (self.corners[self.triangles][:, :, 2] <= STANDS_MM).all(axis=1)
        return float(numpy.linalg.norm(crossed(self.corners, self.triangles[~standing]), axis=1).sum() / 2)

    def skin(self, apart_mm: float) -> Places:
        corners, triangles = triangles_of(self.solid.refine_to_length(apart_mm))
        normal = crossed(corners, triangles)
        size = numpy.linalg.norm(normal, axis=1)
        there = size > 1e-9
        return corners[triangles[there]].mean(axis=1), normal[there] / size[there, None]


_SOLIDS: Latest[str, Manifold] = forgettable(Latest(MOST_KEPT))
# The library says so of whatever of its own is still held when the program ends.
atexit.register(_SOLIDS.clear)


def meshed(solid: Manifold) -> Meshed:
    """A body stood on its foot about its middle. Raises ValueError where it is none or of several parts."""
    solid = _in_one(solid)
    left, front, low, right, back, _ = solid.bounding_box()
    placed = solid.translate([-(left + right) / 2, -(front + back) / 2, -low])
    return Meshed(Traced(_filled(seen(placed, FLAT)), may_part=True), *triangles_of(placed))


def sized(body: Meshed, wide_mm: float, high_mm: float) -> Meshed:
    """A body made so wide, as long in proportion, and so high."""
    return known_as(_sized(body, wide_mm, high_mm))


@cached(64)
def _sized(body: Meshed, wide_mm: float, high_mm: float) -> Meshed:
    across, up = wide_mm / 2 / body.outline.half_width_mm, high_mm / body.height_mm
    return Meshed(body.outline.stretched(across, across), body.corners * [across, across, up], body.triangles)


def _in_one(solid: Manifold) -> Manifold:
    """A body without splinters. Raises ValueError where nothing is left of it or more than one part."""
    if solid.status() != Error.NoError or solid.volume() < LEAST_ML * 1000:
        raise ValueError("nothing is left of the body")
    parts = [part for part in solid.decompose() if abs(part.volume()) > CRUMB_ML * 1000]
    if any(part.volume() < 0 for part in parts):
        raise ValueError(
            "the body has a hollow inside that opens nowhere: open it to one side, or make it an opening, which may be "
            "left empty"
        )
    if len(parts) > 1:
        raise ValueError(f"the body is of {len(parts)} parts that do not touch: move them together, or cut them off")
    return parts[0]


def seen(solid: Manifold, turned: Sequence[float]) -> Region:
    """All of a body seen from above once it is turned so, in degrees about x, y and z."""
    lines = solid.rotate(list(turned)).project().to_polygons()
    return region_of(CrossSection(lines, FillRule.Positive)).simplify(KNIFE_MM / 4)


def region_of(section: CrossSection) -> Region:
    """A section as an area, its holes left out."""
    parts = []
    for one in section.decompose() if not section.is_empty() else ():
        rings = sorted(one.to_polygons(), key=_within, reverse=True)
        parts.append(Polygon(rings[0], [ring for ring in rings[1:] if len(ring) > 2]))
    return areas_of(unary_union([part if part.is_valid else part.buffer(0) for part in parts]))


def _within(ring: Numbers) -> float:
    x, y = ring.T
    return abs(float(x @ numpy.roll(y, -1) - y @ numpy.roll(x, -1)))


def _filled(region: Region) -> Region:
    """An area without its holes."""
    parts = [region] if isinstance(region, Polygon) else list(region.geoms)
    return areas_of(unary_union([Polygon(part.exterior) for part in parts]))
