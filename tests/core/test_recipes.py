"""Recipes: yields, scaling, whole eggs and quarters, circles; and the ones that come with the program."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from amber_spread.core.kernel.figures import carry_over
from amber_spread.core.stock.ingredients import own_density
from amber_spread.core.stock.media import LIBRARY
from amber_spread.core.stock.pantry import Pack, Pantry, Stock
from amber_spread.core.stock.recipe_book import RECIPES
from amber_spread.core.stock.recipes import (
    CannotWeigh,
    Recipe,
    RecipeLine,
    circle_in,
    ganache_ratio,
    in_order,
    scale,
    step_of,
    weight_of,
    yield_of,
)

ITEMS = Pantry().items()
BOOK = {recipe.key: recipe for recipe in RECIPES}


def recipe(*lines, key="mine", makes="meringue_buttercream", **more):
    return Recipe(key=key, name="Mine", makes=makes, lines=tuple(RecipeLine(**line) for line in lines), **more)


def scaled(one, grams):
    return scale(one, carry_over("wanted", grams, "g"), ITEMS)


@given(st.sampled_from(RECIPES), st.floats(1, 20000))
def test_a_scaled_recipe_makes_enough_and_keeps_its_proportions(one, grams):
    found = scaled(one, grams)
    assert found.makes.value >= grams - 1e-6
    weights = [line.weight.value for line in found.lines.values()]
    assert sum(weights) == pytest.approx(found.makes.value)
    first = weight_of(one.lines[0].amount, one.lines[0].unit, ITEMS[one.lines[0].item])
    assert weights[0] / first == pytest.approx(found.factor.value)


@given(st.sampled_from(RECIPES), st.floats(1, 20000))
def test_eggs_and_packets_come_out_whole_and_no_step_too_many(one, grams):
    found, step = scaled(one, grams), step_of(one, ITEMS)
    for line, made in zip(one.lines, found.lines.values(), strict=True):
        if line.whole:
            assert made.count.value == pytest.approx(round(made.count.value), abs=1e-6)
    if one.by_quarters:
        assert 4 * found.factor.value == pytest.approx(round(4 * found.factor.value))
    if step is not None:
        assert (found.factor.value - float(step)) * found.yields.value < grams


def test_the_step_of_a_recipe_is_the_least_that_makes_everything_whole():
    one = recipe(
        {"item": "egg", "amount": 4, "unit": "each", "whole": True},
        {"item": "gelatine", "amount": 6, "unit": "each", "whole": True},
    )
    assert step_of(one, ITEMS) == Fraction(1, 2)
    assert step_of(one.model_copy(update={"by_quarters": True}), ITEMS) == Fraction(1, 2)
    assert step_of(recipe({"item": "egg", "amount": 150, "whole": True}), ITEMS) == Fraction(1, 3)
    assert step_of(recipe({"item": "sugar", "amount": 150}), ITEMS) is None


def test_volumes_and_pieces_are_weighed_by_their_own_measure():
    assert weight_of(236.588, "ml", ITEMS["sugar"]) == pytest.approx(200, abs=0.1)
    assert weight_of(3, "each", ITEMS["egg"]) == 150
    with pytest.raises(CannotWeigh, match="one piece of Sugar"):
        weight_of(1, "each", ITEMS["sugar"])


def test_what_boils_down_weighs_what_is_said():
    one = recipe({"item": "sugar", "amount": 300}, {"item": "water", "amount": 300}, yield_g=450)
    assert yield_of(one, ITEMS).value == 450
    assert scaled(one, 900).factor.value == 2


def test_a_cup_of_yours_gives_the_density():
    assert own_density(180, 240) == 0.75
    for cup, volume in ((0, 240), (180, 0), (-1, 240)):
        with pytest.raises(ValueError):
            own_density(cup, volume)


def test_ganache_is_two_to_one_for_dark_and_richer_for_milk_white_and_heat():
    def ratio(key):
        chocolate, cream = BOOK[key].lines
        return ganache_ratio(chocolate.amount, cream.amount)

    assert ratio("dark_ganache") == 2  # common practice
    assert 2 < ratio("milk_ganache") < ratio("white_ganache")
    for kind in ("dark", "milk", "white"):
        assert ratio(f"{kind}_ganache_hot") > ratio(f"{kind}_ganache")


def test_every_medium_is_made_or_bought_and_every_recipe_has_steps():
    assert len(BOOK) == len(RECIPES)
    assert all(one.steps for one in RECIPES)
    made = {one.makes for one in RECIPES}
    assert {medium.key for medium in LIBRARY} - made == {
        "raspberry_jam",
        "fondant",
        "dark_chocolate",
        "milk_chocolate",
        "white_chocolate",
    }


def test_what_boils_sugar_or_holds_egg_says_so():
    for one in RECIPES:
        eggs = any(line.item.startswith("egg") for line in one.lines) and not one.cake
        assert not eggs or any("pasteurised" in step for step in one.steps), one.key
    assert all(any("burns" in step for step in BOOK[key].steps) for key in ("caramel", "syrup", "mirror_glaze"))


def test_recipes_are_gone_through_from_what_is_made_of_others_down():
    order = list(
        in_order(
            {
                one.makes: one
                for one in (BOOK["gum_paste"], recipe({"item": "gum_paste", "amount": 10}, makes="fondant_rose"))
            }
        )
    )
    assert order == ["fondant_rose", "gum_paste"]
    with pytest.raises(ValueError):
        list(
            in_order(
                {"a": recipe({"item": "b", "amount": 1}, makes="a"), "b": recipe({"item": "a", "amount": 1}, makes="b")}
            )
        )


def test_a_circle_of_recipes_is_found():
    a, b = (
        recipe({"item": "syrup", "amount": 1}, makes="caramel"),
        recipe({"item": "caramel", "amount": 1}, key="b", makes="syrup"),
    )
    assert circle_in([a, b]) == ["caramel", "syrup", "caramel"]
    assert circle_in(RECIPES) is None


SUGAR = {"item": "sugar", "amount": 100}


@pytest.mark.parametrize(
    "kept, pointer, words",
    [
        (
            {"recipes": [recipe({"item": "meringue_buttercream", "amount": 5}).model_dump()]},
            ("recipes", 0, "lines"),
            "Meringue buttercream is made of Meringue buttercream",
        ),
        (
            {"recipes": [recipe({"item": "fondant", "amount": 5}, makes="fondant").model_dump()]},
            ("recipes", 0, "lines"),
            "circle",
        ),
        ({"recipes": [{**recipe(SUGAR).model_dump(), "yield_g": 0}]}, None, "greater than or equal to 1"),
        ({"recipes": [{**recipe(SUGAR).model_dump(), "lines": []}]}, None, "at least 1"),
        (
            {"recipes": [recipe({"item": "gravel", "amount": 5}).model_dump()]},
            ("recipes", 0, "lines", 0, "item"),
            "not known",
        ),
        (
            {"recipes": [recipe({"item": "sugar", "amount": 5, "unit": "each"}).model_dump()]},
            ("recipes", 0, "lines", 0, "unit"),
            "one piece of Sugar",
        ),
        ({"recipes": [recipe(SUGAR, makes="nothing").model_dump()]}, ("recipes", 0, "makes"), "no medium"),
        ({"recipes": [recipe(SUGAR, cake=True).model_dump()]}, ("recipes", 0, "makes"), "own key"),
        (
            {"recipes": [recipe(SUGAR, cake=True, makes="mine").model_dump()]},
            ("recipes", 0, "batter_g_per_ml"),
            "1 ml of batter",
        ),
        ({"recipes": [recipe(SUGAR).model_dump()] * 2}, ("recipes", 1, "key"), "twice"),
        ({"chosen": {"dark_ganache": "white_ganache"}}, ("chosen", "dark_ganache"), "no recipe for it"),
        ({"packs": [{"item": "sugar", "size": -1}]}, None, "greater than or equal to 0.01"),
        ({"packs": [{"item": "gravel", "size": 10}]}, ("packs", 0, "item"), "not known"),
        ({"packs": [{"item": "sugar", "size": 10, "unit": "each"}]}, ("packs", 0, "unit"), "one piece"),
        ({"packs": [{"item": "board_254", "size": 10}]}, ("packs", 0, "unit"), "each"),
        ({"packs": [{"item": "sugar", "size": 10}] * 2}, ("packs", 1, "size"), "twice"),
        ({"larder": [{"item": "sugar", "amount": 10}] * 2}, ("larder", 1, "item"), "twice"),
        ({"terms": {"currency": "EURO"}}, None, "match pattern"),
    ],
)
def test_a_pantry_that_makes_no_sense_is_refused_where_it_goes_wrong(kept, pointer, words):
    with pytest.raises(ValidationError, match=words) as caught:
        Pantry.model_validate(kept)
    if pointer is not None:
        assert any(tuple(problem.get("ctx", {}).get("path", ())) == pointer for problem in caught.value.errors())


def test_a_kitchens_own_recipe_counts_before_the_programs_and_a_chosen_one_before_both():
    own = recipe({"item": "butter", "amount": 100})
    assert Pantry().in_use()["meringue_buttercream"].key == "meringue_buttercream"
    assert Pantry(recipes=(own,)).in_use()["meringue_buttercream"].key == "mine"
    back = Pantry(recipes=(own,), chosen={"meringue_buttercream": "meringue_buttercream"})
    assert back.in_use()["meringue_buttercream"].key == "meringue_buttercream"


def test_items_are_called_what_people_call_them():
    pantry = Pantry(
        packs=(Pack(item="fondant~deep-red", size=500, price=4),),
        larder=(Stock(item="board_254", amount=2, unit="each"),),
    )
    assert pantry.name_of("fondant~deep-red") == "Fondant, deep red, ready-coloured"
    assert pantry.name_of("board_254") == "Cake board"
    assert pantry.name_of("tin_square_203") == "Tin, square"
    assert pantry.name_of("honey_cake") == "Honey cake"
