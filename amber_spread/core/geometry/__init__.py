"""Outlines seen from above, the bodies they make, flat pieces, and how far a sheet must reach over a body."""

from amber_spread.core.geometry.bodies.body import Body, Envelopes
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.geometry.flat.pieces import Corner, Laid, Mark, Piece

__all__ = ["Body", "Corner", "Envelopes", "Laid", "Mark", "Outline", "Piece", "Point"]
