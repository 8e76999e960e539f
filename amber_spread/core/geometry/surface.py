"""The surface of a carved body under its coats as triangles, for looking at it and for printing it."""

from manifold3d import Error, Manifold

from amber_spread.core.geometry.meshed import Meshed
from amber_spread.core.geometry.patches import Surface
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.triangles import Numbers, Triangles, alone, solid_of, triangles_of

EDGE_SHARE, COARSE_SHARE, FINEST_MM = 0.025, 0.07, 3.0
"""Its triangles have sides of about this share of its width; those that are laid flat are larger."""
LEVEL_MM = 1e-6
MOVED_MM = 0.25
"""Fewer triangles do as well, where none moves farther."""
BEYOND_MM = 6.0


def surface_of(body: Sculpted) -> Manifold:
    """The body under its coats, standing on its foot; kept with the bare one.

    Of a body made of triangles that carries nothing they are its own. Of any other, the level of the lattice of
    distances at the thickness of the coat (marching tetrahedra, by manifold3d): within 0.3 per cent of its volume.
    Raises ValueError where there is nothing to be seen.
    """
    thick = body.side_mm, body.top_mm, body.under_mm
    return solid_of(*body.core.keep("surface", thick, lambda: _triangles(body)))


def open_surface_of(body: Sculpted) -> Surface:
    """The surface of a body under its coats without what it stands on, in triangles as even as may be.

    Raises ValueError where there is nothing to be seen.
    """
    corners, triangles = triangles_of(_level(body, COARSE_SHARE))
    below = (corners[triangles][:, :, 2] <= body.foot_mm + LEVEL_MM).all(axis=1)
    return Surface(*alone(corners, triangles[~below]))


def _triangles(body: Sculpted) -> tuple[Numbers, Triangles]:
    core = body.core
    solid = core.solid if isinstance(core, Meshed) and max(body.side_mm, body.top_mm) <= 0 else _level(body, EDGE_SHARE)
    return triangles_of(solid.simplify(MOVED_MM))


def _level(body: Sculpted, edge_share: float) -> Manifold:
    """All that lies within the coat's thickness, stood on its foot. Raises ValueError where that is nothing."""
    field = body.lattice
    away = field.risen(body.more_mm)
    rows, columns = away.shape[1] * away.shape[2], away.shape[2]
    # Plain numbers, since each is asked for by itself.
    flat = away.ravel().tolist()
    starts = [float(axis[0]) for axis in (field.x, field.y, field.z)]
    (x0, y0, z0), step, side = starts, field.step_mm, body.side_mm
    last_x, last_y, last_z = (size - 1.0001 for size in away.shape)

    def inside(x: float, y: float, z: float) -> float:
        x = min(last_x, max(0.0, (x - x0) / step))
        y = min(last_y, max(0.0, (y - y0) / step))
        z = min(last_z, max(0.0, (z - z0) / step))
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
    found = Manifold.level_set(inside, bounds, max(FINEST_MM, edge_share * 2 * wide))
    standing = found.trim_by_plane([0.0, 0.0, 1.0], body.foot_mm)
    if standing.status() != Error.NoError or standing.is_empty():
        raise ValueError("there is nothing of the body to be seen")
    return standing
