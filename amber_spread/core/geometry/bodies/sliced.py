"""A carved body in slices: each layer's outline at its faces and between them, and how it lies on the one below."""

import math
from collections.abc import Callable, Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy
import shapely
from numpy.typing import NDArray
from shapely import Polygon, get_coordinates, unary_union
from shapely.affinity import rotate, translate

from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.flat.no_fit import Hull, hull_of
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.traced import Region, Traced, areas_of
from amber_spread.core.kernel.base import PlanPart

LOOKED_AT = 5
"""A layer is looked at at so many heights, since it may be widest between its faces."""
DRAWN_MM = 0.15
"""Corners that stand out by less are left out: no knife follows them (common practice)."""
CRUMB_MM2 = 25.0
"""A part of a slice smaller than this is a crumb."""
LEVEL_MM, MOST_LEVELS = 2.0, 150
"""A body is cut level so often from its foot to its top, and no more often in all."""
STEP_MM = 4.0
NEARER = 300
"""So many steps the middle of a half ball is moved towards what is farthest from it."""


@dataclass(frozen=True, eq=False)
class Slice:
    """One layer between two heights: its outline at so many heights from its lower to its upper face, and what it lies
    on. Lengths are in mm, areas in mm².
    """

    number: int
    low: float
    high: float
    faces: tuple[Region, ...]
    below: Region

    @property
    def bottom(self) -> Region:
        """Its lower face."""
        return self.faces[0]

    @property
    def top(self) -> Region:
        """Its upper face."""
        return self.faces[-1]

    @cached_property
    def whole(self) -> Region:
        """All of it, seen from above."""
        return unary_union(self.faces)

    @cached_property
    def widest(self) -> Region:
        """It where it is largest."""
        return max(self.faces, key=lambda face: float(face.area))

    @cached_property
    def rings(self) -> tuple[list[list[Point]], ...]:
        """The edges of all of it, of its lower and of its upper face, a ring a part."""
        return rings_of(self.whole), rings_of(self.bottom), rings_of(self.top)

    @cached_property
    def size(self) -> Point:
        """How wide and how long all of it is."""
        left, front, right, back = self.whole.bounds
        return right - left, back - front

    @cached_property
    def circle(self) -> float:
        """How wide the least circle round it is."""
        return 2 * float(shapely.minimum_bounding_radius(self.whole))

    @property
    def middle(self) -> Point:
        """The middle of that circle."""
        return _middle(self.whole)

    @cached_property
    def box(self) -> list[Point]:
        """The corners of the least rectangle round it, its short side first."""
        corners = [(float(x), float(y)) for x, y in shapely.oriented_envelope(self.whole.convex_hull).exterior.coords]
        turned = math.dist(*corners[:2]) > math.dist(*corners[1:3])
        return corners[1:] if turned else corners[:-1]

    @cached_property
    def least(self) -> Point:
        """The short and the long side of that rectangle."""
        return math.dist(*self.box[:2]), math.dist(*self.box[1:3])

    @cached_property
    def hull(self) -> Hull:
        """The least convex outline round it as it is laid, its long side up."""
        return hull_of(self.laid(0))

    def laid(self, quarters: int) -> Region:
        """All of it turned so that the least rectangle round it lies at 0, 0, its long side up, or quarters on."""
        _, (x0, y0), (x1, y1), _ = self.box
        turned = rotate(self.whole, 90 * (1 + quarters) - math.degrees(math.atan2(y1 - y0, x1 - x0)), origin=(0, 0))
        left, low, _, _ = turned.bounds
        return areas_of(translate(turned, -left, -low))

    @cached_property
    def half_balls(self) -> tuple[tuple[float, Point], tuple[float, Point]]:
        """The radius and the middle of the least half ball that it can be cut out of, its flat face below, and above.

        No less than the true one, and within a few hundredths of a millimetre of it where the slice is much the same
        on every side. Source: geometry; its middle by moving towards the farthest place, a little less each time
        (Badoiu and Clarkson, Smaller Core-Sets for Balls, 2003; from memory).
        """
        high = self.high - self.low
        return _half_ball(self.faces, high), _half_ball(self.faces[::-1], high)

    @property
    def half_ball(self) -> float:
        """How wide the less of the two is."""
        return 2 * min(radius for radius, _ in self.half_balls)

    @cached_property
    def moves(self) -> float:
        """How far the outline moves up it: the farthest any place of its upper edge is from its lower one.

        Source: geometry (the directed Hausdorff distance, by GEOS).
        """
        places = shapely.points(get_coordinates(self.top.boundary.segmentize(STEP_MM)))
        return float(shapely.distance(self.bottom.boundary, places).max())

    @cached_property
    def hangs(self) -> float:
        """How far it reaches out beyond what it lies on."""
        if self.below.is_empty:
            return 0.0
        return float(shapely.distance(self.below, shapely.points(get_coordinates(self.whole))).max())


class Level(PlanPart):
    """A body cut level at a height over its foot: how wide and how long it is there, and its edges, a ring a part;
    those of all that is cut out of it too, by its name.
    """

    up_mm: float
    wide_mm: float
    long_mm: float
    rings: list[list[Point]]
    cut_out: dict[str, list[list[Point]]]


CutOut = Callable[[float], Mapping[str, Region]]
"""What is cut out of a body at a height above its foot, by its name."""


def levels(body: Sculpted, emptied: Hashable, cut_out: CutOut) -> list[Level]:
    """A body without coats cut level from its foot to its top, so that any height lies within a millimetre of one;
    no closer than `MOST_LEVELS` allow. What is cut out of it is known as `emptied`.
    """
    return body.core.cached("levels", emptied, lambda: list(_levels(body, cut_out)))


def _levels(body: Sculpted, cut_out: CutOut) -> Iterator[Level]:
    count = min(MOST_LEVELS, max(2, math.ceil(body.height_mm / LEVEL_MM)))
    for step in range(count + 1):
        up_mm = body.height_mm * step / count
        region = _at(body, up_mm)
        if not region.is_empty:
            left, front, right, back = region.bounds
            yield Level(
                up_mm=up_mm,
                wide_mm=right - left,
                long_mm=back - front,
                rings=rings_of(region),
                cut_out=rings_by_name(cut_out(up_mm)),
            )


def sliced(body: Sculpted, layers: Sequence[tuple[int, float, float]]) -> list[Slice]:
    """The slices of a body without coats at layers given by number and heights, from the foot up."""
    key = tuple(layers)
    return body.core.cached("slices", key, lambda: _sliced(body, key))


def _sliced(body: Sculpted, layers: Sequence[tuple[int, float, float]]) -> list[Slice]:
    below, found = _at(body, 0.0), []
    for number, low, high in layers:
        faces = tuple(_at(body, low + (high - low) * step / (LOOKED_AT - 1)) for step in range(LOOKED_AT))
        found.append(Slice(number, low, high, faces, below))
        below = found[-1].top
    return found


def _middle(region: Region) -> Point:
    """The middle of the least circle round a region; of the box round it where GEOS finds none."""
    with numpy.errstate(invalid="ignore"):
        middle = shapely.minimum_bounding_circle(region).centroid
    if middle.is_empty or not math.isfinite(middle.x):
        left, low, right, high = region.bounds
        return (left + right) / 2, (low + high) / 2
    return float(middle.x), float(middle.y)


def _half_ball(faces: Sequence[Region], high: float) -> tuple[float, Point]:
    """The radius and the middle of the least half ball round faces one above the other; it is level with the first."""
    lifts = numpy.linspace(0.0, high, len(faces))
    rings = [get_coordinates(face.convex_hull) for face in faces]
    flat: NDArray[numpy.float64] = numpy.vstack(rings)
    up2 = numpy.repeat(lifts, [len(ring) for ring in rings]) ** 2
    middle = numpy.array(_middle(unary_union(faces)))
    least, best = math.inf, middle
    for step in range(1, NEARER):
        away = ((flat - middle) ** 2).sum(axis=1) + up2
        farthest = int(away.argmax())
        if away[farthest] < least:
            least, best = float(away[farthest]), middle
        middle = middle + (flat[farthest] - middle) / (step + 1)
    return math.sqrt(least), (float(best[0]), float(best[1]))


def _at(body: Sculpted, up_mm: float) -> Region:
    """What of a body is at a height, as fine as a knife."""
    least = 1e-6 * body.height_mm
    section = body.section(min(body.height_mm - least, max(least, up_mm)))
    assert isinstance(section, Traced)
    return section.polygon.simplify(DRAWN_MM)


def parts_of(region: Region) -> list[Polygon]:
    """The parts of a region that are worth cutting, the largest first."""
    parts = [region] if isinstance(region, Polygon) else list(region.geoms)
    large = [part for part in parts if part.area > CRUMB_MM2] or parts[:1]
    return sorted(large, key=lambda part: -float(part.area))


def rings_by_name(regions: Mapping[str, Region]) -> dict[str, list[list[Point]]]:
    """The edges of several regions, as fine as a knife."""
    return {name: rings_of(areas_of(region.simplify(DRAWN_MM))) for name, region in regions.items()}


def rings_of(region: Region) -> list[list[Point]]:
    """The edges of its parts and of the holes in them, to a hundredth of a millimetre."""
    edges = (ring for part in parts_of(region) for ring in (part.exterior, *part.interiors) if not ring.is_empty)
    return [[(round(x, 2), round(y, 2)) for x, y in ring.coords[:-1]] for ring in edges]
