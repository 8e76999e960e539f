"""The bill of goods of one order: the boards, supports and sheets that leave with the cake, and tools still to get."""

from collections.abc import Iterator
from typing import NamedTuple

from amber_spread.core.design.finishes import PrintedCover
from amber_spread.core.document import Document
from amber_spread.core.plan import Plan
from amber_spread.core.stock.goods import good_key
from amber_spread.core.stock.kit import KitNeed


class Leaving(NamedTuple):
    """So many of one kind of goods; `tier` counts from 1, None is the cake as a whole."""

    tier: int | None
    item: str
    pieces: float


def goods_taken(document: Document, plan: Plan) -> Iterator[Leaving]:
    """What leaves with the cake: boards in the size that is kept, what supports are cut from, printed sheets."""
    for need in plan.kit.values():
        if need.tool in ("board", "base board"):
            yield Leaving(need.tier, _key(need), 1)
    for cut in plan.stack.cutting.values():
        yield Leaving(None, good_key(cut.sort, cut.stock.value), cut.rods.value)
    if plan.stack.dowel is not None:
        dowel = plan.stack.dowel
        yield Leaving(None, good_key("dowel", dowel.across.value), 1)
    for number, (asked, tier) in enumerate(zip(document.design.tiers, plan.tiers, strict=True), 1):
        if isinstance(asked.cover, PrintedCover) and tier.cover and tier.cover.printed:
            sheet = good_key("printed sheet", asked.cover.sheet_width_mm, asked.cover.sheet_height_mm)
            yield Leaving(number, sheet, tier.cover.printed.sheets.value)


def tools_to_get(plan: Plan) -> Iterator[str]:
    """The tools this kitchen does not own and nothing else will do for, each once."""
    found = {}
    for need in plan.kit.values():
        if need.status == "get" and need.tool not in ("board", "base board", "printed sheet"):
            found[_key(need)] = True
    yield from found


def _key(need: KitNeed) -> str:
    if need.owned is not None and need.owned_shape is not None:
        length = need.owned_length.value if need.owned_length else None
        return good_key(need.tool, need.owned.value, length, need.owned_shape)
    return good_key(need.tool, need.size.value, need.length.value if need.length else None, need.shape)
