"""Layers and fillings: the rooms fill up exactly, and what is said to reach a height does reach it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import FreehandFinal, PlainFilling, SoftFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.limits import TARGET_HEIGHT
from amber_spread.core.tier.layers import layers
from tests.designs import KITCHEN, planned, tier, within


def one(**parts):
    return planned(tier(**parts)).tiers[0]


def test_three_layers_and_two_fillings_stack_up():
    plan = one(layers=Layers(count=3, height_mm=30), filling=PlainFilling(thickness_mm=5)).layers
    assert plan.height.value == 3 * 30 + 2 * 5
    assert plan.filling.count.value == 2
    assert plan.filling.dam_weight is None
    assert plan.cake_diameter.value == pytest.approx(203.2 - 4)


def test_a_single_layer_has_no_filling_and_takes_none():
    plan = planned(tier(layers=Layers(count=1, height_mm=60), filling=SoftFilling()))
    assert plan.tiers[0].layers.height.value == 60
    assert plan.tiers[0].layers.filling.weight.value == 0
    assert "lemon_curd" not in plan.bowls


@given(st.floats(1, 50), st.floats(2, 60), st.floats(0, 5), st.floats(60, 600), st.integers(2, 12))
def test_seal_dam_and_filling_together_fill_the_room_between_the_layers(gap, dam, seal, tin, count):
    filling = SoftFilling(thickness_mm=gap, dam_width_mm=dam, seal_mm=seal)
    found = one(tin_mm=tin, layers=Layers(count=count), filling=filling).layers
    room = layers.slab_volume(count - 1, found.area.value, gap)
    inside = found.filling.volume.value + found.filling.dam_volume.value + found.filling.seal_volume.value
    assert inside == pytest.approx(room, rel=1e-9)


def test_a_dam_is_as_wide_as_the_kitchen_pipes_it_unless_it_is_set():
    assert one(filling=SoftFilling(thickness_mm=7)).layers.filling.dam_width.value == KITCHEN.dam_mm
    assert one(filling=SoftFilling(thickness_mm=7, dam_width_mm=12)).layers.filling.dam_width.value == 12


@given(within(TARGET_HEIGHT), st.integers(1, 6))
def test_what_is_said_to_reach_a_target_does_reach_it(target, count):
    decided = Layers(count=count, height_mm=32, target_height_mm=target)
    reach = one(layers=decided).layers.target
    if reach.filling_thickness:
        practice = Practice()
        assert practice.filling_least_mm <= reach.filling_thickness.value <= practice.filling_most_mm
        again = one(layers=decided, filling=PlainFilling(thickness_mm=reach.filling_thickness.value))
        assert again.stack.height.value == pytest.approx(target)
    if reach.cut_height:
        assert reach.cut_height.value <= 32
        again = one(layers=decided.model_copy(update={"height_mm": reach.cut_height.value}))
        assert again.stack.height.value == pytest.approx(target)
    if reach.other_count:
        change = {"count": int(reach.other_count.count.value), "height_mm": reach.other_count.cut_height.value}
        assert change["height_mm"] <= 32
        assert one(layers=decided.model_copy(update=change)).stack.height.value == pytest.approx(target)


@given(st.floats(4.001, 7.999))
def test_a_target_within_the_range_of_fillings_is_always_found(wanted):
    target = 3 * 30 + 2 * wanted + 8
    reach = one(layers=Layers(count=3, height_mm=30, target_height_mm=target)).layers.target
    assert reach.filling_thickness.value == pytest.approx(wanted)


def test_a_target_out_of_reach_says_why():
    plan = planned(tier(layers=Layers(count=1, height_mm=20, target_height_mm=600)))
    reach = plan.tiers[0].layers.target
    assert (reach.filling_thickness, reach.cut_height, reach.other_count) == (None, None, None)
    (said,) = [check for check in plan.checks if check.code == "layers.target"]
    assert "bake higher layers" in said.text
    low = planned(tier(layers=Layers(count=1, height_mm=20, target_height_mm=20), final=FreehandFinal(top_mm=12)))
    assert any("greater height" in check.text for check in low.checks)


def test_a_tier_on_target_is_not_complained_of():
    plan = planned(tier(layers=Layers(count=3, height_mm=30, target_height_mm=110)))
    assert plan.tiers[0].layers.target.missing.value == pytest.approx(0)
    assert not any(check.code == "layers.target" for check in plan.checks)
