"""A body carved to its views: from the side as drawn, from above as its tin, each section across it box-like or round.

At every station along its width the view from the side gives how low and how high the body is, the outline from above
how far it reaches to the front and to the back. The section there fills that box, or is rounded off in it by a
superellipse, or has a form of its own; so the body, looked at from the side and from above, is what was drawn. Sections
may differ along it: from one given to the next, what a section reaches goes over straight. Where a line straight
across a view leaves it and enters it again, what the view leaves out is cut away right through the body.

x runs to the right, y to the back, z up from the foot. Lengths are in mm, areas in mm², volumes in ml.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from hashlib import sha256

import numpy
from numpy.typing import NDArray
from shapely import Polygon, contains_xy, get_coordinates, unary_union
from shapely.affinity import scale

from amber_spread.core.geometry.bodies.bare import BareBody, Places, known_as
from amber_spread.core.geometry.bodies.sections import Section
from amber_spread.core.geometry.bodies.skin import skin_of, surface_area_of
from amber_spread.core.geometry.bodies.stations import BESIDE_MM, Stations
from amber_spread.core.geometry.flat.outline import Outline
from amber_spread.core.geometry.flat.traced import KNIFE_MM, Region, areas_of, largest_of
from amber_spread.core.geometry.flat.views import Corners, crossed, crossings, extents, side_view
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import cached

STATIONS = 360
"""So many stations along a body, closest together at its ends, beside one on either side of every corner."""
HEIGHTS = 801
"""A section is looked at at so many heights for where the plane through the middle leaves it."""

SURFACE_MM = 2.0
"""Its surface is measured by a net with meshes no larger than this."""
LOOKED_AT, HAIR_SHARE = 160, 1e-4
"""So many heights at which its view from the front is looked at, so far within its foot and its top."""


@dataclass(frozen=True, eq=False)
class Lofted(BareBody):
    """A body within its views.

    `view` is that from the side, its foot at height 0 and its middle at 0; `outline` is the view from above, as wide.
    `sections` are those across it from left to right: one, where all are alike.
    """

    view: Polygon
    sections: tuple[Section, ...]

    @cached_property
    def key(self) -> str:
        """What it is known by in every process: a digest of what it is made of."""
        made_of = self.side.wkb, self.edge.wkb, *(section.made_of for section in self.sections)
        return sha256(b"|".join(made_of)).hexdigest()

    @property
    def side(self) -> Polygon:
        return self.view

    @property
    def front(self) -> Polygon:
        return self.cached("front", None, self._from_front)

    def _from_front(self) -> Polygon:
        """As far as it reaches to the front and to the back at every height."""
        ups = numpy.unique(numpy.concatenate([numpy.linspace(0.0, self.height_mm, LOOKED_AT), self.steps_mm]))
        inner = numpy.clip(ups, HAIR_SHARE * self.height_mm, (1 - HAIR_SHARE) * self.height_mm)
        regions = [(up, self.region(at)) for up, at in zip(ups, inner, strict=True)]
        ends = [(up, region.bounds) for up, region in regions if not region.is_empty]
        line = [*((bounds[1], up) for up, bounds in ends), *((bounds[3], up) for up, bounds in reversed(ends))]
        return largest_of(areas_of(Polygon(line).buffer(0)))

    @cached_property
    def height_mm(self) -> float:
        return float(self.side.bounds[3])

    @cached_property
    def stations(self) -> Stations:
        """Where the body is looked at across its width."""
        half = self.outline.half_width_mm
        given = [2 * half * section.at - half for section in self.sections]
        corners = numpy.concatenate([get_coordinates(self.side)[:, 0], _sharp(self.edge)[:, 0], given])
        even = -half * numpy.cos(numpy.linspace(0, math.pi, STATIONS + 1))
        x = numpy.unique(numpy.concatenate([even, corners - BESIDE_MM, corners + BESIDE_MM]))
        x = x[(x > -half + BESIDE_MM / 2) & (x < half - BESIDE_MM / 2)]
        low, high = extents(get_coordinates(self.side), x)
        front, back = extents(get_coordinates(self.edge), x)
        there = numpy.isfinite(low) & numpy.isfinite(front)
        return Stations(x[there], low[there], high[there], front[there], back[there])

    @cached_property
    def cut_through(self) -> tuple[bool, bool]:
        """Whether a line straight across the view from the side, or from above, leaves it and enters it again."""
        x = (self.stations.x[1:] + self.stations.x[:-1]) / 2
        sides = (get_coordinates(view.exterior) for view in (self.side, self.edge))
        side, above = (bool((crossings(corners, x) > 2).any()) for corners in sides)
        return side, above

    def shares(self, x: Numbers) -> list[Numbers]:
        """How much of each section that is given there is at places along the body: straight from one to the next, and
        all of the first and the last beyond them.
        """
        half = self.outline.half_width_mm
        given = [2 * half * section.at - half for section in self.sections]
        return [numpy.interp(x, given, one) for one in numpy.eye(len(given))]

    def reaches(self, x: Numbers, up: Numbers) -> tuple[Numbers, Numbers]:
        """From where to where the section at a place along the body reaches at a share of its height, as shares of half
        its depth.
        """
        if len(self.sections) == 1:
            return self.sections[0].reaches(up)
        parts = [(share, *section.reaches(up)) for share, section in zip(self.shares(x), self.sections, strict=True)]
        low = sum((share * first for share, first, _ in parts), start=numpy.zeros(1))
        return low, sum((share * last for share, _, last in parts), start=numpy.zeros(1))

    def depth(self, at: Stations, z: Numbers | float) -> tuple[Numbers, Numbers]:
        """Half the depth of the body at stations and heights, below 0 where it is not there, and the middle of it."""
        tall = at.high - at.low
        with numpy.errstate(divide="ignore", invalid="ignore"):
            up = numpy.where(tall > 0, (z - at.low) / tall, -1.0)
        low, high = self.reaches(at.x, up)
        deep, middle = (at.back - at.front) / 2, (at.back + at.front) / 2
        half = numpy.where((up >= 0) & (up <= 1), deep * (high - low) / 2, -1.0)
        return half, middle + deep * (high + low) / 2

    def _across(self, up_mm: float) -> tuple[Numbers, Numbers, Numbers]:
        """Stations at a height, close together where the body begins and ends there; half its depth, and its middle."""
        ends = crossed(get_coordinates(self.side), up_mm)
        close = numpy.array([0.0, 1e-4, 0.02, 0.08, 0.3, 0.8])
        x = numpy.concatenate([self.stations.x, *(end + close for end in ends), *(end - close for end in ends)])
        x = numpy.unique(x)
        x = x[(x >= self.stations.x[0]) & (x <= self.stations.x[-1])]
        half, middle = self.depth(self.stations.at(x), up_mm)
        return x, half, middle

    def region(self, up_mm: float) -> Region:
        """What of the body is at a height, as it would be sliced there; empty where there is nothing."""
        x, half, middle = self._across(up_mm)
        parts = []
        for run in _runs(half >= 0):
            there = slice(run.start, run.stop)
            back = numpy.column_stack([x[there], (middle + half)[there]])
            front = numpy.column_stack([x[there], (middle - half)[there]])
            ring = numpy.vstack([back, front[::-1]])
            if len(ring) >= 6:
                parts.append(Polygon(ring))
        found = unary_union([part.buffer(0) for part in parts])
        side, above = self.cut_through
        if side:
            found = found.intersection(_strips(self.side, up_mm, self.edge.bounds))
        if above:
            found = found.intersection(self.edge)
        return areas_of(found)

    def area(self, up_mm: float) -> float:
        """The area of what is at a height, mm²."""
        if any(self.cut_through):
            return float(self.region(up_mm).area)
        x, half, _ = self._across(up_mm)
        return float(numpy.trapezoid(2 * numpy.maximum(0.0, half), x))

    @cached_property
    def steps_mm(self) -> Numbers:
        found: Numbers = numpy.unique(get_coordinates(self.side)[:, 1].round(6))
        return found

    @cached_property
    def surface_mm2(self) -> float:
        return surface_area_of(self, SURFACE_MM)

    def skin(self, apart_mm: float) -> Places:
        return skin_of(self, apart_mm)

    @cached_property
    def plane(self) -> Polygon:
        """What is cut through from left to right through the middle, as (x, z)."""
        at = self.stations
        deep = numpy.maximum(1e-9, (at.back - at.front) / 2)
        off = numpy.clip(-(at.back + at.front) / 2 / deep, -1, 1)
        up = numpy.linspace(0, 1, HEIGHTS)
        first, last = self.reaches(at.x[:, None], up[None, :])
        within = (first <= off[:, None] + 1e-9) & (off[:, None] - 1e-9 <= last)
        there = within.any(axis=1)
        least = numpy.where(there, up[within.argmax(axis=1)], 0.0)
        most = numpy.where(there, up[HEIGHTS - 1 - within[:, ::-1].argmax(axis=1)], 0.0)
        tall = at.high - at.low
        low, high = at.low + tall * least, at.low + tall * most
        cut = Polygon(numpy.vstack([numpy.column_stack([at.x, low]), numpy.column_stack([at.x, high])[::-1]]))
        found = cut.buffer(0).intersection(self.side)
        return largest_of(areas_of(found).simplify(KNIFE_MM / 10))

    def holds(self, x: Numbers, y: Numbers, z: Numbers) -> NDArray[numpy.bool_]:
        """Whether each place of the lattice x by y by z is in the body."""
        half, middle = self.depth(_against(self.stations.at(x)), z[None, :])
        found: NDArray[numpy.bool_] = numpy.abs(y[None, :, None] - middle[:, None, :]) <= half[:, None, :]
        found &= (x >= self.stations.x[0])[:, None, None] & (x <= self.stations.x[-1])[:, None, None]
        side, above = self.cut_through
        if side:
            found &= contains_xy(self.side, x[:, None], z[None, :])[:, None, :]
        if above:
            found &= contains_xy(self.edge, x[:, None], y[None, :])[:, :, None]
        return found


def lofted(outline: Outline, points: Corners, sections: tuple[Section, ...], height_mm: float | None = None) -> Lofted:
    """The body of an outline from above and a view from the side, which is scaled to the outline's width, drawn out to
    that height where one is given, and stood on its foot, with these sections across it.
    Raises ValueError when a view crosses itself or encloses next to nothing.
    """
    return known_as(_lofted(outline, points, tuple(sorted(sections, key=lambda one: one.at)), height_mm))


@cached(64)
def _lofted(outline: Outline, points: Corners, sections: tuple[Section, ...], height_mm: float | None) -> Lofted:
    view = side_view(points, 2 * outline.half_width_mm)
    if height_mm is not None:
        view = scale(view, 1.0, height_mm / view.bounds[3], origin=(0, 0))
    return Lofted(outline, view, sections)


def _against(at: Stations) -> Stations:
    """Stations as a column, to be met with a row of heights."""
    return Stations(*(getattr(at, name)[:, None] for name in ("x", "low", "high", "front", "back")))


def _runs(there: NDArray[numpy.bool_]) -> Iterator[range]:
    """From where to where something is true without a break."""
    edges = numpy.flatnonzero(numpy.diff(numpy.concatenate([[False], there, [False]]).astype(int)))
    for start, stop in zip(edges[::2], edges[1::2], strict=True):
        yield range(int(start), int(stop))


def _strips(view: Polygon, up_mm: float, bounds: tuple[float, float, float, float]) -> Region:
    """The strips of a plan that a view from the side has at a height."""
    ends = crossed(get_coordinates(view), up_mm)
    front, back = bounds[1] - 1, bounds[3] + 1
    return unary_union(
        [Polygon([(a, front), (b, front), (b, back), (a, back)]) for a, b in zip(ends[::2], ends[1::2], strict=False)]
    )


def _sharp(edge: Polygon) -> Numbers:
    """The corners of an outline that a knife can tell from a curve."""
    found: Numbers = get_coordinates(edge.simplify(KNIFE_MM).exterior)
    return found
