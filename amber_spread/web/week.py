"""The week over HTTP: when to do what for all orders together, and what the others leave of a kitchen for one."""

import logging
import time
import uuid
from collections.abc import Callable, Sequence
from datetime import date, datetime, timedelta
from datetime import time as hour
from typing import Annotated, Any, ClassVar

from fastapi import APIRouter, Depends, Query, Request
from pydantic import NaiveDatetime, ValidationError

from amber_spread.core.clock import (
    EMPTY_KITCHEN,
    FIRST_YEAR,
    LAST_YEAR,
    InKitchen,
    Kitchen,
    OrderWork,
    Week,
    Work,
    before,
    week_of,
    work_of,
)
from amber_spread.core.document import Document, FileError
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.plan import Plan
from amber_spread.core.stock.kit import Kit
from amber_spread.jobs.not_ready import NotReady
from amber_spread.jobs.program import digest_of
from amber_spread.store.orders import OrderBook, OrderMissing, Unread
from amber_spread.store.works import MOST_AT_ONCE, Dated, WorkStore
from amber_spread.web.cards import MAKES_S
from amber_spread.web.kit import OwnedKit
from amber_spread.web.kitchen import KitchenOf
from amber_spread.web.later import Later
from amber_spread.web.orders import Book
from amber_spread.web.planner import Planner, PlannerOf

log = logging.getLogger("amber_spread")
router = APIRouter(prefix="/week", tags=["clock"])
AHEAD = timedelta(days=28)
"""Work on orders due so much later is not in the way of an order."""
LONGEST_DAYS = 31
LAST_ID = uuid.UUID(int=2**128 - 1)
FAULT = "It cannot be worked out here; the fault has been written to the log."
Key = tuple[uuid.UUID, int, str]
First = Annotated[date, Query(ge=date(1971, 1, 1), le=date(2200, 1, 1))]
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


class WeekPending(NotReady):
    """The work on some orders is not worked out yet. Hours that leave it out would be wrong, so there are none."""

    def __init__(self, done: int, orders: int) -> None:
        super().__init__(f"Working out the week: {done} of {orders} orders done.")


class Works:
    """The work on the orders of a kitchen, made again where the program, what it owns or its recipes are others."""

    read: ClassVar[Latest[Key, OrderWork | str]] = Latest(2 * MOST_AT_ONCE)
    """What this process has read last, by the order, its revision, and what the work was made by."""

    def __init__(self, book: OrderBook, planner: Planner, later: Later, kit: Kit, kitchen: Kitchen) -> None:
        self.book, self.planner, self.later, self.kit, self.kitchen = book, planner, later, kit, kitchen
        self.store = WorkStore(book.engine)
        self.by = digest_of(kit.model_dump_json(), repr(sorted(kitchen.made_of.items())))
        self.until = time.monotonic() + MAKES_S
        self.left_out: list[tuple[datetime, str]] = []
        """Words for the orders that have no work, since they cannot be made or read, and when they are due."""

    def week(self, first: date, days: int, now: datetime | None) -> Week:
        """The orders due on some days, with the hours of their steps. Raises WeekPending."""
        begins, ends = (datetime.combine(one, hour()) for one in (first, first + timedelta(days=days)))
        found = week_of(self.between(begins, ends + AHEAD), self.kitchen.places, now)
        return found.replace(
            orders=[one for one in found.orders if one.due < ends],
            left_out=[words for due, words in self.left_out if due < ends],
        )

    def around(self, document: Document, id: uuid.UUID | None) -> InKitchen:
        """What the orders that are placed before one leave taken: those due later, and of those due together the ones
        with a greater id. An order that was never saved comes before those it is due with. Raises WeekPending.
        """
        due = document.due
        if due is None or not FIRST_YEAR <= due.year <= LAST_YEAR:
            return EMPTY_KITCHEN  # such an order has no hours
        mine = (due, id or LAST_ID)
        listed = [one for one in self._listed(due, due + AHEAD) if (one.due, one.id) > mine and one.id != id]
        return before(self._works(listed), self.kitchen.places)

    def between(self, first: datetime, last: datetime) -> list[OrderWork]:
        """The work on the orders due from one hour to another, as they are placed: the one due last first, and of those
        due together the one with the greatest id. Raises WeekPending.
        """
        return self._works(self._listed(first, last))

    def _listed(self, first: datetime, last: datetime) -> list[Dated]:
        return sorted(self.store.due_between(first, last), key=lambda one: (one.due, one.id), reverse=True)

    def _works(self, listed: Sequence[Dated]) -> list[OrderWork]:
        found = {one.id: self.read[self._key(one)] for one in listed if self._key(one) in self.read}
        missing = [one for one in listed if one.id not in found]
        kept = self.store.kept([one.id for one in missing if one.made_by == self.by])
        pending = 0
        for one in missing:
            made = kept.get(one.id) or self._made(one)
            if made is None:
                pending += 1
            else:
                found[one.id] = self.read.put(self._key(one), _order_work(one, self.by, made))
        if pending:
            raise WeekPending(len(listed) - pending, len(listed))
        works = [(one, found[one.id]) for one in listed]
        self.left_out = [
            (one.due, f"“{one.title}” is left out. {work}") for one, work in works if isinstance(work, str)
        ]
        return [work for _, work in works if isinstance(work, OrderWork)]

    def _key(self, one: Dated) -> Key:
        return one.id, one.revision, self.by

    def _made(self, one: Dated) -> dict[str, Any] | None:
        """The work on an order, made now if that is quick and the request has time left; None if it follows in the
        background.
        """
        made = self._make(one, self.planner.quick_plan) if time.monotonic() < self.until else None
        if made is None and not self.later.begin(("work", *self._key(one)), lambda: self._make(one, self.planner.plan)):
            return {"why": FAULT}
        return made

    def _make(self, one: Dated, planned: Callable[[Document, Kit], Plan | None]) -> dict[str, Any] | None:
        """Make the work on an order and keep it, or why there is none; None if it is not planned now."""
        try:
            document = self.book.open(one.id).document
            plan = planned(document, self.kit)
            if plan is None:
                return None
            made: dict[str, Any] = work_of(document, plan, self.kitchen).model_dump(mode="json")
        except OrderMissing:
            made = {"why": "It is gone."}
        except Unread:
            made = {"why": "This version cannot read it. Open it to see why."}
        except FileError as error:
            made = {"why": f"It cannot be made like this: {error}."}
        self.store.keep(one.id, one.revision, made, self.by)
        return made


def _order_work(one: Dated, by: str, made: dict[str, Any]) -> OrderWork | str:
    """The work on an order as it was kept, or why there is none."""
    if "why" in made:
        return str(made["why"])
    try:
        work = Work.model_validate(made)
    except ValidationError:
        log.exception("the work kept of order %s cannot be read", one.id)
        return FAULT
    return OrderWork(str(one.id), f"{one.revision} {by}", one.title, one.due, work)


def _works(request: Request, book: Book, planner: PlannerOf, kit: OwnedKit, kitchen: KitchenOf) -> Works:
    return Works(book, planner, request.app.state.later, kit, kitchen)


WorksOf = Annotated[Works, Depends(_works)]


@router.get("")
def week(works: WorksOf, first: First, days: Days = 7, now: NaiveDatetime | None = None) -> Week:
    """When to do what for every order due on these days, on the hands and in the places of the kitchen. `now` is the
    hour on the kitchen's clock, to see what is late.
    """
    return works.week(first, days, now)
