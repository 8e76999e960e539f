"""A body carved to its views: from the side as drawn, from above as its tin, each section across it box-like or round.

At every station along its width the view from the side gives how low and how high the body is, the outline from above
how far it reaches to the front and to the back. The section there fills that box, or is rounded off in it by a
superellipse; so the body, looked at from the side and from above, is what was drawn. Where a line straight across a
view leaves it and enters it again, what the view leaves out is cut away right through the body.

x runs to the right, y to the back, z up from the foot. Lengths are in mm, areas in mm², volumes in ml.
"""

import math
from collections.abc import Callable, Hashable, Iterable, Iterator
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from hashlib import sha256
from typing import Any, TypeVar

import numpy
from numpy.typing import NDArray
from shapely import MultiPolygon, Polygon, contains_xy, get_coordinates, unary_union
from shapely.affinity import scale

from amber_spread.core.geometry.body import MM3_PER_ML
from amber_spread.core.geometry.outline import Outline, Oval, Point, Round
from amber_spread.core.geometry.traced import FINE_CORNERS, KNIFE_MM, Region, Traced, largest_of

T = TypeVar("T")
Numbers = NDArray[numpy.float64]
STATIONS = 360
"""So many stations along a body, closest together at its ends, beside one on either side of every corner."""
LEVELS = 240
"""So many heights at which its area is measured, between those of its corners."""
BESIDE_MM = 1e-5
ROUND_CORNERS = 720
HEIGHTS = 801
"""A section is looked at at so many heights for where the plane through the middle leaves it."""
MOST_KEPT, MOST_OF_A_NAME = 32, 12
"""So many bodies are kept, and of each so many coats and cuts, those worked out last."""
SQUARE_BELOW = 0.02
"""A roundness of less is none."""
LEAST_FLAT = 0.005
"""A flat of less than this share of the outline is no flat top."""


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


@dataclass(frozen=True, eq=False)
class Lofted:
    """The body itself, before anything goes on it.

    `side` is the view from the side, its foot at height 0 and its middle at 0; `outline` is the view from above, as
    wide. `round` is 0 where each section is box-like and 1 where it is elliptical, rounded above only where the body
    has a flat foot; where sections have a `form` of their own, drawn between -1 and 1 across and 0 and 1 up, each is
    that.
    """

    outline: Outline
    side: Polygon
    round: float
    flat_foot: bool
    form: Polygon | None = None
    kept: dict[str, Any] = field(default_factory=dict)
    """What was worked out of it and takes long, by name."""

    @cached_property
    def key(self) -> str:
        """What it is known by in every process: a digest of what it is made of."""
        form = b"" if self.form is None else self.form.wkb
        made_of = self.side.wkb, self.edge.wkb, form, repr((self.round, self.flat_foot)).encode()
        return sha256(b"|".join(made_of)).hexdigest()

    def keep(self, name: str, key: Hashable, work_out: Callable[[], T]) -> T:
        """What was worked out of it under a name and a key, or what is now; those worked out last are kept.

        What is found changes nothing, so that a body may be looked at and sent by several threads at once.
        """
        found: dict[Hashable, T] = self.kept.setdefault(name, {})
        if key in found:
            return found[key]
        one = found[key] = work_out()
        for old in list(found)[:-MOST_OF_A_NAME]:
            found.pop(old, None)
        return one

    @property
    def known(self) -> set[tuple[str, Hashable]]:
        """All that is kept of it."""
        return {(name, key) for name, each in self.kept.items() for key in each}

    @cached_property
    def edge(self) -> Polygon:
        """The outline from above, as fine as it is worked with."""
        return _fine(self.outline)

    @cached_property
    def height_mm(self) -> float:
        return float(self.side.bounds[3])

    @cached_property
    def stations(self) -> Stations:
        """Where the body is looked at across its width."""
        half = self.outline.half_width_mm
        corners = numpy.concatenate([get_coordinates(self.side)[:, 0], _sharp(self.edge)[:, 0]])
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

    def reaches(self, up: Numbers) -> tuple[Numbers, Numbers]:
        """From where to where a section reaches at a share of its height, as shares of half its depth.

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

    def depth(self, at: Stations, z: Numbers | float) -> tuple[Numbers, Numbers]:
        """Half the depth of the body at stations and heights, below 0 where it is not there, and the middle of it."""
        tall = at.high - at.low
        with numpy.errstate(divide="ignore", invalid="ignore"):
            up = numpy.where(tall > 0, (z - at.low) / tall, -1.0)
        low, high = self.reaches(up)
        deep, middle = (at.back - at.front) / 2, (at.back + at.front) / 2
        half = numpy.where((up >= 0) & (up <= 1), deep * (high - low) / 2, -1.0)
        return half, middle + deep * (high + low) / 2

    def _across(self, up_mm: float) -> tuple[Numbers, Numbers, Numbers]:
        """Stations at a height, close together where the body begins and ends there; half its depth, and its middle."""
        ends = _crossed(get_coordinates(self.side), up_mm)
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
        return _region(found)

    def area(self, up_mm: float) -> float:
        """The area of what is at a height, mm²."""
        if any(self.cut_through):
            return float(self.region(up_mm).area)
        x, half, _ = self._across(up_mm)
        return float(numpy.trapezoid(2 * numpy.maximum(0.0, half), x))

    @property
    def _climbed(self) -> tuple[Numbers, Numbers]:
        return self.keep("climbed", None, self._climb)

    def _climb(self) -> tuple[Numbers, Numbers]:
        """Heights from foot to top and the volume below each, ml: the middle area of each step, times the step."""
        corners = numpy.unique(get_coordinates(self.side)[:, 1].round(6))
        steps = [numpy.linspace(low, high, max(2, round(LEVELS * (high - low) / self.height_mm)) + 1)
                 for low, high in zip(corners, corners[1:], strict=False)]  # fmt: skip
        at = numpy.unique(numpy.concatenate(steps))
        areas = numpy.array([self.area(float(up)) for up in (at[1:] + at[:-1]) / 2])
        return at, numpy.concatenate([[0.0], numpy.cumsum(areas * numpy.diff(at))]) / MM3_PER_ML

    @property
    def volume_ml(self) -> float:
        return float(self._climbed[1][-1])

    def volume_below(self, up_mm: float) -> float:
        """The volume below a height, ml."""
        return float(numpy.interp(up_mm, *self._climbed))

    @cached_property
    def flat_top(self) -> Traced | None:
        """What is level at the very top; None where that is next to nothing."""
        found = self.region(self.height_mm * (1 - 1e-7))
        return Traced(found, may_part=True) if found.area > LEAST_FLAT * self.outline.area_mm2 else None

    @cached_property
    def plane(self) -> Polygon:
        """What is cut through from left to right through the middle, as (x, z)."""
        at = self.stations
        deep = numpy.maximum(1e-9, (at.back - at.front) / 2)
        off = numpy.clip(-(at.back + at.front) / 2 / deep, -1, 1)
        up = numpy.linspace(0, 1, HEIGHTS)
        first, last = self.reaches(up)
        within = (first[None, :] <= off[:, None] + 1e-9) & (off[:, None] - 1e-9 <= last[None, :])
        there = within.any(axis=1)
        least = numpy.where(there, up[within.argmax(axis=1)], 0.0)
        most = numpy.where(there, up[HEIGHTS - 1 - within[:, ::-1].argmax(axis=1)], 0.0)
        tall = at.high - at.low
        low, high = at.low + tall * least, at.low + tall * most
        cut = Polygon(numpy.vstack([numpy.column_stack([at.x, low]), numpy.column_stack([at.x, high])[::-1]]))
        found = cut.buffer(0).intersection(self.side)
        return largest_of(_region(found).simplify(KNIFE_MM / 10))

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

    def skin(self, apart_mm: float) -> tuple[Numbers, Numbers]:
        """Places all over the surface no farther apart than that, and the direction straight out or in at each."""
        at = _close(self.stations, apart_mm)
        sheets = list(self._sheets(at, apart_mm))
        places, normals = (numpy.vstack(found) for found in zip(*map(_middles, sheets), strict=True))
        side, above = self.cut_through
        if not (side or above):
            return places, normals
        keep = numpy.ones(len(places), dtype=bool)
        if side:
            keep &= contains_xy(self.side.buffer(KNIFE_MM), places[:, 0], places[:, 2])
        if above:
            keep &= contains_xy(self.edge.buffer(KNIFE_MM), places[:, 0], places[:, 1])
        walls = list(self._walls(apart_mm))
        return (
            numpy.vstack([places[keep], *(wall[0] for wall in walls)]),
            numpy.vstack([normals[keep], *(wall[1] for wall in walls)]),
        )

    def _sheets(self, at: Stations, apart_mm: float) -> Iterator[Numbers]:
        """The back, the front, the under side and the top as nets of places, station by station."""
        tall, deep = float((at.high - at.low).max()), float((at.back - at.front).max())
        up = self._shares(max(6, math.ceil(1.6 * tall / apart_mm)), max(4, math.ceil(deep / apart_mm)))
        reach = numpy.column_stack([up, *self.reaches(up)])
        up, first, last = _denser(reach, numpy.abs(numpy.diff(reach[:, 1:], axis=0)).max(axis=1) * deep / 2, apart_mm).T
        z = at.low[:, None] + (at.high - at.low)[:, None] * up[None, :]
        deeps, middle = (at.back - at.front)[:, None] / 2, (at.back + at.front)[:, None] / 2
        x = numpy.broadcast_to(at.x[:, None], z.shape)
        yield numpy.stack([x, middle + deeps * last[None, :], z], axis=2)
        yield numpy.stack([x, middle + deeps * first[None, :], z], axis=2)
        over = numpy.linspace(0, 1, max(4, math.ceil(deep / apart_mm)) + 1)
        x = numpy.broadcast_to(at.x[:, None], (len(at.x), len(over)))
        for end, height in ((0, at.low), (-1, at.high)):
            if last[end] - first[end] > 1e-6:
                y = middle + deeps * (first[end] + (last[end] - first[end]) * over[None, :])
                yield numpy.stack([x, y, numpy.broadcast_to(height[:, None], y.shape)], axis=2)

    def _shares(self, high: int, deep: int) -> Numbers:
        """Shares of a section's height, close together where its edge stands upright and where it lies level."""
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

    def _walls(self, apart_mm: float) -> Iterator[tuple[Numbers, Numbers]]:
        """Where a view is cut right through the body: the walls its edge leaves there."""
        front, back = self.edge.bounds[1], self.edge.bounds[3]
        side, above = self.cut_through
        for there, view, span, axis in (
            (side, self.side, (front, back), 1),
            (above, self.edge, (0.0, self.height_mm), 2),
        ):
            if not there:
                continue
            along, out = _stepped(view.exterior, apart_mm)
            over = numpy.arange(span[0] + apart_mm / 2, span[1], apart_mm)
            pairs = numpy.repeat(along, len(over), axis=0), numpy.repeat(out, len(over), axis=0)
            places, normals = (numpy.insert(pair, axis, 0.0, axis=1) for pair in pairs)
            places[:, axis] = numpy.tile(over, len(along))
            half, middle = self.depth(self.stations.at(places[:, 0]), places[:, 2])
            keep = numpy.abs(places[:, 1] - middle) <= half + KNIFE_MM
            yield places[keep], normals[keep]


@lru_cache(maxsize=64)
def lofted(
    outline: Outline,
    points: tuple[Point, ...],
    round: float,
    flat_foot: bool,
    height_mm: float | None = None,
    front: tuple[Point, ...] | None = None,
) -> Lofted:
    """The body of an outline from above and a view from the side, which is scaled to the outline's width, drawn out to
    that height where one is given, and stood on its foot; with a view from the `front`, each section has its form.
    Raises ValueError when a view crosses itself or encloses next to nothing.
    """
    view, form = side_view(points, 2 * outline.half_width_mm), None
    if front is not None:
        form = drawn_view(front, "front")
        _level_within(form)
        left, low, right, high = form.bounds
        corners = (get_coordinates(form.exterior) - [(left + right) / 2, low]) / [(right - left) / 2, high - low]
        form = Polygon(corners)
    if height_mm is not None:
        view = scale(view, 1.0, height_mm / view.bounds[3], origin=(0, 0))
    found = Lofted(outline, view, round, flat_foot, form)
    return _KEPT.get(found.key) or _keep(found)


_KEPT: dict[str, Lofted] = {}


def _keep(body: Lofted) -> Lofted:
    """Keep a body under its key, and no more than so many."""
    _KEPT.pop(body.key, None)
    _KEPT[body.key] = body
    for old in list(_KEPT)[:-MOST_KEPT]:
        _KEPT.pop(old, None)
    return body


def forget_bodies() -> None:
    """Keep no body any longer, so that the next is worked from nothing."""
    _KEPT.clear()
    lofted.cache_clear()


def take_over(bodies: Iterable[Lofted]) -> None:
    """Keep bodies that were worked out in another process, with all that was worked out of them."""
    for body in bodies:
        _keep(body)
    lofted.cache_clear()


@lru_cache(maxsize=64)
def side_view(points: tuple[Point, ...], across_mm: float) -> Polygon:
    """A view from the side, that wide, its middle at 0 and its foot at height 0. Raises ValueError where it is none."""
    drawn = drawn_view(points, "side")
    left, low, right, _ = drawn.bounds
    corners = (get_coordinates(drawn.exterior) - [(left + right) / 2, low]) * (across_mm / (right - left))
    found = Polygon(corners)
    return found if len(points) <= FINE_CORNERS else found.simplify(KNIFE_MM)


def drawn_view(points: tuple[Point, ...], name: str) -> Polygon:
    """A view as it was drawn. Raises ValueError where it crosses itself or encloses next to nothing."""
    drawn = Polygon(points)
    if not drawn.is_valid:
        raise ValueError(f"the view from the {name} crosses or touches itself")
    left, low, right, high = drawn.bounds
    wide, tall = right - left, high - low
    if min(wide, tall) < 0.02 * max(wide, tall) or drawn.area < 0.05 * wide * tall:
        raise ValueError(f"the view from the {name} encloses next to nothing")
    return drawn


def _level_within(form: Polygon) -> None:
    """Raises ValueError where a level line leaves the view from the front and enters it again: sections are filled."""
    corners = get_coordinates(form.exterior)[:, ::-1]
    ups = numpy.unique(corners[:, 0])
    if (crossings(corners, (ups[1:] + ups[:-1]) / 2) > 2).any():
        raise ValueError("the view from the front has a hollow in its side or its top, which no section can have")


def extents(corners: Numbers, x: Numbers) -> tuple[Numbers, Numbers]:
    """The lowest and the highest place of a closed line at each x; infinite where it does not reach."""
    low, high = numpy.full(len(x), math.inf), numpy.full(len(x), -math.inf)
    for (x0, y0), (x1, y1) in zip(corners, numpy.roll(corners, -1, axis=0), strict=True):
        if x0 == x1:
            continue
        there = (x >= min(x0, x1)) & (x <= max(x0, x1))
        y = y0 + (y1 - y0) * (x[there] - x0) / (x1 - x0)
        low[there], high[there] = numpy.minimum(low[there], y), numpy.maximum(high[there], y)
    return low, high


def crossings(corners: Numbers, x: Numbers) -> NDArray[numpy.int64]:
    """How often a closed line crosses the upright line at each x."""
    x0, x1 = corners[:-1, 0], corners[1:, 0]
    low, high = numpy.minimum(x0, x1)[:, None], numpy.maximum(x0, x1)[:, None]
    found: NDArray[numpy.int64] = ((x[None, :] >= low) & (x[None, :] < high)).sum(axis=0)
    return found


def _crossed(corners: Numbers, up_mm: float) -> Numbers:
    """Where a closed line crosses a height."""
    (x0, z0), (x1, z1) = corners[:-1].T, corners[1:].T
    there = (numpy.minimum(z0, z1) <= up_mm) & (numpy.maximum(z0, z1) > up_mm)
    found: Numbers = x0[there] + (x1 - x0)[there] * (up_mm - z0[there]) / (z1 - z0)[there]
    return found


def _against(at: Stations) -> Stations:
    """Stations as a column, to be met with a row of heights."""
    return Stations(*(getattr(at, name)[:, None] for name in ("x", "low", "high", "front", "back")))


def _close(at: Stations, apart_mm: float) -> Stations:
    """The stations with as many between them as it takes to lie no farther apart than that, and both ends closed to
    their middles.
    """
    rows = numpy.column_stack([at.x, at.low, at.high, at.front, at.back])
    first, last = rows[0].copy(), rows[-1].copy()
    for end in (first, last):
        end[1:3], end[3:5] = end[1:3].mean(), end[3:5].mean()
    rows = numpy.vstack([first, rows, last])
    return Stations(*_denser(rows, numpy.abs(numpy.diff(rows, axis=0)).max(axis=1), apart_mm).T)


def _denser(rows: Numbers, moved_mm: Numbers, apart_mm: float) -> Numbers:
    """Rows of numbers with as many between each two, straight, as it takes to move no farther than that at a step."""
    counts = numpy.maximum(1, numpy.ceil(moved_mm / apart_mm)).astype(int)
    shares = numpy.concatenate([numpy.arange(count) / count for count in counts] + [numpy.zeros(1)])
    index = numpy.concatenate([numpy.repeat(numpy.arange(len(counts)), counts), [len(rows) - 1]])
    after = numpy.minimum(index + 1, len(rows) - 1)
    found: Numbers = rows[index] + (rows[after] - rows[index]) * shares[:, None]
    return found


def _middles(net: Numbers) -> tuple[Numbers, Numbers]:
    """The middle of every mesh of a net of places, and the direction straight out of it."""
    a, b, c, d = net[:-1, :-1], net[1:, :-1], net[1:, 1:], net[:-1, 1:]
    normal = numpy.cross(c - a, d - b).reshape(-1, 3)
    size = numpy.linalg.norm(normal, axis=1)
    there = size > 1e-9
    middle = ((a + b + c + d) / 4).reshape(-1, 3)
    return middle[there], normal[there] / size[there, None]


def _stepped(line: object, apart_mm: float) -> tuple[Numbers, Numbers]:
    """Places along a closed line no farther apart than that, and the direction across it at each."""
    corners = get_coordinates(line)
    places, out = [], []
    for start, end in zip(corners, corners[1:], strict=False):
        length = math.dist(start, end)
        if length < 1e-9:
            continue
        count = math.ceil(length / apart_mm)
        shares = (numpy.arange(count) + 0.5) / count
        places.append(start + (end - start) * shares[:, None])
        out.append(numpy.tile([(end[1] - start[1]) / length, -(end[0] - start[0]) / length], (count, 1)))
    return numpy.vstack(places), numpy.vstack(out)


def _runs(there: NDArray[numpy.bool_]) -> Iterator[range]:
    """From where to where something is true without a break."""
    edges = numpy.flatnonzero(numpy.diff(numpy.concatenate([[False], there, [False]]).astype(int)))
    for start, stop in zip(edges[::2], edges[1::2], strict=True):
        yield range(int(start), int(stop))


def _strips(view: Polygon, up_mm: float, bounds: tuple[float, float, float, float]) -> Region:
    """The strips of a plan that a view from the side has at a height."""
    ends = numpy.sort(_crossed(get_coordinates(view), up_mm))
    front, back = bounds[1] - 1, bounds[3] + 1
    return unary_union(
        [Polygon([(a, front), (b, front), (b, back), (a, back)]) for a, b in zip(ends[::2], ends[1::2], strict=False)]
    )


def _fine(outline: Outline) -> Polygon:
    """An outline as a polygon true to a hundredth of a millimetre."""
    if isinstance(outline, Traced):
        return largest_of(outline.polygon)
    if isinstance(outline, Round):
        turns = numpy.arange(ROUND_CORNERS) * (2 * math.pi / ROUND_CORNERS)
        return Polygon(outline.radius_mm * numpy.column_stack([numpy.cos(turns), numpy.sin(turns)]))
    if isinstance(outline, Oval):
        return Polygon(outline.traced(ROUND_CORNERS))
    return Polygon(outline.points)


def _sharp(edge: Polygon) -> Numbers:
    """The corners of an outline that a knife can tell from a curve."""
    found: Numbers = get_coordinates(edge.simplify(KNIFE_MM).exterior)
    return found


def _region(found: object) -> Region:
    """The areas of what shapely made, without stray lines and points."""
    if isinstance(found, (Polygon, MultiPolygon)):
        return found
    return MultiPolygon([one for one in getattr(found, "geoms", ()) if isinstance(one, Polygon)])
