"""Steps in blocks: those that must follow each other at once are scheduled as one."""

from collections.abc import Iterator, Sequence

from amber_spread.core.clock.hours import Hours, Span
from amber_spread.core.clock.places import Resource
from amber_spread.core.clock.steps import Step

ANY_HOUR = ("car", "table")
"""The places where work goes by the hour of the customer, and what must be done at a stretch with it."""


class Block:
    """Steps that follow each other at once, or one wait that may last longer than planned. They end by the minute
    `ready`.
    """

    def __init__(self, steps: Sequence[Step], order: int, ready: int) -> None:
        self.steps, self.order, self.ready = steps, order, ready
        self.flexible = steps[0].flexible
        self.minutes = sum(one.minutes for one in steps)
        self.any_hour = any(one.row.place in ANY_HOUR for one in steps)
        self.splits = len(steps) == 1 and steps[0].row.splits
        self.before_end = list(self._before_end())
        """The span of each step, in minutes before the end of the block."""
        pairs = list(zip(steps, self.before_end, strict=True))
        self.work = [span for step, span in pairs if step.hands is not None]
        self.uses: dict[Resource, list[Span]] = {}
        """The resources it uses, one unit of each, and when, in minutes before its end."""
        for step, span in pairs:
            for resource in step.row.uses:
                self.uses.setdefault(resource, []).append(span)
        self.follows: dict[Block, None] = {}
        self.followed_by: list[tuple[int, str]] = []
        """The steps of other blocks that follow one of its steps, and how many minutes before its end that one ends."""

    def _before_end(self) -> Iterator[Span]:
        left = self.minutes
        for one in self.steps:
            yield Span(left, left - one.minutes)
            left -= one.minutes

    def exceeds(self, hours: Hours) -> bool:
        """Whether it is longer than any working day, and cannot be split."""
        return not (self.flexible or self.any_hour or self.splits) and self.minutes > hours.long_min

    def in_parts(self, hours: Hours) -> bool:
        """Whether it is done on several days."""
        return self.splits and self.minutes > hours.long_min

    def hands(self, hours: Hours, end: int) -> Sequence[int]:
        """The pairs of hands that may do it, if it ends by that minute: those with a day long enough; and for work by
        the hour of the customer, those who work that day. All of them, if there is no such pair.
        """
        every = range(hours.hands)
        if len(every) == 1:
            return every
        if self.any_hour:
            days = [(hand, hours.of_day(hand, end - 1)) for hand in every]
            able = [hand for hand, day in days if day.end > day.start]
        else:
            able = [hand for hand in every if self.minutes <= hours.longest[hand]]
        return able or every


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
