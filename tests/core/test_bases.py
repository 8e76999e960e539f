"""Bases: one mix split into colours, and colours blended of others by parts."""

import pytest
from pydantic import ValidationError

from amber_spread.core.design.design import BowlOrder, Colour, ColourPart, Design
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, TexturedFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.plan import plan
from tests.designs import MEDIA, tier

HONEY = Colour(name="honey", hex="#E3A63A")


def blend(name, *parts, **more):
    return Colour(
        name=name, hex="#EECC88", parts=tuple(ColourPart(colour=colour, parts=share) for colour, share in parts), **more
    )


def cake(*tiers, colours, **more):
    return plan(Design(tiers=tiers, colours=colours, **more), Practice(), MEDIA)


def test_a_base_holds_all_the_bowls_of_its_medium():
    whole = cake(tier(final=FreehandFinal(colour="honey")), tier(152.4), colours=(HONEY,))
    base = whole.bases["meringue_buttercream"]
    mixes = {key: bowl.mix.value for key, bowl in whole.bowls.items() if bowl.medium == "meringue_buttercream"}
    assert base.whole.value == pytest.approx(sum(mixes.values()))
    assert base.tints["honey"].whole.value == mixes["meringue_buttercream~honey"]
    assert base.batches.value * 4800 * 0.6 * 0.75 >= base.whole.value


def test_one_plain_bowl_needs_no_base():
    assert cake(tier(cover=DrapeCover()), colours=()).bases == {}


def test_a_lighter_shade_is_coloured_by_its_share_only():
    pale = blend("pale", (None, 3), ("honey", 1))
    whole = cake(
        tier(cover=DrapeCover(colour="pale")), tier(152.4, cover=DrapeCover(colour="honey")), colours=(HONEY, pale)
    )
    base = whole.bases["fondant"]
    pale_g, honey_g = whole.bowls["fondant~pale"].mix.value, whole.bowls["fondant~honey"].mix.value
    assert base.blends["pale"].parts["honey"].value == pytest.approx(pale_g / 4)
    assert base.tints["honey"].whole.value == pytest.approx(honey_g + pale_g / 4)
    assert base.tints["~plain"].whole.value == pytest.approx(pale_g * 3 / 4)
    assert base.whole.value == pytest.approx(pale_g + honey_g)
    assert "pale" not in base.tints


def test_a_blend_of_blends_comes_down_to_what_is_coloured():
    pale, marble = blend("pale", (None, 1), ("honey", 1)), blend("marble", ("pale", 1), ("honey", 1), marbled=True)
    whole = cake(tier(cover=DrapeCover(colour="marble")), colours=(HONEY, pale, marble))
    base, mixed = whole.bases["fondant"], whole.bowls["fondant~marble"].mix.value
    assert base.blends["marble"].marbled
    assert base.blends["pale"].whole.value == pytest.approx(mixed / 2)
    assert base.tints["honey"].whole.value == pytest.approx(mixed * 3 / 4)
    assert base.tints["~plain"].whole.value == pytest.approx(mixed / 4)


@pytest.mark.parametrize(
    "colours, words",
    [
        ((blend("a", ("b", 1), (None, 1)), blend("b", ("a", 1), (None, 1))), "of itself"),
        ((blend("a", ("a", 1), (None, 1)),), "of itself"),
        ((blend("a", ("gone", 1), (None, 1)),), "not among"),
        ((blend("a", (None, 1)),), "two or more"),
        ((HONEY, blend("a", ("honey", 1), ("honey", 2))), "twice"),
    ],
)
def test_colours_that_cannot_be_blended_are_refused(colours, words):
    with pytest.raises(ValidationError, match=words):
        Design(tiers=(tier(),), colours=colours)


def test_a_piped_coat_is_one_mix_on_one_tier():
    whole = cake(tier(final=TexturedFinal(colour="honey")), colours=(HONEY,))
    assert [key for key, bowl in whole.bowls.items() if any(use.step == "final" for use in bowl.steps.values())] == [
        "meringue_buttercream~honey"
    ]


def test_what_is_there_already_is_not_mixed_again():
    def with_have(grams):
        orders = () if grams is None else (BowlOrder(bowl="meringue_buttercream", have_g=grams),)
        return cake(tier(), colours=(), orders=orders).bowls["meringue_buttercream"]

    usual = with_have(None)
    assert usual.have is None and usual.still_to_mix is None
    some = with_have(200)
    assert some.still_to_mix.value == usual.mix.value - 200
    assert some.risk_have.value == 1
    assert with_have(9000).still_to_mix.value == 0
    assert with_have(9000).risk_have.value == 0


def test_one_more_batch_lowers_the_risk_and_leaves_more():
    bowl = cake(tier(), colours=()).bowls["meringue_buttercream"]
    assert bowl.risk_more.value <= bowl.risk.value
    assert bowl.left_more.value == pytest.approx(bowl.left["likely"].value + bowl.batch.value)
