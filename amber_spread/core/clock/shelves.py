"""Where everything stands in the fridge and the freezer: on which shelf, in which drawer.

Things on one shelf stand side by side. A cake too high for one shelf takes several, with the shelves above it removed.
Things may be moved on their shelf as others come and go.
"""

from collections.abc import Sequence
from typing import Literal, NamedTuple, get_args

from amber_spread.core.clock.hours import Span
from amber_spread.core.clock.places import ColdShelf
from amber_spread.core.clock.steps import Size
from amber_spread.core.geometry.flat.packing import pack
from amber_spread.core.kernel.caching import cached

Cold = Literal["fridge", "freezer"]
COLD: tuple[Cold, ...] = get_args(Cold)


class Stay(NamedTuple):
    """A thing of a size that stands in the cold for a while. `what` stays the same from one stay of it to the next."""

    id: str
    what: str
    span: Span
    size: Size


class Standing(NamedTuple):
    """A stay and its shelves, counted from 0 at the top. It stands on the last of them; the others are removed."""

    stay: Stay
    shelves: range


def on_shelves(
    stays: Sequence[Stay], shelves: Sequence[ColdShelf], standing: Sequence[Standing] = ()
) -> list[Standing]:
    """Find shelves for some stays, beside what is already `standing` there. Stays without room are left out.

    First come, first served: a thing goes back to its shelf, else to the one with the least height to spare (best fit,
    a common heuristic).
    """
    room = _room(shelves)
    found: list[Standing] = []
    before: dict[str, range] = {}
    for stay in sorted(stays, key=lambda one: one.span):
        there = [
            one
            for one in (*standing, *found)
            if one.stay.span.start < stay.span.end and stay.span.start < one.stay.span.end
        ]
        choices = _choices(stay.size, room)
        if stay.what in before:
            choices = (before[stay.what], *choices)
        free = next((one for one in choices if _is_free(stay, one, there, room[one[-1]])), None)
        if free is not None:
            found.append(Standing(stay, free))
            before[stay.what] = free
    return found


def fits(size: Size, shelves: Sequence[ColdShelf]) -> bool:
    """Whether a thing finds room in an empty fridge."""
    return bool(_choices(size, _room(shelves)))


def shelves_needed(size: Size, shelves: Sequence[ColdShelf]) -> int:
    """How many shelves a thing takes, with those above it removed; 0 if it fits nowhere."""
    return min((len(one) for one in _choices(size, _room(shelves))), default=0)


def _room(shelves: Sequence[ColdShelf]) -> tuple[Size, ...]:
    return tuple(Size(one.width_mm, one.depth_mm, one.height_mm) for one in shelves)


@cached(512)
def _choices(size: Size, shelves: tuple[Size, ...]) -> tuple[range, ...]:
    """The shelves that a thing may take, those with the least height to spare first."""
    found: list[tuple[float, int, range]] = []
    for last, shelf in enumerate(shelves):
        height_mm, first = shelf.height_mm, last
        while height_mm < size.height_mm and first:
            first -= 1
            height_mm += shelves[first].height_mm
        if height_mm >= size.height_mm and _lie((size[:2],), shelf[:2]):
            found.append((height_mm - size.height_mm, last, range(first, last + 1)))
    return tuple(one for *_, one in sorted(found, key=lambda one: one[:2]))


def _is_free(stay: Stay, wanted: range, there: Sequence[Standing], shelf: Size) -> bool:
    """Whether the `wanted` shelves have room for a stay while it lasts, beside the stays that overlap it. `shelf` is
    the size of the one it stands on.
    """
    if not there:
        return True
    if any(_removes(one.shelves, wanted) or _removes(wanted, one.shelves) for one in there):
        return False
    beside = [one for one in there if one.shelves[-1] == wanted[-1]]
    moments = {stay.span.start, *(max(one.stay.span.start, stay.span.start) for one in beside)}
    for moment in moments:
        now = [one.stay.size[:2] for one in beside if one.stay.span.start <= moment < one.stay.span.end]
        if now and not _lie(tuple(sorted((stay.size[:2], *now))), shelf[:2]):
            return False
    return True


def _removes(one: range, other: range) -> bool:
    """Whether the one removes the shelf that the other stands on."""
    return other[-1] in one[:-1]


@cached(512)
def _lie(boxes: tuple[tuple[float, float], ...], shelf: tuple[float, float]) -> bool:
    """Whether some things stand side by side on a shelf."""
    packed = pack(boxes, shelf, turn=True)
    return packed is not None and packed.sheets == 1
