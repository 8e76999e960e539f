"""The week of a kitchen: several orders on the same hands, in the same ovens and on the same shelves.

Orders are placed one after the other, the one due last first, each as late as possible around those placed before it
(priority-rule scheduling backwards in time, with the latest due date first; a common heuristic). So the hours of an
order depend on those that are due after it alone.

Where hours were chosen for an order (by the solver, in `better.py`) and still fit its steps and the kitchen, it has
those, and all that has none is placed around it.
"""

from collections.abc import Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import KeptHours
from amber_spread.core.clock.clock_checks import checks_of
from amber_spread.core.clock.looks import Look, looks_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import EMPTY_KITCHEN, Around, PlacedOrder, called, moments_of, place_order
from amber_spread.core.clock.steps import On
from amber_spread.core.clock.work import Work, steps_from
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.task import Place


class OrderWork(NamedTuple):
    """An order as the week knows it, with the hours that are `kept` for it, if any. The same `id` and `revision` always
    mean the same work at the same kept hours.
    """

    id: str
    revision: str
    title: str
    due: datetime
    work: Work
    kept: KeptHours | None = None

    def __hash__(self) -> int:
        return hash((self.id, self.revision))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, OrderWork) and (self.id, self.revision) == (other.id, other.revision)


class WeekStep(PlanPart):
    """A step of an order with its hours: so many `minutes` of work of one pair of hands, counted from 1 and called
    `whose`, or a wait (None). What waits in the cold takes some `shelves`, counted from 1 at the top.
    """

    name: str
    on: On
    of: str
    tier: int | None
    place: Place
    look: Look
    start: datetime
    end: datetime
    spans: list[tuple[datetime, datetime]]
    hand: int | None
    whose: str
    shelves: list[int]
    minutes: int | None
    follows: list[str]


class WeekOrder(PlanPart):
    """An order with the hours of its steps, whether those were `kept` for it, and what to know about them."""

    id: str
    title: str
    due: datetime
    ready: datetime
    begins: datetime
    steps: dict[str, WeekStep]
    checks: list[Check]
    kept: bool


class Week(PlanPart):
    """The orders of a week, the one due first at the head; words for those that are left out of it; and the titles of
    those whose work is being worked out, so that hours may still move.
    """

    orders: list[WeekOrder]
    left_out: list[str]
    pending: list[str] = []


def week_of(
    orders: Sequence[OrderWork], places: Places, now: datetime | None = None, left_out: Sequence[str] = ()
) -> Week:
    """The hours of some orders, given in the order in which they are placed: the one due last first. `now` is the hour
    in the kitchen, to see what is late.
    """
    found = [_shown(order, placed, places, now) for order, placed in in_turn(orders, places)]
    return Week(orders=sorted(found, key=lambda one: (one.due, one.id)), left_out=list(left_out))


class NextStep(PlanPart):
    """The next work on an order: what it is, when it begins, and whose hands do it."""

    name: str
    start: datetime
    whose: str


class NextSteps(PlanPart):
    """The next work on each order that has some left, by its id; some are `pending` while their work is worked out."""

    steps: dict[str, NextStep]
    pending: bool


def next_steps(week: Week, now: datetime) -> NextSteps:
    """The next work on each order of a week: what is under way, else what begins next."""
    found: dict[str, NextStep] = {}
    for order in week.orders:
        left = [one for one in order.steps.values() if one.minutes is not None and one.end > now]
        if left:
            first = min(left, key=lambda one: one.start)
            found[order.id] = NextStep(name=first.name, start=first.start, whose=first.whose)
    return NextSteps(steps=found, pending=bool(week.pending))


def in_turn(orders: Sequence[OrderWork], places: Places) -> list[tuple[OrderWork, PlacedOrder]]:
    """Some orders as they are placed: first those whose kept hours fit, then the others, each in the order given."""
    found: list[tuple[OrderWork, PlacedOrder]] = []
    for one in orders:
        if one.kept is not None:
            placed = _placed((*(order for order, _ in found), one), places)
            if placed.kept:
                found.append((one, placed))
    fit = {one.id for one, _ in found}
    for one in orders:
        if one.id not in fit:
            placed = _placed((*(order for order, _ in found), one), places)
            found.append((one, placed))
    return found


def around(orders: Sequence[OrderWork], due: datetime, id: str, kept: KeptHours | None, places: Places) -> Around:
    """What some orders leave of a kitchen for one that is due then, which is none of them; `kept` are its hours."""
    mine = (due, id)
    turns = in_turn(orders, places)
    before = [(one, placed) for one, placed in turns if placed.kept or (one.due, one.id) > mine]
    earlier = [one for one, placed in before if placed.kept and (one.due, one.id) > mine]
    with_kept = _placed(tuple(earlier), places).after if earlier and kept is not None else EMPTY_KITCHEN
    return Around(before[-1][1].after if before else EMPTY_KITCHEN, with_kept, kept)


@cached(512)
def _placed(orders: tuple[OrderWork, ...], places: Places) -> PlacedOrder:
    """The last of some orders, placed around the others: an edit of one leaves those before it as they are."""
    *others, last = orders
    taken = _placed(tuple(others), places).after if others else EMPTY_KITCHEN
    return place_order(steps_from(last.work), last.work.ready, places, taken, last.id, last.kept)


def _shown(order: OrderWork, placed: PlacedOrder, places: Places, now: datetime | None) -> WeekOrder:
    looks, steps = looks_of(placed.steps), {}
    for one in placed.steps:
        timing = placed.timings[one.id]
        start, end = moments_of(timing.whole)
        steps[one.id] = WeekStep(
            name=one.name,
            on=one.on,
            of=one.of,
            tier=one.tier,
            place=one.row.place,
            look=looks[one.id],
            start=start,
            end=end,
            spans=[moments_of(span) for span in timing.spans],
            hand=None if timing.hand is None else timing.hand + 1,
            whose=called(places, timing.hand),
            shelves=[shelf + 1 for shelf in placed.shelves.get(one.id, ())],
            minutes=None if one.hands is None else one.minutes,
            follows=list(one.after),
        )
    return WeekOrder(
        id=order.id,
        title=order.title,
        due=order.due,
        ready=order.work.ready,
        begins=min(one.start for one in steps.values()),
        steps=steps,
        checks=list(checks_of(placed, order.due, now, places)),
        kept=placed.kept,
    )
