"""Sheets over a carved tier: one over all of it, or one over each half, with what of them comes to lie on it."""

from collections.abc import Iterable

from shapely.affinity import translate

from amber_spread.core.design.finishes import HalvesCover, PatchesCover
from amber_spread.core.design.kinds import suits
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.pieces import Mark, Piece, drawn_along, piece_of, rectangle
from amber_spread.core.geometry.sheets.draped import Draped, Sheet, over, over_halves
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.tier.cover.plan import Job, Way, band_over
from amber_spread.core.tier.cover.rules import gather_along, half_long

DRAWN_MM = 0.5
"""How far a line of the hem as it is drawn may lie off it."""
CROSS_MM = 8.0
GIVES = PatchesCover().stretch
"""A sheet may be drawn out by as much as a patch is begun with (from memory); beyond that it tears."""


def hem_of(job: Job, middle: Point) -> list[Mark]:
    """What of a sheet over a carved tier comes to lie on it, and where it is set down, at `middle` of the sheet;
    nothing of any other tier.
    """
    return list(_marks(over(job.coated).follows, middle)) if isinstance(job.coated, Sculpted) else []


def gives_over(job: Job) -> dict[str, object] | None:
    """How many times as long as what it lies along the hem of a sheet over a carved tier is; and of how much of the
    surface it would have to be drawn out by more than fondant gives. None of any other tier.
    """
    return _gives([over(job.coated)]) if isinstance(job.coated, Sculpted) else None


def plan_halves(job: Job, cover: HalvesCover) -> Way | None:
    """A sheet over each half of a carved tier, and a band along the seam between them; None of any other tier."""
    if not isinstance(job.coated, Sculpted):
        return None
    overlap = job.tier.settled(cover, "overlap_mm")
    wide = job.tier.settled(cover, "band_mm")
    sheets, along_mm = over_halves(job.coated)
    pieces = {f"half_{at}": _half(at, sheet.follows, overlap, job, cover) for at, sheet in enumerate(sheets, 1)}
    seam = carry_over("along the seam", along_mm, "mm", "up")
    band = {"band": band_over("Band", seam, wide, job, cover.colour)} if wide.value else {}
    return Way(pieces | band, True, {"overlap": overlap, **_gives(sheets)}, suits("halves", job.build), tuple(band))


def _half(number: int, sheet: Draped, overlap: Figure, job: Job, cover: HalvesCover) -> Piece:
    left, low, right, high = sheet.extent
    wide, tall = (half_long.figure(far - near, overlap.value) for near, far in ((left, right), (low, high)))
    edge = rectangle(wide.value, tall.value)
    piece = piece_of(f"Half {number}", edge, job.hex_of(cover.colour), 1, cover.colour, wide=wide, high=tall)
    return piece.replace(marks=list(_marks(sheet, (overlap.value - left, overlap.value - low))))


def _gives(sheets: list[Sheet]) -> dict[str, object]:
    hems = [sum(lengths) for lengths in zip(*(sheet.follows.hem for sheet in sheets), strict=True)]
    return {"gather": gather_along.figure(*hems), "torn": _torn(sheets)}


def _torn(sheets: list[Sheet]) -> Figure:
    areas = [float(sheet.evenly.surface.areas.sum()) for sheet in sheets]
    torn = [sheet.evenly.beyond(GIVES) for sheet in sheets]
    share = sum(area * one for area, one in zip(areas, torn, strict=True)) / sum(areas)
    return carry_over("of its surface, where a sheet is drawn out by more than fondant gives", share, "ratio", "up")


def _marks(sheet: Draped, middle: Point) -> Iterable[Mark]:
    x, y = middle
    hem = translate(sheet.outline.simplify(DRAWN_MM), x, y)
    yield from drawn_along("comes to lie on the cake", hem.exterior.coords)
    yield from drawn_along("set down", [(x - CROSS_MM, y), (x + CROSS_MM, y)])
    yield from drawn_along("", [(x, y - CROSS_MM), (x, y + CROSS_MM)])
