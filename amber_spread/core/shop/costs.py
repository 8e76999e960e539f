"""Costs: what the materials of an order cost by tier and step, and what it might be sold for.

Materials are reckoned by what is used, at the lowest price by weight among an item's packs; the till asks for whole
packs, and the list for the shop says what those cost. What has no price is named and not guessed.
"""

import math
from collections.abc import Mapping, Sequence

from amber_spread.core.document import Document
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    Figure,
    decided,
    of_parts,
    parts_rule,
    rule,
    total,
)
from amber_spread.core.shop.bill import Bill
from amber_spread.core.stock.goods import GOODS, read_good
from amber_spread.core.stock.ingredients import FREE
from amber_spread.core.stock.pantry import Pack, Terms
from amber_spread.core.stock.recipes import Item, Recipe, weight_of, yield_of

_MADE = parts_rule("cost.made", "What goes into a kilo of it, each at its own price.", "sum", "definition")
_STEP = parts_rule(
    "cost.step",
    "The step's share of what is mixed, by what it takes out of the bowl for good, at the price of a kilo.",
    "sum",
    "definition",
)


class TierCost(PlanPart):
    """What the materials of one tier cost, by step."""

    name: str
    steps: dict[str, Figure | None]
    whole: Figure | None


class OrderCost(PlanPart):
    """What an order costs, and what it might be sold for. `unpriced` are the items used that have no price here."""

    tiers: dict[str, TierCost]
    base: Figure | None
    materials: Figure
    minutes: Figure
    work: Figure
    overhead: Figure
    profit: Figure
    price: Figure
    unpriced: list[str]


@rule(
    "cost.kilo",
    unit="money",
    formula="price / size * 1000",
    source=DEFINITION,
    words="The price of the pack that is cheapest by weight, over what it holds, for a kilo.",
)
def kilo_price(price_money: float, size_g: float) -> float:
    """Price of 1 kg: price / size x 1000. Source: definition.

    >>> kilo_price(3.2, 250)
    12.8
    """
    return price_money / size_g * 1000


@rule(
    "cost.piece",
    unit="money",
    formula="price / size",
    source=DEFINITION,
    words="The price of the pack that is cheapest by the piece, over what it holds.",
)
def piece_price(price_money: float, size_count: float) -> float:
    """Price of one piece: price / count. Source: definition.

    >>> round(piece_price(4.8, 12), 4)
    0.4
    """
    return price_money / size_count


@rule(
    "cost.minutes",
    unit="min",
    formula="tiers * tier",
    source=COMMON_PRACTICE,
    words="As many minutes a tier as this kitchen usually takes.",
)
def usual_minutes(tiers_count: float, tier_min: float) -> float:
    """Minutes of work: tiers x minutes a tier. The minutes are this kitchen's own.

    >>> usual_minutes(3, 110)
    330
    """
    return tiers_count * tier_min


@rule(
    "cost.work",
    unit="money",
    formula="time / 60 * hour",
    source=DEFINITION,
    words="The hours of work, at what an hour costs.",
)
def work_price(time_min: float, hour_money: float) -> float:
    """Cost of the work: hours x price of an hour. Source: definition.

    >>> work_price(330, 19.5)
    107.25
    """
    return time_min / 60 * hour_money


@rule(
    "cost.overhead",
    unit="money",
    formula="(materials + work) * share",
    source=COMMON_PRACTICE,
    words="A share of materials and work for rent, power, cleaning and what breaks.",
)
def overhead_price(materials_money: float, work_money: float, share: float) -> float:
    """Overhead: a share of materials and work. The share is this kitchen's own.

    >>> overhead_price(40, 71.5, 0.18)
    20.07
    """
    return (materials_money + work_money) * share


@rule(
    "cost.profit",
    unit="money",
    formula="(materials + work + overhead) * share",
    source=COMMON_PRACTICE,
    words="A share of all it costs.",
)
def profit_of(materials_money: float, work_money: float, overhead_money: float, share: float) -> float:
    """Profit: a share of all costs. The share is this kitchen's own.

    >>> round(profit_of(19.9, 35.8, 10, 0.12), 2)
    7.88
    """
    return (materials_money + work_money + overhead_money) * share


@rule(
    "cost.price",
    unit="money",
    formula="ceil((materials + work + overhead + profit) / step - 1e-9) * step",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Everything added up, to the next round price.",
)
def asking_price(
    materials_money: float, work_money: float, overhead_money: float, profit_money: float, step_money: float
) -> float:
    """A price to ask: materials + work + overhead + profit, up to a multiple of the step. Source: common practice.

    >>> asking_price(19.9, 35.8, 10, 7.9, 1)
    74
    """
    return math.ceil((materials_money + work_money + overhead_money + profit_money) / step_money - 1e-9) * step_money


class Prices:
    """What a kilo (of goods: a piece) of each item costs, worked out once for each."""

    def __init__(
        self, packs: Mapping[str, Sequence[Pack]], recipes: Mapping[str, Recipe], items: Mapping[str, Item]
    ) -> None:
        self.packs, self.recipes, self.items = packs, recipes, items
        self._known: dict[str, tuple[Figure | None, frozenset[str]]] = {}

    def of(self, key: str) -> tuple[Figure | None, frozenset[str]]:
        """The price of a kilo or a piece, None where nothing of it has a price, and the names of what has none."""
        if key not in self._known:
            self._known[key] = self._work_out(key)
        return self._known[key]

    def _work_out(self, key: str) -> tuple[Figure | None, frozenset[str]]:
        plain = key.partition("~")[0]
        if plain in FREE:
            return total({}, "money"), frozenset()
        good = read_good(key)
        item = None if good is not None else self.items.get(plain)
        offers = [pack for pack in self.packs.get(key, ()) if pack.price is not None]
        if item is None and good is not None:
            cheapest = min(offers, key=lambda pack: (pack.price or 0) / pack.size, default=None)
            if cheapest is None:
                return None, frozenset([key])
            return piece_price.figure(cheapest.price or 0.0, cheapest.size), frozenset()
        if item is not None and offers:
            sizes = [weight_of(pack.size, pack.unit, item) for pack in offers]
            price, size = min(
                ((pack.price or 0.0, size) for pack, size in zip(offers, sizes, strict=True)),
                key=lambda one: one[0] / one[1],
            )
            return kilo_price.figure(price, size), frozenset()
        if plain == key and plain in self.recipes:
            return self._made(self.recipes[plain])
        # Bought ready in its colour it has a price of its own, or none.
        return None, frozenset([key])

    def _made(self, recipe: Recipe) -> tuple[Figure | None, frozenset[str]]:
        yields_g = yield_of(recipe, self.items).value
        parts: dict[str, float] = {}
        missing: frozenset[str] = frozenset()
        for line in recipe.lines:
            item = self.items[line.item]
            price, without = self.of(line.item)
            missing |= without
            if price is not None:
                share = weight_of(line.amount, line.unit, item) / yields_g
                parts[item.name] = parts.get(item.name, 0.0) + share * price.value
        if not parts:
            return None, missing
        return of_parts(_MADE, sum(parts.values()), parts, "money"), missing


def cost_of(document: Document, bill: Bill, prices: Prices, terms: Terms) -> OrderCost:
    """What an order costs by tier and step, each to the cent so that sums add up as shown, and the price the kitchen's
    terms make of it. A part that nothing of has a price is None.
    """
    missing: set[str] = set()

    def price(key: str, amount: float) -> float | None:
        found, without = prices.of(key)
        missing.update(without)
        return None if found is None else amount * found.value

    steps: list[dict[str, dict[str, float | None]]] = [{} for _ in bill.tiers]

    def put(tier: int, step: str, what: str, cost: float | None) -> None:
        _add(steps[tier].setdefault(step, {}), what, cost)

    for bowl in bill.bowls.values():
        kept_g = sum(use.kept_g for use in bowl.taken)
        for use in bowl.taken:
            put(use.tier - 1, use.step, bowl.name, price(bowl.item, bowl.mix_g * use.kept_g / kept_g / 1000))
    for index, baked in enumerate(bill.baked):
        recipe = prices.recipes.get(baked.cake) if baked else None
        if baked is not None and recipe is not None and recipe.batter_g_per_ml is not None:
            put(index, "cake", recipe.name, price(baked.cake, baked.batter_ml * recipe.batter_g_per_ml / 1000))
    for number, item, weight_g in bill.hidden:
        known = prices.items.get(item)
        put(number - 1, "hidden", item if known is None else known.name, price(item, weight_g / 1000))
    based: dict[str, float | None] = {}
    for tier_number, item, count in bill.goods:
        if tier_number is None:
            _add(based, "base board", price(item, count))
        else:
            good = read_good(item)
            assert good is not None
            put(tier_number - 1, good.kind, GOODS[good.kind].lower(), price(item, count))
    tiers = {
        f"tier_{tier.id}": _tier_cost(name, costs)
        for tier, name, costs in zip(document.design.tiers, bill.tiers, steps, strict=True)
    }
    base = _priced(based)
    whole = {
        f"{number}. {one.name}": one.whole.value
        for number, one in enumerate(tiers.values(), 1)
        if one.whole is not None
    }
    materials = total(whole | ({} if base is None else {"base board": base.value}), "money")
    if document.minutes is None:
        minutes = usual_minutes.figure(len(bill.tiers), terms.minutes_per_tier)
    else:
        minutes = decided(document.minutes, "min")
    work = work_price.figure(minutes.value, terms.hour_price)
    overhead = overhead_price.figure(materials.value, work.value, terms.overhead)
    profit = profit_of.figure(materials.value, work.value, overhead.value, terms.profit)
    return OrderCost(
        tiers=tiers,
        base=base,
        materials=materials,
        minutes=minutes,
        work=work,
        overhead=overhead,
        profit=profit,
        price=asking_price.figure(materials.value, work.value, overhead.value, profit.value, terms.round_to),
        unpriced=sorted(missing),
    )


def _tier_cost(name: str, steps: Mapping[str, Mapping[str, float | None]]) -> TierCost:
    found = {step: _priced(parts) for step, parts in steps.items()}
    known = {step: one.value for step, one in found.items() if one is not None}
    return TierCost(name=name, steps=found, whole=total(known, "money") if known else None)


def _add(parts: dict[str, float | None], what: str, cost: float | None) -> None:
    """Add to what one part costs; a part that nothing of has a price stays None."""
    before = parts.get(what)
    parts[what] = before if cost is None else (before or 0.0) + cost


def _priced(parts: Mapping[str, float | None]) -> Figure | None:
    """The parts that have a price, each to the cent, added up; None where none has."""
    known = {name: round(cost, 2) for name, cost in parts.items() if cost is not None}
    return of_parts(_STEP, sum(known.values()), known, "money") if known else None
