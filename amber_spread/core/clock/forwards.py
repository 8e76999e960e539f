"""Scheduling forwards from now, once there is less time left than the work needs.

Everything that has not begun keeps its latest hours if it can; what cannot is done as early as possible, and so is what
follows it (serial list scheduling, a common heuristic; from memory). If the order is not ready in time then, all of it
is tried as early as possible.
"""

import heapq
from bisect import bisect_left
from collections.abc import Mapping, Sequence
from itertools import product

from amber_spread.core.clock.backwards import latest
from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import Hours, Reserved, Span
from amber_spread.core.clock.progress import Progress, Started
from amber_spread.core.clock.schedule import Limited, Schedule, Timing


def forwards(
    blocks: Sequence[Block], hours: Hours, before: Reserved, progress: Progress, started: Mapping[str, Started]
) -> tuple[dict[str, Timing], Reserved]:
    """Schedule every step of some blocks that has not begun, around what is reserved `before`. Returns the timings, and
    all that is reserved then.
    """
    free = latest(blocks, hours, before, progress._replace(marks={}), started)
    late = {block: free.begins(block) for block in free.free}
    early = {block: begins if block.any_hour else progress.earliest for block, begins in late.items()}
    ready = max(block.ready for block in blocks)
    found = _Forwards(blocks, hours, before, progress, started, late)
    if found.ends > ready:
        found = min(found, _Forwards(blocks, hours, before, progress, started, early), key=lambda one: one.ends)
    return found.result()


class _Forwards(Schedule):
    """One pass from now on; no block starts before its minute in `guide`. One that was moved starts when it was moved
    to, whatever the working hours, or as soon after that as it can.
    """

    def __init__(
        self,
        blocks: Sequence[Block],
        hours: Hours,
        before: Reserved,
        progress: Progress,
        started: Mapping[str, Started],
        guide: Mapping[Block, int],
    ) -> None:
        super().__init__(blocks, hours, before, progress, started)
        self.guide = {**guide, **self.moves}
        self._place_all()

    @property
    def ends(self) -> int:
        """The minute at which everything is done."""
        return max(spans[-1].end for spans in self.placed.values())

    def _place_all(self) -> None:
        waiting = {block: sum(one in self.guide for one in block.follows) for block in self.free}
        heap = [(self.guide[block], block.order, block) for block in self.free if not waiting[block]]
        heapq.heapify(heap)
        while heap:
            *_, block = heapq.heappop(heap)
            self._place(block)
            for later in dict.fromkeys(self.block_of[id] for _, id in block.followed_by):
                waiting[later] -= 1
                if not waiting[later]:
                    heapq.heappush(heap, (self.guide[later], later.order, later))
        # A wait lasts until what follows it begins.
        for block in sorted(self.free, key=self.begins, reverse=True):
            if block.flexible and block.followed_by:
                limit = min(self.placed[id][0].start + left for left, id in block.followed_by)
                self.placed[block.steps[0].id] = (Span(limit - block.minutes, limit),)

    def _from(self, block: Block) -> int:
        """The minute from which a block can start: when all that its steps follow is done."""
        pairs = zip(block.steps, block.before_end, strict=True)
        mine = {one.id for one in block.steps}
        after = (
            self.placed[id][-1].end - (block.minutes - span.start)
            for one, span in pairs
            for id in one.after
            if id not in mine
        )
        if block.flexible:
            return max(after, default=self.guide[block])
        return max((self.guide[block], self.earliest(block), *after))

    def _place(self, block: Block) -> None:
        start = self._from(block)
        if block.flexible:
            self.placed[block.steps[0].id] = (Span(start, start + block.minutes),)
            return
        limited = self.limited(block)
        if block.in_parts(self.hours):
            ways = [
                (self._parts(block, start, hand, units), hand, units)
                for hand in range(self.hours.hands)
                for units in product(*(units for units, _ in limited))
            ]
            parts, hand, units = min(ways, key=lambda way: (way[0][-1].end, way[1]))
            self.place_over(block, hand, parts, units)
            return
        hands = block.hands(self.hours, start + block.minutes)
        starts = {hand: self._earliest(block, start, hand, limited) for hand in hands}
        hand = min(starts, key=lambda one: (starts[one], one))
        self.place_at(block, hand, starts[hand] + block.minutes, limited)

    def _parts(self, block: Block, start: int, hand: int, units: Sequence[Sequence[Span]]) -> tuple[Span, ...]:
        return self.hours.parts_after(hand, start, block.minutes, self.taken(hand, units))

    def _earliest(self, block: Block, start: int, hand: int, limited: Limited) -> int:
        """The earliest minute at which one pair of hands can start a block. One longer than any of its days starts with
        a day.
        """
        fits = block.minutes <= self.hours.longest[hand]
        while True:
            if not block.any_hour and block not in self.moves:
                begins, ends = self.hours.of_day(hand, start)
                first = max(start, begins)
                if first + (block.minutes if fits else 1) > ends or (not fits and first > begins):
                    start = self.hours.day_after(hand, start).start
                    continue
                start = first
            delay = max(
                _delay(self.busy[hand], block.work, start + block.minutes),
                *(min(_delay(unit, wanted, start + block.minutes) for unit in units) for units, wanted in limited),
                0,
            )
            if not delay:
                return start
            start += delay


def _delay(reserved: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how many minutes something must end later than `end`, not to overlap reserved time; 0 if it need not.

    `reserved` spans are sorted and do not overlap; `wanted` spans are in minutes before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(reserved, (end - ends,)) - 1
        if at >= 0 and reserved[at].end > end - begins:
            return reserved[at].end - (end - begins)
    return 0
