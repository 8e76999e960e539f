"""Working hours by the minute: when each pair of hands works, and what of that is reserved."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from typing import NamedTuple

from amber_spread.core.clock.places import RESOURCES, Places, Resource
from amber_spread.core.kernel.caching import cached

DAY_MIN = 24 * 60
START = datetime(1970, 1, 1)
"""The moment from which minutes are counted."""


class Span(NamedTuple):
    """From one minute to another."""

    start: int
    end: int


class Reserved(NamedTuple):
    """Reserved time: of each pair of hands, and of each oven, mixer, turntable and place at a bench."""

    hands: tuple[tuple[Span, ...], ...] = ()
    resources: Mapping[Resource, tuple[tuple[Span, ...], ...]] = {}


NOTHING_RESERVED = Reserved()


class Hours(NamedTuple):
    """The working hours of every pair of hands: for each day of the week, Monday first, in minutes after midnight (None
    for a free day), and the days off, counted from 1 January 1970. `longest` is the longest day of each pair, min.
    `limits` counts the resources that can run out: ovens, and the others of which there are fewer than hands.
    """

    weeks: tuple[tuple[Span | None, ...], ...]
    off: tuple[frozenset[int], ...]
    longest: tuple[int, ...]
    limits: Mapping[Resource, int]

    @classmethod
    def of(cls, places: Places) -> "Hours":
        """The hours of a kitchen. An oven bakes without hands, so ovens can always run out."""
        hands, counts = len(places.hands), {resource: places.count(resource) for resource in RESOURCES}
        weeks = tuple(
            tuple(None if day is None else Span(round(day.begins_min), round(day.ends_min)) for day in one.week)
            for one in places.hands
        )
        return cls(
            weeks,
            tuple(frozenset((day - START.date()).days for day in one.off) for one in places.hands),
            tuple(max(day.end - day.start for day in week if day is not None) for week in weeks),
            {resource: count for resource, count in counts.items() if resource == "oven" or count < hands},
        )

    @property
    def hands(self) -> int:
        """The number of pairs of hands."""
        return len(self.weeks)

    @property
    def long_min(self) -> int:
        """The longest working day of any pair, min."""
        return max(self.longest)

    def of_day(self, hand: int, minute: int) -> Span:
        """The working hours of a pair on the day of a minute. On a day off they end as they begin, at midnight."""
        number = minute // DAY_MIN
        day = None if number in self.off[hand] else self.weeks[hand][(number + START.weekday()) % 7]
        midnight = number * DAY_MIN
        return Span(midnight, midnight) if day is None else Span(midnight + day.start, midnight + day.end)

    def day_before(self, hand: int, minute: int) -> Span:
        """The working hours of a pair on its last working day before the day of a minute."""
        while True:
            minute -= DAY_MIN
            day = self.of_day(hand, minute)
            if day.end > day.start:
                return day

    def day_after(self, hand: int, minute: int) -> Span:
        """The working hours of a pair on its next working day after the day of a minute."""
        while True:
            minute += DAY_MIN
            day = self.of_day(hand, minute)
            if day.end > day.start:
                return day

    def parts_after(self, hand: int, minute: int, minutes: int, busy: Sequence[Span] = ()) -> tuple[Span, ...]:
        """The spans of so many minutes of work by a pair from a minute on: as much on each day as it can do while it is
        not `busy`.
        """
        spans, left = list[Span](), minutes
        while left:
            begins, ends = self.of_day(hand, minute)
            begin = max(minute, begins)
            if begin >= ends:
                minute = self.day_after(hand, minute).start
                continue
            taken = [one.end for one in busy if one.start <= begin < one.end]
            if taken:
                minute = max(taken)
                continue
            end = min([ends, begin + left, *(one.start for one in busy if one.start > begin)])
            spans.append(Span(begin, end))
            left, minute = left - (end - begin), end
        return tuple(spans)


@cached(16)
def hours_of(places: Places) -> Hours:
    """The working hours of a kitchen."""
    return Hours.of(places)


def minute_of(moment: datetime) -> int:
    """A moment in whole minutes from 1 January 1970."""
    return int((moment - START).total_seconds() // 60)


def moment_of(minute: int) -> datetime:
    """The moment of a minute counted from 1 January 1970."""
    return START + timedelta(minutes=minute)


def moments_of(span: Span) -> tuple[datetime, datetime]:
    """From one moment to another."""
    return moment_of(span.start), moment_of(span.end)


def are_free(busy: Sequence[Span], spans: Sequence[Span]) -> bool:
    """Whether no `busy` span overlaps one of the others."""
    return not any(one.start < span.end and span.start < one.end for one in busy for span in spans)


def union(spans: Iterable[Span]) -> list[Span]:
    """Spans sorted, those that meet or overlap merged."""
    found: list[Span] = []
    for one in sorted(spans):
        if found and one.start <= found[-1].end:
            found[-1] = Span(found[-1].start, max(found[-1].end, one.end))
        else:
            found.append(one)
    return found
