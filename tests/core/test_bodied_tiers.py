"""Tiers built of solids or brought as a 3D file: what must hold of them as of any other tier."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from shapely import Polygon, unary_union

from amber_spread.core.design.builds import CarvedBuild, JoinedBuild, ModelledBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal
from amber_spread.core.design.shapes import RectangleShape, SquareShape
from amber_spread.core.design.solids import BallSolid, BoxSolid, ConeSolid, RingSolid
from amber_spread.core.document import FileError, plan_document, read_document, write_document
from amber_spread.core.geometry.bodies.packed import packed
from amber_spread.core.geometry.bodies.pebble import pebble
from amber_spread.core.stock.kit import Kit, Tin
from amber_spread.core.tier import in_the_round
from amber_spread.papers.templates import templates_of
from tests.designs import document, planned, tier, worked

BOX = JoinedBuild(solids=(BoxSolid(wide_mm=200, deep_mm=120, high_mm=90),))
DRUM = ConeSolid(across_mm=160, top_mm=160, high_mm=70, edge_mm=12)
DOOR = BoxSolid(does="cut", wide_mm=50, deep_mm=40, high_mm=30, y_mm=-75)
HIVE = JoinedBuild(solids=(DRUM, BallSolid(across_mm=150, z_mm=8), DOOR))
PEBBLE = ModelledBuild(mesh=packed(*pebble()))
THREE = Layers(count=3)


def test_a_box_of_solids_is_the_rectangle_tier_it_is_as_large_as():
    whole = planned(tier(200, build=BOX, layers=THREE)).tiers[0]
    view = CarvedBuild(points_mm=((0, 0), (200, 0), (200, 90), (0, 90)), rounded=0.0)
    by_view = planned(tier(204, shape=RectangleShape(length_mm=124), build=view, layers=THREE)).tiers[0]
    assert whole.layers.height.value == pytest.approx(by_view.layers.height.value, rel=1e-6)
    for name in ("cake_volume", "cake_weight"):
        assert getattr(whole.layers, name).value == pytest.approx(getattr(by_view.layers, name).value, rel=2e-3)
    assert whole.coats.final.volume.value == pytest.approx(by_view.coats.final.volume.value, rel=0.01)
    assert whole.carving.surface.value == pytest.approx(by_view.carving.surface.value, rel=0.01)
    assert [one.area.value for one in whole.carving.slices.values()] == pytest.approx([24000] * 3, rel=1e-3)


@settings(max_examples=12, deadline=None)
@given(st.floats(120, 500))
def test_it_is_as_wide_as_it_is_asked_to_be_and_grows_alike_every_way(wide):
    one, own = planned(tier(wide, build=HIVE)).tiers[0], 160.0
    assert one.layers.cake_diameter.value == wide
    assert one.carving.own_width.value == pytest.approx(own, rel=1e-3)
    assert one.layers.height.value == pytest.approx(158 * wide / own, rel=5e-3)
    assert one.carving.volume.value == pytest.approx(HIVE.own().volume_ml * (wide / own) ** 3, rel=5e-3)
    slices = one.carving.slices.values()
    between = sum(part.volume.value for part in slices)
    assert between == pytest.approx(one.layers.cake_volume.value, rel=1e-6)
    assert between + one.layers.filling.volume.value == pytest.approx(one.carving.volume.value, rel=2e-3)


def test_the_width_that_comes_to_a_height_a_length_or_a_volume():
    for build in (HIVE, PEBBLE):
        by_itself = build.width_for()
        for wanted, found in (
            ({"height_mm": 220.0}, lambda one: one.layers.height.value),
            ({"volume_ml": 4000.0}, lambda one: one.carving.volume.value),
            ({"length_mm": 220.0}, lambda one: (one.layers.cake_length or one.layers.cake_diameter).value),
        ):
            wide = build.width_for(**wanted)
            one = planned(tier(wide, build=build)).tiers[0]
            assert found(one) == pytest.approx(*wanted.values(), rel=3e-3)
        assert planned(tier(by_itself, build=build)).tiers[0].carving.volume.value == pytest.approx(
            build.own().volume_ml, rel=2e-3
        )


def test_every_solid_lies_within_the_whole_and_what_is_cut_out_is_said():
    carving = planned(tier(240, build=HIVE)).tiers[0].carving
    assert [one.cut_out for one in carving.solids] == [False, False, True]
    whole = unary_union([Polygon(ring) for ring in carving.seen])
    joined = unary_union([Polygon(one.side[0]) for one in carving.solids if not one.cut_out])
    assert whole.symmetric_difference(joined).area < 0.01 * whole.area
    assert Polygon(carving.solids[2].above[0]).bounds[1] < -110


def test_a_turn_of_a_file_changes_nothing_but_its_outline():
    plain, turned = (planned(tier(240, build=PEBBLE.model_copy(update={"turn_deg": by}))).tiers[0] for by in (0, 90))
    own = PEBBLE.own()
    deep = own.outline.half_length_mm / own.outline.half_width_mm
    assert plain.layers.cake_length.value == pytest.approx(240 * deep, rel=1e-3)
    assert turned.layers.cake_length.value == pytest.approx(240 / deep, rel=1e-3)
    assert turned.layers.height.value == pytest.approx(plain.layers.height.value / deep, rel=1e-3)
    assert plain.carving.kept.triangles.value == len(pebble()[1])
    assert plain.carving.kept.error.value == 0


def test_it_is_baked_in_the_least_tins_that_hold_its_layers_and_else_in_a_sheet_of_its_own():
    whole = planned(tier(200, build=BOX, layers=THREE), kit=Kit(tins=(Tin(across_mm=150),)))
    (only,) = whole.carved["tier_1"].tins.values()
    skin = 2 * 2.0
    assert (only.owned, only.shape) == (False, "rectangle")
    assert sorted((only.across.value, only.length.value)) == pytest.approx([120 + skin, 200 + skin])
    kit = Kit(tins=(Tin(shape="rectangle", across_mm=130, length_mm=210), Tin(across_mm=254)))
    (only,) = planned(tier(200, build=BOX, layers=THREE), kit=kit).carved["tier_1"].tins.values()
    assert (only.owned, only.shape, only.across.value) == (True, "rectangle", 130)


def test_a_ring_keeps_its_hole():
    ring = JoinedBuild(solids=(RingSolid(across_mm=220, thick_mm=70),))
    one = planned(tier(220, build=ring, layers=Layers(count=2), final=FreehandFinal(side_mm=6, top_mm=6))).tiers[0]
    assert one.carving.volume.value == pytest.approx(math.pi * 35**2 * 2 * math.pi * 75 / 1000, rel=5e-3)
    assert len(one.carving.slices["layer_1"].whole) == 2
    pieces = next(part for part in one.carving.slices["layer_1"].pieces.values())
    assert any(mark.name == "cut out" for mark in pieces.marks)


def test_a_body_that_cannot_be_is_said_at_its_build():
    apart = JoinedBuild(solids=(BoxSolid(wide_mm=60), BoxSolid(wide_mm=60, x_mm=300)))
    with pytest.raises(FileError, match=r"tiers.1.build: cannot be made: the body is of 2 parts that do not touch"):
        plan_document(document(tier(240, build=apart)))
    with pytest.raises(FileError, match=r"tiers.1.build: cannot be made: .*damaged"):
        plan_document(document(tier(240, build=ModelledBuild(mesh="AAAA"))))
    with pytest.raises(ValidationError, match="outline of its own"):
        tier(240, build=HIVE, shape=SquareShape())


def test_it_is_written_and_read_and_its_layers_are_printed():
    order = document(tier(240, build=HIVE, cover=DrapeCover()), tier(150, build=PEBBLE), title="Hive")
    again = read_document(write_document(order))
    assert again == order
    whole = plan_document(again)
    names = [one.name for one in templates_of(again, whole)]
    assert any("Layer 1" in name for name in names) and any("View from the side" in name for name in names)


@pytest.mark.parametrize("build", [HIVE, PEBBLE], ids=["solids", "file"])
def test_in_the_round_it_is_cut_open_by_a_quarter_and_all_of_it_is_there(build):
    done = worked(tier(200, build=build, layers=THREE, cover=DrapeCover()))
    whole, cut = in_the_round(done, False), in_the_round(done, True)
    assert [part.matter for part in whole.parts] == [
        "cake",
        "filling",
        "cake",
        "filling",
        "cake",
        "crumb",
        "final",
        "cover",
    ]
    assert [part.number for part in whole.parts] == [1, 1, 2, 2, 3, 0, 0, 0]
    assert whole.most == cut.most
    assert whole.most[2] == pytest.approx(done.bodies.covered.height_mm, rel=0.02)
    assert in_the_round(worked(tier(200)), True) is None
    assert sum(len(part.triangles) for part in cut.parts) < 1.2 * sum(len(part.triangles) for part in whole.parts)
