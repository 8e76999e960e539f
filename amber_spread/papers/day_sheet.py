"""The day sheet as a PDF: what to do on each day, hour by hour, with a box to tick at each step."""

from collections.abc import Iterable, Iterator
from datetime import datetime
from itertools import groupby
from typing import Any

from reportlab.platypus import KeepTogether

from amber_spread.core.clock import NOTHING_AROUND, STARTING_KITCHEN, Around, Clock, Kitchen, TimedStep, clock_of
from amber_spread.core.document import Document
from amber_spread.core.kernel.units import LengthUnit, WeightUnit, day_words, hour_words
from amber_spread.core.plan import Plan
from amber_spread.papers.printed import HEADING, SOFT_TEXT, TEXT, Box, bound, table, worded
from amber_spread.papers.sheets import Paper
from amber_spread.papers.step_words import StepWords, place_words

WIDTHS = (8, 18, 126, 26)


def write_day_sheet(
    document: Document,
    plan: Plan,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    paper: Paper = "a4",
    kitchen: Kitchen = STARTING_KITCHEN,
    around: Around = NOTHING_AROUND,
) -> bytes:
    """Every step in the order of the clock, by day and pair of hands, and every wait with the sign that it is over.
    Raises FileError where the order has no due hour.
    """
    sheet = _DaySheet(document, plan, length, weight)
    return bound(
        list(sheet.story(clock_of(document, plan, kitchen=kitchen, around=around))),
        f"{document.title}: day sheet",
        paper,
    )


class _DaySheet(StepWords):
    """The day sheet of one order."""

    def story(self, clock: Clock) -> Iterator[Any]:
        """All of it."""
        yield from self.head("day sheet")
        yield worded(
            f"Begin {day_words(clock.begins)} at {hour_words(clock.begins)}. About {self.say(clock.hands_on)} of work, "
            f"give or take {self.say(clock.give_or_take)}, without the waits. Ready {day_words(clock.ready)} at "
            f"{hour_words(clock.ready)}.",
            TEXT,
        )
        for check in clock.checks:
            yield worded(self.filled(check.text, check.values), SOFT_TEXT if check.severity == "caution" else TEXT)
        for day, rows in groupby(_by_hour(clock.steps.values()), key=lambda row: row[0].date()):
            lines = [self._line(*row) for row in rows]
            yield KeepTogether([worded(day_words(day), HEADING), table(lines[:3], WIDTHS)])
            if lines[3:]:
                yield table(lines[3:], WIDTHS)

    def _line(self, begins: datetime, ends: datetime, step: TimedStep) -> list[Any]:
        """One row: a box for work; for a wait its sign and the hour."""
        if step.wait is not None:
            later = "" if ends.date() == begins.date() else f"{ends:%A} "
            then = self.sign(step) or self.said(step.said)
            words, style = f"{place_words(step)}: {step.name}. {then}", SOFT_TEXT
            took, box = f"to {later}{hour_words(ends)}", ""
        else:
            lines = [self.hands(step), f"{step.name}.", self.said(step.said), *self.cautions(step)]
            words, style = " ".join(line for line in lines if line), TEXT
            took, box = self.say(step.hands) if step.hands is not None else "", Box()
        return [box, worded(hour_words(begins), style), worded(words, style), worded(took, style)]


def _by_hour(steps: Iterable[TimedStep]) -> list[tuple[datetime, datetime, TimedStep]]:
    """Every step by the hour it begins at; work over several days stands on each of them."""
    found = [(*span, one) for one in steps for span in one.spans]
    return sorted(found, key=lambda row: (row[0], row[2].wait is not None))
