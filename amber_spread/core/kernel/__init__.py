"""The ground: frozen types, bounds, units, figures and their names, and what a check is."""

from amber_spread.core.kernel.base import Frozen, PlanPart
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.figures import RULES, Figure, Quantity, Rule, carry_over, rule, total
from amber_spread.core.kernel.naming import named

__all__ = [
    "Check",
    "Figure",
    "Frozen",
    "PlanPart",
    "Quantity",
    "RULES",
    "Rule",
    "named",
    "rule",
    "carry_over",
    "total",
]
