"""The outline in a DXF file, at the size its own unit says: bounded before it is drawn out."""

import io
import itertools
import math
from collections.abc import Iterator

import ezdxf
from ezdxf.document import Drawing
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.enums import InsertUnits
from ezdxf.path import make_path
from ezdxf.units import conversion_factor
from shapely import LineString
from shapely.ops import linemerge

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.papers.outline_reading import OutlineError, ReadOutline, closed_ring, outline_of

DRAWN = ("LWPOLYLINE", "POLYLINE", "LINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE")
MOST_ENTITIES = 2000
MOST_CORNERS = 20_000
MOST_CONTROLS = 2000
"""A curve held by more points than this is refused before it is drawn out."""
FLAT_MM = 0.05
"""A curve is drawn out by chords no farther from it than this."""
NOT_DXF = "The file is not DXF that can be read. Save the drawing as DXF in text form, or as SVG."


def read_dxf(data: bytes) -> ReadOutline:
    """The one closed outline in a DXF file. Raises OutlineError when there is none, or more than one."""
    notes: list[str] = []
    drawing = _opened(data)
    return outline_of(list(_rings(drawing, _mm_of(drawing, notes), notes)), notes)


def _opened(data: bytes) -> Drawing:
    if b"\x00" in data:
        raise OutlineError("This is DXF in binary form. Save the drawing as DXF in text form, or as SVG.")
    try:
        return ezdxf.read(io.StringIO(data.decode("utf-8", "replace")))  # type: ignore[attr-defined]
    except Exception as error:
        # Whatever the reader stumbles over in a file that anybody may send, it is the file that is at fault.
        raise OutlineError(NOT_DXF) from error


def _mm_of(drawing: Drawing, notes: list[str]) -> float:
    """Millimetres to a unit of the drawing; where it names none it is read in millimetres, and that is said."""
    try:
        unit = InsertUnits(drawing.header.get("$INSUNITS", 0))
    except ValueError:
        unit = InsertUnits.Unitless
    if unit == InsertUnits.Unitless:
        notes.append("The drawing names no unit: it was read in millimetres.")
        return 1.0
    return conversion_factor(unit, InsertUnits.Millimeters)


def _rings(drawing: Drawing, mm: float, notes: list[str]) -> Iterator[list[Point]]:
    """Every closed run of points, mm; pieces whose ends meet are put together."""
    entities = list(itertools.islice(drawing.modelspace(), MOST_ENTITIES + 1))
    if len(entities) > MOST_ENTITIES:
        raise OutlineError(
            f"The drawing has more than {MOST_ENTITIES} parts, the most that are read. Leave one outline."
        )
    if any(entity.dxftype() == "INSERT" for entity in entities):
        raise OutlineError("The drawing repeats a shape by reference. Turn the block into lines of its own.")
    pieces: list[LineString] = []
    corners = 0
    for entity in entities:
        if entity.dxftype() not in DRAWN:
            continue
        points = _drawn(entity, mm)
        corners += len(points)
        if corners > MOST_CORNERS:
            raise OutlineError(
                f"The outline has more than {MOST_CORNERS} corners, the most that are read. Simplify it."
            )
        if len(set(points)) < 2:
            continue
        if math.dist(points[0], points[-1]) < 1e-6:
            yield points
        else:
            pieces.append(LineString(points))
    joined = linemerge(pieces) if pieces else None
    for line in getattr(joined, "geoms", [joined] if joined else []):
        ends = [(float(x), float(y)) for x, y in line.coords]
        if len(set(ends)) >= 3:
            yield closed_ring(ends, False, notes)


def _drawn(entity: DXFEntity, mm: float) -> list[Point]:
    controls = getattr(entity, "control_points", None)
    if controls is not None and len(controls) > MOST_CONTROLS:
        raise OutlineError(f"A curve is held by more than {MOST_CONTROLS} points, the most that are read. Simplify it.")
    try:
        path = make_path(entity)
        found = [(float(point.x) * mm, float(point.y) * mm) for point in path.flattening(FLAT_MM / mm, segments=4)]
    except Exception as error:
        raise OutlineError("A line of the drawing cannot be read. Draw it again as one closed polyline.") from error
    if not all(math.isfinite(number) for point in found for number in point):
        raise OutlineError("A line of the drawing cannot be read. Draw it again as one closed polyline.")
    return [(round(x, 6), round(y, 6)) for x, y in found]
