"""Shopping: what orders take, less the larder, in packs at least cost; what they cost; and what pooling saves."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.design.design import BowlOrder, Colour, Design, Layers
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, PlainFilling, PrintedCover
from amber_spread.core.document.document import plan_document
from amber_spread.core.kernel.naming import figures
from amber_spread.core.shop import Asked, Bill, bill_of, shop
from amber_spread.core.shop.packs import Offer, choose_packs
from amber_spread.core.shop.pooling import pool_bowls
from amber_spread.core.stock.goods import good_key, read_good
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.pantry import Pack, Pantry, Stock, Terms
from amber_spread.core.stock.recipes import Recipe, RecipeLine
from tests.core.test_plan import at, reckoned
from tests.designs import alike, designs, document, tier

BUTTER = (Pack(item="butter", size=250, price=2.5), Pack(item="butter", size=1000, price=9))
PRICES = (
    *BUTTER, Pack(item="sugar", size=1000, price=1.2), Pack(item="egg", size=12, unit="each", price=3.6),
    Pack(item="egg_white", size=1000, price=5), Pack(item="vanilla", size=100, unit="ml", price=8), Pack(item="plain_flour", size=1000, price=1),
    Pack(item="baking_powder", size=100, price=1), Pack(item="whole_milk", size=1000, unit="ml", price=1.1), Pack(item="board_203", size=1, unit="each", price=0.5),
    Pack(item="base_board_305", size=1, unit="each", price=2), Pack(item="fondant", size=1000, price=6),
)  # fmt: skip
ALL = Pantry(packs=PRICES)


def asked(*documents, kit=None):
    return [
        Asked(f"order-{number}", one, bill_of(one, plan_document(one, kit))) for number, one in enumerate(documents)
    ]


def plain(**more):
    return document(tier(filling=PlainFilling(medium="meringue_buttercream")), **more)


def test_a_bowl_becomes_its_recipe_and_the_recipe_its_ingredients():
    (one,) = orders = asked(plain())
    found = shop(orders, Pantry())
    bowl = plan_document(one.document).bowls["meringue_buttercream"]
    made = found.recipes["meringue_buttercream"]
    assert made.wanted.value == bowl.mix.value
    butter = sum(
        line.weight.value
        for scaled in found.recipes.values()
        for line in scaled.lines.values()
        if line.item == "butter"
    )
    assert found.wants["butter"].needed.value == pytest.approx(butter)
    assert set(found.wants["butter"].needed.given) == {"Meringue buttercream", "Vanilla sponge"}
    assert "water" not in found.wants and "meringue_buttercream" not in found.wants


def test_batter_is_made_by_the_cakes_own_recipe_in_quarters():
    (one,) = orders = asked(document(tier(layers=Layers(cake="honey_cake"))))
    made = shop(orders, Pantry()).recipes["honey_cake"]
    assert made.wanted.value == pytest.approx(plan_document(one.document).batter.whole.value * 0.95)
    assert 4 * made.factor.value == pytest.approx(round(4 * made.factor.value))


def test_a_cake_without_a_recipe_is_said_and_not_forgotten():
    found = shop(asked(document(tier(layers=Layers(cake="grandmothers")), title="Birthday")), Pantry())
    assert "Birthday" in found.gaps[0] and "grandmothers" in found.gaps[0]


def test_the_larder_comes_off_what_is_bought_and_what_is_made():
    usual = shop(asked(plain()), Pantry())
    stocked = shop(
        asked(plain()),
        Pantry(
            larder=(
                Stock(item="butter", amount=100),
                Stock(item="meringue_buttercream", amount=500),
                Stock(item="sugar", amount=90000),
            )
        ),
    )
    assert (
        stocked.recipes["meringue_buttercream"].wanted.value == usual.recipes["meringue_buttercream"].wanted.value - 500
    )
    butter = stocked.wants["butter"]
    assert butter.to_buy.value == pytest.approx(butter.needed.value - 100)
    assert stocked.wants["sugar"].to_buy.value == 0 and not stocked.wants["sugar"].packs
    assert stocked.wants["sugar"].cost.value == 0


def test_a_recipe_of_a_kitchens_own_is_gone_through_to_the_bottom():
    own = Recipe(
        key="mine",
        name="Mine",
        makes="meringue_buttercream",
        lines=(RecipeLine(item="american_buttercream", amount=300), RecipeLine(item="cream_cheese", amount=100)),
    )
    found = shop(asked(plain()), Pantry(recipes=(own,)))
    mix = found.recipes["meringue_buttercream"].wanted.value
    assert found.recipes["american_buttercream"].wanted.value == pytest.approx(mix * 3 / 4)
    assert found.wants["cream_cheese"].needed.value == pytest.approx(mix / 4)


def test_packs_are_chosen_at_least_cost_and_the_till_adds_them_up():
    found = shop(asked(plain()), ALL)
    butter = found.wants["butter"]
    held = sum(one.count.value * one.size.value for one in butter.packs.values())
    assert held >= butter.to_buy.value
    assert butter.over.value == pytest.approx(held - butter.to_buy.value)
    assert found.spend.value == pytest.approx(sum(want.cost.value for want in found.wants.values() if want.cost))
    assert found.unpriced == []


def test_what_has_no_price_is_named_and_not_taken_for_nothing():
    found = shop(asked(plain()), Pantry(packs=BUTTER))
    assert "sugar" in found.unpriced and found.labels["sugar"].name == "Sugar"
    assert found.wants["sugar"].cost is None
    (share,) = found.orders.values()
    assert "sugar" in share.cost.unpriced


def test_a_ready_coloured_fondant_is_bought_as_such_where_the_colour_is_strong():
    red = Colour(name="deep red", hex="#B01020")
    design = Design(tiers=(tier(cover=DrapeCover(colour="deep red")),), colours=(red,))
    cake = document().model_copy(update={"design": design})
    found = shop(asked(cake), Pantry())
    assert found.wants["fondant~deep-red"].label.name == "Fondant, deep red, ready-coloured"
    assert "fondant" not in found.wants


def test_boards_are_bought_in_the_size_that_is_kept_and_tools_once():
    two = document(tier(254), tier(203.2, final={"kind": "disc", "disc_diameter_mm": 215}))
    found = shop(asked(two, two.model_copy(update={"title": "Another"}), kit=Kit(discs_mm=())), Pantry())
    assert found.wants["board_203"].needed.value == 2
    assert found.wants["disc_215"].needed.value == 1 and found.wants["disc_215"].group == "tools"
    assert found.wants["base_board_330"].group == "goods"
    assert found.wants["wide_straw_240"].needed.value == 2 * straws_for(two)


def straws_for(cake):
    return plan_document(cake).stack.cutting["wide_straw"].rods.value


def test_printed_sheets_are_bought_by_the_sheet():
    (one,) = orders = asked(document(tier(cover=PrintedCover())))
    (sheets,) = [want for want in shop(orders, Pantry()).wants.values() if want.item.startswith("printed_sheet")]
    assert sheets.needed.value == plan_document(one.document).tiers[0].cover.printed.sheets.value


def test_allergens_are_listed_by_what_brings_them():
    found = {one.allergen: one.found_in for one in shop(asked(plain()), Pantry()).allergens}
    assert "Butter" in found["milk"] and "Plain flour" in found["wheat"]
    assert {"Egg whites", "Eggs"} <= set(found["egg"])


@given(designs)
def test_costs_by_tier_and_step_add_up_and_formulas_hold(design):
    cake = document().model_copy(update={"design": design})
    orders = asked(cake)
    found = shop(orders, ALL)
    kept = [Asked(one.key, one.document, Bill.model_validate_json(one.bill.model_dump_json())) for one in orders]
    assert alike(shop(kept, ALL), found)
    (share,) = found.orders.values()
    cost = share.cost
    tiers = sum(one.whole.value for one in cost.tiers.values() if one.whole)
    assert cost.materials.value == pytest.approx(tiers + (cost.base.value if cost.base else 0))
    for one in cost.tiers.values():
        # Each to the cent, so that the sum is that of what is shown; what has no price says so.
        priced = [step.value for step in one.steps.values() if step]
        assert all(abs(value - round(value, 2)) < 1e-9 for value in priced)
        assert (one.whole is None) == (not priced) and (not priced or one.whole.value == pytest.approx(sum(priced)))
    assert cost.price.value >= cost.materials.value + cost.work.value + cost.overhead.value + cost.profit.value - 1e-6
    for figure in figures(found):
        assert figure.value == pytest.approx(reckoned(figure), rel=1e-9, abs=1e-6), figure.id
        assert at({"shop": found}, figure.id) is figure


def test_materials_are_reckoned_at_the_price_of_what_is_used():
    (one,) = orders = asked(document(tier(cover=DrapeCover())))
    (share,) = shop(orders, ALL).orders.values()
    fondant = share.cost.tiers["tier_1"].steps["cover"]
    assert fondant.value == pytest.approx(plan_document(one.document).bowls["fondant"].mix.value / 1000 * 6)


def test_the_price_is_the_kitchens_own_terms():
    terms = Terms(hour_price=30, overhead=0.5, profit=0.2, round_to=5)
    (share,) = shop(asked(plain(minutes=90)), Pantry(terms=terms)).orders.values()
    cost = share.cost
    assert cost.materials.value == 0 and cost.work.value == 45
    assert cost.overhead.value == 22.5 and cost.profit.value == pytest.approx(13.5)
    assert cost.price.value == 85


def test_orders_of_one_name_are_told_apart():
    found = shop(asked(plain(), plain()), Pantry())
    assert len(found.orders) == 2
    flour = found.recipes["vanilla_sponge"].wanted.value
    assert flour == pytest.approx(2 * shop(asked(plain()), Pantry()).recipes["vanilla_sponge"].wanted.value)


def test_pooling_takes_less_than_apart_and_only_in_one_colour():
    honey = FreehandFinal(colour="ivory")
    orders = asked(document(tier(final=honey), title="One"), document(tier(254, final=honey), title="Two"))
    pools = pool_bowls([(one.document.title, one.document, one.bill) for one in orders])
    pool = pools["meringue_buttercream~ivory"]
    assert pool.apart.given.keys() == {"One", "Two"}
    assert pool.saved.value == pool.apart.value - pool.together.value > 0
    largest = max(plan_document(one.document).bowls["meringue_buttercream~ivory"].mix.value for one in orders)
    assert pool.together.value > largest
    apart, together = shop(orders, Pantry()), shop(orders, Pantry(), pooled=True)
    assert together.recipes["meringue_buttercream"].wanted.value < apart.recipes["meringue_buttercream"].wanted.value


def test_a_colour_shown_otherwise_is_not_the_same_colour():
    first, second = (document(tier(final=FreehandFinal(colour="ivory")), title=title) for title in ("One", "Two"))
    other = tuple(
        one.model_copy(update={"hex": "#102030"}) if one.name == "ivory" else one for one in second.design.colours
    )
    second = second.model_copy(update={"design": second.design.model_copy(update={"colours": other})})
    pools = pool_bowls([(one.document.title, one.document, one.bill) for one in asked(first, second)])
    assert "meringue_buttercream~ivory" not in pools


def test_what_is_had_already_of_a_bowl_is_not_shopped_for():
    cake = plain()
    mix = plan_document(cake).bowls["meringue_buttercream"].mix.value
    had = cake.model_copy(
        update={
            "design": cake.design.model_copy(update={"orders": (BowlOrder(bowl="meringue_buttercream", have_g=300),)})
        }
    )
    assert shop(asked(had), Pantry()).recipes["meringue_buttercream"].wanted.value == mix - 300


@given(
    st.sampled_from(["board", "base_board", "printed_sheet", "tin", "disc"]),
    st.integers(40, 1200),
    st.none() | st.integers(40, 1200),
    st.sampled_from(["round", "square", "heart"]),
)
def test_goods_read_back_from_their_key(kind, size, length, shape):
    good = read_good(good_key(kind, size, length, shape))
    assert (good.kind, good.size, good.length, good.shape) == (kind, size, length, shape)


def test_no_medium_or_ingredient_is_taken_for_goods():
    assert [key for key in Pantry().items() if read_good(key)] == []


def test_a_pack_of_nothing_and_nothing_to_buy():
    with pytest.raises(ValueError):
        choose_packs(5, [Offer(0, 1)])
    assert choose_packs(0, [Offer(5, 1)]) == [0]
    assert choose_packs(5, []) == []
    assert choose_packs(7, [Offer(5, None), Offer(2, None)]) == [1, 1]
    assert choose_packs(7, [Offer(5, None), Offer(2, 1)]) == [0, 4]
