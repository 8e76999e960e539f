"""Papers over HTTP: an order's templates and amounts to take away, and an outline read from a drawing."""

import uuid
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool

from amber_spread.core.document import Document, plan_document
from amber_spread.core.kit import Kit
from amber_spread.core.limits import TIERS
from amber_spread.core.plan import Plan
from amber_spread.papers.amounts import write_amounts
from amber_spread.papers.dxf import write_dxf
from amber_spread.papers.pdf import Paper, write_pdf
from amber_spread.papers.svg import write_svg
from amber_spread.papers.svg_reading import ReadOutline, read_outline
from amber_spread.papers.templates import Template, templates_of
from amber_spread.web.files import download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import Book

router = APIRouter(tags=["papers"])
TierNumber = Annotated[int | None, Query(ge=1, le=int(TIERS.high))]


def _planned(id: uuid.UUID, book: Book, kit: Kit) -> tuple[Document, Plan]:
    document = book.open(id).document
    return document, plan_document(document, kit)


def _templates(id: uuid.UUID, book: Book, kit: Kit, tier: int | None) -> list[Template]:
    document, plan = _planned(id, book, kit)
    return templates_of(document, plan, tier)


@router.get("/orders/{id}/templates.pdf", response_class=Response)
def templates_pdf(id: uuid.UUID, book: Book, kit: OwnedKit, paper: Paper = "a4", tier: TierNumber = None) -> Response:
    """Every template at true size, tiled over pages."""
    found = _templates(id, book, kit, tier)
    return download(f"{book.open(id).document.title} templates.pdf", "application/pdf", write_pdf(found, paper))


@router.get("/orders/{id}/templates.svg", response_class=Response)
def templates_svg(id: uuid.UUID, book: Book, kit: OwnedKit, tier: TierNumber = None) -> Response:
    """Every template at true size in one drawing."""
    found = _templates(id, book, kit, tier)
    return download(f"{book.open(id).document.title} templates.svg", "image/svg+xml", write_svg(found))


@router.get("/orders/{id}/templates.dxf", response_class=Response)
def templates_dxf(id: uuid.UUID, book: Book, kit: OwnedKit, tier: TierNumber = None) -> Response:
    """Every template at true size for a plotter or cutter."""
    found = _templates(id, book, kit, tier)
    return download(f"{book.open(id).document.title} templates.dxf", "image/vnd.dxf", write_dxf(found))


@router.get("/orders/{id}/amounts.csv", response_class=Response)
def amounts_csv(id: uuid.UUID, book: Book, kit: OwnedKit) -> Response:
    """What every step takes, in grams."""
    document, plan = _planned(id, book, kit)
    return download(f"{document.title} amounts.csv", "text/csv; charset=utf-8", write_amounts(plan))


@router.post("/outline", openapi_extra={"requestBody": {"content": {"image/svg+xml": {"schema": {"type": "string"}}}}})
async def outline(request: Request) -> ReadOutline:
    """The outline of a tier from an SVG drawing, at true size. Nothing is stored."""
    # Off the event loop: a drawing of thousands of pieces takes long enough for others to notice.
    return await run_in_threadpool(read_outline, await request.body())
