"""What is cut out of a carved tier and filled up, against closed forms and a general geometry library."""

import math
from itertools import pairwise

import manifold3d
import pytest
from shapely import Polygon

from amber_spread.core.design.builds import JoinedBuild, Opening
from amber_spread.core.design.design import Cavity, Layers
from amber_spread.core.design.finishes import SoftFilling
from amber_spread.core.design.solids import BallSolid, BoxSolid, ConeSolid
from amber_spread.core.tier import in_the_round, levels_of
from tests.designs import MEDIA, alike, planned, tier, worked

PI = math.pi
DRUM = ConeSolid(across_mm=200, top_mm=200, high_mm=100)
BLOCK = BoxSolid(wide_mm=200, deep_mm=120, high_mm=100)
CREAM = "american_buttercream"


def opened(*solids, body=BLOCK, layers=None, **parts):
    openings = tuple(Opening(solid=solid) for solid in solids)
    build = JoinedBuild(solids=(body,), openings=openings)
    return tier(200, build=build, layers=layers or Layers(count=3), **parts)


def openings_of(one):
    return list(planned(one).tiers[0].carving.openings.values())


def test_a_corner_cut_out_of_a_block_is_as_large_as_it_is_and_comes_out_of_layers_and_fillings_by_their_height():
    """A box of 60 x 50 x 100 right through a corner: 300 ml, cake and filling as they lie there."""
    one = opened(BoxSolid(wide_mm=120, deep_mm=100, high_mm=100, x_mm=100, y_mm=-60))
    (opening,) = openings_of(one)
    layers = planned(one).tiers[0].layers
    assert opening.volume.value == pytest.approx(60 * 50 * 100 / 1000, rel=1e-3)
    share = 3 * layers.cut_height.value / 100
    assert opening.cake.value == pytest.approx(300 * share * 0.5, rel=0.01)
    assert opening.filling.value == pytest.approx(
        300 * (1 - share) * MEDIA[one.filling.medium].density_g_per_ml, rel=0.01
    )
    assert opening.weight.value == pytest.approx(300 * MEDIA[CREAM].density_g_per_ml, rel=1e-3)
    assert opening.open
    # Seen from the side and from above it is what lies within the cake.
    for rings, size in ((opening.side, (60, 100)), (opening.above, (60, 50))):
        across = [max(axis) - min(axis) for axis in zip(*rings[0], strict=True)]
        assert across == pytest.approx(size, abs=0.3)


@pytest.mark.parametrize("off", [0.0, 40.0, 90.0])
def test_a_bite_by_a_ball_is_the_lens_that_a_library_makes_of_it(off):
    solid = BallSolid(across_mm=90, x_mm=off, z_mm=30)
    (opening,) = openings_of(opened(solid, body=DRUM))
    drum = manifold3d.Manifold.cylinder(100, 100, 100, 256)
    ball = manifold3d.Manifold.sphere(45, 256).translate([off, 0, 75])
    assert opening.volume.value == pytest.approx((drum ^ ball).volume() / 1000, rel=0.01)


def test_a_ball_within_the_cake_opens_nowhere_and_one_through_its_top_does():
    inner, outer = openings_of(opened(BallSolid(across_mm=60, z_mm=20), BallSolid(across_mm=40, x_mm=60, z_mm=80)))
    assert not inner.open and outer.open
    assert inner.volume.value == pytest.approx(PI / 6 * 60**3 / 1000, rel=0.01)
    # Half of a ball of 40 that stands half out of the top.
    assert outer.volume.value == pytest.approx(PI / 12 * 40**3 / 1000, rel=0.02)
    steps = " ".join(said.text for said in planned(opened(BallSolid(across_mm=60, z_mm=20))).tiers[0].carving.tasks)
    assert "Opening 1 opens nowhere" in steps


def test_a_soft_medium_in_an_opening_that_is_open_runs():
    for z_mm, runs in ((80, True), (20, False)):
        ball = Opening(solid=BallSolid(across_mm=50, z_mm=z_mm), medium="lemon_curd")
        whole = planned(tier(200, build=JoinedBuild(solids=(BLOCK,), openings=(ball,)), layers=Layers(count=3)))
        assert ("carve.opening_runs" in [check.code for check in whole.checks]) == runs


def test_a_room_left_empty_takes_nothing_and_leaves_the_wall_that_geometry_does():
    """A ball of 60 whose middle is 35 above the foot of a block 120 deep and 100 high: 30 to the front and back, and
    nothing is said of the 5 below it, which stand on a board."""
    ball = BallSolid(across_mm=60, z_mm=5)
    plans = {}
    for medium in (None, CREAM):
        build = JoinedBuild(solids=(BLOCK,), openings=(Opening(solid=ball, medium=medium),))
        plans[medium] = planned(tier(200, build=build, layers=Layers(count=3)))
    (empty,), (filled,) = (list(plan.tiers[0].carving.openings.values()) for plan in plans.values())
    assert empty.weight is None and empty.volume == filled.volume and empty.cake == filled.cake
    assert empty.wall.value == filled.wall.value == pytest.approx(30, abs=1.0)
    lighter = [plan.tiers[0].stack.weight.value for plan in plans.values()]
    assert lighter[1] - lighter[0] == pytest.approx(filled.weight.value)
    assert "tier_1_refill" not in {step for bowl in plans[None].bowls.values() for step in bowl.steps}
    # Nothing is drawn where nothing is, and what may be hidden there is warned of.
    for plan, shown in ((plans[None], 0), (plans[CREAM], 1)):
        assert sum(part.kind == "refill" for part in plan.section.parts) == shown
        assert ("caution.small_sweets" in [check.code for check in plan.checks]) == (not shown)


@pytest.mark.parametrize(("z_mm", "code"), [(38, "carve.opening_thin"), (70, "carve.opening_empty")])
def test_a_room_left_empty_with_a_thin_wall_or_open_to_the_outside_is_said(z_mm, code):
    room = Opening(solid=BallSolid(across_mm=50, z_mm=z_mm), medium=None)
    whole = planned(tier(200, build=JoinedBuild(solids=(BLOCK,), openings=(room,)), layers=Layers(count=3)))
    assert code in [check.code for check in whole.checks]


def test_a_later_opening_takes_nothing_that_an_earlier_one_or_a_hidden_room_took():
    ball = BallSolid(across_mm=80, z_mm=10)
    first, second = openings_of(opened(ball, ball))
    assert first.volume.value == pytest.approx(PI / 6 * 80**3 / 1000, rel=0.01)
    assert second.volume.value == 0
    assert second.side == first.side
    codes = [check.code for check in planned(opened(ball, ball)).checks]
    assert codes.count("carve.opening_misses") == 1
    column = BoxSolid(wide_mm=90, deep_mm=90, high_mm=100)
    room = Layers(count=4, cavity=Cavity(diameter_mm=50))
    (alone,), (beside,) = (openings_of(opened(column, layers=layers)) for layers in (Layers(count=4), room))
    hidden = planned(opened(column, layers=room)).tiers[0].layers.cavity
    assert alone.volume.value - beside.volume.value == pytest.approx(hidden.volume.value, rel=0.01)


def test_what_fills_an_opening_is_in_its_bowl_and_the_tier_weighs_what_is_left_and_what_is_put_in():
    bite = BoxSolid(wide_mm=120, deep_mm=100, high_mm=100, x_mm=100, y_mm=-60)
    whole, bitten = planned(opened()), planned(opened(bite))
    (opening,) = bitten.tiers[0].carving.openings.values()
    out = opening.cake.value + opening.filling.value
    assert bitten.stack.weight.value == pytest.approx(whole.stack.weight.value - out + opening.weight.value)
    used = bitten.bowls[CREAM].steps["tier_1_refill"]
    assert used.stays.value == pytest.approx(opening.weight.value)
    assert bitten.bowls[CREAM].need.value > opening.weight.value
    # Layers, fillings and coats are made as if there were none.
    for room in ("layers", "coats"):
        assert alike(getattr(bitten.tiers[0], room), getattr(whole.tiers[0], room))


def test_openings_filled_alike_come_out_of_one_bowl_together():
    first, second = BallSolid(across_mm=60, x_mm=-60, z_mm=20), BallSolid(across_mm=40, x_mm=60, z_mm=80)
    plan = planned(opened(first, second))
    openings = plan.tiers[0].carving.openings.values()
    used = plan.bowls[CREAM].steps["tier_1_refill"]
    assert used.stays.value == pytest.approx(sum(one.weight.value for one in openings))


def test_in_the_round_layers_and_what_is_filled_in_make_up_the_body():
    one = opened(BallSolid(across_mm=90, x_mm=80, z_mm=20), filling=SoftFilling())
    parts = in_the_round(worked(one), cut_open=False).parts
    filled = [part for part in parts if part.matter == "refill"]
    assert [part.paint for part in filled] == [MEDIA[CREAM].hex]
    drawn = [part for part in worked(one).drawn.parts if part.kind == "refill"]
    assert len(drawn) == 1 and drawn[0].place == "tiers.1.carving.openings.opening_1"


def test_a_solid_that_cannot_be_made_is_told_by_its_number():
    from amber_spread.core.design.solids import RingSolid

    with pytest.raises(ValueError, match="opening 2"):
        planned(opened(BallSolid(), RingSolid(across_mm=60, thick_mm=50)))


def test_an_opening_stands_on_the_template_of_each_layer_as_wide_as_a_ball_is_at_its_faces():
    """A ball of 60, its middle 40 above the foot: a chord of it at every face, by geometry; and at every level."""
    one = opened(BallSolid(across_mm=60, z_mm=10), layers=Layers(count=4))
    for each in planned(one).tiers[0].carving.slices.values():
        names = {mark.name for piece in each.pieces.values() for mark in piece.marks}
        for face, up, rings in (("lower", each.low.value, "bottom"), ("upper", each.high.value, "top")):
            half = math.sqrt(max(0.0, 30**2 - (up - 40) ** 2))
            drawn = [area for cut in each.cut_out.values() for area in map(Polygon, getattr(cut, rings))]
            assert sum(area.area for area in drawn) == pytest.approx(PI * half**2, rel=0.02, abs=1)
            assert (f"opening 1, {face} face" in names) == (half > 0)
    levels = levels_of(worked(one))
    cut_ml = sum(Polygon(level.cut_out["opening_1"][0]).area for level in levels if level.cut_out) * 2 / 1000
    assert cut_ml == pytest.approx(PI / 6 * 60**3 / 1000, rel=0.02)


def test_a_later_opening_is_drawn_in_a_layer_without_what_an_earlier_one_took():
    ball = BallSolid(across_mm=80, z_mm=10)
    slices = planned(opened(ball, ball, BoxSolid(wide_mm=30, deep_mm=30, high_mm=100, x_mm=60))).tiers[0].carving.slices
    assert any(each.cut_out for each in slices.values())
    for each in slices.values():
        areas = [Polygon(cut.whole[0]) for cut in each.cut_out.values()]
        assert "opening_2" not in each.cut_out
        assert sum(one.intersection(two).area for one, two in pairwise(areas)) < 1
