"""Profiles: the line a tier's wall takes from its foot up to the axis, as straight lines and arcs, and that line
moved out.

A point of a profile is (out, up) in mm: `out` from the outline's edge (0 on it, negative inside), `up` from the
foot of the bare tier. A profile runs from the foot up and ends on the axis; it never turns down again.
"""

import math
from collections.abc import Callable, Sequence
from typing import Literal, NamedTuple

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel.caching import cached

Face = Literal["under", "wall", "top"]

Node = tuple[float, float, float]
LEVEL_MM = 1e-7
ARC_DRAWN = math.radians(4)
_NODES = {
    3: ((-math.sqrt(0.6), 5 / 9), (0.0, 8 / 9), (math.sqrt(0.6), 5 / 9)),
    4: tuple(
        (sign * math.sqrt(3 / 7 + term * math.sqrt(1.2)), (18 - outer * math.sqrt(30)) / 36)
        for sign in (-1, 1)
        for term, outer in ((2 / 7, 1), (-2 / 7, -1))
    ),
}
"""Gauss-Legendre nodes and weights on [-1, 1] (published: Abramowitz and Stegun, Handbook of Mathematical Functions,
25.4.30 and table 25.4)."""


class Line(NamedTuple):
    """A straight piece from (x0, z0) to (x1, z1)."""

    x0: float
    z0: float
    x1: float
    z1: float
    face: Face = "wall"

    @property
    def length(self) -> float:
        """Its length, mm."""
        return math.hypot(self.x1 - self.x0, self.z1 - self.z0)

    @property
    def level(self) -> bool:
        """Whether it lies flat, as a top or a coated foot does."""
        return abs(self.z1 - self.z0) < LEVEL_MM

    def moved(self, distance_mm: float) -> "Line":
        """The same line that far outward, at right angles to itself."""
        length = self.length
        across, up = (self.z1 - self.z0) / length * distance_mm, (self.x0 - self.x1) / length * distance_mm
        return Line(self.x0 + across, self.z0 + up, self.x1 + across, self.z1 + up, self.face)

    def out_at(self, up: float) -> float:
        """How far out it is at a height it reaches."""
        return self.x0 if self.z1 == self.z0 else self.x0 + (self.x1 - self.x0) * (up - self.z0) / (self.z1 - self.z0)

    def between(self, low: float, high: float) -> "Line":
        """The piece of it between two heights."""
        return Line(self.out_at(low), low, self.out_at(high), high, self.face)

    def drawn(self) -> Sequence[Point]:
        """Its ends."""
        return (self.x0, self.z0), (self.x1, self.z1)

    def along(self) -> Sequence[Node]:
        """Nodes to integrate over: (out, share of length, share of height), each share in mm."""
        x0, wide, length, rise = self.x0, self.x1 - self.x0, self.length, self.z1 - self.z0
        return [(x0 + wide * (node + 1) / 2, weight / 2 * length, weight / 2 * rise) for node, weight in _NODES[3]]


class Arc(NamedTuple):
    """A piece of a circle about (x, z), bulging outward, from one angle up to another (0 points out, pi/2 up)."""

    x: float
    z: float
    radius: float
    start: float
    end: float
    face: Face = "wall"

    @property
    def x0(self) -> float:
        """Where it begins, out."""
        return self.x + self.radius * math.cos(self.start)

    @property
    def z0(self) -> float:
        """Where it begins, up."""
        return self.z + self.radius * math.sin(self.start)

    @property
    def x1(self) -> float:
        """Where it ends, out."""
        return self.x + self.radius * math.cos(self.end)

    @property
    def z1(self) -> float:
        """Where it ends, up."""
        return self.z + self.radius * math.sin(self.end)

    def moved(self, distance_mm: float) -> "Arc":
        """The same arc that far outward."""
        return self._replace(radius=self.radius + distance_mm)

    def out_at(self, up: float) -> float:
        """How far out it is at a height it reaches."""
        return self.x + math.sqrt(max(0.0, self.radius**2 - (up - self.z) ** 2))

    def between(self, low: float, high: float) -> "Arc":
        """The piece of it between two heights."""
        return self._replace(start=self.angle(low), end=self.angle(high))

    def angle(self, up: float) -> float:
        """The angle at which it reaches a height."""
        return math.asin(max(-1.0, min(1.0, (up - self.z) / self.radius)))

    def drawn(self) -> Sequence[Point]:
        """Points along it close enough to look round."""
        return _drawn(self)

    def along(self) -> Sequence[Node]:
        """Nodes to integrate over, as for a line: panels of a sixth of a turn at most, four nodes each."""
        return _nodes(self)


# An arc is asked for these several times in a plan, and most arcs stay as they are from edit to edit.
@cached(1024)
def _drawn(arc: Arc) -> Sequence[Point]:
    steps = max(2, math.ceil((arc.end - arc.start) / ARC_DRAWN))
    turns = (arc.start + (arc.end - arc.start) * step / steps for step in range(steps + 1))
    return tuple((arc.x + arc.radius * math.cos(turn), arc.z + arc.radius * math.sin(turn)) for turn in turns)


@cached(1024)
def _nodes(arc: Arc) -> Sequence[Node]:
    panels = max(1, math.ceil((arc.end - arc.start) / 0.55))
    wide = (arc.end - arc.start) / panels
    found = []
    for panel in range(panels):
        for node, weight in _NODES[4]:
            turn = arc.start + wide * (panel + (node + 1) / 2)
            length = arc.radius * wide * weight / 2
            found.append((arc.x + arc.radius * math.cos(turn), length, length * math.cos(turn)))
    return tuple(found)


Stretch = Line | Arc
Profile = tuple[Stretch, ...]


def straight(half_mm: float, height_mm: float) -> Profile:
    """Straight up from the outline, with a flat top; `half_mm` is from the outline in to the axis."""
    return Line(0.0, 0.0, 0.0, height_mm), Line(0.0, height_mm, -half_mm, height_mm, "top")


def tapered(half_mm: float, height_mm: float, foot_in_mm: float, top_in_mm: float) -> Profile:
    """Straight but leaning: in by `foot_in_mm` at the foot and by `top_in_mm` at the top.

    Raises ValueError when the sides would cross on the way.
    """
    if max(foot_in_mm, top_in_mm) >= half_mm:
        raise ValueError("the taper crosses itself before it reaches its end")
    wall = Line(-foot_in_mm, 0.0, -top_in_mm, height_mm)
    return wall, Line(-top_in_mm, height_mm, -half_mm, height_mm, "top")


def bevelled(half_mm: float, height_mm: float, in_mm: float, down_mm: float) -> Profile:
    """Straight up, its rim cut off at a slant, so far in and so far down. Raises ValueError when it does not fit."""
    if in_mm >= half_mm or down_mm >= height_mm:
        raise ValueError("the bevel is larger than the tier")
    return (
        Line(0.0, 0.0, 0.0, height_mm - down_mm),
        Line(0.0, height_mm - down_mm, -in_mm, height_mm),
        Line(-in_mm, height_mm, -half_mm, height_mm, "top"),
    )


def domed(half_mm: float, height_mm: float, rise_mm: float) -> Profile:
    """Straight up to a cap that rises `rise_mm` over the whole width, the height of the cap included.

    The cap is part of a ball of radius (r² + rise²) / (2 rise) (geometry). Raises ValueError when it does not fit.
    """
    if rise_mm > half_mm:
        raise ValueError("the dome rises more than half its width, which would be more than half a ball")
    if rise_mm >= height_mm:
        raise ValueError("the dome is higher than the tier")
    ball = (half_mm**2 + rise_mm**2) / (2 * rise_mm)
    cap = Arc(-half_mm, height_mm - ball, ball, math.acos(min(1.0, half_mm / ball)), math.pi / 2, "top")
    return Line(0.0, 0.0, 0.0, height_mm - rise_mm), cap


def ball(half_mm: float, halves: int, foot_mm: float) -> Profile:
    """A ball of radius `half_mm`, or the upper half of one, on a flat of that width cut off its foot.

    Raises ValueError when the flat is as wide as the ball.
    """
    if halves == 1:
        return (Arc(-half_mm, 0.0, half_mm, 0.0, math.pi / 2),)
    if foot_mm >= 2 * half_mm:
        raise ValueError("the flat foot is as wide as the ball")
    start = -math.acos(foot_mm / 2 / half_mm)
    return (Arc(-half_mm, -half_mm * math.sin(start), half_mm, start, math.pi / 2),)


def turned(half_mm: float, height_mm: float, corners: Sequence[tuple[float, float]]) -> Profile:
    """A wall through corners given as (share of the height, share of the half width), straight between them.

    Raises ValueError when nothing is left of the width somewhere.
    """
    if any(wide <= 0 for _, wide in corners):
        raise ValueError("the wall meets the axis before it reaches the top")
    points = [((wide - 1) * half_mm, up * height_mm) for up, wide in corners]
    walls = tuple(Line(*low, *high) for low, high in zip(points, points[1:], strict=False))
    return *walls, Line(points[-1][0], height_mm, -half_mm, height_mm, "top")


def moved(profile: Profile, distance: Callable[[Face], float], foot_coated: bool) -> Profile:
    """The profile with each face moved outward by its distance, corners kept sharp (mitred).

    A foot that is not coated stays on its plane. Pieces that vanish in a hollow are left out, and their
    neighbours meet.
    A wall moved out past the dome or the round edge above it is joined to it by a ledge.
    """
    there = [piece for piece in profile if isinstance(piece, Arc) or piece.length > LEVEL_MM]
    pieces = _with_ledges([piece.moved(distance(piece.face)) for piece in there], there)
    while True:
        corners = [_meet(low, high) for low, high in zip(pieces, pieces[1:], strict=False)]
        first, last = pieces[0], pieces[-1]
        foot_z = profile[0].z0
        start = (first.x0, first.z0) if foot_coated else (first.out_at(foot_z), foot_z)
        ends = [start, *corners, _at_axis(last, profile[-1].x1)]
        joined = [_joined(piece, low, high) for piece, low, high in zip(pieces, ends, ends[1:], strict=False)]
        gone = [index for index, (old, new) in enumerate(zip(pieces, joined, strict=True)) if _turned_back(old, new)]
        if not gone or len(pieces) == 1:
            return tuple(joined)
        del pieces[gone[0]]


def _with_ledges(pieces: list[Stretch], before: list[Stretch]) -> list[Stretch]:
    """The moved pieces with a level one wherever a wall stands clear of the arc above it, or would meet it too low."""
    found: list[Stretch] = []
    for piece, was in zip(pieces, before, strict=True):
        below = found[-1] if found else None
        if isinstance(piece, Arc) and isinstance(below, Line) and not below.level:
            out, meets = below.out_at(piece.z0), _line_and_arc(below, piece, (piece.x0, piece.z0))
            if out > piece.x0 and (meets is None or meets[1] < was.z0 - LEVEL_MM):
                found.append(Line(out, piece.z0, piece.x0, piece.z0, "top"))
        found.append(piece)
    return found


def _at_axis(last: Stretch, axis_x: float) -> tuple[float, float]:
    """Where the last piece ends: on the axis, which a slanted wall left without a top reaches higher up."""
    if isinstance(last, Line) and not last.level and last.x1 != last.x0:
        return axis_x, last.z0 + (axis_x - last.x0) * (last.z1 - last.z0) / (last.x1 - last.x0)
    return axis_x, last.z1


def _joined(piece: Stretch, low: tuple[float, float], high: tuple[float, float]) -> Stretch:
    if isinstance(piece, Arc):
        return piece._replace(start=piece.angle(low[1]), end=piece.angle(high[1]))
    return Line(*low, *high, piece.face)


def _turned_back(old: Stretch, new: Stretch) -> bool:
    if isinstance(old, Arc) or isinstance(new, Arc):
        return isinstance(new, Arc) and new.end < new.start
    return (old.x1 - old.x0) * (new.x1 - new.x0) + (old.z1 - old.z0) * (new.z1 - new.z0) < 0


def _meet(low: Stretch, high: Stretch) -> tuple[float, float]:
    """Where two neighbouring pieces, carried on, meet; between their ends where they do not."""
    middle = ((low.x1 + high.x0) / 2, (low.z1 + high.z0) / 2)
    if isinstance(low, Line) and isinstance(high, Line):
        ax, az, bx, bz = low.x1 - low.x0, low.z1 - low.z0, high.x1 - high.x0, high.z1 - high.z0
        cross = ax * bz - az * bx
        if abs(cross) < 1e-9 * low.length * high.length:
            return middle
        step = ((high.x0 - low.x0) * bz - (high.z0 - low.z0) * bx) / cross
        return low.x0 + ax * step, low.z0 + az * step
    if isinstance(low, Line) and isinstance(high, Arc):
        return _line_and_arc(low, high, middle) or middle
    if isinstance(low, Arc) and isinstance(high, Line):
        return _line_and_arc(high, low, middle) or middle
    return middle


def _line_and_arc(line: Line, arc: Arc, near: tuple[float, float]) -> tuple[float, float] | None:
    """Where a line and a circle, both carried on, meet nearest to a point; None where they do not."""
    length = line.length
    ux, uz = (line.x1 - line.x0) / length, (line.z1 - line.z0) / length
    fx, fz = line.x0 - arc.x, line.z0 - arc.z
    half = fx * ux + fz * uz
    inside = half**2 - (fx**2 + fz**2 - arc.radius**2)
    if inside < 0:
        return None
    found = [
        (line.x0 + ux * step, line.z0 + uz * step) for step in (-half - math.sqrt(inside), -half + math.sqrt(inside))
    ]
    return min(found, key=lambda point: math.dist(point, near))


def rounded_rim(profile: Profile, radius_mm: float) -> Profile:
    """The profile with the corner where its wall meets a flat top rounded to `radius_mm`, where that fits."""
    if len(profile) < 2 or radius_mm <= 0:
        return profile
    wall, top = profile[-2], profile[-1]
    if not (isinstance(wall, Line) and isinstance(top, Line) and top.level):
        return profile
    lean = math.atan2(wall.x1 - wall.x0, wall.z1 - wall.z0)
    cut = radius_mm * math.tan((math.pi / 2 + lean) / 2)
    if cut >= wall.length or cut >= top.length:
        return profile
    low = (wall.x1 - cut * math.sin(lean), wall.z1 - cut * math.cos(lean))
    arc = Arc(top.x0 - cut, top.z0 - radius_mm, radius_mm, -lean, math.pi / 2, "top")
    below = Line(wall.x0, wall.z0, *low, wall.face)
    return *profile[:-2], below, arc, Line(top.x0 - cut, top.z0, top.x1, top.z1, "top")


@cached(64)
def smoothed(corners: tuple[tuple[float, float], ...], steps: int = 8) -> tuple[tuple[float, float], ...]:
    """The corners joined by a curve that goes through each and never swings past one, as so many steps between two.

    Source: published: F. N. Fritsch and J. Butland, A method for constructing local monotone piecewise cubic
    interpolants, SIAM J. Sci. Stat. Comput. 5, 1984 (as scipy's PchipInterpolator).
    """
    from scipy.interpolate import PchipInterpolator

    if len(corners) < 3:
        return corners
    ups = [up for up, _ in corners]
    fine = [low + (high - low) * step / steps for low, high in zip(ups, ups[1:], strict=False) for step in range(steps)]
    fine.append(ups[-1])
    curve = PchipInterpolator(ups, [out for _, out in corners])
    return tuple((up, float(out)) for up, out in zip(fine, curve(fine), strict=True))
