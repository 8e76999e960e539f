"""Bodies of triangles against what is not ours: closed forms, Steiner's and Pappus's formulas, and trimesh."""

import math

import manifold3d
import numpy
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from amber_spread.core.design.solids import BoxSolid, ConeSolid, SpunSolid, WedgeSolid, built_of
from amber_spread.core.geometry.bodies import solids
from amber_spread.core.geometry.bodies.distance import distances
from amber_spread.core.geometry.bodies.lofted import lofted
from amber_spread.core.geometry.bodies.meshed import meshed, sized
from amber_spread.core.geometry.bodies.packed import MOST_TRIANGLES, moved_by, packed, step_for, unpacked
from amber_spread.core.geometry.bodies.pebble import pebble
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sections import Section
from amber_spread.core.geometry.bodies.surface import surface_of
from amber_spread.core.geometry.flat.outline import Cornered
from amber_spread.core.geometry.sheets.reach import reach_over
from tests.core.test_pairs import PLAIN
from tests.designs import tier, worked

PI = math.pi


def of(solid):
    return Sculpted(meshed(solid))


def coat_ml(body, thick_mm):
    return body.envelope(thick_mm, thick_mm).volume_ml - body.volume_ml


def as_trimesh(body):
    return trimesh.Trimesh(body.core.corners, body.core.triangles, process=False)


@pytest.mark.parametrize(
    ("make", "mm3", "mm2"),
    [
        (lambda: solids.ball(200), 4 / 3 * PI * 1e6, 4 * PI * 1e4),
        (lambda: solids.block(200, 120, 90), 200 * 120 * 90, 2 * (200 * 120 + 200 * 90 + 120 * 90)),
        (lambda: solids.frustum(200, 200, 90), PI * 1e4 * 90, 2 * PI * 1e4 + PI * 200 * 90),
        (lambda: solids.frustum(200, 0, 120), PI * 1e4 * 40, PI * 1e4 + PI * 100 * math.hypot(100, 120)),
        # published: the frustum, pi h / 3 (R² + R r + r²), as in Bronshtein and Semendyayev, 2.6 (from memory)
        (
            lambda: solids.frustum(200, 120, 90),
            PI * 30 * (1e4 + 6000 + 3600),
            PI * 13600 + PI * 160 * math.hypot(40, 90),
        ),
        (lambda: solids.wedge(200, 120, 90), 200 * 120 * 45, 200 * 90 + 120 * (200 + 90 + math.hypot(200, 90))),
        # Pappus: the section's area, or its girth, x the way of its middle.
        (lambda: solids.ring(200, 60), PI * 900 * 2 * PI * 70, 2 * PI * 30 * 2 * PI * 70),
        (lambda: solids.raised([(0, 0), (80, 0), (0, 60)], 50), 2400 * 50, 4800 + 240 * 50),
    ],
    ids=["ball", "box", "cylinder", "cone", "frustum", "wedge", "ring", "triangle raised"],
)
def test_solids_are_those_of_closed_forms(make, mm3, mm2):
    solid = make()
    body = of(solid)
    assert body.volume_ml == pytest.approx(mm3 / 1000, rel=3e-3)
    assert solid.surface_area() == pytest.approx(mm2, rel=3e-3)
    thirds = [body.volume_between(body.height_mm * share / 3, body.height_mm * (share + 1) / 3) for share in range(3)]
    assert sum(thirds) == pytest.approx(body.volume_ml, rel=1e-9)


def test_edges_are_rounded_as_steiner_has_it():
    """A box grown by a ball out of a smaller one: V + S r + M r² + 4/3 pi r³ (published: J. Steiner 1840; from memory).
    A drum's rim is a quarter of a ring: Pappus."""
    a, b, c, r = 200 - 30, 120 - 30, 90 - 30, 15
    box = a * b * c + 2 * (a * b + b * c + c * a) * r + PI * (a + b + c) * r**2 + 4 / 3 * PI * r**3
    assert of(solids.block(200, 120, 90, r)).volume_ml == pytest.approx(box / 1000, rel=3e-3)
    # What a rim loses: a square less a quarter circle, its middle so far from the corner.
    lost, off = (1 - PI / 4) * r**2, r * (10 - 3 * PI) / (3 * (4 - PI))
    drum = PI * 1e4 * 90 - 2 * lost * 2 * PI * (100 - off)
    assert of(solids.frustum(200, 200, 90, r)).volume_ml == pytest.approx(drum / 1000, rel=3e-3)


@pytest.mark.parametrize("thick", [2, 6, 12])
def test_coats_are_steiners_and_pappuss(thick):
    """A coat stands on the plane of the foot; a ball meets it at a point, so the coat is whole but for what is below."""
    ball = of(solids.ball(200))
    whole = 4 / 3 * PI * ((100 + thick) ** 3 - 1e6)
    below = PI * thick**2 * (3 * (100 + thick) - thick) / 3
    assert coat_ml(ball, thick) == pytest.approx((whole - below) / 1000, rel=8e-3)
    surface, mean = 2 * (200 * 120 + 200 * 180 + 120 * 180), PI * (200 + 120 + 180)
    box = surface * thick + mean * thick**2 + 4 / 3 * PI * thick**3
    assert coat_ml(of(solids.block(200, 120, 90)), thick) == pytest.approx(box / 2 / 1000, rel=8e-3)
    # Half a ring standing on its cut: both halves of its coat are alike.
    half = of(solids.ring(240, 70).translate([0, 0, -35]).trim_by_plane([0, 0, 1], 0))
    grown = PI * ((35 + thick) ** 2 - 35**2) * 2 * PI * 85
    assert coat_ml(half, thick) == pytest.approx(grown / 2 / 1000, rel=0.015)


def test_a_box_by_its_solids_is_the_box_by_its_views():
    views = Sculpted(lofted(Cornered(200, 120), ((0, 0), (200, 0), (200, 90), (0, 90)), (Section(0.0, True),)))
    built = of(solids.block(200, 120, 90))
    for body in (views, built):
        assert body.volume_ml == pytest.approx(2160, rel=1e-6)
    for thick in (3, 8):
        assert coat_ml(built, thick) == pytest.approx(coat_ml(views, thick), rel=0.01)
    assert reach_over(built.envelope(6, 6)).farthest == pytest.approx(
        reach_over(views.envelope(6, 6)).farthest, rel=0.01
    )


@pytest.mark.parametrize("build", [one for one in PLAIN if one.own_outline], ids=lambda one: one.kind)
def test_slices_and_volumes_are_trimeshs(build):
    body = build.body(tier().shape.outline(240), build.own_height_mm(tier().shape.outline(240)))
    theirs = as_trimesh(body)
    assert theirs.is_watertight
    assert body.volume_ml == pytest.approx(theirs.volume / 1000, rel=2e-3)
    assert body.width_mm == pytest.approx(240, rel=1e-6)
    for share in (0.05, 0.3, 0.62, 0.9):
        cut = theirs.section([0, 0, 1], [0, 0, share * body.height_mm]).to_2D()[0]
        assert body.section(share * body.height_mm).area_mm2 == pytest.approx(cut.area, rel=2e-3, abs=1)
    across = theirs.section([0, 1, 0], [0, 0, 0])
    assert body.plane.area == pytest.approx(across.to_2D()[0].area, rel=2e-3)


def test_solids_joined_and_cut_are_what_trimesh_makes_of_them():
    parts = (
        BoxSolid(wide_mm=180, deep_mm=120, high_mm=70),
        ConeSolid(across_mm=110, top_mm=40, high_mm=90, x_mm=25, z_mm=40, lean_deg=15),
        WedgeSolid(does="cut", wide_mm=70, deep_mm=60, high_mm=50, x_mm=-60, y_mm=-50, turn_deg=30),
    )
    meshes = []
    for part in parts:
        mesh = part.placed().to_mesh()
        meshes.append(trimesh.Trimesh(mesh.vert_properties[:, :3], mesh.tri_verts))
    met = trimesh.boolean.union(meshes[:2]).difference(meshes[2])
    assert built_of(parts).volume() == pytest.approx(met.volume, rel=1e-4)
    # By hand: a box leant over by 90 degrees lies on its side, a turn by 90 swaps its sides.
    left, front, low, right, back, high = (
        BoxSolid(wide_mm=60, deep_mm=40, high_mm=90, lean_deg=90).placed().bounding_box()
    )
    assert (right - left, back - front, high - low) == pytest.approx((90, 40, 60))
    left, front, _, right, back, _ = BoxSolid(wide_mm=60, deep_mm=40, high_mm=90, turn_deg=90).placed().bounding_box()
    assert (right - left, back - front) == pytest.approx((40, 60))


def test_a_turned_solid_goes_through_its_widths():
    body = of(SpunSolid(across_mm=80, middle_mm=140, top_mm=60, high_mm=120).itself())
    for up, wide in ((0.001, 80), (60, 140), (119.99, 60)):
        assert 2 * body.section(up).half_width_mm == pytest.approx(wide, rel=0.01)


def test_what_makes_no_body_is_refused_in_words():
    far = (BoxSolid(), BoxSolid(x_mm=400))
    with pytest.raises(ValueError, match="2 parts that do not touch"):
        meshed(built_of(far))
    with pytest.raises(ValueError, match="hollow inside that opens nowhere"):
        meshed(built_of((BoxSolid(), BoxSolid(does="cut", wide_mm=40, deep_mm=40, high_mm=20, z_mm=30))))
    with pytest.raises(ValueError, match="nothing is left"):
        meshed(built_of((BoxSolid(), BoxSolid(does="cut", wide_mm=300, deep_mm=300, high_mm=300, z_mm=-10))))
    with pytest.raises(ValueError, match="solid 2: edges of 90 mm do not fit"):
        built_of((BoxSolid(), ConeSolid(edge_mm=90)))


@pytest.mark.parametrize("build", [one for one in PLAIN if one.carved], ids=lambda one: one.kind)
def test_a_body_in_the_round_holds_what_its_coats_say(build):
    """Its triangles close up, nest, and hold the volume that was worked out without them."""
    bodies = worked(tier(240, build=build)).bodies
    shown = [surface_of(body) for body in (bodies.bare, bodies.crumbed, bodies.coated)]
    for body, solid in zip((bodies.bare, bodies.crumbed, bodies.coated), shown, strict=True):
        assert solid.status() == manifold3d.Error.NoError
        assert solid.volume() / 1000 == pytest.approx(body.volume_ml, rel=8e-3)
    for inner, outer in zip(shown, shown[1:], strict=False):
        assert (inner - outer).volume() < 5e-3 * inner.volume()


@settings(max_examples=25, deadline=None)
@given(st.floats(60, 600), st.floats(30, 400))
def test_triangles_as_text_are_no_farther_than_is_said(wide, high):
    corners, triangles = pebble()
    corners = corners * [wide / 200, wide / 200, high / 100]
    found, faces = unpacked(packed(corners, triangles))
    off = numpy.linalg.norm((found - found.min(axis=0)) - (corners - corners.min(axis=0)), axis=1)
    assert off.max() <= moved_by(step_for(corners)) + 1e-6
    assert (faces == triangles).all()


def test_a_text_that_is_no_body_is_refused():
    good = packed(*pebble())
    for bad in ("", "AAAA", good[:-40] + "=" * (-len(good[:-40]) % 4), packed(*pebble()).swapcase()):
        with pytest.raises(ValueError, match="damaged"):
            unpacked(bad)
    corners, triangles = numpy.zeros((3, 3)), numpy.tile([[0, 1, 2]], (MOST_TRIANGLES + 1, 1))
    with pytest.raises(ValueError, match="damaged"):
        unpacked(packed(corners + numpy.eye(3), triangles))


def test_a_body_is_made_to_a_width_and_keeps_its_form():
    body = meshed(solids.block(200, 120, 90))
    made = sized(body, 300, 135)
    assert Sculpted(made).volume_ml == pytest.approx(2160 * 1.5**3, rel=1e-6)
    assert made.edge.symmetric_difference(Polygon([(-150, -90), (150, -90), (150, 90), (-150, 90)])).area < 1


def test_what_is_thinner_than_the_lattice_is_as_far_away_as_anything_else():
    """A fin that lies between two places of the lattice, standing high out of a block."""
    fin = solids.block(1.2, 60, 150)
    body = meshed(solids.block(100, 100, 40) + fin)
    field = distances(body)
    assert not body.holds(field.x, field.y, field.z)[:, :, field.z > 41].any()
    x, y, z = numpy.meshgrid(field.x, field.y, field.z, indexing="ij")
    beside = (abs(x) < 25) & (abs(y) < 25) & (z > 80) & (z < 140)
    assert field.away[beside] == pytest.approx((abs(x) - 0.6)[beside], abs=0.1)
