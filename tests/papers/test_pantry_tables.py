"""Prices, larder and recipes read from CSV and JSON as people send them, and written so that they read back."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.stock.ingredients import Ingredient
from amber_spread.core.stock.pantry import Pack, Pantry, Stock
from amber_spread.core.stock.recipe_book import RECIPES
from amber_spread.core.stock.recipes import Recipe, RecipeLine
from amber_spread.papers.csv_reading import CannotUse, TableError, read_decimal
from amber_spread.papers.pantry_tables import (
    recipes_json,
    with_larder,
    with_prices,
    with_recipes,
    write_larder,
    write_prices,
    write_recipes,
)

EMPTY = Pantry()
LIST = "item,pack,unit,price\nbutter,250,g,2.60\nIcing sugar,1,kg,1.95\negg,12,each,3.20\n"


def packs(content, pantry=EMPTY):
    return {(pack.item, pack.size, pack.unit): pack.price for pack in with_prices(pantry, content).packs}


EXPECTED = {("butter", 250, "g"): 2.6, ("icing_sugar", 1000, "g"): 1.95, ("egg", 12, "each"): 3.2}


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
@pytest.mark.parametrize("separator", [",", ";", "\t", "|"])
def test_any_usual_encoding_and_separator_is_read(encoding, separator):
    text = LIST.replace(",", separator)
    assert packs(text.encode(encoding)) == EXPECTED


def test_a_spreadsheet_of_another_locale_is_read():
    text = (
        "sep=;\r\nItem;Pack;Unit;Price\r\nbutter;250;g;2,60 €\r\nicing sugar;1,0;kg;1,95\r\n\r\negg;12;pcs;EUR 3,20\r\n"
    )
    assert packs(text.encode()) == EXPECTED


def test_a_pack_may_carry_its_unit_and_names_are_read_in_any_case():
    assert packs(b"ITEM,size,cost\nBUTTER,250 g,2.6\nIcing Sugar,1 kg,1.95\nEGGS,12 pieces,3.2\n") == EXPECTED


@pytest.mark.parametrize(
    "words, key",
    [
        ("Cake board 10 in", "board_254"),
        ("cake board 25,4 cm", "board_254"),
        ("Base board 12", "base_board_305"),
        ("Cake board, square 8 in", "board_square_203"),
        ("base board, rectangle 12 x 16 in", "base_board_rectangle_305x406"),
        ("Printed sheet 8 x 10 in", "printed_sheet_203x254"),
        ("Printed sheet 20 cm × 250 mm", "printed_sheet_200x250"),
    ],
)
def test_goods_are_known_by_name_and_size_and_are_counted(words, key):
    assert packs(f"item;pack;price\n{words};5;3,10\n".encode()) == {(key, 5, "each"): 3.1}


def test_a_pack_without_a_price_keeps_the_one_it_has():
    pantry = Pantry(packs=(Pack(item="butter", size=250, price=9),))
    content = b"item,pack,price\nbutter,250 g,\nsugar,1 kg,\n"
    assert packs(content, pantry) == {("butter", 250, "g"): 9, ("sugar", 1000, "g"): None}


@pytest.mark.parametrize("words", ["Cake board", "Cake board wide", "Printed sheet 8 x 10 x 2 in", "Cake boards 10 in"])
def test_goods_without_a_size_that_can_be_read_are_not_guessed(words):
    with pytest.raises(TableError) as caught:
        packs(f"item;pack;price\n{words};5;3,10\n".encode())
    assert "not known here" in caught.value.complaints[0].message


def test_a_name_in_another_encoding_is_read():
    pantry = Pantry(ingredients=(Ingredient(key="creme", name="Crème fraîche"),))
    assert packs("item,pack,price\nCrème fraîche,200 g,1.1\n".encode("cp1252"), pantry) == {("creme", 200, "g"): 1.1}


def test_every_bad_line_is_named_and_nothing_is_taken_over():
    pantry = Pantry(packs=(Pack(item="butter", size=250, price=9),))
    text = "item,pack,unit,price\nbutter,250,g,2.60\nbuter,250,g,2.60\nsugar,-5,kg,1\nsugar,1,stone,1\nsugar,1,kg,cheap\nsugar,0,kg,1\nsugar,2,each,1\nbutter,250,g,2\nsugar,5,,1\nsugar,3,kg,GBP 4\nsugar,4,kg,£4\n"
    with pytest.raises(TableError) as caught:
        with_prices(pantry, text.encode())
    said = {one.field: one.message for one in caught.value.complaints}
    assert list(said) == [
        "line 3, item",
        "line 4, pack",
        "line 5, unit",
        "line 6, price",
        "line 7, pack",
        "line 8, unit",
        "line 9, pack",
        "line 10, unit",
        "line 11, price",
        "line 12, price",
    ]
    assert "did you mean “butter”" in said["line 3, item"]
    assert "less than nothing" in said["line 4, pack"]
    assert "0.01 or more" in said["line 7, pack"]
    assert "twice" in said["line 9, pack"]
    assert said["line 12, price"] == "“£4” is in GBP; your prices are in EUR"
    assert "is missing; write g" in said["line 10, unit"]
    assert caught.value.complaints[0].pointer == "#/lines/3/item"
    assert pantry.packs[0].price == 9


def test_a_line_number_counts_lines_and_not_rows():
    with pytest.raises(TableError) as caught:
        with_prices(EMPTY, b'\n\nitem,pack,price\n\nbutter,250 g,"2\n60"\ngravel,1,1\n')
    assert [one.field for one in caught.value.complaints] == ["line 5, price", "line 7, item"]


@pytest.mark.parametrize(
    "content, words",
    [
        (b"", "is empty"),
        (b"\n \n", "is empty"),
        (b"name;weight\nbutter;2\n", "missing: item, pack, price"),
        (b"PK\x03\x04\x00\x01", "no text"),
        (b"item,pack,price\nbutter,250,2\x00\n", "no text"),
        ("item,pack,price\n".encode("utf-16-le"), "no text"),
        (b'item,pack,price\n"butter,250,2\n', "cannot be read as CSV"),
        (b"item,pack,price\n" + b"butter,1,1\n" * 6000, "6001 lines; 5000 are read"),
        (b"x" * 600_000, "kB, the most that is read"),
    ],
)
def test_a_file_that_is_no_table_is_refused_in_words(content, words):
    with pytest.raises(TableError, match=words):
        with_prices(EMPTY, content)


def test_of_very_many_bad_lines_some_are_named_and_the_rest_counted():
    with pytest.raises(TableError) as caught:
        with_prices(EMPTY, b"item,pack,price\n" + b"gravel,1,1\n" * 4000)
    assert len(caught.value.complaints) == 61
    assert "3940 more lines" in caught.value.complaints[-1].message


@pytest.mark.parametrize(
    "text, value",
    [
        ("2.40", 2.4),
        ("2,40", 2.4),
        ("1.234,50", 1234.5),
        ("1,234.50", 1234.5),
        ("1 234,5", 1234.5),
        ("1'234.5", 1234.5),
        ("€ 2.40", 2.4),
        ("2.40 GBP", 2.4),
        ("1,234,567", 1234567),
        (".5", 0.5),
        ("0,125", 0.125),
        ("12", 12),
        ("1\u202f234", 1234),
    ],
)
def test_numbers_of_either_locale_are_read(text, value):
    assert read_decimal(text, "price") == pytest.approx(value)


@pytest.mark.parametrize(
    "text",
    ["1,234", "1.234", "-2", "−2", "", "two", "1.2.3", "1,2,3", "1e9", "nan", "inf", "1.23,456.7", "٣", "9" * 30],
)
def test_what_is_no_number_or_could_be_two_is_refused(text):
    with pytest.raises(CannotUse):
        read_decimal(text, "price")


@given(st.binary(max_size=400))
def test_no_bytes_break_the_reading(content):
    for read in (with_prices, with_larder, with_recipes):
        try:
            read(EMPTY, content)
        except TableError as error:
            assert error.complaints


def test_prices_and_larder_read_back_as_they_were_written():
    kept = Pantry(
        packs=(Pack(item="butter", size=250, price=2.6), Pack(item="board_254", size=5, unit="each", price=4)),
        larder=(Stock(item="butter", amount=333.25), Stock(item="cream", amount=500, unit="ml")),
    )
    assert with_prices(EMPTY, write_prices(kept).encode()).packs == kept.packs
    assert with_larder(EMPTY, write_larder(kept).encode()).larder == kept.larder


def test_a_new_price_replaces_the_old_and_leaves_the_rest():
    kept = Pantry(packs=(Pack(item="butter", size=250, price=9), Pack(item="sugar", size=1000, price=1)))
    found = packs(LIST.encode(), kept)
    assert found[("butter", 250, "g")] == 2.6 and found[("sugar", 1000, "g")] == 1


@pytest.mark.parametrize("write", [recipes_json, write_recipes])
def test_recipes_read_back_as_they_were_written(write):
    own = Recipe(
        key="mine", name="=Mine; and yours", makes="meringue_buttercream", yield_g=700.5, by_quarters=True,
        lines=(RecipeLine(item="egg_white", amount=4, unit="each", whole=True), RecipeLine(item="butter", amount=333.3)),
        steps=("Beat, then “rest”.", "-Chill-"),
    )  # fmt: skip
    book = (*RECIPES, own)
    assert with_recipes(EMPTY, write(book).encode()).recipes == book


@pytest.mark.parametrize(
    "content, words",
    [
        (b'{"format": "other"}', "should be “amber-spread-recipes/1”"),
        (b'{"format": "amber-spread-recipes/1", "recipes": []}', "a list of recipes"),
        (b"{", "neither JSON nor CSV"),
        (b"[" * 100_000, "neither JSON nor CSV"),
        (b'{"format": "amber-spread-recipes/1", "recipes": [{"key": "a"}]}', "is missing"),
        (b"recipe,makes,item,amount\nmine,meringue_buttercream,gravel,5\n", "not known here"),
        (b"recipe,makes,item,amount\nmine,meringue_buttercream,meringue_buttercream,5\n", "circle"),
        (b"recipe,makes,item,amount\nmine,meringue_buttercream,butter,0\n", "0.01 or more"),
        (b"recipe,makes,item,amount,step\nmine,meringue_buttercream,,,Stir\n", "too few"),
        (b"recipe,item,amount\n,butter,1\n", "name the recipe"),
        (b"recipe,makes,item,amount,yield_g\nmine,meringue_buttercream,butter,5,0\n", "yield_g should be 1 g or more"),
    ],
)
def test_recipes_that_cannot_be_made_are_refused_in_words(content, words):
    with pytest.raises(TableError, match=words):
        with_recipes(EMPTY, content)
