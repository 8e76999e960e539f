"""Shopping over HTTP: for the order in hand, or for everything due in some days; and the lists to take along."""

import uuid
from datetime import date, timedelta
from typing import Annotated

from fastapi import APIRouter, Body, Query, Response

from amber_spread.core.contents import contents_of
from amber_spread.core.document import Document, plan_document
from amber_spread.core.kit import Kit
from amber_spread.core.pantry import Pantry
from amber_spread.core.shopping import Asked, Shopping, shop
from amber_spread.core.units import LengthUnit, WeightUnit
from amber_spread.papers.pdf import Paper
from amber_spread.papers.shopping_list import write_list, write_shopping
from amber_spread.store.orders import Order
from amber_spread.web.files import download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import Book
from amber_spread.web.pantry import CSV, KeptPantry

router = APIRouter(tags=["shopping"])
LONGEST_DAYS = 62
First = Annotated[date, Query(ge=date(1970, 1, 1), le=date(2200, 1, 1))]
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


def _shopping(orders: list[Order], kit: Kit, pantry: Pantry, pooled: bool = False) -> Shopping:
    held = contents_of(pantry)
    asked = [Asked(str(order.id), order.document, plan_document(order.document, kit, held)) for order in orders]
    return shop(asked, pantry, pooled)


def _sent(shopping: Shopping) -> Response:
    # Written out here, since FastAPI would first validate all of it again.
    return Response(shopping.model_dump_json(), media_type="application/json")


@router.post("/shop", response_model=Shopping)
def shop_for_one(
    pantry: KeptPantry, document: Annotated[Document, Body()], kit: Annotated[Kit | None, Body()] = None
) -> Response:
    """The shopping of one design as it stands in the hand. Nothing is stored."""
    return _sent(shop([Asked("order", document, plan_document(document, kit, contents_of(pantry)))], pantry))


@router.get("/shop/week", response_model=Shopping)
def shop_for_days(
    first: First, book: Book, kit: OwnedKit, pantry: KeptPantry, days: Days = 7, pooled: bool = False
) -> Response:
    """The shopping of every order due on these days; `pooled` mixes what several take in one colour together."""
    return _sent(_shopping(_due(book, first, days), kit, pantry, pooled))


@router.get("/shop/week.csv", response_class=Response)
def days_csv(
    first: First, book: Book, kit: OwnedKit, pantry: KeptPantry, days: Days = 7, pooled: bool = False
) -> Response:
    """The list of these days as CSV."""
    found = _shopping(_due(book, first, days), kit, pantry, pooled)
    return download(f"shopping from {first}.csv", CSV, write_shopping(found))


@router.get("/shop/week.pdf", response_class=Response)
def days_pdf(
    first: First,
    book: Book,
    kit: OwnedKit,
    pantry: KeptPantry,
    days: Days = 7,
    pooled: bool = False,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    paper: Paper = "a4",
) -> Response:
    """The list of these days to print."""
    found = _shopping(_due(book, first, days), kit, pantry, pooled)
    content = write_list(found, f"Shopping from {first.day} {first:%B %Y}", length, weight, paper)
    return download(f"shopping from {first}.pdf", "application/pdf", content)


@router.get("/orders/{id}/shopping.csv", response_class=Response)
def order_csv(id: uuid.UUID, book: Book, kit: OwnedKit, pantry: KeptPantry) -> Response:
    """The list of one order as CSV."""
    order = book.open(id)
    content = write_shopping(_shopping([order], kit, pantry))
    return download(f"{order.document.title} shopping.csv", CSV, content)


@router.get("/orders/{id}/shopping.pdf", response_class=Response)
def order_pdf(
    id: uuid.UUID,
    book: Book,
    kit: OwnedKit,
    pantry: KeptPantry,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    paper: Paper = "a4",
) -> Response:
    """The list of one order to print."""
    order = book.open(id)
    found = _shopping([order], kit, pantry)
    content = write_list(found, order.document.title, length, weight, paper)
    return download(f"{order.document.title} shopping.pdf", "application/pdf", content)


def _due(book: Book, first: date, days: int) -> list[Order]:
    return book.due_between(first, first + timedelta(days=days - 1))
