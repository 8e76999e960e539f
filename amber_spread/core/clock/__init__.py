"""When each step of an order is done: its minutes of work, its waits, and the hour of each, counted back from the due
hour.
"""

from amber_spread.core.clock.backwards import PinnedBlock, PinnedHours
from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.changes import Changes, changes_of
from amber_spread.core.clock.clock import FIRST_YEAR, LAST_YEAR, Clock, TimedStep, clock_of, due_of
from amber_spread.core.clock.clock_checks import CAUTION
from amber_spread.core.clock.gives import Gives, Variant, gives_of, more_places
from amber_spread.core.clock.hours import Span, minute_of
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.pace import Pace, WrongPace, pace_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import NOTHING_AROUND, Around
from amber_spread.core.clock.progress import Mark, Progress
from amber_spread.core.clock.step_hours import Noted
from amber_spread.core.clock.step_kinds import STEP_KINDS
from amber_spread.core.clock.steps import Step
from amber_spread.core.clock.week import (
    NextSteps,
    OrderWork,
    Week,
    WeekOrder,
    WeekStep,
    around,
    in_turn,
    next_steps,
    week_of,
)
from amber_spread.core.clock.work import Work, work_of

__all__ = [
    "Clock",
    "Around",
    "CAUTION",
    "Changes",
    "FIRST_YEAR",
    "Gives",
    "Variant",
    "gives_of",
    "more_places",
    "PinnedBlock",
    "PinnedHours",
    "Kitchen",
    "LAST_YEAR",
    "Mark",
    "NOTHING_AROUND",
    "NextSteps",
    "Noted",
    "OrderWork",
    "Pace",
    "Places",
    "Progress",
    "STARTING_KITCHEN",
    "STEP_KINDS",
    "Span",
    "Step",
    "TimedStep",
    "Week",
    "WeekOrder",
    "WeekStep",
    "Work",
    "WrongPace",
    "around",
    "changes_of",
    "clock_of",
    "due_of",
    "in_turn",
    "minute_of",
    "next_steps",
    "pace_of",
    "steps_of",
    "week_of",
    "work_of",
]
