"""What a medium is made of: water, protein, fats, carbohydrate, fibre and ash, from the recipes in use.

Ingredients have the composition of an official food-composition table, the USDA's FoodData Central (SR Legacy), cited
from memory; alcohol counts as water. What is bought, and a medium without a recipe, has one from memory.
"""

from collections.abc import Iterable, Mapping
from functools import cache
from types import MappingProxyType
from typing import NamedTuple, TypeAlias

from amber_spread.core.stock.media import Medium, MediumKind
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import in_order, weight_of


class Composition(NamedTuple):
    """Shares of the weight, which add up to 1. There are four fats, because each melts at temperatures of its own."""

    water: float = 0.0
    protein: float = 0.0
    milk_fat: float = 0.0
    cocoa_butter: float = 0.0
    shortening: float = 0.0
    oil: float = 0.0
    carbohydrate: float = 0.0
    fibre: float = 0.0
    ash: float = 0.0

    def shares(self) -> "Composition":
        """The same parts as shares of their sum. Raises ValueError where there is nothing."""
        if not (whole := sum(self)):
            raise ValueError("nothing has no composition")
        return Composition(*(part / whole for part in self))


def mixed(parts: Iterable[tuple[float, Composition]]) -> Composition:
    """The composition of some weights of things put together, as shares. Raises ValueError where there is nothing.

    >>> mixed([(1, Composition(water=1)), (3, Composition(carbohydrate=1))]).carbohydrate
    0.75
    """
    weighed = [[weight * part for part in one] for weight, one in parts]
    return Composition(*map(sum, zip(*weighed, strict=True))).shares()


INGREDIENTS: dict[str, Composition] = {
    # in g of 100 g
    "butter": Composition(water=16, protein=1, milk_fat=81, ash=2),
    "shortening": Composition(shortening=100),
    "oil": Composition(oil=100),
    "sugar": Composition(carbohydrate=100),
    "icing_sugar": Composition(water=0.2, carbohydrate=99.8),
    "brown_sugar": Composition(water=1.3, carbohydrate=98.1, ash=0.6),
    "glucose_syrup": Composition(water=22.8, carbohydrate=76.8, ash=0.4),
    "honey": Composition(water=17.1, protein=0.3, carbohydrate=82.4, ash=0.2),
    "plain_flour": Composition(water=11.9, protein=10.3, oil=1, carbohydrate=73.6, fibre=2.7, ash=0.5),
    "cornflour": Composition(water=8.3, protein=0.3, oil=0.1, carbohydrate=90.3, fibre=0.9, ash=0.1),
    "cocoa": Composition(water=3, protein=19.6, cocoa_butter=13.7, carbohydrate=24.7, fibre=33.2, ash=5.8),
    "ground_almonds": Composition(water=4.4, protein=21.2, oil=49.9, carbohydrate=9.1, fibre=12.5, ash=2.9),
    "baking_powder": Composition(water=6, carbohydrate=28, ash=66),
    "bicarbonate": Composition(ash=100),
    "salt": Composition(ash=100),
    "vanilla": Composition(water=87, carbohydrate=12.7, ash=0.3),
    "whole_milk": Composition(water=88.1, protein=3.2, milk_fat=3.3, carbohydrate=4.8, ash=0.6),
    "cream": Composition(water=57.7, protein=2.8, milk_fat=36.1, carbohydrate=2.8, ash=0.6),
    "soured_cream": Composition(water=73, protein=2.4, milk_fat=19.4, carbohydrate=4.6, ash=0.6),
    "cream_cheese": Composition(water=52.6, protein=6.2, milk_fat=34.4, carbohydrate=5.5, ash=1.3),
    "condensed_milk": Composition(water=27.2, protein=7.9, milk_fat=8.7, carbohydrate=54.4, ash=1.8),
    "egg": Composition(water=76.2, protein=12.6, oil=9.5, carbohydrate=0.7, ash=1),
    "egg_white": Composition(water=87.6, protein=10.9, oil=0.2, carbohydrate=0.7, ash=0.6),
    "egg_yolk": Composition(water=52.3, protein=15.9, oil=26.5, carbohydrate=3.6, ash=1.7),
    "lemon_juice": Composition(water=92.3, protein=0.4, oil=0.2, carbohydrate=6.6, fibre=0.3, ash=0.2),
    "water": Composition(water=100),
    "gelatine": Composition(water=13, protein=85.6, ash=1.4),
    "cmc": Composition(water=8, fibre=92),
    "sweets": Composition(water=1, carbohydrate=99),
    "meringue_powder": Composition(water=5, protein=35, carbohydrate=59, ash=1),
}
BOUGHT: dict[str, Composition] = {
    "fondant": Composition(water=8, shortening=6, carbohydrate=86),
    "raspberry_jam": Composition(water=30.5, protein=0.4, carbohydrate=67.8, fibre=1.1, ash=0.2),
    "dark_chocolate": Composition(water=1, protein=5, cocoa_butter=38, carbohydrate=46, fibre=8, ash=2),
    "milk_chocolate": Composition(
        water=1.5, protein=7.7, milk_fat=6.7, cocoa_butter=23, carbohydrate=56, fibre=3.2, ash=1.9
    ),
    "white_chocolate": Composition(
        water=1.3, protein=5.9, milk_fat=6.1, cocoa_butter=26, carbohydrate=59, fibre=0.2, ash=1.5
    ),
}  # fmt: skip
"""Media that are bought, in g of 100 g: chocolate and jam as in the same table, fondant from memory."""
LIKE: dict[MediumKind, str] = {
    "buttercream": "american_buttercream",
    "ganache": "dark_ganache",
    "frosting": "cream_cheese_frosting",
    "filling": "pastry_cream",
    "fondant": "fondant",
    "chocolate": "dark_chocolate",
    "syrup": "syrup",
    "glaze": "mirror_glaze",
}
"""What a medium of a kitchen's own is taken for, by its kind."""
BAKED_CAKE = Composition(water=27, protein=5.5, milk_fat=13, oil=2, carbohydrate=50.5, fibre=0.5, ash=1.5).shares()
"""A plain butter cake as it comes out of its tin (from memory)."""


MOST_UNKNOWN = 0.2
"""A recipe with more than this of ingredients nothing is known of is left out."""
Compositions: TypeAlias = Mapping[str, Composition]
"""What the media of a kitchen are made of, by key."""
NO_RECIPES: Compositions = MappingProxyType({})
"""A kitchen without recipes of its own."""


def compositions_of(pantry: Pantry) -> Compositions:
    """What every medium with a recipe in use is made of, as shares. An ingredient nothing is known of counts as the
    rest of its recipe does; one with too much of those is left out.
    """
    items, recipes = pantry.items(), {made: one for made, one in pantry.in_use().items() if not one.cake}
    known = {key: parts.shares() for key, parts in (INGREDIENTS | BOUGHT).items() if key not in recipes}
    for key in reversed(list(in_order(recipes))):
        weighed = [
            (weight_of(one.amount, one.unit, items[one.item]), known.get(one.item)) for one in recipes[key].lines
        ]
        parts = [(weight, one) for weight, one in weighed if one is not None]
        unknown = sum(weight for weight, one in weighed if one is None)
        if parts and unknown <= MOST_UNKNOWN * sum(weight for weight, _ in weighed):
            known[key] = mixed(parts)
    return {key: known[key] for key in recipes if key in known}


def composition_of(medium: Medium, made_of: Compositions) -> Composition:
    """What a medium is made of, as shares: by the recipe in use, as it is bought, or like the usual one of its kind."""
    usual = _usual()
    return made_of.get(medium.key) or usual.get(medium.key) or usual[LIKE[medium.kind]]


@cache
def _usual() -> Compositions:
    """By the recipes of the program, and as it is bought."""
    return {**{key: parts.shares() for key, parts in BOUGHT.items()}, **compositions_of(Pantry())}
