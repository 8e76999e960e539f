"""Better hours for a week as a job: a function of plain values, like those of `designs`."""

from collections.abc import Sequence
from datetime import datetime
from itertools import count

from amber_spread.core.clock.better import better_week
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.week import OrderWork
from amber_spread.core.kernel.progress import begun as part_begun


def better_json(orders: Sequence[OrderWork], places: Places, now: datetime, effort: float, begun: Sequence[str]) -> str:
    """Better hours as JSON, or “null” where none were found. The number of each that was found is told as it comes."""
    numbers = count(1)
    found = better_week(orders, places, now, effort, frozenset(begun), lambda _: part_begun(str(next(numbers))))
    return "null" if found is None else found.model_dump_json()
