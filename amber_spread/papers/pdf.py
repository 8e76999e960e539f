"""Templates as a PDF at true size, tiled over A4 or Letter pages that are glued together at their marks."""

import io
import math
from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from reportlab import rl_config
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from amber_spread.core.geometry.flat import Corner, arc_of
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.papers.letters import lettered
from amber_spread.papers.templates import Template

rl_config.useA85 = 0  # a page as bytes is smaller than as letters, and is written at once
Paper = Literal["a4", "letter"]
SIZES = {"a4": A4, "letter": LETTER}
MARGIN_MM = 10.0
FOOT_MM = 26.0
"""The strip below each page's drawing: the check bars, the page map and what the page belongs to."""
OVERLAP_MM = 12.0
CROSS_MM = 4.0
INK, CUT, MARK = (0.2, 0.14, 0.11), (0.7, 0.25, 0.12), (0.18, 0.43, 0.45)


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


def room_of(paper: Paper) -> tuple[float, float]:
    """The width and height a page leaves for the drawing, mm."""
    wide, high = (side / mm for side in SIZES[paper])
    return wide - 2 * MARGIN_MM, high - 2 * MARGIN_MM - FOOT_MM


def tiling_of(width_mm: float, height_mm: float, paper: Paper) -> Tiling:
    """The fewest pages that hold a piece, upright or turned; neighbours share a strip of OVERLAP_MM."""
    room = room_of(paper)

    def count(size: float, page: float) -> int:
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


def write_pdf(templates: Sequence[Template], paper: Paper = "a4") -> bytes:
    """Every template, a piece or a tile of one to a page."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=SIZES[paper], pageCompression=1, invariant=1)
    canvas.setTitle(f"{templates[0].order}: templates" if templates else "Templates")
    pages = [
        (one, tiling, tile) for one in templates for tiling in [tiling_of(*one.size, paper)] for tile in tiling.tiles
    ]
    for number, (one, tiling, tile) in enumerate(pages, 1):
        _page(canvas, one, tiling, tile, paper)
        _foot(canvas, one, tiling, tile, f"Page {number} of {len(pages)}")
        canvas.showPage()
    if not pages:
        _line(canvas, "There is nothing to cut for this cake.", MARGIN_MM, 150, 5)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _page(canvas: Canvas, one: Template, tiling: Tiling, tile: Tile, paper: Paper) -> None:
    room = room_of(paper)
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(MARGIN_MM * mm, (MARGIN_MM + FOOT_MM) * mm, room[0] * mm, room[1] * mm)
    canvas.clipPath(frame, stroke=0)
    canvas.translate((MARGIN_MM - tile.x) * mm, (MARGIN_MM + FOOT_MM - tile.y) * mm)
    _crosses(canvas, tiling, tile, room)
    if tiling.turned:
        canvas.translate(one.size[1] * mm, 0)
        canvas.rotate(90)
    canvas.setStrokeColorRGB(*MARK)
    canvas.setLineWidth(0.5)
    for mark in one.marks:
        canvas.line(mark.x0 * mm, mark.y0 * mm, mark.x1 * mm, mark.y1 * mm)
        _line(canvas, mark.name, mark.x0 + 1, mark.y0 + 0.8, 2.8)
    canvas.setStrokeColorRGB(*CUT)
    canvas.setLineWidth(0.7)
    canvas.drawPath(_path(canvas, one.corners), stroke=1, fill=0)
    wide, high = one.size
    size = max(2.5, min(6.0, wide / 26))
    for index, words in enumerate(one.words):
        _line(canvas, words, wide / 2, high * one.words_up + size * 1.4 * (1.5 - index), size, centred=True)
    _arrow(canvas, wide / 2, high * one.words_up + size * 1.4 * 2.6)
    canvas.restoreState()


def _path(canvas: Canvas, corners: Sequence[Corner]) -> PDFPathObject:
    path = canvas.beginPath()
    path.moveTo(corners[0][0] * mm, corners[0][1] * mm)
    for (x0, y0, bulge), (x1, y1, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if bulge == 0:
            path.lineTo(x1 * mm, y1 * mm)
        else:
            for points in _curves(x0, y0, x1, y1, bulge):
                path.curveTo(*(number * mm for point in points for number in point))
    path.close()
    return path


def _curves(x0: float, y0: float, x1: float, y1: float, bulge: float) -> Iterator[list[tuple[float, float]]]:
    """An arc as cubic curves of at most an eighth of a turn: handles 4/3 tan(turn/4), off by less than 1e-5 of it."""
    (cx, cy), radius, start, turn = arc_of(x0, y0, x1, y1, bulge)
    steps = max(1, math.ceil(abs(turn) / (math.pi / 4)))
    step = turn / steps
    handle = 4 / 3 * math.tan(step / 4) * radius
    for index in range(steps):
        a, b = start + step * index, start + step * (index + 1)
        yield [
            (cx + radius * math.cos(a) - handle * math.sin(a), cy + radius * math.sin(a) + handle * math.cos(a)),
            (cx + radius * math.cos(b) + handle * math.sin(b), cy + radius * math.sin(b) - handle * math.cos(b)),
            (cx + radius * math.cos(b), cy + radius * math.sin(b)),
        ]


def _crosses(canvas: Canvas, tiling: Tiling, tile: Tile, room: tuple[float, float]) -> None:
    """Registration crosses along the middle of every shared strip, at the same points of the piece on both pages."""
    canvas.setStrokeColorRGB(*INK)
    canvas.setLineWidth(0.4)
    steps = [side - OVERLAP_MM for side in room]
    seams = [
        [side * step + OVERLAP_MM / 2 for side in range(1, count)]
        for step, count in zip(steps, (tiling.columns, tiling.rows), strict=True)
    ]
    along = [
        [step * (index + share) + OVERLAP_MM / 2 for index in range(count) for share in (0.15, 0.5, 0.85)]
        for step, count in zip(steps, (tiling.columns, tiling.rows), strict=True)
    ]
    points = [(x, y) for x in seams[0] for y in along[1]] + [(x, y) for y in seams[1] for x in along[0]]
    for x, y in points:
        if not (_reaches(x - tile.x, room[0]) and _reaches(y - tile.y, room[1])):
            continue  # it lies on other pages
        canvas.line((x - CROSS_MM) * mm, y * mm, (x + CROSS_MM) * mm, y * mm)
        canvas.line(x * mm, (y - CROSS_MM) * mm, x * mm, (y + CROSS_MM) * mm)


def _reaches(at: float, room: float) -> bool:
    """Whether a cross there is seen on a page of that room."""
    return -CROSS_MM <= at <= room + CROSS_MM


def _foot(canvas: Canvas, one: Template, tiling: Tiling, tile: Tile, page: str) -> None:
    canvas.setStrokeColorRGB(*INK)
    canvas.setLineWidth(0.6)
    for low, long, step, words in (
        (MARGIN_MM + 14, 100.0, 10.0, "This bar is 100 mm: print at 100 %, not to fit"),
        (MARGIN_MM + 3, 4 * MM_PER_INCH, MM_PER_INCH, "This bar is 4 in"),
    ):
        canvas.line(MARGIN_MM * mm, low * mm, (MARGIN_MM + long) * mm, low * mm)
        for tick in range(round(long / step) + 1):
            x = MARGIN_MM + tick * step
            canvas.line(x * mm, low * mm, x * mm, (low + 2.5) * mm)
        _line(canvas, words, MARGIN_MM, low + 3.6, 3)
    left = MARGIN_MM + 112
    for index, words in enumerate((*one.words[:3], f"This side up. {page}")):
        _line(canvas, words, left, MARGIN_MM + 19 - 4.6 * index, 3.2)
    _map(canvas, tiling, tile, left)


def _map(canvas: Canvas, tiling: Tiling, tile: Tile, left: float) -> None:
    """The page map: one box a page, the present one filled."""
    side = min(4.0, 50.0 / max(tiling.columns, tiling.rows * 4))
    across = [(left + 40 + column * side) * mm for column in range(tiling.columns + 1)]
    up = [(MARGIN_MM - 4 + row * side) * mm for row in range(tiling.rows + 1)]
    canvas.grid(across, up)
    canvas.setFillColorRGB(*INK)
    canvas.rect(across[tile.column], up[tile.row], side * mm, side * mm, stroke=1, fill=1)
    _line(canvas, f"Column {tile.column + 1}, row {tile.row + 1} from below", left, MARGIN_MM - 2, 2.6)


def _arrow(canvas: Canvas, x: float, y: float) -> None:
    canvas.setStrokeColorRGB(*INK)
    for x0, y0, x1, y1 in ((0, 0, 0, 8), (0, 8, -2, 5), (0, 8, 2, 5)):
        canvas.line((x + x0) * mm, (y + y0) * mm, (x + x1) * mm, (y + y1) * mm)


def _line(canvas: Canvas, words: str, x: float, y: float, size_mm: float, centred: bool = False) -> None:
    """One line of text."""
    canvas.setFillColorRGB(*INK)
    shown, font = lettered(words, "Helvetica")
    canvas.setFont(font, size_mm * mm)
    (canvas.drawCentredString if centred else canvas.drawString)(x * mm, y * mm, shown)
