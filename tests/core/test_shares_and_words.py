"""Bases of nested blends, pooled weeks, prices of what is hidden, and lines that say every field there is."""

import itertools

import numpy
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from amber_spread.core.bowls.reserve import walk
from amber_spread.core.design.design import BaseBoard, BowlOrder, Cavity, Colour, ColourPart, Design, Layers
from amber_spread.core.design.finishes import CrumbCoat, DrapeCover, FreehandFinal, PlainFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.document.document import plan_document
from amber_spread.core.line import read_line, write_line
from amber_spread.core.plan import plan
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.stock.media import Medium, shelf
from amber_spread.core.stock.pantry import Pack, Pantry
from tests.designs import MEDIA, document, planned, tier


def blended(*tints):
    """Colours of which each is blended of the one before it and of plain, as many parts of each as are said."""
    found = [Colour(name="red", hex="#B3332E")]
    for number, (own, plain) in enumerate(tints):
        parts = (ColourPart(colour=found[-1].name, parts=own), ColourPart(parts=plain))
        found.append(Colour(name=f"tint {number}", hex="#E9A9B4", parts=parts))
    return tuple(found)


@given(
    st.lists(st.tuples(st.integers(1, 4), st.integers(1, 4)), min_size=1, max_size=5),
    st.sets(st.integers(0, 5), min_size=1),
)
@settings(max_examples=25, deadline=None)
def test_a_base_is_as_heavy_as_all_its_bowls_however_blends_nest(tints, used):
    """Mass is kept: what leaves the base is what its bowls hold, whatever is blended of what."""
    colours = blended(*tints)
    names = [colours[min(index, len(colours) - 1)].name for index in sorted(used)]
    tiers = [tier(152.4 + 25.4 * number, cover=DrapeCover(colour=name)) for number, name in enumerate(names)]
    whole = plan(Design(tiers=tuple(tiers[::-1]), colours=colours), Practice(), MEDIA)
    bowls = sum(bowl.mix.value for bowl in whole.bowls.values() if bowl.medium == "fondant")
    if "fondant" in whole.bases:
        assert whole.bases["fondant"].whole.value == pytest.approx(bowls, rel=1e-6)


def test_a_blend_of_a_blend_of_a_blend_comes_out_whole_where_the_first_is_used_too():
    red, pink, lilac, pale = blended((1, 1), (1, 1), (1, 1))
    tiers = (tier(254, cover=DrapeCover(colour=pale.name)), tier(152.4, cover=DrapeCover(colour=pink.name)))
    whole = plan(Design(tiers=tiers, colours=(red, pink, lilac, pale)), Practice(), MEDIA)
    bowls = {bowl.colour: bowl.mix.value for bowl in whole.bowls.values() if bowl.medium == "fondant"}
    base = whole.bases["fondant"]
    assert base.whole.value == pytest.approx(sum(bowls.values()))
    assert base.blends["tint-0"].whole.value == pytest.approx(bowls[pink.name] + bowls[pale.name] / 4)
    assert base.tints["red"].whole.value == pytest.approx(bowls[pink.name] / 2 + bowls[pale.name] / 8)


def test_a_base_leaves_out_what_is_there_already():
    colours = (Colour(name="ivory", hex="#F3E6C4"), Colour(name="blush", hex="#EBD3CC"))
    tiers = (tier(254, final=FreehandFinal(colour="ivory")), tier(203.2, final=FreehandFinal(colour="blush")))
    bare = plan(Design(tiers=tiers, colours=colours), Practice(), MEDIA)
    have = 1000.0
    orders = (BowlOrder(bowl="meringue_buttercream~ivory", have_g=have),)
    found = plan(Design(tiers=tiers, colours=colours, orders=orders), Practice(), MEDIA)
    lacks = min(have, bare.bowls["meringue_buttercream~ivory"].mix.value)
    assert found.bases["meringue_buttercream"].whole.value == pytest.approx(
        bare.bases["meringue_buttercream"].whole.value - lacks
    )
    assert found.bases["meringue_buttercream"].batches.value <= bare.bases["meringue_buttercream"].batches.value


@pytest.mark.parametrize("count", [64, 65, 100, 150])
def test_the_reserve_of_many_steps_is_that_of_a_plain_simulation(count):
    """Independent log-normal amounts, 200,000 walks by numpy's own generator: the quantile of 1 in 20."""
    from types import SimpleNamespace

    def amount(value):
        return SimpleNamespace(value=value)

    uses = [SimpleNamespace(kept_g=100.0, in_hand=amount(0.0), variation=amount(0.2)) for _ in range(count)]
    sigma = numpy.sqrt(numpy.log1p(0.2**2))
    rng = numpy.random.default_rng(3)
    sums = sum(100 * numpy.exp(sigma * rng.standard_normal(200_000) - sigma**2 / 2) for _ in range(count))
    true = float(numpy.quantile(sums, 0.95)) - 100 * count
    assert walk(uses).enough(0.05) - 100 * count == pytest.approx(true, rel=0.06)


# The shop


def asked(key, *tiers, **parts):
    found = document(*tiers, title=key, **parts)
    return Asked(key=key, document=found, bill=bill_of(found, plan_document(found)))


def test_the_price_of_a_cake_counts_what_is_hidden_in_it_and_says_when_it_has_none():
    almonds = tier(203.2, layers=Layers(cavity=Cavity(diameter_mm=70, filled_with="ground_almonds")))
    plain = tier(203.2, layers=Layers(cavity=Cavity(diameter_mm=70, filled_with=None)))
    priced = Pantry(packs=(Pack(item="ground_almonds", size=1000, unit="g", price=20.0),))
    with_it, without = (shop([asked("a", one)], priced).orders["a"].cost for one in (almonds, plain))
    grams = planned(almonds).tiers[0].layers.cavity.fill_weight.value
    assert with_it.materials.value - without.materials.value == pytest.approx(20 * grams / 1000, abs=0.0051)
    assert with_it.tiers["tier_1"].steps["hidden"].value == pytest.approx(20 * grams / 1000, abs=0.0051)
    assert "ground_almonds" in shop([asked("a", almonds)], Pantry()).orders["a"].cost.unpriced
    listed = shop([asked("a", almonds)], priced).allergens
    assert any(one.allergen == "nuts" and any("almonds" in name.lower() for name in one.found_in) for one in listed)


def test_what_is_bought_in_its_colour_has_its_own_price_or_is_named_without_one():
    colours = (Colour(name="black", hex="#2B2522"),)
    design = Design(tiers=(tier(203.2, cover=DrapeCover(colour="black")),), colours=colours)
    found = document(tier(203.2), title="k").model_copy(update={"design": design})
    order = Asked(key="k", document=found, bill=bill_of(found, plan_document(found)))
    plain = Pantry(packs=(Pack(item="fondant", size=1000, unit="g", price=5.0),))
    assert "fondant~black" in shop([order], plain).orders["k"].cost.unpriced
    own = Pantry(packs=(*plain.packs, Pack(item="fondant~black", size=1000, unit="g", price=9.0)))
    cost = shop([order], own).orders["k"].cost
    assert (
        "fondant~black" not in cost.unpriced
        and cost.materials.value > shop([order], plain).orders["k"].cost.materials.value
    )


def test_in_a_pooled_week_one_orders_surplus_serves_another():
    one = asked("one", tier(254))
    key = "meringue_buttercream"
    mixed = one.bill.bowls[key].mix_g
    over = document(tier(152.4), title="two")
    held = over.design.model_copy(update={"orders": (BowlOrder(bowl=key, have_g=mixed + 2000),)})
    over = over.model_copy(update={"design": held})
    two = Asked(key="two", document=over, bill=bill_of(over, plan_document(over)))
    apart, pooled = (shop([one, two], Pantry(), pooled=pooled) for pooled in (False, True))
    assert key in apart.recipes and key in pooled.pools
    need = {
        name: sum(line.weight.value for line in shopping.recipes[key].lines.values())
        if key in shopping.recipes
        else 0.0
        for name, shopping in (("apart", apart), ("pooled", pooled))
    }
    assert need["apart"] > 500 and need["pooled"] < 1e-6


# The line


OWN = (
    Medium(key="drape", name="Drape", kind="filling", density_g_per_ml=1.1), Medium(key="none", name="None", kind="buttercream", density_g_per_ml=0.8),
    Medium(key="coat", name="Coat of the house", kind="ganache", density_g_per_ml=1.2), Medium(key="rose_dam", name='Rose "dam" cream', kind="buttercream", density_g_per_ml=0.8),
    Medium(key="ivory", name="Ivory", kind="fondant", density_g_per_ml=1.3), Medium(key="layers", name="Layers", kind="frosting", density_g_per_ml=0.9),
)  # fmt: skip
ALL = shelf(OWN)
names = (
    st.text(st.characters(codec="utf-8", exclude_categories=("Cc", "Cs")), min_size=1, max_size=20)
    .map(str.strip)
    .filter(bool)
)


@given(
    names,
    names,
    st.sampled_from([None, "round", "square", "rectangle", "oval", "outline"]),
    st.floats(0.1, 1.9),
    st.sampled_from([one.key for one in OWN]),
    st.sampled_from([one.key for one in OWN]),
)
@settings(max_examples=120, deadline=None)
def test_a_line_gives_back_names_boards_cavities_and_media_of_ones_own(name, colour, shape, heaped, first, second):
    design = Design(
        tiers=(
            tier(
                203.2, name=name, layers=Layers(count=4, cavity=Cavity(diameter_mm=50, fill_g_per_ml=round(heaped, 3))),
                filling=PlainFilling(medium=first), final=FreehandFinal(medium=second, colour=colour), crumb=CrumbCoat(medium=first),
                cover=DrapeCover(medium=second),
            ),
            tier(101.6),
        ),
        base_board=BaseBoard(shape=shape, diameter_mm=330), colours=(Colour(name=colour, hex="#E9A9B4"),),
    )  # fmt: skip
    line = write_line(design, ALL)
    read = read_line(line, ALL, ())
    assert not read.unread, (line, read.unread)
    assert read.design == design


def test_every_pair_of_own_media_keeps_its_place():
    for (fill, coat), cover in itertools.product(
        itertools.permutations([one.key for one in OWN], 2), ("ivory", "drape")
    ):
        design = Design(
            tiers=(
                tier(
                    203.2,
                    filling=PlainFilling(medium=fill),
                    final=FreehandFinal(medium=coat),
                    cover=DrapeCover(medium=cover),
                ),
            )
        )
        assert read_line(write_line(design, ALL), ALL, ()).design == design
