"""How long carving takes beside the bare library calls it rests on, and how near its figures come to closed forms."""

import math
import resource
from datetime import date

import numpy
from manifold3d import Manifold
from scipy.spatial import cKDTree

from amber_spread.core.design.builds import ModelledBuild
from amber_spread.core.document import Document, carved_bodies, plan_document
from amber_spread.core.geometry.bodies.distance import MARGIN_MM, SKIN_SHARE, distances
from amber_spread.core.geometry.bodies.pebble import pebble
from amber_spread.core.geometry.bodies.sculpted import sculpted
from amber_spread.core.geometry.bodies.surface import open_surface_of
from amber_spread.core.geometry.bodies.triangles import solid_of, triangles_of
from amber_spread.core.geometry.sheets.patches import cut_up
from amber_spread.core.geometry.sheets.reach import reach_over
from amber_spread.core.kernel.caching import forget
from amber_spread.demo.week import week
from amber_spread.papers.model_reading import read_model
from amber_spread.papers.model_writing import write_model
from amber_spread.speed.timing import GOAL_PLAN_MS, RUNS, show


def bench_carving() -> None:
    """Time carving, and print how near its figures come to closed forms."""
    _bench_boat()
    _bench_triangles()
    _errors_by_triangles()


def _bench_boat() -> None:
    """Time a carved body beside the bare library calls it rests on, and an edit of its colour."""
    document = next(one for one in week(date(2026, 11, 24)) if one.design.tiers[0].build.carved)

    def anew() -> None:
        forget()

    print("\na carved body")
    (body,) = carved_bodies(document)
    field = distances(body)
    places, _ = body.skin(SKIN_SHARE * field.step_mm)
    lattice = numpy.stack(numpy.meshgrid(field.x, field.y, field.z, indexing="ij"), axis=-1).reshape(-1, 3)
    outside = lattice[(field.away > -MARGIN_MM).ravel()]
    print(f"  {len(places)} places on its surface, {len(outside)} places of a lattice")
    floor = show("floor: its nearest places by the bare k-d tree", lambda: cKDTree(places).query(outside), runs=5)
    whole = show(
        "plan of a flat boat under one sheet, from nothing", lambda: plan_document(document), runs=5, before=anew
    )
    print(f"  {whole / floor:.1f} times the bare tree")
    colours = (_coloured(document, step) for step in range(RUNS + 1))
    show("the same body, its sheet coloured anew", lambda: plan_document(next(colours)), GOAL_PLAN_MS)


def _bench_triangles() -> None:
    """Time a body of 100,000 triangles from its file to its patches, beside the bare calls that rests on."""
    corners, triangles = pebble(240.0, 480)
    data = write_model(corners, triangles, "stl")
    print(f"\na body out of a file of {len(triangles):,} triangles")
    read = read_model(data, "mm", "z")
    build = ModelledBuild(mesh=read.mesh, error_mm=read.error_mm)
    heights = numpy.linspace(1.0, 0.95 * build.own().height_mm, 240)
    own = build.own()
    field = distances(own)
    places, _ = own.skin(SKIN_SHARE * field.step_mm)
    lattice = numpy.stack(numpy.meshgrid(field.x, field.y, field.z, indexing="ij"), axis=-1).reshape(-1, 3)
    outside = lattice[(field.away > -MARGIN_MM).ravel()]

    def bare() -> None:
        fewer = solid_of(corners, triangles).simplify(read.error_mm)
        for up in heights:
            fewer.slice(float(up))
        cKDTree(places).query(outside)

    def all_of_it() -> None:
        anew = ModelledBuild(mesh=read_model(data, "mm", "z").mesh).own()
        coated = sculpted(anew).envelope(6.0, 6.0)
        assert coated.volume_ml > anew.volume_ml
        assert reach_over(coated).farthest > 0
        assert cut_up(open_surface_of(coated), 0.12).patches

    floor = show("floor: made fewer, sliced 240 times, its nearest places by the bare tree", bare, runs=3)
    whole = show("read, sliced, coated, covered in one sheet and in patches", all_of_it, 3000.0, runs=3, before=forget)
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"  {whole / floor:.1f} times the bare calls; {most:.0f} MB at most since the bench began")


def _errors_by_triangles() -> None:
    """Print how far half a ball out of a file is from its closed forms, the more triangles it has."""
    radius, coat = 100.0, 6.0
    ball_ml = 2 / 3 * math.pi * radius**3 / 1000
    # The coat stands on the table; it goes round and over, and not below.
    coat_ml = 2 / 3 * math.pi * ((radius + coat) ** 3 - radius**3) / 1000
    section = math.pi * (radius**2 - (radius / 2) ** 2)
    reach = math.pi / 2 * (radius + coat)
    print("\nhalf a ball of 200 mm out of a file: off its closed forms, in per cent, by how many triangles it has")
    print("  triangles     volume    section   coat of 6 mm   reach of a sheet   surface of its patches")
    for pieces in (16, 32, 64, 128, 256, 512):
        half = Manifold.sphere(radius, pieces).trim_by_plane([0.0, 0.0, 1.0], 0.0)
        corners, triangles = triangles_of(half)
        forget()
        body = sculpted(ModelledBuild(mesh=read_model(write_model(corners, triangles, "stl"), "mm", "z").mesh).own())
        coated = body.envelope(coat, coat)
        patches = cut_up(open_surface_of(coated), 0.12)
        found = (
            (body.volume_ml, ball_ml),
            (body.section(radius / 2).area_mm2, section),
            (coated.volume_ml - body.volume_ml, coat_ml),
            (reach_over(coated).farthest, reach),
            (float(patches.surface.areas.sum()), 2 * math.pi * (radius + coat) ** 2),
        )
        off = [100 * (value / true - 1) for value, true in found]
        print(f"  {len(triangles):9,} {off[0]:+10.2f} {off[1]:+10.2f} {off[2]:+14.2f} {off[3]:+18.2f} {off[4]:+24.2f}")


def _coloured(document: Document, step: int) -> Document:
    """The document with its first colour a shade on."""
    first, *others = document.design.colours
    shade = first.model_copy(update={"hex": f"#{0x746000 + step:06X}"})
    return document.model_copy(update={"design": document.design.model_copy(update={"colours": (shade, *others)})})
