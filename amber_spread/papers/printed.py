"""The look of printed lists and cards: their styles, a box to tick, tables, and measures in a person's units."""

import io
import re
from collections.abc import Iterator, Mapping, Sequence
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate, Table, TableStyle

from amber_spread.core.document import Document
from amber_spread.core.kernel.check import RoundedQuantity, Said
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.units import (
    LengthUnit,
    WeightUnit,
    day_words,
    format_length,
    format_weight,
    hour_words,
    round_to,
)
from amber_spread.core.plan import Plan
from amber_spread.papers.letters import lettered
from amber_spread.papers.sheets import SIZES, Paper

INK, SOFT, RULE = HexColor("#33241B"), HexColor("#7A6657"), HexColor("#DCCDB8")
TITLE = ParagraphStyle("title", fontName="Times-Bold", fontSize=20, leading=24, textColor=INK)
HEADING = ParagraphStyle("heading", fontName="Times-Bold", fontSize=14, leading=18, textColor=INK, spaceBefore=8)
TEXT = ParagraphStyle("text", fontName="Helvetica", fontSize=11, leading=14, textColor=INK)
RIGHT = ParagraphStyle("right", parent=TEXT, alignment=2)
SOFT_TEXT = ParagraphStyle("soft", parent=TEXT, textColor=SOFT, fontSize=9.5, leading=12)


class Box(Flowable):  # type: ignore[misc]
    """A box to tick."""

    def wrap(self, available_width: float, available_height: float) -> tuple[float, float]:
        return 4 * mm, 3.6 * mm

    def draw(self) -> None:
        self.canv.setStrokeColor(INK)
        self.canv.rect(0, 0, 3.6 * mm, 3.6 * mm)


def bound(story: list[Any], title: str, paper: Paper) -> bytes:
    """A story as the pages of a PDF."""
    stream = io.BytesIO()
    pages = SimpleDocTemplate(
        stream,
        pagesize=SIZES[paper],
        leftMargin=16 * mm,
        rightMargin=16 * mm,
        topMargin=14 * mm,
        bottomMargin=14 * mm,
        title=title,
        author="Amber Spread",
    )
    pages.build(story)
    return stream.getvalue()


def due_words(document: Document) -> str:
    """When an order is due, as its papers say it."""
    due = document.due
    return "No day set" if due is None else f"Due {day_words(due)} {due.year}, {hour_words(due)}"


def worded(text: str, style: ParagraphStyle) -> Paragraph:
    """Text as a paragraph, whatever letters it has."""
    shown, font = lettered(text, style.fontName)
    return Paragraph(f'<font name="{font}">{escape(shown)}</font>', style)


def table(rows: list[list[Any]], widths_mm: Sequence[float]) -> Table:
    """Rows with a rule below each."""
    line: Color = RULE
    style = TableStyle(
        [
            ("LINEBELOW", (0, 0), (-1, -1), 0.5, line),
            ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
            ("LEFTPADDING", (0, 0), (0, -1), 0),
            ("TOPPADDING", (0, 0), (-1, -1), 4),
            ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
        ]
    )
    return Table(rows, colWidths=[width * mm for width in widths_mm], style=style)


def measured(quantity: Figure | RoundedQuantity, length: LengthUnit, weight: WeightUnit) -> str:
    """A quantity in a person's units, rounded the way it says."""
    if quantity.unit == "mm":
        return format_length(quantity.value, length, quantity.rounding)
    return amount(quantity, weight)


def amount(quantity: Figure | RoundedQuantity, weight: WeightUnit) -> str:
    """A quantity that is no length, in a person's units: to the same step as on screen."""
    if quantity.unit == "g":
        return format_weight(quantity.value, weight, quantity.rounding)
    step, places, words = _STEPS.get(quantity.unit, (0.01, 2, quantity.unit))
    value = quantity.value
    if quantity.unit == "ml" and value >= 1000:
        value, step, places, words = value / 1000, 0.01, 2, "l"
    if quantity.unit == "min" and (whole := round(round_to(value, step, quantity.rounding))) >= HOURS_FROM_MIN:
        hours, minutes = divmod(whole, 60)
        return f"{hours} h {minutes} min" if minutes else f"{hours} h"
    text = f"{round_to(value, step, quantity.rounding):.{places}f}"
    shown = text.rstrip("0").rstrip(".") if "." in text else text
    return f"{shown} {words}" if words else shown


HOURS_FROM_MIN = 120
"""From so many minutes on people read hours."""
_STEPS: dict[str, tuple[float, int, str]] = {
    "ml": (1.0, 0, "ml"), "g_per_cm2": (0.1, 1, "g per cm²"), "g_per_ml": (0.01, 2, "g per ml"), "min": (1.0, 0, "min"),
    "degC": (1.0, 0, "°C"), "deg": (0.1, 1, "°"), "each": (0.01, 2, ""), "ratio": (0.01, 2, "times"),
}  # fmt: skip
"""The step each unit is read to, its decimals, and what it is called."""


class Sheet:
    """A printed sheet of one order, in one person's units."""

    def __init__(self, document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit) -> None:
        self.document, self.plan, self.length, self.weight = document, plan, length, weight

    def say(self, quantity: Figure | RoundedQuantity) -> str:
        """A quantity in this person's units."""
        return measured(quantity, self.length, self.weight)

    def head(self, card: str) -> Iterator[Any]:
        """What stands at the head: the order, what this is, and when it is due."""
        yield worded(f"{self.document.title}: {card}", TITLE)
        yield worded(due_words(self.document), SOFT_TEXT)

    def said(self, one: Said) -> str:
        """A sentence with its measures put in."""
        return self.filled(one.text, one.values)

    def filled(self, text: str, values: Mapping[str, RoundedQuantity]) -> str:
        """A text with its measures put in; other words in braces, as in a name, stay as they are."""
        said = {name: self.say(value) for name, value in values.items()}
        return re.sub(r"\{(\w+)\}", lambda found: said.get(found[1], found[0]), text)
