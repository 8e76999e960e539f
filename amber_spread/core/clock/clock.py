"""The clock of one order: its steps, each with its hour, its minutes, and the sign that a wait is over."""

import math
from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime, timedelta
from typing import Literal

from amber_spread.core.clock.backwards import Block, Timing, backwards, blocks_of, lasts_too_long
from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.heat import Firming
from amber_spread.core.clock.holds import with_holds
from amber_spread.core.clock.hours import Hours, Span
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.shelves import Cold, Stay, fits, on_shelves
from amber_spread.core.clock.steps import On, Step, work_by_tier
from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check, RoundedQuantity, Said, checker, listed
from amber_spread.core.kernel.figures import Figure, carry_over, of_parts, parts_rule
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Place, State, Task
from amber_spread.core.kernel.units import day_words, hour_words
from amber_spread.core.plan import Plan

Look = Literal["warm", "soft", "cold", "firm", "covered"]
"""How something looks while a step lasts."""
START = datetime(1970, 1, 1)
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


def clock_of(document: Document, plan: Plan, now: datetime | None = None, kitchen: Kitchen = STARTING_KITCHEN) -> Clock:
    """The clock of an order by its plan: every step as late as possible, by the hands and places of a kitchen. `now` is
    the hour in it, to see what is late. Raises FileError where the order has no due hour, or one too far off.
    """
    if document.due is None:
        raise FileError([complaint_at(("due",), "is not set: set the day and hour this order is due")])
    if not FIRST_YEAR <= document.due.year <= LAST_YEAR:
        raise FileError([complaint_at(("due",), f"should be a day from {FIRST_YEAR} to {LAST_YEAR}")])
    places, hours = kitchen.places, Hours.of(kitchen.places)
    ready = document.due - timedelta(minutes=round(document.practice.ready_before_min))
    blocks = blocks_of(steps_of(document, plan, kitchen.made_of), _minute(ready))
    timings = backwards(blocks, hours)
    work = [one for block in blocks for one in block.steps]
    steps, timings = with_holds(work, timings)
    steps.sort(key=lambda one: timings[one.id].whole)
    looks, standing = _looks(steps), _standing(steps, timings, places)
    timed = {one.id: _timed(one, timings[one.id], looks[one.id], places, standing.get(one.id)) for one in steps}
    found = Clock(
        due=document.due,
        ready=ready,
        begins=min((one.start for one in timed.values()), default=ready),
        hands_on=work_by_tier(work, {number: tier.name for number, tier in enumerate(plan.tiers, 1)}),
        give_or_take=_give_or_take(work),
        steps=timed,
        checks=[
            *_checks(document.due, now, blocks, timings, hours),
            *_no_room(steps, timings, standing, places),
            _CAUTION,
        ],
    )
    return named(found, "clock")


def _minute(moment: datetime) -> int:
    return math.floor((moment - START).total_seconds() / 60)


def _moment(minute: int) -> datetime:
    return START + timedelta(minutes=minute)


def _moments(span: Span) -> tuple[datetime, datetime]:
    return _moment(span.start), _moment(span.end)


def _timed(step: Step, timing: Timing, look: Look, places: Places, shelves: range | None) -> TimedStep:
    start, end = _moments(timing.whole)
    several = timing.hand is not None and len(places.hands) > 1
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
        spans=[_moments(span) for span in timing.spans],
        hand=None if timing.hand is None else timing.hand + 1,
        whose=called(places, timing.hand) if timing.hand is not None and several else "",
        shelves=[one + 1 for one in shelves or ()],
        hands=step.hands,
        wait=step.wait,
        sign=step.waits.sign if step.waits is not None else "",
        firming=step.firming,
        slack=carry_over("free time after it", timing.slack_min, "min", "down"),
        follows=list(step.after),
        tasks=list(step.tasks),
    )


def called(places: Places, hand: int) -> str:
    """What a pair of hands is called: by its name, or by its number."""
    return places.hands[hand].name or f"hands {hand + 1}"


def _standing(steps: Sequence[Step], timings: Mapping[str, Timing], places: Places) -> dict[str, range]:
    """The shelves that each wait in the cold takes; those without room are left out."""
    stays: dict[Cold, list[Stay]] = {"fridge": [], "freezer": []}
    for one in steps:
        where = _cold(one)
        if where is not None and one.size is not None:
            stays[where].append(Stay(one.id, f"{one.on} {one.tier}", timings[one.id].whole, one.size))
    return {id: found for where in stays for id, found in on_shelves(stays[where], places.shelves(where)).items()}


def _cold(step: Step) -> Cold | None:
    place = step.row.place
    return place if place == "fridge" or place == "freezer" else None


def _no_room(
    steps: Sequence[Step], timings: Mapping[str, Timing], standing: Mapping[str, range], places: Places
) -> Iterator[Check]:
    """What waits in the cold and finds no room there: of each thing the first time alone."""
    said: set[tuple[Cold, str]] = set()
    for one in steps:
        where = _cold(one)
        if where is None or one.size is None or one.id in standing or (where, one.of) in said:
            continue
        said.add((where, one.of))
        shelves, parts, subject = (
            places.shelves(where),
            "shelves" if where == "fridge" else "drawers",
            one.of or "the cake",
        )
        if not shelves:
            text = f"{one.name}: you have no {where}. Add one in Hands and places, or change where coats firm."
        elif not fits(one.size, shelves):
            text = (
                f"{subject} does not fit in your {where}: it is {{wide}} wide, {{deep}} deep and {{high}} high. Check "
                f"its {parts} in Hands and places, or find a colder place for it."
            )
        else:
            begins = _words(_moment(timings[one.id].whole.start))
            text = (
                f"The {where} is full on {begins}: there is no room for {subject}, {{wide}} wide, {{deep}} deep and "
                "{high} high. Clear a shelf, or find another cold place for it."
            )
        yield checker(one.tier)(
            f"clock.no_room_{where}",
            "care",
            "clock",
            text[:1].upper() + text[1:],
            wide=RoundedQuantity(one.size.width_mm, "mm", "up"),
            deep=RoundedQuantity(one.size.depth_mm, "mm", "up"),
            high=RoundedQuantity(one.size.height_mm, "mm", "up"),
        )


def _looks(steps: Sequence[Step]) -> dict[str, Look]:
    """How each of some steps looks, in the order of the clock: by where it is, and by what was done before."""
    left: dict[int | None, set[State]] = {}
    found: dict[str, Look] = {}
    for one in steps:
        states = left.setdefault(one.tier, set())
        if one.row.leaves is not None and one.on == "tier":
            states.add(one.row.leaves)
        found[one.id] = _look(one, states)
    return found


def _look(step: Step, states: set[State]) -> Look:
    if step.row.place in ("oven", "rack"):
        return "warm"
    if step.on == "cake" or "covered" in states:
        return "covered"
    if step.hands is None and step.row.place in ("fridge", "freezer"):
        return "firm" if "coat soft" in states else "cold"
    return "soft"


def _give_or_take(steps: Sequence[Step]) -> Figure:
    """How far all the work may run over, min: sqrt(sum of (spread x minutes)²), as of independent steps."""
    parts: dict[str, float] = {}
    for one in steps:
        if one.hands is not None:
            parts[one.name] = math.hypot(parts.get(one.name, 0.0), one.row.spread * one.hands.value)
    return of_parts(_GIVE_OR_TAKE, math.hypot(*parts.values()), parts, "min")


_CAUTION = checker(None)(
    "clock.plan",
    "caution",
    "clock",
    "These hours are a plan. Go by the sign of each wait, by your recipe for the oven, and by your local food code for "
    "time out of the fridge.",
)


def _checks(
    due: datetime, now: datetime | None, blocks: Sequence[Block], timings: Mapping[str, Timing], hours: Hours
) -> Iterator[Check]:
    """What to know: what is late, what is longer than a day, what waits too long."""
    check = checker(None)
    begins = _moment(min(one.whole.start for one in timings.values()))
    if now is not None and now >= due:
        yield check(
            "clock.past", "trouble", "clock", f"The due hour, {_words(due)}, has passed. Set the next in Brief."
        )
        return
    if now is not None and begins < now:
        yield check(
            "clock.late",
            "trouble",
            "clock",
            f"The first step should have begun on {_words(begins)}, {{late}} ago. Make the design smaller, get help, "
            "or work longer days.",
            late=RoundedQuantity(_minute(now) - _minute(begins), "min"),
        )
    for block in blocks:
        first = block.steps[0]
        firming = first.firming
        if firming is not None and first.row.firms is not None and firming.at(first.row.firms) is None:
            colder = "Set it colder" + (", or firm it in the freezer." if firming.other is not None else ".")
            yield checker(first.tier)(
                "clock.too_warm",
                "care",
                "clock",
                f"{first.name}: the {firming.where} is too warm. This coat holds below {{holds}}. {colder}",
                holds=RoundedQuantity(firming.holds.value, "degC"),
            )
        if block.exceeds(hours):
            yield checker(first.tier)(
                "clock.long",
                "care",
                "clock",
                f"{listed([one.name for one in block.steps])}: {{work}} without a break, longer than your working day "
                "of {day}. Plan a longer day, or share the work.",
                work=RoundedQuantity(block.minutes, "min"),
                day=RoundedQuantity(hours.long_min, "min"),
            )
        elif first.waits is not None and lasts_too_long(first, lasts := timings[first.id].whole):
            yield checker(first.tier)(
                "clock.waits",
                "care",
                "clock",
                f"{first.name}: {{lasts}} in this plan, and {{most}} is the most. {first.waits.too_long}",
                lasts=RoundedQuantity(lasts.end - lasts.start, "min"),
                most=RoundedQuantity(first.waits.most_min, "min"),
            )


def _words(moment: datetime) -> str:
    return f"{day_words(moment)} at {hour_words(moment)}"
