"""What gives when an order cannot be ready in time, or finds no room in the cold: changes to the order, its design or
the kitchen, each tried by placing the order anew.
"""

import json
from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import datetime, timedelta
from typing import Any, Literal, NamedTuple

from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.clock import due_of, ready_of
from amber_spread.core.clock.clock_checks import checks_of
from amber_spread.core.clock.hours import minute_of, moment_of
from amber_spread.core.clock.kitchen import Kitchen
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import Around, PlacedOrder, placed_around
from amber_spread.core.clock.progress import Progress
from amber_spread.core.clock.shelves import Cold
from amber_spread.core.design.finishes import NoCover
from amber_spread.core.document import Document, FileError, read_document, write_document
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import RoundedQuantity, Said, listed, say
from amber_spread.core.kernel.units import day_words, hour_words
from amber_spread.core.plan import Plan

COLD_PARTS: dict[Cold, str] = {"fridge": "shelf in the fridge", "freezer": "drawer in the freezer"}
DUE_STEP_MIN, DUE_TRIES = 15, 6
"""A later hour is asked for on a quarter of an hour. With more time other steps come first, so that it may take several
tries.
"""


class Change(PlanPart):
    """A change to an order or to the places of a kitchen: an operation of JSON Patch (RFC 6902)."""

    op: Literal["add", "remove", "replace"]
    path: str
    value: Any = None


class Give(PlanPart):
    """One thing that helps: what it is, what comes of it, and the changes that make it so, to the order or to the
    places of the kitchen. `enough` says that nothing is late or without room then.
    """

    what: str
    said: Said
    result: Said
    on: Literal["order", "places"]
    changes: list[Change]
    enough: bool


class Gives(PlanPart):
    """What comes of an order as it is from now on, and what would help, the best first."""

    as_it_is: Said
    enough: bool
    gives: list[Give]


class Variant(NamedTuple):
    """A kitchen with one thing more, and the other orders in it."""

    what: str
    text: str
    changes: tuple[Change, ...]
    places: Places
    around: Around


def more_places(places: Places) -> Iterator[tuple[str, str, tuple[Change, ...], Places]]:
    """The kitchens with one thing more: another pair of hands with the hours of the last, and another shelf as large as
    the largest.
    """
    if len(places.hands) < limits.HANDS.high:
        pair = places.hands[-1].model_copy(update={"name": "", "off": ()})
        added = Change(op="add", path="/hands/-", value=pair.model_dump(mode="json"))
        yield "hands", "One more pair of hands", (added,), places.model_copy(update={"hands": (*places.hands, pair)})
    for where, part in COLD_PARTS.items():
        shelves = places.shelves(where)
        if shelves and len(shelves) < limits.RESOURCES.high:
            largest = max(shelves, key=lambda one: (one.width_mm * one.depth_mm, one.height_mm))
            added = Change(op="add", path=f"/{where}/-", value=largest.model_dump(mode="json"))
            yield where, f"One more {part}", (added,), places.model_copy(update={where: (*shelves, largest)})


def gives_of(
    document: Document,
    planned: Callable[[Document], Plan],
    now: datetime,
    kitchen: Kitchen,
    around: Around,
    variants: Sequence[Variant] = (),
) -> Gives:
    """What gives for an order, in a kitchen among other orders, as of `now`; `variants` are kitchens with one thing
    more. Raises FileError if the order has no due hour, or cannot be planned.
    """
    tried = _Tried(planned, now, kitchen)
    base = tried.outcome(document, kitchen.places, around)
    found: list[tuple[tuple[int, int], Give]] = []

    def add(what: str, text: str, on: Literal["order", "places"], changes: tuple[Change, ...], then: _Outcome) -> None:
        if then.badness < base.badness:
            give = Give(
                what=what,
                said=say(text),
                result=then.result,
                on=on,
                changes=list(changes),
                enough=then.badness == (0, 0),
            )
            found.append((then.badness, give))

    later, then = document, base
    for _ in range(DUE_TRIES if base.late_min else 0):
        later, text, change = _due_later(later, then.late_min)
        then = tried.outcome(later, kitchen.places, around)
        if not then.late_min:
            add("due", text, "order", (change,), then)
            break
    for what, text, changes in _changes(document, kitchen.places):
        try:
            then = tried.outcome(with_changes(document, changes), kitchen.places, around)
        except FileError:
            continue  # such a design cannot be made
        add(what, text, "order", changes, then)
    for one in variants:
        then = tried.outcome(document, one.places, one.around)
        helped = _helped(then.placed, len(kitchen.places.hands)) if one.what == "hands" else ""
        add(one.what, f"{one.text}{helped}.", "places", one.changes, then)
    found.sort(key=lambda each: each[0])
    return Gives(as_it_is=base.result, enough=base.badness == (0, 0), gives=[give for _, give in found])


class _Outcome(NamedTuple):
    """What comes of an order: how late it is, how many things find no room, and that in words."""

    placed: PlacedOrder
    late_min: int
    without_room: int
    result: Said

    @property
    def badness(self) -> tuple[int, int]:
        """What should be as small as it can be: to be in time matters most."""
        return self.late_min, self.without_room


class _Tried:
    """Tries an order from now on."""

    def __init__(self, planned: Callable[[Document], Plan], now: datetime, kitchen: Kitchen) -> None:
        self.planned, self.now, self.kitchen = planned, now, kitchen

    def outcome(self, document: Document, places: Places, around: Around) -> _Outcome:
        """What comes of an order in a kitchen. One without marks has not begun."""
        progress = around.progress or Progress({}, minute_of(self.now), True)
        ready = ready_of(document)
        steps = steps_of(document, self.planned(document), self.kitchen.made_of)
        placed = placed_around(steps, ready, places, around._replace(progress=progress))
        late = max(0, placed.ends - minute_of(ready))
        checks = checks_of(placed, due_of(document), self.now, places)
        without_room = sum(one.code.startswith("clock.no_room") for one in checks)
        return _Outcome(placed, late, without_room, _result(placed, ready, late, without_room))


def _result(placed: PlacedOrder, ready: datetime, late: int, without_room: int) -> Said:
    ends = _words(moment_of(placed.ends))
    room = " Something still finds no room in the cold." if without_room else ""
    if late:
        return say(f"Ready on {ends}, {{late}} late.{room}", late=RoundedQuantity(late, "min", "up"))
    return say(f"Ready by {_words(ready)}, as you want it.{room}")


def _words(moment: datetime) -> str:
    return f"{day_words(moment)} at {hour_words(moment)}"


def _due_later(document: Document, late_min: int) -> tuple[Document, str, Change]:
    """An order that is due later, by as much as it is late."""
    due = due_of(document) + timedelta(minutes=-(-late_min // DUE_STEP_MIN) * DUE_STEP_MIN)
    change = Change(op="replace", path="/due", value=due.isoformat())
    return with_changes(document, [change]), f"Ask the customer for {_words(due)}.", change


def _changes(document: Document, places: Places) -> Iterator[tuple[str, str, tuple[Change, ...]]]:
    """What may be changed about an order: where its coats firm, its covers, its top tier."""
    if document.practice.firm_in == "fridge" and places.freezer:
        freezer = Change(op="replace", path="/practice/firm_in", value="freezer")
        yield "freezer", "Firm its coats in the freezer.", (freezer,)
    tiers = document.design.tiers
    covered = [index for index, tier in enumerate(tiers) if not isinstance(tier.cover, NoCover)]
    if covered:
        bare = NoCover().model_dump(mode="json")
        changes = (Change(op="replace", path=f"/design/tiers/{index}/cover", value=bare) for index in covered)
        which = "" if len(tiers) == 1 else f" of {listed([f'tier {index + 1}' for index in covered])}"
        yield "cover", f"Leave off the cover{which}: the final coat is its finish.", tuple(changes)
    if len(tiers) > 1:
        yield "tier", "Leave off the top tier.", (Change(op="remove", path=f"/design/tiers/{len(tiers) - 1}"),)


def with_changes(document: Document, changes: Iterable[Change]) -> Document:
    """An order with some changes, read as from a file. Raises FileError if it cannot be."""
    data = json.loads(write_document(document))
    for change in changes:
        *above, last = change.path.split("/")[1:]
        part: Any = data
        for name in above:
            part = part[int(name)] if isinstance(part, list) else part[name]
        key: Any = int(last) if isinstance(part, list) else last
        if change.op == "remove":
            del part[key]
        else:
            part[key] = change.value
    return read_document(json.dumps(data))


def _helped(placed: PlacedOrder, hand: int) -> str:
    """How much a pair of hands does, by the day: “, for 2 h on Friday 4 December”."""
    days: dict[str, int] = {}
    for timing in placed.timings.values():
        if timing.hand == hand:
            for start, end in timing.spans:
                day = day_words(moment_of(start))
                days[day] = days.get(day, 0) + end - start
    if not days:
        return ""
    return f", for {listed([f'{-(-minutes // 30) / 2:g} h on {day}' for day, minutes in days.items()])}"
