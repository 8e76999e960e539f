"""Better hours for a week as a job: a function of plain values, like those of `designs`."""

from collections.abc import Sequence
from datetime import datetime
from itertools import count

from amber_spread.core.clock.better import better_hours, better_week
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.week import OrderWork, Week
from amber_spread.core.kernel.progress import begun as report
from amber_spread.papers.sheets import Paper
from amber_spread.papers.week_sheet import Whose, write_week_sheet


def better_json(orders: Sequence[OrderWork], places: Places, now: datetime, effort: float, begun: Sequence[str]) -> str:
    """Better hours as JSON, or “null” if none were found. Reports the number of better solutions during the search."""
    numbers = count(1)
    better = better_hours(orders, places, now, effort, frozenset(begun), lambda: report(str(next(numbers))))
    found = None if better is None else better_week(orders, places, better)
    return "null" if found is None else found.model_dump_json()


def week_sheet_pdf(week: str, whose: Whose, paper: Paper) -> bytes:
    """The day sheets of a week, given as JSON."""
    return write_week_sheet(Week.model_validate_json(week), whose, paper)
