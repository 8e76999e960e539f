"""Better hours for a week: those of the heuristic, improved by constraint programming.

Every block of work is a task that one pair of hands does within its working hours; ovens, mixers, turntables, benches
and the fridge are resources. In this order it matters: nothing begins before now; nothing waits longer than it may;
cakes are baked late, so that they are fresh; and the first work begins late. The fridge is a sum of areas here, with
some room to spare: on which shelf everything stands is found afterwards (`shelves.py`).
"""

import math
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import Block, KeptBlock, KeptHours
from amber_spread.core.clock.hours import DAY_MIN, Span
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder, hours_of, minute_of, moment_of
from amber_spread.core.clock.shelves import shelves_taken
from amber_spread.core.clock.solver import Between, Busy, Chosen, Lag, Problem, Solution, Spoils, Task, Use, Way, solve
from amber_spread.core.clock.steps import Step
from amber_spread.core.clock.week import OrderWork, in_turn
from amber_spread.core.kernel.base import PlanPart

STEP_MIN = 1
"""Work may begin at every minute, as the heuristic has it, whose hours are where the solver begins from."""
FRESH, LATE, FIRST = 5, 1, 2
"""What a minute later is worth for a bake, for any other work, and for the first work of all."""
TOO_LONG, TOO_EARLY = 60, 400
"""What a minute costs that something waits longer than it may, and one that work begins before now."""
EARLIER_MIN = 2 * DAY_MIN
"""Work that is late already may be so by this much more."""
ROOM_TO_SPARE = 1.15
"""Things on a shelf take so much more than their own area (from memory)."""


Turns = Sequence[tuple[OrderWork, PlacedOrder]]
"""Orders as they were placed, one after the other."""


class Better(NamedTuple):
    """Hours for some orders by their ids; what they are `worth`, what the hours before were worth, and the most that
    any could be.
    """

    hours: dict[str, KeptHours]
    worth: float
    before: float
    bound: float


def better_hours(
    orders: Sequence[OrderWork],
    places: Places,
    now: datetime,
    effort: float,
    begun: Collection[str] = (),
    found: Callable[[float], None] | None = None,
) -> Better | None:
    """Better hours than the heuristic's for some orders, given in the order in which they are placed; None where none
    were found. Orders that have `begun`, by their ids, keep their hours, and so do those with work longer than a
    working day. `found` is told the worth of each solution.
    """
    turns = in_turn(orders, places)
    week = _Week(turns, places, minute_of(now), begun)
    problem = week.problem()
    # Where some work has no hours left before it is due, there is nothing to choose.
    if not problem.tasks or not all(any(way.windows for way in task.ways) for task in problem.tasks):
        return None
    before = worth_of(problem, week.chosen(turns))
    first = max((week.chosen(one) for one in (turns, *week.other_turns())), key=lambda one: worth_of(problem, one))
    solution = solve(problem, effort, first, found)
    if solution is None or solution.worth < worth_of(problem, first):
        solution = Solution(first, worth_of(problem, first), math.inf, optimal=False)
    if solution.worth <= before:
        return None
    return Better(week.hours_from(solution), solution.worth, before, solution.bound)


def worth_of(problem: Problem, chosen: Mapping[str, Chosen]) -> float:
    """What some hours are worth: the sum that the solver makes as large as it can."""
    begins = {id: one.begins_min for id, one in chosen.items()}
    first = min(window[0] for task in problem.tasks for way in task.ways for window in way.windows)
    worth = float(problem.first_is_worth * (min(begins.values(), default=first) - first))
    for task in problem.tasks:
        worth += task.late_is_good * (begins[task.id] - first)
        worth -= task.early_costs * max(0, (task.not_before or 0) - begins[task.id])
    for one in problem.spoils:
        used = min(begins[id] + offset for id, offset in one.uses)
        worth -= one.costs * max(0, used - begins[one.before] - one.after_min - one.lasts_min)
    return worth


class _At(NamedTuple):
    """A moment of a block: so long after it begins; and how long to wait from there at least."""

    block: Block
    after_min: int
    least_min: int = 0


class _Week:
    """The orders of a week as a problem for the solver."""

    def __init__(self, turns: Turns, places: Places, now: int, begun: Collection[str]) -> None:
        self.places, self.now, self.begun, self.hours = places, now, begun, hours_of(places)
        self.free = [one for one in turns if self._may_move(*one)]
        self.fixed = [one for one in turns if not self._may_move(*one)]
        begins = [_begins(placed, block) for _, placed in self.free for block in _work(placed)]
        late = any(one < now for one in begins)
        self.from_min = min(begins, default=now) - EARLIER_MIN if late else now

    def _may_move(self, order: OrderWork, placed: PlacedOrder) -> bool:
        """Whether an order may be given other hours: it has not begun, and all of it fits into working days."""
        blocks = _work(placed)
        long = any(one.exceeds(self.hours) or (one.splits and one.minutes > self.hours.long_min) for one in blocks)
        return not long and order.id not in self.begun and minute_of(order.due) > self.now

    def problem(self) -> Problem:
        """The problem: tasks, lags and what is taken."""
        tasks = [self._task(order, placed, block) for order, placed in self.free for block in _work(placed)]
        lags = [lag for order, placed in self.free for lag in _lags(order, placed)]
        spoils = [one for order, placed in self.free for one in _spoils(order, placed)]
        between = [one for order, placed in self.free for one in self._in_fridge(order, placed)]
        busy = [one for _, placed in self.fixed for one in self._busy(placed)]
        area = sum(one.width_mm * one.depth_mm / 100 for one in self.places.fridge)
        hands = {_hands(hand): 1 for hand in range(self.hours.hands)}
        limits: dict[str, int] = {resource: count for resource, count in self.hours.limits.items()}
        capacity = hands | limits | {"fridge": math.floor(area)}
        return Problem(tuple(tasks), tuple(lags), tuple(spoils), tuple(between), tuple(busy), capacity, FIRST, STEP_MIN)

    def other_turns(self) -> Iterator[Turns]:
        """The orders placed in other turns: those that are late first, and the one due first at the head. Those that
        keep their hours have them.
        """
        fixed = [
            order._replace(kept=_as_kept(placed), revision=f"{order.revision} fixed") for order, placed in self.fixed
        ]
        late = {
            order.id for order, placed in self.free if any(_begins(placed, one) < self.now for one in _work(placed))
        }
        free = [order._replace(kept=None, revision=f"{order.revision} free") for order, _ in self.free]
        by_due = sorted(free, key=lambda one: (one.due, one.id), reverse=True)
        yield in_turn([*fixed, *sorted(by_due, key=lambda one: one.id not in late)], self.places)
        yield in_turn([*fixed, *reversed(by_due)], self.places)

    def chosen(self, turns: Turns) -> dict[str, Chosen]:
        """The hours of the orders that may be given others, as they were placed."""
        found: dict[str, Chosen] = {}
        free = {order.id for order, _ in self.free}
        for order, placed in turns:
            if order.id not in free:
                continue
            for block in _work(placed):
                hands = self._hands_for(block)
                hand = placed.timings[_worker(block).id].hand
                way = hands.index(hand) if hand in hands else 0
                found[_id(order, block)] = Chosen(_begins(placed, block), way)
        return found

    def hours_from(self, solution: Solution) -> dict[str, KeptHours]:
        """A solution as hours to keep, with those of the orders that keep theirs, so that nothing else moves them."""
        found = {order.id: _as_kept(placed) for order, placed in self.fixed}
        for order, placed in self.free:
            kept: dict[str, KeptBlock] = {}
            for block in _work(placed):
                begins, way = solution.chosen[_id(order, block)]
                kept[block.steps[0].id] = KeptBlock(
                    self._hands_for(block)[way], (Span(begins, begins + block.minutes),)
                )
            found[order.id] = kept
        return found

    def _task(self, order: OrderWork, placed: PlacedOrder, block: Block) -> Task:
        end_by = _end_by(placed, block)
        limited = [
            Use(resource, block.minutes - span.start, block.minutes - span.end)
            for resource, spans in block.uses.items()
            if resource in self.hours.limits
            for span in _joined(spans)
        ]
        ways = []
        for hand in self._hands_for(block):
            work = [
                Use(_hands(hand), block.minutes - one.start, block.minutes - one.end) for one in _joined(block.work)
            ]
            ways.append(Way((*work, *limited), tuple(self._windows(block, hand, end_by))))
        bakes = any(one.row.kind == "bake" for one in block.steps)
        return Task(_id(order, block), block.minutes, tuple(ways), FRESH if bakes else LATE, self.now, TOO_EARLY)

    def _hands_for(self, block: Block) -> list[int]:
        """The pairs of hands that may do a block, as the schedule has it."""
        hours = self.hours
        if block.any_hour:
            days = [(hand, hours.of_day(hand, block.ready - 1)) for hand in range(hours.hands)]
            able = [hand for hand, day in days if day.end > day.start]
        else:
            able = [hand for hand in range(hours.hands) if block.minutes <= hours.longest[hand]]
        return able or list(range(hours.hands))

    def _windows(self, block: Block, hand: int, end_by: int) -> Iterator[tuple[int, int]]:
        if block.any_hour:
            yield self.from_min, end_by
            return
        for number in range(self.from_min // DAY_MIN, end_by // DAY_MIN + 1):
            day = self.hours.of_day(hand, number * DAY_MIN)
            begins, ends = max(day.start, self.from_min), min(day.end, end_by)
            if ends - begins >= block.minutes:
                yield begins, ends

    def _in_fridge(self, order: OrderWork, placed: PlacedOrder) -> Iterator[Between]:
        """What stands in the fridge between two blocks of work: each tier from its rack on, and the whole cake."""
        steps = [one for block in placed.blocks for one in block.steps]
        block_of = {one.id: block for block in placed.blocks for one in block.steps}
        whole = next((block_of[one.id] for one in steps if one.on == "cake" and not one.flexible), None)
        for tier in dict.fromkeys(one.tier for one in steps if one.on == "tier"):
            yield from self._stays(order, [one for one in steps if one.tier == tier], block_of, whole)
        yield from self._stays(order, [one for one in steps if one.on == "cake"], block_of, None, whole=True)

    def _stays(
        self,
        order: OrderWork,
        steps: Sequence[Step],
        block_of: Mapping[str, Block],
        then: Block | None,
        whole: bool = False,
    ) -> Iterator[Between]:
        last: Block | None = None
        place = ""
        blocks: list[tuple[Step | None, Block]] = [(one, block_of[one.id]) for one in steps]
        for step, block in (*blocks, *([(None, then)] if then is not None else [])):
            if step is not None and step.flexible:
                place = step.row.place
                continue
            if last is not None and block is not last and place != "rack" and (not whole or place == "fridge"):
                amount = self._amount(steps[0])
                if amount:
                    yield Between(_id(order, last), last.minutes, _id(order, block), "fridge", amount)
            last, place = block, ""

    def _amount(self, step: Step) -> int:
        """The area that something takes in the fridge, cm²; 0 where it fits nowhere, which is said elsewhere."""
        if step.size is None:
            return 0
        shelves = shelves_taken(step.size, self.places.fridge)
        return math.ceil(step.size.width_mm * step.size.depth_mm / 100 * ROOM_TO_SPARE) * shelves

    def _busy(self, placed: PlacedOrder) -> Iterator[Busy]:
        """What an order takes that keeps its hours."""
        for block in _work(placed):
            for one in block.steps:
                timing = placed.timings[one.id]
                for span in timing.spans:
                    if timing.hand is not None:
                        yield Busy(_hands(timing.hand), span.start, span.end)
                    for resource in one.row.uses:
                        if resource in self.hours.limits:
                            yield Busy(resource, span.start, span.end)
        for one in placed.steps:
            if one.row.place == "fridge" and one.id in placed.shelves:
                whole = placed.timings[one.id].whole
                yield Busy("fridge", whole.start, whole.end, self._amount(one))


def _work(placed: PlacedOrder) -> list[Block]:
    return [one for one in placed.blocks if not one.flexible]


def _begins(placed: PlacedOrder, block: Block) -> int:
    return placed.timings[block.steps[0].id].whole.start


def _as_kept(placed: PlacedOrder) -> KeptHours:
    """The hours of an order, to be kept."""
    kept: dict[str, KeptBlock] = {}
    for block in _work(placed):
        first, last = placed.timings[block.steps[0].id], placed.timings[block.steps[-1].id]
        hand = placed.timings[_worker(block).id].hand or 0
        spans = first.spans if len(first.spans) > 1 else (Span(first.whole.start, last.whole.end),)
        kept[block.steps[0].id] = KeptBlock(hand, spans)
    return kept


def _worker(block: Block) -> Step:
    """A step of a block that hands do."""
    return next((one for one in block.steps if one.hands is not None), block.steps[0])


def _id(order: OrderWork, block: Block) -> str:
    return f"{order.id} {block.steps[0].id}"


def _hands(hand: int) -> str:
    return f"hands {hand}"


def _joined(spans: Sequence[Span]) -> list[Span]:
    """Spans before the end of a block, those that meet as one."""
    found: list[Span] = []
    for one in spans:
        if found and found[-1].end == one.start:
            found[-1] = Span(found[-1].start, one.end)
        else:
            found.append(one)
    return found


def _lags(order: OrderWork, placed: PlacedOrder) -> Iterator[Lag]:
    """What follows what in an order, and after how long."""
    moments = _Moments(placed)
    for block in _work(placed):
        for one, span in zip(block.steps, block.before_end, strict=True):
            offset = block.minutes - span.start
            for before in one.after:
                for at in moments.at_the_end_of(before):
                    if at.block is not block:
                        yield Lag(_id(order, at.block), at.after_min, _id(order, block), at.least_min - offset)


def _spoils(order: OrderWork, placed: PlacedOrder) -> Iterator[Spoils]:
    """What must not wait too long: the first step after such a wait ends it."""
    moments = _Moments(placed)
    for block in placed.blocks:
        wait = block.steps[0]
        if not block.flexible or wait.waits is None or not wait.waits.too_long or not wait.after:
            continue
        uses = tuple(
            (_id(order, each), each.minutes - span.start)
            for each in _work(placed)
            for one, span in zip(each.steps, each.before_end, strict=True)
            if wait.id in one.after
        )
        for at in moments.at_the_end_of(wait.after[0])[:1] if uses else ():
            yield Spoils(_id(order, at.block), at.after_min, uses, math.floor(wait.waits.most_min), TOO_LONG)


def _end_by(placed: PlacedOrder, block: Block) -> int:
    """The minute by which a block has to end, for the waits after it that nothing follows."""
    followed = {before for one in placed.blocks for step in one.steps for before in step.after}
    ends = [block.ready]
    moments = _Moments(placed)
    for one in placed.blocks:
        if one.flexible and one.steps[0].id not in followed:
            ends += [
                block.ready - at.least_min + block.minutes - at.after_min
                for at in moments.at_the_end_of(one.steps[0].id)
                if at.block is block
            ]
    return min(ends)


class _Moments:
    """The moments at which the steps of an order end, as moments of its blocks."""

    def __init__(self, placed: PlacedOrder) -> None:
        self.of: dict[str, tuple[Block, Step, int]] = {}
        for block in placed.blocks:
            for one, span in zip(block.steps, block.before_end, strict=True):
                self.of[one.id] = block, one, block.minutes - span.end

    def at_the_end_of(self, id: str) -> list[_At]:
        """The moments after which a step is over: its own end, or the ends of all that a wait follows."""
        block, step, ends = self.of[id]
        if not block.flexible:
            return [_At(block, ends)]
        return [
            _At(at.block, at.after_min, at.least_min + step.minutes)
            for before in step.after
            for at in self.at_the_end_of(before)
        ]


class Moved(PlanPart):
    """An order whose hours would be others: when it begins as it is, and when it would; how many of its steps would
    move; and by how much later it would be baked, so that it is fresher, min in all its tiers.
    """

    id: str
    title: str
    begins: datetime
    would_begin: datetime
    steps: int
    fresher_min: int


class BetterWeek(PlanPart):
    """Better hours for a week: those to keep, by order and by the first step of each block, and what would move."""

    hours: dict[str, dict[str, KeptBlock]]
    moved: list[Moved]


def better_week(
    orders: Sequence[OrderWork],
    places: Places,
    now: datetime,
    effort: float,
    begun: Collection[str] = (),
    found: Callable[[float], None] | None = None,
) -> BetterWeek | None:
    """Better hours for a week with what they would move, likewise."""
    better = better_hours(orders, places, now, effort, begun, found)
    if better is None:
        return None
    as_found = [
        one._replace(kept=better.hours.get(one.id, one.kept), revision=f"{one.revision} better") for one in orders
    ]
    after = {order.id: placed for order, placed in in_turn(as_found, places)}
    moved = []
    for order, placed in sorted(in_turn(orders, places), key=lambda one: (one[0].due, one[0].id)):
        then = after[order.id]
        hours_now, hours_then = _hours(placed), _hours(then)
        if hours_now != hours_then:
            begins, would = (moment_of(min(_begins(one, block) for block in _work(one))) for one in (placed, then))
            fresher = _baked(then) - _baked(placed)
            moved.append(
                Moved(
                    id=order.id,
                    title=order.title,
                    begins=begins,
                    would_begin=would,
                    steps=sum(hours_then.get(id) != one for id, one in hours_now.items()),
                    fresher_min=fresher,
                )
            )
    hours = {id: dict(kept) for id, kept in better.hours.items() if after[id].kept}
    return BetterWeek(hours=hours, moved=moved) if moved else None


def _hours(placed: PlacedOrder) -> dict[str, tuple[tuple[Span, ...], int | None]]:
    """When each step is done, and by whom."""
    return {id: (one.spans, one.hand) for id, one in placed.timings.items()}


def _baked(placed: PlacedOrder) -> int:
    """When the tiers of an order leave the oven, summed up."""
    return sum(placed.timings[one.id].whole.end for one in placed.steps if one.row.kind == "bake")
