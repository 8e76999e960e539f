"""What a bowl's rest still serves for, the supports to buy for a stack, and the batter of several cakes."""

import colorsys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.bowls.leftovers import WORTH_KEEPING_G, lightness
from amber_spread.core.cake.counts import supports_by_inches
from amber_spread.core.design.design import Colour, Design, Layers, TinBake
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, PlainFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.plan import plan
from amber_spread.core.stock.media import LEFTOVER
from tests.designs import MEDIA, planned, tier

PALE, DARK = Colour(name="straw", hex="#F2E2B0"), Colour(name="umber", hex="#6A4A2E")
INCH = 25.4


def two_coloured():
    tiers = (tier(final=FreehandFinal(colour="umber")), tier(152.4, final=FreehandFinal(colour="straw")))
    return plan(Design(tiers=tiers, colours=(PALE, DARK)), Practice(), MEDIA)


def test_a_light_rest_goes_into_the_darker_bowl_and_not_the_other_way_round():
    whole = two_coloured()
    light, dark = (whole.leftovers[f"meringue_buttercream~{name}"] for name in ("straw", "umber"))
    assert "umber" in light[0] and "light one first" in light[0]
    assert not any("straw" in words for words in dark)
    for words in (light, dark):
        assert LEFTOVER["buttercream"] in words
        assert "allergens" in words[-1]


def test_only_a_rest_worth_keeping_is_told_of():
    whole = planned(tier(50, layers=Layers(count=1, height_mm=10)))
    small = [key for key, bowl in whole.bowls.items() if bowl.left["likely"].value < WORTH_KEEPING_G]
    assert small and not set(small) & set(whole.leftovers)


def test_fondant_keeps_without_a_label_since_it_holds_no_allergen():
    whole = planned(tier(cover=DrapeCover()))
    assert whole.leftovers["fondant"] == [LEFTOVER["fondant"]]


@given(st.integers(0, 255), st.integers(0, 255), st.integers(0, 255))
def test_lightness_is_the_luma_of_the_standard(red, green, blue):
    """Python's own YIQ has the older weights of BT.601, which agree on greys and stay within a quarter elsewhere."""
    found = lightness(f"#{red:02X}{green:02X}{blue:02X}")
    luma = colorsys.rgb_to_yiq(red / 255, green / 255, blue / 255)[0]
    assert 0 <= found <= 1 + 1e-9
    assert abs(found - luma) <= (1e-9 if red == green == blue else 0.25)


@pytest.mark.parametrize("inches, count", [(4, 3), (6, 5), (8, 7), (10, 9), (3, 3)])
def test_one_support_fewer_than_the_upper_tier_is_wide_in_inches(inches, count):
    """Common practice; a 4 in tier takes three, and less than three never stand."""
    assert supports_by_inches(inches * INCH) == count


def test_supports_stand_under_every_tier_but_the_lowest_and_are_as_long_as_the_tier_below_is_high():
    whole = planned(tier(254), tier(203.2), tier(152.4))
    lowest, *upper = whole.tiers
    assert lowest.stack.supports is None
    for below, above in zip(whole.tiers, upper, strict=False):
        assert above.stack.support_length.value == pytest.approx(below.stack.height.value)


def test_each_cake_is_asked_for_its_own_batter():
    bake = TinBake(depth_mm=50)
    layers = Layers(count=2, height_mm=None, bake=bake)
    cakes = (layers, layers.model_copy(update={"cake": "chocolate_cake"}))
    whole = planned(*(tier(200, layers=each, filling=PlainFilling()) for each in cakes))
    assert set(whole.batter.cakes) == {layers.cake, "chocolate_cake"}
    assert sum(one.value for one in whole.batter.cakes.values()) == pytest.approx(whole.batter.whole.value)
