"""How often the oven is filled: bakes side by side on its shelves, each tin as often at once as it is owned."""

from typing import NamedTuple

from amber_spread.core.design.practice import Practice
from amber_spread.core.geometry.flat.packing import pack
from amber_spread.core.kernel.caching import cached

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

    @classmethod
    def of(cls, usual: Practice) -> "Oven":
        """The oven and the tins of a kitchen."""
        return cls(usual.oven_wide_mm, usual.oven_deep_mm, usual.oven_shelves, usual.tins_of_each)


@cached(256)
def oven_loads(bakes: tuple[tuple[Size, int], ...], oven: Oven) -> int | None:
    """How often the oven is filled for so many bakes of each tin; None where a tin does not go in at all.

    Each time as many of the largest are put in as there are tins of them and the shelves hold, then the next smaller.
    No fewer than the bakes of a tin over how many there are of it, and no more than the bakes. Source: geometry
    (packed by rectpack), the air by common practice.

    >>> oven_loads((((200.0, 200.0), 3),), Oven(450, 370, 2, 2))
    2
    """
    tins = sorted(bakes, key=lambda one: -one[0][0] * one[0][1])
    left = [count for _, count in tins]
    loads = 0
    while any(left):
        inside: list[Size] = []
        for at, (tin, _) in enumerate(tins):
            for _ in range(min(left[at], oven.of_each)):
                if not _holds(oven, [*inside, tin]):
                    break
                inside.append(tin)
                left[at] -= 1
        if not inside:
            return None
        loads += 1
    return loads


def _holds(oven: Oven, tins: list[Size]) -> bool:
    boxes = [(across + AIR_MM, along + AIR_MM) for across, along in tins]
    packed = pack(boxes, (oven.wide_mm - AIR_MM, oven.deep_mm - AIR_MM), True)
    return packed is not None and packed.sheets <= oven.shelves
