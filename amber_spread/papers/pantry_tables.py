"""Prices, larder and recipes as CSV and JSON, out and in. What is read is checked whole before any of it is kept."""

import csv
import difflib
import io
import json
import re
from collections.abc import Iterable, Mapping, Sequence
from typing import Any, TypeVar

from pydantic import ValidationError

from amber_spread.core.document import Complaint, complaints_of
from amber_spread.core.kernel.base import Frozen, slug
from amber_spread.core.kernel.limits import MAX_FILE_BYTES
from amber_spread.core.kernel.units import G_PER_OUNCE, G_PER_POUND
from amber_spread.core.stock.goods import goods_in_words, read_good
from amber_spread.core.stock.pantry import Pack, Pantry, Stock, trouble_with
from amber_spread.core.stock.recipes import Recipe
from amber_spread.papers.amounts import plain
from amber_spread.papers.csv_reading import (
    CannotUse,
    Column,
    Row,
    TableError,
    at_line,
    each_row,
    read_decimal,
    read_table,
)

M = TypeVar("M", bound=Frozen)
RECIPES_FORMAT = "amber-spread-recipes/1"
UNITS: dict[str, tuple[str, float]] = {
    "g": ("g", 1.0), "gram": ("g", 1.0), "grams": ("g", 1.0), "kg": ("g", 1000.0), "oz": ("g", G_PER_OUNCE),
    "lb": ("g", G_PER_POUND), "ml": ("ml", 1.0), "l": ("ml", 1000.0), "litre": ("ml", 1000.0), "cl": ("ml", 10.0),
    "each": ("each", 1.0), "piece": ("each", 1.0), "pieces": ("each", 1.0), "pcs": ("each", 1.0),
}  # fmt: skip
SIGNS = {"€": "EUR", "£": "GBP"}
"""The signs that stand for one currency only."""
PRICES = (
    Column("item", ("key",)), Column("pack", ("size", "holds")), Column("unit", needed=False),
    Column("price", ("cost",)),
)  # fmt: skip
LARDER = (Column("item", ("key",)), Column("amount", ("stock", "in")), Column("unit", needed=False))
RECIPES = (
    Column("recipe", ("key",)), Column("name", needed=False), Column("makes", needed=False),
    Column("batter_g_per_ml", needed=False), Column("yield_g", needed=False), Column("by_quarters", needed=False),
    Column("item"), Column("amount"), Column("unit", needed=False), Column("whole", needed=False),
    Column("step", needed=False),
)  # fmt: skip


def write_prices(pantry: Pantry) -> str:
    """Every pack, a line each: item, its name, what the pack holds, its unit and price."""
    rows = [
        (
            pack.item,
            plain(pantry.name_of(pack.item)),
            f"{pack.size:.10g}",
            pack.unit,
            "" if pack.price is None else f"{pack.price:.2f}",
        )
        for pack in pantry.packs
    ]
    return _written(("item", "name", "pack", "unit", "price"), rows)


def write_larder(pantry: Pantry) -> str:
    """What is in the larder, a line each."""
    rows = [
        (stock.item, plain(pantry.name_of(stock.item)), f"{stock.amount:.10g}", stock.unit) for stock in pantry.larder
    ]
    return _written(("item", "name", "amount", "unit"), rows)


def write_recipes(recipes: Iterable[Recipe]) -> str:
    """Recipes as CSV: a line for each ingredient, then one for each step."""
    rows: list[tuple[str, ...]] = []
    for recipe in recipes:
        head = (
            recipe.key, plain(recipe.name), recipe.makes,
            "" if recipe.batter_g_per_ml is None else f"{recipe.batter_g_per_ml:.10g}",
            "" if recipe.yield_g is None else f"{recipe.yield_g:.10g}", "yes" if recipe.by_quarters else "no",
        )  # fmt: skip
        rows.extend(
            (*head, line.item, f"{line.amount:.10g}", line.unit, "yes" if line.whole else "no", "")
            for line in recipe.lines
        )
        rows.extend((*head, "", "", "", "", plain(step)) for step in recipe.steps)
    return _written(tuple(column.name for column in RECIPES), rows)


def recipes_json(recipes: Sequence[Recipe]) -> str:
    """Recipes as JSON, indented, ending in a newline; read back they are the same."""
    found = {"format": RECIPES_FORMAT, "recipes": [recipe.model_dump(mode="json") for recipe in recipes]}
    return json.dumps(found, ensure_ascii=False, indent=2) + "\n"


def with_prices(pantry: Pantry, content: bytes) -> Pantry:
    """The pantry with the packs of a price list: those listed there already take the new price, others are added.

    A pack without a price keeps the one it has, if any.
    Raises TableError, and changes nothing, when any line cannot be used.
    """
    names, seen = _names(pantry), set[tuple[str, float, str]]()

    def read(row: Row) -> Pack:
        item = _item(row, names)
        size, unit = _measured(row, "pack", item, pantry)
        price = _price(row, pantry.terms.currency)
        if (item, size, unit) in seen:
            raise CannotUse("pack", "is listed twice in this file for this item; leave one of the two out")
        seen.add((item, size, unit))
        return _checked(Pack, {"item": item, "size": size, "unit": unit, "price": price}, {"size": "pack"})

    found = each_row(read_table(content, PRICES), read)
    packs = {(pack.item, pack.size, pack.unit): pack for pack in pantry.packs}
    for pack in found:
        key = (pack.item, pack.size, pack.unit)
        if pack.price is not None or key not in packs:
            packs[key] = pack
    return _kept(pantry, packs=[pack.model_dump() for pack in packs.values()])


def with_larder(pantry: Pantry, content: bytes) -> Pantry:
    """The pantry with the amounts of a larder list; what the list does not name stays. Raises TableError."""
    names, seen = _names(pantry), set[str]()

    def read(row: Row) -> Stock:
        item = _item(row, names)
        amount, unit = _measured(row, "amount", item, pantry)
        if item in seen:
            raise CannotUse("item", "is listed twice in this file; add the two up")
        seen.add(item)
        return _checked(Stock, {"item": item, "amount": amount, "unit": unit}, {})

    found = each_row(read_table(content, LARDER), read)
    stocks = {stock.item: stock for stock in (*pantry.larder, *found)}
    return _kept(pantry, larder=[stock.model_dump() for stock in stocks.values()])


def with_recipes(pantry: Pantry, content: bytes) -> Pantry:
    """The pantry with recipes from CSV or JSON; those of the same key are replaced. Raises TableError."""
    found = _from_json(content) if content.lstrip(b"\xef\xbb\xbf \t\r\n")[:1] in (b"{", b"[") else _from_csv(content)
    recipes = {recipe["key"]: recipe for recipe in (*(one.model_dump() for one in pantry.recipes), *found)}
    return _kept(pantry, recipes=list(recipes.values()))


def _from_json(content: bytes) -> list[dict[str, Any]]:
    if len(content) > MAX_FILE_BYTES:
        raise TableError([at_line(1, None, f"is of a file over {MAX_FILE_BYTES // 1024} kB, the most that is read")])
    try:
        found = json.loads(content)
    except (ValueError, RecursionError) as error:
        raise TableError([at_line(1, None, "begins a file that is neither JSON nor CSV")]) from error
    if not isinstance(found, dict) or found.get("format") != RECIPES_FORMAT:
        raise TableError([Complaint(pointer="#/format", field="format", message=f"should be “{RECIPES_FORMAT}”")])
    listed = found.get("recipes")
    if not isinstance(listed, list) or not listed:
        raise TableError([Complaint(pointer="#/recipes", field="recipes", message="should be a list of recipes")])
    complaints: list[Complaint] = []
    recipes = []
    for index, one in enumerate(listed):
        try:
            recipes.append(Recipe.model_validate(one).model_dump())
        except ValidationError as error:
            problems = [
                {**problem, "loc": ("recipes", index, *problem["loc"])}
                for problem in error.errors(include_url=False, include_input=False)
            ]
            complaints.extend(complaints_of(problems))
    if complaints:
        raise TableError(complaints)
    return recipes


def _from_csv(content: bytes) -> list[dict[str, Any]]:
    found: dict[str, dict[str, Any]] = {}
    lines: dict[str, int] = {}

    def read(row: Row) -> None:
        key = slug(row.cells["recipe"]).replace("-", "_").strip("_")
        if not key:
            raise CannotUse("recipe", "is empty; name the recipe this line belongs to")
        lines.setdefault(key, row.line)
        recipe = found.setdefault(key, _recipe_head(key, row))
        if row.cells.get("step"):
            recipe["steps"].append(row.cells["step"])
            return
        unit, times = _unit(row.cells.get("unit") or "g")
        amount = read_decimal(row.cells["amount"], "amount") * times
        item = slug(row.cells["item"]).replace("-", "_")
        if not item:
            raise CannotUse("item", "is empty; name an ingredient or a medium, or give a step")
        whole = row.cells.get("whole", "").lower() in ("yes", "true", "1")
        recipe["lines"].append({"item": item, "amount": amount, "unit": unit, "whole": whole})

    each_row(read_table(content, RECIPES), read)
    complaints: list[Complaint] = []
    for key, recipe in found.items():
        try:
            Recipe.model_validate(recipe)
        except ValidationError as error:
            complaints.extend(
                at_line(lines[key], None, f"begins “{recipe['name']}”, where {one.field} {one.message}")
                for one in complaints_of(error.errors(include_url=False, include_input=False))
            )
    if complaints:
        raise TableError(complaints)
    return list(found.values())


def _recipe_head(key: str, row: Row) -> dict[str, Any]:
    batter, yields = row.cells.get("batter_g_per_ml", ""), row.cells.get("yield_g", "")
    cake = bool(batter)
    return {
        "key": key,
        "name": row.cells.get("name") or row.cells["recipe"],
        "makes": key if cake else slug(row.cells.get("makes") or key).replace("-", "_"),
        "cake": cake,
        "batter_g_per_ml": read_decimal(batter, "batter_g_per_ml") if batter else None,
        "yield_g": read_decimal(yields, "yield_g") if yields else None,
        "by_quarters": row.cells.get("by_quarters", "").lower() in ("yes", "true", "1"),
        "lines": [],
        "steps": [],
    }


def _price(row: Row, currency: str) -> float | None:
    """A price in the kitchen's own currency, None where none is given; one that says it is in another is refused."""
    text = row.cells["price"]
    if not text:
        return None
    named = re.search("[A-Z]{3}|[€£]", text)
    if named and SIGNS.get(named[0], named[0]) != currency:
        raise CannotUse("price", f"“{text[:40]}” is in {SIGNS.get(named[0], named[0])}; your prices are in {currency}")
    return read_decimal(text, "price")


def _unit(word: str) -> tuple[str, float]:
    found = UNITS.get(word.strip().lower().rstrip("."))
    if found is None:
        told = f"“{word[:20]}” is no unit known here" if word.strip() else "the unit is missing"
        raise CannotUse("unit", f"{told}; write g, kg, oz, lb, ml, l or each")
    return found


def _measured(row: Row, column: str, item: str, pantry: Pantry) -> tuple[float, str]:
    """An amount with its unit, which may stand in a column of its own or after the number; goods are counted."""
    text, word = row.cells[column], row.cells.get("unit", "")
    digits = text.rstrip("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ. ")
    if not word and digits != text.rstrip():
        text, word = digits, text[len(digits) :]
    unit, times = _unit(word or ("each" if read_good(item) else ""))
    trouble = trouble_with(item, unit, pantry.items())
    if trouble:
        raise CannotUse("unit", trouble[1])
    return round(read_decimal(text, column) * times, 6), unit


def _names(pantry: Pantry) -> dict[str, str]:
    """Every word an item may be called by in a file, to its key."""
    keys = {key: key for key in pantry.items()}
    return {**{pantry.name_of(key).casefold(): key for key in keys}, **keys}


def _item(row: Row, names: Mapping[str, str]) -> str:
    text = row.cells["item"]
    found = names.get(text.casefold())
    if found is not None:
        return found
    if trouble_with(text, "each", {}) is None or text.partition("~")[0] in names.values():
        return text
    goods = goods_in_words(text)
    if goods is not None:
        return goods
    near = difflib.get_close_matches(text.casefold(), names, n=1, cutoff=0.6)
    hint = f"; did you mean “{near[0]}”?" if near else "; add it to your ingredients first, or write it as listed there"
    raise CannotUse("item", f"“{text[:60]}” is not known here{hint}")


def _checked(model: type[M], values: dict[str, Any], columns: Mapping[str, str]) -> M:
    try:
        return model.model_validate(values)
    except ValidationError as error:
        (one, *_) = complaints_of(error.errors(include_url=False, include_input=False))
        raise CannotUse(columns.get(one.field, one.field), one.message) from error


def _kept(pantry: Pantry, **changes: Any) -> Pantry:
    """The pantry with changes, checked as a whole. Raises TableError."""
    try:
        return Pantry.model_validate({**pantry.model_dump(), **changes})
    except ValidationError as error:
        raise TableError(complaints_of(error.errors(include_url=False, include_input=False))) from error


def _written(head: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(head)
    writer.writerows(rows)
    return stream.getvalue()
