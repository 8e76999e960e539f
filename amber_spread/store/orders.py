"""The order book: create, list, open, save, duplicate and archive orders. Every save is a new revision."""

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date, datetime, timedelta

from sqlalchemy import Engine, create_engine, func, select
from sqlalchemy.orm import Session

from amber_spread.core.base import Frozen
from amber_spread.core.document import Document
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


MOST_AT_ONCE = 200
"""So many orders are shopped for at once."""


class OrderMissing(LookupError):
    """There is no such order, or it has no such revision."""


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
        return cls(create_engine(url, pool_pre_ping=True, connect_args={"connect_timeout": 5}))

    def create(self, document: Document, id: uuid.UUID | None = None) -> Order:
        """A new order holding `document` as revision 1."""
        with self._work() as session:
            row = OrderRow(id=id or uuid.uuid4(), title=document.title, due=document.due, archived=False, revision=1)
            session.add(row)
            session.flush()
            self._append(session, row.id, 1, document, began_from=None, aside=False)
            return self._read(session, row)

    def due_between(self, first: date, last: date) -> list[Order]:
        """Every order on the shelf that is due on these days or between them, the first due at the head."""
        query = (
            select(OrderRow, RevisionRow)
            .join(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
            .where(~OrderRow.archived, OrderRow.due >= first, OrderRow.due < last + timedelta(days=1))
            .order_by(OrderRow.due, OrderRow.created_at, OrderRow.id)
            .limit(MOST_AT_ONCE)
        )
        with self._work() as session:
            return [_order(row, revision) for row, revision in session.execute(query)]

    def on_shelf(self, archived: bool = False, limit: int = 500) -> list[Order]:
        """The first `limit` orders, the one due first at the head and those without an hour at the end."""
        query = (
            select(OrderRow, RevisionRow)
            .join(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
            .where(OrderRow.archived == archived)
            .order_by(OrderRow.due.asc().nulls_last(), OrderRow.created_at, OrderRow.id)
            .limit(limit)
        )
        with self._work() as session:
            return [_order(row, revision) for row, revision in session.execute(query)]

    def open(self, id: uuid.UUID) -> Order:
        """The order as it stands. Raises OrderMissing."""
        with self._work() as session:
            return self._read(session, self._row(session, id))

    def save(self, id: uuid.UUID, began_from: int, document: Document) -> Order:
        """Save `document` as the next revision of an order that was opened at revision `began_from`.

        Saving what is already current changes nothing. Raises OrderMissing, and StaleSave when
        another save came first; what was sent is then kept aside, and nothing is lost.
        """
        with self._work() as session:
            row = self._row(session, id, lock=True)
            current = self._revision(session, id, row.revision)
            if current.document == document.model_dump(mode="json"):
                return _order(row, current)
            number = session.scalars(
                select(func.max(RevisionRow.number)).where(RevisionRow.order_id == id)
            ).one() + 1  # fmt: skip
            stale = began_from != row.revision
            self._append(session, id, number, document, began_from=began_from, aside=stale)
            if not stale:
                row.title, row.due, row.revision = document.title, document.due, number
                session.flush()
                return self._read(session, row)
            current_number = row.revision
        raise StaleSave(current_number, number)

    def duplicate(self, id: uuid.UUID) -> Order:
        """A new order with the same design, called a copy. Raises OrderMissing."""
        document = self.open(id).document
        return self.create(document.model_copy(update={"title": f"{document.title[:72]} (copy)"}))

    def archive(self, id: uuid.UUID, archived: bool) -> Order:
        """Take an order off the shelf, or put it back. Raises OrderMissing."""
        with self._work() as session:
            row = self._row(session, id, lock=True)
            row.archived = archived
            session.flush()
            return self._read(session, row)

    def revisions(self, id: uuid.UUID) -> list[Revision]:
        """Every revision of an order, newest first. Raises OrderMissing."""
        with self._work() as session:
            self._row(session, id)
            rows = session.scalars(
                select(RevisionRow).where(RevisionRow.order_id == id).order_by(RevisionRow.number.desc())
            )
            return [
                Revision(number=row.number, saved_at=row.saved_at, aside=row.aside, title=row.document["title"])
                for row in rows
            ]

    def document_at(self, id: uuid.UUID, number: int) -> Document:
        """What an order said at a revision. Raises OrderMissing."""
        with self._work() as session:
            return Document.model_validate(self._revision(session, id, number).document)

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
        return row

    def _append(
        self, session: Session, id: uuid.UUID, number: int, document: Document, began_from: int | None, aside: bool
    ) -> None:
        session.add(
            RevisionRow(
                order_id=id,
                number=number,
                began_from=began_from,
                aside=aside,
                document=document.model_dump(mode="json"),
            )
        )
        session.flush()

    def _read(self, session: Session, row: OrderRow) -> Order:
        return _order(row, self._revision(session, row.id, row.revision))


def _order(row: OrderRow, revision: RevisionRow) -> Order:
    return Order(
        id=row.id,
        revision=row.revision,
        saved_at=revision.saved_at,
        archived=row.archived,
        document=Document.model_validate(revision.document),
    )
