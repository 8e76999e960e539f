"""Bodies against handbook formulas, and against solids of an independent kernel (trimesh and manifold3d, shapely).

Handbook: I. N. Bronshtein, K. A. Semendyayev, Handbook of Mathematics, chapter on elementary geometry (solids);
formulas from memory, numbers worked out here.
"""

import math

import numpy
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon, box

from amber_spread.core.design.shapes import HeartShape, OvalShape, PetalShape, PolygonShape, SquareShape
from amber_spread.core.geometry.bodies import profile
from amber_spread.core.geometry.bodies.body import Carried, Sideways, Straight
from amber_spread.core.geometry.flat.outline import Cornered, Regular, Round
from amber_spread.core.geometry.flat.traced import free

SIDES = 720
FLAT = math.sin(2 * math.pi / SIDES) / (2 * math.pi / SIDES)
BUILT = {
    "tapered": profile.tapered(100, 120, 0, 25),
    "upside down": profile.tapered(100, 120, 30, 0),
    "bevelled": profile.bevelled(100, 120, 20, 15),
    "domed": profile.domed(100, 120, 40),
    "ball": profile.ball(80, 2, 50),
    "half ball": profile.ball(80, 1, 0),
    "turned": profile.turned(100, 120, ((0, 1), (0.4, 0.6), (0.8, 0.9), (1, 0.7))),
}
HALF = {"ball": 80, "half ball": 80}


def built(name):
    return Carried(Round(HALF.get(name, 100)), BUILT[name])


def turned_solid(body):
    """The drawn half profile turned about its axis by the kernel."""
    points = body.half_profile()
    line = [(0.0, points[0][1]), *points] if points[0][0] > 1e-9 else points
    mesh = trimesh.creation.revolve(numpy.array(line), sections=SIDES)
    return abs(mesh.volume) / 1000 / FLAT


def polygon_of(body):
    half = body.half_profile()
    return Polygon([*half, *((-x, z) for x, z in reversed(half))]).buffer(0)


# Closed forms and the general integration


@pytest.mark.parametrize(
    "outline",
    [Round(90), Cornered(200, 140, 0), Cornered(180, 180, 25), Regular(160, 6), Regular(200, 8, 20)]
    + [shape.outline(200) for shape in (OvalShape(length_mm=280), HeartShape(), PetalShape())],
)
def test_a_straight_body_and_the_general_integration_say_the_same(outline):
    closed = Straight(outline, 110)
    general = closed.carried()
    for one in ("volume_ml", "wall_area_mm2", "top_area_mm2", "girth_mm", "height_mm", "width_mm", "length_mm"):
        assert getattr(general, one) == pytest.approx(getattr(closed, one), rel=1e-6), one
    grown = closed.envelope(6, 4), general.envelope(6, 4)
    assert grown[1].volume_ml == pytest.approx(grown[0].volume_ml, rel=1e-6)
    assert closed.section(55).area_mm2 == pytest.approx(general.section(55).area_mm2, rel=1e-9)


def test_a_cap_has_the_handbooks_volume_and_area():
    """V = pi h (3 a² + h²) / 6 and curved area pi (a² + h²), a the radius of its foot and h its rise."""
    a, h = 100, 40
    body = built("domed")
    assert body.volume_ml == pytest.approx((math.pi * a**2 * 80 + math.pi * h * (3 * a**2 + h**2) / 6) / 1000, rel=1e-9)
    assert body.wall_area_mm2 == pytest.approx(2 * math.pi * a * 80 + math.pi * (a**2 + h**2), rel=1e-9)


def test_a_frustum_has_the_handbooks_volume_and_area():
    """V = pi h (R² + R r + r²) / 3 and wall pi (R + r) slant."""
    body, big, small, high = built("tapered"), 100, 75, 120
    assert body.volume_ml == pytest.approx(math.pi * high * (big**2 + big * small + small**2) / 3000, rel=1e-9)
    assert body.wall_area_mm2 == pytest.approx(math.pi * (big + small) * math.hypot(high, 25), rel=1e-9)
    assert body.slant_mm == pytest.approx(math.hypot(high, 25))


def test_a_tapered_box_is_the_handbooks_frustum_of_a_pyramid():
    """V = h (A + sqrt(A B) + B) / 3."""
    body = Carried(Cornered(200, 200), profile.tapered(100, 90, 0, 30))
    assert body.volume_ml == pytest.approx(90 * (200**2 + 200 * 140 + 140**2) / 3000, rel=1e-9)


def test_a_ball_on_a_flat_is_a_ball_without_its_cap():
    """4 pi R³ / 3 less pi h² (3 R - h) / 3 for the cap cut off, h its depth."""
    depth = 80 - math.sqrt(80**2 - 25**2)
    expected = 4 / 3 * math.pi * 80**3 - math.pi * depth**2 * (3 * 80 - depth) / 3
    assert built("ball").volume_ml == pytest.approx(expected / 1000, rel=1e-8)
    assert built("half ball").volume_ml == pytest.approx(2 / 3 * math.pi * 80**3 / 1000, rel=1e-8)
    assert built("half ball").wall_area_mm2 == pytest.approx(2 * math.pi * 80**2, rel=1e-9)


@settings(max_examples=25)
@given(st.floats(40, 150), st.floats(0.02, 0.9), st.floats(20, 200))
def test_a_drum_without_its_segment(radius, share, thick):
    """Segment area R² (t - sin t) / 2, t the angle it spans; the rest of the face times the thickness."""
    cut = share * radius
    turn = 2 * math.acos(1 - cut / radius)
    expected = (math.pi * radius**2 - radius**2 * (turn - math.sin(turn)) / 2) * thick / 1000
    assert Sideways(radius, thick, radius - cut).volume_ml == pytest.approx(expected, rel=1e-9)


def test_a_drum_on_its_side_is_what_the_kernel_leaves_of_it():
    mesh = trimesh.creation.cylinder(radius=80, height=110, sections=SIDES)
    mesh.apply_transform(trimesh.transformations.rotation_matrix(math.pi / 2, [1, 0, 0]))
    table = trimesh.creation.box(extents=[400, 400, 200])
    table.apply_translation([0, 0, -65 - 100])
    left = trimesh.boolean.difference([mesh, table], engine="manifold")
    drum = Sideways(80, 110, 65)
    assert drum.volume_ml == pytest.approx(left.volume / 1000 / FLAT, rel=1e-3)
    assert drum.height_mm == pytest.approx(left.extents[2], rel=1e-4)


# Turned solids and envelopes


@pytest.mark.parametrize("name", BUILT)
def test_a_turned_body_is_the_kernels_solid_of_revolution(name):
    assert built(name).volume_ml == pytest.approx(turned_solid(built(name)), rel=1.5e-3)


@pytest.mark.parametrize("name", BUILT)
def test_a_coat_is_the_kernels_mitred_offset_of_the_profile(name):
    """One thickness all round: the outside drawn is shapely's own mitred buffer, cut off at the plane of the foot."""
    body, thick = built(name), 5.0
    found = polygon_of(body.envelope(thick, thick))
    grown = polygon_of(body).buffer(thick, join_style="mitre", mitre_limit=20).intersection(box(-999, 0, 999, 999))
    assert found.symmetric_difference(grown).area < 0.004 * found.area


@pytest.mark.parametrize("name", ["tapered", "bevelled", "upside down"])
def test_a_rounded_coat_is_never_more_than_the_sharp_one_and_as_wide_and_high(name):
    body = built(name)
    sharp, soft = body.envelope(6, 6), body.envelope(6, 6, rounded=True)
    assert soft.volume_ml < sharp.volume_ml
    assert soft.height_mm == pytest.approx(sharp.height_mm)
    assert soft.width_mm <= sharp.width_mm + 1e-9
    drawn = polygon_of(sharp).difference(polygon_of(soft)).area
    assert 0 < drawn < 2 * 6 * 6


def test_both_faces_coated_is_the_drum_grown_both_ways():
    body = Straight(Round(80), 100).envelope(5, 4, under_mm=4)
    assert body.volume_ml == pytest.approx(math.pi * 85**2 * 108 / 1000, rel=1e-9)
    assert (body.foot_mm, body.height_mm) == (-4, 108)


@settings(max_examples=20)
@given(st.sampled_from(sorted(BUILT)), st.floats(0.05, 0.95))
def test_the_parts_of_a_body_add_up_to_it(name, share):
    body = built(name)
    cut = share * body.height_mm
    parts = body.volume_between(0, cut) + body.volume_between(cut, body.height_mm)
    assert parts == pytest.approx(body.volume_ml, rel=1e-6)
    assert body.section(cut).half_width_mm <= body.width_mm / 2 + 1e-6


@pytest.mark.parametrize(
    "shape", [HeartShape(), PetalShape(), OvalShape(length_mm=260), PolygonShape(sides=8), SquareShape(corner_mm=30)]
)
def test_a_tapered_body_of_any_outline_is_the_sum_of_its_slices(shape):
    base = shape.outline(200)
    body = Carried(base, profile.tapered(100, 100, 0, 20))
    slices = [base.offset(-20 * (step + 0.5) / 200).area_mm2 * 0.5 for step in range(200)]
    assert body.volume_ml == pytest.approx(sum(slices) / 1000, rel=2e-3)


def test_a_free_outline_keeps_the_area_of_its_polygon_and_says_what_it_cannot_be():
    corners = ((0, 0), (200, 0), (200, 120), (90, 180), (0, 120))
    assert free(200, corners).area_mm2 == pytest.approx(Polygon(corners).area)
    assert free(100, corners).area_mm2 == pytest.approx(Polygon(corners).area / 4)
    with pytest.raises(ValueError, match="crosses or touches itself"):
        free(200, ((0, 0), (100, 100), (100, 0), (0, 100)))
    with pytest.raises(ValueError, match="next to nothing"):
        free(200, ((0, 0), (100, 0.1), (200, 0)))


@pytest.mark.parametrize(
    "make, words",
    [
        (lambda: profile.tapered(50, 100, 0, 60), "crosses itself"),
        (lambda: profile.bevelled(50, 60, 10, 70), "larger than the tier"),
        (lambda: profile.bevelled(50, 60, 55, 7), "larger than the tier"),
        (lambda: profile.domed(50, 60, 55), "more than half"),
        (lambda: profile.domed(50, 20, 30), "higher than the tier"),
        (lambda: profile.ball(50, 2, 100), "as wide as the ball"),
    ],
)
def test_a_profile_that_cannot_be_says_why(make, words):
    with pytest.raises(ValueError, match=words):
        make()
