"""What a plan asks of the kit: the tins, discs, cards, boards, scrapers, mat, pin and sheets of every step."""

from collections.abc import Iterator

from amber_spread.core.coats import SCHOOLS, has_final
from amber_spread.core.design import MeasuredBake, Tier
from amber_spread.core.finishes import (
    BoxCover,
    DrapeCover,
    HalvesCover,
    PanelCover,
    PlateFinal,
    PrintedCover,
    TowelFinal,
)  # fmt: skip
from amber_spread.core.kit import Need
from amber_spread.core.shapes import BallBuild, FreeShape, OvalShape, RectangleShape
from amber_spread.core.stack import StackPlan, TierStack
from amber_spread.core.worked import Worked

SMOOTHERS = 2.0
"""One for the top and one for the side, so that the edge between them comes sharp (common practice)."""
LEAST_COAT_MM = 1.0
"""A disc still works while it leaves this much coat at the side (from memory)."""


def needs_of_tier(number: int, tier: Tier, done: Worked, stands: TierStack) -> Iterator[Need]:
    """The tools of tier `number`, in the order of the work."""
    if not isinstance(tier.layers.bake, MeasuredBake) and not isinstance(tier.shape, FreeShape):
        across = tier.tin_diameter_mm
        length = tier.shape.length_mm if isinstance(tier.shape, RectangleShape | OvalShape) else None
        shape = "ball" if isinstance(tier.build, BallBuild) else tier.shape.kind
        yield Need("tin", number, across, across / 1.35, shape=shape, length_mm=length)
    if done.layers.board is not None:
        size = done.layers.board.diameter.value
        yield Need("board", number, size, 0.7 * size)
    final = tier.final
    if isinstance(final, PlateFinal) and has_final(final):
        plate = SCHOOLS[final.kind].plate
        assert plate is not None
        least = done.bodies.crumbed.width_mm + 2 * LEAST_COAT_MM
        yield Need(plate, number, final.disc_diameter_mm, least)
    if done.coats.scraper is not None:
        tall = done.coats.scraper.value
        yield Need("scraper", number, tall, tall / 2, wider=True)
    if isinstance(final, TowelFinal) or isinstance(tier.cover, DrapeCover | PanelCover | BoxCover | HalvesCover):
        yield Need("smoother", number, SMOOTHERS, 1.0, wider=True)
    yield from _needs_of_cover(number, tier, done)
    if stands.board_diameter is not None:
        size = stands.board_diameter.value
        yield Need("board", number, size, size - 12.7)


def _needs_of_cover(number: int, tier: Tier, done: Worked) -> Iterator[Need]:
    cover = done.cover
    if cover is None:
        return
    if isinstance(tier.cover, PrintedCover):
        across = tier.cover.sheet_width_mm
        yield Need("printed sheet", number, across, across / 2, wider=True, length_mm=tier.cover.sheet_height_mm)
        return
    sizes = [piece.size for piece in cover.pieces.values()]
    longest, widest = max(max(size) for size in sizes), max(min(size) for size in sizes)
    yield Need("mat", number, longest, 0.0, wider=True)
    # A pin need only span the narrower way of the widest piece: the rest is rolled out along it.
    yield Need("pin", number, widest, 0.5 * widest, wider=True)


def needs_of_cake(whole: StackPlan) -> Iterator[Need]:
    """The tools of the cake as a whole: the base board, which may be larger."""
    yield Need("base board", None, whole.base_diameter.value, whole.base_diameter.value - 25.4, wider=True)
