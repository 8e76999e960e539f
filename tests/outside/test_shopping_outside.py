"""Recipes and packs against the outside: a food-composition table, the units' definitions, exhaustive search."""

from itertools import product
from math import ceil

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.shop.packs import Offer, choose_packs
from amber_spread.core.stock.ingredients import INGREDIENTS, ingredient_shelf
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import weight_of

UNITS = pint.UnitRegistry()

# Household measures in the USDA's food-composition table (FoodData Central, SR Legacy), cited from memory: other
# measures than those the densities were worked out from. A spoon is levelled less finely than a cup, so 6 per cent.
TABLE = [
    ("butter", "tablespoon", 14.2),
    ("shortening", "tablespoon", 12.8),
    ("oil", "tablespoon", 13.6),
    ("sugar", "teaspoon", 4.2),
    ("honey", "tablespoon", 21.0),
    ("plain_flour", "tablespoon", 7.8),
    ("cornflour", "tablespoon", 8.0),
    ("cocoa", "tablespoon", 5.4),
    ("whole_milk", "fluid_ounce", 30.5),
    ("cream", "tablespoon", 15.0),
    ("soured_cream", "tablespoon", 14.4),
    ("cream_cheese", "tablespoon", 14.5),
    ("condensed_milk", "fluid_ounce", 38.2),
    ("lemon_juice", "fluid_ounce", 30.5),
    ("water", "fluid_ounce", 29.6),
    ("glucose_syrup", "tablespoon", 22.0),
    ("salt", "tablespoon", 18.0),
    ("baking_powder", "tablespoon", 13.8),
    ("vanilla", "tablespoon", 13.0),
]


@pytest.mark.parametrize("key, measure, grams", TABLE)
def test_a_spoon_or_an_ounce_weighs_what_the_table_says(key, measure, grams):
    ml = UNITS(measure).to("milliliter").magnitude
    assert weight_of(ml, "ml", Pantry().items()[key]) == pytest.approx(grams, rel=0.06)


def test_every_density_says_where_it_comes_from():
    for one in INGREDIENTS:
        assert one.density_source.origin in ("published", "from memory"), one.key
        assert one.density_source.origin != "published" or "USDA" in one.density_source.reference


def test_a_pint_of_cream_is_about_a_pound():
    # Common practice: "a pint's a pound". The US pint is 16 fl oz and the pound 453.59237 g by definition.
    pint_ml, pound_g = UNITS("pint").to("milliliter").magnitude, UNITS("pound").to("gram").magnitude
    for key in ("cream", "whole_milk", "butter", "water"):
        assert weight_of(pint_ml, "ml", Pantry().items()[key]) == pytest.approx(pound_g, rel=0.08)


def test_a_large_egg_is_its_white_and_its_yolk():
    eggs = ingredient_shelf()  # published: the same table; a large egg of 50 g, its white 33 g, its yolk 17 g
    assert eggs["egg"].each_g == eggs["egg_white"].each_g + eggs["egg_yolk"].each_g


sizes = st.integers(1, 60)
offers = st.lists(
    st.builds(Offer, size=sizes, price=st.integers(1, 400).map(lambda cents: cents / 100)), min_size=1, max_size=3
)


@given(st.integers(1, 150), offers)
def test_packs_are_as_cheap_as_exhaustive_search_finds_them(wanted, offered):
    counts = choose_packs(wanted, offered)
    held = sum(count * offer.size for count, offer in zip(counts, offered, strict=True))
    spent = sum(count * offer.price for count, offer in zip(counts, offered, strict=True))
    assert held >= wanted
    best = min(
        (round(sum(count * offer.price for count, offer in zip(tried, offered, strict=True)), 6),
         sum(count * offer.size for count, offer in zip(tried, offered, strict=True)))
        for tried in product(*(range(ceil(wanted / offer.size) + 1) for offer in offered))
        if sum(count * offer.size for count, offer in zip(tried, offered, strict=True)) >= wanted
    )  # fmt: skip
    assert (round(spent, 6), held) == best
