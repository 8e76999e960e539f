"""Recipes: what a medium or a cake is made of by weight, what it yields, how it is made, and how it is scaled.

A line may name an ingredient, or a medium that has a recipe of its own. What stands in ml or in pieces is weighed by
the ingredient's own density and piece.
"""

import math
from collections.abc import Iterable, Iterator, Mapping
from fractions import Fraction
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, Name, Note, PlanPart
from amber_spread.core.kernel.figures import (
    COMMON_PRACTICE,
    DEFINITION,
    Figure,
    carry_over,
    decided,
    of_parts,
    parts_rule,
    rule,
)
from amber_spread.core.stock.ingredients import Ingredient
from amber_spread.core.stock.media import Allergen, Medium

LineUnit = Literal["g", "ml", "each"]
QUARTER = 0.25
_YIELD = parts_rule(
    "recipe.yield",
    "Everything that goes in, by weight. Say what it weighs in the end where it boils down.",
    "sum",
    "definition",
)


class RecipeLine(Frozen):
    """So much of one item. `whole` keeps it to whole pieces or packets, and the rest of the recipe in step with it."""

    item: Key
    amount: Annotated[float, limits.RECIPE_AMOUNT.field()]
    unit: LineUnit = "g"
    whole: bool = False


class Recipe(Frozen):
    """How a medium or a cake is made. `makes` is the medium's key, or for a cake the recipe's own.

    `yield_g` is what it weighs in the end where that is not the sum of its lines; `by_quarters` makes it in quarters of
    the recipe only.
    """

    key: Key
    name: Name
    makes: Key
    cake: bool = False
    batter_g_per_ml: Annotated[float, limits.DENSITY.field()] | None = None
    lines: Annotated[tuple[RecipeLine, ...], Field(min_length=1, max_length=int(limits.RECIPE_LINES.high))]
    steps: Annotated[tuple[Note, ...], Field(max_length=int(limits.RECIPE_STEPS.high))] = ()
    yield_g: Annotated[float, limits.RECIPE_YIELD.field()] | None = None
    by_quarters: bool = False


class Item(NamedTuple):
    """What a recipe's line names: an ingredient, or a medium."""

    name: str
    density_g_per_ml: float | None
    each_g: float | None
    allergens: tuple[Allergen, ...]
    is_medium: bool = False


class CannotWeigh(ValueError):
    """A line whose measure cannot be turned into a weight; the message says what is missing."""


class ScaledLine(PlanPart):
    """One line of a scaled recipe: its weight, and its volume or count where it was given so."""

    item: str
    name: str
    weight: Figure
    volume: Figure | None
    count: Figure | None


class Scaled(PlanPart):
    """A recipe scaled to an amount; `makes` is what comes out, at least what is `wanted`."""

    recipe: str
    name: str
    item: str
    cake: bool
    wanted: Figure
    yields: Figure
    factor: Figure
    makes: Figure
    lines: dict[str, ScaledLine]
    steps: list[str]


@rule(
    "recipe.factor",
    unit="ratio",
    formula="wanted / yields",
    source=DEFINITION,
    rounding="up",
    words="What is wanted, divided by what the recipe yields.",
)
def factor(wanted_g: float, yields_g: float) -> float:
    """How many times a recipe is made: wanted / yield. Source: definition.

    >>> round(factor(4975, 750), 2)
    6.63
    """
    return wanted_g / yields_g


@rule(
    "recipe.stepped",
    unit="ratio",
    formula="ceil(wanted / yields / step - 1e-9) * step",
    source=COMMON_PRACTICE,
    rounding="up",
    words="What is wanted, divided by what the recipe yields, up to the step the recipe is made in: whole eggs and "
    "packets, or quarters of it.",
)
def stepped(wanted_g: float, yields_g: float, step: float) -> float:
    """How many times a recipe is made: wanted / yield, up to a multiple of `step`. Source: common practice.

    >>> stepped(1040, 806.3, 0.25)
    1.5
    """
    return math.ceil(wanted_g / yields_g / step - 1e-9) * step


@rule(
    "recipe.line",
    unit="g",
    formula="weight * factor",
    source=DEFINITION,
    words="The recipe's own weight of it, as many times as the recipe is made.",
)
def line_scaled(weight_g: float, factor: float) -> float:
    """Weight of a scaled line, g. Source: definition.

    >>> line_scaled(6, 1)
    6
    """
    return weight_g * factor


@rule(
    "recipe.volume",
    unit="ml",
    formula="volume * factor",
    source=DEFINITION,
    words="The recipe's own measure of it, as many times as the recipe is made.",
)
def volume_scaled(volume_ml: float, factor: float) -> float:
    """Volume of a scaled line, ml. Source: definition.

    >>> volume_scaled(10, 12)
    120
    """
    return volume_ml * factor


@rule(
    "recipe.count",
    unit="each",
    formula="pieces * factor",
    source=DEFINITION,
    rounding="up",
    words="The recipe's own count of it, as many times as the recipe is made.",
)
def count_scaled(pieces_count: float, factor: float) -> float:
    """Count of a scaled line. Source: definition.

    >>> count_scaled(6, 1)
    6
    """
    return pieces_count * factor


@rule(
    "recipe.ratio",
    unit="ratio",
    formula="chocolate / cream",
    source=COMMON_PRACTICE,
    words="The weight of chocolate to one of cream: 2 for dark, more for milk and white and in a hot kitchen.",
)
def ganache_ratio(chocolate_g: float, cream_g: float) -> float:
    """Chocolate to cream by weight. Source: common practice (dark 2 : 1; milk and white richer; more in the heat).

    >>> ganache_ratio(500, 250)
    2.0
    """
    return chocolate_g / cream_g


def items_within(ingredients: Mapping[str, Ingredient], media: Mapping[str, Medium]) -> dict[str, Item]:
    """Everything a recipe's line can name, by key."""
    found = {key: Item(one.name, one.density_g_per_ml, one.each_g, one.allergens) for key, one in ingredients.items()}
    found.update({key: Item(one.name, one.density_g_per_ml, None, one.allergens, True) for key, one in media.items()})
    return found


def weight_of(amount: float, unit: LineUnit, item: Item) -> float:
    """The weight of so much of an item, g. Raises CannotWeigh when it has no density, or no piece to count."""
    if unit == "g":
        return amount
    if unit == "ml":
        if item.density_g_per_ml is None:
            raise CannotWeigh(f"how heavy {item.name} is by volume is not known; give it by weight")
        return amount * item.density_g_per_ml
    if item.each_g is None:
        raise CannotWeigh(f"what one piece of {item.name} weighs is not known; give it by weight")
    return amount * item.each_g


def yield_of(recipe: Recipe, items: Mapping[str, Item]) -> Figure:
    """What a recipe yields, g: as said, or the sum of its lines. Raises CannotWeigh."""
    if recipe.yield_g is not None:
        return decided(recipe.yield_g, "g")
    weights = {
        f"{number}. {items[line.item].name}": weight_of(line.amount, line.unit, items[line.item])
        for number, line in enumerate(recipe.lines, 1)
    }
    return of_parts(_YIELD, sum(weights.values()), weights, "g")


def step_of(recipe: Recipe, items: Mapping[str, Item]) -> Fraction | None:
    """The least step a recipe is made in so that every `whole` line, and a quarter where asked, comes out whole.

    A line of n pieces comes out whole at multiples of 1 / n; all of them at multiples of the least common multiple of
    those (of fractions p / q: the lcm of the p over the gcd of the q). None where nothing asks. Source: arithmetic.
    """
    steps = [Fraction(1, 4)] if recipe.by_quarters else []
    for line in recipe.lines:
        if line.whole:
            each = items[line.item].each_g
            pieces = (
                line.amount
                if line.unit == "each" or not each
                else weight_of(line.amount, line.unit, items[line.item]) / each
            )
            count = Fraction(pieces).limit_denominator(100)
            if count > 0:
                steps.append(1 / count)
    if not steps:
        return None
    return Fraction(math.lcm(*(one.numerator for one in steps)), math.gcd(*(one.denominator for one in steps)))


def scale(recipe: Recipe, wanted: Figure, items: Mapping[str, Item]) -> Scaled:
    """The recipe made as many times as `wanted` (g) asks, up to its own step. Raises CannotWeigh."""
    yields, step = yield_of(recipe, items), step_of(recipe, items)
    if step is None:
        times = factor.figure(wanted.value, yields.value)
    else:
        times = stepped.figure(wanted.value, yields.value, float(step))
    lines = {}
    for number, line in enumerate(recipe.lines, 1):
        item = items[line.item]
        lines[f"line_{number}"] = ScaledLine(
            item=line.item,
            name=item.name,
            weight=line_scaled.figure(weight_of(line.amount, line.unit, item), times.value),
            volume=volume_scaled.figure(line.amount, times.value) if line.unit == "ml" else None,
            count=_counted(line, item, times.value),
        )
    return Scaled(
        recipe=recipe.key,
        name=recipe.name,
        item=recipe.makes,
        cake=recipe.cake,
        wanted=carry_over("wanted", wanted.value, "g"),
        yields=yields,
        factor=times,
        makes=line_scaled.figure(yields.value, times.value),
        lines=lines,
        steps=list(recipe.steps),
    )


def _counted(line: RecipeLine, item: Item, times: float) -> Figure | None:
    if line.unit == "each":
        return count_scaled.figure(line.amount, times)
    if line.whole and item.each_g:
        return count_scaled.figure(weight_of(line.amount, line.unit, item) / item.each_g, times)
    return None


def circle_in(recipes: Iterable[Recipe]) -> list[str] | None:
    """A chain of items each made of the next that comes back to its start, or None."""
    made_of: dict[str, set[str]] = {}
    for recipe in recipes:
        made_of.setdefault(recipe.makes, set()).update(line.item for line in recipe.lines)
    done: set[str] = set()

    def walk(item: str, above: list[str]) -> list[str] | None:
        if item in above:
            return [*above[above.index(item) :], item]
        if item in done:
            return None
        for below in sorted(made_of.get(item, ())):
            found = walk(below, [*above, item])
            if found:
                return found
        done.add(item)
        return None

    return next((found for item in sorted(made_of) if (found := walk(item, []))), None)


def in_order(recipes: Mapping[str, Recipe]) -> Iterator[str]:
    """The items that have recipes (by what they make), each before what it is itself made of."""
    left = dict(recipes)
    while left:
        used = {line.item for recipe in left.values() for line in recipe.lines}
        first = [item for item in left if item not in used]
        if not first:
            raise ValueError("these recipes are made of each other")
        for item in first:
            del left[item]
            yield item
