"""The bill of one order: all that its plan asks of the shop, in plain numbers, to be kept until the plan is another.

Prices, recipes and what is in the larder are not in it: they change by the day, and the bill stays.
"""

from collections.abc import Iterator
from typing import NamedTuple

from amber_spread.core.bowls import Bowl, bought_coloured
from amber_spread.core.design.finishes import PrintedCover
from amber_spread.core.document import Document
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import Quantity, carry_over
from amber_spread.core.plan import Plan
from amber_spread.core.stock.goods import good_key
from amber_spread.core.stock.kit import KitNeed
from amber_spread.core.stock.media import shelf
from amber_spread.core.tier import Step, Use, bowl_key


class Leaving(NamedTuple):
    """So many of one kind of goods; `tier` counts from 1, None is the cake as a whole."""

    tier: int | None
    item: str
    pieces: float


class Taken(NamedTuple):
    """What one step takes out of a bowl, g, and how far what stays of it varies (a share); `tier` counts from 1."""

    tier: int
    step: Step
    stays_g: float
    lost_g: float
    in_hand_g: float
    variation: float

    @property
    def kept_g(self) -> float:
        """What does not come back, g: stays + lost."""
        return self.stays_g + self.lost_g


class Mixed(Frozen):
    """One bowl of an order: what to mix, what is there already, what each step takes; `ready` where it is better
    bought in its colour.
    """

    medium: str
    colour: str | None
    name: str
    hex: str
    ready: bool
    mix_g: float
    have_g: float
    taken: list[Taken]

    @property
    def item(self) -> str:
        """What is bought or made for it."""
        return bowl_key(self.medium, self.colour) if self.ready else self.medium

    def uses(self, raised: int) -> list[Use]:
        """What its steps take, as the bowl walk has it, the numbers of their tiers raised by so much."""
        return [
            Use(
                tier=one.tier + raised,
                tier_id=str(one.tier + raised),
                step=one.step,
                medium=self.medium,
                colour=self.colour,
                stays=carry_over("stays", one.stays_g, "g"),
                lost=carry_over("lost", one.lost_g, "g"),
                in_hand=carry_over("extra while you work", one.in_hand_g, "g"),
                variation=Quantity(one.variation, "ratio"),
            )
            for one in self.taken
        ]


class Batter(NamedTuple):
    """The batter of one tier, ml, of the cake it is baked by."""

    cake: str
    batter_ml: float


class Hidden(NamedTuple):
    """What a hidden cavity is filled with, g; `tier` counts from 1."""

    tier: int
    item: str
    weight_g: float


class Bill(Frozen):
    """What an order asks of the shop. `tiers` are their names, `baked` their batter; `tools` are those still to get."""

    tiers: list[str]
    bowls: dict[str, Mixed]
    baked: list[Batter | None]
    cakes: dict[str, float]
    goods: list[Leaving]
    hidden: list[Hidden]
    tools: list[str]


def bill_of(document: Document, plan: Plan) -> Bill:
    """What an order asks of the shop, by its plan; weights in g, batter in ml, goods by the piece."""
    media = shelf(document.media)
    return Bill(
        tiers=[tier.name for tier in plan.tiers],
        bowls={
            key: _mixed(bowl, bought_coloured(document.design, bowl, media[bowl.medium]))
            for key, bowl in plan.bowls.items()
        },
        baked=[
            Batter(tier.layers.cake, batter.value)
            if (batter := plan.batter.tiers.get(f"tier_{tier.id}")) is not None
            else None
            for tier in document.design.tiers
        ],
        cakes={cake: volume.value for cake, volume in plan.batter.cakes.items()},
        goods=list(_goods(document, plan)),
        hidden=list(_hidden(document, plan)),
        tools=list(_tools(plan)),
    )


def _mixed(bowl: Bowl, ready: bool) -> Mixed:
    return Mixed(
        medium=bowl.medium,
        colour=bowl.colour,
        name=bowl.name,
        hex=bowl.hex,
        ready=ready,
        mix_g=bowl.mix.value,
        have_g=bowl.have.value if bowl.have else 0.0,
        taken=[
            Taken(use.tier, use.step, use.stays.value, use.lost.value, use.in_hand.value, use.variation.value)
            for use in bowl.steps.values()
        ],
    )


def _goods(document: Document, plan: Plan) -> Iterator[Leaving]:
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


def _hidden(document: Document, plan: Plan) -> Iterator[Hidden]:
    """What hidden cavities are filled with, by weight."""
    for number, (tier, done) in enumerate(zip(document.design.tiers, plan.tiers, strict=True), 1):
        cavity, room = tier.layers.cavity, done.layers.cavity
        if cavity and room and cavity.filled_with is not None and room.fill_weight is not None:
            yield Hidden(number, cavity.filled_with, room.fill_weight.value)


def _tools(plan: Plan) -> Iterator[str]:
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
