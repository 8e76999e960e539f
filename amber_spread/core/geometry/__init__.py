"""Outlines seen from above, the bodies they make, flat pieces, and how far a sheet must reach over a body."""

from amber_spread.core.geometry.body import Body, Envelopes
from amber_spread.core.geometry.flat import Corner, Laid, Mark, Piece
from amber_spread.core.geometry.outline import Outline, Point

__all__ = ["Body", "Corner", "Envelopes", "Laid", "Mark", "Outline", "Piece", "Point"]
