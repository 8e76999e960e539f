"""Figures decorators go by, held against the plan. All are common practice in the trade, with no published source."""

import pytest

from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import CrumbCoat, DiscFinal, DrapeCover, FreehandFinal, NoFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.core.tier.coats import coats
from amber_spread.core.tier.cover import cover
from tests.designs import planned, tier


def test_a_bare_cake_4_in_wide_and_3_in_high_drapes_from_a_10_in_circle():
    """Common practice: width and twice the height."""
    assert cover.roll_diameter(4 * MM_PER_INCH, 3 * MM_PER_INCH, 0) == pytest.approx(10 * MM_PER_INCH)


def test_the_same_through_a_whole_plan():
    """Common practice, as above; bare, so nothing is trimmed off the skin and no coat lies under the sheet."""
    one = tier(
        tin_mm=4 * MM_PER_INCH,
        layers=Layers(count=1, height_mm=3 * MM_PER_INCH),
        crumb=CrumbCoat(thickness_mm=0),
        final=NoFinal(),
        cover=DrapeCover(overlap_mm=0),
    )
    plan = planned(one, practice=Practice(trimmed_skin_mm=0))
    assert plan.tiers[0].cover.roll_diameter.value == pytest.approx(10 * MM_PER_INCH)


def test_a_disc_of_6_and_a_quarter_on_a_6_in_cake_leaves_an_eighth_all_round():
    """Common practice: the disc sets the outside."""
    assert coats.side_from_disc(6.25 * MM_PER_INCH, 6 * MM_PER_INCH) == pytest.approx(MM_PER_INCH / 8)


def test_the_same_over_the_usual_trimming_and_crumb_coat():
    """Common practice: 2 mm of skin off and 2 mm of crumb coat on bring a cake back to the size of its tin."""
    plan = planned(tier(tin_mm=6 * MM_PER_INCH, final=DiscFinal(disc_diameter_mm=6.25 * MM_PER_INCH)))
    assert plan.tiers[0].coats.final.side.value == pytest.approx(MM_PER_INCH / 8)


def test_a_disc_finish_has_twice_in_hand_of_what_stays():
    """Common practice: one and a half to two batches are made, and half is scraped back."""
    plan = planned(tier(final=DiscFinal(disc_diameter_mm=215.2), crumb=CrumbCoat(medium="dark_ganache")))
    bowl = plan.bowls["meringue_buttercream"]
    final = bowl.steps["tier_1_final"]
    assert 1.5 <= (final.kept_g + final.in_hand.value) / final.stays.value <= 2.2


def test_an_8_in_cake_takes_about_as_much_buttercream_as_the_usual_charts_say():
    """Common practice: 5 to 7 US cups fill and frost an 8 in cake of three layers (from memory of the usual charts)."""
    plan = planned(tier(tin_mm=8 * MM_PER_INCH, layers=Layers(count=3, height_mm=32), final=FreehandFinal()))
    one = plan.tiers[0]
    ml = one.layers.filling.volume.value + one.coats.crumb.volume.value + one.coats.final.volume.value
    assert 4.5 <= ml / 236.588 <= 7.5


def test_an_8_in_tier_takes_about_as_much_fondant_as_the_usual_charts_say():
    """Common practice: about 24 to 36 oz is rolled for an 8 in round 4 in high (from memory of the usual charts)."""
    one = planned(tier(tin_mm=8 * MM_PER_INCH, layers=Layers(count=3, height_mm=30), cover=DrapeCover())).tiers[0]
    assert 22 <= one.cover.rolled_weight.value / 28.3495 <= 36


def test_the_base_board_is_at_least_2_in_wider_than_the_cake():
    """Common practice."""
    plan = planned(tier(tin_mm=254))
    assert plan.stack.base_diameter.value - plan.tiers[0].stack.diameter.value == pytest.approx(2 * MM_PER_INCH)
