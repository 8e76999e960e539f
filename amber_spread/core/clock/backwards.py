"""Scheduling backwards: every step as late as possible, counted back from the hour the order must be ready.

Steps that must follow each other at once are one rigid block. A block goes to the pair of hands that can do it last,
within its working hours, when an oven, a mixer, a turntable and a place on a bench are free; waits lie between the
blocks, and may be longer than they have to be. This is serial list scheduling on a reversed precedence graph (a common
heuristic; from memory). Where a wait would last longer than it may, what follows it is done earlier and all is
scheduled again.
"""

import heapq
from bisect import bisect_left, insort
from collections.abc import Iterable, Mapping, Sequence
from heapq import merge
from itertools import islice, pairwise, product
from typing import NamedTuple

from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import NOTHING_RESERVED, Hours, Reserved, Span
from amber_spread.core.clock.steps import Step

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


class DoesNotFit(Exception):
    """Pinned hours do not fit: the time is reserved, or the steps have changed."""


Units = Sequence[list[Span]]
"""The reserved time of each oven, each mixer, and so on."""
Limited = Sequence[tuple[Units, Sequence[Span]]]
"""The resources that a block uses, one unit of each, and when, in minutes before its end."""


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


def backwards(
    blocks: Sequence[Block], hours: Hours, before: Reserved = NOTHING_RESERVED
) -> tuple[dict[str, Timing], Reserved]:
    """Schedule every step of some blocks as late as possible, around what is reserved `before`. Returns the timings,
    and all that is reserved then.
    """
    steps = [one for block in blocks for one in block.steps]
    starts_by: dict[str, int] = {}
    for _ in range(ROUNDS):
        schedule = _Schedule(blocks, hours, starts_by, before)
        late = {
            after: span.start + round(one.waits.most_min)
            for one in steps
            if one.flexible and one.waits is not None and lasts_too_long(one, span := schedule.span_of(one))
            for _, after in schedule.block_of[one.id].followed_by
        }
        if not late:
            break
        starts_by |= late
    return schedule.result()


def at_pinned_hours(
    blocks: Sequence[Block], hours: Hours, before: Reserved, pinned: PinnedHours
) -> tuple[dict[str, Timing], Reserved]:
    """Schedule every step at its pinned hours. Returns what `backwards` does. Raises DoesNotFit if a block is not
    pinned, or cannot be done then.
    """
    return _Schedule(blocks, hours, {}, before, pinned).result()


def lasts_too_long(step: Step, span: Span) -> bool:
    """Whether a wait lasts longer than it may."""
    waits = step.waits
    return waits is not None and bool(waits.too_long) and span.end - span.start > waits.most_min


class _Schedule:
    """One pass from the end; `starts_by` are the minutes by which some steps must begin."""

    def __init__(
        self,
        blocks: Sequence[Block],
        hours: Hours,
        starts_by: Mapping[str, int],
        before: Reserved,
        pinned: PinnedHours | None = None,
    ) -> None:
        self.blocks, self.hours, self.starts_by, self.pinned = blocks, hours, starts_by, pinned
        self.block_of = {one.id: block for block in blocks for one in block.steps}
        self.busy = [list(one) for one in before.hands] or [list[Span]() for _ in range(hours.hands)]
        self.units = {
            resource: [list(one) for one in before.resources.get(resource, ((),) * count)]
            for resource, count in hours.limits.items()
        }
        self.used: dict[Block, list[tuple[list[Span], int]]] = {}
        """The units that a block uses, and until when."""
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
        return min((block.ready, *starts, *by))

    def _place(self, block: Block) -> None:
        limit = self._limit(block)
        if block.flexible:
            self.placed[block.steps[0].id] = (Span(limit - block.minutes, limit),)
            return
        limited = [(self.units[resource], wanted) for resource, wanted in block.uses.items() if resource in self.units]
        if self.pinned is not None:
            self._place_pinned(block, self.pinned.get(block.steps[0].id), limit, limited)
        elif block.in_parts(self.hours):
            self._place_in_parts(block, limit, limited)
        else:
            ends = {hand: self._latest(block, limit, hand, limited) for hand in block.hands(self.hours, limit)}
            hand = max(ends, key=lambda one: (ends[one], -one))
            self._place_at(block, hand, ends[hand], limited)

    def _place_at(self, block: Block, hand: int, end: int, limited: Limited) -> None:
        for one, span in zip(block.steps, block.before_end, strict=True):
            self.placed[one.id] = (_at(span, end),)
        self._reserve(block, hand, [_at(span, end) for span in block.work])
        for units, wanted in limited:
            unit = next(unit for unit in units if not _clash(unit, wanted, end))
            self._use(block, unit, [_at(span, end) for span in wanted])

    def _place_over(self, block: Block, hand: int, spans: Sequence[Span], units: Iterable[list[Span]]) -> None:
        """Place a block that is done in several spans, in which it uses all its resources."""
        self.placed[block.steps[0].id] = tuple(spans)
        self._reserve(block, hand, spans)
        for unit in units:
            self._use(block, unit, spans)

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
            self._place_at(block, hand, end, limited)
            return
        days = [self.hours.of_day(hand, span.end - 1) for span in spans]
        at_work = all(day.start <= span.start < span.end <= day.end for day, span in zip(days, spans, strict=True))
        units = [unit for units, _ in limited for unit in [one for one in units if _are_free(one, spans)][:1]]
        in_order = all(one.end <= other.start for one, other in pairwise(spans))
        if not (at_work and in_order and _are_free(self.busy[hand], spans)) or len(units) < len(limited):
            raise DoesNotFit
        self._place_over(block, hand, spans, units)

    def _reserve(self, block: Block, hand: int, work: Iterable[Span]) -> None:
        for span in work:
            insort(self.busy[hand], span)
        self.hand |= {one.id: hand for one in block.steps if one.hands is not None}

    def _use(self, block: Block, unit: list[Span], spans: Sequence[Span]) -> None:
        for span in spans:
            insort(unit, span)
        self.used.setdefault(block, []).append((unit, spans[-1].end))

    def _place_in_parts(self, block: Block, limit: int, limited: Limited) -> None:
        """Work longer than a day goes to the pair of hands that can begin it last."""
        ways = [
            (self._in_parts(block, limit, hand, _union(self.busy[hand], *units)), hand, units)
            for hand in range(self.hours.hands)
            for units in product(*(units for units, _ in limited))
        ]
        parts, hand, units = max(ways, key=lambda way: way[0][0].start)
        self._place_over(block, hand, parts, units)

    def _latest(self, block: Block, limit: int, hand: int, limited: Limited) -> int:
        """The latest minute at which a block can end, of one pair of hands."""
        end = limit
        fits = block.minutes <= self.hours.longest[hand]
        while True:
            if not block.any_hour:
                begins, ends = self.hours.of_day(hand, end - 1)
                last = min(end, ends)
                if last <= begins or (fits and last - block.minutes < begins):
                    end = self.hours.day_before(hand, end - 1).end
                    continue
                end = last
            clash = _clash(self.busy[hand], block.work, end) or _no_room(limited, end)
            if not clash:
                return end
            end -= clash

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

    def result(self) -> tuple[dict[str, Timing], Reserved]:
        """The timing of every step, and all that is reserved."""
        hands = tuple(map(tuple, self.busy))
        resources = {resource: tuple(map(tuple, units)) for resource, units in self.units.items()}
        return {one.id: self.timing(one) for block in self.blocks for one in block.steps}, Reserved(hands, resources)

    def span_of(self, step: Step) -> Span:
        """From when to when a step lasts: a flexible wait from the end of all that it follows."""
        spans = self.placed[step.id]
        start = spans[0].start
        if step.flexible:
            start = max((self.placed[before][-1].end for before in step.after), default=start)
        return Span(start, spans[-1].end)

    def timing(self, step: Step) -> Timing:
        """When a step is done, and how late it may be."""
        spans = self.placed[step.id]
        if not step.flexible:
            return Timing(spans, self.hand.get(step.id), self._slack(self.block_of[step.id]))
        lasts = self.span_of(step)
        return Timing((lasts,), None, spans[0].start - lasts.start)

    def _slack(self, block: Block) -> int:
        """How late it may be before what follows it, or what the same hands or the same oven do next, has to move."""
        end = self.placed[block.steps[-1].id][-1].end
        room = [block.ready - end]
        room += [self.placed[id][0].start - (end - left) for left, id in block.followed_by]
        own = {span for one in block.steps for span in self.placed[one.id]}
        hands = [
            (self.busy[self.hand[one.id]], self.placed[one.id][-1].end) for one in block.steps if one.id in self.hand
        ]
        for busy, ends in (*hands, *self.used.get(block, ())):
            later = islice(busy, bisect_left(busy, (ends,)), None)
            room += islice((span.start - ends for span in later if span not in own), 1)
        return min(room)


def _at(before_end: Span, end: int) -> Span:
    """When something is done that begins and ends so long before the minute `end`."""
    return Span(end - before_end.start, end - before_end.end)


def _free_before(busy: Sequence[Span], begins: int, end: int) -> Span | None:
    """The last free span between two minutes. The `busy` spans are sorted and do not overlap."""
    for one in reversed(busy):
        if one.start < end:
            if one.end < end:
                start = max(begins, one.end)
                return Span(start, end) if start < end else None
            end = one.start
    return Span(begins, end) if begins < end else None


def _are_free(busy: Sequence[Span], spans: Sequence[Span]) -> bool:
    """Whether no `busy` span overlaps one of the others."""
    return not any(one.start < span.end and span.start < one.end for one in busy for span in spans)


def _union(*busy: Sequence[Span]) -> list[Span]:
    """The union of several sorted lists of spans: sorted, those that meet or overlap merged."""
    found: list[Span] = []
    for one in merge(*busy):
        if found and one.start <= found[-1].end:
            found[-1] = Span(found[-1].start, max(found[-1].end, one.end))
        else:
            found.append(one)
    return found


def _no_room(limited: Limited, end: int) -> int:
    """By how many minutes a block must end earlier for lack of an oven, mixer, turntable or bench; 0 if it need not."""
    for units, wanted in limited:
        clash = min([_clash(one, wanted, end) for one in units])
        if clash:
            return clash
    return 0


def _clash(reserved: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how many minutes something must end earlier than `end`, not to overlap reserved time; 0 if it need not.

    `reserved` spans are sorted and do not overlap; `wanted` spans are in minutes before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(reserved, (end - ends,)) - 1
        if at >= 0 and reserved[at].end > end - begins:
            return end - ends - reserved[at].start
    return 0
