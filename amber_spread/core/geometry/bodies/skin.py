"""Places all over the surface of a carved body, each with the direction straight out or in: what distances go by."""

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

import numpy
from numpy.typing import NDArray
from shapely import Polygon, contains_xy, get_coordinates

from amber_spread.core.geometry.bodies.bare import Places
from amber_spread.core.geometry.bodies.stations import Stations
from amber_spread.core.geometry.flat.traced import KNIFE_MM
from amber_spread.core.geometry.rows import Numbers

if TYPE_CHECKING:
    from amber_spread.core.geometry.bodies.lofted import Lofted

View = tuple[Polygon, tuple[float, float], int]
"""A view that is cut right through the body, from where to where, and along which axis."""
STEEPER = 1.6
"""So many times as many shares of the height are looked at as would be, were its edge upright."""
LEAST_UP, LEAST_OVER = 6, 4
FOOT_MM = 1e-6


def skin_of(body: "Lofted", apart_mm: float) -> Places:
    """Places all over the surface no farther apart than that, and the direction straight out or in at each."""
    at = _close(body.stations, apart_mm)
    nets = [_middles(net) for net in _nets(body, at, apart_mm)]
    places, normals = (numpy.vstack(found) for found in zip(*nets, strict=True))
    cuts = list(_cuts(body))
    keep = _within_views(cuts, places)
    walls = [_wall(body, view, span, axis, apart_mm) for view, span, axis in cuts]
    return (
        numpy.vstack([places[keep], *(wall[0] for wall in walls)]),
        numpy.vstack([normals[keep], *(wall[1] for wall in walls)]),
    )


def surface_area_of(body: "Lofted", apart_mm: float) -> float:
    """The area of its surface without the flat it stands on, mm²: of a net over it, and of the walls where a view is
    cut right through it. Source: geometry.
    """
    at, whole = _close(body.stations, apart_mm), 0.0
    cuts = list(_cuts(body))
    for net in _nets(body, at, apart_mm):
        a, b, c, d = net[:-1, :-1], net[1:, :-1], net[1:, 1:], net[:-1, 1:]
        halves = [numpy.linalg.norm(numpy.cross(one - a, other - a), axis=2) / 2 for one, other in ((b, c), (c, d))]
        above_foot = (numpy.maximum(numpy.maximum(a, b), numpy.maximum(c, d))[:, :, 2] > FOOT_MM).ravel()
        keep = above_foot & _within_views(cuts, ((a + b + c + d) / 4).reshape(-1, 3))
        whole += float((halves[0] + halves[1]).ravel()[keep].sum())
    for view, span, axis in cuts:
        places, _ = _wall(body, view, span, axis, apart_mm)
        along, _ = _stepped(view.exterior, apart_mm)
        standing = (places[:, 2] <= FOOT_MM).sum()
        whole += (len(places) - int(standing)) * view.exterior.length / max(1, len(along)) * apart_mm
    return whole


def _within_views(cuts: Sequence[View], places: Numbers) -> NDArray[numpy.bool_]:
    """Which places every view that is cut right through leaves standing."""
    keep = numpy.ones(len(places), dtype=bool)
    for view, _, axis in cuts:
        beside = [one for one in range(3) if one != axis]
        keep &= contains_xy(view.buffer(KNIFE_MM), *places[:, beside].T)
    return keep


def _cuts(body: "Lofted") -> Iterator[View]:
    """Every view that is cut right through the body, from where to where it is, and along which axis."""
    side, above = body.cut_through
    if side:
        yield body.side, (body.edge.bounds[1], body.edge.bounds[3]), 1
    if above:
        yield body.edge, (0.0, body.height_mm), 2


def _wall(body: "Lofted", view: Polygon, span: tuple[float, float], axis: int, apart_mm: float) -> Places:
    """The wall that the edge of a view leaves where it is cut through."""
    along, out = _stepped(view.exterior, apart_mm)
    over = numpy.arange(span[0] + apart_mm / 2, span[1], apart_mm)
    pairs = numpy.repeat(along, len(over), axis=0), numpy.repeat(out, len(over), axis=0)
    places, normals = (numpy.insert(pair, axis, 0.0, axis=1) for pair in pairs)
    places[:, axis] = numpy.tile(over, len(along))
    half, middle = body.depth(body.stations.at(places[:, 0]), places[:, 2])
    keep = numpy.abs(places[:, 1] - middle) <= half + KNIFE_MM
    return places[keep], normals[keep]


def _nets(body: "Lofted", at: Stations, apart_mm: float) -> Iterator[Numbers]:
    """The back, the front, the under side and the top as nets of places, station by station."""
    tall, deep = float((at.high - at.low).max()), float((at.back - at.front).max())
    across = max(LEAST_OVER, math.ceil(deep / apart_mm))
    high = max(LEAST_UP, math.ceil(STEEPER * tall / apart_mm))
    up = numpy.unique(numpy.concatenate([section.shares(high, across) for section in body.sections]))
    # A row a share of the height: where each section that is given reaches there.
    reach = numpy.column_stack([up, *(each for section in body.sections for each in section.reaches(up))])
    rows = _denser(reach, numpy.abs(numpy.diff(reach[:, 1:], axis=0)).max(axis=1) * deep / 2, apart_mm)
    up, each = rows[:, 0], numpy.array(body.shares(at.x)).T
    first, last = each @ rows[:, 1::2].T, each @ rows[:, 2::2].T
    z = at.low[:, None] + (at.high - at.low)[:, None] * up[None, :]
    deeps, middle = (at.back - at.front)[:, None] / 2, (at.back + at.front)[:, None] / 2
    x = numpy.broadcast_to(at.x[:, None], z.shape)
    yield numpy.stack([x, middle + deeps * last, z], axis=2)
    yield numpy.stack([x, middle + deeps * first, z], axis=2)
    over = numpy.linspace(0, 1, across + 1)
    x = numpy.broadcast_to(at.x[:, None], (len(at.x), len(over)))
    for end, height in ((0, at.low), (-1, at.high)):
        wide = last[:, end, None] - first[:, end, None]
        if wide.max() > 1e-6:
            y = middle + deeps * (first[:, end, None] + wide * over[None, :])
            yield numpy.stack([x, y, numpy.broadcast_to(height[:, None], y.shape)], axis=2)


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


def _middles(net: Numbers) -> Places:
    """The middle of every mesh of a net of places, and the direction straight out of it."""
    a, b, c, d = net[:-1, :-1], net[1:, :-1], net[1:, 1:], net[:-1, 1:]
    normal = numpy.cross(c - a, d - b).reshape(-1, 3)
    size = numpy.linalg.norm(normal, axis=1)
    there = size > 1e-9
    middle = ((a + b + c + d) / 4).reshape(-1, 3)
    return middle[there], normal[there] / size[there, None]


def _stepped(line: object, apart_mm: float) -> Places:
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
