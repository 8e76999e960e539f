"""A carved body and what goes on it: the `Body` of a tier that has no formula."""

import math
from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, TypeVar, cast

import numpy
from numpy.typing import NDArray
from shapely import MultiPolygon, Polygon, box, get_coordinates, unary_union
from shapely.geometry.polygon import orient

from amber_spread.core.geometry.bodies.bare import BareBody
from amber_spread.core.geometry.bodies.body import Body, Outlined
from amber_spread.core.geometry.bodies.distance import MARGIN_MM, DistanceField, distances
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.geometry.flat.sector import ALL_ROUND, Sector
from amber_spread.core.geometry.flat.traced import HAIR_MM, Region, Traced, areas_of, largest_of
from amber_spread.core.geometry.flat.views import extents
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.latest import Latest

T = TypeVar("T")
LEVEL_MM = 1e-6
TIP_MM2 = 0.01
"""A slice of less is none."""
MOST_LOOKED_UP = 300
LOOKED_AT = 24
"""So many heights its wall is looked at, since it is nowhere straight."""


@dataclass(frozen=True, eq=False)
class Sculpted(Outlined):
    """A carved body after coats of `side_mm` straight out from it, so that its flats carry `top_mm`.

    A coat follows the body: it is what lies no farther than its thickness from it, rounded over its edges, and stands
    on the same plane unless the foot is coated too (`under_mm`).
    """

    core: BareBody = field()
    side_mm: float = 0.0
    top_mm: float = 0.0
    under_mm: float = 0.0
    _looked_up: Latest[Hashable, Any] = field(default_factory=lambda: Latest(MOST_LOOKED_UP))
    """Its slices and walls, by where they are; a body is asked for the same ones again and again."""

    def get_or_compute(self, key: Hashable, work_out: Callable[[], T]) -> T:
        """What is soon looked up again, worked out once; it is not sent to other processes."""
        return cast(T, self._looked_up.get_or_compute(key, work_out))

    def cached(self, name: str, work_out: Callable[[], T]) -> T:
        """What takes long, worked out once for coats so thick; kept with the bare body, and sent along."""
        return self.core.cached(name, (self.side_mm, self.top_mm, self.under_mm), work_out)

    def __getstate__(self) -> dict[str, object]:
        """Sent to another process without what is soon looked up again."""
        return {**self.__dict__, "_looked_up": Latest(MOST_LOOKED_UP)}

    @property
    def _coated(self) -> bool:
        return max(self.side_mm, self.top_mm, self.under_mm) > 0

    @property
    def more_mm(self) -> float:
        """By how much more its flats carry than its sides."""
        return self.top_mm - self.side_mm

    @property
    def lattice(self) -> DistanceField:
        """The distances about the bare body."""
        return distances(self.core)

    @cached_property
    def outline(self) -> Outline:
        return self.core.outline.offset(self.side_mm, rounded=True) if self.side_mm else self.core.outline

    @property
    def foot_mm(self) -> float:
        return -self.under_mm

    @property
    def height_mm(self) -> float:
        return self.core.height_mm + self.top_mm + self.under_mm

    @property
    def bends_mm(self) -> Sequence[float]:
        step = self.height_mm / LOOKED_AT
        return [self.foot_mm + step * index for index in range(1, LOOKED_AT)]

    @property
    def slant_mm(self) -> float:
        """The way up the right side in the plane of the half-section, as far as a flat top."""
        points = _up_the_side(_right_of(self.plane, self.foot_mm), self.foot_mm)
        whole = sum(math.dist(a, b) for a, b in zip(points, points[1:], strict=False))
        return whole - (self.flat_top.half_width_mm if self.flat_top else 0.0)

    @property
    def flat_top(self) -> Traced | None:
        """The flat of the bare body; a coat is rounded beyond it."""
        return self.core.flat_top

    @cached_property
    def wall_area_mm2(self) -> float:
        """All but the flat top: of the bare body its surface, else by how much the volume grows for each millimetre of
        coat (published: Steiner).
        """
        if not self._coated:
            return max(0.0, self.core.surface_mm2 - self.top_area_mm2)
        field = self.lattice
        step = field.step_mm
        volumes = [
            float(field.layers_ml(self.side_mm + step * out, self.more_mm, self.foot_mm).sum()) for out in range(3)
        ]
        slope = (4 * volumes[1] - 3 * volumes[0] - volumes[2]) / (2 * step) * 1000
        return max(0.0, slope - self.top_area_mm2)

    @property
    def surface_mm2(self) -> float:
        """All that a coat goes on."""
        return self.wall_area_mm2 + self.top_area_mm2

    @cached_property
    def _layers(self) -> tuple[Numbers, Numbers]:
        """Heights and the volume below each, ml: the bare body's own, and what the lattice says is on it."""
        field = self.lattice
        step = field.step_mm
        coated = field.layers_ml(self.side_mm, self.more_mm, self.foot_mm)
        bare = field.layers_ml(0.0, 0.0, 0.0)
        at = numpy.concatenate([[self.foot_mm], field.z[field.z > self.foot_mm] + step / 2])
        on_it = numpy.concatenate([[0.0], numpy.cumsum((coated - bare)[field.z > self.foot_mm])])
        below = numpy.array([self.core.volume_below(up) for up in at])
        return at, below + on_it

    @property
    def volume_ml(self) -> float:
        return float(self._layers[1][-1]) if self._coated else self.core.volume_ml

    def volume_between(self, low_mm: float, high_mm: float) -> float:
        """The volume between two heights, ml."""
        if not self._coated:
            return self.core.volume_below(high_mm) - self.core.volume_below(low_mm)
        low, high = numpy.interp([low_mm, high_mm], *self._layers)
        return float(high - low)

    def ring_share(self, inner: Body, low_mm: float, high_mm: float, sector: Sector) -> float:
        """By the lattice, which both have in common: a slice may be wholly another a little above."""
        assert isinstance(inner, Sculpted)
        lattice = self.lattice
        half = lattice.step_mm / 2
        part = numpy.clip(numpy.minimum(lattice.z + half, high_mm) - numpy.maximum(lattice.z - half, low_mm), 0, None)

        def held(sector: Sector) -> float:
            outer, within = (
                lattice.layers_ml(body.side_mm, body.more_mm, body.foot_mm, sector) for body in (self, inner)
            )
            return float(part @ (outer - within))

        whole = held(ALL_ROUND)
        return held(sector) / whole if whole > 0 else sector.of_a_turn

    def section(self, up_mm: float) -> Outline:
        """The outline at a height, of all its parts; at a tip the least there is beside it. Raises ValueError where it
        does not reach.
        """
        top_mm = self.foot_mm + self.height_mm
        if not self.foot_mm - LEVEL_MM <= up_mm <= top_mm + LEVEL_MM:
            raise ValueError("the body does not reach that height")
        return self.get_or_compute(("section", up_mm), lambda: self._section(up_mm))

    def _section(self, up_mm: float) -> Outline:
        found, inward = self._region(up_mm), 0.001 * self.height_mm
        if up_mm > self.foot_mm + self.height_mm / 2:
            inward = -inward
        while found.area < TIP_MM2 and abs(inward) < self.height_mm:
            found, inward = self._region(up_mm + inward), 2 * inward
        return Traced(found, may_part=True)

    def _region(self, up_mm: float) -> Region:
        if not self._coated:
            return self.core.region(min(self.core.height_mm * (1 - 1e-9), max(1e-9, up_mm)))
        field = self.lattice
        level = field.level(up_mm, self.more_mm, self.foot_mm)
        return _within(field.x, field.y, level.T, self.side_mm).simplify(HAIR_MM * 4)

    @cached_property
    def plane(self) -> Region:
        """What is cut through from left to right through the middle, as (x, z)."""
        if not self._coated:
            return self.core.plane
        field = self.lattice
        above = field.z > self.foot_mm
        z = numpy.concatenate([[self.foot_mm], field.z[above]])
        away = field.through(self.more_mm)[:, above]
        away = numpy.concatenate([away[:, :1], away], axis=1)
        found = _within(field.x, z, away.T, self.side_mm).simplify(HAIR_MM * 4)
        return unary_union([found, self.core.plane])

    def half_profile(self, low_mm: float | None = None, high_mm: float | None = None) -> list[Point]:
        """The right half cut through, from the foot up, as points (from the axis, up); between two heights its wall."""
        if low_mm is None or high_mm is None:
            return self._right
        return self.get_or_compute(("wall", low_mm, high_mm), lambda: self._wall(low_mm, high_mm))

    def cut(
        self, left_mm: float, right_mm: float, low_mm: float, high_mm: float, away: Region | None = None
    ) -> list[list[Point]]:
        """What of the right half cut through lies between two distances from the axis and two heights, part by part;
        without what is `away` there.
        """
        if right_mm <= left_mm or high_mm <= low_mm:
            return []
        where = left_mm, right_mm, low_mm, high_mm
        return self.get_or_compute(("cut", *where, away), lambda: self._cut(*where, away))

    def _cut(
        self, left_mm: float, right_mm: float, low_mm: float, high_mm: float, away: Region | None
    ) -> list[list[Point]]:
        found = self.plane.intersection(box(left_mm, low_mm, right_mm, high_mm))
        return rings_right(areas_of(found if away is None else found.difference(away)))

    @cached_property
    def _right(self) -> list[Point]:
        return self._from_foot(_half(self.plane, self.foot_mm))

    def shell(self, inner: "Sculpted") -> list[list[Point]]:
        """What of the right half cut through lies outside another body, part by part, the largest first."""
        thick = inner.side_mm, inner.top_mm, inner.under_mm
        return self.get_or_compute(("shell", *thick), lambda: self._shell(inner))

    def _shell(self, inner: "Sculpted") -> list[list[Point]]:
        right, within = (_right_of(body.plane, self.foot_mm) for body in (self, inner))
        parts = _parts(areas_of(right.difference(within)))
        return [_chained([part]) for part in sorted(parts, key=lambda part: -float(part.area))]

    def left_profile(self) -> list[Point]:
        """The left half, likewise, as if it were the right."""
        return self.get_or_compute("left", lambda: self._from_foot(_half(mirrored(self.plane), self.foot_mm)))

    def _from_foot(self, half: list[Point]) -> list[Point]:
        """A half from the axis on, where the foot is coated too."""
        return [(0.0, self.foot_mm), *half] if self.under_mm else half

    def _wall(self, low_mm: float, high_mm: float) -> list[Point]:
        right = _right_of(self.plane, self.foot_mm)
        corners = numpy.vstack(
            [get_coordinates(one.exterior)[:, ::-1] for one in _parts(right)] or [numpy.zeros((0, 2))]
        )
        own = corners[(corners[:, 0] > low_mm) & (corners[:, 0] < high_mm), 0]
        ups = numpy.unique(numpy.concatenate([[low_mm, high_mm], own]).round(6))
        inner = numpy.clip(ups, low_mm + LEVEL_MM, high_mm - LEVEL_MM)
        _, out = extents(corners, inner)
        points = [(max(0.0, float(x)) if math.isfinite(x) else 0.0, float(z)) for x, z in zip(out, ups, strict=True)]
        return [*points, (0.0, float(ups[-1]))]

    def envelope(self, side_mm: float, top_mm: float, under_mm: float = 0.0, rounded: bool = False) -> "Sculpted":
        """The body after one more coat, which follows it. Raises ValueError where its coats come to too much in all."""
        thick = self.side_mm + side_mm, self.top_mm + top_mm, self.under_mm + under_mm
        if max(thick) > MARGIN_MM - 2:
            raise ValueError(f"its coats and cover come to more than {MARGIN_MM - 2:g} mm, the most on a carved body")
        return sculpted(self.core, *thick)

    def _on_lattice(self, places: Numbers) -> Numbers:
        lattice = self.lattice
        found: Numbers = ((places - numpy.array([lattice.x[0], lattice.y[0], lattice.z[0]])) / lattice.step_mm).T
        return found

    def outside_by(self, places: Numbers) -> Numbers:
        """How far out of the body's surface places near it lie, a row each; below 0 within it."""
        from scipy.ndimage import map_coordinates

        away = map_coordinates(self.lattice.risen(self.more_mm), self._on_lattice(places), order=1, mode="nearest")
        found: Numbers = away.astype(float) - self.side_mm
        return found

    def outward(self, places: Numbers) -> Numbers:
        """The direction straight out of the body at places about it, a row each: that in which the distance grows."""
        from scipy.ndimage import map_coordinates

        lattice, at = self.lattice, self._on_lattice(places)
        grown = [
            map_coordinates(lattice.away, at + step, order=1, mode="nearest")
            - map_coordinates(lattice.away, at - step, order=1, mode="nearest")
            for step in numpy.eye(3)[:, :, None]
        ]
        ways = numpy.column_stack(grown).astype(float)
        found: Numbers = ways / numpy.maximum(1e-9, numpy.linalg.norm(ways, axis=1))[:, None]
        return found

    @cached_property
    def middle(self) -> tuple[float, float]:
        """Where the middle of its volume is, from above."""
        return self.lattice.middle(self.side_mm, self.foot_mm)


def sculpted(core: BareBody, side_mm: float = 0.0, top_mm: float = 0.0, under_mm: float = 0.0) -> Sculpted:
    """A body under coats so thick; the one that was asked for before, with all that was worked out of it."""
    thick = side_mm, top_mm, under_mm
    return core.cached("envelopes", thick, lambda: Sculpted(core, *thick))


def _within(x: Numbers, y: Numbers, away: NDArray[numpy.float32], out_mm: float) -> Region:
    """The areas of a lattice that lie within a distance, holes left out of them."""
    from contourpy import FillType, contour_generator

    generator = contour_generator(x, y, -away, fill_type=FillType.OuterOffset)
    found = cast(tuple[list[Numbers], list[NDArray[numpy.uint32]]], generator.filled(-out_mm, 1e9))
    parts = []
    for points, ends in zip(*found, strict=True):
        shells = [points[a:b] for a, b in zip(ends, ends[1:], strict=False)]
        if len(shells[0]) >= 4:
            parts.append(Polygon(shells[0], [hole for hole in shells[1:] if len(hole) >= 4]))
    return areas_of(unary_union([part.buffer(0) for part in parts]))


def _parts(region: Region) -> list[Polygon]:
    parts = region.geoms if isinstance(region, MultiPolygon) else (region,)
    return [part for part in parts if part.area > TIP_MM2]


def mirrored(region: Region) -> Region:
    """An area with its left on the right."""
    from shapely.affinity import scale

    return scale(region, -1.0, 1.0, origin=(0, 0))


def _half(region: Region, foot_mm: float) -> list[Point]:
    """The right half of a section: from its foot up along its edge to the axis, on which it stands.

    Where it does not stand on the axis, or has holes or several parts, all of its edge, one line after another.
    """
    cut = _right_of(region, foot_mm)
    side = _up_the_side(cut, foot_mm)
    parts = _parts(cut)
    if not parts or (len(parts) == 1 and not parts[0].interiors and _area(side, foot_mm) <= cut.area + TIP_MM2):
        return side
    return _chained(parts)


def rings_right(found: Region) -> list[list[Point]]:
    """The parts of what is cut through on the right of the axis, each as one line."""
    return [_chained([part]) for part in _parts(found)]


def _chained(parts: list[Polygon]) -> list[Point]:
    """All edges of some areas as one line: each run round from the start of the first and back to it, holes the other
    way round.
    """
    lines = [orient(part) for part in sorted(parts, key=lambda part: -float(part.area))]
    rings = [get_coordinates(ring) for part in lines for ring in (part.exterior, *part.interiors)]
    start = rings[0][:1]
    found = numpy.vstack([rings[0], *(line for ring in rings[1:] for line in (ring, start))])
    return [(max(0.0, float(x)), float(z)) for x, z in found]


def _area(side: list[Point], foot_mm: float) -> float:
    return float(Polygon([(0.0, foot_mm), *side]).area) if len(side) > 2 else 0.0


def _up_the_side(cut: Region, foot_mm: float) -> list[Point]:
    """The edge of the right half of a section from its foot up to the axis."""
    if cut.is_empty:
        return [(0.0, foot_mm), (0.0, foot_mm)]
    ring = get_coordinates(orient(largest_of(cut)).exterior)[:-1]
    lowest = float(ring[:, 1].min())
    feet = numpy.flatnonzero(ring[:, 1] <= lowest + LEVEL_MM)
    first = int(feet[ring[feet, 0].argmax()])
    ring = numpy.roll(ring, -first, axis=0)
    points: list[Point] = []
    for x, z in ring.tolist():
        points.append((max(0.0, x), z))
        if x <= LEVEL_MM and len(points) > 1:
            break
    if points[-1][0] > LEVEL_MM:
        points.append((0.0, points[-1][1]))
    return points


def _right_of(region: Region, foot_mm: float) -> Region:
    """What of a section lies right of the axis and above its foot."""
    if region.is_empty:
        return region
    _, _, right, high = region.bounds
    return areas_of(region.intersection(box(0.0, foot_mm, right + 1, high + 1)))
