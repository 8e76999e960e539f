"""The whole cake: tiers on each other, tins and batter, what is asked of the kit, the half-section, the checks."""

from amber_spread.core.cake.bakes import CarvedBake
from amber_spread.core.cake.batter import BatterPlan
from amber_spread.core.cake.ghosts import seen_round
from amber_spread.core.cake.oven import Oven, oven_loads
from amber_spread.core.cake.portions import volume_for
from amber_spread.core.cake.section import Section
from amber_spread.core.cake.stack import StackPlan, TierStack, plan_stack
from amber_spread.core.cake.standing import Standing, stand
from amber_spread.core.cake.task_kinds import STACK_TASKS

__all__ = [
    "BatterPlan",
    "CarvedBake",
    "Oven",
    "STACK_TASKS",
    "Section",
    "StackPlan",
    "Standing",
    "TierStack",
    "oven_loads",
    "plan_stack",
    "seen_round",
    "stand",
    "volume_for",
]
