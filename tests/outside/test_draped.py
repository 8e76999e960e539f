"""Sheets over carved bodies against closed forms of surfaces, and against ways along edges found by networkx."""

import math

import networkx
import numpy
import pytest
import trimesh
from manifold3d import Manifold
from shapely import Point

from amber_spread.core.design.finishes import DrapeCover, HalvesCover
from amber_spread.core.geometry.bodies import solids
from amber_spread.core.geometry.bodies.meshed import meshed
from amber_spread.core.geometry.bodies.open_surface import Surface
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.triangles import alone, triangles_of
from amber_spread.core.geometry.sheets.draped import drape, over, over_halves
from amber_spread.core.geometry.sheets.unrolled import mostly
from amber_spread.core.tier.checks.finish import TORN_MOST
from amber_spread.core.tier.cover.draped import GIVES
from tests.core.test_pairs import PLAIN
from tests.designs import planned, tier, worked
from tests.outside.test_patches import sheet

PI = math.pi
R = 100.0


def top_of(solid, finest=9.0):
    """The surface of a solid without what it stands on, with a corner at its top."""
    corners, triangles = triangles_of(solid.refine_to_length(finest))
    standing = (corners[triangles][:, :, 2] <= corners[:, 2].min() + 1e-6).all(axis=1)
    return Surface(*alone(corners, triangles[~standing]))


def stretch_of(laid):
    """By what share of itself a sheet is drawn out at most, over 95 parts in 100 of the surface."""
    return max(0.0, mostly(laid.strain, laid.surface.areas))


def nearest(surface, place):
    return int(numpy.linalg.norm(surface.corners - place, axis=1).argmin())


@pytest.mark.parametrize(
    "bent",
    [
        lambda x, y: (x, y, 0 * x),
        lambda x, y: (40 * numpy.sin(x / 40), y, 40 - 40 * numpy.cos(x / 40)),
    ],
    ids=["flat", "rolled"],
)
def test_a_sheet_keeps_its_lengths_on_what_lies_flat(bent):
    """The place on the sheet is that on the rectangle the surface was bent out of, whichever way it is turned."""
    corners, triangles = sheet(110, 90, bent)
    flat, _ = sheet(110, 90, lambda x, y: (x, y, 0 * x))
    start = nearest(Surface(flat, triangles), [55, 45, 0])
    laid = drape(Surface(corners, triangles), start)
    apart = flat[:, :2] - flat[start, :2]
    assert laid.ways == pytest.approx(numpy.linalg.norm(apart, axis=1), rel=0.003, abs=0.01)
    turned = numpy.linalg.lstsq(laid.places, apart, rcond=None)[0]
    assert laid.places @ turned == pytest.approx(apart, abs=1.5)
    assert stretch_of(laid) < 0.02 and laid.beyond(0.05) == 0


def test_over_a_half_ball_a_sheet_takes_in_all_that_its_hem_is_longer():
    """On the way out, w, a circle of the sheet 2 pi w long lies along one of 2 pi R sin(w / R) (closed form)."""
    surface = top_of(Manifold.sphere(R, 96).trim_by_plane([0, 0, 1], 0))
    laid = drape(surface, nearest(surface, [0, 0, R]))
    true = R * numpy.arccos(numpy.clip(surface.corners[:, 2] / R, -1, 1))
    on_it = numpy.linalg.norm(surface.corners, axis=1) > R - 0.01
    assert laid.ways[on_it] == pytest.approx(true[on_it], rel=0.004, abs=0.2)
    on_sheet, on_body = laid.hem
    assert on_sheet / on_body == pytest.approx(PI / 2, rel=0.01)
    w = true[surface.triangles].mean(axis=1)
    ring = (w > 0.4 * R) & (w < 1.4 * R)
    assert laid.strain[ring] == pytest.approx(R * numpy.sin(w / R)[ring] / w[ring] - 1, abs=0.09)
    assert numpy.median(laid.strain[ring] - (R * numpy.sin(w / R)[ring] / w[ring] - 1)) == pytest.approx(0, abs=0.01)
    assert stretch_of(laid) == 0
    assert laid.outline.symmetric_difference(Point(0, 0).buffer(PI / 2 * R)).area < 0.02 * PI * (PI / 2 * R) ** 2


def test_over_a_saddle_a_sheet_is_drawn_out():
    """What is hollow both ways has more round a place than is flat: 2 pi w (1 - K w^2 / 6), K below 0 (Bertrand and
    Puiseux, from memory).
    """
    corners, triangles = sheet(120, 120, lambda x, y: (x - 60, y - 60, ((x - 60) ** 2 - (y - 60) ** 2) / 240))
    surface = Surface(corners, triangles)
    laid = drape(surface, nearest(surface, [0, 0, 0]))
    w = laid.ways[triangles].mean(axis=1)
    near = (w > 20) & (w < 40)
    curved = -1 / 120**2
    assert laid.strain[near].mean() == pytest.approx((-curved * w[near] ** 2 / 6).mean(), rel=0.35)
    assert laid.strain[near].mean() > 0.004
    assert stretch_of(laid) > 0.02


@pytest.mark.parametrize("name", ["ball", "stone", "arch", "ell"])
def test_the_way_to_every_place_is_no_longer_than_along_edges_and_no_shorter_than_straight(name):
    bodies = {
        "ball": Manifold.sphere(R, 60).trim_by_plane([0, 0, 1], -40),
        "stone": Manifold.sphere(1, 60).scale([120, 80, 60]).trim_by_plane([0, 0, 1], -25),
        "arch": Manifold.cube([200, 80, 100], True) - Manifold.cylinder(90, 30, 30, 48, True).rotate([90, 0, 0]),
        "ell": Manifold.cube([200, 80, 60]).translate([-60, -40, 0]) + Manifold.cube([60, 80, 130]).translate([-60, -40, 0]),
    }  # fmt: skip
    surface = top_of(bodies[name], 12.0)
    start = nearest(surface, [0, 0, surface.corners[:, 2].max()])
    laid = drape(surface, start)
    mesh = trimesh.Trimesh(surface.corners, surface.triangles, process=False)
    graph = networkx.Graph()
    for (one, other), long in zip(mesh.edges_unique.tolist(), mesh.edges_unique_length.tolist(), strict=True):
        graph.add_edge(one, other, weight=long)
    along = networkx.single_source_dijkstra_path_length(graph, start)
    assert len(along) == len(surface.corners)
    edges = numpy.array([along[at] for at in range(len(surface.corners))])
    straight = numpy.linalg.norm(surface.corners - surface.corners[start], axis=1)
    assert (laid.ways <= edges + 1e-6).all() and (laid.ways >= straight - 1e-6).all()
    assert laid.ways == pytest.approx(numpy.linalg.norm(laid.places, axis=1), abs=1e-6)
    # Ways along edges are seldom more than a fifth longer.
    assert (laid.ways >= edges / 1.25).mean() > 0.95


@pytest.mark.parametrize(("solid", "torn"), [(solids.ball(2 * R), False), (solids.ring(240, 60), True)])
def test_a_hollow_tears_a_sheet_and_a_ball_does_not(solid, torn):
    """The inner side of a ring is hollow one way and bulges the other; nothing of a ball is."""
    sheet_over = over(Sculpted(meshed(solid)))
    assert (sheet_over.evenly.beyond(GIVES) > TORN_MOST) == torn


def test_halves_meet_along_the_seam_and_cover_all_of_it():
    """Areas add up to the surface; the seam of a ball cut through its middle goes half round it, down to the foot."""
    body = Sculpted(meshed(Manifold.sphere(R, 72).trim_by_plane([0, 0, 1], 0)))
    halves, seam = over_halves(body)
    whole = over(body).follows.surface.areas.sum()
    assert sum(half.follows.surface.areas.sum() for half in halves) == pytest.approx(whole, rel=1e-3)
    assert seam == pytest.approx(PI * R, rel=0.02)
    for half in halves:
        left, low, right, high = half.follows.extent
        # From the middle of a quarter of a ball, 45 degrees up, to both ends of its foot a quarter round.
        assert right - left == pytest.approx(PI * R, rel=0.03)
        assert high - low == pytest.approx(PI / 2 * R, rel=0.03)


def test_the_figures_of_a_sheet_are_those_of_how_it_lies():
    stone = next(build for build in PLAIN if build.kind == "modelled")
    one = tier(203.2, build=stone, cover=DrapeCover(sheet="circle"))
    done, whole = worked(one), planned(one)
    cover = whole.tiers[0].cover
    assert cover.suits
    laid = over(done.bodies.coated).follows
    reach = (cover.roll_diameter.value - 2 * cover.overlap.value) / 2
    # Never less than the shortest way to the farthest place, nor more than straight down over a corner.
    assert laid.hull.convex and 1 <= reach / laid.farthest <= 1.11
    assert cover.gather.value > 1.2 and 0 <= cover.torn.value < 1
    halved = planned(tier(203.2, build=stone, cover=HalvesCover(band_mm=20))).tiers[0].cover
    assert halved.suits and sorted(halved.pieces) == ["band", "half_1", "half_2"]
    # Two sheets lie with less to gather than one over all of it, and the band goes with what stays.
    assert halved.gather.value < cover.gather.value
    assert halved.stays.value > halved.over.weight.value
