"""Templates as a PDF at true size, on A4 or Letter pages."""

import io
import math
from collections.abc import Iterator, Sequence

from reportlab import rl_config
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from amber_spread.core.geometry.flat.pieces import Corner, arc_of
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.papers.letters import lettered
from amber_spread.papers.sheets import SIZES, Paper
from amber_spread.papers.templates import Template
from amber_spread.papers.tiling import MARGIN_MM, OVERLAP_MM, SIDE_MM, Part, Placed, pages_of, room_of

rl_config.useA85 = 0  # a page as bytes is smaller than as letters, and is written at once
CROSS_MM = 4.0
BAR_MM = 7.0
"""The check bars stand so far into the strip they are in."""
INK, CUT, MARK = (0.2, 0.14, 0.11), (0.7, 0.25, 0.12), (0.18, 0.43, 0.45)


def write_pdf(templates: Sequence[Template], paper: Paper = "a4") -> bytes:
    """Every template at true size, on as few pages as hold them."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=SIZES[paper], pageCompression=1, invariant=1)
    canvas.setTitle(f"{templates[0].order}: templates" if templates else "Templates")
    pages = pages_of(templates, paper)
    for number, page in enumerate(pages, 1):
        for placed in page:
            _piece(canvas, placed, paper)
        _side(canvas, page, f"Page {number} of {len(pages)}")
        canvas.showPage()
    if not pages:
        _line(canvas, "There is nothing to cut for this cake.", MARGIN_MM, 150, 5)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _piece(canvas: Canvas, placed: Placed, paper: Paper) -> None:
    """One piece, or what of it lies on this page."""
    one, room = placed.one, room_of(paper)
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect((MARGIN_MM + SIDE_MM) * mm, MARGIN_MM * mm, room[0] * mm, room[1] * mm)
    if placed.part is not None:
        canvas.clipPath(frame, stroke=0)
    canvas.translate((MARGIN_MM + SIDE_MM + placed.x) * mm, (MARGIN_MM + placed.y) * mm)
    if placed.part is not None:
        _crosses(canvas, placed.part, room)
    if placed.turned:
        canvas.translate(one.size[1] * mm, 0)
        canvas.rotate(90)
    canvas.setStrokeColorRGB(*MARK)
    canvas.setLineWidth(0.5)
    for mark in one.marks:
        if (mark.x0, mark.y0) != (mark.x1, mark.y1):
            canvas.line(mark.x0 * mm, mark.y0 * mm, mark.x1 * mm, mark.y1 * mm)
        _line(canvas, mark.name, mark.x0 + 1, mark.y0 + 0.8, 2.8)
    canvas.setStrokeColorRGB(*CUT)
    canvas.setLineWidth(0.7)
    canvas.drawPath(_path(canvas, one.corners), stroke=1, fill=0)
    _words(canvas, one)
    canvas.restoreState()


def _words(canvas: Canvas, one: Template) -> None:
    """What is written on a piece."""
    for line in one.lines:
        canvas.saveState()
        canvas.translate(line.x * mm, line.y * mm)
        canvas.rotate(90 if one.words_turned else 0)
        _line(canvas, line.text, 0, 0, line.high, centred=True)
        canvas.restoreState()
    if one.arrow is not None:
        _arrow(canvas, *one.arrow)


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


def _crosses(canvas: Canvas, part: Part, room: tuple[float, float]) -> None:
    """Registration crosses along the middle of every shared strip, at the same points of the piece on both pages."""
    tiling, tile = part
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


def _side(canvas: Canvas, page: Sequence[Placed], number: str) -> None:
    """The strip up the left side of a page: both check bars, what it belongs to, and where it lies in its piece."""
    canvas.saveState()
    canvas.translate((MARGIN_MM + SIDE_MM) * mm, MARGIN_MM * mm)
    canvas.rotate(90)  # x runs up the page now, y to its left edge
    canvas.setStrokeColorRGB(*INK)
    canvas.setLineWidth(0.6)
    for begin, long, step, words in (
        (0.0, 100.0, 10.0, "This bar is 100 mm: print at 100 %, not to fit"),
        (108.0, 4 * MM_PER_INCH, MM_PER_INCH, "This bar is 4 in"),
    ):
        canvas.line(begin * mm, BAR_MM * mm, (begin + long) * mm, BAR_MM * mm)
        for tick in range(round(long / step) + 1):
            x = begin + tick * step
            canvas.line(x * mm, BAR_MM * mm, x * mm, (BAR_MM + 2) * mm)
        _line(canvas, words, begin, BAR_MM + 2.8, 2.6)
    first = page[0].one
    whole = first.words[:1] if len(page) == 1 else []
    _line(canvas, ". ".join([*whole, first.order, first.due, "This side up", number]), 0, 2.2, 3.2)
    if page[0].part is not None:
        _map(canvas, page[0].part)
    canvas.restoreState()


def _map(canvas: Canvas, part: Part) -> None:
    """The page map: one box a page, the present one filled. It stands as the pages do, the strip being turned."""
    tiling, tile = part
    side = min(3.0, 36.0 / max(tiling.columns, tiling.rows * 4))
    right = 216.0
    along = [(right + row * side) * mm for row in range(tiling.rows + 1)]
    down = [(BAR_MM + 4 - column * side) * mm for column in range(tiling.columns + 1)]
    canvas.grid(along, down)
    canvas.setFillColorRGB(*INK)
    canvas.rect(along[tile.row], down[tile.column + 1], side * mm, side * mm, stroke=1, fill=1)
    words = f"Column {tile.column + 1}, row {tile.row + 1}"
    _line(canvas, words, right + tiling.rows * side + 2, BAR_MM + 1, 2.4)


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
