"""A tier's outline read from an SVG file at true size: bounded, then repaired or refused with a reason."""

import io
import math
import re
from collections.abc import Iterator
from xml.etree.ElementTree import Element

import numpy
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import ParseError, fromstring, tostring
from shapely import Polygon, STRtree, linestrings, make_valid
from shapely.validation import explain_validity
from svgelements import SVG, Close, Line, Move, Path, Shape

from amber_spread.core.geometry.outline import Point
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.units import MM_PER_INCH

PX_PER_INCH = 96.0
"""A CSS pixel is 1/96 in (published: W3C, CSS Values and Units Module Level 3, 6.2)."""
MOST_ELEMENTS = 2000
MOST_SEGMENTS = 5000
MOST_NUMBERS = 40_000
DEEPEST = 60
"""So deep may groups lie in one another: each brings a transform of its own to all that it holds."""
MOST_CROSSINGS = 200
"""An edge that crosses itself more often is no slip of the pen, and would take long to mend."""
LONGEST_STYLE = 1000
LOOKED_AT = 256
"""So many pieces of an edge are held against all others at a time."""
CURVE_STEPS = 24
GAP_SHARE = 0.02
"""Ends nearer than this share of the drawing's size are taken to meet."""
CRUMB_SHARE = 0.03
"""Loops smaller than this share of the outline are slips of the pen and are left out."""
COARSEST_MM = 0.5


class OutlineError(ValueError):
    """The file holds no outline that can be a tier; the message says why and what would do."""


class ReadOutline(Frozen):
    """An outline as corners in mm, up being up, its size, and what was repaired in it."""

    points_mm: list[Point]
    width_mm: float
    length_mm: float
    notes: list[str]


def read_outline(data: bytes) -> ReadOutline:
    """The one closed outline in an SVG file. Raises OutlineError when there is none, or more than one."""
    data = _vetted(data)
    notes: list[str] = []
    rings = list(_rings(data, notes))
    if not rings:
        raise OutlineError("There is no closed shape in this drawing. Draw the outline as one closed path.")
    polygon = _whole(_one(rings, notes), notes)
    polygon = _thinned(polygon, notes)
    left, low, right, high = polygon.bounds
    _bounded(right - left, high - low)
    points = [(round(x - left, 3), round(y - low, 3)) for x, y in list(polygon.exterior.coords)[:-1]]
    return ReadOutline(points_mm=points, width_mm=right - left, length_mm=high - low, notes=notes)


def _vetted(data: bytes) -> bytes:
    """The drawing without its style sheets, once everything is bounded: size, entities, elements, depth, numbers."""
    if len(data) > limits.MAX_FILE_BYTES:
        raise OutlineError(f"The file is larger than {limits.MAX_FILE_BYTES // 1024} kB, the most that is read.")
    try:
        root = fromstring(data, forbid_dtd=True)
    except DefusedXmlException as error:
        raise OutlineError("The file defines entities of its own, which are not read. Save it as plain SVG.") from error
    except (ParseError, ValueError, LookupError) as error:
        raise OutlineError("The file is not SVG. Save the drawing as plain SVG.") from error
    if not str(root.tag).endswith("svg"):
        raise OutlineError("The file is not SVG. Save the drawing as plain SVG.")
    elements = list(root.iter())
    if len(elements) > MOST_ELEMENTS:
        raise OutlineError(
            f"The drawing has {len(elements)} parts; at most {MOST_ELEMENTS} are read. Leave one outline."
        )
    if _depth(root) > DEEPEST:
        raise OutlineError(f"The drawing's groups lie in one another over {DEEPEST} deep. Ungroup the outline.")
    if any(str(element.tag).endswith(("}use", "}symbol", "}pattern")) or element.tag == "use" for element in elements):
        raise OutlineError("The drawing repeats a shape by reference. Turn the copy into a path of its own.")
    numbers = sum(len(re.findall(r"\d[\d.]*", element.get("d") or element.get("points") or "")) for element in elements)
    if numbers > MOST_NUMBERS:
        raise OutlineError(f"The outline has {numbers} numbers; at most {MOST_NUMBERS} are read. Simplify the path.")
    # Colours and lines are nothing to an outline, and a sheet of them can be made to take for ever.
    for element in elements:
        for child in [child for child in element if str(child.tag).rpartition("}")[2].lower() == "style"]:
            element.remove(child)
        if len(element.get("style", "")) > LONGEST_STYLE:
            del element.attrib["style"]
    written: bytes = tostring(root)
    return written


def _depth(root: Element) -> int:
    """How deep the elements lie in one another, without asking for as deep a stack."""
    deepest, waiting = 0, [(root, 1)]
    while waiting:
        element, depth = waiting.pop()
        deepest = max(deepest, depth)
        waiting.extend((child, depth + 1) for child in element)
    return deepest


def _rings(data: bytes, notes: list[str]) -> Iterator[list[Point]]:
    """Every closed run of points, mm, from all shapes with their transforms applied."""
    try:
        drawing = SVG.parse(io.BytesIO(data), ppi=PX_PER_INCH)
        shapes = [Path(shape) for shape in drawing.elements() if isinstance(shape, Shape)]
    except (
        ValueError,
        TypeError,
        AttributeError,
        IndexError,
        ZeroDivisionError,
        RecursionError,
        OverflowError,
    ) as error:
        raise OutlineError("A path in the drawing cannot be read. Draw it again as one closed path.") from error
    segments = sum(len(shape) for shape in shapes)
    if segments > MOST_SEGMENTS:
        raise OutlineError(f"The outline has {segments} pieces; at most {MOST_SEGMENTS} are read. Simplify the path.")
    for shape in shapes:
        for part in shape.as_subpaths():
            points = [point for point in _along(Path(part)) if all(math.isfinite(number) for number in point)]
            closed = any(isinstance(segment, Close) for segment in Path(part))
            if len(set(points)) < 3:
                continue
            yield _closed(points, closed, notes)


def _along(path: Path) -> Iterator[Point]:
    for segment in path:
        if isinstance(segment, Move) or segment.end is None or segment.start is None:
            if segment.end is not None:
                yield _mm(segment.end)
        elif isinstance(segment, Line | Close):
            yield _mm(segment.end)
        else:
            for step in range(1, CURVE_STEPS + 1):
                yield _mm(segment.point(step / CURVE_STEPS))


def _mm(point: Point) -> Point:
    factor = MM_PER_INCH / PX_PER_INCH
    return float(point[0]) * factor, -float(point[1]) * factor


def _closed(points: list[Point], closed: bool, notes: list[str]) -> list[Point]:
    gap = math.dist(points[0], points[-1])
    across, along = zip(*points, strict=True)
    size = max(max(across) - min(across), max(along) - min(along))
    if closed or gap < 1e-6:
        return points
    if gap > max(1.0, GAP_SHARE * size):
        raise OutlineError(f"The edge is open: its ends are {gap:.1f} mm apart. Close the path and try again.")
    notes.append(f"The ends were {gap:.1f} mm apart and have been joined.")
    return points


def _one(rings: list[list[Point]], notes: list[str]) -> Polygon:
    """The largest shape; those inside it are left out, those beside it are one too many."""
    for ring in rings:
        _once_round(ring)
    found = sorted((Polygon(ring) for ring in rings), key=lambda ring: -abs(ring.convex_hull.area))
    outer = found[0]
    inside = [ring for ring in found[1:] if outer.convex_hull.buffer(1e-6).contains(ring.convex_hull)]
    if len(inside) < len(found) - 1:
        raise OutlineError(
            f"There are {len(found)} separate shapes in this drawing. Leave the one outline of the tier."
        )
    if inside:
        shapes = "1 shape" if len(inside) == 1 else f"{len(inside)} shapes"
        notes.append(f"{shapes} inside the outline left out: a tier has no holes.")
    return outer


def _once_round(ring: list[Point]) -> None:
    """Refuses an edge that crosses itself over and over. The crossings are counted, which is soon done, before any is
    mended, which may not be.
    """
    corners = numpy.array(ring)
    pieces = linestrings(numpy.stack([corners, numpy.roll(corners, -1, axis=0)], axis=1))
    tree, crossings = STRtree(pieces), 0
    for first in range(0, len(pieces), LOOKED_AT):
        crossings += tree.query(pieces[first : first + LOOKED_AT], predicate="crosses").shape[1] // 2
        if crossings > MOST_CROSSINGS:
            raise OutlineError("The edge crosses itself over and over. Draw it so that it goes round once.")


def _whole(polygon: Polygon, notes: list[str]) -> Polygon:
    """The outline without small loops; refused where it crosses itself in earnest."""
    if not polygon.is_valid:
        where = re.search(r"\[(\S+) (\S+)\]", explain_validity(polygon))
        left, low, _, _ = polygon.bounds
        valid = make_valid(polygon)
        parts = sorted(
            (part for part in getattr(valid, "geoms", [valid]) if isinstance(part, Polygon)),
            key=lambda part: -part.area,
        )
        if not parts or sum(part.area for part in parts[1:]) > CRUMB_SHARE * parts[0].area:
            at = ""
            if where:
                at = f" {float(where[1]) - left:.0f} mm from its left and {float(where[2]) - low:.0f} mm up"
            raise OutlineError(f"The edge crosses itself{at}. Draw it so that it goes round once.")
        notes.append("A small loop in the edge has been left out.")
        polygon = parts[0]
    return Polygon(polygon.exterior)


def _thinned(polygon: Polygon, notes: list[str]) -> Polygon:
    """No more corners than a design keeps; refused where that would change it by more than half a millimetre."""
    most, tolerance = int(limits.OUTLINE_CORNERS.high), 0.01
    thin = polygon.simplify(tolerance)
    while len(thin.exterior.coords) - 1 > most:
        tolerance *= 1.6
        if tolerance > COARSEST_MM:
            raise OutlineError("The edge is too ragged to cut by. Smooth it, or draw it with fewer points.")
        thin = polygon.simplify(tolerance)
    if tolerance > 0.1:
        notes.append(f"The edge was smoothed by up to {tolerance:.1f} mm.")
    return thin


def _bounded(width: float, length: float) -> None:
    least, widest, longest = limits.TIN_DIAMETER.low, limits.TIN_DIAMETER.high, limits.TIN_LENGTH.high
    if not (least <= width <= widest and least <= length <= longest):
        raise OutlineError(
            f"The outline is {width:.1f} mm wide and {length:.1f} mm long; a tier is {least:g} to {widest:g} mm wide "
            f"and up to {longest:g} mm long. Was it drawn in other units? Set the drawing's size in mm or in."
        )
