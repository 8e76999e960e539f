"""The outline in an SVG file, at true size: bounded before anything of it is read."""

import io
import math
import re
from collections.abc import Iterator
from xml.etree.ElementTree import Element

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import ParseError, fromstring, tostring
from svgelements import SVG, Close, Line, Move, Path, Shape

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.papers.outline_reading import OutlineError, ReadOutline, closed_ring, outline_of

PX_PER_INCH = 96.0
"""A CSS pixel is 1/96 in (published: W3C, CSS Values and Units Module Level 3, 6.2)."""
MOST_ELEMENTS = 2000
MOST_SEGMENTS = 5000
MOST_NUMBERS = 40_000
DEEPEST = 60
"""So deep may groups lie in one another: each brings a transform of its own to all that it holds."""
LONGEST_STYLE = 1000
CURVE_STEPS = 24


def read_svg(data: bytes) -> ReadOutline:
    """The one closed outline in an SVG file. Raises OutlineError when there is none, or more than one."""
    notes: list[str] = []
    return outline_of(list(_rings(_vetted(data), notes)), notes)


def _vetted(data: bytes) -> bytes:
    """The drawing without its style sheets, once everything is bounded: entities, elements, depth, numbers."""
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
            yield closed_ring(points, closed, notes)


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
