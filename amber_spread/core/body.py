"""A body: an outline carried up to a height. Its volume, wall, top, and the envelope after a coat."""

from dataclasses import dataclass

from amber_spread.core.outline import Outline

MM3_PER_ML = 1000.0


@dataclass(frozen=True, slots=True)
class Straight:
    """An outline raised straight up: a drum, a box. Lengths in mm, areas in mm², volumes in ml."""

    outline: Outline
    height_mm: float

    @property
    def width_mm(self) -> float:
        """The width across, in the plane of the half-section."""
        return 2 * self.outline.half_width_mm

    @property
    def length_mm(self) -> float:
        """The length across, at right angles to the half-section."""
        return 2 * self.outline.half_length_mm

    @property
    def girth_mm(self) -> float:
        """The length once round the wall; the same at every height."""
        return self.outline.perimeter_mm

    @property
    def top_area_mm2(self) -> float:
        """The area of the top face."""
        return self.outline.area_mm2

    @property
    def wall_area_mm2(self) -> float:
        """The area of the wall: girth x height."""
        return self.girth_mm * self.height_mm

    @property
    def volume_ml(self) -> float:
        """The volume: top area x height."""
        return self.top_area_mm2 * self.height_mm / MM3_PER_ML

    def envelope(self, side_mm: float, top_mm: float) -> "Straight":
        """The body after a sharp (mitred) coat of `side_mm` on the wall and `top_mm` on the top.

        The outline grows by the side thickness and the height by the top thickness; the foot stays
        where it is, uncoated. Source: definition. Raises ValueError when nothing would be left.
        """
        return Straight(self.outline.offset(side_mm), self.height_mm + top_mm)


@dataclass(frozen=True, slots=True)
class Envelopes:
    """The nested bodies of one tier: trimmed and filled, crumb-coated, coated, covered."""

    bare: Straight
    crumbed: Straight
    coated: Straight
    covered: Straight
