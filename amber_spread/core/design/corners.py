"""What is drawn by hand in a design: corners in mm."""

from typing import Annotated, ClassVar, Self

from pydantic import Field, model_validator

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, at

Coordinate = Annotated[float, limits.COORDINATE.field()]
Corners = Annotated[
    tuple[tuple[Coordinate, Coordinate], ...],
    Field(min_length=int(limits.OUTLINE_CORNERS.low), max_length=int(limits.OUTLINE_CORNERS.high)),
]
"""The corners of something drawn, in mm."""
Smooth = Annotated[
    tuple[Annotated[int, Field(ge=0, lt=int(limits.OUTLINE_CORNERS.high))], ...],
    Field(max_length=int(limits.OUTLINE_CORNERS.high)),
]
"""Which of the corners are smooth, by their numbers from 0: the line runs through those in a curve."""


class Smoothed(Frozen):
    """What is drawn by corners of which some are smooth: `curves` names each field of smooth corners, and the field of
    the corners that they are of.
    """

    curves: ClassVar[tuple[tuple[str, str], ...]] = (("smooth_corners", "points_mm"),)

    @model_validator(mode="after")
    def smooth_corners_are_drawn(self) -> Self:
        """Every smooth corner is one that is drawn."""
        for smooth, corners in self.curves:
            for index, corner in enumerate(getattr(self, smooth)):
                if corner >= len(getattr(self, corners) or ()):
                    raise at((smooth, index), "should be the number, from 0, of a corner that is drawn")
        return self
