"""Papers over HTTP: an order's templates and amounts to take away, and an outline read from a drawing."""

from collections.abc import Callable
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response

from amber_spread.core.document import Document, plan_document
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.limits import TIERS
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.jobs.designs import Inputs
from amber_spread.papers.amounts import write_amounts
from amber_spread.papers.bench_sheet import write_bench_sheet
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.outline_reading import OutlineError, ReadOutline
from amber_spread.papers.page import Page, write_page_pdf, write_page_svg
from amber_spread.papers.pdf import write_pdf
from amber_spread.papers.plate import plate_of
from amber_spread.papers.sheets import Paper
from amber_spread.papers.stack_cards import write_cards
from amber_spread.papers.strip import with_strip
from amber_spread.papers.svg import write_svg
from amber_spread.papers.templates import Template, templates_of
from amber_spread.papers.tiling import pages_of
from amber_spread.web.caller import Caller, CallerOf
from amber_spread.web.files import download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import OpenDocument
from amber_spread.web.planner import PlannerOf
from amber_spread.web.threads import ComputeThreads, ThreadsOf

router = APIRouter(tags=["papers"])
LONGEST_S = 2.0
TOO_INTRICATE = "This drawing is too intricate to read. Draw the outline as one closed path that does not cross itself."
TierNumber = Annotated[int | None, Query(ge=1, le=int(TIERS.high))]


class Papers:
    """One order, opened and planned once for the paper that is asked for."""

    def __init__(self, document: Document, plan: Plan, caller: Caller, threads: ComputeThreads) -> None:
        self.document, self.plan = document, plan
        self.caller, self.threads = caller, threads

    def templates(self, tier: int | None) -> list[Template]:
        """Its templates, of one tier or all."""
        return templates_of(self.document, self.plan, tier)

    async def file(self, kind: str, media_type: str, write: Callable[[], str | bytes]) -> Response:
        """One of its papers as a file, written in a thread."""
        content = await self.threads.run(self.caller, write)
        return download(f"{self.document.title} {kind}", media_type, content)


async def papers_of(
    document: OpenDocument, kit: OwnedKit, planner: PlannerOf, caller: CallerOf, threads: ThreadsOf
) -> Papers:
    """The papers of an order."""
    return Papers(document, await planner.run(caller, plan_document, Inputs(document, kit)), caller, threads)


PapersOf = Annotated[Papers, Depends(papers_of)]


class Printing:
    """How a paper is printed: on which paper, in which units."""

    def __init__(self, paper: Paper = "a4", length: LengthUnit = "in", weight: WeightUnit = "g") -> None:
        self.paper, self.length, self.weight = paper, length, weight


PrintingOf = Annotated[Printing, Depends()]


class PageCount(Frozen):
    """On how many pages something is printed."""

    pages: int


class ToPrint:
    """The templates of one tier or all; plain circles and rectangles on one strip, unless asked for `whole`."""

    def __init__(self, papers: PapersOf, tier: TierNumber = None, whole: bool = False, paper: Paper = "a4") -> None:
        self.papers, self.tier, self.whole, self.paper = papers, tier, whole, paper

    def templates(self) -> list[Template]:
        """The templates in print order."""
        found = self.papers.templates(self.tier)
        return found if self.whole else with_strip(found)

    def pdf(self) -> bytes:
        """A PDF on as few pages as possible."""
        return write_pdf(self.templates(), self.paper)

    def pages(self) -> PageCount:
        """The number of printed pages."""
        return PageCount(pages=max(1, len(pages_of(self.templates(), self.paper))))


ToPrintOf = Annotated[ToPrint, Depends()]


@router.get("/orders/{id}/templates.pdf", response_class=Response)
async def templates_pdf(papers: PapersOf, to_print: ToPrintOf) -> Response:
    """Every template at true size, on as few pages as hold them."""
    return await papers.file("templates.pdf", "application/pdf", to_print.pdf)


@router.get("/orders/{id}/templates/pages")
async def templates_pages(papers: PapersOf, to_print: ToPrintOf) -> PageCount:
    """On how many pages the templates are printed."""
    return await papers.threads.run(papers.caller, to_print.pages)


@router.get("/orders/{id}/templates.svg", response_class=Response)
async def templates_svg(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size in one drawing."""
    return await papers.file("templates.svg", "image/svg+xml", lambda: write_svg(papers.templates(tier)))


@router.get("/orders/{id}/templates.dxf", response_class=Response)
async def templates_dxf(papers: PapersOf, tier: TierNumber = None) -> Response:
    """Every template at true size for a plotter or cutter."""

    def write() -> bytes | str:
        from amber_spread.papers.dxf import write_dxf  # takes long to load, and is seldom needed

        return write_dxf(papers.templates(tier))

    return await papers.file("templates.dxf", "image/vnd.dxf", write)


@router.get("/orders/{id}/stacking.pdf", response_class=Response)
async def stacking_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cutting list, the stacking card, the travel card and the serving chart."""
    return await papers.file(
        "stacking.pdf",
        "application/pdf",
        lambda: write_cards(papers.document, papers.plan, by.length, by.weight, by.paper),
    )


def _plate(papers: Papers, by: Printing) -> Page:
    return plate_of(papers.document, papers.plan, by.length, by.weight, by.paper)


@router.get("/orders/{id}/plate.pdf", response_class=Response)
async def plate_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """The cake in half-section on one page, with the figures of every tier."""
    return await papers.file("plate.pdf", "application/pdf", lambda: write_page_pdf(_plate(papers, by)))


@router.get("/orders/{id}/plate.svg", response_class=Response)
async def plate_svg(papers: PapersOf, by: PrintingOf) -> Response:
    """The same as a drawing."""
    return await papers.file("plate.svg", "image/svg+xml", lambda: write_page_svg(_plate(papers, by)))


@router.get("/orders/{id}/bench.pdf", response_class=Response)
async def bench_pdf(papers: PapersOf, by: PrintingOf) -> Response:
    """All that must be weighed, cut and rolled."""
    return await papers.file(
        "bench sheet.pdf",
        "application/pdf",
        lambda: write_bench_sheet(papers.document, papers.plan, by.length, by.weight, by.paper),
    )


@router.get("/orders/{id}/amounts.csv", response_class=Response)
async def amounts_csv(papers: PapersOf) -> Response:
    """What every step takes, in grams."""
    return await papers.file("amounts.csv", "text/csv; charset=utf-8", lambda: write_amounts(papers.plan))


_DRAWING = {"schema": {"type": "string"}}


@router.post(
    "/outline",
    openapi_extra={"requestBody": {"content": {"image/svg+xml": _DRAWING, "image/vnd.dxf": _DRAWING}}},
)
async def outline(request: Request, planner: PlannerOf, caller: CallerOf) -> ReadOutline:
    """The outline of a tier from an SVG or DXF drawing, at true size. Nothing is stored."""
    drawing = await request.body()
    return await planner.alone(caller, OutlineError(TOO_INTRICATE), LONGEST_S, read_outline, drawing)
