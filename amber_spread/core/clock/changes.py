"""What a change moves: the steps that change their hours, and what breaks."""

from collections.abc import Iterable, Iterator
from datetime import datetime

from amber_spread.core.clock.clock_checks import checks_of
from amber_spread.core.clock.hours import moment_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.week import OrderWork, Turns
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check


class MovedStep(PlanPart):
    """A step of an order, called `title`, that a change moves from one hour to another."""

    order: str
    title: str
    name: str
    start: datetime
    would_start: datetime


class Broken(PlanPart):
    """Something about an order that a change makes wrong."""

    title: str
    check: Check


class Changes(PlanPart):
    """What a change moves, in the order of the new hours, and what it breaks."""

    moved: list[MovedStep]
    broken: list[Broken]


def changes_of(before: Turns, after: Turns, places: Places, now: datetime) -> Changes:
    """What changes between two ways to place the same orders. A step that has begun does not count as moved."""
    was = {order.id: placed for order, placed in before}
    pairs = [(order, was[order.id], placed) for order, placed in after if order.id in was]
    moved = [one for order, old, new in pairs for one in _moved(order, old, new)]
    broken = [one for order, old, new in pairs for one in _broken(order, old, new, places, now)]
    return Changes(moved=sorted(moved, key=lambda one: (one.would_start, one.title, one.name)), broken=broken)


def _moved(order: OrderWork, old: PlacedOrder, new: PlacedOrder) -> Iterator[MovedStep]:
    for step in new.steps:
        if step.hands is None or step.id in new.started or step.id not in old.timings:
            continue
        start, would_start = old.timings[step.id].whole.start, new.timings[step.id].whole.start
        if start != would_start:
            yield MovedStep(
                order=order.id,
                title=order.title,
                name=step.name,
                start=moment_of(start),
                would_start=moment_of(would_start),
            )


def _broken(order: OrderWork, old: PlacedOrder, new: PlacedOrder, places: Places, now: datetime) -> Iterable[Broken]:
    said = {_key(one) for one in checks_of(old, order.due, now, places)}
    checks = (one for one in checks_of(new, order.due, now, places) if _key(one) not in said)
    return (Broken(title=order.title, check=one) for one in checks)


def _key(check: Check) -> tuple[str, str]:
    return check.code, check.text
