"""The order book over HTTP."""

import uuid
from datetime import datetime
from functools import lru_cache
from typing import Annotated

from fastapi import APIRouter, Depends, Path, Request, Response
from pydantic import Field

from amber_spread.core.base import Frozen
from amber_spread.core.check import Check
from amber_spread.core.document import Document, plan_document, write_document
from amber_spread.core.drawn import Silhouette
from amber_spread.core.figures import Figure
from amber_spread.core.kit import Kit
from amber_spread.store.orders import Order, OrderBook, Revision
from amber_spread.store.shelves import KitShelf
from amber_spread.web.files import download

router = APIRouter(prefix="/orders", tags=["orders"])
LARGEST_INT = 2**31 - 1


class Card(Frozen):
    """An order as it stands on the shelf: its outside to scale, and what needs attention."""

    id: uuid.UUID
    revision: int
    saved_at: datetime
    archived: bool
    title: str
    due: datetime | None
    tiers: list[Silhouette]
    base_diameter: Figure
    base_thickness: Figure
    height: Figure
    attention: list[Check]


class Save(Frozen):
    """A save names the revision it began from."""

    began_from: Annotated[int, Field(ge=0, le=LARGEST_INT)]
    document: Document


def book(request: Request) -> OrderBook:
    """The order book the application was made with."""
    found: OrderBook = request.app.state.book
    return found


Book = Annotated[OrderBook, Depends(book)]
Number = Annotated[int, Path(ge=1, le=LARGEST_INT)]


@router.get("")
def list_orders(book: Book, archived: bool = False) -> list[Card]:
    """The orders on the shelf, due first at the head, judged by what is owned; or those taken off it."""
    kit = KitShelf(book.engine).open().content
    return [_card(_Kept(order), kit) for order in book.on_shelf(archived=archived)]


@router.post("", status_code=201)
def create_order(document: Document, book: Book) -> Order:
    """A new order from a design file."""
    return book.create(document)


@router.get("/{id}")
def open_order(id: uuid.UUID, book: Book) -> Order:
    """An order as it stands."""
    return book.open(id)


@router.put("/{id}")
def save_order(id: uuid.UUID, save: Save, book: Book) -> Order:
    """Save the next revision. A save that began from an older revision is refused with 409 and kept aside."""
    return book.save(id, save.began_from, save.document)


@router.post("/{id}/duplicate", status_code=201)
def duplicate_order(id: uuid.UUID, book: Book) -> Order:
    """A new order with the same design."""
    return book.duplicate(id)


@router.post("/{id}/archive")
def archive_order(id: uuid.UUID, book: Book) -> Order:
    """Take an order off the shelf. It is kept, with all its revisions."""
    return book.archive(id, True)


@router.post("/{id}/restore")
def restore_order(id: uuid.UUID, book: Book) -> Order:
    """Put an order back on the shelf."""
    return book.archive(id, False)


@router.get("/{id}/revisions")
def list_revisions(id: uuid.UUID, book: Book) -> list[Revision]:
    """Every revision of an order, newest first."""
    return book.revisions(id)


@router.get("/{id}/revisions/{number}")
def open_revision(id: uuid.UUID, number: Number, book: Book) -> Document:
    """What an order said at a revision."""
    return book.document_at(id, number)


@router.get("/{id}/file", response_class=Response)
def export_order(id: uuid.UUID, book: Book) -> Response:
    """The design file of an order, to keep, send or plan at the command line."""
    document = book.open(id).document
    return download(f"{document.title}.amber.json", "application/json", write_document(document))


class _Kept:
    """An order that a cache knows by id and revision alone: what a revision says never changes."""

    def __init__(self, order: Order) -> None:
        self.order = order
        self._key = (order.id, order.revision, order.archived)

    def __hash__(self) -> int:
        return hash(self._key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Kept) and self._key == other._key


@lru_cache(maxsize=1024)
def _card(kept: _Kept, kit: Kit) -> Card:
    order = kept.order
    plan = plan_document(order.document, kit)
    return Card(
        id=order.id,
        revision=order.revision,
        saved_at=order.saved_at,
        archived=order.archived,
        title=order.document.title,
        due=order.document.due,
        tiers=plan.section.tiers,
        base_diameter=plan.stack.base_diameter,
        base_thickness=plan.stack.base_thickness,
        height=plan.stack.height,
        attention=[check for check in plan.checks if check.severity != "caution"],
    )
