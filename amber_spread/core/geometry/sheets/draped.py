"""A sheet laid on a surface of triangles from one place outward: how far every place of it is along the surface, where
on the sheet it comes to lie, and where the sheet has to be drawn out or taken in.

Lengths are in mm. The sheet is looked at from outside, and up on it is up on the body, or the back where it is set down
on its top.
"""

import math
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

import numpy
from shapely import MultiPolygon, Polygon, buffer, polygons, unary_union

from amber_spread.core.geometry.bodies.convexity import Hull, hull_over
from amber_spread.core.geometry.bodies.open_surface import Surface, rings_along
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.surface import LEVEL_MM, even_halves_of, even_surface_of, followed
from amber_spread.core.geometry.bodies.triangles import Triangles, crossed
from amber_spread.core.geometry.rows import Numbers

LEAST_MM = 1e-9
NEAR_SHARE = 0.03
"""Where nothing lies on the axis, a sheet is set down at the highest place this share of the width nearer to it than
all others."""
ABOUT_MM = 14.0
"""What a sheet gives is told of so much round a place: nobody eases it finer."""
MOST_ROUNDS, STILL = 2000, 1e-6
"""So many rounds at most until no direction changes by more, radians."""
SMOOTHED, TOWARD, BACK = 10, 0.5, -0.53
UPWARD = 0.7
"""A sheet set down where the body faces up as much as this (the cosine) has the back of the body upward."""
FOLDED = 9.0
"""How far a sheet is said to be drawn out or taken in where two sides of it meet."""


@dataclass(frozen=True, eq=False)
class Draped:
    """A sheet over a surface. `ways` is how far each corner of the surface is along it from where the sheet is set
    down, and `places` where on the sheet each comes to lie, that place being 0.
    """

    surface: Surface
    start: int
    ways: Numbers
    places: Numbers

    @cached_property
    def strain(self) -> Numbers:
        """By what share of itself the sheet is drawn out where a triangle lies, below 0 where it is taken in.

        Along the ways from its start it keeps its length, so that all it gives is across them: the area on the body
        over that on the sheet, less 1; of each triangle with those about it.
        """
        from scipy.spatial import cKDTree

        one, other, third = (self.places[self.surface.triangles[:, at]] for at in range(3))
        along, across = other - one, third - one
        on_sheet = (along[:, 0] * across[:, 1] - along[:, 1] * across[:, 0]) / 2
        tree = cKDTree(self.surface.middles)
        beside = tree.sparse_distance_matrix(tree, ABOUT_MM, output_type="coo_matrix").tocsr()
        beside.data[:] = 1.0
        on_sheet, on_body = (areas + beside @ areas for areas in (on_sheet, self.surface.areas))
        found: Numbers = numpy.minimum(FOLDED, on_body / numpy.maximum(on_body / (1 + FOLDED), on_sheet) - 1)
        return numpy.minimum(found, 0.0) if self.hull.convex else found

    @cached_property
    def hull(self) -> Hull:
        """The convex hull of the surface it lies on."""
        return hull_over(self.surface)

    @property
    def farthest(self) -> float:
        """The longest way from where it is set down."""
        return float(self.ways.max())

    @property
    def extent(self) -> tuple[float, float, float, float]:
        """How far what lies on the surface reaches on the sheet: to the left and down, below 0, right and up."""
        (left, low), (right, high) = self.places.min(axis=0), self.places.max(axis=0)
        return float(left), float(low), float(right), float(high)

    @cached_property
    def hem(self) -> tuple[float, float]:
        """How long the sheet's edge is, and what it comes to lie along."""
        rings = [numpy.array([*ring, ring[0]]) for ring in rings_along(self.surface.triangles)]
        on_sheet, on_body = (
            sum(float(numpy.linalg.norm(numpy.diff(places[ring], axis=0), axis=1).sum()) for ring in rings)
            for places in (self.places, self.surface.corners)
        )
        return on_sheet, on_body

    def beyond(self, share: float) -> float:
        """The share of the surface where the sheet is drawn out by more than so much of itself."""
        areas = self.surface.areas
        return float(areas[self.strain > share].sum() / areas.sum())

    @cached_property
    def outline(self) -> Polygon:
        """What of the sheet lies on the surface."""
        found = unary_union(buffer(polygons(self.places[self.surface.triangles]), 0.0))
        parts = found.geoms if isinstance(found, MultiPolygon) else [found]
        return Polygon(max(parts, key=lambda part: part.area).exterior)


class Sheet(NamedTuple):
    """A sheet over a body twice: as it follows it round its edges, which says how far it reaches; and over even
    triangles, which say what it gives.
    """

    follows: Draped
    evenly: Draped


def over(body: Sculpted) -> Sheet:
    """A sheet over a carved body, set down where its axis leaves it; kept with the body."""
    return body.cached("draped", lambda: _over(body))


def _over(body: Sculpted) -> Sheet:
    surface = even_surface_of(body)
    return Sheet(*(drape(*_begun(one)) for one in (followed(surface, body), surface)))


def over_halves(body: Sculpted) -> tuple[list[Sheet], float]:
    """A sheet over each half of a carved body, the one to the front or the left first, each set down at its middle; and
    how long the seam between them is, which runs the long way. Kept with the body.
    """
    return body.cached("draped halves", lambda: _over_halves(body))


def _over_halves(body: Sculpted) -> tuple[list[Sheet], float]:
    axis = 0 if body.length_mm > body.width_mm else 1
    parted = even_halves_of(body, axis)
    sheets = [Sheet(*(drape(one, _middle(one)) for one in (followed(half, body), half))) for half in parted]
    lower = sheets[0].follows.surface
    ends = numpy.array([pair for ring in rings_along(lower.triangles) for pair in pairwise([*ring, ring[0]])])
    seam = lower.corners[ends]
    along = (seam[:, :, axis] >= parted[0].corners[:, axis].max() - LEVEL_MM).all(axis=1)
    return sheets, float(numpy.linalg.norm(seam[along, 0] - seam[along, 1], axis=1).sum())


def _middle(surface: Surface) -> int:
    """The corner nearest to the middle of a surface."""
    middle = (surface.middles * surface.areas[:, None]).sum(axis=0) / surface.areas.sum()
    return int(numpy.linalg.norm(surface.corners - middle, axis=1).argmin())


def drape(surface: Surface, start: int) -> Draped:
    """A sheet set down on a surface at one of its corners, and laid along it the shortest way to every place.

    The ways are exact on the triangles. Source: published: J. S. B. Mitchell, D. M. Mount and C. H. Papadimitriou, The
    discrete geodesic problem, SIAM Journal on Computing 16, 1987 (from memory), by pygeodesic. Which way each runs from
    the start is that of the two corners it last passes between, by the angle it leaves them at: the sheet lies as the
    exponential map at its start has it (geometry). What the start does not hang together with is taken to be as far as
    straight down and along to it.
    """
    frame = _frame(surface, start)
    ways = _ways(surface, start)
    apart = (surface.corners - surface.corners[start]) @ frame.T
    far = ~numpy.isfinite(ways)
    ways[far] = numpy.linalg.norm(apart[far, :2], axis=1) + numpy.abs(apart[far, 2])
    smooth = _smoothed(surface)
    turns = _turns(smooth, start, _ways(smooth, start), (smooth.corners - smooth.corners[start]) @ frame.T)
    turns[far] = numpy.arctan2(apart[far, 1], apart[far, 0])
    places = ways[:, None] * numpy.column_stack([numpy.cos(turns), numpy.sin(turns)])
    return Draped(surface, start, ways, places)


def _frame(surface: Surface, start: int) -> Numbers:
    """What is right, up and out where a sheet is set down, a row each: up on the body, or to the back where it lies
    level.
    """
    facing = crossed(surface.corners, surface.triangles[(surface.triangles == start).any(axis=1)]).sum(axis=0)
    out = facing / max(LEAST_MM, float(numpy.linalg.norm(facing)))
    up = numpy.array([0.0, 1.0, 0.0] if abs(out[2]) > UPWARD else [0.0, 0.0, 1.0])
    up = up - (up @ out) * out
    up /= numpy.linalg.norm(up)
    return numpy.array([numpy.cross(up, out), up, out])


def _begun(surface: Surface) -> tuple[Surface, int]:
    """The surface with a corner where its axis leaves it, and which that is; elsewhere where no triangle lies there."""
    corners, triangles = surface.corners, surface.triangles
    first, second, third = (corners[triangles[:, at]] for at in range(3))
    up = crossed(corners, triangles)[:, 2]
    shares = (
        numpy.stack(
            [
                one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]
                for one, other in ((second, third), (third, first), (first, second))
            ],
            axis=1,
        )
        / numpy.where(up > LEAST_MM, up, 1.0)[:, None]
    )
    over = numpy.flatnonzero((up > LEAST_MM) & (shares >= -LEAST_MM).all(axis=1))
    if not len(over):
        out = numpy.linalg.norm(corners[:, :2], axis=1)
        near = out <= out.min() + NEAR_SHARE * float(numpy.ptp(corners[:, 0]))
        return surface, int(numpy.where(near, corners[:, 2], -math.inf).argmax())
    heights = (shares[over] * corners[triangles[over], 2]).sum(axis=1)
    top = int(over[heights.argmax()])
    best = int(shares[top].argmax())
    if shares[top, best] > 1 - NEAR_SHARE:
        return surface, int(triangles[top, best])
    start, (a, b, c) = len(corners), triangles[top]
    split = numpy.array([(a, b, start), (b, c, start), (c, a, start)])
    return Surface(
        numpy.vstack([corners, [0.0, 0.0, float(heights.max())]]),
        numpy.vstack([numpy.delete(triangles, top, axis=0), split]),
    ), start


def _ways(surface: Surface, start: int) -> Numbers:
    """The shortest way along the surface to each corner; without end where there is none."""
    from pygeodesic.geodesic import PyGeodesicAlgorithmExact

    found, _ = PyGeodesicAlgorithmExact(surface.corners, surface.triangles).geodesicDistances(numpy.array([start]))
    ways: Numbers = numpy.asarray(found, dtype=float)
    return numpy.where(ways < 1e6, ways, math.inf)


def _smoothed(surface: Surface) -> Surface:
    """A surface without the roughness of its triangles, along whose edges a sheet would be said to fold.

    Corners move toward the middle of their neighbours and as far back again, by turns; those along its edge stay.
    Source: published: G. Taubin, A signal processing approach to fair surface design, SIGGRAPH 1995 (from memory).
    """
    share = 1 / numpy.maximum(1.0, numpy.asarray(surface.beside.sum(axis=1)).ravel())
    share[[corner for ring in rings_along(surface.triangles) for corner in ring]] = 0.0
    corners = surface.corners
    for step in (TOWARD, BACK) * SMOOTHED:
        corners = corners + step * (share[:, None] * (surface.beside @ corners) - (share > 0)[:, None] * corners)
    return Surface(corners, surface.triangles)


def _turns(surface: Surface, start: int, ways: Numbers, apart: Numbers) -> Numbers:
    """Which way the shortest way to each corner leaves the start, radians from right to up; `apart` is where each lies
    off it, right, up and out.
    """
    one, other, share = _passed(surface, start, ways)
    turns = numpy.full(len(ways), math.nan)
    around = _around(surface, start, apart)
    held = numpy.array([start, *around])
    turns[held] = [0.0, *around.values()]
    free = numpy.isfinite(ways)
    free[held] = False
    order = numpy.argsort(ways)
    for _ in range(MOST_ROUNDS):
        gap = (turns[other] - turns[one] + math.pi) % (2 * math.pi) - math.pi
        found = numpy.where(share > 0, turns[one] + share * gap, turns[one])
        known = free & ~numpy.isnan(found)
        moved = numpy.abs(found[known] - turns[known])
        learnt = bool(numpy.isnan(turns[known]).any())
        turns[known] = found[known]
        unknown = free & numpy.isnan(turns)
        if learnt:
            continue
        if not unknown.any():
            if moved.max(initial=0.0) < STILL:
                break
            continue
        # Two that each wait for the other: the nearest takes that of the end that is known, for the time being.
        beside = numpy.where(numpy.isnan(turns[one]), turns[other], turns[one])
        ready = order[(unknown & ~numpy.isnan(beside))[order]]
        if not len(ready):
            break
        turns[ready[0]] = beside[ready[0]]
    there: Numbers = numpy.nan_to_num(turns)
    return there


def _passed(surface: Surface, start: int, ways: Numbers) -> tuple[Triangles, Triangles, Numbers]:
    """For each corner the two corners between which the shortest way to it last passes, and how far over from the first
    to the second the angle is at which it left; the same corner twice where it comes along an edge.
    """
    corners, triangles = surface.corners, surface.triangles
    a, b, corner = (numpy.concatenate([triangles[:, (at + step) % 3] for at in range(3)]) for step in range(3))
    wide, left, right = (
        numpy.linalg.norm(corners[first] - corners[second], axis=1)
        for first, second in ((a, b), (a, corner), (b, corner))
    )
    # In a plane: the one at 0, the other to the right of it, the corner above them and the start, unfolded, below.
    with numpy.errstate(divide="ignore", invalid="ignore"):
        x = (left**2 - right**2 + wide**2) / (2 * wide)
        y = numpy.sqrt(numpy.maximum(0.0, left**2 - x**2))
        start_x = (ways[a] ** 2 - ways[b] ** 2 + wide**2) / (2 * wide)
        start_y = numpy.sqrt(numpy.maximum(0.0, ways[a] ** 2 - start_x**2))
        crossing = start_x + (x - start_x) * start_y / numpy.maximum(LEAST_MM, start_y + y)
        through = (crossing >= 0) & (crossing <= wide) & (a != start) & (b != start)
        off = numpy.where(through, numpy.abs(numpy.hypot(x - start_x, y + start_y) - ways[corner]), math.inf)
        to_a, to_b, to_corner = (
            numpy.arctan2(start_y + up, out - start_x) for out, up in ((0.0, 0.0), (wide, 0.0), (x, y))
        )
        apart = numpy.where(to_a - to_b > LEAST_MM, to_a - to_b, math.inf)
        share = (to_a - to_corner) / apart
        along = [
            numpy.where(end == start, math.inf, numpy.abs(ways[end] + side - ways[corner]) + LEAST_MM)
            for end, side in ((a, left), (b, right))
        ]
    choices = [(a, b, off, numpy.clip(share, 0.0, 1.0)), (a, a, along[0], 0 * share), (b, b, along[1], 0 * share)]
    one, other, offs, shares = (numpy.concatenate(each) for each in zip(*choices, strict=True))
    to = numpy.tile(corner, len(choices))
    best = numpy.lexsort((numpy.nan_to_num(offs, nan=math.inf), to))
    first = best[numpy.unique(to[best], return_index=True)[1]]
    return one[first], other[first], shares[first]


def _around(surface: Surface, start: int, apart: Numbers) -> dict[int, float]:
    """Which way each neighbour of the start lies, its angles being spread over a whole turn; the first, which is the
    farthest across, by where it is.
    """
    after: dict[int, int] = {}
    for three in surface.triangles[(surface.triangles == start).any(axis=1)].tolist():
        at = three.index(start)
        after[three[(at + 1) % 3]] = three[(at + 2) % 3]
    begins = set(after) - set(after.values()) or set(after)
    ring, angles = [max(begins, key=lambda one: float(numpy.linalg.norm(apart[one, :2])))], [0.0]
    while (following := after.get(ring[-1])) is not None:
        one, other = apart[ring[-1]], apart[following]
        cosine = float(one @ other) / max(LEAST_MM, float(numpy.linalg.norm(one) * numpy.linalg.norm(other)))
        angles.append(angles[-1] + math.acos(min(1.0, max(-1.0, cosine))))
        if following == ring[0]:
            break
        ring.append(following)
    closed = len(angles) > len(ring)
    scale = 2 * math.pi / max(LEAST_MM, angles[-1]) if closed else 1.0
    first = math.atan2(float(apart[ring[0], 1]), float(apart[ring[0], 0]))
    return {corner: first + scale * angle for corner, angle in zip(ring, angles, strict=False)}
