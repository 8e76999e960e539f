"""Scheduling backwards: every step as late as possible, counted back from the hour the order must be ready.

Steps that must follow each other at once are one rigid block. A block goes to the pair of hands that can do it last,
within its working hours, when an oven, a mixer, a turntable and a place on a bench are free; waits lie between the
blocks, and may be longer than they have to be. This is serial list scheduling on a reversed precedence graph (a common
heuristic; from memory). Where a wait would last longer than it may, what follows it is done earlier and all is
scheduled again.
"""

import heapq
from collections.abc import Mapping, Sequence
from itertools import pairwise, product
from typing import NamedTuple

from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import NOTHING_RESERVED, Hours, Reserved, Span, are_free
from amber_spread.core.clock.progress import Progress, Started
from amber_spread.core.clock.schedule import DoesNotFit, Limited, Schedule, Timing, clash, lasts_too_long

ROUNDS = 8
"""So often all is scheduled again for the sake of waits that would last too long."""


class PinnedBlock(NamedTuple):
    """Hours that somebody chose for a block: the pair of hands, counted from 0, and the spans; more than one if the
    block is longer than a day.
    """

    hand: int
    spans: tuple[Span, ...]


PinnedHours = Mapping[str, PinnedBlock]
"""The hours chosen for the blocks of an order, by the id of the first step of each."""


def backwards(
    blocks: Sequence[Block],
    hours: Hours,
    before: Reserved = NOTHING_RESERVED,
    progress: Progress | None = None,
    started: Mapping[str, Started] = {},
) -> tuple[dict[str, Timing], Reserved]:
    """Schedule every step of some blocks as late as possible, around what is reserved `before`. Returns the timings,
    and all that is reserved then. Raises DoesNotFit if something that has not begun would have to begin before now, or
    cannot start at the hour it was moved to.
    """
    schedule = latest(blocks, hours, before, progress, started)
    if progress is not None:
        schedule.check_hours()
    return schedule.result()


def latest(
    blocks: Sequence[Block],
    hours: Hours,
    before: Reserved = NOTHING_RESERVED,
    progress: Progress | None = None,
    started: Mapping[str, Started] = {},
) -> Schedule:
    """The schedule with everything as late as possible, even if that is before now. Raises DoesNotFit if a block cannot
    start at the hour it was moved to.
    """
    steps = [one for block in blocks for one in block.steps]
    starts_by: dict[str, int] = {}
    for _ in range(ROUNDS):
        schedule = _Backwards(blocks, hours, before, progress, started, starts_by)
        late = {
            after: span.start + round(one.waits.most_min)
            for one in steps
            if one.flexible and one.waits is not None and lasts_too_long(one, span := schedule.span_of(one))
            for _, after in schedule.block_of[one.id].followed_by
            if after not in started
        }
        if not late:
            break
        starts_by |= late
    return schedule


def at_pinned_hours(
    blocks: Sequence[Block],
    hours: Hours,
    before: Reserved,
    pinned: PinnedHours,
    progress: Progress | None = None,
    started: Mapping[str, Started] = {},
) -> tuple[dict[str, Timing], Reserved]:
    """Schedule every step that has not begun at its pinned hours. Returns what `backwards` does. Raises DoesNotFit if a
    block is not pinned, or cannot be done then.
    """
    schedule = _Backwards(blocks, hours, before, progress, started, {}, pinned)
    if progress is not None:
        schedule.check_hours()
    return schedule.result()


class _Backwards(Schedule):
    """One pass from the end; `starts_by` are the minutes by which some steps must begin."""

    def __init__(
        self,
        blocks: Sequence[Block],
        hours: Hours,
        before: Reserved,
        progress: Progress | None,
        started: Mapping[str, Started],
        starts_by: Mapping[str, int],
        pinned: PinnedHours | None = None,
    ) -> None:
        super().__init__(blocks, hours, before, progress, started)
        self.starts_by, self.pinned = starts_by, pinned
        self._place_all()

    def _place_all(self) -> None:
        """Place every block once all that follow it have their hours: what can end last comes first, and of two alike
        the one later in the work.
        """
        waiting = {block: len({self.block_of[id] for _, id in block.followed_by}) for block in self.free}
        heap = [self._entry(block) for block in self.free if not waiting[block]]
        heapq.heapify(heap)
        while heap:
            *_, block = heapq.heappop(heap)
            self._place(block)
            for earlier in block.follows:
                if earlier not in waiting:
                    continue  # it has begun
                waiting[earlier] -= 1
                if not waiting[earlier]:
                    heapq.heappush(heap, self._entry(earlier))

    def _entry(self, block: Block) -> tuple[int, int, Block]:
        return -self._limit(block), -block.order, block

    def _limit(self, block: Block) -> int:
        """The minute by which it has to end, so that all that follows any of its steps can begin."""
        starts = (self.placed[id][0].start + left for left, id in block.followed_by)
        pairs = zip(block.steps, block.before_end, strict=True)
        by = (self.starts_by[one.id] + span.start for one, span in pairs if one.id in self.starts_by)
        return min((block.ready, *starts, *by))

    def _place(self, block: Block) -> None:
        limit = self._limit(block)
        if block.flexible:
            self.placed[block.steps[0].id] = (Span(limit - block.minutes, limit),)
            return
        limited = self.limited(block)
        if block in self.moves:
            self._place_moved(block, self.moves[block] + block.minutes, limit, limited)
        elif self.pinned is not None:
            self._place_pinned(block, self.pinned.get(block.steps[0].id), limit, limited)
        elif block.in_parts(self.hours):
            self._place_in_parts(block, limit, limited)
        else:
            ends = {hand: self._latest(block, limit, hand, limited) for hand in block.hands(self.hours, limit)}
            hand = max(ends, key=lambda one: (ends[one], -one))
            self.place_at(block, hand, ends[hand], limited)

    def _place_moved(self, block: Block, end: int, limit: int, limited: Limited) -> None:
        hands = [one for one in block.hands(self.hours, end) if self._latest(block, end, one, limited) == end]
        if end > limit or not hands or block.in_parts(self.hours):
            raise DoesNotFit
        self.place_at(block, hands[0], end, limited)

    def _place_pinned(self, block: Block, pinned: PinnedBlock | None, limit: int, limited: Limited) -> None:
        if pinned is None or not pinned.spans or pinned.spans[-1].end > limit:
            raise DoesNotFit
        hand, spans = pinned
        if hand not in block.hands(self.hours, limit) or sum(end - start for start, end in spans) != block.minutes:
            raise DoesNotFit
        if not block.in_parts(self.hours):
            end = spans[-1].end
            if len(spans) > 1 or self._latest(block, end, hand, limited) != end:
                raise DoesNotFit
            self.place_at(block, hand, end, limited)
            return
        days = [self.hours.of_day(hand, span.end - 1) for span in spans]
        at_work = all(day.start <= span.start < span.end <= day.end for day, span in zip(days, spans, strict=True))
        units = [unit for units, _ in limited for unit in [one for one in units if are_free(one, spans)][:1]]
        in_order = all(one.end <= other.start for one, other in pairwise(spans))
        if not (at_work and in_order and are_free(self.busy[hand], spans)) or len(units) < len(limited):
            raise DoesNotFit
        self.place_over(block, hand, spans, units)

    def _place_in_parts(self, block: Block, limit: int, limited: Limited) -> None:
        """Work longer than a day goes to the pair of hands that can begin it last."""
        ways = [
            (self._in_parts(block, limit, hand, self.taken(hand, units)), hand, units)
            for hand in range(self.hours.hands)
            for units in product(*(units for units, _ in limited))
        ]
        parts, hand, units = max(ways, key=lambda way: way[0][0].start)
        self.place_over(block, hand, parts, units)

    def _latest(self, block: Block, limit: int, hand: int, limited: Limited) -> int:
        """The latest minute at which a block can end, of one pair of hands."""
        end = limit
        fits = block.minutes <= self.hours.longest[hand]
        while True:
            if not block.any_hour and block not in self.moves:
                begins, ends = self.hours.of_day(hand, end - 1)
                last = min(end, ends)
                if last <= begins or (fits and last - block.minutes < begins):
                    end = self.hours.day_before(hand, end - 1).end
                    continue
                end = last
            earlier = clash(self.busy[hand], block.work, end) or _no_room(limited, end)
            if not earlier:
                return end
            end -= earlier

    def _in_parts(self, block: Block, limit: int, hand: int, busy: Sequence[Span]) -> list[Span]:
        """The spans of work that is longer than a day: on each day, from the last, as much as a pair of hands can do
        while it is not `busy`.
        """
        spans, left, end = list[Span](), block.minutes, limit
        while left:
            begins, ends = self.hours.of_day(hand, end - 1)
            free = _free_before(busy, begins, min(end, ends))
            if free is None:
                end = self.hours.day_before(hand, end - 1).end
                continue
            start = max(free.start, free.end - left)
            spans.insert(0, Span(start, free.end))
            left, end = left - (free.end - start), start
        return spans


def _free_before(busy: Sequence[Span], begins: int, end: int) -> Span | None:
    """The last free span between two minutes. The `busy` spans are sorted and do not overlap."""
    for one in reversed(busy):
        if one.start < end:
            if one.end < end:
                start = max(begins, one.end)
                return Span(start, end) if start < end else None
            end = one.start
    return Span(begins, end) if begins < end else None


def _no_room(limited: Limited, end: int) -> int:
    """By how many minutes a block must end earlier for lack of an oven, mixer, turntable or bench; 0 if it need not."""
    for units, wanted in limited:
        earlier = min([clash(one, wanted, end) for one in units])
        if earlier:
            return earlier
    return 0
