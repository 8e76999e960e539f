"""What a tier is from above: its shape."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from amber_spread.core.design.corners import Corners, Smooth, Smoothed
from amber_spread.core.geometry.flat.curved import curved
from amber_spread.core.geometry.flat.outline import Cornered, Outline, Oval, Regular, Round
from amber_spread.core.geometry.flat.traced import free, heart, petal
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen

Length = Annotated[float, limits.TIN_LENGTH.field()]
CornerRadius = Annotated[float, limits.CORNER_RADIUS.field()]


class RoundShape(Frozen):
    """A round tin."""

    kind: Literal["round"] = "round"

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return Round(across_mm / 2)


class SquareShape(Frozen):
    """A square tin, its corners sharp or of a radius."""

    kind: Literal["square"] = "square"
    corner_mm: CornerRadius = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Cornered(across_mm, across_mm, self.corner_mm)


class RectangleShape(Frozen):
    """A rectangular or sheet tin: `length_mm` is at right angles to the width across."""

    kind: Literal["rectangle"] = "rectangle"
    length_mm: Length
    corner_mm: CornerRadius = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Cornered(across_mm, self.length_mm, self.corner_mm)


class PolygonShape(Frozen):
    """A hexagonal tin and its like, measured across the flats."""

    kind: Literal["polygon"] = "polygon"
    sides: Literal[6, 8, 10, 12] = 6
    corner_mm: CornerRadius = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Regular(across_mm, self.sides, self.corner_mm)


class OvalShape(Frozen):
    """An oval tin, an ellipse."""

    kind: Literal["oval"] = "oval"
    length_mm: Length

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return Oval(across_mm, self.length_mm)


class HeartShape(Frozen):
    """A heart tin."""

    kind: Literal["heart"] = "heart"

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return heart(across_mm)


class PetalShape(Frozen):
    """A petal tin: a ring of half circles."""

    kind: Literal["petal"] = "petal"
    petals: Literal[6, 8, 10, 12] = 8

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return petal(across_mm, self.petals)


class FreeShape(Smoothed):
    """An outline of one's own, as corners in mm, some of them smooth, scaled to the tin's width across.

    Its own width is its true size.
    """

    drawn: ClassVar[tuple[str, ...]] = ("points_mm", "smooth_corners")
    """The fields that are drawn, and so stand in no line."""

    kind: Literal["free"] = "free"
    points_mm: Corners
    smooth_corners: Smooth = ()

    @property
    def line_mm(self) -> Corners:
        """Its edge, in a curve through the corners that are smooth."""
        return curved(self.points_mm, self.smooth_corners)

    def outline(self, across_mm: float) -> Outline:
        """The outline from above, mm across. Raises ValueError when it crosses itself or encloses nothing."""
        return free(across_mm, self.line_mm)


Shape = Annotated[
    RoundShape | SquareShape | RectangleShape | PolygonShape | OvalShape | HeartShape | PetalShape | FreeShape,
    Field(discriminator="kind"),
]
