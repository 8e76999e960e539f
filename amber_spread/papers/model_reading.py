"""A body read from a 3D file (STL, OBJ, PLY, 3MF): bounded, mended where that is safe, and made small enough for a
design file; else refused with a reason and the place.
"""

import io
from typing import TYPE_CHECKING, Literal

import numpy
from manifold3d import Error, Manifold, OpType

from amber_spread.core.geometry.bodies.meshed import CRUMB_ML
from amber_spread.core.geometry.bodies.packed import MOST_CORNERS, MOST_TRIANGLES, moved_by, packed, step_for
from amber_spread.core.geometry.bodies.triangles import Triangles, mesh_of, solid_of, triangles_of
from amber_spread.core.geometry.rows import Numbers, keys_of
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.papers.threemf_reading import read_threemf

if TYPE_CHECKING:
    import trimesh

Unit = Literal["mm", "cm", "in", "m"]
Up = Literal["x", "y", "z"]
Found = tuple[Numbers, Triangles]
MM = {"mm": 1.0, "cm": 10.0, "in": MM_PER_INCH, "m": 1000.0}
TURNED = {"x": [0.0, -90.0, 0.0], "y": [90.0, 0.0, 0.0], "z": [0.0, 0.0, 0.0]}
"""How a body is turned so that this axis of its file points up."""
MOST_BROUGHT = 500_000
"""So many triangles are read."""
HEAD_BYTES, TRIANGLE_BYTES = 84, 50
"""A binary STL file: what goes before, and each triangle (published: the STL format, 3D Systems 1989; from memory)."""
LEAST_PART = 50
"""A file that is cut off holds at least one part in so many of what it says; what holds less is no such file."""
LOOKED_AT = 4096
WELD_SHARE = 1e-6
"""Corners nearer than this share of the body's size are one."""
HOLE_EDGES, HOLE_SHARE = 64, 0.1
"""A hole of more edges, or wider than this share of the body, is not closed unasked."""
FIRST_SHARE, MORE, TRIES = 2e-4, 1.7, 16
"""How far triangles may move for there to be fewer of them: this share of the body's size, then so many times more."""
FARTHEST_SHARE = 0.9
"""Of how far a body in a design file may be from its own, so that steps have room."""
SPLINTER_SHARE = 0.01
"""A part smaller than this share of the largest part is a splinter."""
NO_THICKNESS = "The body has no thickness. Bring one that is closed all round."


class ModelError(ValueError):
    """The file holds no body that can be carved; the message says why and what would do."""


class ReadModel(Frozen):
    """A body as it goes into a design file: as text, no farther than `error_mm` from what was brought at the size it
    was brought in; its size, how many triangles it had and has, and what was mended.
    """

    mesh: str
    error_mm: float
    width_mm: float
    length_mm: float
    height_mm: float
    volume_ml: float
    brought: int
    kept: int
    notes: list[str]


def read_model(data: bytes, unit: Unit, up: Up) -> ReadModel:
    """The body in a 3D file whose lengths are in `unit` and whose axis `up` points up. Raises ModelError when there is
    none, or it cannot be mended.
    """
    notes: list[str] = []
    corners, triangles, scale = _found(data, MM[unit], notes)
    if len(triangles) > MOST_BROUGHT:
        raise _too_many(len(triangles))
    if not len(triangles) or not numpy.isfinite(corners).all():
        raise ModelError("The file holds no triangles, or some that lie nowhere. Save the body again.")
    corners = corners * scale
    longest = float(numpy.ptp(corners[triangles], axis=(0, 1)).max())
    if not limits.SOLID_SIZE.low <= longest <= limits.COORDINATE.high:
        raise ModelError(
            f"The body is {longest:,.1f} mm at its longest, and 2 to 2000 mm is read. Say which unit the file is in."
        )
    corners, triangles = _welded(corners, triangles)
    solid = _closed(corners, triangles, notes).rotate(TURNED[up])
    solid, lost_mm = _fewer(_whole(solid, notes))
    left, front, low, right, back, high = solid.bounding_box()
    corners, kept = triangles_of(solid)
    return ReadModel(
        mesh=packed(corners, kept),
        error_mm=round(lost_mm + moved_by(step_for(corners)) + 5e-4, 3),
        width_mm=right - left,
        length_mm=back - front,
        height_mm=high - low,
        volume_ml=solid.volume() / 1000,
        brought=len(triangles),
        kept=len(kept),
        notes=notes,
    )


def _too_many(count: int) -> ModelError:
    return ModelError(
        f"The body has {count:,} triangles; at most {MOST_BROUGHT:,} are read. Save it with fewer, as for printing."
    )


def _found(data: bytes, mm: float, notes: list[str]) -> tuple[Numbers, Triangles, float]:
    """The corners and triangles in a file, and how many mm a length of it is."""
    if data.startswith(b"PK"):
        try:
            corners, triangles, own_mm = read_threemf(data, MOST_BROUGHT)
        except OverflowError as error:
            raise _too_many(MOST_BROUGHT + 1) from error
        except ValueError as error:
            raise ModelError(f"The 3MF file cannot be read: {error}.") from error
        notes.append("A 3MF file says its unit itself; that is taken.")
        return corners, triangles, own_mm
    kind = _kind(data)
    # Read when it is first wanted: it takes a third of a second.
    import trimesh

    try:
        read = trimesh.load_mesh(
            io.BytesIO(data), file_type=kind, process=False, resolver=None, skip_materials=True, maintain_order=True
        )
        corners, triangles = numpy.asarray(read.vertices, dtype=float), numpy.asarray(read.faces, dtype=numpy.int64)
    except MemoryError:
        raise
    except Exception as error:  # whatever a reader meets in a damaged file
        raise ModelError(
            f"The {kind.upper()} file ends early or is garbled. Save it again, or as a binary STL file."
        ) from error
    if len(triangles) and (triangles.min() < 0 or triangles.max() >= len(corners)):
        raise ModelError("The file names corners that it does not have. Save it again.")
    return corners, triangles.reshape(-1, 3), mm


def _kind(data: bytes) -> str:
    """What kind of file it is, by what is in it. Raises ModelError where it is none that is read, or has too much."""
    head = data[:LOOKED_AT]
    count = int.from_bytes(data[80:HEAD_BYTES], "little") if len(data) >= HEAD_BYTES else 0
    if count and len(data) == HEAD_BYTES + TRIANGLE_BYTES * count:
        found, kind = count, "stl"
    elif head.lstrip().startswith(b"solid") and b"facet" in head:
        found, kind = data.count(b"outer loop"), "stl"
        if b"endsolid" not in data[-LOOKED_AT:]:
            raise ModelError("The STL file ends early or is garbled. Save it again, or as a binary STL file.")
    elif b"\0" in data[:HEAD_BYTES] and TRIANGLE_BYTES * count // LEAST_PART < len(data) < TRIANGLE_BYTES * count:
        raise ModelError(f"The STL file ends early: it says {count:,} triangles and has fewer. Save it again.")
    elif head.startswith((b"ply\n", b"ply\r")):
        named = [line.split() for line in head.partition(b"end_header")[0].splitlines() if line.startswith(b"element")]
        found = max((int(line[2]) for line in named if len(line) == 3 and line[2].isdigit()), default=0)
        kind = "ply"
    elif b"\0" not in head and (b"\nv " in data or head.startswith(b"v ")) and b"\nf " in data:
        found, kind = data.count(b"\nf "), "obj"
    else:
        raise ModelError("This is no 3D file that is read: bring an STL, OBJ, PLY or 3MF file.")
    if found > MOST_BROUGHT:
        raise _too_many(found)
    return kind


def _welded(corners: Numbers, triangles: Triangles) -> Found:
    """Corners that lie on each other made one, and triangles without an area left out."""
    size = float(numpy.ptp(corners, axis=0).max())
    if not size:
        raise ModelError("All of the body lies on one point. Save it again.")
    # Two on either side of a cell's edge are left apart here, and made one where the body is closed.
    cells = keys_of(numpy.round(corners / (size * WELD_SHARE)).astype(numpy.int64))
    _, first, back = numpy.unique(cells, return_index=True, return_inverse=True)
    faces = back[triangles]
    there = (faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])
    return corners[first], faces[there]


def _closed(corners: Numbers, triangles: Triangles, notes: list[str]) -> Manifold:
    """The body inside the triangles, mended where they do not close up."""
    solid = solid_of(corners, triangles)
    if solid.status() != Error.NoError or solid.is_empty():
        mesh = mesh_of(corners, triangles)
        mesh.merge()
        solid = Manifold(mesh)
    if solid.status() != Error.NoError or solid.is_empty():
        solid = _mended(corners, triangles, notes)
    if solid.volume() < 0:
        notes.append("It was inside out, and has been turned.")
        corners, triangles = triangles_of(solid)
        solid = solid_of(corners, triangles[:, ::-1])
    return solid


def _mended(corners: Numbers, triangles: Triangles, notes: list[str]) -> Manifold:
    """Triangles turned to face one way and small holes closed. Raises ModelError where that does not close the body."""
    import trimesh
    from networkx import NetworkXError

    body = trimesh.Trimesh(corners, triangles, process=False)
    body.update_faces(body.unique_faces())
    if not body.is_winding_consistent:
        try:
            trimesh.repair.fix_winding(body)  # type: ignore[no-untyped-call]
            notes.append("Some of its triangles faced the other way, and have been turned.")
        except NetworkXError as error:
            raise ModelError("Its triangles face this way and that, and do not make a body. Save it again.") from error
    rings = _rings(body)
    size = float(numpy.ptp(corners, axis=0).max())
    for ring in rings:
        wide = float(numpy.ptp(corners[ring], axis=0).max())
        if len(ring) > HOLE_EDGES or wide > HOLE_SHARE * size:
            raise ModelError(
                f"The body is open: there is a hole {wide:,.1f} mm wide {_place(corners, ring)}. Close it."
            )
    if rings:
        fans: list[tuple[int, int, int]] = []
        middles: list[Numbers] = []
        for ring in rings:
            middle = len(corners) + len(middles)
            middles.append(corners[ring].mean(axis=0))
            fans += [(a, middle, b) for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
        corners = numpy.vstack([corners, middles])
        body = trimesh.Trimesh(corners, numpy.vstack([body.faces, fans]), process=False)
        widest = max(float(numpy.ptp(corners[ring], axis=0).max()) for ring in rings)
        holes = "a hole" if len(rings) == 1 else f"{len(rings)} holes"
        notes.append(f"It had {holes}, up to {widest:,.1f} mm wide, and is closed there.")
    solid = solid_of(corners, numpy.asarray(body.faces))
    if solid.status() != Error.NoError or solid.is_empty():
        edges = _edges_alone(body)
        where = f" {_place(corners, body.edges[edges[0]].tolist())}" if len(edges) else ""
        raise ModelError(
            f"The triangles do not close up to a body{where}. Have your program mend it, and save it again."
        )
    return solid


def _edges_alone(body: "trimesh.Trimesh") -> Triangles:
    """Which of its edges belong to one triangle alone."""
    import trimesh

    found: Triangles = trimesh.grouping.group_rows(body.edges_sorted, require_count=1)  # type: ignore[no-untyped-call]
    return found


def _rings(body: "trimesh.Trimesh") -> list[list[int]]:
    """The edges of the holes, each as its corners one after another, along the triangles beside it."""
    alone = _edges_alone(body)
    after = dict(body.edges[alone].tolist())
    if len(after) != len(alone):
        # Where more than one hole meets at a corner there is no telling them apart.
        return [body.edges[alone].ravel().tolist()]
    rings = []
    while after:
        start, at = after.popitem()
        ring = [start]
        while at != start:
            ring.append(at)
            if at not in after:
                return [ring]
            at = after.pop(at)
        rings.append(ring)
    return rings


def _place(corners: Numbers, ring: list[int]) -> str:
    """Where something is, from the left, the front and the foot of the body as it lies in its file."""
    x, y, z = corners[ring].mean(axis=0) - corners.min(axis=0)
    return f"at x {x:,.0f}, y {y:,.0f}, z {z:,.0f} mm from its lowest corner"


def _whole(solid: Manifold, notes: list[str]) -> Manifold:
    """The body in one part. Raises ModelError where it is none or of several that do not meet."""
    parts = solid.decompose()
    whole = sum(abs(part.volume()) for part in parts)
    if whole < 1:
        raise ModelError(NO_THICKNESS)
    largest = max(abs(part.volume()) for part in parts)
    large = [part for part in parts if abs(part.volume()) > max(SPLINTER_SHARE * largest, CRUMB_ML)]
    if len(parts) > len(large):
        notes.append(f"{len(parts) - len(large)} splinters beside it are left out.")
    hollow = [part for part in large if part.volume() < 0]
    if hollow:
        notes.append("A hollow inside it that opens nowhere is filled.")
    count = len(large) - len(hollow)
    if count > 1:
        large = Manifold.compose([part for part in large if part.volume() > 0]).decompose()
        joined = Manifold.batch_boolean(large, OpType.Add)
        if len(joined.decompose()) > 1:
            raise ModelError(f"There are {count} bodies in this file that do not touch. Bring one, or join them first.")
        notes.append(f"{count} bodies that run into each other are made one.")
        return joined
    for part in large:
        if part.volume() > 0:
            return part
    raise ModelError(NO_THICKNESS)


def _fewer(solid: Manifold) -> tuple[Manifold, float]:
    """The body with as few triangles as a design file can hold, and how far they were moved for it at most, mm."""
    left, front, low, right, back, high = solid.bounding_box()
    moved_mm = FIRST_SHARE * max(right - left, back - front, high - low)
    fewer, lost_mm = solid, 0.0
    for _ in range(TRIES):
        if fewer.num_tri() <= MOST_TRIANGLES and fewer.num_vert() <= MOST_CORNERS:
            return fewer, lost_mm
        if moved_mm > FARTHEST_SHARE * limits.MESH_ERROR.high:
            break
        fewer, lost_mm = solid.simplify(moved_mm), moved_mm
        moved_mm *= MORE
    raise ModelError(
        f"The body is too rough to be kept in {MOST_TRIANGLES:,} triangles. Smooth it, or save it with fewer."
    )
