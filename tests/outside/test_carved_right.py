"""Figures of carved cakes that were once wrong, against closed forms, exact offsets and a plain cake of the same form."""

import math

import numpy
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold

from amber_spread.core.design.builds import JoinedBuild, Opening
from amber_spread.core.design.design import Cavity, Layers
from amber_spread.core.design.finishes import DrapeCover, PlainFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import SquareShape
from amber_spread.core.design.solids import BallSolid, BoxSolid, ConeSolid
from amber_spread.core.geometry.bodies.meshed import meshed
from amber_spread.core.geometry.bodies.open_surface import Surface
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.triangles import alone, triangles_of
from amber_spread.core.geometry.sheets.draped import _begun, drape, over
from amber_spread.core.geometry.sheets.reach import reach_over
from amber_spread.core.stock.kit import Kit
from amber_spread.core.tier.cover.draped import GIVES
from tests.designs import carved, planned, tier, worked

BLOCK = BoxSolid(wide_mm=200, deep_mm=120, high_mm=100)


def box(x0, x1, y0, y1, z1):
    return [(x, y, z) for x in (x0, x1) for y in (y0, y1) for z in (0, z1)]


ROOF = [*box(-100, 100, -60, 60, 0)[::2], (-100, 0, 100), (100, 0, 100)]
CONVEX = {
    "roof": ROOF,
    "house": [*box(-100, 100, -70, 70, 60), (-100, 0, 120), (100, 0, 120)],
    "wedge": [*box(-100, 100, -60, 60, 0)[::2], (-100, -60, 100), (-100, 60, 100)],
    "tent": [*box(-100, 100, -100, 100, 0)[::2], (0, 0, 120)],
    "prism": [
        (110 * math.cos(turn), 110 * math.sin(turn), z) for turn in numpy.arange(6) * math.pi / 3 for z in (0, 90)
    ],
}
PARTS = {
    "box": [box(-100, 100, -100, 100, 100)],
    "ell": [box(-100, 100, -40, 40, 60), box(-100, -30, -40, 40, 130)],
    "steps": [box(-100, 100, -60, 60, 50), box(-50, 50, -60, 60, 100)],
}  # fmt: skip


def cut(*solids, body=BLOCK, filling=None, cavity=None):
    build = JoinedBuild(solids=(body,), openings=tuple(Opening(solid=one, medium=None) for one in solids))
    return tier(200, build=build, layers=Layers(count=3, cavity=cavity), filling=filling or PlainFilling())


@given(st.floats(1, 40), st.floats(20, 150), st.floats(20, 100))
@settings(max_examples=8, deadline=None)
def test_a_shallow_inlay_is_as_large_as_the_box_it_is(deep, wide, long):
    (opening,) = (
        planned(cut(BoxSolid(wide_mm=wide, deep_mm=long, high_mm=60, z_mm=100 - deep)))
        .tiers[0]
        .carving.openings.values()
    )
    assert opening.volume.value == pytest.approx(wide * long * deep / 1000, rel=0.005)
    assert opening.open


@pytest.mark.parametrize("deep", [6.5, 14.0])
def test_a_shallow_bowl_and_one_in_a_stepped_body_are_those_of_their_solids(deep):
    """A cap of a ball (closed form); a plate let into a step, which a general library cuts."""
    (opening,) = planned(cut(BallSolid(across_mm=90, z_mm=100 - deep))).tiers[0].carving.openings.values()
    assert opening.volume.value == pytest.approx(math.pi * deep**2 * (3 * 45 - deep) / 3000, rel=0.025)
    step = BoxSolid(wide_mm=90, deep_mm=120, high_mm=53)
    build = JoinedBuild(
        solids=(BoxSolid(wide_mm=200, deep_mm=120, high_mm=53), BoxSolid(wide_mm=90, deep_mm=120, high_mm=40, z_mm=53)),
        openings=(Opening(solid=BoxSolid(wide_mm=180, deep_mm=50, high_mm=deep, z_mm=53 - deep / 2)),),
    )
    (let_in,) = planned(tier(200, build=build, layers=Layers(count=3))).tiers[0].carving.openings.values()
    body = Manifold.cube([200, 120, 53]).translate([-100, -60, 0]) + Manifold.cube([90, 120, 40]).translate(
        [-45, -60, 53]
    )
    plate = Manifold.cube([180, 50, deep]).translate([-90, -25, 53 - deep / 2])
    assert step.high_mm == 53 and let_in.volume.value == pytest.approx((body ^ plate).volume() / 1000, rel=0.02)


def test_nobody_is_served_what_is_hollow():
    """Portions are those of the cake that is there: less by the share of a hidden room, and of an opening left empty."""
    whole = planned(cut()).tiers[0].stack.portions
    ball = planned(cut(BallSolid(across_mm=80, z_mm=10))).tiers[0].stack.portions
    share = math.pi / 6 * 80**3 / (200 * 120 * 100)
    assert ball.given["volume"].value == pytest.approx(whole.given["volume"].value * (1 - share), rel=0.005)
    assert ball.value < whole.value
    for asked in ({}, {"build": {"kind": "tapered", "narrow_mm": 220}}):
        solid = planned(tier(254, **asked)).tiers[0]
        room = planned(tier(254, layers=Layers(cavity=Cavity(diameter_mm=120)), **asked)).tiers[0]
        lost = room.layers.cavity.volume.value / (solid.layers.cake_volume.value + solid.layers.filling.volume.value)
        assert room.stack.portions.value == pytest.approx(solid.stack.portions.value * (1 - lost), abs=1.5)
        assert room.stack.portions.value < solid.stack.portions.value


@pytest.mark.parametrize("coat", [0.0, 4.0, 9.0])
@pytest.mark.parametrize("name", list(CONVEX))
def test_over_a_convex_body_a_sheet_is_drawn_out_nowhere(name, coat):
    """Where a surface bulges all over, ways from one place come together and never part faster than on a flat sheet."""
    laid = over(Sculpted(meshed(Manifold.hull_points(CONVEX[name])), coat, coat))
    assert laid.evenly.beyond(GIVES) == 0 and (laid.evenly.strain <= 1e-9).all()


def test_a_hollow_body_still_tears_a_sheet():
    ell = sum((Manifold.hull_points(part) for part in PARTS["ell"]), Manifold())
    assert over(Sculpted(meshed(ell), 6, 6)).evenly.beyond(GIVES) > 0.02


@pytest.mark.parametrize("coat", [1.0, 4.0])
@pytest.mark.parametrize("name", list(PARTS))
def test_a_sheet_reaches_the_farthest_foot_of_a_thinly_coated_body(name, coat):
    """Shortest ways over the exact offset: hulls of balls at every corner, cut at the foot, by general libraries."""
    ball = Manifold.sphere(coat, 40)

    def grown(corners):
        return Manifold.batch_hull(
            [ball.translate([*one]) for x, y, z in corners for one in ((x, y, z), (x, y, z - 20 * (z == 0)))]
        )

    solid = sum((grown(part) for part in PARTS[name]), Manifold()).trim_by_plane([0, 0, 1], 0)
    corners, triangles = triangles_of(solid.refine_to_length(7.0))
    standing = (corners[triangles][:, :, 2] <= 1e-6).all(axis=1)
    surface = Surface(*alone(corners, triangles[~standing]))
    true = drape(*_begun(surface)).farthest
    bare = sum((Manifold.hull_points(part) for part in PARTS[name]), Manifold())
    found = reach_over(Sculpted(meshed(bare), coat, coat)).farthest
    assert 0.998 * true <= found <= 1.1 * true


@pytest.mark.parametrize(("wide", "high"), [(203.2, 100), (152.4, 110), (254, 70)])
def test_a_square_cake_takes_the_same_sheet_carved_or_not(wide, high):
    usual, layers = Practice(trimmed_skin_mm=0), Layers(count=2, height_mm=(high - 6) / 2)
    block = JoinedBuild(solids=(BoxSolid(wide_mm=wide, deep_mm=wide, high_mm=high),))
    plain, cut_out = (
        planned(tier(wide, layers=layers, cover=DrapeCover(sheet=sheet), **form), practice=usual).tiers[0].cover
        for sheet in ("circle",)
        for form in ({"shape": SquareShape()}, {"build": block})
    )
    assert cut_out.roll_diameter.value == pytest.approx(plain.roll_diameter.value, rel=0.01)


def test_the_surface_of_a_keeled_body_is_that_of_its_prism():
    """A keel from end to end, its sides leaning out to a flat top: closed form, and with both ends cut slantwise."""
    keel, square = ((0, 90), (50, 0), (100, 90)), {"shape": SquareShape()}
    bare = worked(
        carved(((0, 0), (200, 0), (200, 90), (0, 90)), 204, front_mm=keel, **square), Practice(trimmed_skin_mm=0)
    ).bodies.bare
    wide, deep, high = bare.width_mm, bare.length_mm, bare.height_mm
    closed = wide * deep + deep * high + 2 * wide * math.hypot(deep / 2, high)
    assert bare.surface_mm2 == pytest.approx(closed, rel=0.002)
    boat = worked(
        carved(((0, 90), (50, 0), (150, 0), (200, 90)), 204, front_mm=keel, **square), Practice(trimmed_skin_mm=0)
    ).bodies.bare
    # A mesh of the same section drawn along it, finely: ends whose keel rises to the top.
    xs = numpy.linspace(-wide / 2, wide / 2, 801)
    low = numpy.interp(xs, [-wide / 2, -wide / 4, wide / 4, wide / 2], [high, 0, 0, high])
    shares = numpy.linspace(0, 1, 201)
    net = numpy.stack(
        numpy.broadcast_arrays(
            xs[:, None], deep / 2 * shares[None, :], low[:, None] + (high - low)[:, None] * shares[None, :]
        ),
        axis=2,
    )
    across, along = net[1:, 1:] - net[:-1, :-1], net[:-1, 1:] - net[1:, :-1]
    side = numpy.linalg.norm(numpy.cross(across, along), axis=2).sum() / 2
    assert boat.surface_mm2 == pytest.approx(2 * side + wide * deep, rel=0.01)
    drum = worked(tier(200, build=JoinedBuild(solids=(ConeSolid(across_mm=200, top_mm=200, high_mm=100),)))).bodies.bare
    assert drum.surface_mm2 == pytest.approx(2 * math.pi * 100 * 100 + math.pi * 100**2, rel=0.005)


@pytest.mark.parametrize("usual", [Practice(), Practice(trimmed_skin_mm=3), Practice.in_inches()])
def test_the_tin_of_a_body_with_an_outline_of_its_own_is_wider_by_its_skin_on_both_sides(usual):
    """No tin is owned: the sheet to get is as wide and long as the body, and what it shrinks and is trimmed twice."""
    block = JoinedBuild(solids=(BoxSolid(wide_mm=230, deep_mm=140, high_mm=90),))
    whole = planned(tier(230, build=block, layers=Layers(count=3)), practice=usual, kit=Kit(tins=()))
    (tin,) = whole.carved["tier_1"].tins.values()
    more = 2 * (usual.shrinkage_mm + usual.trimmed_skin_mm)
    assert sorted((tin.across.value, tin.length.value)) == pytest.approx([140 + more, 230 + more], abs=0.2)
