"""A scheduled step as people read it: its hours, whose hands do it, where it is, and how the tier looks meanwhile."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from typing import Any, NamedTuple

from amber_spread.core.clock.backwards import Timing
from amber_spread.core.clock.hours import moments_of
from amber_spread.core.clock.looks import Look, looks_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.steps import On, Step
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.task import Place


class StepHours(PlanPart):
    """A step with its hours, on the clock of the kitchen. `of` is what people call the tier (nothing if there is only
    one).

    The pair of hands is counted from 1 and called `whose` (nothing if there is only one pair); both are empty for a
    wait. Work longer than a day has several `spans`. In the cold, `shelves` are counted from 1 at the top, and the
    thing stands on the last of them; `stands` says so in words. `follows` are the ids of the steps before it.
    """

    name: str
    on: On
    of: str
    tier: int | None
    place: Place
    look: Look
    start: datetime
    end: datetime
    spans: list[tuple[datetime, datetime]]
    hand: int | None
    whose: str
    shelves: list[int]
    stands: str
    follows: list[str]


class Scheduled(NamedTuple):
    """A step, its timing, and the values of its `StepHours`."""

    step: Step
    timing: Timing
    hours: dict[str, Any]


def scheduled(placed: PlacedOrder, places: Places) -> Iterator[Scheduled]:
    """Every step of an order, in the order of their hours."""
    looks, several = looks_of(placed.steps), len(places.hands) > 1
    for one in placed.steps:
        timing, shelves = placed.timings[one.id], [number + 1 for number in placed.shelves.get(one.id, ())]
        hand, spans = timing.hand, [moments_of(span) for span in timing.spans]
        hours = {
            "name": one.name,
            "on": one.on,
            "of": one.of,
            "tier": one.tier,
            "place": one.row.place,
            "look": looks[one.id],
            "start": spans[0][0],
            "end": spans[-1][1],
            "spans": spans,
            "hand": None if hand is None else hand + 1,
            "whose": places.hands[hand].name or f"hands {hand + 1}" if several and hand is not None else "",
            "shelves": shelves,
            "stands": _stands("drawer" if one.row.place == "freezer" else "shelf", shelves) if shelves else "",
            "follows": list(one.after),
        }
        yield Scheduled(one, timing, hours)


def _stands(part: str, shelves: Sequence[int]) -> str:
    """Where a thing stands: “shelf 3”, with the shelves that are removed for it."""
    *above, last = shelves
    many = {"shelf": "shelves", "drawer": "drawers"}[part] if len(above) > 1 else part
    removed = f", with {many} {listed([str(one) for one in above])} taken out" if above else ""
    return f"{part} {last}{removed}"
