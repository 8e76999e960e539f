"""Papers over HTTP: an order's templates and amounts to take away, and an outline read from a drawing."""

import uuid
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response

from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.limits import TIERS
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.papers.amounts import write_amounts
from amber_spread.papers.bench_sheet import write_bench_sheet
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.outline_reading import OutlineError, ReadOutline
from amber_spread.papers.page import write_page_pdf, write_page_svg
from amber_spread.papers.pdf import write_pdf
from amber_spread.papers.plate import plate_of
from amber_spread.papers.sheets import Paper
from amber_spread.papers.stack_cards import write_cards
from amber_spread.papers.strip import with_strip
from amber_spread.papers.svg import write_svg
from amber_spread.papers.templates import Template, templates_of
from amber_spread.papers.tiling import pages_of
from amber_spread.web.files import download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import Book
from amber_spread.web.planner import PlannerOf

router = APIRouter(tags=["papers"])
LONGEST_S = 2.0
TOO_INTRICATE = "This drawing is too intricate to read. Draw the outline as one closed path that does not cross itself."
TierNumber = Annotated[int | None, Query(ge=1, le=int(TIERS.high))]


class Papers:
    """One order, opened and planned once for the paper that is asked for."""

    def __init__(self, id: uuid.UUID, book: Book, kit: OwnedKit, planner: PlannerOf) -> None:
        self.document = book.open(id).document
        self.plan = planner.plan(self.document, kit)

    def templates(self, tier: int | None) -> list[Template]:
        """Its templates, of one tier or all."""
        return templates_of(self.document, self.plan, tier)

    def file(self, kind: str, media_type: str, content: str | bytes) -> Response:
        """One of its papers as a file."""
        return download(f"{self.document.title} {kind}", media_type, content)


PapersOf = Annotated[Papers, Depends()]


class Printing:
    """How a paper is printed: on which paper, in which units."""

    def __init__(self, paper: Paper = "a4", length: LengthUnit = "in", weight: WeightUnit = "g") -> None:
        self.paper, self.length, self.weight = paper, length, weight


PrintingOf = Annotated[Printing, Depends()]


class PageCount(Frozen):
    """On how many pages something is printed."""

    pages: int


def to_print(papers: PapersOf, tier: TierNumber = None, whole: bool = False) -> list[Template]:
    """The templates of one tier or all; plain circles and rectangles on one strip, unless asked for `whole`."""
    found = papers.templates(tier)
    return found if whole else with_strip(found)


ToPrint = Annotated[list[Template], Depends(to_print)]


@router.get("/orders/{id}/templates.pdf", response_class=Response)
def templates_pdf(papers: PapersOf, templates: ToPrint, paper: Paper = "a4") -> Response:
    """Every template at true size, on as few pages as hold them."""
    return papers.file("templates.pdf", "application/pdf", write_pdf(templates, paper))


@router.get("/orders/{id}/templates/pages")
def templates_pages(templates: ToPrint, paper: Paper = "a4") -> PageCount:
    """On how many pages the templates are printed."""
    return PageCount(pages=max(1, len(pages_of(templates, paper))))


@router.get("/orders/{id}/templates.svg", response_class=Response)
def templates_svg(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size in one drawing."""
    return papers.file("templates.svg", "image/svg+xml", write_svg(papers.templates(tier)))


@router.get("/orders/{id}/templates.dxf", response_class=Response)
def templates_dxf(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size for a plotter or cutter."""
    from amber_spread.papers.dxf import write_dxf  # takes long to load, and is seldom needed

    return papers.file("templates.dxf", "image/vnd.dxf", write_dxf(papers.templates(tier)))


@router.get("/orders/{id}/stacking.pdf", response_class=Response)
def stacking_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cutting list, the stacking card, the travel card and the serving chart."""
    cards = write_cards(papers.document, papers.plan, by.length, by.weight, by.paper)
    return papers.file("stacking.pdf", "application/pdf", cards)


@router.get("/orders/{id}/plate.pdf", response_class=Response)
def plate_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cake in half-section on one page, with the figures of every tier."""
    plate = plate_of(papers.document, papers.plan, by.length, by.weight, by.paper)
    return papers.file("plate.pdf", "application/pdf", write_page_pdf(plate))


@router.get("/orders/{id}/plate.svg", response_class=Response)
def plate_svg(papers: PapersOf, by: PrintingOf) -> Response:
    """The same as a drawing."""
    plate = plate_of(papers.document, papers.plan, by.length, by.weight, by.paper)
    return papers.file("plate.svg", "image/svg+xml", write_page_svg(plate))


@router.get("/orders/{id}/bench.pdf", response_class=Response)
def bench_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """All that must be weighed, cut and rolled."""
    sheet = write_bench_sheet(papers.document, papers.plan, by.length, by.weight, by.paper)
    return papers.file("bench sheet.pdf", "application/pdf", sheet)


@router.get("/orders/{id}/amounts.csv", response_class=Response)
def amounts_csv(papers: PapersOf) -> Response:
    """What every step takes, in grams."""
    return papers.file("amounts.csv", "text/csv; charset=utf-8", write_amounts(papers.plan))


_DRAWING = {"schema": {"type": "string"}}


@router.post(
    "/outline",
    openapi_extra={"requestBody": {"content": {"image/svg+xml": _DRAWING, "image/vnd.dxf": _DRAWING}}},
)
async def outline(request: Request, planner: PlannerOf) -> ReadOutline:
    """The outline of a tier from an SVG or DXF drawing, at true size. Nothing is stored."""
    return await planner.workers.done(OutlineError(TOO_INTRICATE), LONGEST_S, read_outline, await request.body())
