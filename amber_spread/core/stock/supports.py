"""Supports: the straws, dowels and tubes that tiers stand on, how thick and long they come, and what one bears.

What one bears is from memory until this kitchen tests its own with the kitchen scale (see `TEST_STEPS`).
"""

from collections.abc import Sequence
from typing import Annotated, Literal, NamedTuple

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen

SupportSort = Literal["straw", "wide_straw", "wooden_dowel", "plastic_tube"]


class Support(Frozen):
    """One sort of support as this kitchen keeps it: its width, the length it is sold in, and the weight one bears.

    `tested` is one whose strength was found by this kitchen's own test.
    """

    sort: SupportSort
    across_mm: Annotated[float, limits.SUPPORT_ACROSS.field()]
    length_mm: Annotated[float, limits.ROD.field()]
    bears_g: Annotated[float, limits.BEARS.field()]
    tested: bool = False


class SupportWords(NamedTuple):
    """What a sort is called, one of it and several, what is lost to each cut, and whether its ends are sharp."""

    one: str
    many: str
    kerf_mm: float
    sharp: bool


SORTS: dict[SupportSort, SupportWords] = {
    "straw": SupportWords("straw", "straws", 0.0, False),
    "wide_straw": SupportWords("wide straw", "wide straws", 0.0, False),
    "wooden_dowel": SupportWords("wooden dowel", "wooden dowels", 1.0, True),
    "plastic_tube": SupportWords("plastic tube", "plastic tubes", 1.0, True),
}
"""Every sort, in the order of what one bears."""
STARTING_SUPPORTS = (
    Support(sort="straw", across_mm=6.0, length_mm=210.0, bears_g=1500.0),
    Support(sort="wide_straw", across_mm=12.0, length_mm=240.0, bears_g=4000.0),
    Support(sort="wooden_dowel", across_mm=6.4, length_mm=300.0, bears_g=15000.0),
    Support(sort="plastic_tube", across_mm=19.0, length_mm=300.0, bears_g=20000.0),
)
"""What a kitchen starts from; the strengths are from memory, of one piece as long as a tier is high."""
TEST_STEPS = (
    "Cut one piece as long as the highest tier it will stand in.",
    "Stand it on the kitchen scale and set the scale to zero.",
    "Put a small board on its end and press straight down, slowly, with a flat hand; keep your eyes clear of it.",
    "Stop when it bends or slips, or at the most your scale reads. Do it three times.",
    "Write down the least of the three readings here.",
)
"""How a kitchen finds what one of its own supports bears."""


def support_of(sort: SupportSort, owned: Sequence[Support]) -> Support:
    """The support of a sort as it is owned; where none is, as a kitchen starts from."""
    for one in (*owned, *STARTING_SUPPORTS):
        if one.sort == sort:
            return one
    raise KeyError(sort)
