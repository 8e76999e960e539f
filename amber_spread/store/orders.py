"""The order book: create, list, open, save, duplicate and archive orders. Every save is a new revision.

Every save stays as it was written. An order that this version cannot read is still listed, from the columns of
its own, and can be taken away as its file, archived, and brought back to an earlier revision.
"""

import uuid
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from datetime import date, datetime, timedelta
from typing import Any, NamedTuple

from pydantic import ValidationError
from sqlalchemy import ColumnElement, Engine, Select, func, select, update
from sqlalchemy.orm import Session, undefer
from sqlalchemy.orm.attributes import set_committed_value

from amber_spread.core.document import NOW, Complaint, Document, complaints_of
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.engine import engine_at
from amber_spread.store.notices import tell
from amber_spread.store.pictures import put_back, take_out
from amber_spread.store.tables import OrderRow, RevisionRow


class Order(Frozen):
    """An order as it stands: its current revision and what that says."""

    id: uuid.UUID
    revision: int
    saved_at: datetime
    archived: bool
    document: Document


class Revision(Frozen):
    """One saved state of an order, without its contents."""

    number: int
    saved_at: datetime
    aside: bool
    title: str


class Standing(Frozen):
    """An order by its own columns alone, whether or not it can be read."""

    id: uuid.UUID
    revision: int
    archived: bool
    title: str
    due: datetime | None


class Shelved(NamedTuple):
    """An order on a page of the shelf, with the card made of it and what that was made by."""

    standing: Standing
    saved_at: datetime
    card: dict[str, Any] | None
    card_made_by: str | None


class ShelfPage(NamedTuple):
    """A page of the shelf, and how many orders there are on all pages."""

    orders: list[Shelved]
    in_all: int


class Billed(NamedTuple):
    """An order to shop for, with its stored card and bill, if any, and the program and kit that made them."""

    order: Order
    card: dict[str, Any] | None
    bill: dict[str, Any] | None
    made_by: str | None


class Due(NamedTuple):
    """The orders due in some days, as far as they can be read; those that cannot; and how many there are in all."""

    orders: list[Billed]
    unread: list[Standing]
    in_all: int


class MadeCard(NamedTuple):
    """The card of an order and its bill (none where it cannot be planned), and what made them: by which program, for
    which kit.
    """

    card: dict[str, Any]
    bill: dict[str, Any] | None
    by: str


class Sought(NamedTuple):
    """What is looked for on the shelf: on it or taken off, words of the title, days between which it is due."""

    archived: bool = False
    words: str = ""
    first: date | None = None
    last: date | None = None


MOST_AT_ONCE = 100
"""So many orders are shopped for at once, so that it stays well below a second."""


class OrderMissing(LookupError):
    """There is no such order, or it has no such revision."""


class Unread(Exception):
    """An order that this version of the program cannot read. It is safe, and `complaints` say what is unknown."""

    def __init__(self, title: str, complaints: Sequence[Complaint]) -> None:
        super().__init__("; ".join(f"{one.field} {one.message}" for one in complaints))
        self.title = title
        self.complaints = list(complaints)


class StaleSave(Exception):
    """A save began from a revision that is no longer current. What was sent is kept as revision `aside`."""

    def __init__(self, current: int, aside: int, what: str = "This order") -> None:
        super().__init__(f"revision {current} was saved meanwhile; this one is kept as revision {aside}")
        self.current = current
        self.aside = aside
        self.what = what


class OrderBook:
    """All orders of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    @classmethod
    def at(cls, url: str) -> "OrderBook":
        """The order book in the database at `url`, a PostgreSQL address."""
        return cls(engine_at(url))

    def create(self, document: Document, card: MadeCard | None = None, id: uuid.UUID | None = None) -> Order:
        """A new order holding `document` as revision 1, with the card made of it."""
        with self._work() as session:
            row = OrderRow(id=id or uuid.uuid4(), title=document.title, due=document.due, archived=False, revision=1)
            _put(row, card)
            session.add(row)
            session.flush()
            tell(session, "order", 1, row.id)
            return _order(row, self._append(session, row.id, 1, document, began_from=None, aside=False))

    def due_between(self, first: date, last: date) -> Due:
        """The orders on the shelf that are due on these days or between them, the first due at the head.

        No more than MOST_AT_ONCE of them are read; `in_all` says how many there are.
        """
        sought = Sought(first=first, last=last)
        due: list[Billed] = []
        unread: list[Standing] = []
        with self._work() as session:
            count = session.scalars(select(func.count()).select_from(OrderRow).where(*_where(sought))).one()
            for row, revision in session.execute(_newest(sought).options(undefer(OrderRow.bill)).limit(MOST_AT_ONCE)):
                try:
                    due.append(Billed(_order(row, _whole(session, revision)), row.card, row.bill, row.card_made_by))
                except Unread:
                    unread.append(_standing(row))
        return Due(due, unread, count)

    def shelf(self, sought: Sought, first: int = 0, most: int = 40) -> ShelfPage:
        """`most` orders of those looked for, from the one at place `first` on; the one due first stands at the head and
        those without an hour at the end.
        """
        with self._work() as session:
            count = session.scalars(select(func.count()).select_from(OrderRow).where(*_where(sought))).one()
            query = (
                select(OrderRow, RevisionRow.saved_at)
                .join(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
                .where(*_where(sought))
                .order_by(*_BY_DUE)
                .offset(first)
                .limit(most)
            )
            found = []
            for row, saved_at in session.execute(query):
                found.append(Shelved(_standing(row), saved_at, row.card, row.card_made_by))
        return ShelfPage(found, count)

    def shelved(self, id: uuid.UUID) -> Shelved:
        """One order as it stands on the shelf. Raises OrderMissing."""
        with self._work() as session:
            row = self._row(session, id)
            return Shelved(
                _standing(row), self._revision(session, id, row.revision).saved_at, row.card, row.card_made_by
            )

    def keep_card(self, id: uuid.UUID, revision: int, card: MadeCard) -> None:
        """Keep the card and the bill made of a revision, unless another revision is current by now."""
        with self._work() as session:
            session.execute(
                update(OrderRow)
                .where(OrderRow.id == id, OrderRow.revision == revision)
                .values(card=card.card, bill=card.bill, card_made_by=card.by)
            )

    def open(self, id: uuid.UUID) -> Order:
        """The order as it stands. Raises OrderMissing, and Unread where this version cannot read it."""
        with self._work() as session:
            return self._read(session, self._row(session, id))

    def billed(self, id: uuid.UUID) -> Billed:
        """The order as it stands with its bill, as it was kept. Raises likewise."""
        with self._work() as session:
            row = self._row(session, id)
            return Billed(self._read(session, row), row.card, row.bill, row.card_made_by)

    def written(self, id: uuid.UUID) -> tuple[Standing, dict[str, Any]]:
        """The order as it was written, whether or not this version can read it. Raises OrderMissing."""
        with self._work() as session:
            row = self._row(session, id)
            return _standing(row), self._revision(session, id, row.revision).document

    def save(self, id: uuid.UUID, began_from: int, document: Document, card: MadeCard | None = None) -> Order:
        """Save `document`, and the card made of it, as the next revision of an order that was opened at revision
        `began_from`.

        Saving what is already current changes nothing. Raises OrderMissing, and StaleSave when
        another save came first; what was sent is then kept aside, and nothing is lost.
        """
        with self._work() as session:
            row = self._row(session, id, lock=True)
            current = self._revision(session, id, row.revision)
            if current.document == document.model_dump(mode="json"):
                return _order(row, current)
            number = session.scalars(select(func.max(RevisionRow.number)).where(RevisionRow.order_id == id)).one() + 1
            stale = began_from != row.revision
            saved = self._append(session, id, number, document, began_from=began_from, aside=stale)
            if not stale:
                row.title, row.due, row.revision = document.title, document.due, number
                _put(row, card)
                session.flush()
                tell(session, "order", number, id)
                return _order(row, saved)
            current_number = row.revision
        raise StaleSave(current_number, number)

    def go_back(self, id: uuid.UUID, number: int) -> Order:
        """Make what an order said at an earlier revision its next one. Raises OrderMissing, and Unread."""
        with self._work() as session:
            row = self._row(session, id, lock=True)
            began_from, wanted = row.revision, self._revision(session, id, number)
            document = _document(row, wanted)
        return self.save(id, began_from, document)

    def duplicate(self, id: uuid.UUID) -> Order:
        """A copy of an order, without its customer and notes. Raises OrderMissing, and Unread."""
        document = self.open(id).document
        return self.create(
            document.model_copy(update={"title": f"{document.title[:72]} (copy)", "customer": "", "notes": ""})
        )

    def archive(self, id: uuid.UUID, archived: bool) -> Standing:
        """Take an order off the shelf, or put it back. Raises OrderMissing."""
        with self._work() as session:
            row = self._row(session, id, lock=True)
            row.archived = archived
            session.flush()
            tell(session, "order", row.revision, id)
            return _standing(row)

    def revisions(self, id: uuid.UUID) -> list[Revision]:
        """Every revision of an order, newest first. Raises OrderMissing."""
        with self._work() as session:
            own = self._row(session, id).title
            # Rows restored from an older archive have no title in the column.
            said = func.coalesce(RevisionRow.title, RevisionRow.document["title"].as_string())
            rows = session.execute(
                select(RevisionRow.number, RevisionRow.saved_at, RevisionRow.aside, said)
                .where(RevisionRow.order_id == id)
                .order_by(RevisionRow.number.desc())
            )
            return [
                Revision(number=number, saved_at=saved_at, aside=aside, title=title or own)
                for number, saved_at, aside, title in rows
            ]

    def document_at(self, id: uuid.UUID, number: int) -> Document:
        """What an order said at a revision. Raises OrderMissing, and Unread."""
        with self._work() as session:
            return _document(self._row(session, id), self._revision(session, id, number))

    @contextmanager
    def _work(self) -> Iterator[Session]:
        with Session(self.engine, expire_on_commit=False) as session, session.begin():
            yield session

    def _row(self, session: Session, id: uuid.UUID, lock: bool = False) -> OrderRow:
        row = session.get(OrderRow, id, with_for_update=lock or None)
        if row is None:
            raise OrderMissing("there is no such order")
        return row

    def _revision(self, session: Session, id: uuid.UUID, number: int) -> RevisionRow:
        row = session.get(RevisionRow, (id, number))
        if row is None:
            raise OrderMissing("this order has no such revision")
        return _whole(session, row)

    def _append(
        self, session: Session, id: uuid.UUID, number: int, document: Document, began_from: int | None, aside: bool
    ) -> RevisionRow:
        design, pictures = take_out(session, document.model_dump(mode="json"))
        row = RevisionRow(
            order_id=id,
            number=number,
            began_from=began_from,
            aside=aside,
            format=NOW["order"],
            title=document.title,
            document=design,
            pictures=pictures,
        )
        session.add(row)
        session.flush()
        return _whole(session, row)

    def _read(self, session: Session, row: OrderRow) -> Order:
        return _order(row, self._revision(session, row.id, row.revision))


def _whole(session: Session, row: RevisionRow) -> RevisionRow:
    """A revision with its pictures back in its design, as it was written."""
    if row.pictures:
        set_committed_value(row, "document", put_back(session, row.document, row.pictures))
    return row


def _put(row: OrderRow, card: MadeCard | None) -> None:
    row.card, row.bill, row.card_made_by = (None, None, None) if card is None else card
    row.work_made_by = None


_BY_DUE = OrderRow.due.asc().nulls_last(), OrderRow.created_at, OrderRow.id


def _newest(sought: Sought) -> Select[OrderRow, RevisionRow]:
    return (
        select(OrderRow, RevisionRow)
        .join(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
        .where(*_where(sought))
        .order_by(*_BY_DUE)
    )


def _where(sought: Sought) -> Iterator[ColumnElement[bool]]:
    yield OrderRow.archived == sought.archived
    for word in sought.words.split():
        yield OrderRow.title.icontains(word, autoescape=True)
    if sought.first is not None:
        yield OrderRow.due >= sought.first
    if sought.last is not None:
        yield OrderRow.due < sought.last + timedelta(days=1)


def _standing(row: OrderRow) -> Standing:
    return Standing(id=row.id, revision=row.revision, archived=row.archived, title=row.title, due=row.due)


def _document(row: OrderRow, revision: RevisionRow) -> Document:
    try:
        return Document.model_validate(revision.document)
    except ValidationError as error:
        raise Unread(row.title, complaints_of(error.errors(include_url=False, include_input=False))) from error


def _order(row: OrderRow, revision: RevisionRow) -> Order:
    return Order(
        id=row.id,
        revision=row.revision,
        saved_at=revision.saved_at,
        archived=row.archived,
        document=_document(row, revision),
    )
