"""Placing orders in a kitchen, one after another: the hours of each, its shelves, and what is reserved afterwards."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.backwards import DoesNotFit, PinnedHours, Timing, at_pinned_hours, backwards
from amber_spread.core.clock.blocks import Block, blocks_of
from amber_spread.core.clock.holds import with_holds
from amber_spread.core.clock.hours import NOTHING_RESERVED, Reserved, hours_of, minute_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.shelves import COLD, Cold, Standing, Stay, on_shelves
from amber_spread.core.clock.steps import Step


class Reservations(NamedTuple):
    """What the orders placed so far have reserved: time, and room in the cold."""

    time: Reserved = NOTHING_RESERVED
    standing: Mapping[Cold, tuple[Standing, ...]] = {}


NO_RESERVATIONS = Reservations()


class PlacedOrder(NamedTuple):
    """An order with its hours: its blocks, its steps (holds included) in the order of their hours, their timings, and
    the shelves they take. `after` are the reservations with this order. `pinned` says whether it has its pinned hours.
    """

    blocks: list[Block]
    steps: list[Step]
    timings: dict[str, Timing]
    shelves: dict[str, range]
    after: Reservations
    pinned: bool

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


def place_order(
    steps: Sequence[Step],
    ready: datetime,
    places: Places,
    before: Reservations = NO_RESERVATIONS,
    key: str = "",
    pinned: PinnedHours | None = None,
) -> PlacedOrder:
    """Place an order that must be `ready` by an hour, around the reservations `before` it: at its pinned hours if they
    fit, else as late as possible. `key` tells its tiers from those of other orders.
    """
    blocks, hours = blocks_of(steps, minute_of(ready)), hours_of(places)
    found = None
    if pinned is not None:
        try:
            found = at_pinned_hours(blocks, hours, before.time, pinned)
        except DoesNotFit:
            pinned = None
    timings, reserved = found or backwards(blocks, hours, before.time)
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
    return PlacedOrder(blocks, with_waits, timings, shelves, Reservations(reserved, standing), pinned is not None)


class Around(NamedTuple):
    """The other orders, as seen by one: `others` is what they reserve if it has no pinned hours, `if_pinned` what those
    placed before it reserve if it has. `pending` are the titles of orders that are still being worked out.
    """

    others: Reservations = NO_RESERVATIONS
    if_pinned: Reservations = NO_RESERVATIONS
    pinned: PinnedHours | None = None
    pending: tuple[str, ...] = ()


NOTHING_AROUND = Around()


def placed_around(steps: Sequence[Step], ready: datetime, places: Places, around: Around) -> PlacedOrder:
    """Place an order among the others: at its pinned hours if they fit, else as late as possible."""
    if around.pinned is not None:
        placed = place_order(steps, ready, places, around.if_pinned, pinned=around.pinned)
        if placed.pinned:
            return placed
    return place_order(steps, ready, places, around.others)
