"""Carved bodies against what is not ours: closed forms, Steiner's formula, and solids joined by manifold3d."""

import math

import manifold3d
import numpy
import pytest
from shapely import Polygon, get_coordinates

from amber_spread.core.geometry.bodies.lofted import lofted
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sections import Section
from amber_spread.core.geometry.flat.outline import Cornered, Oval, Regular, Round
from amber_spread.core.geometry.flat.traced import free, heart, petal
from amber_spread.core.geometry.sheets.reach import reach_over

TURNS = numpy.linspace(0, 2 * math.pi, 600, endpoint=False)
CIRCLE = tuple((100 * math.cos(turn), 100 * math.sin(turn)) for turn in TURNS)
HALF_CIRCLE = tuple((100 * math.cos(turn), 100 * math.sin(turn)) for turn in numpy.linspace(0, math.pi, 300))
BOX = ((0.0, 0.0), (200.0, 0.0), (200.0, 90.0), (0.0, 90.0))
WEDGE = ((0.0, 0.0), (200.0, 0.0), (200.0, 90.0))
HUMPS = ((0, 0), (200, 0), (200, 120), (90, 180), (60, 90), (0, 120))
ARCH = ((0, 0), (60, 0), (60, 60), (140, 60), (140, 0), (200, 0), (200, 100), (0, 100))
SLOT = ((0, 0), (200, 0), (200, 100), (108, 100), (108, 20), (92, 20), (92, 100), (0, 100))
BOW = ((0, 60), (25, 0), (170, 0), (200, 70), (150, 52), (60, 50))


def carved(outline, points, round=0.0, flat_foot=True):
    return Sculpted(lofted(outline, tuple(points), (Section(round, flat_foot),)))


def carved_along(outline, points, *sections):
    return Sculpted(lofted(outline, tuple(points), sections))


def coat_ml(body, thick_mm):
    return body.envelope(thick_mm, thick_mm).volume_ml - body.volume_ml


@pytest.mark.parametrize(
    ("body", "ml"),
    [
        (carved(Round(100), CIRCLE, 1.0, flat_foot=False), 4 / 3 * math.pi * 1000),
        (carved(Round(100), HALF_CIRCLE, 1.0), 2 / 3 * math.pi * 1000),
        # An ellipsoid of half-axes 100, 130 and 60 cut in half: its circle drawn out to the length, pressed to the height.
        (carved(Oval(200, 260), [(x, 0.6 * z) for x, z in HALF_CIRCLE], 1.0), 2 / 3 * math.pi * 100 * 130 * 60 / 1000),
        (carved(Cornered(200, 120), BOX), 200 * 120 * 90 / 1000),
        (carved(Cornered(200, 120), WEDGE), 200 * 120 * 90 / 2 / 1000),
        (carved(Cornered(200, 120), ARCH), (200 * 100 - 80 * 60) * 120 / 1000),
        # A vault: every section the upper half of an ellipse.
        (carved(Cornered(200, 120), BOX, 1.0), 200 * math.pi * 60 * 90 / 2 / 1000),
    ],
    ids=["ball", "half ball", "half ellipsoid", "box", "wedge", "arch", "vault"],
)
def test_volumes_are_those_of_closed_forms(body, ml):
    assert body.volume_ml == pytest.approx(ml, rel=2e-3)
    assert body.volume_between(0, body.height_mm / 3) + body.volume_between(
        body.height_mm / 3, body.height_mm
    ) == pytest.approx(body.volume_ml, rel=1e-9)


ROOF = ((0.0, 0.0), (80.0, 0.0), (40.0, 80.0))


def test_a_body_whose_sections_differ_is_straight_from_one_to_the_next():
    """A block 200 by 120 by 90 that is a box at its left end: a vault or a roof at its right is the mean of the two, and
    a third section in its middle half of each.
    """
    box, vault, roof = 120 * 90, math.pi * 60 * 90 / 2, 120 * 90 / 2
    block = Cornered(200, 120)
    ends = carved_along(block, BOX, Section(0.0, True), Section(1.0, True, at=1.0))
    assert ends.volume_ml == pytest.approx(200 * (box + vault) / 2 / 1000, rel=2e-3)
    gabled = carved_along(block, BOX, Section(0.5, True, ROOF, at=1.0), Section(0.0, True))
    assert gabled.volume_ml == pytest.approx(200 * (box + roof) / 2 / 1000, rel=2e-3)
    # At a share of its height the roof has left that share of the box's depth; straight along the body, the mean.
    assert gabled.section(45).area_mm2 == pytest.approx(200 * 120 * (1 + 0.5) / 2, rel=2e-3)
    three = carved_along(block, BOX, Section(0.0, True), Section(0.5, True, ROOF, at=0.5), Section(1.0, True, at=1.0))
    assert three.volume_ml == pytest.approx((100 * (box + roof) / 2 + 100 * (roof + vault) / 2) / 1000, rel=2e-3)
    # What is beyond the first and the last is as they are.
    inner = carved_along(block, BOX, Section(0.0, True, at=0.25), Section(1.0, True, at=0.75))
    assert inner.volume_ml == pytest.approx((50 * box + 100 * (box + vault) / 2 + 50 * vault) / 1000, rel=2e-3)
    # Its surface is where its places lie: the coat of a thin skin is its area.
    thin = ends.envelope(1.0, 1.0).volume_ml - ends.volume_ml
    assert thin == pytest.approx(_twisted_area() / 1000, rel=0.03)
    with pytest.raises(ValueError, match="hollow in its side"):
        carved_along(block, BOX, Section(0.5, True, ((0, 0), (90, 0), (90, 60), (45, 20), (0, 60))))


def _twisted_area():
    """The walls, the top and both ends of the block that goes from a box to a vault, by small flat pieces (numpy)."""
    along, up = (
        numpy.linspace(0, 1, 400),
        numpy.concatenate([numpy.linspace(0, 0.9, 300), numpy.linspace(0.9, 1, 3000)]),
    )
    round_, half = numpy.sqrt(1 - up**2), 60.0
    reach = half * ((1 - along[:, None]) + along[:, None] * round_[None, :])
    x, z = 200 * along[:, None] + 0 * reach, 90 * up[None, :] + 0 * reach
    places = numpy.stack([x, reach, z], axis=2)
    across = numpy.cross(places[1:, 1:] - places[:-1, :-1], places[1:, :-1] - places[:-1, 1:])
    walls = numpy.linalg.norm(across, axis=2).sum() / 2
    top = numpy.trapezoid(2 * reach[:, -1], 200 * along)
    return 2 * walls + top + 120 * 90 + math.pi * 60 * 90 / 2


def raised(polygon, low, high):
    """A polygon raised straight up, by manifold3d."""
    rings = [get_coordinates(ring)[:-1] for ring in (polygon.exterior, *polygon.interiors)]
    section = manifold3d.CrossSection([ring.astype(float) for ring in rings], manifold3d.FillRule.EvenOdd)
    return manifold3d.Manifold.extrude(section, high - low).translate([0, 0, low])


@pytest.mark.parametrize("outline", [Round(100), heart(200), petal(200, 8), Regular(200, 6), free(200, HUMPS)])
@pytest.mark.parametrize("points", [HUMPS, ARCH, BOW, WEDGE])
def test_box_like_bodies_are_the_two_views_raised_and_met(outline, points):
    """Volume and slices against the intersection of two raised outlines, by manifold3d."""
    body = carved(outline, points)
    side = raised(body.core.side, -500, 500).rotate([90, 0, 0])
    met = raised(body.core.edge, 0, 300) ^ side
    assert met.volume() / 1000 == pytest.approx(body.volume_ml, rel=2e-3)
    for share in (0.07, 0.31, 0.62, 0.9):
        up = share * body.height_mm
        assert body.section(up).area_mm2 == pytest.approx(met.slice(up).area(), rel=2e-3, abs=2.0)


@pytest.mark.parametrize("thick", [2, 3.2, 6, 12])
def test_coats_of_convex_bodies_are_steiners(thick):
    """A coat that stands on the plane of the foot: half of what Steiner's formula gives the body and its mirror image.

    Published: J. Steiner 1840, as in L. A. Santaló, Integral Geometry and Geometric Probability, III.13 (from memory):
    V(r) - V = S r + M r² + 4/3 pi r³.
    """
    wide, deep, high = 200, 120, 90
    surface, mean = 2 * (wide * deep + 2 * wide * high + 2 * deep * high), math.pi * (wide + deep + 2 * high)
    whole = surface * thick + mean * thick**2 + 4 / 3 * math.pi * thick**3
    assert coat_ml(carved(Cornered(200, 120), BOX), thick) == pytest.approx(whole / 2 / 1000, rel=6e-3)
    ball = 2 / 3 * math.pi * ((100 + thick) ** 3 - 100**3) / 1000
    assert coat_ml(carved(Round(100), HALF_CIRCLE, 1.0), thick) == pytest.approx(ball, rel=6e-3)


@pytest.mark.parametrize(("outline", "points"), [(Cornered(200, 120), WEDGE), (Regular(200, 6), WEDGE)])
def test_coats_of_slanted_bodies_are_the_hulls_of_balls(outline, points):
    """A convex body grown by a ball is the hull of a ball at each of its corners (manifold3d), cut at the foot."""
    body, thick = carved(outline, points), 7.0
    side = raised(body.core.side, -500, 500).rotate([90, 0, 0])
    bare = raised(body.core.edge, 0, 300) ^ side
    corners = numpy.unique(bare.to_mesh().vert_properties[:, :3].round(4), axis=0)
    balls = [manifold3d.Manifold.sphere(thick, 96).translate(corner.tolist()) for corner in corners]
    grown = manifold3d.Manifold.batch_hull(balls).trim_by_plane([0, 0, 1], 0)
    assert coat_ml(body, thick) == pytest.approx((grown.volume() - bare.volume()) / 1000, rel=1e-2)
    for up in (10.0, 40.0, 70.0):
        coated = body.envelope(thick, thick).section(up)
        assert coated.area_mm2 == pytest.approx(grown.slice(up).area(), rel=6e-3)


def test_a_surface_is_that_of_all_its_faces():
    body = carved(Cornered(200, 120), ARCH)
    # Both ends, both long sides without the arch, the top, and the arch's two walls and vault.
    true = 2 * 120 * 100 + 2 * (200 * 100 - 80 * 60) + 200 * 120 + (2 * 60 + 80) * 120
    assert body.wall_area_mm2 + body.top_area_mm2 == pytest.approx(true, rel=0.015)


def test_where_walls_face_each_other_their_coats_meet():
    """A slot of 16 mm under coats of 12: it is filled, and no more."""
    slot = carved(Cornered(200, 120), SLOT)
    whole = carved(Cornered(200, 120), [(x, z * 100 / 90) for x, z in BOX])
    filled = coat_ml(whole, 12) + 16 * 80 * 120 / 1000
    assert coat_ml(slot, 12) == pytest.approx(filled, rel=0.02)
    assert coat_ml(slot, 12) - coat_ml(slot, 8) < 0.93 * (coat_ml(slot, 8) - coat_ml(slot, 4))


def test_a_sheet_reaches_a_quarter_round_a_half_ball_and_down_the_slant():
    ball = carved(Round(100), HALF_CIRCLE, 1.0).envelope(6, 6)
    # Never less, and a little more along the facets of its surface.
    assert 0.998 <= reach_over(ball).farthest / (math.pi / 2 * 106) <= 1.02
    box = carved(Cornered(200, 120), BOX).envelope(3, 3)
    # Over the rounded edge of a coat: flat to the edge, a quarter round, and down.
    across = 100 + math.pi / 2 * 3 + 90
    assert 0.998 <= reach_over(box).across / across <= 1.05


@pytest.mark.parametrize(
    ("shape", "points", "round"),
    [(Round(100), HUMPS, 0.4), (heart(200), BOW, 1.0), (Cornered(200, 120), BOW, 0.4), (Round(100), HALF_CIRCLE, 0.0)],
)
def test_bodies_and_coats_nest_and_keep_within_their_views(shape, points, round):
    body = carved(shape, points, round)
    crumbed, coated = body.envelope(2, 2), body.envelope(8, 5)
    for share in (0.05, 0.5, 0.85):
        up = share * body.height_mm
        inner, middle, outer = (one.section(up).polygon for one in (body, crumbed, coated))
        assert inner.difference(body.core.edge.buffer(0.05)).area < 1
        assert inner.difference(middle.buffer(0.6)).area < 1
        assert middle.difference(outer.buffer(0.6)).area < 1
        assert not coated.outline.area_mm2 + 1 < outer.area
    assert body.volume_ml < crumbed.volume_ml < coated.volume_ml
    assert body.core.plane.difference(body.core.side.buffer(0.05)).area < 1


def test_what_is_drawn_is_the_view_itself():
    """Through the middle of an outline that is alike front and back, the cut is the view from the side."""
    for round in (0.0, 0.7, 1.0):
        body = carved(Round(100), HUMPS, round)
        view = Polygon([(x - 100, z) for x, z in HUMPS])
        assert body.plane.symmetric_difference(view).area < 0.004 * view.area
        right = Polygon([(0, 0), *body.half_profile()])
        assert right.area == pytest.approx(
            view.intersection(Polygon([(0, 0), (200, 0), (200, 300), (0, 300)])).area, rel=4e-3
        )
