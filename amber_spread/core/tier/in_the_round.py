"""A carved tier in the round: every layer, filling, coat and cover as triangles, cut open at its front right."""

import base64
from collections.abc import Iterator
from typing import Literal

import numpy
from manifold3d import Manifold

from amber_spread.core.design.finishes import PatchesCover
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.surface import surface_of
from amber_spread.core.geometry.triangles import Numbers, Triangles, triangles_of
from amber_spread.core.kernel.base import Made
from amber_spread.core.tier.drawn import SPONGE_HEX
from amber_spread.core.tier.patched import cut_of, seam_names
from amber_spread.core.tier.worked import Worked

Matter = Literal["cake", "filling", "crumb", "final", "cover"]
Envelope = Literal["bare", "coated", "covered"]
STEP_MM = 0.05
"""Corners are told in whole steps of this."""
BEYOND_MM = 20.0
ABOVE_MM = 1.2
"""A seam is drawn so far outside, so that it is seen."""
MOST_CORNERS = 65_535
LEAST_ML = 0.05
"""A part of less is not seen."""


class RoundPart(Made):
    """One part of the tier: what it is, its colour, and its triangles.

    `corners` are three whole numbers each, in steps of `step_mm`, and `triangles` three of the corners each, both as
    16 bits in base 64. `number` counts layers and fillings from the foot up.
    """

    matter: Matter
    number: int
    hex: str
    step_mm: float
    corners: str
    triangles: str


class RoundSeam(Made):
    """A seam between two patches of the cover: its letter, and the line it runs along, mm."""

    name: str
    line: list[list[float]]


class RoundView(Made):
    """All parts of a tier, the seams between its patches by their letters, and the box it fills, from the least to the
    most in x, y and z, mm.
    """

    parts: list[RoundPart]
    seams: list[RoundSeam]
    least: list[float]
    most: list[float]


def in_the_round(done: Worked, cut_open: bool) -> RoundView | None:
    """A carved tier in the round, its front right cut away where it is `cut_open`; None of any other tier."""
    bodies = done.bodies
    if not isinstance(bodies.covered, Sculpted):
        return None
    whole = surface_of(bodies.covered)
    left, front, low, right, back, high = whole.bounding_box()
    away = Manifold()
    if cut_open:
        size = [right + BEYOND_MM, BEYOND_MM - front, high - low + 2 * BEYOND_MM]
        away = Manifold.cube(size).translate([0.0, front - BEYOND_MM, low - BEYOND_MM])
    parts = [
        _part(matter, number, hex, found)
        for matter, number, hex, solid in _solids(done)
        if (found := solid - away).volume() > LEAST_ML * 1000
    ]
    seams = list(_seams(done, bodies.covered, cut_open))
    return RoundView(parts=parts, seams=seams, least=[left, front, low], most=[right, back, high])


def _seams(done: Worked, covered: Sculpted, cut_open: bool) -> Iterator[RoundSeam]:
    """The seams of a cover of patches, on its outside; without what is cut away."""
    cover, coated = done.tier.asked.cover, done.bodies.coated
    if not isinstance(cover, PatchesCover) or not isinstance(coated, Sculpted):
        return
    if done.cover is None or not done.cover.suits:
        return
    thick_mm = done.tier.settled(cover, "thickness_mm").value
    cut = cut_of(coated, thick_mm, cover)
    for seam, name in seam_names(cut).items():
        line = cut.seams[seam].line
        line = line + covered.outward(line) * (thick_mm / 2 + ABOVE_MM)
        kept = ~((line[:, 0] > 0) & (line[:, 1] < 0)) if cut_open else numpy.ones(len(line), dtype=bool)
        ends = numpy.flatnonzero(numpy.diff(numpy.concatenate([[0], kept.astype(int), [0]])))
        for start, stop in zip(ends[::2], ends[1::2], strict=True):
            if stop - start > 1:
                yield RoundSeam(name=name, line=line[start:stop].round(2).tolist())


def envelope_of(done: Worked, which: Envelope) -> tuple[Numbers, Triangles] | None:
    """The corners and triangles of a carved tier without coats, with them, or covered; None of any other tier."""
    body = getattr(done.bodies, which)
    if not isinstance(body, Sculpted):
        return None
    return triangles_of(surface_of(body))


def _solids(done: Worked) -> Iterator[tuple[Matter, int, str, Manifold]]:
    """Everything the tier is made of, from the inside out, with its colour."""
    hexes: dict[str, str] = {}
    for part in done.drawn.parts:
        hexes.setdefault(part.kind, part.hex)
    bodies = done.bodies
    nested = [surface_of(body) for body in (bodies.bare, bodies.crumbed, bodies.coated, bodies.covered)
              if isinstance(body, Sculpted)]  # fmt: skip
    for slab in done.slabs:
        level = nested[0].trim_by_plane([0.0, 0.0, 1.0], slab.low).trim_by_plane([0.0, 0.0, -1.0], -slab.high)
        if slab.kind == "layer":
            yield "cake", slab.number, hexes.get("sponge", SPONGE_HEX), level
        elif slab.kind == "filling":
            yield "filling", slab.number, hexes.get("filling", SPONGE_HEX), level
    matters: tuple[Matter, ...] = ("crumb", "final", "cover")
    for matter, inner, outer in zip(matters, nested, nested[1:], strict=False):
        if matter in hexes and outer.volume() - inner.volume() > LEAST_ML * 1000:
            yield matter, 0, hexes[matter], outer - inner


def _part(matter: Matter, number: int, hex: str, solid: Manifold) -> RoundPart:
    moved_mm = STEP_MM
    while solid.num_vert() > MOST_CORNERS:
        solid, moved_mm = solid.simplify(moved_mm), 2 * moved_mm
    corners, triangles = triangles_of(solid)
    return RoundPart(
        matter=matter,
        number=number,
        hex=hex,
        step_mm=STEP_MM,
        corners=base64.b64encode(numpy.round(corners / STEP_MM).astype("<i2").tobytes()).decode("ascii"),
        triangles=base64.b64encode(triangles.astype("<u2").tobytes()).decode("ascii"),
    )
