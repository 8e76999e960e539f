"""How often the oven is filled: bakes side by side on its shelves, each tin as often at once as it is owned."""

from collections.abc import Mapping
from typing import NamedTuple

from amber_spread.core.geometry.packing import pack

AIR_MM = 25.0
"""So much room is left between tins, and to the walls (common practice: an inch of air)."""
Size = tuple[float, float]
"""A tin from above, across and along, mm."""


class Oven(NamedTuple):
    """An oven: how wide and deep its shelves are, mm, how many it has, and how many tins of a size there are."""

    wide_mm: float
    deep_mm: float
    shelves: int
    of_each: int


def oven_loads(bakes: Mapping[Size, int], oven: Oven) -> int | None:
    """How often the oven is filled for so many bakes of each tin; None where a tin does not go in at all.

    Each time as many of the largest are put in as there are tins of them and the shelves hold, then the next smaller.
    No fewer than the bakes of a tin over how many there are of it, and no more than the bakes. Source: geometry
    (packed by rectpack), the air by common practice.

    >>> oven_loads({(200.0, 200.0): 3}, Oven(450, 370, 2, 2))
    2
    """
    left = dict(sorted(bakes.items(), key=lambda one: -one[0][0] * one[0][1]))
    loads = 0
    while any(left.values()):
        inside: list[Size] = []
        for tin, count in left.items():
            for _ in range(min(count, oven.of_each)):
                if not _holds(oven, [*inside, tin]):
                    break
                inside.append(tin)
        if not inside:
            return None
        for tin in inside:
            left[tin] -= 1
        loads += 1
    return loads


def _holds(oven: Oven, tins: list[Size]) -> bool:
    boxes = [(across + AIR_MM, along + AIR_MM) for across, along in tins]
    packed = pack(boxes, (oven.wide_mm - AIR_MM, oven.deep_mm - AIR_MM), True)
    return packed is not None and packed.sheets <= oven.shelves
