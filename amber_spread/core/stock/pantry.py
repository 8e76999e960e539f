"""The Pantry: this kitchen's own media, ingredients and recipes, what it buys in which packs, what it has in, and
what its work costs.
"""

from collections.abc import Mapping
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, PlanPart, at
from amber_spread.core.kernel.figures import Quantity
from amber_spread.core.stock.goods import GOODS, read_good
from amber_spread.core.stock.ingredients import Ingredient, ingredient_shelf
from amber_spread.core.stock.media import Medium, shelf
from amber_spread.core.stock.recipe_book import RECIPES
from amber_spread.core.stock.recipes import CannotWeigh, Item, Recipe, circle_in, items_within, weight_of, yield_of

Price = Annotated[float, limits.PRICE.field()]
ItemKey = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,60}(~[\w-]{1,80})?$")]
"""What is bought: an ingredient or a medium by its key, a ready-coloured medium (`fondant~slate`), or goods
(`board_254`)."""


def _known_currency(code: str) -> str:
    return code.upper()


Currency = Annotated[str, StringConstraints(pattern=r"^[A-Za-z]{3}$"), AfterValidator(_known_currency)]
"""The three letters of a currency, such as EUR."""


class Pack(Frozen):
    """One pack that can be bought: what it holds and what it costs, null where that is not known yet."""

    item: ItemKey
    size: Annotated[float, limits.PACK_SIZE.field()]
    unit: Literal["g", "ml", "each"] = "g"
    price: Price | None = None


class Stock(Frozen):
    """So much of an item in the larder."""

    item: ItemKey
    amount: Annotated[float, limits.STOCK.field()]
    unit: Literal["g", "ml", "each"] = "g"


class Terms(Frozen):
    """What work costs in this kitchen. `overhead` and `profit` are shares of what stands before them."""

    currency: Currency = "EUR"
    hour_price: Price = 18.0
    minutes_per_tier: Annotated[float, limits.MINUTES.field()] = 120.0
    overhead: Annotated[float, limits.FRACTION.field()] = 0.15
    profit: Annotated[float, limits.FRACTION.field()] = 0.1
    round_to: Annotated[float, limits.ROUND_TO.field()] = 1.0


class Label(PlanPart):
    """What people call an item, and of goods their size."""

    name: str
    size: Quantity | None
    length: Quantity | None


def label_of(item: str, items: Mapping[str, Item], recipes: Mapping[str, Recipe]) -> Label:
    """What people call an item, with the size of goods (of smoothers: how many)."""
    good = read_good(item)
    return Label(
        name=name_of_item(item, items, recipes),
        size=None if good is None else Quantity(good.size, "each" if good.kind == "smoother" else "mm"),
        length=None if good is None or good.length is None else Quantity(good.length, "mm"),
    )


class Pantry(Frozen):
    """All that a kitchen keeps about what it makes and buys. `chosen` names the recipe used for a medium or a cake."""

    media: Annotated[tuple[Medium, ...], Field(max_length=int(limits.OWN_MEDIA.high))] = ()
    ingredients: Annotated[tuple[Ingredient, ...], Field(max_length=int(limits.OWN_ITEMS.high))] = ()
    recipes: Annotated[tuple[Recipe, ...], Field(max_length=int(limits.OWN_ITEMS.high))] = ()
    chosen: Annotated[dict[Key, Key], Field(max_length=int(limits.OWN_ITEMS.high))] = {}
    packs: Annotated[tuple[Pack, ...], Field(max_length=int(limits.PACKS.high))] = ()
    larder: Annotated[tuple[Stock, ...], Field(max_length=int(limits.PACKS.high))] = ()
    terms: Terms = Terms()

    @model_validator(mode="after")
    def each_once(self) -> Self:
        """No key stands twice, and the larder names each item once."""
        for field, key in (("media", "key"), ("ingredients", "key"), ("recipes", "key"), ("larder", "item")):
            seen: set[str] = set()
            for index, one in enumerate(getattr(self, field)):
                name = getattr(one, key)
                if name in seen:
                    raise at((field, index, key), f"stands here twice: “{name}”")
                seen.add(name)
        packs: set[tuple[str, float, str]] = set()
        for index, pack in enumerate(self.packs):
            if (pack.item, pack.size, pack.unit) in packs:
                raise at(("packs", index, "size"), "is listed twice for this item; change the price of the first")
            packs.add((pack.item, pack.size, pack.unit))
        return self

    @model_validator(mode="after")
    def recipes_can_be_made(self) -> Self:
        """Every line names something known that can be weighed, nothing is made of itself, and every choice exists."""
        items = self.items()
        for index, recipe in enumerate(self.recipes):
            self._check_recipe(index, recipe, items)
        circle = circle_in(self.recipe_shelf().values())
        if circle:
            names = " is made of ".join(self.name_of(item) for item in circle)
            own = next((index for index, one in enumerate(self.recipes) if one.makes in circle), 0)
            raise at(("recipes", own, "lines"), f"go round in a circle: {names}")
        for made, key in self.chosen.items():
            found = self.recipe_shelf().get(key)
            if found is None or found.makes != made:
                raise at(("chosen", made), f"names “{key}”, which is no recipe for it")
        return self

    @model_validator(mode="after")
    def bought_items_are_known(self) -> Self:
        """Every pack and every stock is of something known, in a unit it can be reckoned in."""
        items = self.items()
        for field in ("packs", "larder"):
            for index, one in enumerate(getattr(self, field)):
                trouble = trouble_with(one.item, one.unit, items)
                if trouble:
                    raise at((field, index, trouble[0]), trouble[1])
        return self

    def _check_recipe(self, index: int, recipe: Recipe, items: Mapping[str, Item]) -> None:
        if recipe.cake:
            if recipe.makes != recipe.key:
                raise at(("recipes", index, "makes"), "should be the cake's own key")
            if recipe.batter_g_per_ml is None:
                raise at(
                    ("recipes", index, "batter_g_per_ml"), "is needed for a cake: what 1 ml of batter weighs, in g"
                )
        elif recipe.makes not in shelf(self.media):
            raise at(("recipes", index, "makes"), f"names “{recipe.makes}”, which is no medium known here")
        for number, line in enumerate(recipe.lines):
            if line.item not in items:
                raise at(("recipes", index, "lines", number, "item"), f"names “{line.item}”, which is not known here")
            try:
                weight_of(line.amount, line.unit, items[line.item])
            except CannotWeigh as error:
                raise at(("recipes", index, "lines", number, "unit"), f"cannot be used: {error}") from error
        if yield_of(recipe, items).value <= 0:
            raise at(("recipes", index, "yield_g"), "should be more than nothing")

    def items(self) -> dict[str, Item]:
        """Everything a recipe's line, a pack or the larder can name by weight."""
        return items_within(ingredient_shelf(self.ingredients), shelf(self.media))

    def recipe_shelf(self) -> dict[str, Recipe]:
        """Every recipe within reach, by key: the program's with the kitchen's own laid over them."""
        return {recipe.key: recipe for recipe in (*RECIPES, *self.recipes)}

    def in_use(self) -> dict[str, Recipe]:
        """The recipe that counts for each medium and cake, by what it makes: the one chosen, else an own, else the
        first.
        """
        found: dict[str, Recipe] = {}
        for recipe in (*self.recipes, *self.recipe_shelf().values()):
            found.setdefault(recipe.makes, recipe)
        known = self.recipe_shelf()
        return found | {made: known[key] for made, key in self.chosen.items()}

    def name_of(self, item: str) -> str:
        """What people call an item."""
        return name_of_item(item, self.items(), self.recipe_shelf())

    def labels(self) -> dict[str, Label]:
        """What people call every item that has a pack or stands in the larder."""
        items, recipes = self.items(), self.recipe_shelf()
        listed = (*(pack.item for pack in self.packs), *(stock.item for stock in self.larder))
        return {item: label_of(item, items, recipes) for item in listed}


def name_of_item(item: str, items: Mapping[str, Item], recipes: Mapping[str, Recipe]) -> str:
    """What people call an item: an ingredient or medium, a ready-coloured medium, a cake, or goods by their kind."""
    plain, _, colour = item.partition("~")
    good = read_good(item)
    if good is not None:
        return GOODS[good.kind] + ("" if good.shape == "round" else f", {good.shape}")
    if plain in items:
        return f"{items[plain].name}, {colour.replace('-', ' ')}, ready-coloured" if colour else items[plain].name
    return recipes[plain].name if plain in recipes else item


def trouble_with(key: str, unit: str, items: Mapping[str, Item]) -> tuple[str, str] | None:
    """Why an item cannot be bought or kept in this unit: the field that is wrong and the words; None when it can."""
    if read_good(key) is not None:
        return None if unit == "each" else ("unit", "should be “each” for goods bought by the piece")
    item = items.get(key.partition("~")[0])
    if item is None:
        return "item", f"names “{key}”, which is not known here"
    try:
        weight_of(1.0, "g" if unit == "g" else "ml" if unit == "ml" else "each", item)
    except CannotWeigh as error:
        return "unit", f"cannot be used: {error}"
    return None
