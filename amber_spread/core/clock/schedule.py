"""A schedule of the work on one order: the hours of its blocks, and what of the kitchen's time they reserve."""

from bisect import bisect_left, insort
from collections.abc import Iterable, Mapping, Sequence
from itertools import islice
from typing import NamedTuple

from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import NOTHING_RESERVED, Hours, Reserved, Span, union
from amber_spread.core.clock.progress import Progress, Started
from amber_spread.core.clock.steps import Step


class DoesNotFit(Exception):
    """Hours do not fit: the time is reserved, has passed, or the steps have changed."""


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


def lasts_too_long(step: Step, span: Span) -> bool:
    """Whether a wait lasts longer than it may."""
    waits = step.waits
    return waits is not None and bool(waits.too_long) and span.end - span.start > waits.most_min


class Schedule:
    """The hours of the blocks of one order, around what is reserved `before`. Steps that have `started` have theirs,
    whose time is reserved already.
    """

    def __init__(
        self,
        blocks: Sequence[Block],
        hours: Hours,
        before: Reserved = NOTHING_RESERVED,
        progress: Progress | None = None,
        started: Mapping[str, Started] = {},
    ) -> None:
        self.blocks, self.hours, self.progress, self.started = blocks, hours, progress, started
        self.block_of = {one.id: block for block in blocks for one in block.steps}
        self.busy = [list(one) for one in before.hands] or [list[Span]() for _ in range(hours.hands)]
        self.units = {
            resource: [list(one) for one in before.resources.get(resource, ((),) * count)]
            for resource, count in hours.limits.items()
        }
        self.used: dict[Block, list[tuple[list[Span], int]]] = {}
        """The units that a block uses, and until when."""
        self.placed: dict[str, tuple[Span, ...]] = {id: one.spans for id, one in started.items()}
        self.hand: dict[str, int] = {id: one.hand for id, one in started.items() if one.hand is not None}
        self.free = [block for block in blocks if block.steps[0].id not in started]
        self.moves = {} if progress is None else progress.moves(self.free)

    def limited(self, block: Block) -> Limited:
        """The resources a block uses that can run out."""
        return [(self.units[resource], wanted) for resource, wanted in block.uses.items() if resource in self.units]

    def place_at(self, block: Block, hand: int, end: int, limited: Limited) -> None:
        for one, span in zip(block.steps, block.before_end, strict=True):
            self.placed[one.id] = (_at_end(span, end),)
        self.reserve(block, hand, [_at_end(span, end) for span in block.work])
        for units, wanted in limited:
            unit = next(unit for unit in units if not clash(unit, wanted, end))
            self.use(block, unit, [_at_end(span, end) for span in wanted])

    def place_over(self, block: Block, hand: int, spans: Sequence[Span], units: Iterable[list[Span]]) -> None:
        """Place a block that is done in several spans, in which it uses all its resources."""
        self.placed[block.steps[0].id] = tuple(spans)
        self.reserve(block, hand, spans)
        for unit in units:
            self.use(block, unit, spans)

    def reserve(self, block: Block, hand: int, work: Iterable[Span]) -> None:
        for span in work:
            insort(self.busy[hand], span)
        self.hand |= {one.id: hand for one in block.steps if one.hands is not None}

    def use(self, block: Block, unit: list[Span], spans: Sequence[Span]) -> None:
        for span in spans:
            insort(unit, span)
        self.used.setdefault(block, []).append((unit, spans[-1].end))

    def taken(self, hand: int, units: Sequence[Sequence[Span]]) -> list[Span]:
        """When a pair of hands, or one of some units, is taken."""
        return union([*self.busy[hand], *(span for unit in units for span in unit)])

    def check_hours(self) -> None:
        """Check the hours of what has not begun: it begins when all that it follows is done, and no work begins before
        now. Raises DoesNotFit.
        """
        for block in self.free:
            for one in block.steps:
                start = self.placed[one.id][0].start
                if any(self.placed[id][-1].end > start for id in one.after):
                    raise DoesNotFit
            if not block.flexible and self.begins(block) < self.earliest(block):
                raise DoesNotFit

    def earliest(self, block: Block) -> int:
        """The earliest minute at which a block can begin: one that was moved, at any minute from now on."""
        if self.progress is None:
            return 0
        return self.progress.now if block in self.moves else self.progress.earliest

    def begins(self, block: Block) -> int:
        """The minute at which a block begins."""
        return self.placed[block.steps[0].id][0].start

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
            slack = 0 if step.id in self.started else self._slack(self.block_of[step.id])
            return Timing(spans, self.hand.get(step.id), slack)
        lasts = self.span_of(step)
        slack = spans[0].start - lasts.start
        return Timing((lasts,), None, slack if self.progress is None else max(0, slack))

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
        return min(room) if self.progress is None else max(0, min(room))


def _at_end(before_end: Span, end: int) -> Span:
    """When something is done that begins and ends so long before the minute `end`."""
    return Span(end - before_end.start, end - before_end.end)


def clash(reserved: Sequence[Span], wanted: Sequence[Span], end: int) -> int:
    """By how many minutes something must end earlier than `end`, not to overlap reserved time; 0 if it need not.

    `reserved` spans are sorted and do not overlap; `wanted` spans are in minutes before the end.
    """
    for begins, ends in wanted:
        at = bisect_left(reserved, (end - ends,)) - 1
        if at >= 0 and reserved[at].end > end - begins:
            return end - ends - reserved[at].start
    return 0
