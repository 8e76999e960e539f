"""A tier's outline out of the closed runs of points of a drawing: repaired where the slip is small, or refused with a
reason.
"""

import math
import re

import numpy
from shapely import Polygon, STRtree, linestrings, make_valid
from shapely.validation import explain_validity

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen

MOST_CROSSINGS = 200
"""An edge that crosses itself more often is no slip of the pen, and would take long to mend."""
LOOKED_AT = 256
"""So many pieces of an edge are held against all others at a time."""
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


def outline_of(rings: list[list[Point]], notes: list[str]) -> ReadOutline:
    """The one outline among closed runs of points, mm. Raises OutlineError when there is none, or more than one."""
    if not rings:
        raise OutlineError("There is no closed shape in this drawing. Draw the outline as one closed path.")
    polygon = _thinned(_whole(_one(rings, notes), notes), notes)
    left, low, right, high = polygon.bounds
    _bounded(right - left, high - low)
    points = [(round(x - left, 3), round(y - low, 3)) for x, y in list(polygon.exterior.coords)[:-1]]
    return ReadOutline(points_mm=points, width_mm=right - left, length_mm=high - low, notes=notes)


def closed_ring(points: list[Point], closed: bool, notes: list[str]) -> list[Point]:
    """A run of points as a ring; ends that nearly meet are joined. Raises OutlineError where they do not."""
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
