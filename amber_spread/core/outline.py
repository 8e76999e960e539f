"""Plan outlines of a tier, seen from above: exact area and perimeter, and the outline grown outward."""

import math
from dataclasses import dataclass
from typing import Protocol


class Outline(Protocol):
    """What every outline can say of itself. Lengths in mm, areas in mm²."""

    @property
    def area_mm2(self) -> float:
        """The area enclosed."""

    @property
    def perimeter_mm(self) -> float:
        """The length once round."""

    @property
    def half_width_mm(self) -> float:
        """From the axis to the outline, in the plane of the half-section."""

    def offset(self, distance_mm: float) -> "Outline":
        """The outline grown outward by `distance_mm` all round. Raises ValueError when nothing is left."""


@dataclass(frozen=True, slots=True)
class Round:
    """A circle of the given radius: area pi r², perimeter 2 pi r."""

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

    def offset(self, distance_mm: float) -> "Round":
        radius = self.radius_mm + distance_mm
        if radius <= 0:
            raise ValueError(f"a circle of radius {self.radius_mm} mm cannot shrink by {-distance_mm} mm")
        return Round(radius)
