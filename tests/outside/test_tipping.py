"""Where a tier tips and what presses on it, against polygons and meshes worked out apart from the program."""

import math
import random

import numpy
import pytest
import trimesh
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog
from shapely import LineString, MultiPoint, Point, Polygon

from amber_spread.core.cake.loads import dowel_across, shares_of
from amber_spread.core.design.builds import DomedBuild
from amber_spread.core.design.design import Design, Layers
from amber_spread.core.design.finishes import Border, CollarCover, DeckledFinal, DrapeCover, FreehandFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import HeartShape, SquareShape
from amber_spread.core.design.stands import PillarsStand, RiserStand, StackedStand, Stacking
from amber_spread.core.plan import plan
from tests.designs import MEDIA, planned, tier

INCH = 25.4


def disc(across, off=(0.0, 0.0)):
    return Point(off).buffer(across / 2, quad_segs=512)


def joint_of(whole, name="tier_2"):
    return whole.stack.joints[name]


def codes(whole):
    return {check.code: check.severity for check in whole.checks}


# The edge a tier tips over


@pytest.mark.parametrize(
    "lower, upper, off",
    [(254, 152.4, 0), (254, 152.4, 110), (254, 152.4, -60), (152.4, 254, 0), (152.4, 203.2, 20), (305, 101.6, 125)],
)
def test_a_tier_tips_over_the_edge_where_its_board_and_the_flat_top_overlap(lower, upper, off):
    """Statics: the nearest edge of the overlap of two discs, from the balance point, by another geometry library."""
    whole = planned(tier(lower), tier(upper, stand=StackedStand(off_x_mm=off)))
    joint, top = joint_of(whole), whole.tiers[0].coats.final.diameter.value
    board = disc(whole.tiers[1].stack.board_diameter.value)
    edge = board.intersection(disc(top, (-off, 0))).exterior.distance(Point(0, 0))
    assert joint.inward.value == pytest.approx(edge, abs=0.05)
    assert joint.push.value == pytest.approx(edge / joint.middle_up.value, rel=2e-3)
    assert math.tan(math.radians(joint.edge.value)) == pytest.approx(joint.push.value, rel=2e-3)


def test_a_6_in_far_off_the_middle_of_a_10_in_tips_at_22_degrees_and_not_at_55():
    joint = joint_of(planned(tier(254), tier(152.4, stand=StackedStand(off_x_mm=110))))
    assert joint.edge.value == pytest.approx(21.9, abs=0.3) and joint.push.value == pytest.approx(0.40, abs=0.01)
    unsteady = codes(planned(tier(254), tier(152.4, stand=StackedStand(off_x_mm=118))))
    assert unsteady["stack.unsteady"] == "care"


def test_a_square_and_a_heart_tip_over_the_overlap_too():
    whole = planned(tier(254), tier(152.4, shape=SquareShape(), stand=StackedStand(off_x_mm=90, off_y_mm=30)))
    half = whole.tiers[1].stack.board_diameter.value / 2
    board = Polygon([(-half, -half), (half, -half), (half, half), (-half, half)])
    overlap = board.intersection(disc(whole.tiers[0].coats.final.diameter.value, (-90, -30)))
    assert joint_of(whole).inward.value == pytest.approx(overlap.exterior.distance(Point(0, 0)), abs=0.1)
    heart = planned(tier(254, shape=HeartShape()), tier(152.4))
    top = Polygon(heart.stack.joints["tier_2"].below)
    overlap = top.intersection(disc(heart.tiers[1].stack.board_diameter.value)).convex_hull
    assert joint_of(heart).inward.value == pytest.approx(overlap.exterior.distance(Point(0, 0)), abs=0.5)


def test_on_pillars_and_over_a_dome_the_supports_alone_bear_it_and_on_a_riser_the_riser():
    pillars = joint_of(planned(tier(254), tier(152.4, stand=PillarsStand())))
    spots = MultiPoint([(one.x, one.y) for one in pillars.supports.values()]).convex_hull
    assert pillars.inward.value == pytest.approx(spots.exterior.distance(Point(0, 0)), abs=0.05)
    domed = joint_of(planned(tier(254, build=DomedBuild(rise_mm=40)), tier(152.4)))
    spots = MultiPoint([(one.x, one.y) for one in domed.supports.values()]).convex_hull
    assert domed.inward.value == pytest.approx(spots.exterior.distance(Point(0, 0)), abs=0.05)
    riser = planned(tier(254), tier(152.4, stand=RiserStand()))
    assert joint_of(riser).inward.value == pytest.approx(0.75 * riser.tiers[1].stack.board_diameter.value / 2)


def test_supports_set_beside_the_board_bear_nothing():
    places = ((-40.0, -30.0), (-40.0, 30.0), (200.0, 0.0))
    joint = joint_of(planned(tier(254), tier(152.4, stand=StackedStand(places="free", points_mm=places))))
    assert not joint.holds and joint.supports["support_3"].carries.value == 0


@given(st.floats(76, 356), st.floats(76, 356), st.floats(-150, 150), st.floats(-150, 150))
@settings(max_examples=40, deadline=None)
def test_no_tier_tips_later_than_its_board_and_the_top_below_allow(lower, upper, x, y):
    whole = planned(tier(lower), tier(upper, stand=StackedStand(off_x_mm=x, off_y_mm=y)))
    joint, up = joint_of(whole), joint_of(whole).middle_up.value
    board = whole.tiers[1].stack.board_diameter.value / 2
    top = whole.tiers[0].coats.final.diameter.value / 2
    assert joint.push.value <= max(0.0, min(board, top - math.hypot(x, y))) / up + 1e-9
    assert whole.stack.weakest.value <= joint.push.value


# The whole cake on its board


def test_a_tall_stack_that_a_hard_stop_tips_on_its_board_says_so_and_how_wide_a_board_would_hold_it():
    tall = tier(152.4, layers=Layers(count=4, height_mm=38))
    whole = planned(tall, tall, tall)
    stack = whole.stack
    assert stack.push.value == pytest.approx(stack.base_diameter.value / 2 / stack.middle_up.value, rel=1e-3)
    assert stack.push.value < 0.5 and codes(whole)["stack.whole_tips"] == "trouble"
    wide = next(one for one in whole.checks if one.code == "stack.whole_tips").values["wide"].value
    held = plan(Design(tiers=(tall,) * 3, base_board={"diameter_mm": wide + 1}), Practice(), MEDIA)
    assert "stack.whole_tips" not in codes(held)
    still = plan(Design(tiers=(tall,) * 3, stacking=Stacking(travels=False)), Practice(), MEDIA)
    assert "stack.whole_tips" not in codes(still)


def test_the_dowel_holds_the_stack_on_its_base_board_too():
    """Moment about the foot of the bare lowest tier, all tiers above it: bending of a round bar, 15 N/mm²."""
    tall = tier(152.4, layers=Layers(count=4, height_mm=38))
    stack = planned(tall, tall, tall).stack
    base_g = math.pi / 4 * stack.base_diameter.value**2 * 12 / 1000 * 0.6
    weight = stack.weight.value - base_g
    up = (stack.weight.value * stack.middle_up.value - base_g * 6) / weight - 12
    assert stack.foot_push.value == pytest.approx((152.4 / 2 - 2) / up, rel=2e-3)
    assert stack.dowel.least_across.value == pytest.approx(dowel_across(weight, 0.5, up, 152.4 / 2 - 2), rel=5e-3)
    bare = plan(Design(tiers=(tall,) * 3, stacking=Stacking(dowel=False)), Practice(), MEDIA)
    assert codes(bare)["stack.foot_tips"] == "trouble"


# What presses on a hidden board, and on the lowest layer


def test_the_load_on_a_hidden_board_is_what_lies_above_it_slab_by_slab():
    """Closed forms of a cylinder: cake and filling by their heights, coat and cover as rings and a lid."""
    usual = Practice(glue_mm=0, joint_bead_mm=0, trimmed_skin_mm=0)
    high = Layers(count=6, height_mm=30, board_after=3)
    asked = tier(
        152.4, layers=high, final=FreehandFinal(medium="dark_ganache", side_mm=8, top_mm=8), cover=DrapeCover()
    )
    whole = plan(Design(tiers=(asked,)), usual, MEDIA)
    one, joint = whole.tiers[0], joint_of(whole, "inside_1")
    r, crumb, coat, sheet = 76.2, usual.crumb_coat_mm, 8.0, usual.fondant_mm
    bare = 6 * 30 + 4 * 6 + 3
    board = 3 * 30 + 2 * 6 + 3
    left = bare - board

    def ring(inner, thick, lid):
        return math.pi * ((inner + thick) ** 2 * (left + lid + thick) - inner**2 * (left + lid)) / 1000

    weighs = {name: MEDIA[name].density_g_per_ml for name in ("meringue_buttercream", "dark_ganache", "fondant")}
    crumb_g = ring(r, crumb, 0) * weighs[asked.crumb.medium]
    coat_g = ring(r + crumb, coat, crumb) * weighs["dark_ganache"]
    sheet_g = ring(r + crumb + coat, sheet, crumb + coat) * weighs["fondant"]
    cake_g = math.pi * r * r * (3 * 30 * 0.5 + 2 * 6 * weighs[asked.filling.medium]) / 1000
    card_g = math.pi * (r - 12.7) ** 2 * 3 / 1000 * 0.6
    assert one.layers.height.value == pytest.approx(bare)
    assert joint.load.value == pytest.approx(cake_g + crumb_g + coat_g + sheet_g + card_g, rel=0.005)
    # By volume alone it would be a twentieth less or more.
    by_volume = one.stack.weight.value * (left + crumb + coat + sheet) / (bare + crumb + coat + sheet)
    assert joint.load.value > 1.04 * by_volume


def test_the_balance_point_above_a_hidden_board_is_that_of_its_mesh():
    usual = Practice(glue_mm=0, joint_bead_mm=0, cake_density_g_per_ml=0.5, board_g_per_ml=0.1)
    asked = tier(
        203.2,
        layers=Layers(count=4, height_mm=50, board_after=2),
        crumb={"thickness_mm": 0},
        final={"kind": "none"},
        filling={"kind": "plain", "thickness_mm": 1},
    )
    joint = joint_of(plan(Design(tiers=(asked,)), usual, MEDIA), "inside_1")
    mesh = trimesh.creation.cylinder(99.6, 101)
    mesh.apply_translation((0, 0, 12 + 104 + 50.5))
    assert joint.level.value + joint.middle_up.value == pytest.approx(float(mesh.center_mass[2]), abs=0.5)


@pytest.mark.parametrize("count", [8, 10, 12])
def test_a_tall_tier_without_a_board_in_it_is_said_to_crush_itself(count):
    tall = planned(tier(152.4, layers=Layers(count=count)))
    assert "stack.crushed" in codes(tall)
    pressed = next(one for one in tall.checks if one.code == "stack.crushed").values["pressed"].value
    one = tall.tiers[0]
    # What lies on the lowest layer is most of what stands on its foot.
    whole = one.stack.weight.value / (math.pi / 4 * one.layers.cake_diameter.value**2 / 100)
    assert (count - 2) / count * whole < pressed < whole


def test_a_tier_of_6_in_stands_by_itself_and_a_tall_one_on_boards():
    assert "stack.crushed" not in codes(planned(tier(152.4, layers=Layers(count=4))))
    # Ganache and fondant on a tier of everyday height weigh more, and stand all the same.
    dense = tier(
        203.2, layers=Layers(height_mm=29, count=4), final=FreehandFinal(medium="dark_ganache"), cover=DrapeCover()
    )
    assert "stack.crushed" not in codes(planned(dense, practice=Practice.in_inches()))
    assert "stack.crushed" not in codes(planned(tier(152.4, layers=Layers(count=7, board_after=3))))
    assert "stack.crushed" in codes(planned(tier(152.4, layers=Layers(count=10, board_after=2))))


# Shares of a load


@pytest.mark.parametrize("turn", [20, 45, 110, 160])
@pytest.mark.parametrize("places", [(-80, 10, 90), (-80, -30, 20, 70), (-60, -20, 5, 40, 100)])
def test_supports_in_a_slanted_line_share_as_a_beam_on_springs_does(turn, places):
    """Lever law along the line: forces linear in the place, N / n + e N (s - s0) / sum (s - s0)²."""
    across, up = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    middle, at = sum(places) / len(places), sum(places) / len(places) + 9.0
    spread = sum((one - middle) ** 2 for one in places)
    wanted = [1000 / len(places) + 1000 * (at - middle) * (one - middle) / spread for one in places]
    found = shares_of([(one * across + 7, one * up - 4) for one in places], 1000, (at * across + 7, at * up - 4))
    assert found == pytest.approx(wanted, abs=1e-6)
    assert (
        shares_of([(one * across, one * up) for one in places], 1000, (at * across - 5 * up, at * up + 5 * across))
        is None
    )


def test_pushes_hold_a_load_whenever_it_lies_within_the_supports():
    """A linear programme says whether pushes can balance it; a second check says no sharing has less energy."""
    picked, tried = random.Random(7), 0
    for _ in range(2500):
        points = [(picked.uniform(-100, 100), picked.uniform(-100, 100)) for _ in range(picked.randint(3, 9))]
        at = (picked.uniform(-90, 90), picked.uniform(-90, 90))
        away = MultiPoint(points).convex_hull
        if isinstance(away, LineString) or abs(away.exterior.distance(Point(at))) < 0.5:
            continue
        rows = numpy.array([[1.0, x, y] for x, y in points]).T
        load = 1000 * numpy.array([1.0, *at])
        can = linprog(numpy.zeros(len(points)), A_eq=rows, b_eq=load, method="highs").status == 0
        found = shares_of(points, 1000, at)
        assert (found is not None) == can == away.contains(Point(at))
        if found is not None:
            tried += 1
            assert min(found) >= 0 and rows @ found == pytest.approx(load, abs=1e-2)
            # Where forces are least, those that press lie on one plane, and no other lies above it.
            pressed = [index for index, force in enumerate(found) if force > 1e-6]
            plane = numpy.linalg.lstsq(rows.T[pressed], numpy.array(found)[pressed], rcond=None)[0]
            assert rows.T[pressed] @ plane == pytest.approx(numpy.array(found)[pressed], abs=1e-2)
            if len(pressed) >= 3:
                assert max(rows.T @ plane - found) < 1e-2
    assert tried > 500


# Which supports, and what they stand on


def test_many_weak_supports_are_answered_with_fewer_strong_ones():
    heavy = planned(tier(254), tier(203.2, layers=Layers(count=12, height_mm=50), stand=StackedStand(sort="straw")))
    joint = joint_of(heavy)
    assert joint.load.value > 9000 and joint.count.value > 12
    assert joint.stronger is not None and joint.stronger.count <= 8
    assert codes(heavy)["stack.stronger"] == "trouble"
    asked = StackedStand(sort=joint.stronger.sort)
    better = joint_of(planned(tier(254), tier(203.2, layers=Layers(count=12, height_mm=50), stand=asked)))
    assert better.stronger is None and better.count.value == joint.stronger.count and better.spare.value >= 2.9


@pytest.mark.parametrize(
    "finish, said",
    [
        ({"final": DeckledFinal()}, True),
        ({"borders": (Border(at="top", bead_mm=20),)}, True),
        ({"cover": CollarCover()}, True),
        ({"borders": (Border(at="foot", bead_mm=20),)}, False),
    ],
)
def test_a_tier_set_down_on_a_rim_or_a_border_is_said(finish, said):
    alike = planned(
        tier(203.2, **finish), tier(203.2, **{name: one for name, one in finish.items() if name != "borders"})
    )
    assert ("stack.on_a_rim" in codes(alike)) == said
    narrow = planned(tier(254, **finish), tier(152.4))
    assert "stack.on_a_rim" not in codes(narrow)
    off = planned(tier(254, **finish), tier(152.4, stand=StackedStand(off_x_mm=54)))
    assert ("stack.on_a_rim" in codes(off)) == said


@given(st.floats(102, 300), st.floats(102, 300), st.floats(5, 30), st.floats(0, 60))
@settings(max_examples=30, deadline=None)
def test_a_border_is_met_exactly_where_the_next_tier_reaches_it(lower, upper, bead, off):
    whole = planned(
        tier(lower, borders=(Border(at="top", bead_mm=bead),)), tier(upper, stand=StackedStand(off_x_mm=off))
    )
    top, foot = (one.coats.final.diameter.value / 2 for one in whole.tiers)
    over = foot + off - max(0.0, top - bead)
    assume(abs(over - 1) > 0.2)
    assert ("stack.on_a_rim" in codes(whole)) == (over > 1)


def test_a_straw_and_a_hole_are_one_length_on_screen_and_card():
    whole = planned(tier(254), tier(203.2), tier(152.4))
    joint, said = joint_of(whole), [one for one in whole.stack.tasks]
    lengths = {
        round(one.value, 6)
        for cut in whole.stack.cutting.values()
        for rod in cut.cuts.values()
        for one in rod.lengths.values()
    }
    assert lengths == {round(one.length.value, 2) for one in whole.stack.joints.values()}
    hole = next(one.values["hole"] for one in said if "hole" in one.values)
    assert (hole.value, hole.rounding) == (whole.stack.dowel.hole.value, whole.stack.dowel.hole.rounding)
    length = next(one.values["length"] for one in said if "pull it out and cut" in one.text)
    assert (length.value, length.rounding) == (joint.length.value, joint.length.rounding)
    assert {
        one.rounding
        for cut in whole.stack.cutting.values()
        for rod in cut.cuts.values()
        for one in rod.lengths.values()
    } == {joint.length.rounding}
