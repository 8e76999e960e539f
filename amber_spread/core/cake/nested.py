"""Slices laid side by side on a layer of cake: which go on it together, and where each lies.

They are laid by the least rectangles round them, and two of them against each other by the least convex outlines too,
with the least rectangle round both. Lengths are in mm. Any two, three or four rectangles that lie on a sheet at all can
be laid so that it is cut apart by straight cuts from side to side, so that looking at those alone finds every way
(geometry; five may need a pinwheel).
"""

import math
from collections.abc import Callable, Iterator, Sequence
from itertools import combinations
from typing import NamedTuple

import numpy

from amber_spread.core.geometry.flat.no_fit import Against, Hull, laid_against, least_of, room_for
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import cached

MOST_BESIDE = 4
"""No more are looked at together."""
MOST_TRIED = 220
"""Limit of different groups tried on a bed: enough for all pairs of 12 slices and as many triples."""
FEW = 12
"""Of the ways to lay two against each other no more are looked at beside others, spread from the narrowest on."""
SLACK_MM = 1e-6
KEPT = 2048


class Spot(NamedTuple):
    """Where one of the slices lies, by its number: the left lower corner of the rectangle round it, and by how many
    quarters it is turned from where its long side runs up.
    """

    which: int
    x: float
    y: float
    quarters: int


class Lying(NamedTuple):
    """A slice as it is laid: the sides of the least rectangle round it, and the least convex outline with the left
    lower corner of that rectangle at 0, 0 and its long side up; None where it is taken as the rectangle.
    """

    short: float
    long: float
    outline: Hull | None = None

    def area(self, gap: float) -> float:
        """What it takes with half of the gap all round it, mm²."""
        short, long = self.short, self.long
        return room_for(self.outline or ((0.0, 0.0), (short, 0.0), (short, long), (0.0, long)), gap)

    def spot(self, which: int, quarters: int, x: float, y: float) -> Spot:
        """Where it lies once it is turned about 0, 0 and moved."""
        corner = ((0.0, 0.0), (-self.long, 0.0), (-self.short, -self.long), (0.0, -self.short))[quarters]
        return Spot(which, x + corner[0], y + corner[1], quarters)


class Room(NamedTuple):
    """What some slices take together, and where each lies in it."""

    wide: float
    high: float
    spots: tuple[Spot, ...]

    def moved(self, x: float, y: float) -> tuple[Spot, ...]:
        """Where each lies once the room is moved."""
        return tuple(one._replace(x=one.x + x, y=one.y + y) for one in self.spots)


class Bed(NamedTuple):
    """What slices are laid on: a rectangle, the short side first, or a circle as wide as it is high."""

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
        return room._replace(spots=room.moved((self.wide - room.wide) / 2, (self.high - room.high) / 2))

    def area(self, gap: float) -> float:
        """Its area with half of the gap all round it, mm²."""
        return math.pi / 4 * (self.wide + gap) ** 2 if self.round else (self.wide + gap) * (self.high + gap)


@cached(KEPT)
def rooms_of(ones: tuple[Lying, ...], gap: float) -> tuple[Room, ...]:
    """The least rooms that hold slices so far apart, from the narrowest to the widest: none is as small both ways as
    another. Raises ValueError where there are more than `MOST_BESIDE`.
    """
    if len(ones) > MOST_BESIDE:
        raise ValueError(f"{len(ones)} slices are more than {MOST_BESIDE}")
    return _rooms(tuple(enumerate(ones)), gap, len(ones) > 2)


Numbered = tuple[tuple[int, Lying], ...]


@cached(KEPT)
def _rooms(ones: Numbered, gap: float, few: bool) -> tuple[Room, ...]:
    if len(ones) == 1:
        which, (short, long, _) = ones[0]
        upright, across = Room(short, long, (Spot(which, 0, 0, 0),)), Room(long, short, (Spot(which, 0, 0, 1),))
        return (upright, across) if short < long - SLACK_MM else (upright,)
    found = list(_against(ones, gap, few)) if len(ones) == 2 else []
    # Each parting once: the first is always on the one side.
    for size in range(len(ones) - 1):
        for others in combinations(ones[1:], size):
            rest = tuple(one for one in ones[1:] if one not in others)
            found.append(_Ways.of(_rooms((ones[0], *others), gap, few), _rooms(rest, gap, few), gap))
    sizes = numpy.vstack([ways.sizes for ways in found])
    starts = numpy.cumsum([0, *(len(ways.sizes) for ways in found)])
    kept = []
    for at in least_of(sizes, SLACK_MM).tolist():
        among = int(numpy.searchsorted(starts, at, side="right")) - 1
        wide, high = sizes[at].tolist()
        kept.append(Room(wide, high, found[among].spots(at - int(starts[among]))))
    return tuple(kept)


class _Ways(NamedTuple):
    """Ways to lay some: how wide and high they are together in each, a row each, and where each lies then, by its row,
    worked out where it is kept.
    """

    sizes: Numbers
    spots: Callable[[int], tuple[Spot, ...]]

    @classmethod
    def of(cls, ones: Sequence[Room], others: Sequence[Room], gap: float) -> "_Ways":
        """Each of some rooms beside each of others: to the left of it, and then below it."""
        (wide, high), (across, up) = (numpy.array([room[:2] for room in rooms]).T for rooms in (ones, others))
        beside = wide[:, None] + gap + across, numpy.maximum(high[:, None], up)
        below = numpy.maximum(wide[:, None], across), high[:, None] + gap + up
        sizes = numpy.vstack([numpy.column_stack([each.ravel() for each in way]) for way in (beside, below)])

        def spots(row: int) -> tuple[Spot, ...]:
            above, pair = divmod(row, len(ones) * len(others))
            one, other = ones[pair // len(others)], others[pair % len(others)]
            moved = (0.0, one.high + gap) if above else (one.wide + gap, 0.0)
            return one.spots + other.moved(*moved)

        return cls(sizes, spots)


def _against(ones: Numbered, gap: float, few: bool) -> Iterator[_Ways]:
    """Two by the convex outlines round them."""
    (_, first), (_, second) = ones
    if first.outline is None or second.outline is None:
        return
    ways = laid_against(first.outline, second.outline, gap)
    ways = ways[:: max(1, math.ceil(len(ways) / FEW))] if few else ways
    yield _Ways(numpy.array([laid[:2] for laid in ways]), lambda row: _lain(ones, ways[row]))


def _lain(ones: Numbered, laid: Against) -> tuple[Spot, ...]:
    """Where two lie against each other."""
    return tuple(
        one.spot(which, quarters, *moved)
        for (which, one), quarters, moved in zip(ones, laid.quarters, laid.moved, strict=True)
    )


def laid_on(ones: tuple[Lying, ...], gap: float, bed: Bed) -> Room | None:
    """Slices where they lie on a bed; None where they are not found to lie on it."""
    return next((bed.middle(room) for room in rooms_of(ones, gap) if bed.holds(room)), None)


def together(ones: list[Lying], gap: float, bed: Bed) -> Iterator[tuple[int, ...]]:
    """Every pair, triple and four of the slices that fit on a bed together, by their numbers. Tries at most
    `MOST_TRIED` different groups, pairs first.
    """
    areas, room = [one.area(gap) for one in ones], bed.area(gap)
    fits = [at for at, one in enumerate(ones) if laid_on((one,), gap, bed)]
    before: set[tuple[int, ...]] = {(at,) for at in fits}
    tried: set[tuple[Lying, ...]] = set()
    for size in range(2, MOST_BESIDE + 1):
        now: set[tuple[int, ...]] = set()
        for group in combinations(fits, size):
            # Whatever lies together does so without any one of them.
            if sum(areas[at] for at in group) > room or any(
                group[:at] + group[at + 1 :] not in before for at in range(size)
            ):
                continue
            lying = tuple(ones[at] for at in group)
            if lying not in tried and len(tried) >= MOST_TRIED:
                continue
            tried.add(lying)
            if laid_on(lying, gap, bed):
                now.add(group)
        yield from sorted(now)
        before = now
