"""The clock of one order: its steps, each with its hour, its minutes, and the sign that a wait is over."""

import math
from collections.abc import Sequence
from datetime import datetime, timedelta

from amber_spread.core.clock.backwards import Timing
from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.clock_checks import CAUTION, checks_of, pending_of
from amber_spread.core.clock.heat import Firming
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.looks import Look, looks_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import NOTHING_AROUND, Around, called, moments_of, placed_around
from amber_spread.core.clock.steps import On, Step, work_by_tier
from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check, Said
from amber_spread.core.kernel.figures import Figure, carry_over, of_parts, parts_rule
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Place, Task
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


class TimedStep(PlanPart):
    """A step with its hours, done to what is called `of` (nothing where there is one tier): work of one pair of hands,
    counted from 1 and called `whose`, or a wait with a `sign` that it is over, which follows “done when”.

    What waits in the cold takes some of its `shelves`, counted from 1 at the top, and stands on the last of them; none
    where there is no room for it. Work longer than a day has several `spans`. `slack` is by how much it may be late
    before anything else has to move, `follows` are the ids of the steps before it, `tasks` are the tasks of the plan
    that are done in it. Times are those of the clock on the kitchen's wall.
    """

    kind: str
    name: str
    on: On
    of: str
    tier: int | None
    place: Place
    look: Look
    said: Said
    start: datetime
    end: datetime
    spans: list[tuple[datetime, datetime]]
    hand: int | None
    whose: str
    shelves: list[int]
    hands: Figure | None
    wait: Figure | None
    sign: str
    firming: Firming | None
    slack: Figure
    follows: list[str]
    tasks: list[Task]


class Clock(PlanPart):
    """When to do what for an order: from its first step to the hour it must be `ready`, some time before it is due."""

    due: datetime
    ready: datetime
    begins: datetime
    hands_on: Figure
    give_or_take: Figure
    steps: dict[str, TimedStep]
    checks: list[Check]


def clock_of(
    document: Document,
    plan: Plan,
    now: datetime | None = None,
    kitchen: Kitchen = STARTING_KITCHEN,
    around: Around = NOTHING_AROUND,
) -> Clock:
    """The clock of an order by its plan: every step at the hour that is kept for it, else as late as possible, by the
    hands and places of a kitchen, `around` what the other orders take of them. `now` is the hour in it, to see what is
    late. Raises FileError where the order has no due hour, or one too far off.
    """
    due, ready, places = due_of(document), ready_of(document), kitchen.places
    work = steps_of(document, plan, kitchen.made_of)
    placed = placed_around(work, ready, places, around)
    looks = looks_of(placed.steps)
    timed = {
        one.id: _timed(one, placed.timings[one.id], looks[one.id], places, placed.shelves.get(one.id))
        for one in placed.steps
    }
    found = Clock(
        due=due,
        ready=ready,
        begins=min((one.start for one in timed.values()), default=ready),
        hands_on=work_by_tier(work, {number: tier.name for number, tier in enumerate(plan.tiers, 1)}),
        give_or_take=_give_or_take(work),
        steps=timed,
        checks=[*checks_of(placed, due, now, places), *pending_of(around.pending), CAUTION],
    )
    return named(found, "clock")


def due_of(document: Document) -> datetime:
    """When an order is due. Raises FileError where it has no hour, or one too far off."""
    if document.due is None:
        raise FileError([complaint_at(("due",), "is not set: set the day and hour this order is due")])
    if not FIRST_YEAR <= document.due.year <= LAST_YEAR:
        raise FileError([complaint_at(("due",), f"should be a day from {FIRST_YEAR} to {LAST_YEAR}")])
    return document.due


def ready_of(document: Document) -> datetime:
    """When an order must be ready, some time before it is due. Raises likewise."""
    return due_of(document) - timedelta(minutes=round(document.practice.ready_before_min))


def _timed(step: Step, timing: Timing, look: Look, places: Places, shelves: range | None) -> TimedStep:
    start, end = moments_of(timing.whole)
    return TimedStep(
        kind=step.row.kind,
        name=step.name,
        on=step.on,
        of=step.of,
        tier=step.tier,
        place=step.row.place,
        look=look,
        said=step.said,
        start=start,
        end=end,
        spans=[moments_of(span) for span in timing.spans],
        hand=None if timing.hand is None else timing.hand + 1,
        whose=called(places, timing.hand),
        shelves=[one + 1 for one in shelves or ()],
        hands=step.hands,
        wait=step.wait,
        sign=step.waits.sign if step.waits is not None else "",
        firming=step.firming,
        slack=carry_over("free time after it", timing.slack_min, "min", "down"),
        follows=list(step.after),
        tasks=list(step.tasks),
    )


def _give_or_take(steps: Sequence[Step]) -> Figure:
    """How far all the work may run over, min: sqrt(sum of (spread x minutes)²), as of independent steps."""
    parts: dict[str, float] = {}
    for one in steps:
        if one.hands is not None:
            parts[one.name] = math.hypot(parts.get(one.name, 0.0), one.row.spread * one.hands.value)
    return of_parts(_GIVE_OR_TAKE, math.hypot(*parts.values()), parts, "min")
