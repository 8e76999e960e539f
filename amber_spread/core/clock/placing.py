"""One order in a kitchen: its steps with their hours, the shelves it takes, and what is left for orders after it."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import NamedTuple

from amber_spread.core.clock.backwards import Block, Timing, backwards, blocks_of
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
    """The steps of an order in the order of their hours, with the shelves that they take; and what it and the orders
    before it take of the kitchen.
    """

    blocks: list[Block]
    steps: list[Step]
    timings: dict[str, Timing]
    shelves: dict[str, range]
    after: InKitchen


def place_order(
    steps: Sequence[Step], ready: datetime, places: Places, before: InKitchen = EMPTY_KITCHEN, key: str = ""
) -> PlacedOrder:
    """When to do each step of an order that must be ready by an hour, as late as possible, around what the orders
    before it take. `key` tells its tiers from those of others.
    """
    blocks = blocks_of(steps, minute_of(ready))
    timings, taken = backwards(blocks, hours_of(places), before.taken)
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
    return PlacedOrder(blocks, held, timings, shelves, InKitchen(taken, standing))


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
