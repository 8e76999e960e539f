"""Covering a carved tier in patches: pieces that each lie nearly flat, with the marks by which they meet."""

import math
from collections.abc import Iterator
from string import ascii_uppercase
from typing import NamedTuple

import numpy
from shapely import Point as Point2
from shapely import Polygon
from shapely.affinity import translate
from shapely.geometry.polygon import orient

from amber_spread.core.design.finishes import PatchesCover, PatchSeam
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.surface import open_surface_of
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.pieces import Corner, Mark, Piece, drawn_along, edge_of, piece_of, size_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.geometry.sheets.parted import Level, Upright, Within
from amber_spread.core.geometry.sheets.patches import Cut, Patch, cut_up
from amber_spread.core.kernel.figures import carry_over, total
from amber_spread.core.tier.cover.plan import Job, Way, band_over

FINE_MM = 0.25
"""Corners of a piece that stand out by less are left out."""
TICK_MM = 12.0
HALF, QUARTER = 0.5, 0.25
"""A seam's letter stands at its middle, and a tick at its quarter, so that it is plain which way round it goes."""


def plan_patches(job: Job, cover: PatchesCover) -> Way | None:
    """The pieces of a carved tier, each cut at the middle of the sheet's thickness; None of any other, and of one whose
    patches cannot all be laid flat.
    """
    if not isinstance(job.coated, Sculpted):
        return None
    cut = cut_of(job.coated, job.thickness.value, cover)
    if math.isinf(cut.strain):
        return None
    # Kept with the body, so that another colour draws nothing anew.
    drawn, letters = job.coated.core.cached(
        "drawn patches",
        cut,
        lambda: (
            [_drawn(patch, cut) for patch in cut.patches],
            {name: cut.seams[seam].length for seam, name in seam_names(cut).items()},
        ),
    )
    pieces = {
        f"patch_{number}": _piece(number, one, job, *cover.cut_from(number)) for number, one in enumerate(drawn, 1)
    }
    wide = cover.strip_mm
    strips = {
        f"strip_{name.lower()}": band_over(
            f"Strip {name}",
            carry_over("the seam", long, "mm", "up"),
            carry_over("strip, wide", wide, "mm", "up"),
            job,
            cover.colour,
        )
        for name, long in letters.items()
        if wide
    }
    own: dict[str, object] = {
        "strain": carry_over("of the patch that gives most, over 95 parts in 100 of it", cut.strain, "ratio", "up"),
        "seams": total({f"seam {name}": length for name, length in letters.items()}, "mm"),
    }
    return Way(pieces | strips, True, own, over=tuple(strips))


def cut_of(coated: Sculpted, thick_mm: float, cover: PatchesCover) -> Cut:
    """The surface at the middle of a sheet over a coated body, in patches; kept with the body."""
    own = tuple(map(_seam, cover.own_seams))
    key = coated.side_mm, coated.top_mm, coated.under_mm, thick_mm, cover.stretch, cover.parts, cover.turn_deg, own
    middle = coated.envelope(thick_mm / 2, thick_mm / 2)
    return coated.core.cached(
        "patches", key, lambda: cut_up(open_surface_of(middle), cover.stretch, cover.parts, cover.turn_deg, own)
    )


def _seam(one: PatchSeam) -> Level | Upright:
    within = None if one.within is None else Within(one.within.seam - 1, one.within.side == "beyond")
    return Level(one.at, within) if one.run == "level" else Upright(one.at, one.turn_deg, within)


def seam_names(cut: Cut) -> dict[int, str]:
    """A letter for each seam between two patches, A to Z and then AA."""
    inner = [number for number, seam in enumerate(cut.seams) if seam.other is not None]
    letters = len(ascii_uppercase)
    return {seam: ascii_uppercase[index % letters] * (1 + index // letters) for index, seam in enumerate(inner)}


class _Drawn(NamedTuple):
    """A patch as it is cut: its edge, the marks by which it meets the others, and how wide and high it is."""

    edge: list[Corner]
    marks: list[Mark]
    size: tuple[float, float]


def _drawn(patch: Patch, cut: Cut) -> _Drawn:
    polygon = orient(Polygon(patch.edge).simplify(FINE_MM))
    left, low, _, _ = polygon.bounds
    names, whole = seam_names(cut), Polygon(patch.edge)
    marks = [
        mark
        for seam, line in patch.seams.items()
        if seam in names
        for mark in _mates(names[seam], line, whole, (left, low))
    ]
    edge = edge_of(translate(polygon, -left, -low))
    return _Drawn(edge, marks, size_of(edge))


def _piece(number: int, one: _Drawn, job: Job, medium: str, colour: str | None) -> Piece:
    wide, high = one.size
    sizes = {
        "wide": carry_over("at its widest", wide, "mm", "up"),
        "high": carry_over("at its highest", high, "mm", "up"),
    }
    found = piece_of(f"Patch {number}", one.edge, job.hex_of(colour, medium), 1, colour, **sizes)
    return found.replace(marks=one.marks, medium=None if medium == job.medium.key else medium)


def _mates(name: str, line: Numbers, within: Polygon, origin: Point) -> Iterator[Mark]:
    """Ticks inward from a seam at its middle and its quarter: the same on both pieces that meet there."""
    steps = numpy.concatenate([[0.0], numpy.cumsum(numpy.linalg.norm(numpy.diff(line, axis=0), axis=1))])
    for share, called in ((HALF, name), (QUARTER, "")):
        at = share * steps[-1]
        x, y = (float(numpy.interp(at, steps, line[:, axis])) for axis in (0, 1))
        ahead = [float(numpy.interp(min(steps[-1], at + 1), steps, line[:, axis])) for axis in (0, 1)]
        along = ahead[0] - x, ahead[1] - y
        size = math.hypot(*along) or 1.0
        inward = -along[1] / size, along[0] / size
        if not within.contains(Point2(x + inward[0], y + inward[1])):
            inward = -inward[0], -inward[1]
        tick = TICK_MM if called else TICK_MM / 2
        ends = [(x - origin[0], y - origin[1]), (x + tick * inward[0] - origin[0], y + tick * inward[1] - origin[1])]
        yield from drawn_along(called, ends)
