"""Scheduling backwards: every step as late as possible, counted back from the hour the order must be ready.

Steps that must follow each other at once are one rigid block. A block goes to the pair of hands that can do it last,
within working hours; waits lie between the blocks, and may be longer than they have to be. This is serial list
scheduling on a reversed precedence graph (a common heuristic; from memory). Where a wait would last longer than it may,
what follows it is done earlier and all is scheduled again.
"""

import heapq
from bisect import bisect_left, insort
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import islice
from typing import NamedTuple

from amber_spread.core.clock.steps import Step

DAY_MIN = 24 * 60
ROUNDS = 8
"""So often all is scheduled again for the sake of waits that would last too long."""
ANY_HOUR = ("car", "table")
"""The places where work goes by the hour of the customer, and what must be done at a stretch with it."""


class Span(NamedTuple):
    """From one minute to another."""

    start: int
    end: int


class Hours(NamedTuple):
    """The working day of a kitchen, in minutes after midnight, and how many pairs of hands there are."""

    begins_min: int
    ends_min: int
    hands: int

    @property
    def long_min(self) -> int:
        """How long the working day is, min."""
        return self.ends_min - self.begins_min

    def of_day(self, minute: int) -> Span:
        """The working hours on the day of a minute."""
        midnight = minute - minute % DAY_MIN
        return Span(midnight + self.begins_min, midnight + self.ends_min)


class Timing(NamedTuple):
    """When a step is done and by which pair of hands (counted from 0, None for a wait), and by how much it may be late
    before anything else has to move. Work longer than a day is done in several spans.
    """

    spans: tuple[Span, ...]
    hand: int | None
    slack_min: int

    @property
    def whole(self) -> Span:
        """From its beginning to its end."""
        return Span(self.spans[0].start, self.spans[-1].end)


class Block:
    """Steps that follow each other at once, or one wait that may last longer than it has to."""

    def __init__(self, steps: Sequence[Step], order: int) -> None:
        self.steps, self.order = steps, order
        self.flexible = steps[0].flexible
        self.minutes = sum(one.minutes for one in steps)
        self.any_hour = any(one.row.place in ANY_HOUR for one in steps)
        self.splits = len(steps) == 1 and steps[0].row.splits
        self.before_end = list(self._before_end())
        """How long before the end of the block each step begins and ends, min."""
        pairs = list(zip(steps, self.before_end, strict=True))
        self.work = [span for step, span in pairs if step.hands is not None]
        self.baking = [span for step, span in pairs if step.row.place == "oven"]
        self.follows: dict[Block, None] = {}
        self.followed_by: list[tuple[int, str]] = []
        """The steps of other blocks that follow one of its steps, and how long before its end that one ends, min."""

    def _before_end(self) -> Iterator[Span]:
        left = self.minutes
        for one in self.steps:
            yield Span(left, left - one.minutes)
            left -= one.minutes

    def exceeds(self, hours: Hours) -> bool:
        """Whether it is longer than a working day that it has to fit into."""
        return not (self.flexible or self.any_hour or self.splits) and self.minutes > hours.long_min


def blocks_of(steps: Sequence[Step]) -> list[Block]:
    """The steps in blocks, each joined to those that it follows. Steps stand after those that they follow.

    Raises ValueError where a step follows one that is not there, or one that comes after it.
    """
    blocks = [Block(chain, order) for order, chain in enumerate(_chains(steps))]
    block_of = {one.id: block for block in blocks for one in block.steps}
    ends = {one.id: span.end for block in blocks for one, span in zip(block.steps, block.before_end, strict=True)}
    seen: set[str] = set()
    for one in steps:
        if not seen.issuperset(one.after):
            raise ValueError(f"{one.id} follows a step that does not come before it")
        seen.add(one.id)
        for before in dict.fromkeys(one.after):
            earlier, later = block_of[before], block_of[one.id]
            if earlier is not later:
                later.follows[earlier] = None
                earlier.followed_by.append((ends[before], one.id))
    return blocks


def _chains(steps: Sequence[Step]) -> list[list[Step]]:
    """The steps in chains of those that follow each other at once; a flexible wait stands alone."""
    ends_with: dict[str, list[Step]] = {}
    found: list[list[Step]] = []
    for one in steps:
        chain = ends_with.pop(one.after[0], None) if one.row.at_once and one.after else None
        if chain is None:
            chain = []
            found.append(chain)
        chain.append(one)
        if not one.flexible:
            ends_with[one.id] = chain
    return found


def backwards(blocks: Sequence[Block], ready: int, hours: Hours) -> dict[str, Timing]:
    """When to do each step of some blocks, the last of them by the minute `ready`."""
    steps = [one for block in blocks for one in block.steps]
    starts_by: dict[str, int] = {}
    for _ in range(ROUNDS):
        schedule = _Schedule(blocks, ready, hours, starts_by)
        late = {
            after: span.start + round(one.waits.most_min)
            for one in steps
            if one.flexible and one.waits is not None and lasts_too_long(one, span := schedule.span_of(one))
            for _, after in schedule.block_of[one.id].followed_by
        }
        if not late:
            break
        starts_by |= late
    return {one.id: schedule.timing(one) for one in steps}


def lasts_too_long(step: Step, span: Span) -> bool:
    """Whether a wait lasts longer than it may."""
    waits = step.waits
    return waits is not None and bool(waits.too_long) and span.end - span.start > waits.most_min


class _Schedule:
    """One pass from the end; `starts_by` are the minutes by which some steps must begin."""

    def __init__(self, blocks: Sequence[Block], ready: int, hours: Hours, starts_by: Mapping[str, int]) -> None:
        self.blocks, self.ready, self.hours, self.starts_by = blocks, ready, hours, starts_by
        self.block_of = {one.id: block for block in blocks for one in block.steps}
        self.busy: list[list[Span]] = [[] for _ in range(hours.hands)]
        self.oven: list[Span] = []
        self.placed: dict[str, tuple[Span, ...]] = {}
        self.hand: dict[str, int] = {}
        self._place_all()

    def _place_all(self) -> None:
        """Place every block once all that follow it have their hours: what can end last comes first, and of two alike
        the one later in the work.
        """
        waiting = {block: len({self.block_of[id] for _, id in block.followed_by}) for block in self.blocks}
        heap = [self._entry(block) for block in self.blocks if not waiting[block]]
        heapq.heapify(heap)
        while heap:
            *_, block = heapq.heappop(heap)
            self._place(block)
            for earlier in block.follows:
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
        return min((self.ready, *starts, *by))

    def _place(self, block: Block) -> None:
        limit = self._limit(block)
        if block.flexible:
            self.placed[block.steps[0].id] = (Span(limit - block.minutes, limit),)
            return
        hands = range(self.hours.hands)
        if block.splits and block.minutes > self.hours.long_min:
            parts = [self._in_parts(block, limit, hand) for hand in hands]
            hand = max(hands, key=lambda one: (parts[one][0].start, -one))
            self.placed[block.steps[0].id] = tuple(parts[hand])
            work: Iterable[Span] = parts[hand]
        else:
            ends = [self._latest(block, limit, hand) for hand in hands]
            hand = max(hands, key=lambda one: (ends[one], -one))
            end = ends[hand]
            for one, span in zip(block.steps, block.before_end, strict=True):
                self.placed[one.id] = (_at(span, end),)
            work = [_at(span, end) for span in block.work]
            for span in block.baking:
                insort(self.oven, _at(span, end))
        for span in work:
            insort(self.busy[hand], span)
        self.hand |= {one.id: hand for one in block.steps if one.hands is not None}

    def _latest(self, block: Block, limit: int, hand: int) -> int:
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

    def _in_parts(self, block: Block, limit: int, hand: int) -> list[Span]:
        """Work longer than a day: as much as a pair of hands can do on each day, from the last."""
        spans, left, end = list[Span](), block.minutes, limit
        while left:
            begins, ends = self.hours.of_day(end - 1)
            free = self._free_before(hand, begins, min(end, ends))
            if free is None:
                end = ends - DAY_MIN
                continue
            start = max(free.start, free.end - left)
            spans.insert(0, Span(start, free.end))
            left, end = left - (free.end - start), start
        return spans

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
        spans = self.placed[step.id]
        start = spans[0].start
        if step.flexible:
            start = max((self.placed[before][-1].end for before in step.after), default=start)
        return Span(start, spans[-1].end)

    def timing(self, step: Step) -> Timing:
        """When a step is done, and how much room is left."""
        spans = self.placed[step.id]
        if not step.flexible:
            return Timing(spans, self.hand.get(step.id), self._slack(self.block_of[step.id]))
        lasts = self.span_of(step)
        return Timing((lasts,), None, spans[0].start - lasts.start)

    def _slack(self, block: Block) -> int:
        """How late it may be before what follows it, or what the same hands do next, has to move."""
        end = self.placed[block.steps[-1].id][-1].end
        room = [self.ready - end]
        room += [self.placed[id][0].start - (end - left) for left, id in block.followed_by]
        own = {span for one in block.steps for span in self.placed[one.id]}
        for one in block.steps:
            if one.id in self.hand:
                busy, ends = self.busy[self.hand[one.id]], self.placed[one.id][-1].end
                later = islice(busy, bisect_left(busy, (ends,)), None)
                room += islice((span.start - ends for span in later if span not in own), 1)
        return min(room)


def _at(before_end: Span, end: int) -> Span:
    """When something is done that begins and ends so long before the minute `end`."""
    return Span(end - before_end.start, end - before_end.end)


def _clash(taken: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how much something has to end earlier than `end` for what is taken; 0 where it is not in the way.

    `taken` are spans in their order that do not overlap, `wanted` begin and end so long before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(taken, (end - ends,)) - 1
        if at >= 0 and taken[at].end > end - begins:
            return end - ends - taken[at].start
    return 0
