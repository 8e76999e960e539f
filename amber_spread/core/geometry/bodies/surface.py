"""The surface of a carved body under its coats as triangles, for looking at it and for printing it."""

import math

import numpy
from manifold3d import Error, Manifold

from amber_spread.core.geometry.bodies.meshed import Meshed
from amber_spread.core.geometry.bodies.open_surface import Surface, conforming, edges_once
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.triangles import Triangles, alone, solid_of, triangles_of
from amber_spread.core.geometry.rows import Numbers

EDGE_SHARE, COARSE_SHARE, FINEST_MM = 0.025, 0.07, 3.0
"""Its triangles have sides of about this share of its width; those that are laid flat are larger."""
LEVEL_MM = 1e-6
MOVED_MM = 0.25
"""Fewer triangles do as well, where none moves farther."""
BEYOND_MM = 6.0
SIDES = 32.0
"""A square as large as the surface would have sides of so many triangles: where a sheet tears is the same for finer
ones."""
OFF_MM, TIMES = 0.4, 2
"""A surface that is to follow its body is cut finer where it is farther off than this."""


def surface_of(body: Sculpted) -> Manifold:
    """The body under its coats, standing on its foot; kept with the bare one.

    Of a body made of triangles that carries nothing they are its own. Of any other, the level of the lattice of
    distances at the thickness of the coat (marching tetrahedra, by manifold3d): within 0.3 per cent of its volume.
    Raises ValueError where there is nothing to be seen.
    """
    return solid_of(*body.cached("surface", lambda: _triangles(body)))


def open_surface_of(body: Sculpted) -> Surface:
    """The surface of a body under its coats without what it stands on, in triangles as even as may be.

    Raises ValueError where there is nothing to be seen.
    """
    return _opened(_level(body, _share(body, COARSE_SHARE)), body)


def even_surface_of(body: Sculpted) -> Surface:
    """The same in some thousands of smaller triangles. Raises ValueError likewise."""
    return body.get_or_compute("even surface", lambda: _opened(_even(body), body))


def even_halves_of(body: Sculpted, axis: int) -> list[Surface]:
    """The same cut through its middle straight across an axis (0 to 2), the lower half first. Raises ValueError
    likewise.
    """
    solid = _even(body)
    box = solid.bounding_box()
    middle = (box[axis] + box[axis + 3]) / 2
    parted = solid.split_by_plane([float(at == axis) for at in range(3)], middle)
    return [_opened(half, body, (axis, middle)) for half in reversed(parted)]


def _even(body: Sculpted) -> Manifold:
    return _level(body, math.sqrt(body.surface_mm2) / SIDES)


def _opened(solid: Manifold, body: Sculpted, *cuts: tuple[int, float]) -> Surface:
    """The surface of a solid without the faces by which it was cut off: that of its foot, and others across an axis."""
    corners, triangles = triangles_of(solid)
    places = corners[triangles]
    away = (places[:, :, 2] <= body.foot_mm + LEVEL_MM).all(axis=1)
    for axis, at in cuts:
        away |= (numpy.abs(places[:, :, axis] - at) <= LEVEL_MM).all(axis=1)
    return Surface(*alone(corners, triangles[~away]))


def followed(surface: Surface, body: Sculpted) -> Surface:
    """A surface of a body that follows it round its edges: where the middle of a side of its triangles lies off the
    body, it is cut there, and the cut put on it; as often as `TIMES`.
    """
    for _ in range(TIMES):
        corners = surface.corners
        ends, back, met = edges_once(surface.triangles)
        middles = corners[ends].mean(axis=1)
        off = body.outside_by(middles)
        far = (numpy.abs(off) > OFF_MM) & (corners[ends][:, :, 2] > body.foot_mm + LEVEL_MM).any(axis=1)
        # Where it was cut off it stays in the plane of the cut.
        level = (numpy.ptp(corners[ends], axis=1) <= LEVEL_MM) & (met == 1)[:, None]
        moved = (middles - numpy.where(level, 0.0, off[:, None] * body.outward(middles)))[far]
        moved[:, 2] = numpy.maximum(moved[:, 2], body.foot_mm)
        added = {(one, other): len(corners) + at for at, (one, other) in enumerate(ends[far].tolist())}
        cut: list[bool] = numpy.any(far[back], axis=0).tolist()
        triangles = [
            one
            for three, parted in zip(surface.triangles.tolist(), cut, strict=True)
            for one in (conforming(three, added) if parted else (three,))
        ]
        surface = Surface(numpy.vstack([corners, moved]), numpy.array(triangles, dtype=numpy.int64))
    return surface


def _triangles(body: Sculpted) -> tuple[Numbers, Triangles]:
    core = body.core
    own = isinstance(core, Meshed) and max(body.side_mm, body.top_mm) <= 0
    solid = core.solid if isinstance(core, Meshed) and own else _level(body, _share(body, EDGE_SHARE))
    return triangles_of(solid.simplify(MOVED_MM))


def _share(body: Sculpted, share: float) -> float:
    return share * (body.width_mm + 2 * BEYOND_MM)


def _level(body: Sculpted, side_mm: float) -> Manifold:
    """All that lies within the coat's thickness, stood on its foot. Raises ValueError where that is nothing."""
    field = body.lattice
    away = field.risen(body.more_mm)
    rows, columns = away.shape[1] * away.shape[2], away.shape[2]
    # Plain numbers, since each is asked for by itself.
    flat = away.ravel().tolist()
    starts = [float(axis[0]) for axis in (field.x, field.y, field.z)]
    (x0, y0, z0), step, side = starts, field.step_mm, body.side_mm
    last_x, last_y, last_z = (size - 1.0001 for size in away.shape)
    # Its own foot is no wall: a body whose coat is thin goes straight on down, where it is cut level.
    lowest = body.foot_mm + step / 2 if side < step and not body.under_mm else -math.inf

    def inside(x: float, y: float, z: float) -> float:
        x = min(last_x, max(0.0, (x - x0) / step))
        y = min(last_y, max(0.0, (y - y0) / step))
        z = min(last_z, max(0.0, (max(lowest, z) - z0) / step))
        i, j, k = int(x), int(y), int(z)
        x, y, z = x - i, y - j, z - k
        at = i * rows + j * columns + k
        near = flat[at] * (1 - z) + flat[at + 1] * z
        far = flat[at + columns] * (1 - z) + flat[at + columns + 1] * z
        at += rows
        near_right = flat[at] * (1 - z) + flat[at + 1] * z
        far_right = flat[at + columns] * (1 - z) + flat[at + columns + 1] * z
        return float(side - (near * (1 - y) + far * y) * (1 - x) - (near_right * (1 - y) + far_right * y) * x)

    wide, long = body.width_mm / 2 + BEYOND_MM, body.length_mm / 2 + BEYOND_MM
    bounds = [-wide, -long, body.foot_mm - BEYOND_MM, wide, long, body.foot_mm + body.height_mm + BEYOND_MM]
    found = Manifold.level_set(inside, bounds, max(FINEST_MM, side_mm))
    standing = found.trim_by_plane([0.0, 0.0, 1.0], body.foot_mm)
    if standing.status() != Error.NoError or standing.is_empty():
        raise ValueError("there is nothing of the body to be seen")
    return standing
