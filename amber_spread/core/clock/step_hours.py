"""A scheduled step as people read it: its hours, whose hands do it, where it is, and how the tier looks meanwhile."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from typing import Any, Literal, NamedTuple

from amber_spread.core.clock.hours import moment_of, moments_of
from amber_spread.core.clock.looks import Look, looks_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.progress import Mark
from amber_spread.core.clock.schedule import Timing
from amber_spread.core.clock.steps import On, Step
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.task import Place

State = Literal["", "begun", "done"]
"""Whether a step has begun, or is done."""


class Noted(PlanPart):
    """What somebody noted at a step: when it was begun and done, by which pair of hands (counted from 1), or the hour
    at which it is to start.
    """

    begun: datetime | None = None
    done: datetime | None = None
    start: datetime | None = None
    hand: int | None = None


class StepHours(PlanPart):
    """A step with its hours, on the clock of the kitchen. `of` is what people call the tier (nothing if there is only
    one).

    The pair of hands is counted from 1 and called `whose` (nothing if there is only one pair); both are empty for a
    wait. Work longer than a day has several `spans`. In the cold, `shelves` are counted from 1 at the top, and the
    thing stands on the last of them; `stands` says so in words. `follows` are the ids of the steps before it. `state`
    is empty for a step that has not begun, and for every step of an order without marks.
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
    state: State
    noted: Noted | None


class Scheduled(NamedTuple):
    """A step, its timing, and the values of its `StepHours`."""

    step: Step
    timing: Timing
    hours: dict[str, Any]


def scheduled(placed: PlacedOrder, places: Places) -> Iterator[Scheduled]:
    """Every step of an order, in the order of their hours."""
    looks, several = looks_of(placed.steps), len(places.hands) > 1
    states = _states(placed)
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
            "state": states.get(one.id, "") if states else "",
            "noted": None if placed.progress is None else _noted(placed, one.id),
        }
        yield Scheduled(one, timing, hours)


def _states(placed: PlacedOrder) -> dict[str, State]:
    """The state of every step that has begun."""
    if placed.progress is None:
        return {}
    now, started = placed.progress.now, placed.started
    over = {
        id for one in placed.steps if one.id in started and started[one.id].spans[0].start < now for id in one.after
    }
    found: dict[str, State] = {}
    for id, (spans, _) in started.items():
        mark = placed.mark(id)
        if mark.done is not None or id in over:
            found[id] = "done"
        elif mark.begun is not None:
            found[id] = "begun"
        elif spans[0].start <= now:
            found[id] = "done" if spans[-1].end <= now else "begun"
    return found


def _noted(placed: PlacedOrder, step: str) -> Noted | None:
    mark = placed.mark(step)
    begun, done, start = (None if one is None else moment_of(one) for one in mark[:3])
    hand = None if mark.hand is None else mark.hand + 1
    return Noted(begun=begun, done=done, start=start, hand=hand) if mark != Mark() else None


def _stands(part: str, shelves: Sequence[int]) -> str:
    """Where a thing stands: “shelf 3”, with the shelves that are removed for it."""
    *above, last = shelves
    many = {"shelf": "shelves", "drawer": "drawers"}[part] if len(above) > 1 else part
    removed = f", with {many} {listed([str(one) for one in above])} taken out" if above else ""
    return f"{part} {last}{removed}"
