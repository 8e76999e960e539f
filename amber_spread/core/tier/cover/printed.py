"""Ready-made printed sheets round a tier: how many, which way up, where their seams fall."""

import math
from collections.abc import Iterator
from typing import NamedTuple

from amber_spread.core.design.finishes import PrintedCover
from amber_spread.core.design.kinds import suits
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import Body
from amber_spread.core.geometry.flat.packing import Packed, pack
from amber_spread.core.geometry.flat.pieces import Laid, Mark, Piece, fits, piece_of, rectangle
from amber_spread.core.kernel.figures import carry_over
from amber_spread.core.tier.cover.plan import CoverPlan, PrintedPlan, top_of
from amber_spread.core.tier.cover.rules import printed_sheets, printed_short, strip_count, strip_height, strip_length

MORE_STRIPS = 3
"""So many strips more than the fewest are tried: shorter ones may lie on fewer sheets."""
SEAM_WORTH = 0.5
"""A seam is as bad as half a sheet more: few people cut six short strips to save one sheet (from memory)."""
MOST_PACKED = 24
"""More boxes than this are laid in rows and columns, which is as good where nearly all are alike."""


class StripsCut(NamedTuple):
    """How the strips are cut: so many, so long, turned on the sheet or not, and how they and the top lie."""

    strips: int
    long_mm: float
    turned: bool
    packed: Packed


def plan_printed(cover: PrintedCover, coated: Body, tier: SettledTier) -> CoverPlan:
    """How many ready-made sheets go round, which way up, where their seams fall, and whether they are tall enough."""
    overlap = tier.settled(cover, "overlap_mm")
    most_mm = min(cover.sheet_width_mm, cover.sheet_height_mm) / 2
    if overlap.value > most_mm:
        overlap = carry_over("half the sheet, the most that can overlap", most_mm, "mm")
    tab_mm = tier.usual.tab_mm if cover.top == "tabs" else 0.0
    wall_mm = coated.slant_mm if coated.flat_top else coated.height_mm
    high = strip_height.figure(wall_mm, tab_mm, 0.0)
    girth_mm = coated.girth_mm
    sheet = cover.sheet_width_mm, cover.sheet_height_mm
    top, parts = _top_of(cover, coated, overlap.value)
    boxes = [top.size] * int(top.count.value) if top else []
    ways = list(_cuts(cover, girth_mm, high.value, overlap.value, boxes))
    short_mm = None
    if not ways:
        tallest = cover.sheet_height_mm if cover.directional else max(sheet)
        short_mm = tallest
        ways = list(_cuts(cover, girth_mm, min(high.value, tallest), overlap.value, boxes))
    best = min(ways, key=lambda way: (way.packed.sheets + SEAM_WORTH * way.strips, way.strips))
    tall_mm = min(high.value, short_mm or high.value)
    reach_mm = cover.sheet_height_mm if best.turned else cover.sheet_width_mm
    count = strip_count.figure(girth_mm, reach_mm, overlap.value)
    strips = (
        count
        if int(count.value) == best.strips
        else carry_over("strips with the best of seams and sheets", best.strips, "each")
    )
    long = strip_length.figure(girth_mm, best.strips, overlap.value)
    cut_high = high if short_mm is None else carry_over("as high as the sheet", tall_mm, "mm", "up")
    strip = piece_of("Strip", rectangle(long.value, tall_mm), "printed", best.strips, long=long, high=cut_high)
    if tab_mm:
        fold = Mark(name="snip the tabs to here", x0=0, y0=wall_mm, x1=long.value, y1=wall_mm)
        strip = strip.replace(marks=[fold])
    pieces = {"strip": strip} | ({"top": top} if top else {})
    printed = PrintedPlan(
        strips=strips,
        sheets=printed_sheets.figure(best.packed.sheets),
        strip_height=cut_high,
        upright=best.turned,
        too_tall=None if short_mm is None else printed_short.figure(high.value, short_mm),
        seams=[round(360 * index / best.strips, 1) for index in range(best.strips)],
    )
    return CoverPlan(
        kind=cover.kind,
        suits=suits("printed", tier.asked.build),
        width_over_coat=carry_over("width over the coat", coated.width_mm, "mm"),
        height_over_coat=carry_over("height over the coat", coated.height_mm, "mm"),
        overlap=overlap,
        roll_area=None,
        rolled_weight=None,
        trimmed_weight=None,
        over=None,
        printed=printed,
        top_parts=None if parts == 1 else carry_over("parts the top is laid in", parts, "each"),
        pieces=pieces,
        laid=[
            Laid(piece="strip" if index < best.strips else "top", mat=mat, x=x, y=y, turned=turned)
            for index, (mat, x, y, turned) in enumerate(best.packed.laid)
        ],
        on_mat=True,
    )


def _top_of(cover: PrintedCover, coated: Body, overlap_mm: float) -> tuple[Piece | None, int]:
    """The piece for the top, and in how many parts it is laid: one, where it lies on a sheet."""
    if cover.top != "circle" or coated.flat_top is None:
        return None, 1
    whole = top_of(coated.flat_top, 0.0, "printed")
    wide, long = whole.size
    if _lies(wide, long, cover):
        return whole, 1
    grids = [(across, along) for across in range(1, 30) for along in range(1, 30)]
    for across, along in sorted(grids, key=lambda grid: (grid[0] * grid[1], abs(grid[0] - grid[1]))):
        part = tuple(
            side / count + (overlap_mm if count > 1 else 0.0) for side, count in ((wide, across), (long, along))
        )
        if _lies(part[0], part[1], cover):
            break
    count = across * along
    sizes = {
        "width": carry_over("width of one part of the top", part[0], "mm", "up"),
        "length": carry_over("length of one part of the top", part[1], "mm", "up"),
    }
    return piece_of("Part of the top", rectangle(*part), "printed", count, None, **sizes), count


def _lies(wide_mm: float, high_mm: float, cover: PrintedCover) -> bool:
    if cover.directional:
        return wide_mm <= cover.sheet_width_mm + 1e-6 and high_mm <= cover.sheet_height_mm + 1e-6
    return fits(wide_mm, high_mm, (cover.sheet_width_mm, cover.sheet_height_mm))


def _cuts(
    cover: PrintedCover, girth_mm: float, high_mm: float, overlap_mm: float, tops: list[tuple[float, float]]
) -> Iterator[StripsCut]:
    """Ways to cut the strips: the fewest that lie on the sheet, either way round, and a few more."""
    sheet = cover.sheet_width_mm, cover.sheet_height_mm
    for turned in (False,) if cover.directional else (False, True):
        reach_mm, tall_mm = (sheet[1], sheet[0]) if turned else sheet
        if high_mm > tall_mm + 1e-6:
            continue
        fewest = max(1, math.ceil((girth_mm - 1e-6) / (reach_mm - overlap_mm)))
        for strips in range(fewest, fewest + MORE_STRIPS + 1):
            long_mm = girth_mm / strips + overlap_mm
            boxes = [*[(long_mm, high_mm)] * strips, *tops]
            if len(boxes) > MOST_PACKED:
                yield StripsCut(strips, long_mm, turned, _in_rows(boxes, sheet, turned, not cover.directional))
                return
            packed = pack(boxes, sheet, not cover.directional)
            if packed is None:
                packed = _in_rows(boxes, sheet, turned, not cover.directional)
            yield StripsCut(strips, long_mm, turned, packed)


def _in_rows(boxes: list[tuple[float, float]], sheet: tuple[float, float], turned: bool, turn: bool) -> Packed:
    """The boxes in rows and columns, each kind on sheets of its own: the strips all turned or none."""
    laid: list[tuple[int, float, float, bool]] = []
    first, before = 0, 0
    for index, (long, high) in enumerate(boxes):
        if index and boxes[index - 1] != (long, high):
            first, before = index, laid[-1][0] + 1
        upright = long <= sheet[0] + 1e-6 and high <= sheet[1] + 1e-6
        on_side = turn and (turned or not upright) and high <= sheet[0] + 1e-6 and long <= sheet[1] + 1e-6
        wide, tall = (high, long) if on_side else (long, high)
        across, down = max(1, int((sheet[0] + 1e-6) // wide)), max(1, int((sheet[1] + 1e-6) // tall))
        mat, place = divmod(index - first, across * down)
        row, column = divmod(place, across)
        laid.append((before + mat, round(column * wide, 2), round(row * tall, 2), on_side))
    return Packed(laid[-1][0] + 1, laid)
