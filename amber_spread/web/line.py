"""The quick line over HTTP: a design printed as its line, and a line read into a design."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import StringConstraints

from amber_spread.core.document import Document
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.units import LengthUnit
from amber_spread.core.line import LineRead, read_line, write_line
from amber_spread.core.stock.media import shelf

router = APIRouter(prefix="/line", tags=["line"])
MOST_LETTERS = 8000


class Typed(Frozen):
    """A line as it was typed, over the order in hand; a bare length is in `unit`."""

    text: Annotated[str, StringConstraints(max_length=MOST_LETTERS)]
    unit: LengthUnit = "in"
    document: Document


class Printed(Frozen):
    """A design as its line."""

    text: str


@router.post("/print")
def print_line(document: Document, unit: LengthUnit = "mm") -> Printed:
    """The design of an order as one line, its lengths in that unit where they have a mark in it."""
    return Printed(text=write_line(document.design, shelf(document.media), unit))


@router.post("/read")
def read_typed(typed: Typed) -> LineRead:
    """The design a line describes, or what of it cannot be read. Nothing is stored."""
    known = shelf(typed.document.media)
    return read_line(typed.text, known, typed.document.practice, typed.unit, typed.document.design)
