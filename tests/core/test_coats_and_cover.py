"""Coats and the drape: thicknesses set and given, and what is rolled, stays and is trimmed."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.design.builds import TaperedBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import CrumbCoat, DiscFinal, DrapeCover, FreehandFinal, NoFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import OvalShape, RectangleShape, RoundShape, SquareShape
from amber_spread.core.tier.coats import coats
from amber_spread.core.tier.cover import cover
from tests.designs import planned, tier


def test_a_freehand_coat_takes_the_kitchens_usual_until_it_is_set():
    usual = planned(tier()).tiers[0].coats.final
    assert (usual.side.value, usual.side.rule) == (6, "usual")
    own = planned(tier(final=FreehandFinal(side_mm=4))).tiers[0].coats.final
    assert (own.side.value, own.side.rule, own.top.value) == (4, "decided", 6)
    thin = planned(tier(), practice=Practice(coat_side_mm=3)).tiers[0].coats.final
    assert thin.diameter.value == pytest.approx(203.2 - 2 * 4 + 2 * 1 + 2 * 3)


def test_a_disc_sets_the_outside_and_the_coat_follows():
    plan = planned(tier(final=DiscFinal(disc_diameter_mm=215.2)))
    final = plan.tiers[0].coats.final
    assert final.side.value == pytest.approx((215.2 - 203.2) / 2)
    assert final.diameter.value == pytest.approx(215.2)


@pytest.mark.parametrize(("disc", "code"), [(200.0, "coats.disc_small"), (205.0, "coats.disc_thin"), (215.0, None)])
def test_a_disc_too_small_for_its_cake_is_caught(disc, code):
    plan = planned(tier(final=DiscFinal(disc_diameter_mm=disc)))
    said = [check.code for check in plan.checks if check.code.startswith("coats.disc")]
    assert said == ([code] if code else [])


def test_a_negative_coat_is_shown_as_such_but_never_weighed_as_such():
    plan = planned(tier(final=DiscFinal(disc_diameter_mm=150)))
    final = plan.tiers[0].coats.final
    assert final.side.value < 0
    assert final.weight.value >= 0
    assert final.diameter.value == plan.tiers[0].coats.crumb.diameter.value


def test_no_final_coat_leaves_the_crumb_coat_outside():
    plan = planned(tier(final=NoFinal(), crumb=CrumbCoat(thickness_mm=3))).tiers[0]
    assert plan.coats.final is None
    assert plan.stack.height.value == plan.coats.crumb.height.value


@given(st.floats(40, 700), st.floats(40, 700))
def test_a_disc_and_the_coat_it_leaves_undo_each_other(disc, cake):
    assert coats.coated_diameter(cake, coats.side_from_disc(disc, cake)) == pytest.approx(disc)


@given(st.floats(50, 600), st.floats(20, 400), st.floats(0, 150), st.floats(0, 100))
def test_a_taller_tier_takes_a_wider_circle_by_twice_the_height(width, height, overlap, more):
    wider = cover.roll_diameter(width, height + more, overlap) - cover.roll_diameter(width, height, overlap)
    assert wider == pytest.approx(2 * more, abs=1e-6)


def test_what_is_rolled_either_stays_is_lost_or_comes_back():
    plan = planned(tier(cover=DrapeCover(colour="blush")))
    one, bowl = plan.tiers[0].cover, plan.bowls["fondant~blush"]
    (use,) = bowl.steps.values()
    assert use.stays.value + use.lost.value + use.in_hand.value == pytest.approx(one.rolled_weight.value)
    assert one.trimmed_weight.value == pytest.approx(one.rolled_weight.value - one.over.weight.value)
    assert bowl.need.value == pytest.approx(one.rolled_weight.value)


def test_a_low_tier_with_nothing_beyond_the_hem_is_said_to_be_short():
    low = tier(layers=Layers(count=1, height_mm=15), cover=DrapeCover(overlap_mm=0, thickness_mm=6))
    plan = planned(low)
    assert plan.tiers[0].cover.trimmed_weight.value < 0
    assert "cover.short" in {check.code for check in plan.checks}
    (use,) = plan.bowls["fondant"].steps.values()
    assert use.in_hand.value == 0


def test_a_tall_narrow_drape_is_said_to_pleat():
    tall = tier(tin_mm=101.6, layers=Layers(count=4, height_mm=35), cover=DrapeCover())
    plan = planned(tall)
    assert plan.tiers[0].cover.gather.value > 3
    assert "cover.pleats" in {check.code for check in plan.checks}


@pytest.mark.parametrize(
    ("shape", "circle"),
    [(SquareShape(), False), (RectangleShape(length_mm=300), False), (OvalShape(length_mm=300), True)],
)
def test_the_sheet_is_a_circle_or_a_rectangle_whichever_takes_less(shape, circle):
    one = planned(tier(shape=shape, cover=DrapeCover(overlap_mm=20))).tiers[0].cover
    assert (one.roll_diameter is not None) is circle
    assert (one.roll_width is None) is circle
    if not circle:
        down = 2 * (one.height_over_coat.value + 20)
        assert one.roll_width.value == pytest.approx(one.width_over_coat.value + down)
        assert one.roll_area.value == pytest.approx(one.roll_width.value * one.roll_length.value)


def test_a_square_takes_a_quarter_more_than_a_round_of_the_same_width_by_the_ratio_of_their_areas():
    """Handbook mensuration: a square is 4/pi times its circle."""
    rounded, square = (
        planned(tier(shape=shape, crumb=CrumbCoat(thickness_mm=0))) for shape in (RoundShape(), SquareShape())
    )
    ratio = square.tiers[0].layers.filling.weight.value / rounded.tiers[0].layers.filling.weight.value
    assert ratio == pytest.approx(4 / math.pi)


def test_a_coat_of_next_to_nothing_with_round_edges_weighs_none_over_a_thick_sharp_crumb_coat():
    """Found by made-up designs: its round corners lie within the sharp ones of the crumb coat."""
    final = FreehandFinal(side_mm=0.0, top_mm=0.0, edges="rounded")
    thick = CrumbCoat(thickness_mm=28.0)
    narrow = TaperedBuild(narrow_mm=70.0, narrow="foot")
    coats = planned(tier(150, shape=SquareShape(), build=narrow, crumb=thick, final=final)).tiers[0].coats
    assert coats.final.volume.value == coats.final.weight.value == 0
    assert coats.final.volume.given["outer"].value < coats.final.volume.given["inner"].value
