"""Shopping: what one order or a week of them takes, less what is in the larder, in packs, at least cost.

Bowls ask for media, tins for batter, tiers for boards and supports. What has a recipe is made, and asks for its lines;
the rest is bought. Each item is summed over everything that asks for it, and its packs are chosen together.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from typing import Literal, NamedTuple

from amber_spread.core.document import Document
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    Figure,
    Quantity,
    Unit,
    carry_over,
    rule,
    total,
)
from amber_spread.core.kernel.naming import named
from amber_spread.core.shop.bill import Bill, Mixed
from amber_spread.core.shop.costs import OrderCost, Prices, cost_of
from amber_spread.core.shop.packs import Offer, choose_packs
from amber_spread.core.shop.pooling import Pool, pool_bowls
from amber_spread.core.stock.contents import Allergy, allergies_of, contents_of
from amber_spread.core.stock.goods import USED_UP, Good, read_good
from amber_spread.core.stock.ingredients import FREE, ingredient_shelf
from amber_spread.core.stock.media import Medium, shelf
from amber_spread.core.stock.pantry import Label, Pack, Pantry, label_of
from amber_spread.core.stock.recipes import Item, Recipe, Scaled, in_order, items_within, scale, weight_of

Group = Literal["ingredients", "ready", "goods", "tools"]
GROUPS: tuple[Group, ...] = ("ingredients", "ready", "goods", "tools")


class Asked(NamedTuple):
    """One order to shop for: its key among the orders asked for, and what its plan asks of the shop."""

    key: str
    document: Document
    bill: Bill


class Bought(PlanPart):
    """So many of one pack."""

    size: Quantity
    count: Figure
    price: Figure | None


class Want(PlanPart):
    """One item of the list: what is needed and why, what is in, and which packs to buy for the rest.

    `pieces` count what is counted, needed and to buy; `cost` is null where nothing is priced.
    """

    item: str
    label: Label
    group: Group
    needed: Figure
    pieces: Figure | None
    pieces_to_buy: Figure | None
    in_larder: Figure | None
    to_buy: Figure
    packs: dict[str, Bought]
    cost: Figure | None
    over: Figure | None


class OrderShare(PlanPart):
    """One order of those shopped for."""

    title: str
    cost: OrderCost


class Shopping(PlanPart):
    """The list for the shop, what to make of it, and what it costs.

    `unpriced` are the items to buy that have no price here, `labels` what each unpriced item is called, and `gaps` says
    in words what is not in the list.
    """

    currency: str
    orders: dict[str, OrderShare]
    wants: dict[str, Want]
    recipes: dict[str, Scaled]
    spend: Figure
    pools: dict[str, Pool]
    saved: Figure
    allergens: list[Allergy]
    unpriced: list[str]
    labels: dict[str, Label]
    gaps: list[str]


@rule(
    "shop.to_buy",
    unit="g",
    formula="max(0, needed - larder)",
    source=DEFINITION,
    rounding="up",
    words="What is needed, less what is in the larder.",
)
def to_buy(needed_g: float, larder_g: float) -> float:
    """What is still to be bought or made, g: needed - in the larder, never below 0. Source: definition.

    >>> to_buy(10, 0)
    10
    """
    return max(0.0, needed_g - larder_g)


@rule(
    "shop.to_buy_count",
    unit="each",
    formula="max(0, needed - larder)",
    source=DEFINITION,
    rounding="up",
    words="What is needed, less what is in the larder.",
)
def to_buy_count(needed_count: float, larder_count: float) -> float:
    """What is still to be bought by the piece: needed - in the larder, never below 0. Source: definition.

    >>> to_buy_count(1, 0)
    1
    """
    return max(0.0, needed_count - larder_count)


@rule(
    "shop.pieces",
    unit="each",
    formula="ceil(weight / each - 1e-9)",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Its weight, in whole pieces.",
)
def pieces(weight_g: float, each_g: float) -> float:
    """Whole pieces of something weighed: weight / piece, up. Source: common practice.

    >>> pieces(1980, 33)
    60
    """
    return math.ceil(weight_g / each_g - 1e-9)


@rule(
    "shop.batter",
    unit="g",
    formula="volume * density",
    source=DEFINITION,
    rounding="up",
    words="The batter the tins take, times what the recipe's batter weighs.",
)
def batter_weight(volume_ml: float, density_g_per_ml: float) -> float:
    """Weight of batter, g: volume x density. Source: definition of density.

    >>> batter_weight(2000, 0.9)
    1800.0
    """
    return volume_ml * density_g_per_ml


class _List:
    """What is needed of each item, and for what: gathered as orders and recipes are gone through."""

    def __init__(self) -> None:
        self.by_item: dict[str, dict[str, float]] = {}

    def add(self, item: str, label: str, amount: float) -> None:
        parts = self.by_item.setdefault(item, {})
        parts[label] = parts.get(label, 0.0) + amount


def shop(asked: Sequence[Asked], pantry: Pantry, pooled: bool = False, left_out: Sequence[str] = ()) -> Shopping:
    """The shopping of these orders together, out of this pantry; `left_out` says in words which orders are not in it.

    With `pooled`, media that several orders take in one colour are mixed together, with one reserve. Never raises:
    what has no recipe or price is named among `gaps` and `unpriced`.
    """
    media = shelf((*pantry.media, *(medium for one in asked for medium in one.document.media)))
    items = items_within(ingredient_shelf(pantry.ingredients), media)
    recipes, book = pantry.in_use(), pantry.recipe_shelf()
    titles = _titles(asked)
    pools = pool_bowls([(titles[one.key], one.document, one.bill) for one in asked])
    needed, gaps = _List(), list(left_out)
    surplus = _surplus(asked, titles, pools) if pooled else {}
    for one in asked:
        _ask_of_bowls(one, titles[one.key], needed, pools if pooled else {}, surplus)
        gaps.extend(_ask_of_tins(one, titles[one.key], needed, recipes))
        _ask_of_goods(one, titles[one.key], needed)
        gaps.extend(_ask_of_rooms(one, titles[one.key], needed, items))
    larder = {
        stock.item: weight_of(stock.amount, stock.unit, items[stock.item.partition("~")[0]])
        if read_good(stock.item) is None
        else stock.amount
        for stock in pantry.larder
    }
    made = _make(needed, recipes, items, larder)
    packs: dict[str, list[Pack]] = {}
    for pack in pantry.packs:
        packs.setdefault(pack.item, []).append(pack)
    prices = Prices(packs, recipes, items)
    wants = {
        item: _want(item, parts, items, larder.get(item), packs.get(item, []), label_of(item, items, book))
        for item, parts in needed.by_item.items()
        if item not in FREE and item not in made
    }
    wants = dict(sorted(wants.items(), key=lambda one: (GROUPS.index(one[1].group), one[1].label.name, one[0])))
    costs = {one.key: cost_of(one.document, one.bill, prices, pantry.terms) for one in asked}
    unpriced = [key for key, want in wants.items() if want.cost is None]
    nameless = {*unpriced, *(key for cost in costs.values() for key in cost.unpriced)}
    found = Shopping(
        currency=pantry.terms.currency,
        orders={one.key: OrderShare(title=one.document.title, cost=costs[one.key]) for one in asked},
        wants=wants,
        recipes=made,
        spend=total({key: want.cost.value for key, want in wants.items() if want.cost}, "money"),
        pools=pools,
        saved=total({pool.name: pool.saved.value for pool in pools.values()}, "g"),
        allergens=_allergens(asked, pantry, media, items, made),
        unpriced=unpriced,
        labels={key: label_of(key, items, book) for key in sorted(nameless)},
        gaps=gaps,
    )
    return named(found, "shop")


def _titles(asked: Iterable[Asked]) -> dict[str, str]:
    """Each order's title, numbered where two are called the same."""
    found: dict[str, str] = {}
    for one in asked:
        title, number = one.document.title, 2
        while title in found.values():
            title, number = f"{one.document.title} ({number})", number + 1
        found[one.key] = title
    return found


def _share_of(bowl: Mixed, key: str, title: str, pools: Mapping[str, Pool]) -> tuple[float, bool]:
    """What a bowl is mixed to, g, and whether that is its share of a pool."""
    pool = pools.get(key)
    if pool is None or title not in pool.apart.given:
        return bowl.mix_g, False
    return bowl.mix_g * pool.together.value / pool.apart.value, True


def _surplus(asked: Iterable[Asked], titles: Mapping[str, str], pools: Mapping[str, Pool]) -> dict[str, float]:
    """Of every pool what share of what its orders lack is there in others that have more than they take."""
    lacking, over = dict[str, float](), dict[str, float]()
    for one in asked:
        for key, bowl in one.bill.bowls.items():
            amount, shared = _share_of(bowl, key, titles[one.key], pools)
            if shared:
                short = amount - bowl.have_g
                lacking[key] = lacking.get(key, 0.0) + max(0.0, short)
                over[key] = over.get(key, 0.0) + max(0.0, -short)
    return {key: min(1.0, over[key] / lack) for key, lack in lacking.items() if lack > 0 and over[key] > 0}


def _ask_of_bowls(
    one: Asked, title: str, needed: _List, pools: Mapping[str, Pool], surplus: Mapping[str, float]
) -> None:
    for key, bowl in one.bill.bowls.items():
        amount, shared = _share_of(bowl, key, title, pools)
        lacks = max(0.0, amount - bowl.have_g)
        needed.add(bowl.item, title, lacks * (1 - surplus.get(key, 0.0)) if shared else lacks)


def _ask_of_tins(one: Asked, title: str, needed: _List, recipes: Mapping[str, Recipe]) -> Iterable[str]:
    for cake, batter_ml in one.bill.cakes.items():
        recipe = recipes.get(cake)
        if recipe is None or recipe.batter_g_per_ml is None:
            yield f"{title} is baked by “{cake}”, for which there is no recipe here: its batter is not in this list."
        else:
            needed.add(cake, title, batter_weight(batter_ml, recipe.batter_g_per_ml))


def _ask_of_goods(one: Asked, title: str, needed: _List) -> None:
    for _, item, count in one.bill.goods:
        needed.add(item, title, count)
    for item in one.bill.tools:
        needed.by_item[item] = {"tool to get": 1.0}


def _ask_of_rooms(one: Asked, title: str, needed: _List, items: Mapping[str, Item]) -> Iterable[str]:
    """What hidden cavities are filled with, by weight; what is not known here is said."""
    for _, item, weight_g in one.bill.hidden:
        if item in items:
            needed.add(item, title, weight_g)
        else:
            yield f"{title} hides “{item}”, which is not known here: it is not in this list."


def _make(
    needed: _List, recipes: Mapping[str, Recipe], items: Mapping[str, Item], larder: Mapping[str, float]
) -> dict[str, Scaled]:
    """Scale the recipe of everything that has one, and ask for its lines in turn; what is in the larder is not made."""
    made: dict[str, Scaled] = {}
    for item in in_order(recipes):
        if item not in needed.by_item:
            continue
        wanted = to_buy.figure(sum(needed.by_item[item].values()), larder.get(item, 0.0))
        scaled = scale(recipes[item], wanted, items)
        made[item] = scaled
        for line in scaled.lines.values():
            if line.weight.value > 0:
                needed.add(line.item, scaled.name, line.weight.value)
    return made


def _group(good: Good | None, item: Item | None) -> Group:
    if good is not None:
        return "goods" if good.kind in USED_UP else "tools"
    return "ready" if item and item.is_medium else "ingredients"


def _want(
    key: str,
    parts: Mapping[str, float],
    items: Mapping[str, Item],
    stock: float | None,
    packs: Sequence[Pack],
    label: Label,
) -> Want:
    good = read_good(key)
    item = None if good is not None else items[key.partition("~")[0]]
    unit: Unit = "g" if item else "each"
    needed = total(parts, unit, "up")
    rest = (to_buy if item else to_buy_count).figure(needed.value, stock or 0.0)
    sizes = [weight_of(pack.size, pack.unit, item) if item else pack.size for pack in packs]
    counts = choose_packs(rest.value, [Offer(size, pack.price) for size, pack in zip(sizes, packs, strict=True)])
    bought = {
        f"pack_{number}": Bought(
            size=Quantity(pack.size, pack.unit),
            count=carry_over("packs", count, "each"),
            price=None if pack.price is None else carry_over("price of one", pack.price, "money"),
        )
        for number, (pack, count) in enumerate(zip(packs, counts, strict=True), 1)
        if count
    }
    spent = {
        f"{one.count.value:g} of {_size_words(one.size)}": one.count.value * one.price.value
        for one in bought.values()
        if one.price
    }
    held = sum(size * count for size, count in zip(sizes, counts, strict=True))
    known = rest.value <= 0 or (bool(bought) and all(one.price for one in bought.values()))
    return Want(
        item=key,
        label=label,
        group=_group(good, item),
        needed=needed,
        pieces=pieces.figure(needed.value, item.each_g) if item and item.each_g else None,
        pieces_to_buy=pieces.figure(rest.value, item.each_g) if item and item.each_g else None,
        in_larder=None if not stock else carry_over("in the larder", stock, unit, "down"),
        to_buy=rest,
        packs=bought,
        cost=total(spent, "money") if known else None,
        over=carry_over("left in the packs", held - rest.value, unit) if bought else None,
    )


def _size_words(size: Quantity) -> str:
    return f"{size.value:g}" if size.unit == "each" else f"{size.value:g} {size.unit}"


def _allergens(
    asked: Sequence[Asked],
    pantry: Pantry,
    media: Mapping[str, Medium],
    items: Mapping[str, Item],
    made: Mapping[str, Scaled],
) -> list[Allergy]:
    """Every allergen of what any order takes, by what on the list brings it: of what is made, its lines."""
    bringing: dict[str, set[str]] = {}
    taken = {key for one in asked for _, key, _ in one.document.design.taken()}
    lines = {line.item for scaled in made.values() for line in scaled.lines.values()}
    for key in taken | lines:
        for allergen in items[key].allergens:
            bringing.setdefault(allergen, set()).add(items[key].name)
    mixed = {bowl.medium for one in asked for bowl in one.bill.bowls.values()}
    cakes = {tier.layers.cake for one in asked for tier in one.document.design.tiers}
    # What is made of recipes that none of these lines names, such as what is in the larder already.
    hidden = sorted({inside.item for one in asked for inside in one.bill.hidden})
    mixed |= {key for key in hidden if key in media}
    contents, known = contents_of(pantry), [media[key] for key in sorted(mixed)]
    for allergy in allergies_of(known, sorted(cakes), (), contents):
        bringing.setdefault(allergy.allergen, set(allergy.found_in))
    for allergy in allergies_of((), (), hidden, contents):
        bringing.setdefault(allergy.allergen, set()).update(allergy.found_in)
    return [Allergy(allergen=name, found_in=sorted(found)) for name, found in sorted(bringing.items())]
