"""Piping over a part of a tier against closed forms: rings, caps and zones."""

import math

import pytest
from pydantic import ValidationError

from amber_spread.core.design.builds import BallBuild, JoinedBuild, SideBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import NoFinal, PipedRegion
from amber_spread.core.design.solids import BallSolid, BoxSolid
from tests.designs import MEDIA, planned, tier

PI = math.pi


def piped(*regions, **parts):
    return planned(tier(200, regions=regions, layers=Layers(count=3, height_mm=25), **parts))


def test_a_foot_of_grass_is_a_ring():
    """pi((r + relief)² - r²) times its height, on a straight round tier."""
    plan = piped(PipedRegion(low=0.1, high=0.4, relief_mm=6))
    one = plan.tiers[0]
    (region,) = one.regions.values()
    radius, high = one.coats.final.diameter.value / 2, 0.3 * one.coats.final.height.value
    assert region.high.value - region.low.value == pytest.approx(high)
    assert region.volume.value == pytest.approx(PI * ((radius + 6) ** 2 - radius**2) * high / 1000)
    density = MEDIA[PipedRegion().medium].density_g_per_ml
    assert plan.bowls[PipedRegion().medium].steps["tier_1_region"].stays.value == pytest.approx(
        region.volume.value * density
    )
    # It stands out by its relief, and the board with it.
    bare = piped().tiers[0].stack
    assert one.stack.diameter.value == pytest.approx(bare.diameter.value + 12)
    assert one.stack.height.value == bare.height.value
    assert plan.stack.base_diameter.value == pytest.approx(piped().stack.base_diameter.value + 12)


def test_all_over_is_the_whole_coat_with_its_top():
    one = piped(PipedRegion(low=0, high=1, relief_mm=5)).tiers[0]
    (region,) = one.regions.values()
    radius, high = one.coats.final.diameter.value / 2, one.coats.final.height.value
    assert region.on_top
    assert region.volume.value == pytest.approx(PI * ((radius + 5) ** 2 * (high + 5) - radius**2 * high) / 1000)
    assert one.stack.height.value == pytest.approx(piped().tiers[0].stack.height.value + 5)


@pytest.mark.parametrize("carved", [False, True], ids=["turned", "carved"])
def test_a_cap_on_a_ball_is_between_two_balls(carved):
    """From half way up to the top: half of the room between two balls (geometry)."""
    build = JoinedBuild(solids=(BallSolid(across_mm=200),)) if carved else BallBuild(foot_mm=0)
    one = piped(PipedRegion(low=0.5, high=1.0, relief_mm=6), build=build, final=NoFinal()).tiers[0]
    (region,) = one.regions.values()
    radius = one.coats.crumb.diameter.value / 2
    whole = 2 / 3 * PI * ((radius + 6) ** 3 - radius**3) / 1000
    assert region.volume.value == pytest.approx(whole, rel=0.03)


def test_round_a_carved_box_it_is_four_walls_and_four_rounded_edges():
    """Level zones of a box and its coats are rounded at their upright edges (Steiner)."""
    build = JoinedBuild(solids=(BoxSolid(wide_mm=200, deep_mm=120, high_mm=100),))
    one = piped(PipedRegion(low=0.2, high=0.6, relief_mm=6), build=build, final=NoFinal()).tiers[0]
    (region,) = one.regions.values()
    coat, high = one.coats.crumb.side.value, region.high.value - region.low.value
    ring = 2 * (200 + 120) * 6 + PI * ((coat + 6) ** 2 - coat**2)
    assert region.volume.value == pytest.approx(ring * high / 1000, rel=0.02)


def test_two_regions_that_meet_take_what_one_over_both_takes():
    apart = piped(PipedRegion(low=0, high=0.4, relief_mm=6), PipedRegion(low=0.4, high=0.8, relief_mm=6)).tiers[0]
    whole = piped(PipedRegion(low=0, high=0.8, relief_mm=6)).tiers[0]
    assert sum(one.weight.value for one in apart.regions.values()) == pytest.approx(
        whole.regions["region_1"].weight.value
    )


def test_a_region_without_height_and_one_on_a_drum_on_its_side_are_refused_where_they_were_typed():
    with pytest.raises(ValidationError, match="2 % or more above"):
        PipedRegion(low=0.5, high=0.5)
    with pytest.raises(ValidationError, match="stands upright"):
        tier(200, build=SideBuild(cut_mm=10), regions=(PipedRegion(),))
