"""Rectangles laid side by side on a layer of cake: which go on it together, and where each lies.

Lengths are in mm. Any two, three or four rectangles that lie on a sheet at all can be laid so that it is cut apart by
straight cuts from side to side, so that looking at those alone finds every way (geometry; five may need a pinwheel).
"""

import math
from collections.abc import Iterator
from functools import lru_cache
from itertools import combinations
from typing import NamedTuple

MOST_BESIDE = 4
"""No more are looked at together."""
SLACK_MM = 1e-6


class Spot(NamedTuple):
    """Where one of the rectangles lies, by its number: its left lower corner, and whether its long side runs up."""

    which: int
    x: float
    y: float
    upright: bool


class Room(NamedTuple):
    """What some rectangles take together, and where each lies in it."""

    wide: float
    high: float
    spots: tuple[Spot, ...]

    def beside(self, other: "Room", gap: float) -> "Room":
        """This and another to the right of it."""
        moved = tuple(one._replace(x=one.x + self.wide + gap) for one in other.spots)
        return Room(self.wide + gap + other.wide, max(self.high, other.high), self.spots + moved)

    def below(self, other: "Room", gap: float) -> "Room":
        """This and another above it."""
        moved = tuple(one._replace(y=one.y + self.high + gap) for one in other.spots)
        return Room(max(self.wide, other.wide), self.high + gap + other.high, self.spots + moved)


class Bed(NamedTuple):
    """What rectangles are laid on: a rectangle, the short side first, or a circle as wide as it is high."""

    wide: float
    high: float
    round: bool = False

    def holds(self, room: Room) -> bool:
        """Whether a room lies on it; in a circle so that its corners do."""
        if self.round:
            return math.hypot(room.wide, room.high) <= self.wide + SLACK_MM
        return room.wide <= self.wide + SLACK_MM and room.high <= self.high + SLACK_MM

    def middle(self, room: Room) -> Room:
        """A room where it lies on it: in the middle of a circle, else in the corner of a rectangle."""
        if not self.round:
            return room
        x, y = (self.wide - room.wide) / 2, (self.high - room.high) / 2
        return room._replace(spots=tuple(one._replace(x=one.x + x, y=one.y + y) for one in room.spots))


@lru_cache(maxsize=8192)
def rooms_of(sides: tuple[tuple[float, float], ...], gap: float) -> tuple[Room, ...]:
    """The least rooms that hold rectangles of those sides (short, long), so far apart: none is as small both ways as
    another. Raises ValueError where there are more than `MOST_BESIDE`.
    """
    if len(sides) > MOST_BESIDE:
        raise ValueError(f"{len(sides)} rectangles are more than {MOST_BESIDE}")
    return _rooms(tuple(enumerate(sides)), gap)


def _rooms(ones: tuple[tuple[int, tuple[float, float]], ...], gap: float) -> tuple[Room, ...]:
    if len(ones) == 1:
        which, (short, long) = ones[0]
        return _least([Room(short, long, (Spot(which, 0, 0, True),)), Room(long, short, (Spot(which, 0, 0, False),))])
    found = []
    # Each parting once: the first is always on the one side.
    for size in range(len(ones) - 1):
        for others in combinations(ones[1:], size):
            rest = tuple(one for one in ones[1:] if one not in others)
            for one in _rooms((ones[0], *others), gap):
                for other in _rooms(rest, gap):
                    found += [one.beside(other, gap), one.below(other, gap)]
    return _least(found)


def _least(rooms: list[Room]) -> tuple[Room, ...]:
    kept: list[Room] = []
    for room in sorted(rooms, key=lambda one: (one.wide, one.high)):
        if not kept or room.high < kept[-1].high - SLACK_MM:
            kept.append(room)
    return tuple(kept)


def laid_on(sides: tuple[tuple[float, float], ...], gap: float, bed: Bed) -> Room | None:
    """Rectangles where they lie on a bed; None where they do not all lie on it."""
    return next((bed.middle(room) for room in rooms_of(sides, gap) if bed.holds(room)), None)


def together(sides: list[tuple[float, float]], gap: float, bed: Bed) -> Iterator[tuple[int, ...]]:
    """Every two, three and four of some rectangles that lie on a bed together, by their numbers."""
    areas = [(short + gap) * (long + gap) for short, long in sides]
    room = (bed.wide + gap) * (bed.high + gap)
    fits = [at for at, one in enumerate(sides) if laid_on((one,), gap, bed)]
    before: set[tuple[int, ...]] = {(at,) for at in fits}
    for size in range(2, MOST_BESIDE + 1):
        now: set[tuple[int, ...]] = set()
        for group in combinations(fits, size):
            # Whatever lies together does so without any one of them.
            if sum(areas[at] for at in group) > room or any(
                group[:at] + group[at + 1 :] not in before for at in range(size)
            ):
                continue
            if laid_on(tuple(sides[at] for at in group), gap, bed):
                now.add(group)
        yield from sorted(now)
        before = now
