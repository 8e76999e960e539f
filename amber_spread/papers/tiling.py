"""How templates lie on pages: the small ones together, turned and placed for the fewest pages; a large one over
several, which are glued together at their marks.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

from reportlab.lib.units import mm

from amber_spread.core.geometry.flat.packing import pack
from amber_spread.papers.sheets import SIZES, Paper
from amber_spread.papers.templates import Template

MARGIN_MM = 10.0
SIDE_MM = 14.0
"""The strip left of each page's drawing: the check bars, the page map and what the page belongs to."""
OVERLAP_MM = 12.0
GAP_MM = 5.0
"""Between pieces that lie on one page."""


class Tile(NamedTuple):
    """One page of one template: its place in the grid, and the corner of the piece that lies at its own corner."""

    column: int
    row: int
    x: float
    y: float


class Tiling(NamedTuple):
    """How a template is spread over pages: turned or not, so many columns and rows."""

    turned: bool
    columns: int
    rows: int
    tiles: list[Tile]


class Part(NamedTuple):
    """What of a template lies on one of the pages it is spread over."""

    tiling: Tiling
    tile: Tile


class Placed(NamedTuple):
    """A template on a page, its lower left corner there, mm; of one that is spread over several pages, which part."""

    one: Template
    turned: bool
    x: float
    y: float
    part: Part | None = None


def room_of(paper: Paper) -> tuple[float, float]:
    """The width and height a page leaves for the drawing, mm."""
    wide, high = (side / mm for side in SIZES[paper])
    return wide - 2 * MARGIN_MM - SIDE_MM, high - 2 * MARGIN_MM


def tiling_of(width_mm: float, height_mm: float, paper: Paper) -> Tiling:
    """The fewest pages that hold a piece, upright or turned; neighbours share a strip of OVERLAP_MM."""
    room = room_of(paper)

    def count(size: float, page: float) -> int:
        if size <= page + 1e-6:
            return 1
        return max(1, math.ceil((size - OVERLAP_MM - 1e-6) / (page - OVERLAP_MM)))

    ways = []
    for turned in (False, True):
        wide, high = (height_mm, width_mm) if turned else (width_mm, height_mm)
        columns, rows = count(wide, room[0]), count(high, room[1])
        ways.append((columns * rows, turned, columns, rows))
    _, turned, columns, rows = min(ways)
    steps = [side - OVERLAP_MM for side in room]
    tiles = [
        Tile(column, row, column * steps[0], row * steps[1])
        for row in reversed(range(rows))
        for column in range(columns)
    ]
    return Tiling(turned, columns, rows, tiles)


def pages_of(templates: Sequence[Template], paper: Paper) -> list[list[Placed]]:
    """What lies on each page: first those that take several, then the others as few pages as the packer finds."""
    spread: list[list[Placed]] = []
    small: list[Template] = []
    for one in templates:
        tiling = tiling_of(*one.size, paper)
        if len(tiling.tiles) == 1:
            small.append(one)
        else:
            spread += [[Placed(one, tiling.turned, -tile.x, -tile.y, Part(tiling, tile))] for tile in tiling.tiles]
    return [*spread, *_together(small, paper)]


def _together(small: Sequence[Template], paper: Paper) -> list[list[Placed]]:
    if not small:
        return []
    wide, high = room_of(paper)
    boxes = [(one.size[0] + GAP_MM, one.size[1] + GAP_MM) for one in small]
    packed = pack(boxes, (wide + GAP_MM, high + GAP_MM), turn=True)
    assert packed is not None, "each of them lies on a page by itself"
    pages: list[list[Placed]] = [[] for _ in range(packed.sheets)]
    for one, (page, x, y, turned) in zip(small, packed.laid, strict=True):
        pages[page].append(Placed(one, turned, x, y))
    return pages
