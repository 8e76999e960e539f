"""The work on each order and its pinned hours, stored beside it."""

import uuid
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import Engine, select, update
from sqlalchemy.orm import Session

from amber_spread.store.notices import tell
from amber_spread.store.tables import OrderRow

MOST_AT_ONCE = 200
"""The most orders that are placed together."""


class Dated(NamedTuple):
    """An order on the shelf with a due hour, what made its stored work, if any, and its pinned hours."""

    id: uuid.UUID
    revision: int
    title: str
    due: datetime
    made_by: str | None
    hours: dict[str, Any] | None


class WorkStore:
    """The work on the orders of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def due_between(self, first: datetime, last: datetime) -> list[Dated]:
        """The orders on the shelf due from one hour to another; no more than MOST_AT_ONCE of them, the first due."""
        columns = OrderRow.id, OrderRow.revision, OrderRow.title, OrderRow.due, OrderRow.work_made_by, OrderRow.hours
        query = (
            select(*columns)
            .where(~OrderRow.archived, OrderRow.due >= first, OrderRow.due <= last)
            .order_by(OrderRow.due, OrderRow.id)
            .limit(MOST_AT_ONCE)
        )
        with Session(self.engine) as session:
            rows = session.execute(query).all()
            return [Dated(id, number, title, due, *made) for id, number, title, due, *made in rows if due is not None]

    def stored(self, ids: Sequence[uuid.UUID]) -> dict[uuid.UUID, dict[str, Any]]:
        """The stored work of some orders."""
        with Session(self.engine) as session:
            rows = session.execute(select(OrderRow.id, OrderRow.work).where(OrderRow.id.in_(ids)))
            return {id: work for id, work in rows if work is not None}

    def pin(self, hours: Mapping[uuid.UUID, dict[str, Any] | None]) -> None:
        """Store the pinned hours of some orders, all or nothing; None for an order that is to have none. Orders that
        are gone are skipped.
        """
        with Session(self.engine) as session, session.begin():
            found = select(OrderRow).where(OrderRow.id.in_(hours)).order_by(OrderRow.id).with_for_update()
            for row in session.scalars(found):
                row.hours = hours[row.id]
                tell(session, "order", row.revision, row.id)

    def store(self, id: uuid.UUID, revision: int, work: dict[str, Any], by: str) -> None:
        """Store the work on a revision, unless another is current by now."""
        with Session(self.engine) as session, session.begin():
            session.execute(
                update(OrderRow)
                .where(OrderRow.id == id, OrderRow.revision == revision)
                .values(work=work, work_made_by=by)
            )
