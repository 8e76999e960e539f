"""The week on paper: the day sheets of one pair of hands, or of all, and the same as a calendar."""

from collections.abc import Iterator, Mapping
from datetime import UTC, datetime
from itertools import groupby
from typing import Any, NamedTuple

from reportlab.platypus import KeepTogether

from amber_spread.core.clock import CAUTION, Week, WeekOrder, WeekStep
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.units import day_words, hour_words
from amber_spread.papers.calendar import Saved, calendar_of, event
from amber_spread.papers.printed import HEADING, SOFT_TEXT, TEXT, TITLE, Box, bound, table, worded
from amber_spread.papers.sheets import Paper

WIDTHS = (8, 18, 128, 24)


class Whose(NamedTuple):
    """A pair of hands, counted from 1, and what it is called; no number stands for all of them."""

    hand: int | None
    name: str

    def does(self, step: WeekStep) -> bool:
        """Whether it does a step."""
        return step.hand is not None and self.hand in (None, step.hand)


class _Row(NamedTuple):
    start: datetime
    end: datetime
    order: WeekOrder
    step: WeekStep


def write_week_sheet(week: Week, whose: Whose, paper: Paper = "a4") -> bytes:
    """What a pair of hands does on each day of a week, hour by hour, with a box to tick, and when it goes home."""
    title = f"{whose.name}: day sheets" if whose.name else "Day sheets of the week"
    return bound([worded(title, TITLE), *_story(week, whose)], title, paper)


def _story(week: Week, whose: Whose) -> Iterator[Any]:
    rows = list(_rows(week, whose))
    if not rows:
        yield worded("No work on these days.", TEXT)
    if week.pending:
        yield worded(f"{listed(week.pending)}: still being worked out, so these hours may move.", TEXT)
    for words in week.left_out:
        yield worded(words, TEXT)
    yield worded(CAUTION.text, SOFT_TEXT)
    for day, group in groupby(rows, key=lambda row: row.start.date()):
        of_day = list(group)
        home = max(row.end for row in of_day)
        lines = [_line(row, whose) for row in of_day]
        heading = worded(f"{day_words(day)}, home at {hour_words(home)}", HEADING)
        yield KeepTogether([heading, table(lines[:3], WIDTHS)])
        if lines[3:]:
            yield table(lines[3:], WIDTHS)


def _rows(week: Week, whose: Whose) -> Iterator[_Row]:
    """Every piece of work by the hour it begins at; work over several days stands on each of them."""
    found = [
        _Row(start, end, order, step)
        for order in week.orders
        for step in order.steps.values()
        if whose.does(step)
        for start, end in step.spans
    ]
    return iter(sorted(found, key=lambda row: (row.start, row.end, row.order.title, row.step.name)))


def _line(row: _Row, whose: Whose) -> list[Any]:
    by = f" ({row.step.whose})" if whose.hand is None and row.step.whose else ""
    done = row.step.state == "done"
    words = f"{row.order.title}: {row.step.name}{by}{', done' if done else ''}"
    minutes = round((row.end - row.start).total_seconds() / 60)
    style = SOFT_TEXT if done else TEXT
    return [
        "" if done else Box(),
        worded(hour_words(row.start), style),
        worded(words, style),
        worded(f"{minutes} min", style),
    ]


def write_week_calendar(week: Week, whose: Whose, revisions: Mapping[str, int], written: datetime) -> bytes:
    """An event for every piece of work of a week, and for every due hour. Events have the ids that the calendar of
    their order gives them, so that neither file brings a second one.
    """
    found = calendar_of(whose.name or "The week")
    for order in week.orders:
        saved = Saved(order.id, revisions.get(order.id, 0), written.astimezone(UTC))
        for id, step in order.steps.items():
            for number, (start, end) in enumerate(step.spans if whose.does(step) else (), 1):
                own = id if len(step.spans) == 1 else f"{id}-{number}"
                by = f"By {step.whose}." if step.whose else ""
                found.add_component(event(saved, own, f"{step.name}: {order.title}", start, end, by))
        found.add_component(event(saved, "due", f"Due: {order.title}", order.due, None, ""))
    return bytes(found.to_ical())
