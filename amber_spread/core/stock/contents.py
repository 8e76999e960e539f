"""What the recipes in use make and hold: how a cake's batter comes in batches, and which allergens are in what."""

from collections.abc import Iterable, Mapping
from functools import cache
from typing import Annotated

from pydantic import Field

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, Name, PlanPart
from amber_spread.core.stock.media import Allergen, Medium
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import QUARTER, Item, Recipe, step_of, yield_of

BatchShare = Annotated[float, Field(gt=0, le=100)]


class CakeMix(Frozen):
    """How the batter of one cake comes: its name, what one recipe of it fills, and in what shares of it it is made.

    `step` is the least share in which every egg stays whole, a quarter where none is counted.
    """

    name: Name
    batch_ml: Annotated[float, limits.BATCH.field()]
    step: BatchShare = QUARTER
    allergens: tuple[Allergen, ...] = ()


class Contained(Frozen):
    """Something that may be hidden in a cake as it is, and what it usually contains."""

    name: Name
    allergens: tuple[Allergen, ...] = ()


class Contents(Frozen):
    """Every cake within reach by its key, for media that are made here what their recipes usually contain, and every
    ingredient that brings an allergen.
    """

    cakes: Annotated[dict[Key, CakeMix], Field(max_length=int(limits.OWN_ITEMS.high))] = {}
    media: Annotated[dict[Key, tuple[Allergen, ...]], Field(max_length=int(limits.OWN_ITEMS.high))] = {}
    ingredients: Annotated[dict[Key, Contained], Field(max_length=int(limits.OWN_ITEMS.high))] = {}


class Allergy(PlanPart):
    """One allergen, and everything used that usually contains it."""

    allergen: str
    found_in: list[str]


def contents_of(pantry: Pantry) -> Contents:
    """What a kitchen's recipes in use come to."""
    items, in_use = pantry.items(), pantry.in_use()
    cakes, media = {}, {}
    for key, recipe in in_use.items():
        allergens = tuple(sorted(_held(recipe, items, in_use)))
        if not recipe.cake:
            media[key] = allergens
        elif recipe.batter_g_per_ml is not None:
            step = step_of(recipe, items)
            whole_ml = yield_of(recipe, items).value / recipe.batter_g_per_ml
            cakes[key] = CakeMix(
                name=recipe.name,
                batch_ml=min(limits.BATCH.high, max(limits.BATCH.low, whole_ml)),
                step=QUARTER if step is None else float(step),
                allergens=allergens,
            )
    bringing = {
        key: Contained(name=item.name, allergens=tuple(sorted(item.allergens)))
        for key, item in items.items()
        if item.allergens and not item.is_medium
    }
    return Contents(cakes=cakes, media=media, ingredients=bringing)


@cache
def usual_contents() -> Contents:
    """What the program's own recipes come to."""
    return contents_of(Pantry())


def _held(recipe: Recipe, items: Mapping[str, Item], recipes: Mapping[str, Recipe]) -> set[Allergen]:
    """Every allergen of a recipe's lines, of what they are made of in turn among them."""
    found: set[Allergen] = set()
    for line in recipe.lines:
        found.update(items[line.item].allergens)
        if line.item in recipes:
            found |= _held(recipes[line.item], items, recipes)
    return found


def allergies_of(
    taken: Iterable[Medium], cakes: Iterable[str], hidden: Iterable[str], contents: Contents
) -> list[Allergy]:
    """Every allergen of the media and cakes a design takes and of what is hidden in it, by what brings it."""
    bringing: dict[str, set[str]] = {}
    for medium in taken:
        for allergen in (*medium.allergens, *contents.media.get(medium.key, ())):
            bringing.setdefault(allergen, set()).add(medium.name)
    for key in cakes:
        mix = contents.cakes.get(key)
        for allergen in mix.allergens if mix else ():
            bringing.setdefault(allergen, set()).add(mix.name if mix else key)
    for key in hidden:
        inside = contents.ingredients.get(key) or usual_contents().ingredients.get(key)
        if inside is not None:
            for allergen in inside.allergens:
                bringing.setdefault(allergen, set()).add(f"{inside.name}, hidden in it")
    return [Allergy(allergen=name, found_in=sorted(found)) for name, found in sorted(bringing.items())]
