"""The week of a kitchen as a scheduling problem for the solver, and its solution as hours.

Every block of work is a task, with one way for each pair of hands that may do it. Hands, ovens, mixers, turntables and
benches are resources. The fridge is one resource, measured by area with some room to spare; `shelves.py` finds the
shelves afterwards.
"""

import math
from collections.abc import Collection, Iterator, Mapping, Sequence
from functools import cached_property
from typing import NamedTuple

from amber_spread.core.clock.backwards import PinnedBlock, PinnedHours
from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import DAY_MIN, Span, hours_of, minute_of, union
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.shelves import shelves_needed
from amber_spread.core.clock.solver import Between, Busy, Chosen, Lag, Problem, Spoils, Task, Use, Way
from amber_spread.core.clock.steps import Step
from amber_spread.core.clock.week import OrderWork, Turns, in_turn

FRESH, LATER, FIRST = 5, 1, 2
"""The worth of each minute that a bake, other work, and the first work of all start later."""
TOO_LONG, TOO_EARLY = 60, 400
"""The cost of each minute that a wait is too long, and that work starts before now."""
EARLIER_MIN = 2 * DAY_MIN
"""If work is late already, the solver may start it this much earlier still."""
ROOM_TO_SPARE = 1.15
"""On a shelf, a thing needs this much more than its own area (from memory)."""


class _Point(NamedTuple):
    """A point of a block, in minutes after its start, and the least wait from there."""

    block: Block
    after_min: int
    least_min: int = 0


class WeekProblem:
    """The orders of a week as they were placed. Those in `begun` (ids), those already due, and those with work longer
    than a working day stay as they are; the solver may move the others.
    """

    def __init__(self, turns: Turns, places: Places, now: int, begun: Collection[str]) -> None:
        self.places, self.now, self.hours = places, now, hours_of(places)
        movable = {order.id for order, placed in turns if order.id not in begun and self._may_move(order, placed)}
        self.free = [_Movable(order, placed) for order, placed in turns if order.id in movable]
        self.fixed = [(order, placed) for order, placed in turns if order.id not in movable]
        first = min((one.placed.first for one in self.free), default=now)
        self.from_min = first - EARLIER_MIN if first < now else now

    def _may_move(self, order: OrderWork, placed: PlacedOrder) -> bool:
        long = any(one.exceeds(self.hours) or one.in_parts(self.hours) for one in placed.work)
        return not long and minute_of(order.due) > self.now

    def problem(self) -> Problem:
        """The problem for the solver."""
        limits: dict[str, int] = {resource: count for resource, count in self.hours.limits.items()}
        area_cm2 = sum(one.width_mm * one.depth_mm / 100 for one in self.places.fridge)
        return Problem(
            tasks=tuple(self._task(one, block) for one in self.free for block in one.placed.work),
            lags=tuple(lag for one in self.free for lag in one.lags()),
            spoils=tuple(spoils for one in self.free for spoils in one.spoils()),
            between=tuple(stay for one in self.free for stay in self._in_fridge(one)),
            busy=tuple(self._busy()),
            capacity=limits | {"fridge": math.floor(area_cm2)},
            worth_first=FIRST,
        )

    def other_turns(self) -> Iterator[Turns]:
        """The same orders placed in other turns: those that are late first, then those due first."""
        fixed = [
            order._replace(pinned=_hours_of(placed), revision=f"{order.revision} fixed") for order, placed in self.fixed
        ]
        late = {one.order.id for one in self.free if one.placed.first < self.now}
        free = [one.order._replace(pinned=None, revision=f"{one.order.revision} free") for one in self.free]
        by_due = sorted(free, key=lambda one: (one.due, one.id), reverse=True)
        yield in_turn([*fixed, *sorted(by_due, key=lambda one: one.id not in late)], self.places)
        yield in_turn([*fixed, *reversed(by_due)], self.places)

    def chosen(self, turns: Turns) -> dict[str, Chosen]:
        """The hours of the movable orders in some turns, as a schedule."""
        movable, found = {one.order.id for one in self.free}, {}
        for one in (_Movable(order, placed) for order, placed in turns if order.id in movable):
            for id, pinned in _hours_of(one.placed).items():
                block = one.points[id].block
                hands = block.hands(self.hours, block.ready)
                way = hands.index(pinned.hand) if pinned.hand in hands else 0
                found[one.id(block)] = Chosen(pinned.spans[0].start, way)
        return found

    def pinned(self, chosen: Mapping[str, Chosen]) -> dict[str, PinnedHours]:
        """A schedule as pinned hours of every order. The fixed ones are pinned too, so that nothing else moves them."""
        found = {order.id: _hours_of(placed) for order, placed in self.fixed}
        for one in self.free:
            hours: dict[str, PinnedBlock] = {}
            for block in one.placed.work:
                start, way = chosen[one.id(block)]
                hand = block.hands(self.hours, block.ready)[way]
                hours[block.steps[0].id] = PinnedBlock(hand, (Span(start, start + block.minutes),))
            found[one.order.id] = hours
        return found

    def _task(self, one: "_Movable", block: Block) -> Task:
        resources = {resource: spans for resource, spans in block.uses.items() if resource in self.hours.limits}
        limited = [use for resource, spans in resources.items() for use in _uses(resource, block, spans)]
        end_by = one.end_by(block)
        ways = [
            Way((*_uses(_hands(hand), block, block.work), *limited), tuple(self._windows(block, hand, end_by)))
            for hand in block.hands(self.hours, block.ready)
        ]
        bakes = any(step.row.kind == "bake" for step in block.steps)
        return Task(one.id(block), block.minutes, tuple(ways), FRESH if bakes else LATER, self.now, TOO_EARLY)

    def _windows(self, block: Block, hand: int, end_by: int) -> Iterator[tuple[int, int]]:
        if block.any_hour:
            yield self.from_min, end_by
            return
        for number in range(self.from_min // DAY_MIN, end_by // DAY_MIN + 1):
            day = self.hours.of_day(hand, number * DAY_MIN)
            begins, ends = max(day.start, self.from_min), min(day.end, end_by)
            if ends - begins >= block.minutes:
                yield begins, ends

    def _in_fridge(self, one: "_Movable") -> Iterator[Between]:
        """A tier is in the fridge between two blocks of work, from its rack on; the whole cake is while it chills."""
        cake = [step for step in one.steps if step.on == "cake"]
        whole = next((step for step in cake if not step.flexible), None)
        for tier in dict.fromkeys(step.tier for step in one.steps if step.on == "tier"):
            steps = [step for step in one.steps if step.tier == tier]
            yield from self._stays(one, steps, [*steps, *([whole] if whole is not None else [])], not_in=("rack",))
        yield from self._stays(one, cake, cake, not_in=("rack", ""))

    def _stays(
        self, one: "_Movable", own: Sequence[Step], steps: Sequence[Step], not_in: Collection[str]
    ) -> Iterator[Between]:
        """The stays between the blocks of some steps, but for waits in other places ("" means that there is none)."""
        last: Block | None = None
        place, amount = "", self._amount(own[0]) if own else 0
        for step in steps:
            block = one.points[step.id].block
            if step.flexible:
                place = step.row.place
                continue
            if last is not None and block is not last and place not in not_in and amount:
                yield Between(one.id(last), last.minutes, one.id(block), "fridge", amount)
            last, place = block, ""

    def _amount(self, step: Step) -> int:
        """The area that a thing takes in the fridge, cm²; 0 if it fits nowhere, which is a check."""
        if step.size is None:
            return 0
        shelves = shelves_needed(step.size, self.places.fridge)
        return math.ceil(step.size.width_mm * step.size.depth_mm / 100 * ROOM_TO_SPARE) * shelves

    def _busy(self) -> Iterator[Busy]:
        """What the fixed orders use. What has begun is in nobody's way before now, whatever its marks say."""
        at_work: dict[int, list[Span]] = {}
        for placed in (placed for _, placed in self.fixed):
            for one in placed.steps:
                begun, (spans, hand, _) = one.id in placed.started, placed.timings[one.id]
                spans = tuple(Span(max(span.start, self.now) if begun else span.start, span.end) for span in spans)
                spans = tuple(span for span in spans if span.start < span.end)
                for resource in (each for each in one.row.uses if each in self.hours.limits):
                    yield from (Busy(resource, span.start, span.end) for span in spans)
                if hand is not None:
                    at_work.setdefault(hand, []).extend(spans)
                if one.row.place == "fridge" and one.id in placed.shelves:
                    yield from (Busy("fridge", span.start, span.end, self._amount(one)) for span in spans)
        for hand, spent in at_work.items():
            yield from (Busy(_hands(hand), span.start, span.end) for span in union(spent))


class _Movable:
    """An order that the solver may move."""

    def __init__(self, order: OrderWork, placed: PlacedOrder) -> None:
        self.order, self.placed = order, placed
        self.steps = [step for block in placed.blocks for step in block.steps]
        self.points = {
            step.id: _Point(block, block.minutes - span.end)
            for block in placed.blocks
            for step, span in zip(block.steps, block.before_end, strict=True)
        }
        """The end of each step, as a point of its block."""

    def id(self, block: Block) -> str:
        """The id of the task of a block."""
        return f"{self.order.id} {block.steps[0].id}"

    def lags(self) -> Iterator[Lag]:
        """Each step starts after those it follows."""
        for block, step, start in self._starts():
            for point in (point for before in step.after for point in self._ends(before)):
                if point.block is not block:
                    yield Lag(self.id(point.block), point.after_min, self.id(block), point.least_min - start)

    def spoils(self) -> Iterator[Spoils]:
        """What must not wait too long: the wait lasts until the first step that follows it."""
        starts = list(self._starts())
        for wait in (step for step in self.steps if step.flexible and step.after):
            uses = tuple((self.id(block), start) for block, step, start in starts if wait.id in step.after)
            if uses and wait.waits is not None and wait.waits.too_long:
                point = self._ends(wait.after[0])[0]
                lasts_min = math.floor(wait.waits.most_min)
                yield Spoils(self.id(point.block), point.after_min, uses, lasts_min, TOO_LONG)

    def end_by(self, block: Block) -> int:
        """The minute by which a block must end, so that there is time for the waits at the end of the order."""
        own = [point for point in self._last_waits if point.block is block]
        return block.ready - max((one.least_min - (block.minutes - one.after_min) for one in own), default=0)

    @cached_property
    def _last_waits(self) -> list[_Point]:
        """The waits that no step follows, from the points where they begin."""
        followed = {before for step in self.steps for before in step.after}
        waits = [step for step in self.steps if step.flexible and step.id not in followed]
        return [point for wait in waits for point in self._ends(wait.id)]

    def _starts(self) -> Iterator[tuple[Block, Step, int]]:
        """Every step of work with its block, and the minutes from the start of the block to its own."""
        for block in self.placed.work:
            for step, span in zip(block.steps, block.before_end, strict=True):
                yield block, step, block.minutes - span.start

    def _ends(self, id: str) -> list[_Point]:
        """The points after which a step is over: its own end; for a wait, the ends of the steps it follows."""
        point = self.points[id]
        if not point.block.flexible:
            return [point]
        (wait,) = point.block.steps
        return [
            one._replace(least_min=one.least_min + wait.minutes) for before in wait.after for one in self._ends(before)
        ]


def _hours_of(placed: PlacedOrder) -> PinnedHours:
    """The hours of an order, to be pinned."""
    found: dict[str, PinnedBlock] = {}
    for block in placed.work:
        first, last = placed.timings[block.steps[0].id], placed.timings[block.steps[-1].id]
        spans = first.spans if len(first.spans) > 1 else (Span(first.whole.start, last.whole.end),)
        hands = (placed.timings[one.id].hand for one in block.steps)
        found[block.steps[0].id] = PinnedBlock(next((hand for hand in hands if hand is not None), 0), spans)
    return found


def _hands(hand: int) -> str:
    return f"hands {hand}"


def _uses(resource: str, block: Block, spans: Sequence[Span]) -> Iterator[Use]:
    """The uses of a resource in spans before the end of a block, those that meet merged."""
    found: list[Span] = []
    for one in spans:
        if found and found[-1].end == one.start:
            found[-1] = Span(found[-1].start, one.end)
        else:
            found.append(one)
    return (Use(resource, block.minutes - one.start, block.minutes - one.end) for one in found)
