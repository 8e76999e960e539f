"""One order in a kitchen: its steps with their hours, the shelves it takes, and what is left for orders after it."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import NamedTuple

from amber_spread.core.clock.backwards import Block, DoesNotFit, KeptHours, Timing, backwards, blocks_of, keep
from amber_spread.core.clock.holds import with_holds
from amber_spread.core.clock.hours import FREE, Hours, Span, Taken
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.shelves import Cold, Standing, Stay, on_shelves
from amber_spread.core.clock.steps import Step
from amber_spread.core.kernel.caching import cached

START = datetime(1970, 1, 1)
COLD: tuple[Cold, ...] = ("fridge", "freezer")


class InKitchen(NamedTuple):
    """What the orders before take of a kitchen: its hands and what it has so many of, and room in the cold."""

    taken: Taken = FREE
    standing: Mapping[Cold, tuple[Standing, ...]] = {}


EMPTY_KITCHEN = InKitchen()


class PlacedOrder(NamedTuple):
    """The steps of an order in the order of their hours, with the shelves that they take; what it and the orders before
    it take of the kitchen; and whether it has the hours that were chosen for it.
    """

    blocks: list[Block]
    steps: list[Step]
    timings: dict[str, Timing]
    shelves: dict[str, range]
    after: InKitchen
    kept: bool


def place_order(
    steps: Sequence[Step],
    ready: datetime,
    places: Places,
    before: InKitchen = EMPTY_KITCHEN,
    key: str = "",
    kept: KeptHours | None = None,
) -> PlacedOrder:
    """When to do each step of an order that must be ready by an hour, around what the orders before it take: at the
    hours that are `kept` for it where they fit, else as late as possible. `key` tells its tiers from those of others.
    """
    blocks, hours = blocks_of(steps, minute_of(ready)), hours_of(places)
    as_kept = kept is not None
    try:
        timings, taken = (
            keep(blocks, hours, before.taken, kept or {}) if as_kept else backwards(blocks, hours, before.taken)
        )
    except DoesNotFit:
        as_kept = False
        timings, taken = backwards(blocks, hours, before.taken)
    held, timings = with_holds([one for block in blocks for one in block.steps], timings)
    held.sort(key=lambda one: timings[one.id].whole)
    standing = dict(before.standing)
    shelves: dict[str, range] = {}
    for where in COLD:
        stays = [
            Stay(one.id, f"{key} {one.on} {one.tier}", timings[one.id].whole, one.size)
            for one in held
            if one.row.place == where and one.size is not None
        ]
        there = standing.get(where, ())
        found = on_shelves(stays, places.shelves(where), there)
        standing[where] = (*there, *found)
        shelves |= {one.stay.id: one.shelves for one in found}
    return PlacedOrder(blocks, held, timings, shelves, InKitchen(taken, standing), as_kept)


class Around(NamedTuple):
    """What the other orders leave of a kitchen for one: at the hours `kept` for it, beside those that have kept hours
    too and are placed before it; and where it does not keep those, beside all that are placed before it. `pending` are
    the titles of orders whose work is still being worked out.
    """

    others: InKitchen = EMPTY_KITCHEN
    with_kept: InKitchen = EMPTY_KITCHEN
    kept: KeptHours | None = None
    pending: tuple[str, ...] = ()


NOTHING_AROUND = Around()


def placed_around(steps: Sequence[Step], ready: datetime, places: Places, around: Around) -> PlacedOrder:
    """An order at the hours that are kept for it where they fit, else as late as possible around the others."""
    if around.kept is not None:
        placed = place_order(steps, ready, places, around.with_kept, kept=around.kept)
        if placed.kept:
            return placed
    return place_order(steps, ready, places, around.others)


@cached(16)
def hours_of(places: Places) -> Hours:
    """The working hours of a kitchen."""
    return Hours.of(places)


def minute_of(moment: datetime) -> int:
    """A moment in minutes from 1 January 1970."""
    return int((moment - START).total_seconds() // 60)


def moment_of(minute: int) -> datetime:
    """The moment so many minutes from 1 January 1970."""
    return START + timedelta(minutes=minute)


def moments_of(span: Span) -> tuple[datetime, datetime]:
    """From one moment to another."""
    return moment_of(span.start), moment_of(span.end)


def called(places: Places, hand: int | None) -> str:
    """What a pair of hands is called, by its name or its number; nothing where there is one pair, or for a wait."""
    if hand is None or len(places.hands) == 1:
        return ""
    return places.hands[hand].name or f"hands {hand + 1}"
