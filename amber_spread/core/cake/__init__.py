"""The whole cake: tiers on each other, tins and batter, what is asked of the kit, the half-section, the checks."""

from amber_spread.core.cake.batter import BatterPlan, plan_batter
from amber_spread.core.cake.checks import checks_of_cake, checks_of_tier
from amber_spread.core.cake.needs import needs_of_cake, needs_of_tier
from amber_spread.core.cake.section import Section, draw_section
from amber_spread.core.cake.stack import StackPlan, TierStack, plan_stack

__all__ = [
    "BatterPlan",
    "Section",
    "StackPlan",
    "TierStack",
    "checks_of_cake",
    "checks_of_tier",
    "draw_section",
    "needs_of_cake",
    "needs_of_tier",
    "plan_batter",
    "plan_stack",
]
