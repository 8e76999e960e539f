"""Volumes and areas against solids built and cut by an independent geometry kernel (manifold3d, through trimesh).

A drum of N sides drawn through the circle has the volume of the circle's drum times sin(2 pi/N) / (2 pi/N), so each
comparison corrects for that; the rest is the kernel's own reckoning of nested meshes subtracted from one another.
"""

import math

import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, SoftFilling
from amber_spread.core.design.shapes import HeartShape, OvalShape, PetalShape, PolygonShape, RectangleShape, SquareShape
from amber_spread.core.geometry.bodies.body import Straight
from amber_spread.core.geometry.flat.outline import Round
from amber_spread.core.tier.layers import layers
from tests.designs import planned, tier

SIDES = 360
KERNEL = 5e-6  # the kernel keeps corners in single precision: so much of the whole body is its rounding
FLAT = math.sin(2 * math.pi / SIDES) / (2 * math.pi / SIDES)


def drum(radius_mm, height_mm, foot_mm=0.0):
    """A closed drum standing at `foot_mm`."""
    mesh = trimesh.creation.cylinder(radius=radius_mm, height=height_mm, sections=SIDES)
    mesh.apply_translation([0, 0, foot_mm + height_mm / 2])
    return mesh


def volume_ml(mesh):
    return mesh.volume / 1000 / FLAT


def without(outer, *inner):
    return trimesh.boolean.difference([outer, *inner], engine="manifold")


@settings(max_examples=15)
@given(st.floats(30, 300), st.floats(20, 400), st.floats(1, 30), st.floats(1, 30))
def test_a_coat_is_what_is_left_of_the_outer_drum_without_the_inner(radius, height, side, top):
    inner = Straight(Round(radius), height)
    outer = inner.envelope(side, top)
    cut = without(drum(radius + side, height + top), drum(radius, height))
    assert outer.volume_ml - inner.volume_ml == pytest.approx(volume_ml(cut), abs=KERNEL * outer.volume_ml)


@settings(max_examples=10)
@given(st.floats(60, 300), st.floats(3, 25), st.floats(2, 20))
def test_a_dam_is_a_slab_with_its_middle_cut_out(diameter, width, thickness):
    rim = Round(diameter / 2)
    hole = drum(diameter / 2 - width, thickness + 2, foot_mm=-1)
    ring = without(drum(diameter / 2, thickness), hole)
    dam = layers.dam_volume(1, rim.area_mm2, layers.area_inside(rim, width), thickness)
    assert dam == pytest.approx(volume_ml(ring), abs=KERNEL * layers.slab_volume(1, rim.area_mm2, thickness))


@pytest.mark.parametrize(
    "shape",
    [SquareShape(), SquareShape(corner_mm=20), RectangleShape(length_mm=320), PolygonShape(sides=6), PetalShape()]
    + [PolygonShape(sides=8, corner_mm=15), OvalShape(length_mm=280), HeartShape()],
)
def test_tiers_of_every_shape_agree_with_their_extruded_solids(shape):
    one = tier(tin_mm=204, shape=shape, final=FreehandFinal(side_mm=6, top_mm=4), cover=DrapeCover(thickness_mm=3))
    found = planned(one).tiers[0]
    solids = []
    for grown, height in ((-2, found.layers.height.value), (0, 0), (6, 0), (9, 0)):
        points = shape.outline(204.0).offset(grown).points
        rise = height or solids[0][1] + {0: 2, 6: 6, 9: 9}[grown]
        solids.append((trimesh.creation.extrude_polygon(Polygon(points), rise), rise))
    for (inner, _), (outer, _), coat in zip(
        solids, solids[1:], (found.coats.crumb, found.coats.final, found.cover.over), strict=False
    ):
        assert coat.volume.value == pytest.approx(without(outer, inner).volume / 1000, rel=0.01)


def test_wall_and_top_areas_are_the_meshes_own():
    body = Straight(Round(100), 120)
    mesh = drum(100, 120)
    top = mesh.area_faces[mesh.face_normals[:, 2] > 0.99].sum()
    wall = mesh.area_faces[abs(mesh.face_normals[:, 2]) < 0.01].sum()
    assert body.top_area_mm2 == pytest.approx(top / FLAT, rel=1e-9)
    assert body.wall_area_mm2 == pytest.approx(wall * (math.pi / SIDES) / math.sin(math.pi / SIDES), rel=1e-9)


def test_a_whole_tier_agrees_with_its_nested_solids():
    one = planned(
        tier(
            tin_mm=254,
            layers=Layers(count=3, height_mm=30),
            filling=SoftFilling(thickness_mm=6, dam_width_mm=10, seal_mm=1),
            final=FreehandFinal(side_mm=7, top_mm=5),
            cover=DrapeCover(thickness_mm=3),
        )
    ).tiers[0]
    bare, crumbed, coated = drum(125, 102), drum(127, 104), drum(134, 109)
    covered = drum(137, 112)
    assert one.coats.crumb.volume.value == pytest.approx(volume_ml(without(crumbed, bare)), rel=1e-4)
    assert one.coats.final.volume.value == pytest.approx(volume_ml(without(coated, crumbed)), rel=1e-4)
    assert one.cover.over.volume.value == pytest.approx(volume_ml(without(covered, coated)), rel=1e-4)
    filling = 2 * volume_ml(drum(115, 5))
    assert one.layers.filling.volume.value == pytest.approx(filling, rel=1e-6)
    sponge = 3 * volume_ml(drum(125, 30))
    assert one.layers.cake_volume.value == pytest.approx(sponge, rel=1e-6)


def test_the_parts_drawn_fill_the_outside_exactly():
    """Each part of the half-section, turned about the axis, is a solid (Pappus); together they are the tier."""
    whole = planned(tier(tin_mm=203.2, filling=SoftFilling(), cover=DrapeCover()))
    turned = sum(_turned_ml(part.outline) for part in whole.section.parts if part.kind != "board")
    one = whole.tiers[0].stack
    assert turned == pytest.approx(volume_ml(drum(one.diameter.value / 2, one.height.value)), rel=1e-6)


def _turned_ml(outline):
    """Volume of a polygon turned about the z axis: 2 pi times its first moment (Pappus's second theorem)."""
    moment = 0.0
    for (x0, z0), (x1, z1) in zip(outline, outline[1:] + outline[:1], strict=True):
        moment += (x0 * z1 - x1 * z0) * (x0 + x1) / 6
    return 2 * math.pi * abs(moment) / 1000
