"""Better hours for a week: those of the heuristic, improved by constraint programming.

In this order it matters that nothing begins before now, that nothing waits too long, that cakes are baked late, so that
they are fresh, and that the first work begins late.
"""

import math
from collections.abc import Callable, Collection, Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import PinnedBlock, PinnedHours
from amber_spread.core.clock.hours import Span, minute_of, moment_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.solver import Solution, solve, worth_of
from amber_spread.core.clock.week import OrderWork, in_turn
from amber_spread.core.clock.week_problem import WeekProblem
from amber_spread.core.kernel.base import PlanPart


class Better(NamedTuple):
    """Better hours for the orders of a week, by their ids; their worth, the worth of the hours before, and an upper
    bound.
    """

    hours: dict[str, PinnedHours]
    worth: float
    before: float
    bound: float


def better_hours(
    orders: Sequence[OrderWork],
    places: Places,
    now: datetime,
    effort: float,
    begun: Collection[str] = (),
    found: Callable[[], None] | None = None,
) -> Better | None:
    """Better hours for some orders, in the order in which they are placed; None if none were found. Orders with an id
    in `begun`, and those with marks, stay as they are. Calls `found` at every solution that is better.
    """
    turns = in_turn(orders, places)
    marked = (one.id for one in orders if one.progress is not None)
    week = WeekProblem(turns, places, minute_of(now), {*begun, *marked})
    problem = week.problem()
    # If some work has no hours left before it is due, there is nothing to choose.
    if not problem.tasks or not all(any(way.windows for way in task.ways) for task in problem.tasks):
        return None
    before = worth_of(problem, week.chosen(turns))
    starts = [week.chosen(one) for one in (turns, *week.other_turns())]
    start = max(starts, key=lambda one: worth_of(problem, one))
    heuristic = Solution(start, worth_of(problem, start), math.inf, optimal=False)
    best = max(heuristic, solve(problem, effort, start, found) or heuristic, key=lambda one: one.worth)
    if best.worth <= before:
        return None
    return Better(week.pinned(best.chosen), best.worth, before, best.bound)


class Moved(PlanPart):
    """An order that better hours would move: when it begins now and then, how many of its steps move, and how many
    minutes later its tiers are baked in all, and so are fresher.
    """

    id: str
    title: str
    begins: datetime
    would_begin: datetime
    steps: int
    fresher_min: int


class BetterWeek(PlanPart):
    """Better hours for a week, by order and by the first step of each block, and the orders that they would move."""

    hours: dict[str, dict[str, PinnedBlock]]
    moved: list[Moved]


def better_week(orders: Sequence[OrderWork], places: Places, better: Better) -> BetterWeek | None:
    """What better hours would move; None if nothing."""
    pinned = [
        one._replace(pinned=better.hours.get(one.id, one.pinned), revision=f"{one.revision} better") for one in orders
    ]
    after = {order.id: placed for order, placed in in_turn(pinned, places)}
    by_due = sorted(in_turn(orders, places), key=lambda one: (one[0].due, one[0].id))
    moved = [one for order, placed in by_due if (one := _moved(order, placed, after[order.id])).steps]
    hours = {id: dict(pinned) for id, pinned in better.hours.items() if after[id].pinned}
    return BetterWeek(hours=hours, moved=moved) if moved else None


def _moved(order: OrderWork, now: PlacedOrder, then: PlacedOrder) -> Moved:
    hours_then = _hours(then)
    return Moved(
        id=order.id,
        title=order.title,
        begins=moment_of(now.first),
        would_begin=moment_of(then.first),
        steps=sum(hours_then.get(id) != one for id, one in _hours(now).items()),
        fresher_min=_baked(then) - _baked(now),
    )


def _hours(placed: PlacedOrder) -> dict[str, tuple[tuple[Span, ...], int | None]]:
    """The spans of each step, and the hands that do it."""
    return {id: (one.spans, one.hand) for id, one in placed.timings.items()}


def _baked(placed: PlacedOrder) -> int:
    """The sum of the minutes at which the tiers leave the oven."""
    return sum(placed.timings[one.id].whole.end for one in placed.steps if one.row.kind == "bake")
