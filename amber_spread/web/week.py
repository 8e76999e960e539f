"""The week over HTTP: when to do what for all orders together, and what the others leave of a kitchen for one."""

import logging
import time
import uuid
from collections.abc import Callable, Sequence
from datetime import date, datetime, timedelta
from datetime import time as hour
from typing import Annotated, Any, ClassVar

from fastapi import APIRouter, Body, Depends, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import AfterValidator, Field, NaiveDatetime, StringConstraints, ValidationError

from amber_spread.core.clock import (
    FIRST_YEAR,
    LAST_YEAR,
    NOTHING_AROUND,
    Around,
    KeptBlock,
    KeptHours,
    Kitchen,
    NextSteps,
    OrderWork,
    Span,
    Week,
    Work,
    around,
    next_steps,
    week_of,
    work_of,
)
from amber_spread.core.document import Document, FileError
from amber_spread.core.kernel.base import Frozen, printable
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.limits import HANDS
from amber_spread.core.kernel.progress import Heard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.kit import Kit
from amber_spread.jobs.not_ready import NotReady, OutOfBudget
from amber_spread.jobs.program import digest_of
from amber_spread.jobs.week import better_json
from amber_spread.store.orders import OrderBook, OrderMissing, Unread
from amber_spread.store.works import MOST_AT_ONCE, Dated, WorkStore
from amber_spread.web.caller import CallerOf
from amber_spread.web.cards import MAKES_S
from amber_spread.web.kit import OwnedKit
from amber_spread.web.kitchen import KitchenOf
from amber_spread.web.later import Later
from amber_spread.web.lines import IN_LINES, in_lines
from amber_spread.web.orders import Book
from amber_spread.web.planner import LONGEST_S, Planner, PlannerOf

log = logging.getLogger("amber_spread")
router = APIRouter(prefix="/week", tags=["clock"])
AHEAD = timedelta(days=28)
"""Work on orders due so much later is not in the way of an order."""
LONGEST_DAYS, NEXT_DAYS = 31, 14
EFFORT = 1.5
"""How hard better hours are looked for: some 10 s on a usual computer."""
BlockId = Annotated[str, StringConstraints(max_length=200), AfterValidator(printable)]
Hand = Annotated[int, Field(ge=0, lt=int(HANDS.high))]
Minute = Annotated[int, Field(ge=0, le=130_000_000)]
ChosenBlock = tuple[Hand, Annotated[list[tuple[Minute, Minute]], Field(min_length=1, max_length=60)]]
LAST_ID = uuid.UUID(int=2**128 - 1)
FAULT = "It cannot be worked out here; the fault has been written to the log."
Key = tuple[uuid.UUID, int, str]
First = Annotated[date, Query(ge=date(1971, 1, 1), le=date(2200, 1, 1))]
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


class WeekPending(NotReady):
    """The work on some orders is not worked out yet: better hours without it would not be better."""

    def __init__(self, titles: Sequence[str]) -> None:
        super().__init__(f"Still working out {listed([f'“{one}”' for one in titles])}. Try again in a moment.")


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
        self.pending: list[str] = []
        """The titles of the orders whose work is being made. Till then they take what they took before their last
        change, and those that are new take nothing: nobody waits for somebody else's order.
        """

    def week(self, first: date, days: int, now: datetime | None) -> Week:
        """The orders due on some days, with the hours of their steps."""
        begins, ends = (datetime.combine(one, hour()) for one in (first, first + timedelta(days=days)))
        found = week_of(self.between(begins, ends + AHEAD), self.kitchen.places, now)
        return found.replace(
            orders=[one for one in found.orders if begins <= one.due < ends],
            left_out=[words for due, words in self.left_out if due < ends],
            pending=self.pending,
        )

    def around(self, document: Document, id: uuid.UUID | None) -> Around:
        """What the other orders leave of the kitchen for one. An order that was never saved is placed before those it
        is due with.
        """
        due = document.due
        if due is None or not FIRST_YEAR <= due.year <= LAST_YEAR:
            return NOTHING_AROUND  # such an order has no hours
        mine, near = id or LAST_ID, self._due(due - AHEAD, due + AHEAD)
        own = next((one.hours for one in near if one.id == id), None)
        others = [one for one in near if one.id != id and (one.hours is not None or (one.due, one.id) > (due, mine))]
        found = around(self._works(others), due, str(mine), _kept(own), self.kitchen.places)
        return found._replace(pending=tuple(self.pending))

    def between(self, first: datetime, last: datetime) -> list[OrderWork]:
        """The work on the orders due from one hour to another, and on those due a little earlier that keep their hours,
        as they are placed: the one due last first, and of those due together the one with the greatest id.
        """
        near = self._due(first - AHEAD, last)
        return self._works([one for one in near if one.due >= first or one.hours is not None])

    def _due(self, first: datetime, last: datetime) -> list[Dated]:
        return sorted(self.store.due_between(first, last), key=lambda one: (one.due, one.id), reverse=True)

    def _works(self, orders: Sequence[Dated]) -> list[OrderWork]:
        found = {one.id: self.read[self._key(one)] for one in orders if self._key(one) in self.read}
        missing = [one for one in orders if one.id not in found]
        kept = self.store.kept([one.id for one in missing]) if missing else {}
        for one in missing:
            before, key = kept.get(one.id), self._key(one)
            made = before if one.made_by == self.by else self._made(one)
            if made is not None:
                work = _order_work(one, key, made)
                # What failed may not fail the next time, so it is not cached.
                found[one.id] = work if work == FAULT else self.read.put(key, work)
                continue
            self.pending.append(one.title)
            if before is not None and before["by"] == self.by:
                found[one.id] = _order_work(one, (one.id, before["revision"], key[2]), before)
        works = [(one, found[one.id]) for one in orders if one.id in found]
        self.left_out = [
            (one.due, f"“{one.title}” is left out. {work}") for one, work in works if isinstance(work, str)
        ]
        return [work for _, work in works if isinstance(work, OrderWork)]

    def _key(self, one: Dated) -> Key:
        return one.id, one.revision, f"{self.by} {one.hours['id'] if one.hours else ''}"

    def _made(self, one: Dated) -> dict[str, Any] | None:
        """The work on an order, made now if that is quick and the request has time left; None if it follows in the
        background.
        """
        made = self._make(one, self.planner.quick_plan) if time.monotonic() < self.until else None
        if made is None and not self.later.begin(("work", *self._key(one)), lambda: self._make(one, self.planner.plan)):
            return self._stored(one, why=FAULT)
        return made

    def _make(self, one: Dated, planned: Callable[[Document, Kit], Plan | None]) -> dict[str, Any] | None:
        """Make the work on an order and keep it, or why there is none; None if it is not planned now."""
        try:
            document = self.book.open(one.id).document
            plan = planned(document, self.kit)
            if plan is None:
                return None
            made = self._stored(one, work=work_of(document, plan, self.kitchen).model_dump(mode="json"))
        except OrderMissing:
            made = self._stored(one, why="It is gone.")
        except Unread:
            made = self._stored(one, why="This version cannot read it. Open it to see why.")
        except FileError as error:
            made = self._stored(one, why=f"It cannot be made like this: {error}.")
        self.store.keep(one.id, one.revision, made, self.by)
        return made

    def _stored(self, one: Dated, **made: object) -> dict[str, Any]:
        return {"by": self.by, "revision": one.revision, **made}


def _order_work(one: Dated, key: Key, made: dict[str, Any]) -> OrderWork | str:
    """The work on an order as it was kept, or why there is none."""
    if "why" in made:
        return str(made["why"])
    try:
        work = Work.model_validate(made["work"])
    except ValidationError:
        log.exception("the work kept of order %s cannot be read", one.id)
        return FAULT
    return OrderWork(str(one.id), f"{key[1]} {key[2]}", one.title, one.due, work, _kept(one.hours))


def _kept(hours: dict[str, Any] | None) -> KeptHours | None:
    """Hours as they are stored."""
    if hours is None:
        return None
    return {id: KeptBlock(hand, tuple(Span(*span) for span in spans)) for id, (hand, spans) in hours["blocks"].items()}


def _works(request: Request, book: Book, planner: PlannerOf, kit: OwnedKit, kitchen: KitchenOf) -> Works:
    return Works(book, planner, request.app.state.later, kit, kitchen)


WorksOf = Annotated[Works, Depends(_works)]


@router.get("")
def week(works: WorksOf, first: First, days: Days = 7, now: NaiveDatetime | None = None) -> Week:
    """When to do what for every order due on these days, on the hands and in the places of the kitchen. `now` is the
    hour on the kitchen's clock, to see what is late.
    """
    return works.week(first, days, now)


class ChosenHours(Frozen):
    """Hours to keep, by the id of the order and that of the first of some steps that follow each other at once: whose
    hands do them, counted from 0, and from which minute to which, counted from 1 January 1970. Null for an order that
    is to have none of its own.
    """

    hours: Annotated[
        dict[uuid.UUID, Annotated[dict[BlockId, ChosenBlock], Field(max_length=2000)] | None],
        Field(max_length=MOST_AT_ONCE),
    ]


@router.get("/next")
def next_up(works: WorksOf, now: NaiveDatetime) -> NextSteps:
    """The next work on every order due in the fourteen days from an hour on the kitchen's clock, by its id."""
    if not FIRST_YEAR <= now.year <= LAST_YEAR:
        return NextSteps(steps={}, pending=False)
    return next_steps(works.week(now.date(), NEXT_DAYS, now), now)


@router.put("/hours", status_code=204)
def keep_hours(chosen: ChosenHours, book: Book) -> None:
    """Keep the hours that were chosen for some orders. Each has them as long as they fit its steps and the kitchen."""
    hours = {
        id: None if blocks is None else {"id": uuid.uuid4().hex, "blocks": blocks}
        for id, blocks in chosen.hours.items()
    }
    WorkStore(book.engine).choose(hours)


@router.post("/better", response_class=Response, responses=IN_LINES)
async def better(
    works: WorksOf,
    planner: PlannerOf,
    caller: CallerOf,
    first: Annotated[date, Body(ge=date(1971, 1, 1), le=date(2200, 1, 1))],
    now: Annotated[NaiveDatetime, Body()],
    days: Annotated[int, Body(ge=1, le=LONGEST_DAYS)] = 7,
    begun: Annotated[tuple[uuid.UUID, ...], Body(max_length=MOST_AT_ONCE)] = (),
) -> Response:
    """Look for better hours for the orders due on these days; those that have `begun`, or are due later, keep theirs. A
    line of JSON for each that was `found`, by its number, and last the `better` hours, or null where there are none.
    Nothing is stored.
    """
    last = datetime.combine(first + timedelta(days=days), hour())
    orders = await run_in_threadpool(works.between, datetime.combine(first, hour()), last + AHEAD)
    if works.pending:
        raise WeekPending(works.pending)
    stay = {str(one) for one in begun} | {one.id for one in orders if one.due >= last}
    given = tuple(orders), works.kitchen.places, now, EFFORT, tuple(sorted(stay))

    async def ask(heard: Heard) -> str:
        return await planner.alone(caller, OutOfBudget(), LONGEST_S, better_json, *given, heard=heard)

    return in_lines("better", ask, lambda name: {"found": int(name)} if name.isdecimal() else None)
