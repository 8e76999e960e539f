"""The clock of one order: its steps, each with its hour, its minutes, and the sign that a wait is over."""

import math
from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime, timedelta
from itertools import pairwise

from amber_spread.core.clock.backwards import (
    ANY_HOUR,
    Hours,
    Span,
    Timing,
    backwards,
    chains,
    is_rigid,
    too_long,
)
from amber_spread.core.clock.cake_steps import WHOLE, steps_of
from amber_spread.core.clock.step_kinds import STEP_KINDS
from amber_spread.core.clock.steps import Step, hands_on
from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check, RoundedQuantity, Said, checker, listed
from amber_spread.core.kernel.figures import Figure, carry_over, of_parts, parts_rule
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Place, State
from amber_spread.core.plan import Plan

START = datetime(1970, 1, 1)
HOLD_FROM_MIN = 20.0
"""A tier that would stand about for so long is put in the fridge (from memory)."""
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
    counted from 1, or a wait with a `sign` that it is over.

    `works` are the spans of work longer than a day, `slack` is by how much it may be late before anything else has to
    move, and `follows` are the ids of the steps before it. `jobs` are the tasks done in it, `cautions` those that guard
    somebody. Times are those of the clock on the kitchen's wall.
    """

    kind: str
    name: str
    of: str
    tier: int | None
    place: Place
    said: Said
    start: datetime
    end: datetime
    works: list[list[datetime]]
    hand: int | None
    hands: Figure | None
    wait: Figure | None
    sign: str
    needs: State | None
    leaves: State | None
    slack: Figure
    follows: list[str]
    cautions: list[Said]
    jobs: list[Said]


class Clock(PlanPart):
    """When to do what for an order: from its first step to the hour it has to be `ready`, some time before it is due.

    `day_begins` and `day_ends` are the working hours it was planned for, min after midnight.
    """

    due: datetime
    ready: datetime
    begins: datetime
    hands_on: Figure
    give_or_take: Figure
    day_begins: float
    day_ends: float
    hands: int
    steps: dict[str, TimedStep]
    checks: list[Check]


def clock_of(document: Document, plan: Plan, now: datetime | None = None) -> Clock:
    """The clock of an order by its plan: every step as late as it can be. `now` is the hour in the kitchen, to see what
    is late. Raises FileError where the order has no due hour, or one too far off.
    """
    if document.due is None:
        raise FileError([complaint_at(("due",), "is not set: set the day and hour this order is due")])
    if not FIRST_YEAR <= document.due.year <= LAST_YEAR:
        raise FileError([complaint_at(("due",), f"should be a day from {FIRST_YEAR} to {LAST_YEAR}")])
    usual = document.practice
    hours = Hours(round(usual.day_begins_min), round(usual.day_ends_min), usual.hands)
    ready = document.due - timedelta(minutes=round(usual.ready_before_min))
    steps = steps_of(document, plan)
    timings = backwards(steps, _minute(ready), hours)
    names = {number: tier.name for number, tier in enumerate(plan.tiers, 1)}
    timed = _kept_cold({one.id: _timed(one, timings[one.id]) for one in steps})
    timed = dict(sorted(timed.items(), key=lambda item: (item[1].start, item[1].end)))
    found = Clock(
        due=document.due,
        ready=ready,
        begins=min((one.start for one in timed.values()), default=ready),
        hands_on=hands_on(steps, names),
        give_or_take=_give_or_take(steps),
        day_begins=usual.day_begins_min,
        day_ends=usual.day_ends_min,
        hands=usual.hands,
        steps=timed,
        checks=list(_checks(document.due, now, steps, timings, hours)),
    )
    return named(found, "clock")


def _minute(moment: datetime) -> int:
    return math.floor((moment - START).total_seconds() / 60)


def _moment(minute: int) -> datetime:
    return START + timedelta(minutes=minute)


def _span(span: Span) -> list[datetime]:
    return [_moment(span.start), _moment(span.end)]


def _timed(step: Step, timing: Timing) -> TimedStep:
    row = step.row
    return TimedStep(
        kind=row.kind,
        name=step.name,
        of=step.of,
        tier=step.tier,
        place=row.place,
        said=step.said,
        start=_moment(timing.start),
        end=_moment(timing.end),
        works=[_span(span) for span in timing.spans] if len(timing.spans) > 1 else [],
        hand=None if timing.hand is None else timing.hand + 1,
        hands=step.hands,
        wait=step.wait,
        sign=row.wait.sign if row.wait is not None else "",
        needs=row.needs,
        leaves=row.leaves,
        slack=carry_over("free time after it", timing.slack_min, "min", "down"),
        follows=list(step.after),
        cautions=[*_caution(row.caution), *(one for one in step.tasks if one.caution)],
        jobs=[one for one in step.tasks if not one.caution],
    )


def _kept_cold(steps: dict[str, TimedStep]) -> dict[str, TimedStep]:
    """The same, and where a tier would stand about between two steps, or overnight in one that is split, a wait in the
    fridge: nothing stays out of it for `HOLD_FROM_MIN` unless hands are on it, or it bakes or cools.
    """
    found = dict(steps)
    whole = min(((one.start, id) for id, one in steps.items() if one.of == WHOLE), default=None)
    for tier in sorted({one.tier for one in steps.values() if one.tier is not None}):
        stays = [
            (begins, ends, id)
            for id, one in steps.items()
            if one.tier == tier
            for begins, ends in one.works or [[one.start, one.end]]
        ]
        stays += [(whole[0], whole[0], whole[1])] if whole is not None else []
        for (_, until, id), (begins, _, then) in pairwise(sorted(stays)):
            gap_min = (begins - until).total_seconds() / 60
            if gap_min >= HOLD_FROM_MIN:
                hold = f"{id}_hold" if then != id else f"{id}_hold_{until:%d}"
                follows = [id] if then != id else steps[id].follows
                found[hold] = _hold(steps[id], until, begins, gap_min, follows)
                if then != id:
                    found[then] = found[then].replace(follows=[*found[then].follows, hold])
    return found


def _hold(of: TimedStep, start: datetime, end: datetime, gap_min: float, follows: list[str]) -> TimedStep:
    """A wait in the fridge for hands to be free."""
    row = STEP_KINDS["hold"]
    return of.replace(
        kind=row.kind,
        name=row.name,
        place=row.place,
        said=Said(text="Covered, it does not dry and takes on no smell. Out of the fridge it would wait too long."),
        start=start,
        end=end,
        works=[],
        hand=None,
        hands=None,
        wait=carry_over("until the next step", gap_min, "min"),
        needs=None,
        leaves=None,
        slack=carry_over("free time after it", 0.0, "min", "down"),
        follows=follows,
        cautions=[],
        jobs=[],
    )


def _caution(text: str) -> list[Said]:
    return [Said(text=text, caution=True)] if text else []


def _give_or_take(steps: Sequence[Step]) -> Figure:
    """How far all the work may run over, min: sqrt(sum of (spread x minutes)²), as of independent steps."""
    parts: dict[str, float] = {}
    for one in steps:
        if one.hands is not None:
            parts[f"{one.name}, {one.of}"] = one.row.spread * one.hands.value
    return of_parts(_GIVE_OR_TAKE, math.hypot(*parts.values()), parts, "min")


def _checks(
    due: datetime, now: datetime | None, steps: Sequence[Step], timings: Mapping[str, Timing], hours: Hours
) -> Iterator[Check]:
    """What to know: what is late, what is longer than a day, what waits too long."""
    check = checker(None)
    if now is not None and now >= due:
        yield check(
            "clock.past", "trouble", "clock", f"The due hour, {_words(due)}, has passed. Set the next one in Brief."
        )
        return
    began = min((timings[one.id].start for one in steps), default=None)
    if now is not None and began is not None and _moment(began) < now:
        late = _minute(now) - began
        yield check(
            "clock.late",
            "trouble",
            "clock",
            f"The first step should have begun on {_words(_moment(began))}, {{late}} ago. Make the design smaller, get "
            "help, or make it ready in longer days.",
            late=RoundedQuantity(late, "min"),
        )
    for chain in chains(steps):
        long = sum(one.minutes for one in chain)
        splits = chain[0].row.splits and len(chain) == 1
        leaves = any(one.row.place in ANY_HOUR for one in chain)
        if is_rigid(chain[0]) and long > hours.long_min and not splits and not leaves:
            yield checker(chain[0].tier)(
                "clock.long",
                "care",
                "clock",
                f"{listed([_named(one) for one in chain])}: {{work}} at a stretch, longer than your working day of "
                "{day}. Plan a longer day, or share the work.",
                work=RoundedQuantity(long, "min"),
                day=RoundedQuantity(hours.long_min, "min"),
            )
    for one in steps:
        timing, row = timings[one.id], one.row
        if row.wait is not None and too_long(one, timing):
            yield checker(one.tier)(
                "clock.waits",
                "care",
                "clock",
                f"{_named(one)}: {{lasts}} in this plan, and {{most}} is the most. {row.wait.too_long}",
                lasts=RoundedQuantity(timing.end - timing.start, "min"),
                most=RoundedQuantity(row.wait.most_min, "min"),
            )


def _named(step: Step) -> str:
    """A step and its tier, in a sentence whose braces are places for measures."""
    of = step.of.replace("{", "(").replace("}", ")")
    return f"{step.name}, {of}" if step.tier is not None and of else step.name


def _words(moment: datetime) -> str:
    return f"{moment:%A} {moment.day} {moment:%B} at {moment:%H:%M}"
