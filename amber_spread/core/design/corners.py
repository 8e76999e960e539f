"""What is drawn by hand in a design: corners in mm."""

from typing import Annotated

from pydantic import Field

from amber_spread.core.kernel import limits

Coordinate = Annotated[float, limits.COORDINATE.field()]
Corners = Annotated[
    tuple[tuple[Coordinate, Coordinate], ...],
    Field(min_length=int(limits.OUTLINE_CORNERS.low), max_length=int(limits.OUTLINE_CORNERS.high)),
]
"""The corners of something drawn, in mm."""
