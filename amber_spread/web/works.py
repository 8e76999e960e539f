"""The work on the orders of a kitchen, stored beside them, and how each order is placed among the others."""

import hashlib
import logging
import uuid
from collections.abc import Callable, Sequence
from datetime import date, datetime, timedelta
from datetime import time as hour
from typing import Annotated, Any, ClassVar

from fastapi import Depends, Request
from pydantic import ValidationError

from amber_spread.core.clock import (
    NOTHING_AROUND,
    Around,
    Kitchen,
    Mark,
    OrderWork,
    PinnedBlock,
    PinnedHours,
    Places,
    Progress,
    Span,
    Variant,
    Week,
    Work,
    around,
    due_of,
    minute_of,
    more_places,
    week_of,
    work_of,
)
from amber_spread.core.document import Document, FileError
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.plan import Plan
from amber_spread.core.stock.kit import Kit
from amber_spread.store.orders import OrderBook, OrderMissing, Unread
from amber_spread.store.shelves import KitShelf
from amber_spread.store.works import MOST_AT_ONCE, Dated, WorkStore
from amber_spread.web.kitchen import KitchenOf
from amber_spread.web.later import Later
from amber_spread.web.orders import Book
from amber_spread.web.planner import Planner, PlannerOf
from amber_spread.web.soon import UNREADABLE, FailedLately, Soon, made_by, why_not

log = logging.getLogger("amber_spread")
AHEAD = timedelta(days=28)
"""Orders due so much later are taken not to be in the way of an order."""
LAST_ID = uuid.UUID(int=2**128 - 1)
FAULT = "It cannot be worked out here; the fault has been written to the log."
Key = tuple[uuid.UUID, int, str]


class Works:
    """The work on the orders, computed again when the program, the kit or a recipe in use changes."""

    cache: ClassVar[Latest[Key, OrderWork | str]] = Latest(2 * MOST_AT_ONCE)
    """The work of the orders last read by this process, or why there is none; by order, revision, and what made it."""

    def __init__(self, book: OrderBook, planner: Planner, later: Later, kitchen: Kitchen) -> None:
        self.book, self.planner, self.soon, self.kitchen = book, planner, Soon(later), kitchen
        self.store = WorkStore(book.engine)
        kit = KitShelf(book.engine).open()
        self.kit: Kit = kit.content
        recipes = hashlib.sha256(repr(sorted(kitchen.made_of.items())).encode()).hexdigest()
        self.by = f"{made_by(kit.number)}, recipes {recipes}"
        self.now = datetime.now()
        """The hour on the kitchen's clock: the server's, until a request says its own."""
        self.left_out: list[tuple[datetime, str]] = []
        """A sentence about each order that has no work, since it cannot be made or read, with its due hour."""
        self.pending: list[str] = []
        """The titles of the orders whose work is being computed. Until then an order counts as it was before its last
        change, and a new one does not count: nobody waits for somebody else's order.
        """

    def week(self, first: date, days: int, now: datetime | None) -> Week:
        """The orders due on some days, with the hours of their steps."""
        self.now = now or self.now
        begins, ends = span_of(first, days)
        found = week_of(self.between(begins, ends + AHEAD), self.kitchen.places, now)
        return found.replace(
            orders=[one for one in found.orders if begins <= one.due < ends],
            left_out=[words for due, words in self.left_out if due < ends],
            pending=self.pending,
        )

    def variants(self, document: Document, id: uuid.UUID | None, now: datetime) -> list[Variant]:
        """The kitchen with one thing more, and the other orders in it, as seen by one."""
        more = more_places(self.kitchen.places)
        return [
            Variant(what, text, changes, places, self.around(document, id, now, places))
            for what, text, changes, places in more
        ]

    def around(
        self, document: Document, id: uuid.UUID | None, now: datetime | None = None, places: Places | None = None
    ) -> Around:
        """The other orders, as seen by one, in this kitchen or with other places. An order that was never saved is
        placed before those due with it.
        """
        self.now = now or self.now
        try:
            due = due_of(document)
        except FileError:
            return NOTHING_AROUND  # its clock says what is wrong
        mine, near = id or LAST_ID, self._due(due - AHEAD, due + AHEAD)
        own = next((one for one in near if one.id == id), None)
        others = [one for one in near if one is not own and (one.stays or (one.due, one.id) > (due, mine))]
        works, pending = self._works(others), tuple(self.pending)
        work = next(iter(self._works([own])), None) if own is not None and own.marks is not None else None
        pinned = None if own is None else _pinned(own.hours)
        found = around(works, due, str(mine), pinned, places or self.kitchen.places, work)
        return found._replace(pending=pending)

    def among(self, id: uuid.UUID, now: datetime) -> tuple[OrderWork, list[OrderWork]]:
        """The work on an order that is due from now on, and all the orders it is placed among, itself included. Raises
        OrderMissing if it has none.
        """
        self.now = now
        due = self.store.due_of(id)
        orders = [] if due is None or due <= now else self.between(datetime.combine(now, hour()), due + AHEAD)
        found = next((one for one in orders if one.id == str(id)), None)
        if found is None:
            raise OrderMissing("this order has no hours from now on")
        return found, orders

    def between(self, first: datetime, last: datetime) -> list[OrderWork]:
        """The work on the orders due from one hour to another, and on those with pinned hours or marks due shortly
        before, in the order in which they are placed: the one due last first, and of those due together the greatest
        id.
        """
        near = self._due(first - AHEAD, last)
        return self._works([one for one in near if one.due >= first or one.stays])

    def _due(self, first: datetime, last: datetime) -> list[Dated]:
        return sorted(self.store.due_between(first, last), key=lambda one: (one.due, one.id), reverse=True)

    def _works(self, orders: Sequence[Dated]) -> list[OrderWork]:
        found = {one.id: self.cache[self._key(one)] for one in orders if self._key(one) in self.cache}
        missing = [one for one in orders if one.id not in found]
        stored = self.store.stored([one.id for one in missing]) if missing else {}
        for one in missing:
            before, key = stored.get(one.id), self._key(one)
            made = before if one.made_by == self.by else self._made(one)
            if made is not None:
                work = self._order_work(one, key, made)
                # What failed may not fail the next time, so it is not cached.
                found[one.id] = work if work == FAULT else self.cache.put(key, work)
                continue
            self.pending.append(one.title)
            if before is not None and before["by"] == self.by:
                found[one.id] = self._order_work(one, (one.id, before["revision"], key[2]), before)
        works = [(one, found[one.id]) for one in orders if one.id in found]
        self.left_out = [
            (one.due, f"“{one.title}” is left out. {work}") for one, work in works if isinstance(work, str)
        ]
        return [work for _, work in works if isinstance(work, OrderWork)]

    def _key(self, one: Dated) -> Key:
        progress = self._progress(one)
        marked = f"{one.marks['id']} {progress.earliest}" if one.marks and progress else ""
        return one.id, one.revision, f"{self.by} {one.hours['id'] if one.hours else ''} {marked}"

    def _progress(self, one: Dated) -> Progress | None:
        """What has been done of an order; None if nothing was noted, or once its due hour has passed."""
        if one.marks is None or self.now >= one.due:
            return None
        marks = {id: Mark(*values) for id, values in one.marks["steps"].items()}
        return Progress(marks, minute_of(self.now), one.marks["from_now"])

    def _made(self, one: Dated) -> dict[str, Any] | None:
        """The work on an order, computed now if that is quick; None if it follows in the background."""
        key = ("work", one.id, one.revision, self.by)
        try:
            return self.soon.make(
                key, lambda: self._make(one, self.planner.quick_plan), lambda: self._make(one, self.planner.plan)
            )
        except FailedLately:
            return self._as_stored(one, why=FAULT)

    def _make(self, one: Dated, planned: Callable[[Document, Kit], Plan | None]) -> dict[str, Any] | None:
        """Compute the work on an order and store it, or why there is none; None if it is not planned now."""
        try:
            document = self.book.open(one.id).document
            plan = planned(document, self.kit)
            if plan is None:
                return None
            made = self._as_stored(one, work=work_of(document, plan, self.kitchen).model_dump(mode="json"))
        except OrderMissing:
            made = self._as_stored(one, why="It is gone.")
        except Unread:
            made = self._as_stored(one, why=UNREADABLE)
        except FileError as error:
            made = self._as_stored(one, why=why_not(error))
        self.store.store(one.id, one.revision, made, self.by)
        return made

    def _as_stored(self, one: Dated, **made: object) -> dict[str, Any]:
        return {"by": self.by, "revision": one.revision, **made}

    def _order_work(self, one: Dated, key: Key, made: dict[str, Any]) -> OrderWork | str:
        """The work on an order as it was stored, or why there is none."""
        if "why" in made:
            return str(made["why"])
        try:
            work = Work.model_validate(made["work"])
        except ValidationError:
            log.exception("the stored work of order %s cannot be read", one.id)
            return FAULT
        pinned, progress = _pinned(one.hours), self._progress(one)
        return OrderWork(str(one.id), f"{key[1]} {key[2]}", one.title, one.due, work, pinned, progress)


def span_of(first: date, days: int) -> tuple[datetime, datetime]:
    """From midnight to midnight."""
    begins = datetime.combine(first, hour())
    return begins, begins + timedelta(days=days)


def _pinned(hours: dict[str, Any] | None) -> PinnedHours | None:
    """Pinned hours as they are stored."""
    if hours is None:
        return None
    return {
        id: PinnedBlock(hand, tuple(Span(*span) for span in spans)) for id, (hand, spans) in hours["blocks"].items()
    }


def _works(request: Request, book: Book, planner: PlannerOf, kitchen: KitchenOf) -> Works:
    return Works(book, planner, request.app.state.later, kitchen)


WorksOf = Annotated[Works, Depends(_works)]
