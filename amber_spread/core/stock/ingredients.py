"""Ingredients: what recipes are made of, how heavy a measure of each is, what one piece weighs, what it may contain.

Where a recipe gives a volume, it is weighed by these densities. Each comes from a household measure in an official
food-composition table, the USDA's FoodData Central (SR Legacy), cited from memory; a kitchen may weigh a cup of its
own.
"""

from typing import Annotated

from amber_spread.core.kernel.base import Frozen, Key, Name
from amber_spread.core.kernel.figures import DEFINITION, FROM_MEMORY, Source, rule
from amber_spread.core.kernel.limits import DENSITY, PIECE_WEIGHT
from amber_spread.core.kernel.units import ML_PER_US_CUP
from amber_spread.core.stock.media import Allergen


class Ingredient(Frozen):
    """One ingredient. `each_g` is what one piece weighs, for what is counted: an egg, a sachet."""

    key: Key
    name: Name
    density_g_per_ml: Annotated[float, DENSITY.field()] | None = None
    density_source: Source = Source(origin="this kitchen")
    each_g: Annotated[float, PIECE_WEIGHT.field()] | None = None
    allergens: tuple[Allergen, ...] = ()


@rule(
    "media.own_density",
    unit="g_per_ml",
    formula="cup / volume",
    source=DEFINITION,
    words="What a level cup of yours weighs, divided by what the cup holds.",
)
def own_density(cup_g: float, volume_ml: float) -> float:
    """Density, g/ml, from a weighed measure: weight / volume. Raises ValueError when either is not more than 0.

    Source: definition of density.

    >>> round(own_density(230, 240), 4)
    0.9583
    """
    if cup_g <= 0 or volume_ml <= 0:
        raise ValueError("a measure has a weight and a volume, both more than nothing")
    return cup_g / volume_ml


_TABLE = "the USDA's food-composition table (FoodData Central, SR Legacy); cited from memory"
_CUP, _SPOON = ("a US cup", ML_PER_US_CUP), ("a US teaspoon", ML_PER_US_CUP / 48)


def _of(
    key: Key,
    name: Name,
    grams: float,
    measure: tuple[str, float] = _CUP,
    each: float | None = None,
    *contains: Allergen,
) -> Ingredient:
    words, ml = measure
    source = Source(origin="published", reference=f"{words} weighs {grams:g} g in {_TABLE}")
    return Ingredient(
        key=key,
        name=name,
        density_g_per_ml=round(grams / ml, 4),
        density_source=source,
        each_g=each,
        allergens=contains,
    )


INGREDIENTS: tuple[Ingredient, ...] = (
    _of("butter", "Butter", 227, _CUP, None, "milk"),
    _of("shortening", "Vegetable shortening", 205),
    _of("oil", "Vegetable oil", 218),
    _of("sugar", "Sugar", 200),
    _of("icing_sugar", "Icing sugar", 120),
    _of("brown_sugar", "Brown sugar, packed", 220),
    _of("glucose_syrup", "Glucose syrup", 341),
    _of("honey", "Honey", 339),
    _of("plain_flour", "Plain flour", 125, _CUP, None, "wheat"),
    _of("cornflour", "Cornflour (cornstarch)", 128),
    _of("cocoa", "Cocoa powder", 86),
    _of("ground_almonds", "Ground almonds", 95, _CUP, None, "nuts"),
    _of("baking_powder", "Baking powder", 4.6, _SPOON),
    _of("bicarbonate", "Bicarbonate of soda", 4.6, _SPOON),
    _of("salt", "Salt", 6, _SPOON),
    _of("vanilla", "Vanilla extract", 4.2, _SPOON),
    _of("whole_milk", "Whole milk", 244, _CUP, None, "milk"),
    _of("cream", "Whipping cream", 238, _CUP, None, "milk"),
    _of("soured_cream", "Soured cream", 230, _CUP, None, "milk"),
    _of("cream_cheese", "Cream cheese", 232, _CUP, None, "milk"),
    _of("condensed_milk", "Condensed milk", 306, _CUP, None, "milk"),
    _of("egg", "Eggs", 243, _CUP, 50, "egg"),
    _of("egg_white", "Egg whites", 243, _CUP, 33, "egg"),
    _of("egg_yolk", "Egg yolks", 243, _CUP, 17, "egg"),
    _of("lemon_juice", "Lemon juice", 244),
    _of("water", "Water", 237),
    Ingredient(key="gelatine", name="Gelatine powder", density_g_per_ml=0.68, density_source=FROM_MEMORY, each_g=7),
    Ingredient(key="cmc", name="Cellulose gum (CMC)", density_g_per_ml=0.7, density_source=FROM_MEMORY),
    Ingredient(key="sweets", name="Small sweets", density_g_per_ml=0.6, density_source=FROM_MEMORY),
    Ingredient(key="meringue_powder", name="Meringue powder", density_g_per_ml=0.55, density_source=FROM_MEMORY,
               allergens=("egg",)),
)  # fmt: skip
"""The ingredients that come with the program; a kitchen may replace any, by key, or add its own.

One large egg weighs 50 g out of its shell, its white 33 g and its yolk 17 g (published: the same table); a sachet
of gelatine 7 g (common practice).
"""

FREE = ("water",)
"""What no one buys."""


def ingredient_shelf(own: tuple[Ingredient, ...] = ()) -> dict[str, Ingredient]:
    """Every ingredient within reach, by key: the program's with a kitchen's own laid over them."""
    return {one.key: one for one in (*INGREDIENTS, *own)}
