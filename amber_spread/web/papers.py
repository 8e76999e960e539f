"""Papers over HTTP: an order's templates and amounts to take away, and an outline read from a drawing."""

from collections.abc import Callable
from functools import partial
from typing import Annotated, TypeVar

from fastapi import APIRouter, Depends, Query, Request, Response

from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.limits import TIERS
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.jobs.designs import Inputs
from amber_spread.jobs.papers import paper_of
from amber_spread.papers import orders
from amber_spread.papers.bench_sheet import write_bench_sheet
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.outline_reading import OutlineError, ReadOutline
from amber_spread.papers.sheets import Paper
from amber_spread.papers.stack_cards import write_cards
from amber_spread.web.caller import CallerOf
from amber_spread.web.files import PDF, SVG, download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import OpenDocument
from amber_spread.web.planner import PlannerOf

T = TypeVar("T")
router = APIRouter(tags=["papers"])
LONGEST_S = 2.0
TOO_INTRICATE = "This drawing is too intricate to read. Draw the outline as one closed path that does not cross itself."
TierNumber = Annotated[int | None, Query(ge=1, le=int(TIERS.high))]


class Papers:
    """One order, from which any of its papers is made as a job."""

    def __init__(self, document: OpenDocument, kit: OwnedKit, planner: PlannerOf, caller: CallerOf) -> None:
        self.document, self.kit = document, kit
        self.planner, self.caller = planner, caller

    async def made(self, write: Callable[..., T], *choices: object) -> T:
        """What a function makes of the order, its plan and what was chosen."""
        work = partial(paper_of, write, choices)
        return await self.planner.elsewhere(self.caller, work, Inputs(self.document, self.kit))

    async def file(self, kind: str, media_type: str, write: Callable[..., str | bytes], *choices: object) -> Response:
        """One of its papers as a file."""
        content = await self.made(write, *choices)
        return download(f"{self.document.title} {kind}", media_type, content)


PapersOf = Annotated[Papers, Depends()]


class Printing:
    """How a paper is printed: in which units, on which paper."""

    def __init__(self, paper: Paper = "a4", length: LengthUnit = "in", weight: WeightUnit = "g") -> None:
        self.choices = length, weight, paper


PrintingOf = Annotated[Printing, Depends()]


class PageCount(Frozen):
    """On how many pages something is printed."""

    pages: int


class ToPrint:
    """The templates of one tier or all; plain circles and rectangles on one strip, unless asked for `whole`."""

    def __init__(self, tier: TierNumber = None, whole: bool = False, paper: Paper = "a4") -> None:
        self.choices = tier, whole, paper


ToPrintOf = Annotated[ToPrint, Depends()]


@router.get("/orders/{id}/templates.pdf", response_class=Response)
async def templates_pdf(papers: PapersOf, to_print: ToPrintOf) -> Response:
    """Every template at true size, on as few pages as hold them."""
    return await papers.file("templates.pdf", PDF, orders.templates_pdf, *to_print.choices)


@router.get("/orders/{id}/templates/pages")
async def templates_pages(papers: PapersOf, to_print: ToPrintOf) -> PageCount:
    """On how many pages the templates are printed."""
    return PageCount(pages=await papers.made(orders.template_pages, *to_print.choices))


@router.get("/orders/{id}/templates.svg", response_class=Response)
async def templates_svg(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size in one drawing."""
    return await papers.file("templates.svg", SVG, orders.templates_svg, tier)


@router.get("/orders/{id}/templates.dxf", response_class=Response)
async def templates_dxf(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size for a plotter or cutter."""
    return await papers.file("templates.dxf", "image/vnd.dxf", orders.templates_dxf, tier)


@router.get("/orders/{id}/stacking.pdf", response_class=Response)
async def stacking_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cutting list, the stacking card, the travel card and the serving chart."""
    return await papers.file("stacking.pdf", PDF, write_cards, *by.choices)


@router.get("/orders/{id}/plate.pdf", response_class=Response)
async def plate_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cake in half-section on one page, with the figures of every tier."""
    return await papers.file("plate.pdf", PDF, orders.plate_pdf, *by.choices)


@router.get("/orders/{id}/plate.svg", response_class=Response)
async def plate_svg(papers: PapersOf, by: PrintingOf) -> Response:
    """The same as a drawing."""
    return await papers.file("plate.svg", SVG, orders.plate_svg, *by.choices)


@router.get("/orders/{id}/bench.pdf", response_class=Response)
async def bench_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """All that must be weighed, cut and rolled."""
    return await papers.file("bench sheet.pdf", PDF, write_bench_sheet, *by.choices)


@router.get("/orders/{id}/amounts.csv", response_class=Response)
async def amounts_csv(papers: PapersOf) -> Response:
    """What every step takes, in grams."""
    return await papers.file("amounts.csv", "text/csv; charset=utf-8", orders.amounts_csv)


_DRAWING = {"schema": {"type": "string"}}


@router.post(
    "/outline",
    openapi_extra={"requestBody": {"content": {"image/svg+xml": _DRAWING, "image/vnd.dxf": _DRAWING}}},
)
async def outline(request: Request, planner: PlannerOf, caller: CallerOf) -> ReadOutline:
    """The outline of a tier from an SVG or DXF drawing, at true size. Nothing is stored."""
    drawing = await request.body()
    return await planner.alone(caller, OutlineError(TOO_INTRICATE), LONGEST_S, read_outline, drawing)
