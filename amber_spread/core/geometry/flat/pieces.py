"""Flat pieces: what is rolled, cut or printed and laid on the cake, described once for the drawing and every writer.

An edge is a closed run of corners (x, y, bulge) in mm. The bulge is the tangent of a quarter of the angle an arc
turns through on its way to the next corner, positive to the left; 0 is a straight edge, 1 half a circle.
"""

import math
from collections.abc import Iterable, Sequence
from functools import cached_property
from itertools import pairwise
from typing import Literal

from shapely import Polygon

from amber_spread.core.geometry.flat.outline import Cornered, Outline, Oval, Point, Regular, Round
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.kernel.paint import Paint

Corner = tuple[float, float, float]
QUARTER = math.tan(math.pi / 8)
RIGHT = math.pi / 2
OVAL_CORNERS = 240


class Mark(PlanPart):
    """A line drawn on a piece but not cut: where colours join, where a tab folds."""

    name: str
    x0: float
    y0: float
    x1: float
    y1: float


Stuff = Literal["sheet", "acetate", "paper"]
"""What a piece is cut from: rolled sheet or chocolate, or what carries it."""


class Band(PlanPart):
    """A stripe of one colour across a piece, by its own edge; `join` is where it meets the one before.

    `stripe` says which of the design's it is, from 1.
    """

    stripe: int
    colour: str | None
    hex: str
    corners: list[Corner]
    join: list[Point]


class Piece(PlanPart):
    """One flat piece, so many times over, with its measures by name, standing in the corner x, y >= 0; `medium` is what
    it is cut from where that is not the cover's.
    """

    name: str
    count: Figure
    sizes: dict[str, Figure]
    paint: Paint
    corners: list[Corner]
    marks: list[Mark] = []
    bands: list[Band] = []
    medium: str | None = None
    colour: str | None = None
    stuff: Stuff = "sheet"

    @cached_property
    def size(self) -> tuple[float, float]:
        """How wide and how high its edge is, mm."""
        return size_of(self.corners)


def piece_of(
    name: str, corners: list[Corner], paint: Paint, count: float = 1, colour: str | None = None, **sizes: Figure
) -> Piece:
    """A flat piece, so many times over, with its measures by name."""
    return Piece(
        name=name, count=carry_over("copies", count, "each"), sizes=sizes, paint=paint, colour=colour, corners=corners
    )


def paper_of(name: str, corners: list[Corner], marks: list[Mark], **sizes: Figure) -> Piece:
    """A template on paper with what is drawn on it."""
    return piece_of(name, corners, "paper", 1, None, **sizes).replace(marks=marks, stuff="paper")


def drawn_along(name: str, points: Iterable[Point]) -> list[Mark]:
    """A line through points as it is drawn on a piece; its name stands at its beginning."""
    found: list[Mark] = []
    for (x0, y0), (x1, y1) in pairwise(points):
        found.append(Mark(name="" if found else name, x0=x0, y0=y0, x1=x1, y1=y1))
    return found


class Laid(PlanPart):
    """Where one copy of a piece lies on a mat (counted from 0); turned, its length runs up the mat."""

    piece: str
    mat: int
    x: float
    y: float
    turned: bool


def rectangle(width_mm: float, height_mm: float) -> list[Corner]:
    """A rectangle of that width and height."""
    return [(0.0, 0.0, 0.0), (width_mm, 0.0, 0.0), (width_mm, height_mm, 0.0), (0.0, height_mm, 0.0)]


def circle(diameter_mm: float) -> list[Corner]:
    """A circle, as two half turns."""
    half = diameter_mm / 2
    return [(0.0, half, 1.0), (diameter_mm, half, 1.0)]


def sector(inner_mm: float, outer_mm: float, angle: float) -> list[Corner]:
    """A ring sector that opens upward, symmetrical about its middle; `angle` in radians, below a full turn."""
    return placed(sector_about(inner_mm, outer_mm, angle))


def sector_about(inner_mm: float, outer_mm: float, angle: float) -> list[Corner]:
    """The same ring sector about the common middle of its two arcs, at 0, 0."""
    half, bulge = angle / 2, math.tan(angle / 4)
    right_out = (outer_mm * math.sin(half), outer_mm * math.cos(half))
    right_in = (inner_mm * math.sin(half), inner_mm * math.cos(half))
    return [
        (right_out[0], right_out[1], bulge),
        (-right_out[0], right_out[1], 0.0),
        (-right_in[0], right_in[1], -bulge),
        (right_in[0], right_in[1], 0.0),
    ]


def trapezoid(foot_mm: float, top_mm: float, height_mm: float) -> list[Corner]:
    """A side of a tapered box: two level edges, as far apart as the slant is long."""
    wide = max(foot_mm, top_mm)
    low, high = (wide - foot_mm) / 2, (wide - top_mm) / 2
    return [(low, 0.0, 0.0), (low + foot_mm, 0.0, 0.0), (high + top_mm, height_mm, 0.0), (high, height_mm, 0.0)]


def corners_of(outline: Outline) -> list[Corner]:
    """The edge of any outline, its arcs as arcs where it has a closed form."""
    if isinstance(outline, Round):
        return circle(2 * outline.radius_mm)
    if isinstance(outline, Cornered) and outline.corner_mm:
        c, w, h = outline.corner_mm, outline.width_mm, outline.length_mm
        return [
            (c, 0.0, 0.0),
            (w - c, 0.0, QUARTER),
            (w, c, 0.0),
            (w, h - c, QUARTER),
            (w - c, h, 0.0),
            (c, h, QUARTER),
            (0.0, h - c, 0.0),
            (0.0, c, QUARTER),
        ]
    if isinstance(outline, Regular) and outline.corner_mm:
        turn = math.pi / outline.sides
        out = (outline.across_mm / 2 - outline.corner_mm) / math.cos(turn)
        found: list[Corner] = []
        for side in range(outline.sides):
            middle = turn + side * 2 * turn
            centre = (out * math.cos(middle), out * math.sin(middle))
            for angle, bulge in ((middle - turn, math.tan(turn / 2)), (middle + turn, 0.0)):
                x, y = centre[0] + outline.corner_mm * math.cos(angle), centre[1] + outline.corner_mm * math.sin(angle)
                found.append((x, y, bulge))
        return placed(found)
    if isinstance(outline, Oval):
        return placed([(x, y, 0.0) for x, y in outline.traced(OVAL_CORNERS)])
    return placed([(x, y, 0.0) for x, y in outline.points])


def edge_of(polygon: Polygon) -> list[Corner]:
    """The corners of an area that lies in the corner x, y >= 0."""
    return [(x, y, 0.0) for x, y in polygon.exterior.coords[:-1]]


def placed(corners: Sequence[Corner]) -> list[Corner]:
    """The corners moved so that the edge stands in the corner x, y >= 0."""
    left, bottom, _, _ = bounds(corners)
    return [(x - left, y - bottom, bulge) for x, y, bulge in corners]


def flattened(corners: Sequence[Corner], step: float = math.radians(3)) -> list[Point]:
    """The edge as points, its arcs in steps of that many radians."""
    points: list[Point] = []
    for (x0, y0, bulge), (x1, y1, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        points.append((x0, y0))
        if bulge == 0:
            continue
        centre, radius, start, turn = arc_of(x0, y0, x1, y1, bulge)
        steps = max(2, math.ceil(abs(turn) / step))
        points.extend(
            (
                centre[0] + radius * math.cos(start + turn * n / steps),
                centre[1] + radius * math.sin(start + turn * n / steps),
            )
            for n in range(1, steps)
        )
    return points


def arc_of(x0: float, y0: float, x1: float, y1: float, bulge: float) -> tuple[Point, float, float, float]:
    """The arc from one corner to the next: its centre, radius, angle at the start, and how far it turns (radians).

    Source: geometry: the sagitta is bulge x half the chord.
    """
    turn = 4 * math.atan(bulge)
    chord = math.hypot(x1 - x0, y1 - y0)
    radius = chord / 2 / abs(math.sin(turn / 2))
    off = (1 - bulge**2) / (4 * bulge)
    centre = ((x0 + x1) / 2 - (y1 - y0) * off, (y0 + y1) / 2 + (x1 - x0) * off)
    return centre, radius, math.atan2(y0 - centre[1], x0 - centre[0]), turn


def bounds(corners: Sequence[Corner]) -> tuple[float, float, float, float]:
    """The reach of an edge: left, bottom, right, top."""
    xs, ys = [x for x, _, _ in corners], [y for _, y, _ in corners]
    if not any(bulge for _, _, bulge in corners):
        return min(xs), min(ys), max(xs), max(ys)
    for (x0, y0, bulge), (x1, y1, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if bulge == 0:
            continue
        (cx, cy), radius, start, turn = arc_of(x0, y0, x1, y1, bulge)
        low, high = sorted((start, start + turn))
        for quarter in range(math.ceil(low / RIGHT), math.floor(high / RIGHT) + 1):
            xs.append(cx + radius * math.cos(quarter * RIGHT))
            ys.append(cy + radius * math.sin(quarter * RIGHT))
    return min(xs), min(ys), max(xs), max(ys)


def size_of(corners: Sequence[Corner]) -> tuple[float, float]:
    """How wide and how high the edge is, mm."""
    left, bottom, right, top = bounds(corners)
    return right - left, top - bottom


def area_of(corners: Sequence[Corner]) -> float:
    """The area inside the edge, mm²: the polygon's and its arcs' segments. Source: geometry (shoelace, segment)."""
    total = 0.0
    for (x0, y0, bulge), (x1, y1, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        total += (x0 * y1 - x1 * y0) / 2
        if bulge:
            _, radius, _, turn = arc_of(x0, y0, x1, y1, bulge)
            total += radius**2 * (turn - math.sin(turn)) / 2
    return abs(total)


def lay_out(pieces: dict[str, Piece], width_mm: float, length_mm: float, gap_mm: float = 10.0) -> list[Laid]:
    """Every copy of every piece on mats of that size: in rows, tallest first, each turned to lie along the mat where
    it can, else up it.

    A piece larger than the mat lies on one of its own, from its corner.
    """
    mat_mm = width_mm, length_mm
    copies = [
        (key, *_on_mat(*piece.size, mat_mm))
        for key, piece in pieces.items()
        if piece.stuff == "sheet"
        for _ in range(int(piece.count.value))
    ]
    found: list[Laid] = []
    mat, x, y, row, full = 0, 0.0, 0.0, 0.0, False
    for key, wide, high, turned in sorted(copies, key=lambda copy: -copy[2]):
        if x and x + wide > width_mm:
            x, y, row = 0.0, y + row + gap_mm, 0.0
        large = not fits(wide, high, mat_mm)
        if full or (x or y) and (large or y + high > length_mm):
            mat, x, y, row = mat + 1, 0.0, 0.0, 0.0
        found.append(Laid(piece=key, mat=mat, x=round(x, 2), y=round(y, 2), turned=turned))
        x, row, full = x + wide + gap_mm, max(row, high), large
    return found


def _on_mat(wide_mm: float, high_mm: float, mat: tuple[float, float]) -> tuple[float, float, bool]:
    """How wide and high a piece lies on a mat, and whether it is turned for that."""
    long, short = max(wide_mm, high_mm), min(wide_mm, high_mm)
    up = long > mat[0] and fits(long, short, mat)
    lies = (short, long) if up else (long, short)
    return *lies, lies != (wide_mm, high_mm)


def fits(width_mm: float, height_mm: float, mat: Iterable[float]) -> bool:
    """Whether a box lies on a mat of those two sides, either way round."""
    short, long = sorted((width_mm, height_mm))
    narrow, wide = sorted(mat)
    return short <= narrow + 1e-6 and long <= wide + 1e-6
