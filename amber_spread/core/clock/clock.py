"""The clock of one order: its steps, each with its hour, its minutes, and the sign that a wait is over."""

import math
from collections.abc import Sequence
from datetime import datetime, timedelta

from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.clock_checks import CAUTION, checks_of, pending_of
from amber_spread.core.clock.heat import Firming
from amber_spread.core.clock.hours import moment_of
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.placing import NOTHING_AROUND, Around, placed_around
from amber_spread.core.clock.step_hours import Scheduled, StepHours, scheduled
from amber_spread.core.clock.steps import Step, work_by_tier
from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check, Said
from amber_spread.core.kernel.figures import Figure, carry_over, of_parts, parts_rule
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Task
from amber_spread.core.plan import Plan

FIRST_YEAR, LAST_YEAR = 1971, 2200
"""The years an order can be counted back in."""
_GIVE_OR_TAKE = parts_rule(
    "clock.give_or_take",
    "How far the work may run over or under, two times out of three: the square root of the sum of what each step may, "
    "squared.",
    "sqrt(sum of squares)",
    "from memory",
)


class TimedStep(StepHours):
    """A step of one order: work with its `hands`-on minutes, or a wait with a `sign` that it is over, which follows
    “done when”. `slack` is by how much it may be late before anything else has to move, `tasks` are the tasks of the
    plan that are done in it.
    """

    kind: str
    said: Said
    hands: Figure | None
    wait: Figure | None
    sign: str
    firming: Firming | None
    slack: Figure
    tasks: list[Task]


class Clock(PlanPart):
    """When to do what for an order: from its first step to the hour it must be `ready`, some time before it is due;
    `from_now` says that it is planned from now even if nothing of it is marked.
    """

    due: datetime
    ready: datetime
    begins: datetime
    hands_on: Figure
    give_or_take: Figure
    steps: dict[str, TimedStep]
    checks: list[Check]
    from_now: bool


def clock_of(
    document: Document,
    plan: Plan,
    now: datetime | None = None,
    kitchen: Kitchen = STARTING_KITCHEN,
    around: Around = NOTHING_AROUND,
) -> Clock:
    """The clock of an order by its plan: every step at its pinned hour, else as late as possible, among the other
    orders of a kitchen. `now` is the hour on the wall, to see what is late. Raises FileError if the order has no due
    hour, or one too far off.
    """
    due, ready, places = due_of(document), ready_of(document), kitchen.places
    work = steps_of(document, plan, kitchen.made_of)
    placed = placed_around(work, ready, places, around)
    found = Clock(
        due=due,
        ready=ready,
        begins=moment_of(placed.first),
        hands_on=work_by_tier(work, {number: tier.name for number, tier in enumerate(plan.tiers, 1)}),
        give_or_take=_give_or_take(work),
        steps={one.step.id: _timed(one) for one in scheduled(placed, places)},
        checks=[*checks_of(placed, due, now, places), *pending_of(around.pending), CAUTION],
        from_now=placed.from_now,
    )
    return named(found, "clock")


def due_of(document: Document) -> datetime:
    """The due hour of an order. Raises FileError if it has none, or one too far off."""
    if document.due is None:
        raise FileError([complaint_at(("due",), "is not set: set the day and hour this order is due")])
    if not FIRST_YEAR <= document.due.year <= LAST_YEAR:
        raise FileError([complaint_at(("due",), f"should be a day from {FIRST_YEAR} to {LAST_YEAR}")])
    return document.due


def ready_of(document: Document) -> datetime:
    """The hour by which an order must be ready, some time before it is due. Raises what `due_of` does."""
    return due_of(document) - timedelta(minutes=round(document.practice.ready_before_min))


def _timed(one: Scheduled) -> TimedStep:
    step = one.step
    return TimedStep(
        **one.hours,
        kind=step.row.kind,
        said=step.said,
        hands=step.hands,
        wait=step.wait,
        sign=step.waits.sign if step.waits is not None else "",
        firming=step.firming,
        slack=carry_over("free time after it", one.timing.slack_min, "min", "down"),
        tasks=list(step.tasks),
    )


def _give_or_take(steps: Sequence[Step]) -> Figure:
    """How far all the work may run over, min: sqrt(sum of (spread x minutes)²), as of independent steps."""
    parts: dict[str, float] = {}
    for one in steps:
        if one.hands is not None:
            parts[one.name] = math.hypot(parts.get(one.name, 0.0), one.row.spread * one.hands.value)
    return of_parts(_GIVE_OR_TAKE, math.hypot(*parts.values()), parts, "min")
