"""The order book over HTTP."""

import uuid
from datetime import date
from typing import Annotated

from fastapi import APIRouter, Depends, Path, Query, Request, Response
from pydantic import AfterValidator, Field

from amber_spread.core.document import Document, file_text, without_private
from amber_spread.core.kernel.base import Frozen, printable
from amber_spread.store.orders import Order, OrderBook, Revision, Sought, Standing, Unread
from amber_spread.store.shelves import PracticeShelf
from amber_spread.web.cards import Card, CardMaker
from amber_spread.web.files import download
from amber_spread.web.planner import PlannerOf

router = APIRouter(prefix="/orders", tags=["orders"])
LARGEST_INT = 2**31 - 1
BeganFrom = Annotated[int, Field(ge=0, le=LARGEST_INT)]
"""The number of what a save was made out of; 0 where nothing was saved yet."""


class ShelfPage(Frozen):
    """Some of the orders on the shelf: those of one page, and how many there are on all of them."""

    orders: list[Card]
    count: int
    page: int
    pages: int


class Save(Frozen):
    """A save names the revision it began from."""

    began_from: BeganFrom
    document: Document


async def book(request: Request) -> OrderBook:
    """The order book the application was made with."""
    found: OrderBook = request.app.state.book
    return found


Book = Annotated[OrderBook, Depends(book)]


def opened(id: uuid.UUID, book: Book) -> Document:
    """The current design of an order."""
    return book.open(id).document


OpenDocument = Annotated[Document, Depends(opened)]
Number = Annotated[int, Path(ge=1, le=LARGEST_INT)]


def card_maker(request: Request, book: Book, planner: PlannerOf) -> CardMaker:
    """Makes cards for what the kitchen owns now."""
    return CardMaker(book, planner, request.app.state.later)


CardMakerOf = Annotated[CardMaker, Depends(card_maker)]
PER_PAGE = 40
Words = Annotated[str, Query(max_length=80), AfterValidator(printable)]
Page = Annotated[int, Query(ge=1, le=100_000)]
Day = Annotated[date, Field(ge=date(1970, 1, 1), le=date(2200, 1, 1))]


@router.get("")
def list_orders(
    book: Book,
    cards: CardMakerOf,
    archived: bool = False,
    words: Words = "",
    first: Day | None = None,
    last: Day | None = None,
    page: Page = 1,
) -> ShelfPage:
    """A page of the orders on the shelf or taken off it, due first at the head, judged by what is owned.

    `words` are looked for in titles; `first` and `last` are the days they are due between.
    """
    found = book.shelf(Sought(archived, words, first, last), PER_PAGE * (page - 1), PER_PAGE)
    pages = max(1, -(-found.in_all // PER_PAGE))
    return ShelfPage(orders=[cards.shown(one) for one in found.orders], count=found.in_all, page=page, pages=pages)


@router.post("", status_code=201)
def create_order(document: Document, book: Book, cards: CardMakerOf) -> Order:
    """A new order from a design file; one without settings of its own gets a copy of the kitchen's defaults. It is
    saved even if it cannot be made: its plan and the shelf say so.
    """
    if "practice" not in document.model_fields_set:
        document = document.model_copy(update={"practice": PracticeShelf(book.engine).open().content})
    return cards.save(document, lambda card: book.create(document, card))


@router.get("/{id}")
def open_order(id: uuid.UUID, book: Book) -> Order:
    """An order as it stands."""
    return book.open(id)


@router.get("/{id}/card")
def card_of(id: uuid.UUID, book: Book, cards: CardMakerOf) -> Card:
    """The order's card on the shelf, to show while its plan is being computed."""
    return cards.shown(book.shelved(id))


@router.put("/{id}")
def save_order(id: uuid.UUID, save: Save, book: Book, cards: CardMakerOf) -> Order:
    """Save the next revision. A save that began from an older revision is refused with 409 and kept aside. A
    design that cannot be made is saved too: its plan and the shelf say what is wrong.
    """
    return cards.save(save.document, lambda card: book.save(id, save.began_from, save.document, card))


@router.post("/{id}/duplicate", status_code=201)
def duplicate_order(id: uuid.UUID, book: Book) -> Order:
    """A new order with the same design."""
    return book.duplicate(id)


@router.post("/{id}/archive")
def archive_order(id: uuid.UUID, book: Book) -> Standing:
    """Take an order off the shelf. It is kept, with all its revisions."""
    return book.archive(id, True)


@router.post("/{id}/restore")
def restore_order(id: uuid.UUID, book: Book) -> Standing:
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


@router.post("/{id}/revisions/{number}/again")
def go_back(id: uuid.UUID, number: Number, book: Book) -> Order:
    """Go back to what an order said at an earlier revision, which becomes its next one."""
    return book.go_back(id, number)


@router.get("/{id}/file", response_class=Response)
def export_order(id: uuid.UUID, book: Book, private: bool = False) -> Response:
    """The design file of an order, to keep, send or plan at the command line; as it was written, where this version
    cannot read it. Whom it is for and the kitchen's notes are in it only where `private` is asked for.
    """
    try:
        document = book.open(id).document
        title, written = document.title, document.model_dump(mode="json")
    except Unread as error:
        title, written = error.title, book.written(id)[1]
    content = file_text(written if private else without_private(written))
    return download(f"{title}.amber.json", "application/json", content)
