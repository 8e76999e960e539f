"""What a plan asks of the kit: the tins, discs, cards, boards, scrapers, mat, pin and sheets of every step."""

from collections.abc import Iterator

from amber_spread.core.cake.bakes import CarvedBake
from amber_spread.core.cake.stack import StackPlan
from amber_spread.core.design.design import MeasuredBake
from amber_spread.core.design.finishes import CollarCover, PlateFinal, PrintedCover
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.shapes import FreeShape, OvalShape, RectangleShape
from amber_spread.core.kernel.caching import TIERS, cached_items
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.stock.kit import Measure, Need, measure
from amber_spread.core.tier import PlannedTier, roll_margin

SMOOTHERS = 2.0
"""One for the top and one for the side, so that the edge between them comes sharp (common practice)."""
LEAST_COAT_MM = 1.0
"""A disc still works while it leaves this much coat at the side (from memory)."""


@cached_items(TIERS)
def needs_of_tier(number: int, done: PlannedTier, baked: CarvedBake | None) -> Iterator[Need]:
    """The tools of tier `number`, in the order of the work; `baked` says what it is baked in where it is carved."""
    tier = done.tier.asked
    if baked is not None:
        for one in baked.tins.values():
            # A larger tin holds the layer too.
            wide, long = measure(one.across), _measured(one.length)
            yield Need("tin", number, wide, wide.value, wider=True, shape=one.shape, length=long)
    elif not isinstance(tier.layers.bake, MeasuredBake):
        yield _tin(number, done)
    hidden = done.layers.board
    if hidden is not None:
        across, long = measure(hidden.diameter), _measured(hidden.length)
        yield Need("board", number, across, 0.7 * across.value, shape=hidden.shape, length=long)
    final = tier.final
    if isinstance(final, PlateFinal):
        school = kind_of(final)
        assert school.plate is not None
        least = done.bodies.crumbed.width_mm + 2 * LEAST_COAT_MM
        size = Measure(final.disc_diameter_mm)
        # The card an upper tier was turned over on goes with it, as its board.
        count = school.plates - (1 if school.plate == "card" and number > 1 else 0)
        yield Need(school.plate, number, size, least, many=count)
    if done.coats.scraper is not None:
        tall = measure(done.coats.scraper)
        yield Need("scraper", number, tall, tall.value / 2, wider=True)
    if kind_of(final).smoother or kind_of(tier.cover).smoother:
        yield Need("smoother", number, Measure(SMOOTHERS, "each"), 1.0, wider=True)
    yield from _needs_of_cover(number, done)
    if number > 1:
        card = done.stands.board
        across, long = Measure(card.across_mm), Measure(card.length_mm) if card.oblong else None
        # A riser stands on a card of its own.
        many = 2 if tier.stand.plate else 1
        yield Need("board", number, across, across.value - 12.7, shape=card.shape, length=long, many=many)


def _tin(number: int, done: PlannedTier) -> Need:
    """The tin, deep enough for what is baked in it; of a free outline the sheet tin it is cut from."""
    tier = done.tier.asked
    across, deep = Measure(tier.tin_diameter_mm), _measured(done.layers.tin_depth)
    least = across.value / 1.35
    if tier.build.half_balls:
        return Need("tin", number, across, least, shape="ball")
    if isinstance(tier.shape, FreeShape):
        # Sold in no such shape: it is cut out of a sheet cake that holds the outline.
        outline = tier.shape.outline(tier.tin_diameter_mm)
        length = Measure(2 * outline.half_length_mm, rounding="up")
        return Need("tin", number, across, across.value, wider=True, shape="rectangle", length=length, deep=deep)
    oblong = tier.shape.length_mm if isinstance(tier.shape, RectangleShape | OvalShape) else None
    length_of = None if oblong is None else Measure(oblong)
    return Need("tin", number, across, least, shape=tier.shape.kind, length=length_of, deep=deep)


def _measured(figure: Figure | None) -> Measure | None:
    return None if figure is None else measure(figure)


def _needs_of_cover(number: int, done: PlannedTier) -> Iterator[Need]:
    asked, cover = done.tier.asked.cover, done.cover
    if cover is None or isinstance(asked, CollarCover):
        return
    if isinstance(asked, PrintedCover):
        across, high = Measure(asked.sheet_width_mm), Measure(asked.sheet_height_mm)
        yield Need("printed sheet", number, across, across.value / 2, wider=True, length=high)
        return
    sizes = [piece.size for piece in cover.pieces.values() if piece.stuff == "sheet"]
    margin_mm = 2 * roll_margin(done.tier)
    longest, widest = (most + margin_mm for most in (max(map(max, sizes)), max(map(min, sizes))))
    yield Need("mat", number, Measure(longest, rounding="up"), 0.0, wider=True)
    # A pin need only span the narrower way of the widest piece: the rest is rolled out along it.
    yield Need("pin", number, Measure(widest, rounding="up"), 0.5 * widest, wider=True)


def needs_of_cake(whole: StackPlan) -> Iterator[Need]:
    """The tools of the cake as a whole: the base board, which may be larger."""
    size, length = measure(whole.base_diameter), _measured(whole.base_length)
    yield Need("base board", None, size, size.value - 25.4, wider=True, shape=whole.base_shape, length=length)
