"""The ground: frozen types, bounds, units, figures and their names, and what a check is."""

from amber_spread.core.kernel.base import Frozen, Made
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.figures import RULES, Figure, Quantity, Rule, rule, same, total
from amber_spread.core.kernel.naming import named

__all__ = [
    "Check",
    "Figure",
    "Frozen",
    "Made",
    "Quantity",
    "RULES",
    "Rule",
    "named",
    "rule",
    "same",
    "total",
]
