"""A carved tier in the round: every layer, filling, coat and cover as triangles, cut open at its front right; the tins
it is baked in about it; and how much its cover gives.
"""

import base64
from collections.abc import Iterator, Sequence
from typing import Any, Literal, NamedTuple

import numpy
from manifold3d import Manifold
from numpy.typing import NDArray
from shapely import get_coordinates

from amber_spread.core.design.finishes import DrapeCover, HalvesCover, PatchesCover
from amber_spread.core.geometry.bodies.open_surface import Surface
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sliced import Level, levels
from amber_spread.core.geometry.bodies.solids import raised
from amber_spread.core.geometry.bodies.surface import surface_of
from amber_spread.core.geometry.bodies.triangles import Triangles, alone, triangles_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.geometry.sheets.draped import over, over_halves
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.paint import Paint
from amber_spread.core.tier.carve.emptied import Emptied, emptied_of
from amber_spread.core.tier.cover.draped import GIVES
from amber_spread.core.tier.cover.patched import cut_of, seam_names
from amber_spread.core.tier.decorate.regions import region_over, sector_of
from amber_spread.core.tier.worked import PlannedTier

Matter = Literal["cake", "filling", "refill", "crumb", "final", "cover", "region"]
Envelope = Literal["bare", "coated", "covered"]
STEP_MM = 0.05
"""Corners are told in whole steps of this."""
BEYOND_MM = 20.0
ABOVE_MM = 1.2
"""A seam is drawn so far outside, so that it is seen."""
MOST_CORNERS = 65_535
TAKEN_IN = 0.5
"""A sheet taken in by half is painted as dark as may be: so much is eased in at the foot of an everyday tier (from
memory)."""
LEAST_ML = 0.05
"""A part of less is not seen."""


class RoundMesh(PlanPart):
    """Triangles to be drawn: `corners` are three whole numbers each, in steps of `step_mm`, and `triangles` three of
    the corners each, both as 16 bits in base 64.
    """

    step_mm: float
    corners: str
    triangles: str


class RoundPart(RoundMesh):
    """One part of the tier: what it is, and its colour. `number` counts layers and fillings from the foot up."""

    matter: Matter
    number: int
    paint: Paint


class RoundSeam(PlanPart):
    """A seam between two patches of the cover: its letter, and the line it runs along, mm."""

    name: str
    line: list[list[float]]


class RoundTin(PlanPart):
    """A tin about the layer that is cut from what it bakes: its edges as lines, mm."""

    layer: int
    lines: list[list[list[float]]]


class RoundStretch(RoundMesh):
    """The surface that a cover lies on, and how much each triangle of it gives: `strains` is a whole number of 8 bits a
    triangle, in base 64, where 127 is drawn out by `most`, or more, and -127 taken in by `most_in`, or more. Of patches
    both are above 0, since either is eased.
    """

    strains: str
    most: float
    most_in: float | None


class RoundView(PlanPart):
    """All parts of a tier, the seams between its patches by their letters, what its cover gives, its tins, and the box
    it fills, from the least to the most in x, y and z, mm.
    """

    parts: list[RoundPart]
    seams: list[RoundSeam]
    stretch: list[RoundStretch]
    tins: list[RoundTin]
    least: list[float]
    most: list[float]


def in_the_round(done: PlannedTier, cut_open: bool, tins: Sequence[RoundTin] = ()) -> RoundView | None:
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
        _part(matter, number, paint, found)
        for matter, number, paint, solid in _solids(done)
        if (found := solid - away).volume() > LEAST_ML * 1000
    ]
    laid = list(_Laid.of(done))
    return RoundView(
        parts=parts,
        seams=[seam for one in laid for seam in one.drawn(cut_open)],
        stretch=[one.painted(cut_open) for one in laid],
        tins=list(tins),
        least=[left, front, low],
        most=[right, back, high],
    )


class _Laid(NamedTuple):
    """A cover as it lies: the surface it was laid out on, how much each triangle of that gives, the most it may, how
    far that surface is from the outside of the sheet, and the seams on it by their letters.
    """

    surface: Surface
    strain: Numbers
    most: float
    most_in: float | None
    covered: Sculpted
    off_mm: float
    seams: dict[str, Numbers]

    @classmethod
    def of(cls, done: PlannedTier) -> "Iterator[_Laid]":
        """What a carved tier is covered in, a sheet or all patches each; nothing where that does not suit it."""
        cover, (coated, covered) = done.tier.asked.cover, (done.bodies.coated, done.bodies.covered)
        if done.cover is None or not done.cover.suits or not isinstance(cover, DrapeCover | HalvesCover | PatchesCover):
            return
        assert isinstance(coated, Sculpted) and isinstance(covered, Sculpted)
        thick_mm = done.tier.settled(cover, "thickness_mm").value
        if isinstance(cover, PatchesCover):
            cut = cut_of(coated, thick_mm, cover)
            seams = {name: cut.seams[seam].line for seam, name in seam_names(cut).items()}
            yield cls(cut.surface, cut.strained, cover.stretch, None, covered, thick_mm / 2, seams)
            return
        for sheet in [over(coated)] if isinstance(cover, DrapeCover) else over_halves(coated)[0]:
            yield cls(sheet.evenly.surface, sheet.evenly.strain, GIVES, TAKEN_IN, covered, thick_mm, {})

    def outside(self, places: Numbers, more_mm: float) -> Numbers:
        """Places of the surface, so far off the outside."""
        found: Numbers = places + self.covered.outward(places) * (self.off_mm + more_mm)
        return found

    def painted(self, cut_open: bool) -> RoundStretch:
        """What it gives, a little outside it; without what is cut away."""
        kept = _kept(self.surface.middles, cut_open)
        corners, triangles = alone(self.surface.corners, self.surface.triangles[kept])
        strain = self.strain[kept]
        shares = numpy.where(strain > 0, strain / self.most, strain / (self.most_in or self.most))
        strains = numpy.round(127 * numpy.clip(shares, -1.0, 1.0)).astype("i1").tobytes()
        return RoundStretch(
            **_packed(self.outside(corners, ABOVE_MM / 2), triangles),
            strains=base64.b64encode(strains).decode("ascii"),
            most=self.most,
            most_in=self.most_in,
        )

    def drawn(self, cut_open: bool) -> Iterator[RoundSeam]:
        """Its seams, on its outside; without what is cut away."""
        for name, places in self.seams.items():
            line = self.outside(places, ABOVE_MM)
            ends = numpy.flatnonzero(numpy.diff(numpy.concatenate([[0], _kept(line, cut_open).astype(int), [0]])))
            for start, stop in zip(ends[::2], ends[1::2], strict=True):
                if stop - start > 1:
                    yield RoundSeam(name=name, line=line[start:stop].round(2).tolist())


def _kept(places: Numbers, cut_open: bool) -> NDArray[numpy.bool_]:
    """Which of some places are not cut away, a row each."""
    return ~((places[:, 0] > 0) & (places[:, 1] < 0)) if cut_open else numpy.ones(len(places), dtype=bool)


def levels_of(done: PlannedTier) -> list[Level]:
    """A carved tier without its coats cut level from its foot to its top, to be looked at at any height, with what is
    cut out of it there; none of any other.
    """
    body, emptied = done.bodies.bare, _emptied(done)
    return levels(body, emptied.key, emptied.over) if isinstance(body, Sculpted) and emptied is not None else []


def _emptied(done: PlannedTier) -> Emptied | None:
    return emptied_of(done.tier.asked.build, done.bodies.bare, done.slabs, done.layers.cavity)


def envelope_of(done: PlannedTier, which: Envelope) -> tuple[Numbers, Triangles] | None:
    """The corners and triangles of a carved tier without coats, with them, or covered; None of any other tier."""
    body = getattr(done.bodies, which)
    if not isinstance(body, Sculpted):
        return None
    return triangles_of(surface_of(body))


def _solids(done: PlannedTier) -> Iterator[tuple[Matter, int, Paint, Manifold]]:
    """Everything the tier is made of, from the inside out, with its colour."""
    paints: dict[str, Paint] = {}
    for part in done.drawn.parts:
        paints.setdefault(part.kind, part.paint)
    bodies = done.bodies
    nested = [
        surface_of(body)
        for body in (bodies.bare, bodies.crumbed, bodies.coated, bodies.covered)
        if isinstance(body, Sculpted)
    ]
    whole = nested[0]
    emptied = _emptied(done)
    if done.carving is not None and emptied is not None:
        whole = whole - emptied.room
        for number, (opening, told) in enumerate(zip(emptied.solids, done.carving.openings.values(), strict=True), 1):
            if told.hex is not None:
                yield "refill", number, told.hex, whole ^ opening
            whole = whole - opening
    for slab in done.slabs:
        level = whole.trim_by_plane([0.0, 0.0, 1.0], slab.low).trim_by_plane([0.0, 0.0, -1.0], -slab.high)
        if slab.kind == "layer":
            yield "cake", slab.number, paints.get("sponge", "sponge"), level
        elif slab.kind == "filling":
            yield "filling", slab.number, paints.get("filling", "sponge"), level
    matters: tuple[Matter, ...] = ("crumb", "final", "cover")
    for matter, inner, outer in zip(matters, nested, nested[1:], strict=False):
        if matter in paints and outer.volume() - inner.volume() > LEAST_ML * 1000:
            yield matter, 0, paints[matter], outer - inner

    covered = done.bodies.covered
    for number, (asked, region) in enumerate(zip(done.tier.asked.regions, done.regions.values(), strict=True), 1):
        outer = region_over(covered, region.relief.value)
        assert isinstance(outer, Sculpted)
        solid = (surface_of(outer) - nested[-1]).trim_by_plane([0.0, 0.0, 1.0], covered.foot_mm + region.low.value)
        if not region.on_top:
            solid = solid.trim_by_plane([0.0, 0.0, -1.0], -(covered.foot_mm + region.high.value))
        sector = sector_of(asked)
        if not sector.whole:
            side = get_coordinates(sector.area(2 * outer.outline.reach_mm).exterior)[:-1].tolist()
            solid = solid ^ raised(side, outer.height_mm).translate([0, 0, outer.foot_mm])
        yield "region", number, region.hex, solid


def _part(matter: Matter, number: int, paint: Paint, solid: Manifold) -> RoundPart:
    moved_mm = STEP_MM
    while solid.num_vert() > MOST_CORNERS:
        solid, moved_mm = solid.simplify(moved_mm), 2 * moved_mm
    corners, triangles = triangles_of(solid)
    return RoundPart(**_packed(corners, triangles), matter=matter, number=number, paint=paint)


def _packed(corners: Numbers, triangles: Triangles) -> dict[str, Any]:
    """Triangles as a mesh is told."""
    return {
        "step_mm": STEP_MM,
        "corners": base64.b64encode(numpy.round(corners / STEP_MM).astype("<i2").tobytes()).decode("ascii"),
        "triangles": base64.b64encode(triangles.astype("<u2").tobytes()).decode("ascii"),
    }
