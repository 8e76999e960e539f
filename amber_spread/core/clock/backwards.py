"""Scheduling backwards: every step as late as possible, counted back from the hour the order must be ready.

Steps that must follow each other at once are one rigid block. A block goes to the pair of hands that can do it last,
within its working hours, when an oven, a mixer, a turntable and a place on a bench are free; waits lie between the
blocks, and may be longer than they have to be. This is serial list scheduling on a reversed precedence graph (a common
heuristic; from memory). Where a wait would last longer than it may, what follows it is done earlier and all is
scheduled again.
"""

import heapq
from bisect import bisect_left, insort
from collections.abc import Iterable, Iterator, Mapping, Sequence
from heapq import merge
from itertools import islice, product
from typing import NamedTuple

from amber_spread.core.clock.hours import FREE, Hours, Span, Taken
from amber_spread.core.clock.places import Resource
from amber_spread.core.clock.steps import Step

ROUNDS = 8
"""So often all is scheduled again for the sake of waits that would last too long."""
ANY_HOUR = ("car", "table")
"""The places where work goes by the hour of the customer, and what must be done at a stretch with it."""


class KeptBlock(NamedTuple):
    """Hours that were chosen for a block: the pair of hands that does it, counted from 0, and its spans, of which there
    are several where it is longer than a day.
    """

    hand: int
    spans: tuple[Span, ...]


KeptHours = Mapping[str, KeptBlock]
"""The hours that were chosen for the blocks of an order, by the id of the first step of each."""


class DoesNotFit(Exception):
    """Hours that were chosen cannot be kept: something else is there, or the steps are others."""


Busy = Sequence[list[Span]]
"""When each of several ovens, mixers or the like is taken."""
Limited = Sequence[tuple[Busy, Sequence[Span]]]
"""What a block takes one of each, and from when to when, min before its end."""


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
    """Steps that follow each other at once, or one wait that may last longer than it has to. They end by the minute
    `ready`.
    """

    def __init__(self, steps: Sequence[Step], order: int, ready: int) -> None:
        self.steps, self.order, self.ready = steps, order, ready
        self.flexible = steps[0].flexible
        self.minutes = sum(one.minutes for one in steps)
        self.any_hour = any(one.row.place in ANY_HOUR for one in steps)
        self.splits = len(steps) == 1 and steps[0].row.splits
        self.before_end = list(self._before_end())
        """How long before the end of the block each step begins and ends, min."""
        pairs = list(zip(steps, self.before_end, strict=True))
        self.work = [span for step, span in pairs if step.hands is not None]
        self.uses: dict[Resource, list[Span]] = {}
        """What it takes one of, and from when to when, min before its end."""
        for step, span in pairs:
            for resource in step.row.uses:
                self.uses.setdefault(resource, []).append(span)
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


def blocks_of(steps: Sequence[Step], ready: int) -> list[Block]:
    """The steps of an order in blocks, each joined to those that it follows. Steps stand after those that they follow,
    and all are done by the minute `ready`.

    Raises ValueError where a step follows one that is not there, or one that comes after it.
    """
    blocks = [Block(chain, order, ready) for order, chain in enumerate(_chains(steps))]
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


def backwards(blocks: Sequence[Block], hours: Hours, before: Taken = FREE) -> tuple[dict[str, Timing], Taken]:
    """When to do each step of some blocks, as late as possible around what is taken `before`; and what is taken with
    them.
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


def keep(blocks: Sequence[Block], hours: Hours, before: Taken, kept: KeptHours) -> tuple[dict[str, Timing], Taken]:
    """Likewise at hours that were chosen. Raises DoesNotFit where they cannot be kept around what is taken before."""
    return _Schedule(blocks, hours, {}, before, kept).result()


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
        before: Taken,
        kept: KeptHours | None = None,
    ) -> None:
        self.blocks, self.hours, self.starts_by, self.kept = blocks, hours, starts_by, kept
        self.block_of = {one.id: block for block in blocks for one in block.steps}
        self.busy, self.taken = hours.taken(before)
        """When each pair of hands, and each of what there is a limit to, is taken."""
        self.used: dict[Block, list[tuple[list[Span], int]]] = {}
        """Which of those a block takes, and until when."""
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
        limited = [(self.taken[resource], wanted) for resource, wanted in block.uses.items() if resource in self.taken]
        if self.kept is not None:
            self._place_as_kept(block, limit, limited)
        elif self.in_parts(block):
            self._place_in_parts(block, limit, [units for units, _ in limited])
        else:
            ends = {hand: self._latest(block, limit, hand, limited) for hand in self._hands_for(block, limit)}
            hand = max(ends, key=lambda one: (ends[one], -one))
            self._place_at(block, hand, ends[hand], limited)

    def in_parts(self, block: Block) -> bool:
        """Whether a block is done on several days."""
        return block.splits and block.minutes > self.hours.long_min

    def _place_at(self, block: Block, hand: int, end: int, limited: Limited) -> None:
        for one, span in zip(block.steps, block.before_end, strict=True):
            self.placed[one.id] = (_at(span, end),)
        self._take(block, hand, [_at(span, end) for span in block.work])
        for units, wanted in limited:
            unit = next(unit for unit in units if not _clash(unit, wanted, end))
            self._use(block, unit, [_at(span, end) for span in wanted])

    def _place_as_kept(self, block: Block, limit: int, limited: Limited) -> None:
        """A block at the hours that were chosen for it. Raises DoesNotFit."""
        kept = (self.kept or {}).get(block.steps[0].id)
        if kept is None or not kept.spans or not 0 <= kept.hand < self.hours.hands or kept.spans[-1].end > limit:
            raise DoesNotFit
        if sum(span.end - span.start for span in kept.spans) != block.minutes:
            raise DoesNotFit
        if len(kept.spans) == 1:
            if kept.hand not in self._hands_for(block, limit):
                raise DoesNotFit
            end = kept.spans[0].end
            if self._latest(block, end, kept.hand, limited) != end:
                raise DoesNotFit
            self._place_at(block, kept.hand, end, limited)
            return
        units = [next((one for one in units if _are_free(one, kept.spans)), None) for units, _ in limited]
        days = (self.hours.of_day(kept.hand, span.end - 1) for span in kept.spans)
        at_work = all(
            day.start <= span.start and span.end <= day.end for day, span in zip(days, kept.spans, strict=True)
        )
        if not (self.in_parts(block) and at_work and _are_free(self.busy[kept.hand], kept.spans)):
            raise DoesNotFit
        self.placed[block.steps[0].id] = kept.spans
        self._take(block, kept.hand, kept.spans)
        for unit in units:
            if unit is None:
                raise DoesNotFit
            self._use(block, unit, kept.spans)

    def _hands_for(self, block: Block, limit: int) -> Sequence[int]:
        """The pairs of hands that may do a block: those whose day is long enough where there are such; and for what is
        done by the hour of the customer, those who work that day.
        """
        hours = self.hours
        if hours.hands == 1:
            return (0,)
        if block.any_hour:
            days = [(hand, hours.of_day(hand, limit - 1)) for hand in range(hours.hands)]
            able = [hand for hand, day in days if day.end > day.start]
        else:
            able = [hand for hand in range(hours.hands) if block.minutes <= hours.longest[hand]]
        return able or range(hours.hands)

    def _take(self, block: Block, hand: int, work: Iterable[Span]) -> None:
        for span in work:
            insort(self.busy[hand], span)
        self.hand |= {one.id: hand for one in block.steps if one.hands is not None}

    def _use(self, block: Block, one: list[Span], spans: Sequence[Span]) -> None:
        for span in spans:
            insort(one, span)
        self.used.setdefault(block, []).append((one, spans[-1].end))

    def _place_in_parts(self, block: Block, limit: int, units: Sequence[Busy]) -> None:
        """Work longer than a day goes to the pair of hands that can begin it last."""
        best: tuple[list[Span], int, tuple[list[Span], ...]] | None = None
        for hand in range(self.hours.hands):
            for chosen in product(*units):
                parts = self._in_parts(
                    block, limit, hand, _union(self.busy[hand], *chosen) if chosen else self.busy[hand]
                )
                if best is None or parts[0].start > best[0][0].start:
                    best = parts, hand, chosen
        assert best is not None
        parts, hand, chosen = best
        self.placed[block.steps[0].id] = tuple(parts)
        self._take(block, hand, parts)
        for one in chosen:
            self._use(block, one, parts)

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
        """Work longer than a day: as much as a pair of hands that is `busy` then can do on each day, from the last."""
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

    def result(self) -> tuple[dict[str, Timing], Taken]:
        """When each step is done, and what is taken with them."""
        hands = tuple(map(tuple, self.busy))
        limited = {resource: tuple(map(tuple, units)) for resource, units in self.taken.items()}
        return {one.id: self.timing(one) for block in self.blocks for one in block.steps}, Taken(hands, limited)

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
        """How late it may be before what follows it, or what the same hands or the same oven do next, has to move."""
        end = self.placed[block.steps[-1].id][-1].end
        room = [block.ready - end]
        room += [self.placed[id][0].start - (end - left) for left, id in block.followed_by]
        own = {span for one in block.steps for span in self.placed[one.id]}
        kept = [
            (self.busy[self.hand[one.id]], self.placed[one.id][-1].end) for one in block.steps if one.id in self.hand
        ]
        for busy, ends in (*kept, *self.used.get(block, ())):
            later = islice(busy, bisect_left(busy, (ends,)), None)
            room += islice((span.start - ends for span in later if span not in own), 1)
        return min(room)


def _at(before_end: Span, end: int) -> Span:
    """When something is done that begins and ends so long before the minute `end`."""
    return Span(end - before_end.start, end - before_end.end)


def _free_before(busy: Sequence[Span], begins: int, end: int) -> Span | None:
    """The last free span between two minutes; what is `busy` stands in its order, and nothing in it overlaps."""
    for taken in reversed(busy):
        if taken.start < end:
            if taken.end < end:
                start = max(begins, taken.end)
                return Span(start, end) if start < end else None
            end = taken.start
    return Span(begins, end) if begins < end else None


def _are_free(busy: Sequence[Span], spans: Sequence[Span]) -> bool:
    """Whether nothing that is `busy` overlaps some spans."""
    return not any(one.start < span.end and span.start < one.end for one in busy for span in spans)


def _union(*busy: Sequence[Span]) -> list[Span]:
    """All of some spans in their order, those that meet or overlap as one."""
    found: list[Span] = []
    for one in merge(*busy):
        if found and one.start <= found[-1].end:
            found[-1] = Span(found[-1].start, max(found[-1].end, one.end))
        else:
            found.append(one)
    return found


def _no_room(limited: Limited, end: int) -> int:
    """By how much a block has to end earlier for the ovens, mixers, turntables and benches it takes; 0 if none."""
    for units, wanted in limited:
        clash = min([_clash(one, wanted, end) for one in units])
        if clash:
            return clash
    return 0


def _clash(taken: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how much something has to end earlier than `end` for what is taken; 0 where it is not in the way.

    `taken` are spans in their order that do not overlap, `wanted` begin and end so long before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(taken, (end - ends,)) - 1
        if at >= 0 and taken[at].end > end - begins:
            return end - ends - taken[at].start
    return 0
