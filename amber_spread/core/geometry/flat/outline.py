"""Plan outlines of a tier, seen from above: exact area and perimeter, and the outline grown outward.

An outline is grown sharp: a sharp corner stays sharp (mitred), a round one keeps its centre. Lengths
are in mm, areas in mm². Every outline stands on the axis, with its `across` left to right.
"""

import math
from dataclasses import dataclass
from typing import Protocol

from amber_spread.core.kernel.figures import Figure, rule

Point = tuple[float, float]
DRAWN_STEP = math.radians(6)
DRAWN_POINTS = 60


class Outline(Protocol):
    """What every outline can say of itself."""

    @property
    def area_mm2(self) -> float:
        """The area enclosed."""

    @property
    def perimeter_mm(self) -> float:
        """The length once round."""

    @property
    def half_width_mm(self) -> float:
        """From the axis to the side, left to right, in the plane of the half-section."""

    @property
    def half_length_mm(self) -> float:
        """From the axis to the front, at right angles to the half-section."""

    @property
    def reach_mm(self) -> float:
        """From the axis to the farthest point."""

    @property
    def inner_mm(self) -> float:
        """From the axis to the nearest point of the edge."""

    @property
    def curved(self) -> bool:
        """Whether the wall is seen as round rather than as flat faces."""

    @property
    def points(self) -> list[Point]:
        """The outline as corners to draw."""

    @property
    def edges_mm(self) -> list[float]:
        """How far from the axis, left and right, upright edges are seen from the front."""

    def __hash__(self) -> int:
        """Outlines do not change, so what is drawn of one can be kept."""

    def area_figure(self) -> Figure:
        """The area with its rule."""

    def offset(self, distance_mm: float, rounded: bool = False) -> "Outline":
        """The outline grown outward by `distance_mm` all round, sharp corners kept sharp unless `rounded`.

        Raises ValueError when nothing is left.
        """

    def stretched(self, across: float, along: float) -> "Outline":
        """The outline so many times as wide and as long; one that has to keep its form takes the greater of the two."""


@rule(
    "outline.area.round",
    unit="mm2",
    formula="pi / 4 * across**2",
    words="The area of a circle that wide.",
)
def round_area(across_mm: float) -> float:
    """Area of a circle, mm²: pi/4 d². Source: geometry.

    >>> round(round_area(250), 2)
    49087.39
    """
    return math.pi / 4 * across_mm**2


@rule(
    "outline.area.cornered",
    unit="mm2",
    formula="across * length - (4 - pi) * corner**2",
    words="Across times length, less what four rounded corners leave out.",
)
def cornered_area(across_mm: float, length_mm: float, corner_mm: float) -> float:
    """Area of a rectangle with rounded corners, mm²: w l - (4 - pi) c². Source: geometry.

    >>> cornered_area(200, 200, 0)
    40000.0
    """
    return across_mm * length_mm - (4 - math.pi) * corner_mm**2


@rule(
    "outline.area.regular",
    unit="mm2",
    formula="sides * (tan(pi / sides) * (across / 2)**2 - (tan(pi / sides) - pi / sides) * corner**2)",
    words="Equal triangles from the middle to each side, less what the rounded corners leave out.",
)
def regular_area(across_mm: float, sides_count: float, corner_mm: float) -> float:
    """Area of a regular polygon measured across its flats, corners rounded, mm². Source: geometry.

    >>> round(regular_area(123, 6, 0), 2)
    13102.1
    """
    turn = math.pi / sides_count
    return sides_count * (math.tan(turn) * (across_mm / 2) ** 2 - (math.tan(turn) - turn) * corner_mm**2)


@rule(
    "outline.area.oval",
    unit="mm2",
    formula="pi / 4 * across * length + girth * grown + pi * grown**2",
    words="The tin's ellipse, and the band by which it has grown, or shrunk, evenly all round.",
)
def oval_area(across_mm: float, length_mm: float, girth_mm: float, grown_mm: float) -> float:
    """Area of an ellipse grown evenly by g, mm²: pi/4 w l + P g + pi g². Source: geometry (Steiner's formula).

    >>> round(oval_area(204, 260, 731.5, -2), 2)
    40207.08
    """
    return math.pi / 4 * across_mm * length_mm + girth_mm * grown_mm + math.pi * grown_mm**2


@dataclass(frozen=True, slots=True)
class Round:
    """A circle of the given radius."""

    radius_mm: float

    @property
    def area_mm2(self) -> float:
        return math.pi * self.radius_mm**2

    @property
    def perimeter_mm(self) -> float:
        return 2 * math.pi * self.radius_mm

    @property
    def half_width_mm(self) -> float:
        return self.radius_mm

    @property
    def half_length_mm(self) -> float:
        return self.radius_mm

    @property
    def reach_mm(self) -> float:
        return self.radius_mm

    @property
    def inner_mm(self) -> float:
        return self.radius_mm

    @property
    def curved(self) -> bool:
        return True

    @property
    def points(self) -> list[Point]:
        return [(self.radius_mm * x, self.radius_mm * y) for x, y in UNIT_CIRCLE]

    @property
    def edges_mm(self) -> list[float]:
        return []

    def area_figure(self) -> Figure:
        return round_area.figure(2 * self.radius_mm)

    def offset(self, distance_mm: float, rounded: bool = False) -> "Round":
        return Round(_left(self.radius_mm + distance_mm))

    def stretched(self, across: float, along: float) -> "Round":
        return Round(self.radius_mm * max(across, along))


@dataclass(frozen=True, slots=True)
class Cornered:
    """A rectangle, its corners sharp (0) or of a radius."""

    width_mm: float
    length_mm: float
    corner_mm: float = 0.0

    def __post_init__(self) -> None:
        if self.corner_mm > min(self.width_mm, self.length_mm) / 2:
            raise ValueError("the corners are rounder than half the shorter side")

    @property
    def area_mm2(self) -> float:
        return cornered_area(self.width_mm, self.length_mm, self.corner_mm)

    @property
    def perimeter_mm(self) -> float:
        return 2 * (self.width_mm + self.length_mm) - (8 - 2 * math.pi) * self.corner_mm

    @property
    def half_width_mm(self) -> float:
        return self.width_mm / 2

    @property
    def half_length_mm(self) -> float:
        return self.length_mm / 2

    @property
    def reach_mm(self) -> float:
        inset = self.corner_mm
        return math.hypot(self.half_width_mm - inset, self.half_length_mm - inset) + inset

    @property
    def inner_mm(self) -> float:
        return min(self.half_width_mm, self.half_length_mm)

    @property
    def curved(self) -> bool:
        return False

    @property
    def points(self) -> list[Point]:
        x, y, c = self.half_width_mm - self.corner_mm, self.half_length_mm - self.corner_mm, self.corner_mm
        centres = [(x, y), (-x, y), (-x, -y), (x, -y)]
        return [
            point
            for quarter, centre in enumerate(centres)
            for point in arc(centre, c, quarter * math.pi / 2, (quarter + 1) * math.pi / 2, DRAWN_STEP)
        ]

    @property
    def edges_mm(self) -> list[float]:
        return []

    def area_figure(self) -> Figure:
        return cornered_area.figure(self.width_mm, self.length_mm, self.corner_mm)

    def offset(self, distance_mm: float, rounded: bool = False) -> "Cornered":
        corner = max(0.0, self.corner_mm + distance_mm) if self.corner_mm or rounded else 0.0
        return Cornered(_left(self.width_mm + 2 * distance_mm), _left(self.length_mm + 2 * distance_mm), corner)

    def stretched(self, across: float, along: float) -> "Cornered":
        return Cornered(self.width_mm * across, self.length_mm * along, self.corner_mm * min(across, along))


@dataclass(frozen=True, slots=True)
class Regular:
    """A regular polygon of an even number of sides, measured across its flats, corners sharp or of a radius."""

    across_mm: float
    sides: int
    corner_mm: float = 0.0

    def __post_init__(self) -> None:
        if self.corner_mm > self.across_mm / 2:
            raise ValueError("the corners are rounder than half the width across")

    @property
    def area_mm2(self) -> float:
        return regular_area(self.across_mm, self.sides, self.corner_mm)

    @property
    def perimeter_mm(self) -> float:
        turn = math.pi / self.sides
        return 2 * self.sides * (self.across_mm / 2 * math.tan(turn) - self.corner_mm * (math.tan(turn) - turn))

    @property
    def half_width_mm(self) -> float:
        return self.across_mm / 2

    @property
    def half_length_mm(self) -> float:
        return max(y for _, y in self.points)

    @property
    def reach_mm(self) -> float:
        return (self.across_mm / 2 - self.corner_mm) / math.cos(math.pi / self.sides) + self.corner_mm

    @property
    def inner_mm(self) -> float:
        return self.across_mm / 2

    @property
    def curved(self) -> bool:
        return False

    @property
    def points(self) -> list[Point]:
        turn = math.pi / self.sides
        out = (self.across_mm / 2 - self.corner_mm) / math.cos(turn)
        found: list[Point] = []
        for side in range(self.sides):
            middle = turn + side * 2 * turn
            centre = (out * math.cos(middle), out * math.sin(middle))
            found.extend(arc(centre, self.corner_mm, middle - turn, middle + turn, DRAWN_STEP))
        return found

    @property
    def edges_mm(self) -> list[float]:
        if self.corner_mm:
            return []
        seen = {round(abs(x), 6) for x, _ in self.points}
        return sorted(x for x in seen if x < self.half_width_mm - 1e-3)

    def area_figure(self) -> Figure:
        return regular_area.figure(self.across_mm, self.sides, self.corner_mm)

    def offset(self, distance_mm: float, rounded: bool = False) -> "Regular":
        corner = max(0.0, self.corner_mm + distance_mm) if self.corner_mm or rounded else 0.0
        return Regular(_left(self.across_mm + 2 * distance_mm), self.sides, corner)

    def stretched(self, across: float, along: float) -> "Regular":
        return Regular(self.across_mm * max(across, along), self.sides, self.corner_mm * max(across, along))


@dataclass(frozen=True, slots=True)
class Oval:
    """An ellipse grown evenly all round by `grown_mm` (shrunk below 0): no longer an ellipse, but exact still."""

    width_mm: float
    length_mm: float
    grown_mm: float = 0.0

    def __post_init__(self) -> None:
        short, long = sorted((self.width_mm / 2, self.length_mm / 2))
        if short**2 / long + self.grown_mm <= 0:
            raise ValueError("the oval is too pointed to shrink so far")

    @property
    def area_mm2(self) -> float:
        return oval_area(self.width_mm, self.length_mm, self._girth_mm, self.grown_mm)

    @property
    def perimeter_mm(self) -> float:
        return self._girth_mm + 2 * math.pi * self.grown_mm

    @property
    def _girth_mm(self) -> float:
        return ellipse_perimeter(self.width_mm / 2, self.length_mm / 2)

    @property
    def half_width_mm(self) -> float:
        return self.width_mm / 2 + self.grown_mm

    @property
    def half_length_mm(self) -> float:
        return self.length_mm / 2 + self.grown_mm

    @property
    def reach_mm(self) -> float:
        return max(self.half_width_mm, self.half_length_mm)

    @property
    def inner_mm(self) -> float:
        return min(self.half_width_mm, self.half_length_mm)

    @property
    def curved(self) -> bool:
        return True

    @property
    def points(self) -> list[Point]:
        return self.traced(DRAWN_POINTS)

    def traced(self, corners: int) -> list[Point]:
        """So many points along the edge."""
        a, b = self.width_mm / 2, self.length_mm / 2
        found = []
        for index in range(corners):
            turn = 2 * math.pi * index / corners
            cos, sin = math.cos(turn), math.sin(turn)
            steep = math.hypot(b * cos, a * sin)
            found.append((a * cos + self.grown_mm * b * cos / steep, b * sin + self.grown_mm * a * sin / steep))
        return found

    @property
    def edges_mm(self) -> list[float]:
        return []

    def area_figure(self) -> Figure:
        return oval_area.figure(self.width_mm, self.length_mm, self._girth_mm, self.grown_mm)

    def offset(self, distance_mm: float, rounded: bool = False) -> "Oval":
        return Oval(self.width_mm, self.length_mm, self.grown_mm + distance_mm)

    def stretched(self, across: float, along: float) -> "Oval":
        wide, long = 2 * self.half_width_mm * across, 2 * self.half_length_mm * along
        return Oval(wide - 2 * self.grown_mm, long - 2 * self.grown_mm, self.grown_mm)


def ellipse_perimeter(a_mm: float, b_mm: float) -> float:
    """Length once round an ellipse of half-axes a and b, mm.

    Exact to rounding by the arithmetic-geometric mean: 2 pi (a0² - sum 2^(n-1) c_n²) / agm(a, b), with
    c_0² = a² - b² and c_n = (a_(n-1) - b_(n-1)) / 2. Source: published: Abramowitz and Stegun, Handbook of
    Mathematical Functions, 17.6 (complete elliptic integral of the second kind by the AGM).
    """
    long, short = max(a_mm, b_mm), min(a_mm, b_mm)
    rest, weight, total = long**2 - short**2, 0.5, long**2
    while rest > 1e-14 * long**2:
        total -= weight * rest
        long, short, rest = (long + short) / 2, math.sqrt(long * short), ((long - short) / 2) ** 2
        weight *= 2
    return 2 * math.pi * total / long


def _left(size_mm: float) -> float:
    if size_mm <= 0:
        raise ValueError("nothing is left of the outline")
    return size_mm


def arc(centre: Point, radius: float, start: float, end: float, step: float) -> list[Point]:
    """Points along an arc, both ends among them; a single corner where the radius is 0."""
    if radius == 0:
        return [centre]
    steps = max(2, round((end - start) / step))
    turns = (start + (end - start) * index / steps for index in range(steps + 1))
    return [(centre[0] + radius * math.cos(turn), centre[1] + radius * math.sin(turn)) for turn in turns]


def area_at(outline: Outline, distance_mm: float) -> float:
    """The area of the outline grown by `distance_mm`, mm²; 0 where nothing is left of it."""
    try:
        return outline.offset(distance_mm).area_mm2
    except ValueError:
        return 0.0


def perimeter_at(outline: Outline, distance_mm: float) -> float:
    """The length once round the outline grown by `distance_mm`, mm; 0 where nothing is left of it."""
    try:
        return outline.offset(distance_mm).perimeter_mm
    except ValueError:
        return 0.0


UNIT_CIRCLE = arc((0, 0), 1.0, 0, 2 * math.pi, DRAWN_STEP)[:-1]
