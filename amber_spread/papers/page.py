"""One page described once, as shapes and words in millimetres from its top left, and drawn by PDF and SVG alike."""

import io
from collections.abc import Sequence
from typing import Literal, NamedTuple
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from amber_spread.papers.letters import lettered

Point = tuple[float, float]
Anchor = Literal["start", "middle", "end"]
INK = "#33241B"
SERIF, SANS = "Times-Bold", "Helvetica"
SIZE = 4.0
"""How high letters are, mm."""


class Shape(NamedTuple):
    """A run of points, closed where it is filled."""

    points: Sequence[Point]
    fill: str | None = None
    width: float = 0.25
    closed: bool = True
    stroke: str = INK


class Words(NamedTuple):
    """A line of text; `y` is its foot."""

    x: float
    y: float
    text: str
    size: float = SIZE
    anchor: Anchor = "start"
    font: str = SANS
    colour: str = INK


class Page(NamedTuple):
    """A page: its size, and what is drawn on it, the first below the others."""

    title: str
    size: Point
    shapes: list[Shape]
    words: list[Words]


def shortened(text: str, size: float, room: float) -> str:
    """A text as far as there is room for it."""
    shown, font = lettered(text, SANS)
    if stringWidth(shown, font, size) <= room:
        return text
    while text and stringWidth(lettered(text + "…", SANS)[0], font, size) > room:
        text = text[:-1]
    return text.rstrip() + "…"


def write_page_pdf(page: Page) -> bytes:
    """A page as PDF."""
    stream = io.BytesIO()
    wide, high = page.size
    canvas = Canvas(stream, pagesize=(wide * mm, high * mm), pageCompression=1, invariant=1)
    canvas.setTitle(page.title)
    for shape in page.shapes:
        path = canvas.beginPath()
        (x, y), *rest = shape.points
        path.moveTo(x * mm, (high - y) * mm)
        for right, down in rest:
            path.lineTo(right * mm, (high - down) * mm)
        if shape.closed:
            path.close()
        canvas.setLineWidth(shape.width * mm)
        canvas.setStrokeColor(HexColor(shape.stroke))
        if shape.fill:
            canvas.setFillColor(HexColor(shape.fill))
        canvas.drawPath(path, stroke=1, fill=int(shape.fill is not None))
    for words in page.words:
        text, font = lettered(words.text, words.font)
        canvas.setFont(font, words.size * mm)
        canvas.setFillColor(HexColor(words.colour))
        draw = {"start": canvas.drawString, "middle": canvas.drawCentredString, "end": canvas.drawRightString}
        draw[words.anchor](words.x * mm, (high - words.y) * mm, text)
    canvas.showPage()
    canvas.save()
    return stream.getvalue()


def write_page_svg(page: Page) -> str:
    """A page as a drawing of SVG; a user unit is a millimetre of it."""
    wide, high = page.size
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}mm" height="{high:.2f}mm" '
        f'viewBox="0 0 {wide:.2f} {high:.2f}">',
        f"<title>{escape(page.title)}</title>",
    ]
    for shape in page.shapes:
        points = "L".join(f"{x:.2f} {y:.2f}" for x, y in shape.points) + ("Z" if shape.closed else "")
        lines.append(
            f'<path d="M{points}" fill="{shape.fill or "none"}" stroke="{shape.stroke}" stroke-width="{shape.width}"/>'
        )
    for words in page.words:
        family = "Georgia, serif" if words.font == SERIF else "Helvetica, Arial, sans-serif"
        lines.append(
            f'<text x="{words.x:.2f}" y="{words.y:.2f}" font-size="{words.size}" font-family="{family}" '
            f'text-anchor="{words.anchor}" fill="{words.colour}">{escape(words.text)}</text>'
        )
    return "\n".join([*lines, "</svg>\n"])
