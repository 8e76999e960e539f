"""How a cake stands, against solvers, meshes and search that know nothing of it, and against common practice."""

import itertools
import math

import numpy
import pytest
import trimesh
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import minimize, nnls
from scipy.spatial import ConvexHull
from shapely import Point, Polygon

from amber_spread.core.cake.counts import supports_by_inches, supports_in_band
from amber_spread.core.cake.cutting import fewest_cuts
from amber_spread.core.cake.loads import dowel_across, shares_of, tip_angle
from amber_spread.core.design.builds import SideBuild, TaperedBuild
from amber_spread.core.design.design import Design, Layers
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.stands import StackedStand
from amber_spread.core.geometry.bodies.body import Carried, Sideways, Straight
from amber_spread.core.geometry.bodies.profile import Line
from amber_spread.core.geometry.flat.outline import Cornered, Round
from amber_spread.core.geometry.flat.places import (
    Hole,
    SupportArea,
    Within,
    hull_distance,
    hull_of,
    hull_width,
    place_supports,
)
from amber_spread.core.plan import plan
from amber_spread.core.tier.mass import middle_height
from tests.designs import MEDIA, tier

INCH = 25.4
spots = st.tuples(st.floats(-150, 150), st.floats(-150, 150))


def rows_of(points):
    return numpy.array([[1.0, x, y] for x, y in points]).T


@given(st.lists(spots, min_size=3, max_size=3, unique=True), st.floats(0.05, 0.9), st.floats(0.05, 0.9))
def test_three_supports_carry_what_statics_says_alone(points, u, v):
    """Three unknown forces, three equations of balance: one solution, by a linear solver."""
    assume(hull_width(hull_of(points)) > 5 and u + v < 0.95)
    x, y = (u * a + v * b + (1 - u - v) * c for a, b, c in zip(*points, strict=True))
    wanted = numpy.linalg.solve(rows_of(points), 1000 * numpy.array([1, x, y]))
    assert shares_of(points, 1000, (x, y)) == pytest.approx(list(wanted), abs=1e-3)


@settings(max_examples=40, deadline=None)
@given(st.lists(spots, min_size=4, max_size=9, unique=True), st.tuples(st.floats(-60, 60), st.floats(-60, 60)))
def test_more_supports_share_by_stiffness_as_least_energy_has_it(points, at):
    """Springs that only push share a load so that the energy in them, the sum of F², is least: by a general solver."""
    hull = Polygon([(x, y) for x, y in points]).convex_hull
    assume(hull.area > 500 and hull.buffer(-3).covers(Point(at)))
    found = shares_of(points, 1000, at)
    assert found is not None
    rows, load = rows_of(points), 1000 * numpy.array([1, *at])
    assert rows @ found == pytest.approx(load, rel=1e-6, abs=1e-3)
    scale = numpy.diag([1, 0.01, 0.01])
    best = minimize(
        lambda force: float(force @ force) / 1e6, nnls(scale @ rows, scale @ load)[0], jac=lambda force: 2 * force / 1e6,
        bounds=[(0, None)] * len(points), method="SLSQP", options={"maxiter": 500, "ftol": 1e-14},
        constraints={"type": "eq", "fun": lambda force: scale @ (rows @ force - load) / 1000, "jac": lambda _: scale @ rows / 1000},
    )  # fmt: skip
    assert sum(one**2 for one in found) <= float(best.x @ best.x) * (1 + 1e-3)


def test_a_ring_under_the_middle_shares_alike_and_off_it_the_near_ones_carry_more():
    ring = [(60 * math.cos(turn), 60 * math.sin(turn)) for turn in numpy.arange(6) * math.pi / 3]
    assert shares_of(ring, 600, (0, 0)) == pytest.approx([100] * 6)
    off = shares_of(ring, 600, (20, 0))
    assert off[0] > 100 > off[3] and sum(off) == pytest.approx(600)
    assert shares_of(ring, 600, (70, 0)) is None


@given(st.lists(spots, min_size=3, max_size=12, unique=True), spots)
def test_hulls_edges_and_widths_are_those_of_another_geometry_library(points, at):
    """Half-planes of a hull by Qhull: a place inside lies so far from the edge as from the nearest of them."""
    own = hull_of(points)
    assume(isinstance(own, Polygon) and own.area > 50 and hull_width(own) > 1)
    hull = ConvexHull(numpy.array(points))
    assert own.area == pytest.approx(hull.volume, rel=1e-6)
    within = -float((hull.equations @ [*at, 1.0]).max())
    corners = hull.points[[*hull.vertices, hull.vertices[0]]]
    if within >= 0:
        assert hull_distance(own, at) == pytest.approx(within, abs=1e-6)
    else:
        steps = numpy.linspace(0, 1, 2001)[:, None, None]
        edge = corners[:-1] * (1 - steps) + corners[1:] * steps
        assert hull_distance(own, at) == pytest.approx(-float(numpy.hypot(*(edge - at).T).min()), abs=0.2)
    turns = numpy.linspace(0, math.pi, 3601)
    wide = corners @ numpy.array([numpy.cos(turns), numpy.sin(turns)])
    assert hull_width(own) == pytest.approx(float((wide.max(axis=0) - wide.min(axis=0)).min()), rel=2e-3, abs=0.2)


# The middle of a weight and the angle it tips at: closed forms, and a mesh's centre of mass.


def test_a_cylinder_tips_where_its_middle_passes_its_edge():
    """Closed form: tan = radius / (height / 2)."""
    assert middle_height(Straight(Round(100), 120)) == 60
    assert tip_angle(100, 60) == pytest.approx(math.degrees(math.atan2(100, 60)))


def test_a_tapered_bodys_middle_is_that_of_a_frustum_and_of_its_mesh():
    """Closed form: h / 4 (R² + 2 R r + 3 r²) / (R² + R r + r²)."""
    big, small, high = 100.0, 60.0, 120.0
    body = Carried(Round(big), (Line(0.0, 0.0, small - big, high, "wall"), Line(small - big, high, -big, high, "top")))
    closed = high / 4 * (big**2 + 2 * big * small + 3 * small**2) / (big**2 + big * small + small**2)
    assert middle_height(body) == pytest.approx(closed, rel=1e-3)
    turns = numpy.linspace(0, 2 * math.pi, 257)[:-1]
    points = [(r * math.cos(turn), r * math.sin(turn), z) for r, z in ((big, 0), (small, high)) for turn in turns]
    assert middle_height(body) == pytest.approx(float(trimesh.convex.convex_hull(points).center_mass[2]), rel=1e-3)


@pytest.mark.parametrize("cut", [1, 15, 40, 70])
def test_a_drum_on_its_foot_has_the_middle_of_its_mesh(cut):
    drum = Sideways(90, 100, 90 - cut)
    seen = Point(0, drum.centre_mm).buffer(90, quad_segs=256) & Polygon([(-200, 0), (200, 0), (200, 400), (-200, 400)])
    mesh = trimesh.creation.extrude_polygon(seen, 100)
    assert middle_height(drum) == pytest.approx(float(mesh.center_mass[1]), abs=0.05)


def test_a_stack_of_two_tips_as_its_mesh_does():
    """Two tiers alike through and through: cakes without coats to speak of, as one mesh of two boxes."""
    bare = {"final": {"kind": "none"}, "crumb": {"thickness_mm": 0}}
    usual = Practice(
        tier_board_mm=1, glue_mm=0, joint_bead_mm=0, board_g_per_ml=0.1, cake_density_g_per_ml=0.5, trimmed_skin_mm=0
    )
    asked = [tier(203, layers=Layers(count=1, height_mm=100), shape={"kind": "square"}, **bare),
             tier(152, layers=Layers(count=1, height_mm=100), shape={"kind": "square"}, stand=StackedStand(off_x_mm=20), **bare)]  # fmt: skip
    found = plan(Design(tiers=tuple(asked), base_board={"thickness_mm": 1}), usual, MEDIA)
    boxes = [trimesh.creation.box((203, 203, 100)), trimesh.creation.box((152, 152, 100))]
    boxes[0].apply_translation((0, 0, 51))
    boxes[1].apply_translation((20, 0, 152))
    mass = trimesh.util.concatenate(boxes).center_mass
    assert found.stack.middle_up.value == pytest.approx(float(mass[2]), rel=0.01)
    edge = found.stack.base_diameter.value / 2 - float(mass[0])
    assert found.stack.tips.value == pytest.approx(math.degrees(math.atan2(edge, float(mass[2]))), abs=0.4)
    joint = found.stack.joints["tier_2"]
    assert joint.push.value == pytest.approx(76 / 51, rel=0.01)


def test_a_tapered_and_a_drum_tier_stand_lower_than_half_their_height():
    for build in (TaperedBuild(narrow_mm=120), SideBuild(cut_mm=40)):
        found = plan(Design(tiers=(tier(254), tier(178, build=build))), Practice(), MEDIA)
        joint = found.stack.joints["tier_2"]
        assert joint.middle_up.value < found.tiers[1].stack.height.value * (0.5 if build.kind == "tapered" else 0.6) + 3


# Cutting stock against every way there is to cut.


def fewest_by_search(lengths, stock, kerf):
    """Every way to sort the lengths into rods, by branch and bound."""
    best = [len(lengths)]

    def place(index, rods):
        if len(rods) >= best[0]:
            return
        if index == len(lengths):
            best[0] = len(rods)
            return
        for at, room in enumerate(rods):
            if room + 1e-9 >= lengths[index] and room not in rods[:at]:
                place(index + 1, [*rods[:at], room - lengths[index] - kerf, *rods[at + 1 :]])
        place(index + 1, [*rods, stock - lengths[index] - kerf])

    place(0, [])
    return best[0]


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(20, 260), min_size=1, max_size=9), st.sampled_from([0.0, 1.0, 3.0]))
def test_the_cutting_list_takes_as_few_rods_as_any_way_to_cut(lengths, kerf):
    ordered = tuple(sorted(map(float, lengths), reverse=True))
    found = fewest_cuts(ordered, 300.0, kerf)
    assert sorted(itertools.chain(*found)) == sorted(ordered)
    assert len(found) == fewest_by_search(ordered, 300.0, kerf)


def test_where_the_longest_first_wastes_a_rod_the_programme_finds_the_better_way():
    lengths = (140.0, 140.0, 100.0, 100.0, 100.0, 60.0, 60.0, 160.0, 40.0)
    assert len(fewest_cuts(lengths, 300.0, 0.0)) == fewest_by_search(sorted(lengths, reverse=True), 300.0, 0.0) == 3


# Places against brute force.


@pytest.mark.parametrize("edge", [Round(60), Cornered(150, 150), Cornered(120, 220)])
@pytest.mark.parametrize("count", [3, 5, 6])
def test_no_ring_farther_inside_would_keep_them_apart(edge, count):
    """Every inset by tenths of a millimetre, the same places taken evenly along the edge."""
    ground = SupportArea((Within("board", edge),), (Hole("dowel", (0, 0), 5),), 6.0, 3.0)
    found = place_supports(ground, count, 50.8, 50.8)
    assert found.apart_mm >= 50.8 - 0.05 or found.inset_mm == pytest.approx(9, abs=0.1)
    outline = Point(0, 0).buffer(60, quad_segs=200) if isinstance(edge, Round) else Polygon(edge.points)
    deepest = 0.0
    for inset in numpy.arange(9, 50.9, 0.1):
        line = outline.buffer(-float(inset), join_style="mitre").exterior
        if line.is_empty:
            break
        for turn in range(8):
            points = [line.interpolate((index + turn / 8) / count % 1, normalized=True) for index in range(count)]
            nearest = min(a.distance(b) for a, b in itertools.combinations(points, 2))
            if nearest >= 50.8 and all(math.hypot(one.x, one.y) >= 14 for one in points):
                deepest = float(inset)
    if deepest:
        assert found.inset_mm >= deepest - 1.0


def test_three_under_a_four_inch_tier_two_inches_apart_lie_less_than_an_inch_inside():
    """Worked by hand: a triangle of 2 in sides lies on a circle of 2 / sqrt 3 = 1.155 in; 2 - 1.155 = 0.845 in."""
    ground = SupportArea((Within("board", Round(2 * INCH)),), (), 6.0, 3.0)
    found = place_supports(ground, 3, 2 * INCH, 2 * INCH)
    assert found.inset_mm / INCH == pytest.approx(2 - 2 / math.sqrt(3), abs=1e-3)


# Common practice.


def test_a_six_inch_tier_on_an_eight_takes_five_and_a_four_inch_tier_three():
    """Common practice: one fewer than the inches; three under a 4 in tier."""
    found = plan(Design(tiers=(tier(8 * INCH), tier(6 * INCH))), Practice(), MEDIA).stack.joints["tier_2"]
    assert found.schools["inches"].value == found.count.value == 5
    small = plan(Design(tiers=(tier(6 * INCH), tier(4 * INCH))), Practice(), MEDIA).stack.joints["tier_2"]
    assert small.schools["band"].value == small.count.value == 3
    assert (supports_by_inches(6 * INCH), supports_in_band(4 * INCH)) == (5, 3)
    assert [supports_in_band(inches * INCH) for inches in (5, 6, 8, 10, 14)] == [4, 4, 5, 6, 6]


def test_a_double_height_seven_inch_tier_has_a_six_inch_board_on_four_pieces_from_two_straws():
    """Common practice: two straws cut in half make the four pieces."""
    double = tier(7 * INCH, layers=Layers(count=6, height_mm=30, board_after=3))
    found = plan(Design(tiers=(double,)), Practice(), MEDIA)
    assert found.tiers[0].layers.board.diameter.value / INCH == pytest.approx(6, abs=0.2)
    assert len(found.stack.joints["inside_1"].supports) == 4
    assert found.stack.cutting["wide_straw"].rods.value == 2


@pytest.mark.parametrize("inches, wanted", [(6, 12), (8, 24), (10, 38), (12, 56)])
def test_portions_are_those_of_the_usual_charts(inches, wanted):
    """Charts of 1 by 2 in portions of round tiers 4 in high, from memory; within a tenth."""
    found = plan(Design(tiers=(tier(inches * INCH),)), Practice(), MEDIA).tiers[0].stack.portions.value
    assert found == pytest.approx(wanted, rel=0.1)


def test_a_dowel_bears_what_a_round_bar_does():
    """Bending of a round bar, by the integral of its section: sigma = M r / I, I = pi r⁴ / 4."""
    across = dowel_across(6000, 0.5, 200, 70)
    moment = 6.0 * 9.81 * (0.5 * 200 - 70)
    radius = across / 2
    assert moment * radius / (math.pi * radius**4 / 4) == pytest.approx(15.0)
    assert dowel_across(6000, 0.3, 200, 70) == 0.0
