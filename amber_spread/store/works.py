"""The work on each order, its pinned hours and its marks, stored beside it."""

import copy
import uuid
from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import Engine, select, update
from sqlalchemy.orm import Session

from amber_spread.core.clock import Mark
from amber_spread.store.notices import tell
from amber_spread.store.orders import OrderMissing
from amber_spread.store.tables import OrderRow

MOST_AT_ONCE = 200
"""The most orders that are placed together."""


class Dated(NamedTuple):
    """An order on the shelf with a due hour, what made its stored work, if any, its pinned hours and its marks."""

    id: uuid.UUID
    revision: int
    title: str
    due: datetime
    made_by: str | None
    hours: dict[str, Any] | None
    marks: dict[str, Any] | None

    @property
    def stays(self) -> bool:
        """Whether hours of it were chosen or noted, which others are placed around."""
        return self.hours is not None or self.marks is not None


class MarkChanged(RuntimeError):
    """The mark at a step is not the one that was seen there: somebody else changed it."""


class WorkStore:
    """The work on the orders of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def due_between(self, first: datetime, last: datetime) -> list[Dated]:
        """The orders on the shelf due from one hour to another; no more than MOST_AT_ONCE of them, the first due."""
        found = OrderRow.id, OrderRow.revision, OrderRow.title, OrderRow.due
        query = (
            select(*found, OrderRow.work_made_by, OrderRow.hours, OrderRow.marks)
            .where(~OrderRow.archived, OrderRow.due >= first, OrderRow.due <= last)
            .order_by(OrderRow.due, OrderRow.id)
            .limit(MOST_AT_ONCE)
        )
        with Session(self.engine) as session:
            rows = session.execute(query).all()
            return [Dated(id, number, title, due, *made) for id, number, title, due, *made in rows if due is not None]

    def due_of(self, id: uuid.UUID) -> datetime | None:
        """The due hour of an order on the shelf; None if it has none, or there is no such order."""
        with Session(self.engine) as session:
            return session.scalar(select(OrderRow.due).where(OrderRow.id == id, ~OrderRow.archived))

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
                tell(session, "hours", row.revision, row.id)

    def mark(self, id: uuid.UUID, step: str, seen: Mark | None, mark: Mark | None) -> None:
        """Store the mark at a step in place of the one that was `seen` there. Raises OrderMissing, and MarkChanged if
        another was stored meanwhile.
        """

        def change(marks: dict[str, Any]) -> None:
            steps, stored = marks["steps"], marks["steps"].get(step)
            if stored != (None if seen is None else list(seen)) and stored != (None if mark is None else list(mark)):
                raise MarkChanged(step)
            steps.pop(step, None)
            if mark is not None:
                steps[step] = list(mark)

        self._change_marks(id, change)

    def plan_from_now(self, id: uuid.UUID, on: bool) -> None:
        """Plan an order from now, even if no step of it is marked; or not. Raises OrderMissing."""
        self._change_marks(id, lambda marks: marks.update(from_now=on))

    def _change_marks(self, id: uuid.UUID, change: Callable[[dict[str, Any]], None]) -> None:
        with Session(self.engine) as session, session.begin():
            row = session.get(OrderRow, id, with_for_update=True)
            if row is None or row.archived:
                raise OrderMissing("there is no such order on the shelf")
            marks = copy.deepcopy(row.marks) or {"from_now": False, "steps": {}}
            change(marks)
            row.marks = {**marks, "id": uuid.uuid4().hex} if marks["from_now"] or marks["steps"] else None
            tell(session, "hours", row.revision, row.id)

    def store(self, id: uuid.UUID, revision: int, work: dict[str, Any], by: str) -> None:
        """Store the work on a revision, unless another is current by now."""
        with Session(self.engine) as session, session.begin():
            session.execute(
                update(OrderRow)
                .where(OrderRow.id == id, OrderRow.revision == revision)
                .values(work=work, work_made_by=by)
            )
