"""The week of a kitchen: several orders on the same hands, in the same ovens and on the same shelves.

Orders are placed one after another, the one due last first, each as late as possible around those placed before it
(priority-rule scheduling backwards in time, latest due date first; a common heuristic). So the hours of an order depend
only on those due after it.

An order with pinned hours (chosen in `better.py`) has those, if they still fit; the others are placed around it.
"""

from collections.abc import Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import PinnedHours
from amber_spread.core.clock.clock_checks import checks_of
from amber_spread.core.clock.hours import moment_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import (
    NO_RESERVATIONS,
    Around,
    PlacedOrder,
    Reservations,
    place_order,
    reserve_started,
)
from amber_spread.core.clock.progress import Progress
from amber_spread.core.clock.step_hours import StepHours, scheduled
from amber_spread.core.clock.work import Work, steps_from
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.check import Check


class OrderWork(NamedTuple):
    """An order as the week sees it, with its pinned hours and its progress, if any. The same `id` and `revision` always
    have the same work, pinned hours and progress.
    """

    id: str
    revision: str
    title: str
    due: datetime
    work: Work
    pinned: PinnedHours | None = None
    progress: Progress | None = None

    def __hash__(self) -> int:
        return hash((self.id, self.revision))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, OrderWork) and (self.id, self.revision) == (other.id, other.revision)


Turns = Sequence[tuple[OrderWork, PlacedOrder]]
"""Orders in the order in which they were placed."""


class WeekStep(StepHours):
    """A step of one of several orders: the `minutes` of work, or None for a wait."""

    minutes: int | None


class WeekOrder(PlanPart):
    """An order of a week, with the hours of its steps, and whether these are `pinned`, or planned `from_now`."""

    id: str
    title: str
    due: datetime
    ready: datetime
    begins: datetime
    steps: dict[str, WeekStep]
    checks: list[Check]
    pinned: bool
    from_now: bool


class Week(PlanPart):
    """The orders of a week, the one due first at the head; sentences about orders that are left out; and the titles of
    those still being worked out, so that hours may move.
    """

    orders: list[WeekOrder]
    left_out: list[str] = []
    pending: list[str] = []


def week_of(orders: Sequence[OrderWork], places: Places, now: datetime | None = None) -> Week:
    """The hours of some orders, in the order in which they are placed. `now` is the hour on the kitchen's wall, to see
    what is late.
    """
    found = [_week_order(order, placed, places, now) for order, placed in in_turn(orders, places)]
    return Week(orders=sorted(found, key=lambda one: (one.due, one.id)))


class NextStep(PlanPart):
    """The next work on an order, when it begins, and who does it."""

    name: str
    start: datetime
    whose: str


class NextSteps(PlanPart):
    """The next work on each order that has some left, by its id; `pending` while some orders are being worked out."""

    steps: dict[str, NextStep]
    pending: bool


def next_steps(week: Week, now: datetime) -> NextSteps:
    """The next work on each order of a week: what is under way, or else begins next."""
    found: dict[str, NextStep] = {}
    for order in week.orders:
        left = [one for one in order.steps.values() if one.minutes is not None and one.end > now]
        if left:
            first = min(left, key=lambda one: one.start)
            found[order.id] = NextStep(name=first.name, start=first.start, whose=first.whose)
    return NextSteps(steps=found, pending=bool(week.pending))


def in_turn(orders: Sequence[OrderWork], places: Places, begun: tuple[OrderWork, ...] | None = None) -> Turns:
    """Place some orders: first those whose pinned hours fit, then the others, each in the order given. What has `begun`
    of these orders has its hours whichever comes first.
    """
    found: list[tuple[OrderWork, PlacedOrder]] = []
    begun = _begun(orders) if begun is None else begun

    def placed(order: OrderWork) -> tuple[OrderWork, PlacedOrder]:
        return order, _placed((*(one for one, _ in found), order), begun, places)

    for order in orders:
        if order.pinned is not None and (there := placed(order))[1].pinned:
            found += [there]
    fit = {order.id for order, _ in found}
    for order in orders:
        if order.id not in fit:
            found += [placed(order)]
    return found


def around(
    orders: Sequence[OrderWork],
    due: datetime,
    id: str,
    pinned: PinnedHours | None,
    places: Places,
    own: OrderWork | None = None,
) -> Around:
    """The other orders, as seen by one with that due hour, id and pinned hours; `own` is its work as it was last
    stored, if something of it may have begun.
    """
    begun = _begun(orders if own is None else [*orders, own])
    turns = [
        (one, placed)
        for one, placed in in_turn(orders, places, begun)
        if placed.pinned or (one.due, one.id) > (due, id)
    ]
    earlier = [one for one, placed in turns if placed.pinned and (one.due, one.id) > (due, id)]
    started = _started(begun, places)
    if_pinned = _placed(tuple(earlier), begun, places).after if earlier and pinned is not None else started
    return Around(
        turns[-1][1].after if turns else started, if_pinned, pinned, progress=None if own is None else own.progress
    )


def _begun(orders: Sequence[OrderWork]) -> tuple[OrderWork, ...]:
    """The orders of which something may have begun."""
    return tuple(one for one in orders if one.progress is not None)


@cached(64)
def _started(begun: tuple[OrderWork, ...], places: Places) -> Reservations:
    """The time of all that has begun, whichever order it is of."""
    found = NO_RESERVATIONS
    for one in begun:
        if one.progress is not None:
            found = reserve_started(found, steps_from(one.work), one.work.ready, places, one.progress)
    return found


@cached(512)
def _placed(orders: tuple[OrderWork, ...], begun: tuple[OrderWork, ...], places: Places) -> PlacedOrder:
    """The last of some orders, placed around the others, and around what has `begun`. An edit of one order leaves those
    placed before it cached.
    """
    *others, last = orders
    before = _placed(tuple(others), begun, places).after if others else _started(begun, places)
    return place_order(
        steps_from(last.work), last.work.ready, places, before, last.id, last.pinned, progress=last.progress
    )


def _week_order(order: OrderWork, placed: PlacedOrder, places: Places, now: datetime | None) -> WeekOrder:
    return WeekOrder(
        id=order.id,
        title=order.title,
        due=order.due,
        ready=order.work.ready,
        begins=moment_of(placed.first),
        steps={
            step.id: WeekStep(**hours, minutes=None if step.hands is None else step.minutes)
            for step, _, hours in scheduled(placed, places)
        },
        checks=list(checks_of(placed, order.due, now, places)),
        pinned=placed.pinned,
        from_now=placed.from_now,
    )
