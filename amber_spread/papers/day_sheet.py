"""The day sheet as a PDF: what to do on each day, hour by hour, with a box to tick at each step."""

from collections.abc import Iterable, Iterator
from datetime import datetime
from itertools import groupby
from typing import Any

from reportlab.platypus import KeepTogether

from amber_spread.core.clock import Clock, TimedStep, clock_of
from amber_spread.core.document import Document
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.papers.printed import HEADING, SOFT_TEXT, TEXT, Box, Sheet, bound, table, worded
from amber_spread.papers.sheets import Paper

WIDTHS = (8, 18, 126, 26)


def write_day_sheet(
    document: Document, plan: Plan, length: LengthUnit = "in", weight: WeightUnit = "g", paper: Paper = "a4"
) -> bytes:
    """Every step in the order of the clock, by day and pair of hands, and every wait with the sign that it is over.
    Raises FileError where the order has no due hour.
    """
    sheet = _DaySheet(document, plan, length, weight)
    return bound(list(sheet.story(clock_of(document, plan))), f"{document.title}: day sheet", paper)


class _DaySheet(Sheet):
    """The day sheet of one order."""

    def story(self, clock: Clock) -> Iterator[Any]:
        """All of it."""
        yield from self.head("day sheet")
        yield worded(
            f"Begin {_day_words(clock.begins)} at {_hour(clock.begins)}. About {self.say(clock.hands_on)} of work, "
            f"give or take {self.say(clock.give_or_take)}, without the waits. Ready {_day_words(clock.ready)} at "
            f"{_hour(clock.ready)}.",
            TEXT,
        )
        yield worded(
            "Hours are for planning. Go by the sign of each wait, and keep food out of the fridge no longer than your "
            "local food code allows.",
            SOFT_TEXT,
        )
        for check in clock.checks:
            yield worded(self.filled(check.text, check.values), TEXT)
        steps = clock.steps.values()
        for day, own in groupby(_by_hour(steps), key=lambda one: one[0].date()):
            rows = list(own)
            heading = worded(_day_words(datetime.combine(day, datetime.min.time())), HEADING)
            lines = [self._line(at, one, until, clock.hands) for at, one, until in rows]
            yield KeepTogether([heading, table(lines[:3], WIDTHS)])
            if lines[3:]:
                yield table(lines[3:], WIDTHS)

    def _line(self, at: datetime, step: TimedStep, until: datetime, hands: int) -> list[Any]:
        """One row: a box for work; for a wait its sign and the hour."""
        if step.wait is not None:
            later = "" if until.date() == at.date() else f"{until:%A} "
            done = f" Done when: {step.sign[:1].lower()}{step.sign[1:]}." if step.sign else f" {self.said(step.said)}"
            text = f"{step.place.capitalize()}: {_named(step)}.{done}"
            return [
                "",
                worded(_hour(at), SOFT_TEXT),
                worded(text, SOFT_TEXT),
                worded(f"to {later}{_hour(until)}", SOFT_TEXT),
            ]
        who = f"Hands {step.hand}. " if hands > 1 and step.hand is not None else ""
        words = [f"{who}{_named(step)}.", self.said(step.said)]
        words += [f"Caution: {self.said(one)}" for one in step.cautions]
        minutes = self.say(step.hands) if step.hands is not None else ""
        return [Box(), worded(_hour(at), TEXT), worded(" ".join(filter(None, words)), TEXT), worded(minutes, TEXT)]


def _by_hour(steps: Iterable[TimedStep]) -> list[tuple[datetime, TimedStep, datetime]]:
    """Every step by the hour it begins at; work over several days stands on each of them."""
    found = [(begins, one, ends) for one in steps for begins, ends in (one.works or [[one.start, one.end]])]
    return sorted(found, key=lambda row: (row[0], row[1].wait is not None))


def _named(step: TimedStep) -> str:
    return f"{step.name}, {step.of}" if step.tier is not None and step.of else step.name


def _day_words(moment: datetime) -> str:
    return f"{moment:%A} {moment.day} {moment:%B}"


def _hour(moment: datetime) -> str:
    return f"{moment:%H:%M}"
