"""Placing orders in a kitchen, one after another: the hours of each, its shelves, and what is reserved afterwards."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import PinnedHours, at_pinned_hours, backwards
from amber_spread.core.clock.blocks import Block, blocks_of
from amber_spread.core.clock.forwards import forwards
from amber_spread.core.clock.holds import with_holds
from amber_spread.core.clock.hours import NOTHING_RESERVED, Hours, Reserved, hours_of, minute_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.progress import Mark, Progress, Started, started_steps, with_started
from amber_spread.core.clock.schedule import DoesNotFit, Timing
from amber_spread.core.clock.shelves import COLD, Cold, Standing, Stay, on_shelves
from amber_spread.core.clock.steps import Step


class Reservations(NamedTuple):
    """What the orders placed so far have reserved: time, and room in the cold."""

    time: Reserved = NOTHING_RESERVED
    standing: Mapping[Cold, tuple[Standing, ...]] = {}


NO_RESERVATIONS = Reservations()


class PlacedOrder(NamedTuple):
    """An order with its hours: its blocks, its steps (holds included) in the order of their hours, their timings, and
    the shelves they take. `after` are the reservations with this order. `pinned` says whether it has its pinned hours,
    `progress` what has been done of it, and `started` which steps that makes.
    """

    blocks: list[Block]
    steps: list[Step]
    timings: dict[str, Timing]
    shelves: dict[str, range]
    after: Reservations
    pinned: bool
    progress: Progress | None = None
    started: Mapping[str, Started] = {}

    @property
    def work(self) -> list[Block]:
        """The blocks that are scheduled; a flexible wait lies between them."""
        return [one for one in self.blocks if not one.flexible]

    def begins(self, block: Block) -> int:
        """The minute at which a block begins."""
        return self.timings[block.steps[0].id].whole.start

    @property
    def first(self) -> int:
        """The minute at which its first step begins."""
        return min(one.whole.start for one in self.timings.values())

    @property
    def ends(self) -> int:
        """The minute at which its last step ends."""
        return max(one.whole.end for one in self.timings.values())

    @property
    def from_now(self) -> bool:
        """Whether it is planned from now even without marks."""
        return self.progress is not None and self.progress.from_now

    def mark(self, step: str) -> Mark:
        """The mark at a step, empty if there is none."""
        return Mark() if self.progress is None else self.progress.marks.get(step, Mark())


def place_order(
    steps: Sequence[Step],
    ready: datetime,
    places: Places,
    before: Reservations = NO_RESERVATIONS,
    key: str = "",
    pinned: PinnedHours | None = None,
    progress: Progress | None = None,
) -> PlacedOrder:
    """Place an order that must be `ready` by an hour, around the reservations `before` it: at its pinned hours if they
    fit, else as late as possible. `key` tells its tiers from those of other orders.

    With `progress`, what has begun has its hours, which are reserved `before`, and the rest follows from now on: at the
    same hours if they are still to come, else as soon as it can.
    """
    blocks, hours = blocks_of(steps, minute_of(ready)), hours_of(places)
    started = {} if progress is None else started_steps(steps, blocks, hours, progress)
    found = None
    if pinned is not None:
        try:
            found = at_pinned_hours(blocks, hours, before.time, pinned, progress, started)
        except DoesNotFit:
            pinned = None
    timings, reserved = found or _placed(blocks, hours, before.time, progress, started)
    with_waits, timings = with_holds([one for block in blocks for one in block.steps], timings)
    with_waits.sort(key=lambda one: timings[one.id].whole)
    standing = dict(before.standing)
    shelves: dict[str, range] = {}
    for where in COLD:
        stays = [
            Stay(one.id, f"{key} {one.on} {one.tier}", timings[one.id].whole, one.size)
            for one in with_waits
            if one.row.place == where and one.size is not None
        ]
        there = standing.get(where, ())
        added = on_shelves(stays, places.shelves(where), there)
        standing[where] = (*there, *added)
        shelves |= {one.stay.id: one.shelves for one in added}
    after = Reservations(reserved, standing)
    return PlacedOrder(blocks, with_waits, timings, shelves, after, pinned is not None, progress, started)


def _placed(
    blocks: Sequence[Block], hours: Hours, before: Reserved, progress: Progress | None, started: Mapping[str, Started]
) -> tuple[dict[str, Timing], Reserved]:
    if progress is None:
        return backwards(blocks, hours, before)
    try:
        return backwards(blocks, hours, before, progress, started)
    except DoesNotFit:
        return forwards(blocks, hours, before, progress, started)


def reserve_started(
    before: Reservations, steps: Sequence[Step], ready: datetime, places: Places, progress: Progress
) -> Reservations:
    """What is reserved, and the time of what has begun of an order, which no other order can have."""
    hours = hours_of(places)
    started = started_steps(steps, blocks_of(steps, minute_of(ready)), hours, progress)
    return before._replace(time=with_started(before.time, hours, steps, started))


class Around(NamedTuple):
    """The other orders, as seen by one: `others` is what they reserve if it has no pinned hours, `if_pinned` what those
    placed before it reserve if it has; both with what has begun of any order. `pending` are the titles of orders that
    are still being worked out, `progress` is what has been done of this one.
    """

    others: Reservations = NO_RESERVATIONS
    if_pinned: Reservations = NO_RESERVATIONS
    pinned: PinnedHours | None = None
    pending: tuple[str, ...] = ()
    progress: Progress | None = None


NOTHING_AROUND = Around()


def placed_around(steps: Sequence[Step], ready: datetime, places: Places, around: Around) -> PlacedOrder:
    """Place an order among the others: at its pinned hours if they fit, else as late as possible."""
    if around.pinned is not None:
        placed = place_order(steps, ready, places, around.if_pinned, pinned=around.pinned, progress=around.progress)
        if placed.pinned:
            return placed
    return place_order(steps, ready, places, around.others, progress=around.progress)
