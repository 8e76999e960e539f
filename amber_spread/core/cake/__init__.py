"""The whole cake: tiers on each other, tins and batter, what is asked of the kit, the half-section, the checks."""

from amber_spread.core.cake.bakes import CarvedBake
from amber_spread.core.cake.batter import BatterPlan
from amber_spread.core.cake.checks import forget_checks
from amber_spread.core.cake.ghosts import seen_round
from amber_spread.core.cake.portions import volume_for
from amber_spread.core.cake.section import Section
from amber_spread.core.cake.stack import StackPlan, TierStack, forget_stacks, plan_stack
from amber_spread.core.cake.standing import Standing, stand
from amber_spread.core.cake.trays import forget_bakes

__all__ = [
    "BatterPlan",
    "CarvedBake",
    "Section",
    "StackPlan",
    "Standing",
    "TierStack",
    "forget_bakes",
    "forget_checks",
    "forget_stacks",
    "plan_stack",
    "seen_round",
    "stand",
    "volume_for",
]
