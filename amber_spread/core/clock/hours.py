"""The working hours of every pair of hands, by the minute, and what a kitchen has only so many of."""

from collections.abc import Mapping
from datetime import date
from typing import NamedTuple

from amber_spread.core.clock.places import RESOURCES, Places, Resource

DAY_MIN = 24 * 60
FIRST_WEEKDAY = 3
"""Minutes are counted from a Thursday, 1 January 1970."""


class Span(NamedTuple):
    """From one minute to another."""

    start: int
    end: int


class Taken(NamedTuple):
    """When each pair of hands is taken already, and each of what the kitchen has only so many of."""

    hands: tuple[tuple[Span, ...], ...] = ()
    limited: Mapping[Resource, tuple[tuple[Span, ...], ...]] = {}


FREE = Taken()


class Hours(NamedTuple):
    """When each pair of hands works: on each day of its week, Monday first, in minutes after midnight (None: it does
    not), but for the days it has off, counted from 1 January 1970. `longest` is the longest day of each pair, min, and
    `limits` how many the kitchen has of what there is less of than hands would need.
    """

    weeks: tuple[tuple[Span | None, ...], ...]
    off: tuple[frozenset[int], ...]
    longest: tuple[int, ...]
    limits: Mapping[Resource, int]

    @classmethod
    def of(cls, places: Places) -> "Hours":
        """The hours of a kitchen. An oven bakes without hands, so there is always a limit to ovens."""
        first, hands = date(1970, 1, 1), len(places.hands)
        counts = {resource: places.count(resource) for resource in RESOURCES}
        weeks = tuple(
            tuple(None if day is None else Span(round(day.begins_min), round(day.ends_min)) for day in one.week)
            for one in places.hands
        )
        return cls(
            weeks,
            tuple(frozenset((day - first).days for day in one.off) for one in places.hands),
            tuple(max(day.end - day.start for day in week if day is not None) for week in weeks),
            {resource: count for resource, count in counts.items() if resource == "oven" or count < hands},
        )

    def taken(self, before: Taken) -> tuple[list[list[Span]], dict[Resource, list[list[Span]]]]:
        """When each pair of hands, and each of what there is a limit to, is taken before anything else is planned."""
        hands = [list(one) for one in before.hands] or [[] for _ in range(self.hands)]
        limited = {
            resource: [list(one) for one in before.limited.get(resource, ((),) * count)]
            for resource, count in self.limits.items()
        }
        return hands, limited

    @property
    def hands(self) -> int:
        """How many pairs there are."""
        return len(self.weeks)

    @property
    def long_min(self) -> int:
        """The longest working day of any pair, min."""
        return max(self.longest)

    def of_day(self, hand: int, minute: int) -> Span:
        """The working hours of a pair on the day of a minute; on a day off they end as they begin, at midnight."""
        number = minute // DAY_MIN
        day = None if number in self.off[hand] else self.weeks[hand][(number + FIRST_WEEKDAY) % 7]
        midnight = number * DAY_MIN
        return Span(midnight, midnight) if day is None else Span(midnight + day.start, midnight + day.end)

    def day_before(self, hand: int, minute: int) -> Span:
        """The working hours of a pair on the last day before that of a minute on which it works."""
        while True:
            minute -= DAY_MIN
            day = self.of_day(hand, minute)
            if day.end > day.start:
                return day
