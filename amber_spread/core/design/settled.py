"""Settle first: a design and the kitchen's usual become one, in which nothing is left open.

Every thickness, lap and share that a design may leave to the kitchen is a figure here, and its rule says whether it was
decided or is the usual. The rooms of the work take these, and ask neither the design nor the practice again.
"""

from functools import cached_property
from typing import NamedTuple

from pydantic import BaseModel

from amber_spread.core.design.design import BaseBoard, Design, Tier
from amber_spread.core.design.finishes import (
    NoCoat,
    NoCover,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    covers_top,
)
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import Kind, usuals_of
from amber_spread.core.design.taken import Taken
from amber_spread.core.kernel.base import Interned, interned
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, Unit, decided_or_default, rule


@rule(
    "coats.scraped",
    unit="mm",
    formula="thickness * share",
    source=COMMON_PRACTICE,
    words="The crumb coat is scraped back to the cake, until on the whole only this share of it stays.",
)
def scraped(thickness_mm: float, share: float) -> float:
    """Mean thickness of a semi-naked coat, mm: crumb coat x share that stays. The share is this kitchen's own.

    >>> scraped(3, 0.25)
    0.75
    """
    return thickness_mm * share


def settled(part: BaseModel, field: str, usual: Practice, unit: Unit = "mm") -> Figure:
    """What holds for a field of a part of a design: what was decided, or the usual. Raises KeyError for a field that
    has none.
    """
    return decided_or_default(getattr(part, field), getattr(usual, usuals_of(type(part))[field]), unit)


class SettledTier:
    """One tier with nothing left open: what was `asked`, and a figure for each thickness, of its own or `usual`.

    For the same tier and the same kitchen, `settle` returns the same object, so plans can be cached by it.
    """

    def __init__(self, asked: Tier, usual: Practice) -> None:
        self.asked, self.usual = asked, usual

    def settled(self, part: BaseModel, field: str) -> Figure:
        """What holds for a field, in mm, of a part of this tier."""
        return settled(part, field, self.usual)

    @cached_property
    def taken(self) -> tuple[Taken, ...]:
        """Every medium it takes: the path of the field that names it, its key, its colour."""
        return tuple(self.asked.taken())

    @cached_property
    def media_keys(self) -> tuple[str, ...]:
        """The keys of the media it takes, each once."""
        return tuple(dict.fromkeys(key for _, key, _ in self.taken))

    @cached_property
    def colour_names(self) -> tuple[str, ...]:
        """The names of the colours it takes, each once."""
        return tuple(dict.fromkeys(colour for _, _, colour in self.taken if colour is not None))

    @cached_property
    def filling(self) -> Figure:
        """The thickness of every filling."""
        return self.settled(self.asked.filling, "thickness_mm")

    @cached_property
    def dome_mm(self) -> float:
        """How much of its dome is left on the top layer: of a carved tier alone."""
        return (self.asked.layers.dome_mm or 0.0) if self.asked.build.carved else 0.0

    @cached_property
    def dam(self) -> Figure | None:
        """How wide the dam of a soft filling is."""
        filling = self.asked.filling
        return self.settled(filling, "dam_width_mm") if isinstance(filling, SoftFilling) else None

    @cached_property
    def final_kind(self) -> Kind:
        """The row of its final coat."""
        return kind_of(self.asked.final)

    @cached_property
    def goes_on(self) -> Figure:
        """The thickness the crumb coat is spread to, side and top alike; one that is scraped back goes on thicker."""
        crumb, thicker = self.asked.crumb, self.final_kind.crumb
        if thicker is not None:
            return decided_or_default(crumb.thickness_mm, getattr(self.usual, thicker), "mm")
        return self.settled(crumb, "thickness_mm")

    @cached_property
    def crumb(self) -> Figure:
        """The thickness of the crumb coat that stays, side and top alike; of a semi-naked one, what is left of it."""
        final = self.asked.final
        if isinstance(final, SemiNakedFinal):
            share = settled(final, "stays", self.usual, "ratio")
            return scraped.figure(self.goes_on.value, share.value)
        return self.goes_on

    @cached_property
    def top(self) -> Figure | None:
        """The thickness of the final coat on top, None where there is no final coat."""
        field = self.final_kind.top_field
        return None if field is None else self.settled(self.asked.final, field)

    @cached_property
    def side(self) -> Figure | None:
        """The thickness of the final coat at the side; None where there is none, or a plate sets it."""
        field = self.final_kind.side_field
        return None if field is None else self.settled(self.asked.final, field)

    @property
    def outermost(self) -> str:
        """The medium of the outermost coat, which a cover lies on: the final one's, or the crumb coat's."""
        final = self.asked.final
        return self.asked.crumb.medium if isinstance(final, NoCoat) else final.medium

    @cached_property
    def cover(self) -> Figure | None:
        """The thickness of the cover, None where there is none or it is a printed sheet's."""
        cover = self.asked.cover
        return None if isinstance(cover, NoCover | PrintedCover) else self.settled(cover, "thickness_mm")

    @property
    def above_mm(self) -> float:
        """How thick coats and cover lie on its flat top."""
        return self.crumb.value + (self.top.value if self.top else 0.0) + self.on_top_mm

    @property
    def on_top_mm(self) -> float:
        """How thick the cover lies on its flat top."""
        asked = self.asked
        return self.cover.value if self.cover and covers_top(asked.cover, asked.build) else 0.0


class SettledBoard(NamedTuple):
    """The board the cake stands on: what was asked of it, how thick it is, and how much of it shows, each side."""

    asked: BaseBoard
    thickness: Figure
    margin_mm: float


class SettledDesign(NamedTuple):
    """A whole cake with nothing left open, bottom tier first. `dowel` is how thick a centre dowel would be."""

    asked: Design
    usual: Practice
    tiers: tuple[SettledTier, ...]
    board: SettledBoard
    dowel: Figure


@cached(TIERS)
def _settled_tier(asked: Tier, kitchen: Interned[Practice]) -> SettledTier:
    return SettledTier(asked, kitchen.value)


def settle(design: Design, practice: Practice) -> SettledDesign:
    """A design and the usual of the kitchen it is made in, as one."""
    board, kitchen = design.base_board, interned(practice)
    usual = kitchen.value
    return SettledDesign(
        asked=design,
        usual=usual,
        tiers=tuple([_settled_tier(tier, kitchen) for tier in design.tiers]),
        board=SettledBoard(board, settled(board, "thickness_mm", usual), usual.base_margin_mm),
        dowel=settled(design.stacking, "dowel_mm", usual),
    )
