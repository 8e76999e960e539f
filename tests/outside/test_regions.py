"""Piping over a part of a tier against closed forms: rings, caps and zones."""

import math

import pytest
from pydantic import ValidationError
from shapely import Polygon, unary_union

from amber_spread.core.design.builds import BallBuild, JoinedBuild, SideBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import NoFinal, PipedRegion
from amber_spread.core.design.shapes import HeartShape, RoundShape, SquareShape
from amber_spread.core.design.solids import BallSolid, BoxSolid
from amber_spread.core.geometry.bodies.surface import surface_of
from tests.designs import MEDIA, planned, tier, worked

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


ARCH = JoinedBuild(
    solids=(BoxSolid(wide_mm=220, deep_mm=120, high_mm=100), BallSolid(across_mm=110, x_mm=50, y_mm=20, z_mm=60))
)


def sided(round_deg, turn_deg, **parts):
    asked = PipedRegion(low=0.2, high=1.0, relief_mm=6, round_deg=round_deg, turn_deg=turn_deg)
    return piped(asked, **parts).tiers[0].regions["region_1"]


@pytest.mark.parametrize(
    ("shape", "share"), [(RoundShape(), 2 / 9), (SquareShape(), 1 / 8 + math.tan(math.radians(35)) / 8)]
)
def test_on_a_side_it_is_as_much_of_the_whole_as_the_turn_is(shape, share):
    """Of a ring by its angle; of what lies round a square and on it by that of the square (geometry: the triangle from
    the middle to the edge)."""
    part, whole = sided(80, 5, shape=shape), sided(360, 0, shape=shape)
    assert part.share.value == pytest.approx(share, rel=1e-3)
    assert part.volume.value == pytest.approx(share * whole.volume.value, rel=1e-3)
    assert part.weight.value == pytest.approx(share * whole.weight.value, rel=1e-3)


@pytest.mark.parametrize(
    "parts",
    [{"shape": HeartShape()}, {"build": BallBuild(foot_mm=0)}, {"build": ARCH}],
    ids=["heart", "ball", "joined"],
)
def test_its_sides_come_to_the_whole(parts):
    turns = [(100, 50), (60, 130), (200, -100)]
    sides = [sided(*turn, **parts) for turn in turns]
    assert sum(side.volume.value for side in sides) == pytest.approx(sided(360, 0, **parts).volume.value, rel=1e-6)


@pytest.mark.parametrize(("round_deg", "turn_deg"), [(90, 0), (150, 70), (240, -120)])
def test_on_a_side_of_a_carved_body_it_is_what_a_library_cuts_out(round_deg, turn_deg):
    """The solid between both surfaces, cut by two upright planes through the axis (manifold3d)."""
    asked = PipedRegion(low=0.0, high=1.0, relief_mm=6, round_deg=round_deg, turn_deg=turn_deg)
    done = worked(tier(200, build=ARCH, regions=(asked,), layers=Layers(count=3, height_mm=25)))
    covered = done.bodies.covered
    ring = surface_of(covered.envelope(6, 6)) - surface_of(covered)
    turn, half = math.radians(turn_deg - 90), math.radians(round_deg / 2)
    planes = [(-math.sin(turn - half), math.cos(turn - half), 0), (math.sin(turn + half), -math.cos(turn + half), 0)]
    if round_deg <= 180:
        within = ring.trim_by_plane(planes[0], 0).trim_by_plane(planes[1], 0).volume()
    else:
        away = ring.trim_by_plane([-at for at in planes[0]], 0).trim_by_plane([-at for at in planes[1]], 0)
        within = ring.volume() - away.volume()
    assert done.regions["region_1"].share.value == pytest.approx(within / ring.volume(), rel=0.02)


def outlines(plan):
    (over,) = plan.section.tiers[0].piped
    return [unary_union([Polygon(ring) for ring in side]) for side in (over.left, over.right)]


def test_it_is_seen_from_the_front_where_it_is_on_the_front_and_cut_through_where_the_cut_is():
    """Of a drum the front third is seen as wide as its chord; on the right it is cut where the right lies in it."""
    front, right, back = (
        piped(PipedRegion(high=0.5, relief_mm=6, round_deg=120, turn_deg=turn)) for turn in (0, 90, 180)
    )
    radius = front.tiers[0].coats.final.diameter.value / 2 + 6
    left_half, right_half = outlines(front)
    assert left_half.bounds[2] == right_half.bounds[2] == pytest.approx(radius * math.sin(math.radians(60)), rel=1e-3)
    assert [half.area > 0 for half in outlines(right)] == [False, True]
    assert outlines(right)[1].bounds[0] == pytest.approx(radius * math.sin(math.radians(30)), rel=1e-3)
    assert not any(half.area for half in outlines(back))
    cut = [sum(part.kind == "region" for part in plan.section.parts) for plan in (front, right, back)]
    assert cut == [0, 1, 0]
    # From one side over the back to the other, it is seen at both edges and not in the middle.
    round_the_back = piped(PipedRegion(high=0.5, relief_mm=6, round_deg=270, turn_deg=180))
    for half in outlines(round_the_back):
        assert half.bounds[0] == pytest.approx(radius * math.sin(math.radians(45)), rel=1e-3)
        assert half.bounds[2] == pytest.approx(radius, rel=1e-3)


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
