"""What has been done of an order so far: the marks at its steps, and the hours that follow from them."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

from amber_spread.core.clock.blocks import Block
from amber_spread.core.clock.hours import DAY_MIN, Hours, Reserved, Span, are_free, union
from amber_spread.core.clock.steps import Step

STEP_MIN = 5
"""Work that is late is planned from the next hour that these minutes divide."""


EARLIEST_MIN, LATEST_MIN = 56 * DAY_MIN, 7 * DAY_MIN
"""How long before an order is due a step can have begun, and how long after it one can start."""


class Mark(NamedTuple):
    """What is noted at a step: when it was `begun`, when it was `done`, and by which pair of hands (counted from 0); or
    the hour at which it is to `start`. In minutes from 1 January 1970.
    """

    begun: int | None = None
    done: int | None = None
    start: int | None = None
    hand: int | None = None

    @property
    def started(self) -> bool:
        """Whether hands have been on it."""
        return self.begun is not None or self.done is not None

    def trouble(self, work: bool, now: int, due: int) -> tuple[str, str] | None:
        """What is wrong with the mark at a step (`work`, or a wait) of an order that is `due`: the field, and what it
        should be.
        """
        if self.start is not None and not work:
            return "start", "should be empty for a wait: move the work after it"
        if self.begun is not None and not work:
            return "begun", "should be empty for a wait: it begins when what comes before it is done"
        if self.start is not None and not now <= self.start <= due + LATEST_MIN:
            return "start", "should be an hour from now on, a week after it is due at the latest"
        for field, at in (("begun", self.begun), ("done", self.done)):
            if at is not None and not due - EARLIEST_MIN <= at <= now:
                return field, "should be an hour that has passed, in the eight weeks before it is due"
        if self.begun is not None and self.done is not None and self.done < self.begun:
            return "done", "should be no earlier than the hour it was begun"
        return None


Marks = Mapping[str, Mark]
"""The marks of an order, by step. Without one, nothing has begun."""


class Progress(NamedTuple):
    """The marks of an order, and the hour on the wall; whether it is planned `from_now` even without marks."""

    marks: Marks
    now: int
    from_now: bool = False

    def with_mark(self, step: str, mark: Mark | None) -> "Progress | None":
        """The same with another mark at a step, None for no mark there; None once there is nothing left."""
        marks = {id: one for id, one in self.marks.items() if id != step} | ({} if mark is None else {step: mark})
        return self._replace(marks=marks) if marks or self.from_now else None

    @property
    def earliest(self) -> int:
        """The hour before which no more work can begin."""
        return -(-self.now // STEP_MIN) * STEP_MIN

    def moves(self, blocks: Iterable[Block]) -> dict[Block, int]:
        """The blocks of which a step was moved, and the minute at which each is to start."""
        return {
            block: mark.start - (block.minutes - span.start)
            for block in blocks
            for one, span in zip(block.steps, block.before_end, strict=True)
            if (mark := self.marks.get(one.id)) is not None and mark.start is not None
        }


class Started(NamedTuple):
    """When a step that has begun is done, and by which pair of hands (counted from 0; None for a wait). Work longer
    than a day has several spans.
    """

    spans: tuple[Span, ...]
    hand: int | None


def started_steps(
    steps: Sequence[Step], blocks: Sequence[Block], hours: Hours, progress: Progress
) -> dict[str, Started]:
    """The steps that have begun or are done, with their hours: those that are marked, those that they follow, and those
    that follow at once. Steps stand after those that they follow.

    A step takes the minutes that were planned, unless its marks say otherwise; one that is overdue ends now.
    """
    marks, by_id = progress.marks, {one.id: one for one in steps}
    begun = {id for id, mark in marks.items() if mark.started and id in by_id}
    before = list(begun)
    while before:
        new = set(by_id[before.pop()].after) - begun
        begun |= new
        before += new
    found: dict[str, Started] = {}
    next_start: dict[str, int] = {}
    hand_of: dict[str, int] = {}
    for one in reversed([one for one in steps if one.id in begun]):
        mark = marks.get(one.id, Mark())
        hand = min(hand_of.get(one.id, 0) if mark.hand is None else mark.hand, hours.hands - 1)
        span = _span(one, mark, next_start.get(one.id), progress.now)
        found[one.id] = Started((span,), None if one.hands is None else hand)
        for earlier in one.after:
            next_start[earlier] = min(next_start.get(earlier, span.start), span.start)
            hand_of.setdefault(earlier, hand)
    for block in blocks:
        first = block.steps[0]
        mark = marks.get(first.id, Mark())
        if first.id in found and block.in_parts(hours) and mark.done is None and mark.begun is not None:
            hand = found[first.id].hand or 0
            spans = hours.parts_after(hand, mark.begun, block.minutes)
            if spans[-1].end > progress.now and first.id not in next_start:
                found[first.id] = Started(spans, hand)
        found |= _at_once(block, found)
    return found


def _span(step: Step, mark: Mark, next_start: int | None, now: int) -> Span:
    """From when to when a step that has begun lasts, if something that follows it began at `next_start`."""
    if mark.done is not None:
        end = mark.done
    elif mark.begun is None:
        end = now if next_start is None else next_start
    else:
        end = max(mark.begun + step.minutes, now)
        end = end if next_start is None else max(mark.begun, min(end, next_start))
    start = end - step.minutes if mark.begun is None else min(mark.begun, end)
    return Span(start, end)


def _at_once(block: Block, found: Mapping[str, Started]) -> Iterator[tuple[str, Started]]:
    """The steps of a block that have not begun yet, but follow at once one that has."""
    hand, end = 0, None
    for one in block.steps:
        begun = found.get(one.id)
        if begun is not None:
            end = begun.spans[-1].end
            hand = hand if begun.hand is None else begun.hand
        elif end is not None:
            span = Span(end, end + one.minutes)
            yield one.id, Started((span,), None if one.hands is None else hand)
            end = span.end


def with_started(reserved: Reserved, hours: Hours, steps: Sequence[Step], started: Mapping[str, Started]) -> Reserved:
    """What is reserved, and the time of the steps that have started."""
    hands = [list(one) for one in reserved.hands] or [list[Span]() for _ in range(hours.hands)]
    units = {
        resource: [list(one) for one in reserved.resources.get(resource, ((),) * count)]
        for resource, count in hours.limits.items()
    }
    for one in steps:
        begun = started.get(one.id)
        if begun is None:
            continue
        if begun.hand is not None:
            hands[begun.hand] += begun.spans
        for resource in one.row.uses:
            if resource in units:
                free = [unit for unit in units[resource] if are_free(unit, begun.spans)]
                (free or units[resource])[0].extend(begun.spans)
    return Reserved(
        tuple(tuple(union(one)) for one in hands),
        {resource: tuple(tuple(union(one)) for one in every) for resource, every in units.items()},
    )
