"""Lengths of the demo, which works in inches."""

from amber_spread.core.kernel.units import MM_PER_INCH


def inches(value: float) -> float:
    """Millimetres, rounded to a hundredth."""
    return round(value * MM_PER_INCH, 2)
