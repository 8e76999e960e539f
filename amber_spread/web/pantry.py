"""What the kitchen makes and buys, over HTTP: recipes, prices, larder and terms, and their files."""

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.exceptions import RequestValidationError
from pydantic import ValidationError
from pydantic_core import ErrorDetails

from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import Figure, decided
from amber_spread.core.kernel.limits import CUP, RECIPE_YIELD
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.contents import Contents, contents_of
from amber_spread.core.stock.ingredients import Ingredient, ingredient_shelf, own_density
from amber_spread.core.stock.media import Medium, shelf
from amber_spread.core.stock.pantry import Label, Pantry
from amber_spread.core.stock.recipes import Recipe, Scaled, scale
from amber_spread.papers.pantry_tables import (
    recipes_json,
    with_larder,
    with_prices,
    with_recipes,
    write_larder,
    write_prices,
    write_recipes,
)
from amber_spread.store.shelves import Kept, PantryShelf
from amber_spread.web.files import download
from amber_spread.web.orders import BeganFrom, Book

router = APIRouter(prefix="/pantry", tags=["pantry"])
CSV = "text/csv; charset=utf-8"
_BODY = {"requestBody": {"content": {"text/csv": {"schema": {"type": "string"}}}}}


class Larder(Frozen):
    """The pantry as it stands, and everything within reach: ingredients, media, recipes, and which of those counts.

    Where this version cannot read what was saved last, `unread` says so, and the newest it can read is shown.
    """

    number: int
    pantry: Pantry
    ingredients: list[Ingredient]
    media: list[Medium]
    recipes: list[Recipe]
    in_use: dict[str, str]
    labels: dict[str, Label]
    contents: Contents
    unread: str


class PantrySave(Frozen):
    """A save names the number of the pantry it began from."""

    began_from: BeganFrom
    pantry: Pantry


class ScaleTo(Frozen):
    """A recipe as it stands, saved or not, and what is wanted of it."""

    recipe: Recipe
    wanted_g: Annotated[float, RECIPE_YIELD.field()]


class Cup(Frozen):
    """What a level measure of yours weighs, and what it holds."""

    cup_g: Annotated[float, CUP.field()]
    volume_ml: Annotated[float, CUP.field()]


async def pantry_shelf(book: Book) -> PantryShelf:
    """The pantry kept beside the orders."""
    return PantryShelf(book.engine)


PantryShelfOf = Annotated[PantryShelf, Depends(pantry_shelf)]


def pantry_kept(shelf: PantryShelfOf) -> Pantry:
    """What the kitchen makes and buys, for those who only look."""
    return shelf.open().content


KeptPantry = Annotated[Pantry, Depends(pantry_kept)]


def _shown(kept: Kept[Pantry]) -> Larder:
    pantry = kept.content
    return Larder(
        number=kept.number,
        pantry=pantry,
        ingredients=list(ingredient_shelf(pantry.ingredients).values()),
        media=list(shelf(pantry.media).values()),
        recipes=list(pantry.recipe_shelf().values()),
        in_use={made: recipe.key for made, recipe in pantry.in_use().items()},
        labels=pantry.labels(),
        contents=contents_of(pantry),
        unread=kept.unread,
    )


@router.get("")
def open_pantry(shelf: PantryShelfOf) -> Larder:
    """What the kitchen makes and buys."""
    return _shown(shelf.open())


@router.put("")
def save_pantry(save: PantrySave, shelf: PantryShelfOf) -> Larder:
    """Keep what the kitchen makes and buys now. A save that began from an older one is refused with 409, and kept."""
    return _shown(shelf.save(save.pantry, save.began_from))


@router.post("/scale", response_model=Scaled)
def scale_recipe(asked: ScaleTo, pantry: KeptPantry) -> Response:
    """A recipe made for an amount. Nothing is stored."""
    # The recipe is held to the same checks as one that is kept, so that it can be weighed.
    recipes = [
        one.model_dump()
        for one in (*pantry.recipes, asked.recipe)
        if one is asked.recipe or one.key != asked.recipe.key
    ]
    try:
        checked = Pantry.model_validate({**pantry.model_dump(), "recipes": recipes, "chosen": {}})
    except ValidationError as error:
        raise RequestValidationError([_in_recipe(one) for one in error.errors(include_url=False)]) from error
    scaled = scale(asked.recipe, decided(asked.wanted_g, "g"), checked.items())
    return Response(named(scaled, "scaled").model_dump_json(), media_type="application/json")


def _in_recipe(problem: ErrorDetails) -> dict[str, Any]:
    """A fault of the pantry's last recipe, as one of the recipe that was sent."""
    path = (*problem["loc"], *problem.get("ctx", {}).get("path", ()))[2:]
    message = problem.get("ctx", {}).get("message", problem["msg"])
    return {"type": "misplaced", "loc": ("body", "recipe"), "msg": message, "ctx": {"message": message, "path": path}}


@router.post("/density")
def density(cup: Cup) -> Figure:
    """The density of something by a weighed cup. Nothing is stored."""
    return own_density.figure(cup.cup_g, cup.volume_ml)


@router.post("/prices", openapi_extra=_BODY)
async def read_prices(request: Request, shelf: PantryShelfOf) -> Larder:
    """Take over a price list: all of it, or nothing when a line cannot be used."""
    content = await request.body()
    return _shown(await run_in_threadpool(shelf.change, lambda pantry: with_prices(pantry, content)))


@router.post("/larder", openapi_extra=_BODY)
async def read_larder(request: Request, shelf: PantryShelfOf) -> Larder:
    """Take over what is in the larder: all of it, or nothing when a line cannot be used."""
    content = await request.body()
    return _shown(await run_in_threadpool(shelf.change, lambda pantry: with_larder(pantry, content)))


@router.post("/recipes", openapi_extra=_BODY)
async def read_recipes(request: Request, shelf: PantryShelfOf) -> Larder:
    """Take over recipes, from CSV or JSON: all of them, or nothing when one cannot be used."""
    content = await request.body()
    return _shown(await run_in_threadpool(shelf.change, lambda pantry: with_recipes(pantry, content)))


@router.get("/prices.csv", response_class=Response)
def prices_csv(pantry: KeptPantry) -> Response:
    """Every pack with its price."""
    return download("prices.csv", CSV, write_prices(pantry))


@router.get("/larder.csv", response_class=Response)
def larder_csv(pantry: KeptPantry) -> Response:
    """What is in the larder."""
    return download("larder.csv", CSV, write_larder(pantry))


@router.get("/recipes.csv", response_class=Response)
def recipes_as_csv(pantry: KeptPantry) -> Response:
    """Every recipe within reach, a line for each ingredient and step."""
    return download("recipes.csv", CSV, write_recipes(pantry.recipe_shelf().values()))


@router.get("/recipes.json", response_class=Response)
def recipes_as_json(pantry: KeptPantry) -> Response:
    """Every recipe within reach."""
    content = recipes_json(list(pantry.recipe_shelf().values()))
    return download("recipes.json", "application/json", content)
