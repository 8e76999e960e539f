"""When each step of an order is done: its minutes of work, its waits, and the hour of each, counted back from the due
hour.
"""

from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.clock import Clock, TimedStep, clock_of
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.pace import Pace, WrongPace, pace_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.step_kinds import STEP_KINDS
from amber_spread.core.clock.steps import Step

__all__ = [
    "Clock",
    "Kitchen",
    "Pace",
    "Places",
    "STARTING_KITCHEN",
    "STEP_KINDS",
    "Step",
    "TimedStep",
    "WrongPace",
    "clock_of",
    "pace_of",
    "steps_of",
]
