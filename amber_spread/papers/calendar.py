"""The clock of an order as an iCalendar file (RFC 5545), for the calendar on anybody's phone.

Every event has an id that stays with its step, the number of the order's revision and the hour the file was written, so
that a newer file replaces what an older one brought: hours also move with marks and with other orders. Hours are those
of the kitchen's wall, in no time zone, as the standard's floating times.
"""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from typing import NamedTuple

from icalendar import Alarm, Calendar, Event

from amber_spread.core.clock import NOTHING_AROUND, STARTING_KITCHEN, Around, Kitchen, TimedStep, clock_of
from amber_spread.core.document import Document
from amber_spread.core.kernel.task import Place
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.papers.step_words import StepWords

MADE_BY = "-//Amber Spread//Clock of an order//EN"
ENDS_ON_TIME: tuple[Place, ...] = ("oven", "freezer")
"""What waits in these must come out on time: a calendar rings as it ends."""


class Saved(NamedTuple):
    """Which order a calendar is of, which revision of it, and when the file was written."""

    id: str
    revision: int
    at: datetime


def write_calendar(
    document: Document,
    plan: Plan,
    saved: Saved,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    kitchen: Kitchen = STARTING_KITCHEN,
    around: Around = NOTHING_AROUND,
) -> bytes:
    """An event for every piece of work, for what must come out of the oven or the freezer on time, and for the hour the
    order is due. Raises FileError where it has no due hour.
    """
    clock = clock_of(document, plan, kitchen=kitchen, around=around)
    found = calendar_of(document.title)
    sheet = _Events(document, plan, saved, length, weight)
    for id, step in clock.steps.items():
        if step.hands is not None or step.place in ENDS_ON_TIME:
            for one in sheet.of_step(id, step):
                found.add_component(one)
    found.add_component(event(saved, "due", f"Due: {document.title}", clock.due, None, ""))
    return bytes(found.to_ical())


class _Events(StepWords):
    """The events of one order, in one person's units."""

    def __init__(self, document: Document, plan: Plan, saved: Saved, length: LengthUnit, weight: WeightUnit) -> None:
        super().__init__(document, plan, length, weight)
        self.saved = saved

    def of_step(self, id: str, step: TimedStep) -> Iterator[Event]:
        """The events of a step: one for each day that it lasts over."""
        lines = [self.said(step.said), *self.cautions(step), self.sign(step), self.hands(step)]
        words = "\n".join(line for line in lines if line)
        for number, (start, end) in enumerate(step.spans, 1):
            own = id if len(step.spans) == 1 else f"{id}-{number}"
            found = event(self.saved, own, f"{step.name}: {self.document.title}", start, end, words)
            if step.wait is not None:
                found.add_component(_alarm(f"Take it out: {step.name}"))
            yield found


def calendar_of(name: str) -> Calendar:
    """A calendar without events."""
    found = Calendar()
    found.add("prodid", MADE_BY)
    found.add("version", "2.0")
    found.add("method", "PUBLISH")
    found.add("x-wr-calname", name)
    return found


def event(saved: Saved, id: str, name: str, start: datetime, end: datetime | None, words: str) -> Event:
    """An event of an order; without an `end` it is a moment."""
    found = Event()
    found.add("uid", f"{saved.id}-{id}")
    found.add("sequence", saved.revision)
    found.add("dtstamp", saved.at.astimezone(UTC))
    found.add("summary", name)
    found.add("dtstart", start)
    if end is not None:
        found.add("dtend", end)
    if words:
        found.add("description", words)
    return found


def _alarm(words: str) -> Alarm:
    """What rings as an event ends."""
    found = Alarm()
    found.add("action", "DISPLAY")
    found.add("description", words)
    found.add("trigger", timedelta(0), parameters={"related": "END"})
    return found
