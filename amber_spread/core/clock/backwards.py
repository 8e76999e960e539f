"""Scheduling backwards: every step as late as it can be, counted back from the hour the order must be ready.

Steps that must follow each other at once are one rigid block. A block goes to the pair of hands that can do it last,
within working hours; waits lie between the blocks, and may be longer than they have to be. This is serial list
scheduling on a reversed precedence graph (a common heuristic; from memory). Where a wait would last longer than it may,
what follows it is done earlier and all is scheduled again.
"""

import heapq
from bisect import bisect_left, insort
from collections.abc import Iterator, Mapping, Sequence
from itertools import islice
from typing import NamedTuple

from amber_spread.core.clock.steps import Step

DAY_MIN = 24 * 60
ROUNDS = 8
"""So often all is scheduled again for the sake of waits that would last too long."""
ANY_HOUR = ("car", "table")
"""The places where work goes by the hour of the customer, and what must be done at a stretch with it."""


class Hours(NamedTuple):
    """The working day of a kitchen, in minutes after midnight, and how many pairs of hands there are."""

    begins_min: int
    ends_min: int
    hands: int

    @property
    def long_min(self) -> int:
        """How long the working day is, min."""
        return self.ends_min - self.begins_min

    def of_day(self, minute: int) -> tuple[int, int]:
        """When work begins and ends on the day of a minute."""
        midnight = minute - minute % DAY_MIN
        return midnight + self.begins_min, midnight + self.ends_min


class Span(NamedTuple):
    """From one minute to another."""

    start: int
    end: int


class Timing(NamedTuple):
    """When a step is done and by which pair of hands (counted from 0, None for a wait), and by how much it may be late
    before anything else has to move. Work longer than a day is done in several spans.
    """

    spans: tuple[Span, ...]
    hand: int | None
    slack_min: int

    @property
    def start(self) -> int:
        """When it begins."""
        return self.spans[0].start

    @property
    def end(self) -> int:
        """When it ends."""
        return self.spans[-1].end


class _Block:
    """Steps that follow each other at once."""

    def __init__(self, steps: Sequence[Step]) -> None:
        self.steps = steps
        self.minutes = sum(one.minutes for one in steps)
        self.any_hour = any(one.row.place in ANY_HOUR for one in steps)
        self.splits = len(steps) == 1 and steps[0].row.splits
        self.before_end = list(self._before_end())
        """How long before the end of the block each step begins and ends, min."""
        pairs = list(zip(steps, self.before_end, strict=True))
        self.work = [span for step, span in pairs if step.hands is not None]
        self.baking = [span for step, span in pairs if step.row.place == "oven"]

    def _before_end(self) -> Iterator[Span]:
        left = self.minutes
        for one in self.steps:
            yield Span(left, left - one.minutes)
            left -= one.minutes

    def spans(self, end: int) -> Iterator[tuple[Step, Span]]:
        """When each step is done where the block ends at `end`."""
        for one, (begins, ends) in zip(self.steps, self.before_end, strict=True):
            yield one, Span(end - begins, end - ends)


def is_rigid(step: Step) -> bool:
    """Whether a step takes just as long as it takes: work, or a wait that begins at once and ends by the clock."""
    return step.hands is not None or step.row.at_once


def chains(steps: Sequence[Step]) -> list[list[Step]]:
    """The steps in chains of those that follow each other at once; a flexible wait stands alone."""
    ends_with: dict[str, list[Step]] = {}
    found: list[list[Step]] = []
    for one in steps:
        chain = ends_with.pop(one.after[0], None) if one.row.at_once and one.after else None
        if chain is None:
            chain = []
            found.append(chain)
        chain.append(one)
        if is_rigid(one):
            ends_with[one.id] = chain
    return found


def backwards(steps: Sequence[Step], ready: int, hours: Hours) -> dict[str, Timing]:
    """When to do each of some steps, the last of them by the minute `ready`. Steps stand after those that they follow.

    Raises ValueError where a step follows one that is not there, or one that comes after it.
    """
    seen: set[str] = set()
    for one in steps:
        if not seen.issuperset(one.after):
            raise ValueError(f"{one.id} follows a step that does not come before it")
        seen.add(one.id)
    starts_by: dict[str, int] = {}
    waits = [one for one in steps if not is_rigid(one) and one.row.wait is not None and one.row.wait.too_long]
    for _ in range(ROUNDS):
        schedule = _Schedule(steps, ready, hours, starts_by)
        schedule.place()
        late = {
            after.id: span.start + round(one.row.wait.most_min)
            for one in waits
            if too_long(one, span := schedule.span_of(one)) and one.row.wait is not None
            for after in schedule.followers[one.id]
        }
        if not late:
            break
        starts_by |= late
    return {one.id: schedule.timing(one) for one in steps}


def too_long(step: Step, timing: "Timing | Span") -> bool:
    """Whether a wait lasts longer than it may."""
    wait = step.row.wait
    return wait is not None and bool(wait.too_long) and timing.end - timing.start > wait.most_min


class _Schedule:
    """One pass from the end; `starts_by` are the minutes by which some steps must begin."""

    def __init__(self, steps: Sequence[Step], ready: int, hours: Hours, starts_by: Mapping[str, int]) -> None:
        self.steps, self.ready, self.hours, self.starts_by = steps, ready, hours, starts_by
        self.order = {one.id: place for place, one in enumerate(steps)}
        self.followers: dict[str, list[Step]] = {one.id: [] for one in steps}
        for one in steps:
            for before in dict.fromkeys(one.after):
                self.followers[before].append(one)
        self.busy: list[list[Span]] = [[] for _ in range(hours.hands)]
        self.oven: list[Span] = []
        self.placed: dict[str, tuple[tuple[Span, ...], int | None]] = {}
        self.latest_start: dict[str, int] = {}
        self.items = self._items()
        self.item_of = {one.id: item for item in self.items for one in self._members(item)}

    def _items(self) -> list[_Block | Step]:
        """The steps as blocks and flexible waits."""
        return [_Block(one) if is_rigid(one[0]) else one[0] for one in chains(self.steps)]

    def _members(self, item: "_Block | Step") -> Sequence[Step]:
        return item.steps if isinstance(item, _Block) else (item,)

    def place(self) -> None:
        """Place everything, from the end."""
        waiting = {id(item): self._open_followers(item) for item in self.items}
        heap = [self._entry(item) for item in self.items if not waiting[id(item)]]
        heapq.heapify(heap)
        while heap:
            *_, item = heapq.heappop(heap)
            self._place(item)
            for one in self._members(item):
                for before in dict.fromkeys(one.after):
                    earlier = self.item_of[before]
                    left = waiting[id(earlier)]
                    if earlier is not item and one.id in left:
                        left.discard(one.id)
                        if not left:
                            heapq.heappush(heap, self._entry(earlier))

    def _open_followers(self, item: "_Block | Step") -> set[str]:
        own = {one.id for one in self._members(item)}
        return {after.id for one in self._members(item) for after in self.followers[one.id]} - own

    def _entry(self, item: "_Block | Step") -> tuple[int, int, "_Block | Step"]:
        """What can end last comes first; of two alike, the one later in the work."""
        return -self._limit(item), -self.order[self._members(item)[-1].id], item

    def _limit(self, item: "_Block | Step") -> int:
        """The minute by which it has to end, so that all that follows any of its steps can begin."""
        steps = self._members(item)
        own = {one.id for one in steps}
        limit, tail = self.ready, sum(one.minutes for one in steps)
        for one in steps:
            if one.id in self.starts_by:
                limit = min(limit, self.starts_by[one.id] + tail)
            tail -= one.minutes
            for after in self.followers[one.id]:
                if after.id not in own:
                    limit = min(limit, self.latest_start[after.id] + tail)
        return limit

    def _place(self, item: "_Block | Step") -> None:
        limit = self._limit(item)
        if not isinstance(item, _Block):
            self.latest_start[item.id] = limit - item.minutes
            self.placed[item.id] = (Span(limit - item.minutes, limit),), None
            return
        if item.splits and item.minutes > self.hours.long_min:
            self._place_in_parts(item, limit)
            return
        hand, end = max(
            ((hand, self._latest(item, limit, hand)) for hand in range(self.hours.hands)),
            key=lambda one: (one[1], -one[0]),
        )
        for one, span in item.spans(end):
            self.placed[one.id] = (span,), hand if one.hands is not None else None
            self.latest_start[one.id] = span.start
        for taken, wanted in ((self.busy[hand], item.work), (self.oven, item.baking)):
            for begins, ends in wanted:
                insort(taken, Span(end - begins, end - ends))

    def _latest(self, block: _Block, limit: int, hand: int) -> int:
        """The latest minute at which a block can end, of one pair of hands."""
        end = limit
        while True:
            if not block.any_hour:
                begins, ends = self.hours.of_day(end - 1)
                if end > ends:
                    end = ends
                elif end <= begins or (end - block.minutes < begins and block.minutes <= self.hours.long_min):
                    end = ends - DAY_MIN
                    continue
            clash = _clash(self.busy[hand], block.work, end) or _clash(self.oven, block.baking, end)
            if not clash:
                return end
            end -= clash

    def _place_in_parts(self, block: _Block, limit: int) -> None:
        """Work longer than a day: as much as a pair of hands can do on each day, from the last."""
        (step,), best = block.steps, list[Span]()
        hand = 0
        for number in range(self.hours.hands):
            spans, left, end = list[Span](), step.minutes, limit
            while left:
                begins, ends = self.hours.of_day(end - 1)
                end = min(end, ends)
                free = self._free_before(number, begins, end)
                if free is None:
                    end = ends - DAY_MIN
                    continue
                start = max(free.start, free.end - left)
                spans.insert(0, Span(start, free.end))
                left, end = left - (free.end - start), start
            if not best or spans[0].start > best[0].start:
                best, hand = spans, number
        self.placed[step.id] = tuple(best), hand
        self.latest_start[step.id] = best[0].start
        self.busy[hand] = sorted([*self.busy[hand], *best])

    def _free_before(self, hand: int, begins: int, end: int) -> Span | None:
        """The last free span of a pair of hands between two minutes."""
        for taken in reversed(self.busy[hand]):
            if taken.start < end:
                if taken.end < end:
                    start = max(begins, taken.end)
                    return Span(start, end) if start < end else None
                end = taken.start
        return Span(begins, end) if begins < end else None

    def span_of(self, step: Step) -> Span:
        """From when to when a step lasts: a flexible wait from the end of all that it follows."""
        spans, _ = self.placed[step.id]
        start = spans[0].start
        if not is_rigid(step):
            start = max((self.placed[before][0][-1].end for before in step.after), default=start)
        return Span(start, spans[-1].end)

    def timing(self, step: Step) -> Timing:
        """When a step is done, and how much room is left."""
        spans, hand = self.placed[step.id]
        if is_rigid(step):
            return Timing(spans, hand, self._slack(step))
        lasts = self.span_of(step)
        return Timing((lasts,), None, spans[0].start - lasts.start)

    def _slack(self, step: Step) -> int:
        """How late it may be before what follows it, or what the same hands do next, has to move."""
        block = self.item_of[step.id]
        steps = self._members(block)
        own = {one.id for one in steps}
        own_spans = {span for one in steps for span in self.placed[one.id][0]}
        slack = self.ready - self.placed[steps[-1].id][0][-1].end
        for one in steps:
            spans, hand = self.placed[one.id]
            end = spans[-1].end
            rest = [self.latest_start[after.id] for after in self.followers[one.id] if after.id not in own]
            if hand is not None:
                later = islice(self.busy[hand], bisect_left(self.busy[hand], (end,)), None)
                rest += islice((span.start for span in later if span not in own_spans), 1)
            slack = min([slack, *(start - end for start in rest)])
        return max(0, slack)


def _clash(taken: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how much something has to end earlier than `end` for what is taken; 0 where it is not in the way.

    `taken` are spans in their order that do not overlap, `wanted` begin and end so long before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(taken, (end - ends,)) - 1
        if at >= 0 and taken[at].end > end - begins:
            return end - ends - taken[at].start
    return 0
