"""A carved tier in the round: every layer, filling, coat and cover as triangles, cut open at its front right; the tins
it is baked in about it; and how much a cover of patches gives.
"""

import base64
from collections.abc import Iterator, Sequence
from typing import Literal

import numpy
from manifold3d import Manifold
from numpy.typing import NDArray

from amber_spread.core.design.finishes import PatchesCover
from amber_spread.core.geometry.patches import Cut
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.surface import surface_of
from amber_spread.core.geometry.triangles import Numbers, Triangles, alone, triangles_of
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


class RoundTin(Made):
    """A tin about the layer that is cut from what it bakes: its edges as lines, mm."""

    layer: int
    lines: list[list[list[float]]]


class RoundStretch(Made):
    """The surface that a cover of patches lies on, and how much each triangle of it is stretched or gathered.

    `strains` is a number of 8 bits a triangle, in base 64: 255 is `most`, or more. The rest is as of a part.
    """

    step_mm: float
    corners: str
    triangles: str
    strains: str
    most: float


class RoundView(Made):
    """All parts of a tier, the seams between its patches by their letters, what its cover gives, its tins, and the box
    it fills, from the least to the most in x, y and z, mm.
    """

    parts: list[RoundPart]
    seams: list[RoundSeam]
    stretch: RoundStretch | None
    tins: list[RoundTin]
    least: list[float]
    most: list[float]


def in_the_round(done: Worked, cut_open: bool, tins: Sequence[RoundTin] = ()) -> RoundView | None:
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
    cut = _patches(done)
    return RoundView(
        parts=parts,
        seams=[] if cut is None else list(_seams(cut, done, bodies.covered, cut_open)),
        stretch=None if cut is None else _stretch(cut, done, bodies.covered, cut_open),
        tins=list(tins),
        least=[left, front, low],
        most=[right, back, high],
    )


def _patches(done: Worked) -> Cut | None:
    """The patches a tier is covered in; None where it is covered otherwise."""
    cover, coated = done.tier.asked.cover, done.bodies.coated
    if not isinstance(cover, PatchesCover) or not isinstance(coated, Sculpted):
        return None
    if done.cover is None or not done.cover.suits:
        return None
    return cut_of(coated, _thick_mm(done), cover)


def _thick_mm(done: Worked) -> float:
    return done.tier.settled(done.tier.asked.cover, "thickness_mm").value


def _away(places: Numbers, cut_open: bool) -> NDArray[numpy.bool_]:
    """Which of some places are cut away, a row each."""
    return (places[:, 0] > 0) & (places[:, 1] < 0) if cut_open else numpy.zeros(len(places), dtype=bool)


def _stretch(cut: Cut, done: Worked, covered: Sculpted, cut_open: bool) -> RoundStretch:
    """What a cover of patches gives, a little outside it; without what is cut away."""
    cover = done.tier.asked.cover
    assert isinstance(cover, PatchesCover)
    kept = ~_away(cut.surface.middles, cut_open)
    corners, triangles = alone(cut.surface.corners, cut.surface.triangles[kept])
    corners = corners + covered.outward(corners) * (_thick_mm(done) / 2 + ABOVE_MM / 2)
    shares = numpy.clip(cut.strained[kept] / cover.stretch, 0.0, 1.0)
    return RoundStretch(
        step_mm=STEP_MM,
        **_packed(corners, triangles),
        strains=base64.b64encode(numpy.round(255 * shares).astype("u1").tobytes()).decode("ascii"),
        most=cover.stretch,
    )


def _seams(cut: Cut, done: Worked, covered: Sculpted, cut_open: bool) -> Iterator[RoundSeam]:
    """The seams of a cover of patches, on its outside; without what is cut away."""
    for seam, name in seam_names(cut).items():
        line = cut.seams[seam].line
        line = line + covered.outward(line) * (_thick_mm(done) / 2 + ABOVE_MM)
        kept = ~_away(line, cut_open)
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
        **_packed(corners, triangles),
    )


def _packed(corners: Numbers, triangles: Triangles) -> dict[str, str]:
    return {
        "corners": base64.b64encode(numpy.round(corners / STEP_MM).astype("<i2").tobytes()).decode("ascii"),
        "triangles": base64.b64encode(triangles.astype("<u2").tobytes()).decode("ascii"),
    }
