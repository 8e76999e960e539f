"""What is wrong is said where it stands, and what is not wrong is not complained of."""

import pytest

from amber_spread.core.design.design import BaseBoard, Colour, Design
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, NoFinal, PlainFilling, SoftFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import RectangleShape
from amber_spread.core.plan import plan
from amber_spread.core.stock.media import Medium, shelf
from tests.designs import MEDIA, planned, tier


def codes(whole, severity=None):
    return {check.code for check in whole.checks if severity is None or check.severity == severity}


def test_a_plain_cake_has_nothing_but_cautions():
    assert codes(planned(tier())) == {"caution.allergens"}


def test_cheese_frosting_under_fondant_is_trouble_and_without_fondant_is_not():
    cheese = FreehandFinal(medium="cream_cheese_frosting")
    covered = planned(tier(final=cheese, cover=DrapeCover()))
    assert "cover.melts" in codes(covered, "trouble")
    assert "cover.melts" not in codes(planned(tier(final=cheese)))
    assert "cover.melts" not in codes(planned(tier(cover=DrapeCover())))


def test_it_is_the_coat_that_touches_the_sheet_that_counts():
    naked = tier(final=NoFinal(), cover=DrapeCover())
    cheesy = naked.model_copy(update={"crumb": naked.crumb.model_copy(update={"medium": "cream_cheese_frosting"})})
    assert "cover.melts" not in codes(planned(naked))
    assert "cover.melts" in codes(planned(cheesy))


def test_jam_without_a_dam_is_trouble():
    assert "filling.undammed" in codes(planned(tier(filling=PlainFilling(medium="raspberry_jam"))), "trouble")
    assert "filling.undammed" not in codes(planned(tier(filling=SoftFilling(medium="raspberry_jam"))))


def test_a_filling_out_of_the_usual_a_dam_too_wide_and_a_seal_too_high_are_said():
    assert "filling.thickness" in codes(planned(tier(filling=PlainFilling(thickness_mm=15))))
    assert "filling.all_dam" in codes(planned(tier(tin_mm=100, filling=SoftFilling(dam_width_mm=60))))
    assert "filling.all_seal" in codes(planned(tier(filling=SoftFilling(thickness_mm=4, seal_mm=5))))


def test_a_wider_tier_above_and_a_small_board_are_said():
    assert "stack.overhang" in codes(planned(tier(150), tier(200)))
    small = Design(tiers=(tier(300),), base_board=BaseBoard(diameter_mm=250))
    assert "stack.board_small" in codes(plan(small, Practice(), MEDIA), "trouble")


def test_an_oblong_cake_takes_an_oblong_board_and_overhangs_by_its_length_too():
    long = tier(200, shape=RectangleShape(length_mm=350))
    whole = planned(long)
    assert whole.stack.base_length.value - whole.stack.base_diameter.value == pytest.approx(150)
    assert "stack.board_small" not in codes(whole)
    round_board = Design(tiers=(long,), base_board=BaseBoard(shape="round", diameter_mm=300))
    assert "stack.board_small" in codes(plan(round_board, Practice(), MEDIA), "trouble")
    assert "stack.overhang" in codes(planned(tier(220), long))


def test_a_strong_colour_and_a_colour_of_several_batches_are_said():
    strong = Colour(name="poppy", hex="#B01020")
    whole = plan(Design(tiers=(tier(cover=DrapeCover(colour="poppy")),), colours=(strong,)), Practice(), MEDIA)
    assert "mix.strong_colour" in codes(whole)
    assert "mix.strong_colour" not in codes(planned(tier(cover=DrapeCover(colour="blush"))))
    many = planned(tier(300, final=FreehandFinal(colour="ivory")), practice=Practice(mixer_ml=500))
    bowl = many.bowls["meringue_buttercream~ivory"]
    assert bowl.batches.value > 1
    assert bowl.batch.value / 0.75 <= 500 * 0.6 + 1e-6
    assert "mix.combine_first" in codes(many)
    assert many.bowls["meringue_buttercream"].batches is not None
    assert planned(tier(cover=DrapeCover())).bowls["fondant"].batches is None


def test_cautions_stand_for_allergens_the_fridge_raw_egg_and_weight():
    heavy = planned(tier(400), tier(350), tier(300), tier(250))
    assert "caution.heavy" in codes(heavy)
    curd = planned(tier(filling=SoftFilling(medium="lemon_curd")))
    assert "caution.fridge" in codes(curd)
    (allergens,) = [check.text for check in curd.checks if check.code == "caution.allergens"]
    assert "milk (american buttercream, lemon curd, meringue buttercream, vanilla sponge)" in allergens
    assert "wheat (vanilla sponge)" in allergens
    mousse = Medium(key="mousse", name="Mousse", kind="frosting", density_g_per_ml=0.5, raw_egg=True)
    raw = Design(tiers=(tier(filling=PlainFilling(medium="mousse")),))
    assert "caution.raw_egg" in codes(plan(raw, Practice(), shelf((mousse,))))
