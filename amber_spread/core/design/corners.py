"""What is drawn by hand in a design: corners in mm."""

from typing import Annotated

from pydantic import Field

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import at

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


def smooth_there(field: str, smooth: Smooth, corners: Corners | None) -> None:
    """Hold smooth corners to those that are drawn. Raises ValueError at the field, where one of them is none."""
    for index, at_corner in enumerate(smooth):
        if at_corner >= len(corners or ()):
            raise at((field, index), "should be the number, from 0, of a corner that is drawn")
