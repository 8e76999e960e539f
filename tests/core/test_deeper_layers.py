"""Layers from measured cakes, boards and rooms hidden inside, the order they go up, batter and the height gauge."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from amber_spread.core.cake.batter import batches_of
from amber_spread.core.design.builds import BallBuild, DomedBuild, TaperedBuild
from amber_spread.core.design.design import Cavity, Design, Layers, MeasuredBake, TinBake
from amber_spread.core.design.finishes import NoFinal, PlainFilling, SoftFilling, Syrup, TwinFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.plan import plan
from tests.designs import MEDIA, planned, tier


def layers_of(**parts):
    return planned(tier(layers=Layers(**parts))).tiers[0].layers


def codes(whole):
    return {check.code for check in whole.checks}


@given(st.lists(st.floats(20, 80), min_size=1, max_size=6), st.integers(1, 3))
def test_the_lowest_edge_is_the_common_cut_and_torting_shares_it(edges, torte):
    bake = layers_of(count=2, height_mm=None, bake=MeasuredBake(edges_mm=tuple(edges), torte=torte)).bake
    assert bake.common_cut.value == min(edges)
    assert bake.slice_height.value == pytest.approx(min(edges) / torte)
    assert bake.slices.value == len(edges) * torte


def test_without_a_height_of_their_own_layers_are_cut_to_what_is_common():
    layers = layers_of(count=4, height_mm=None, bake=MeasuredBake(edges_mm=(52, 50), torte=2))
    assert layers.cut_height.value == 25
    assert layers.height.value == pytest.approx(4 * 25 + 3 * 6)


def test_too_few_slices_and_a_cut_above_the_lowest_edge_are_trouble():
    few = planned(tier(layers=Layers(count=4, height_mm=25, bake=MeasuredBake(edges_mm=(50,), torte=2))))
    assert "layers.few_slices" in codes(few)
    high = planned(tier(layers=Layers(count=2, height_mm=40, bake=MeasuredBake(edges_mm=(38, 45)))))
    assert "layers.cut_too_high" in codes(high)


def test_tins_go_face_out_and_the_last_layer_is_turned_over():
    order = layers_of(count=4, height_mm=25, bake=TinBake(torte=2)).order
    assert [(one.number, one.baked, one.slice) for one in order] == [(1, 1, 1), (2, 1, 2), (3, 2, 2), (4, 2, 1)]
    assert [one.way for one in order] == ["tin side down", "cut sides in", "cut sides in", "turned over, tin side up"]


def test_a_hidden_board_stands_in_place_of_one_filling():
    layers = layers_of(count=6, height_mm=25, board_after=3)
    assert layers.filling.count.value == 4
    assert layers.height.value == pytest.approx(6 * 25 + 4 * 6 + 3)
    assert layers.board.diameter.value == pytest.approx(199.2 - 25.4)
    assert layers.board.height.value == pytest.approx(3 * 25 + 2 * 6)


def test_a_hidden_room_takes_cake_and_filling_away_and_tells_what_it_holds():
    whole, hollow = layers_of(count=4), layers_of(count=4, cavity=Cavity(diameter_mm=80))
    area = math.pi * 40**2 / 1000
    assert whole.cake_volume.value - hollow.cake_volume.value == pytest.approx(area * 60)
    assert whole.filling.volume.value - hollow.filling.volume.value == pytest.approx(area * 18)
    assert hollow.cavity.volume.value == pytest.approx(area * 78)
    assert hollow.cavity.wall.value == pytest.approx((199.2 - 80) / 2)
    small = planned(tier(layers=Layers(count=4, cavity=Cavity(diameter_mm=170))))
    assert {"layers.thin_wall", "caution.small_sweets"} <= codes(small)


def test_a_room_needs_a_floor_a_wall_and_a_lid():
    for cavity, parts, words in (
        (Cavity(diameter_mm=60), {"count": 1}, "a layer above it"),
        (Cavity(diameter_mm=60, last=4), {"count": 4}, "a layer above it"),
        (Cavity(diameter_mm=60, first=3, last=2), {"count": 4}, "above the layer it ends in"),
        (Cavity(diameter_mm=60), {"count": 4, "board_after": 2}, "hidden board"),
    ):
        with pytest.raises(ValidationError, match=words):
            Layers(cavity=cavity, **parts)
    with pytest.raises(ValidationError, match="below"):
        Layers(count=3, board_after=3)
    with pytest.raises(ValidationError, match="baked layers"):
        Layers(height_mm=None)


def test_filling_is_spread_thicker_than_it_settles_to_and_the_ring_is_lost():
    whole = planned(tier(filling=PlainFilling(medium="dark_ganache", thickness_mm=6)))
    filling, use = whole.tiers[0].layers.filling, whole.bowls["dark_ganache"].steps["tier_1_filling"]
    assert filling.spread.value == pytest.approx(6 / 0.95)
    assert use.lost.value == pytest.approx(filling.weight.value * (0.03 + 0.05 / 0.95))


def test_syrup_is_a_depth_on_every_layer():
    syrup = layers_of(count=3, syrup=Syrup(soak_mm=0.5)).syrup
    assert syrup.volume.value == pytest.approx(3 * math.pi * 99.6**2 * 0.5 / 1000)


@given(st.floats(60, 140), st.sampled_from(["top", "foot"]))
def test_what_is_carved_off_and_what_stays_make_the_stack(narrow, way):
    layers = planned(tier(200, build=TaperedBuild(narrow_mm=narrow, narrow=way))).tiers[0].layers
    stack = 3 * math.pi * 98**2 * 30 / 1000
    assert layers.cake_volume.value + layers.offcut.value / 0.5 == pytest.approx(stack)


@given(st.floats(80, 200), st.integers(2, 5))
def test_a_balls_layers_share_its_height(tin, count):
    layers = planned(tier(tin, build=BallBuild(foot_mm=0), layers=Layers(count=count))).tiers[0].layers
    assert count * layers.cut_height.value + (count - 1) * 6 == pytest.approx(tin - 4)


def test_seal_dam_and_filling_fill_a_leaning_room_too():
    one = planned(tier(build=TaperedBuild(narrow_mm=150), filling=SoftFilling(dam_width_mm=10))).tiers[0].layers
    rooms = math.pi * (99.6**2) * 2 * 6 / 1000
    total = one.filling.volume.value + one.filling.dam_volume.value + one.filling.seal_volume.value
    assert 0.75 * rooms < total < rooms


def test_batter_by_tin_fill_and_part_batches():
    whole = plan(Design(tiers=(tier(152.4, layers=Layers(count=3, bake=TinBake(depth_mm=50))),)), Practice(), MEDIA)
    expected = math.pi * 76.2**2 * (3 * 30 + 3 * 5) / 1000 * 0.48
    assert whole.batter.whole.value == pytest.approx(expected)
    assert whole.batter.mixes["vanilla_sponge"].batches.value == 0.5  # ten eggs: whole ones in halves of the recipe
    assert (batches_of(1500, 2000, 0.25), batches_of(1501, 2000, 0.25), batches_of(1500, 2000, 0.5)) == (0.75, 1.0, 1.0)
    baked = planned(tier(layers=Layers(count=2, bake=MeasuredBake(edges_mm=(30, 30)))))
    assert baked.batter.whole.value == 0


def test_the_gauge_climbs_through_everything_to_the_finished_height():
    whole = planned(tier(layers=Layers(count=4, board_after=2)), tier(152.4, final=NoFinal()))
    for one in whole.tiers:
        marks = [mark.up.value for mark in one.gauge.values()]
        assert marks == sorted(marks)
        assert marks[-1] == pytest.approx(one.stack.height.value)
    assert [mark.name for mark in whole.tiers[0].gauge.values()] == [
        "Layer 1",
        "Filling 1",
        "Layer 2",
        "Hidden board",
        "Layer 3",
        "Filling 2",
        "Layer 4",
        "Crumb coat",
        "Final coat",
    ]


def test_a_coat_below_the_foot_lifts_every_mark():
    marks = planned(tier(final=TwinFinal(disc_diameter_mm=212, top_mm=5))).tiers[0].gauge
    assert marks["layer_1"].up.value == pytest.approx(30 + 2 + 5)


def test_nothing_stands_on_a_dome():
    assert "stack.no_flat" in codes(planned(tier(build=DomedBuild(rise_mm=30)), tier(150)))
