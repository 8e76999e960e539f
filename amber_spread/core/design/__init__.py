"""What is decided: shapes and finishes, the design of a cake, and how this kitchen works where that does not say."""

from amber_spread.core.design.design import Design, Tier
from amber_spread.core.design.practice import Practice

__all__ = ["Design", "Practice", "Tier"]
