"""The week over HTTP: when to do what for all orders together, better hours, and the hours to pin."""

import uuid
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from datetime import time as hour
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Query, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import AfterValidator, Field, NaiveDatetime, StringConstraints

from amber_spread.core.clock import FIRST_YEAR, LAST_YEAR, NextSteps, Week, next_steps
from amber_spread.core.document import FileError, complaint_at
from amber_spread.core.kernel.base import Frozen, printable
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.limits import HANDS
from amber_spread.core.kernel.progress import Heard
from amber_spread.jobs.not_ready import NotReady, OutOfBudget
from amber_spread.jobs.week import better_json, week_sheet_pdf
from amber_spread.papers.sheets import Paper
from amber_spread.papers.week_sheet import Whose, write_week_calendar
from amber_spread.store.works import MOST_AT_ONCE, WorkStore
from amber_spread.web.caller import CallerOf
from amber_spread.web.files import CALENDAR, PDF, download
from amber_spread.web.lines import IN_LINES, in_lines
from amber_spread.web.orders import Book, Day
from amber_spread.web.planner import LONGEST_S, PlannerOf
from amber_spread.web.works import AHEAD, WorksOf, span_of

router = APIRouter(prefix="/week", tags=["clock"])
LONGEST_DAYS, NEXT_DAYS = 31, 14
EFFORT = 1.5
"""How hard better hours are looked for: some 10 s on a usual computer."""
BlockId = Annotated[str, StringConstraints(max_length=200), AfterValidator(printable)]
Hand = Annotated[int, Field(ge=0, lt=int(HANDS.high))]
Minute = Annotated[int, Field(ge=0, le=130_000_000)]
Block = tuple[Hand, Annotated[list[tuple[Minute, Minute]], Field(min_length=1, max_length=60)]]
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


class WeekPending(NotReady):
    """Some orders are still being worked out: hours that leave them out would not be better."""

    def __init__(self, titles: Sequence[str]) -> None:
        super().__init__(f"Still working out {listed([f'“{one}”' for one in titles])}. Try again in a moment.")


@router.get("")
def week(works: WorksOf, first: Day, days: Days = 7, now: NaiveDatetime | None = None) -> Week:
    """When to do what for every order due on these days, on the hands and in the places of the kitchen. `now` is the
    hour on the kitchen's clock, to see what is late.
    """
    return works.week(first, days, now)


class OnPaper:
    """A week to print, for one pair of hands, counted from 1, or for all of them."""

    def __init__(
        self,
        works: WorksOf,
        first: Day,
        days: Days = 7,
        now: NaiveDatetime | None = None,
        hand: Annotated[int | None, Query(ge=1, le=int(HANDS.high))] = None,
    ) -> None:
        hands = works.kitchen.places.hands
        if hand is not None and hand > len(hands):
            words = f"should be from 1 to {len(hands)}, as many pairs of hands as you have"
            raise FileError([complaint_at(("hand",), words)])
        self.whose = Whose(hand, "" if hand is None else hands[hand - 1].name or f"Hands {hand}")
        self.week = works.week(first, days, now)
        self.revisions = {str(one.id): one.revision for one in works.store.due_between(*span_of(first, days))}
        self.title = f"{self.whose.name or 'The week'} from {first}"


OnPaperOf = Annotated[OnPaper, Depends()]


@router.get("/days.pdf", response_class=Response)
async def week_sheets(asked: OnPaperOf, planner: PlannerOf, caller: CallerOf, paper: Paper = "a4") -> Response:
    """What a pair of hands does on each of these days, hour by hour, with a box to tick; all of them if none is
    named.
    """
    given = asked.week.model_dump_json(), asked.whose, paper
    content = await planner.alone(caller, OutOfBudget(), LONGEST_S, week_sheet_pdf, *given)
    return download(f"{asked.title} day sheets.pdf", PDF, content)


@router.get("/days.ics", response_class=Response)
def week_calendar(asked: OnPaperOf) -> Response:
    """The work of a pair of hands on these days, or of all, as events for a calendar. A newer file replaces what an
    older one brought, and so does the calendar of an order.
    """
    content = write_week_calendar(asked.week, asked.whose, asked.revisions, datetime.now(UTC))
    return download(f"{asked.title}.ics", CALENDAR, content)


class HoursToPin(Frozen):
    """Hours to pin, by order, and by the first of some steps that follow each other at once: the pair of hands, counted
    from 0, and the spans in minutes from 1 January 1970. Null for an order that is to have no pinned hours.
    """

    hours: Annotated[
        dict[uuid.UUID, Annotated[dict[BlockId, Block], Field(max_length=2000)] | None],
        Field(max_length=MOST_AT_ONCE),
    ]


@router.get("/next")
def next_up(works: WorksOf, now: NaiveDatetime) -> NextSteps:
    """The next work on every order due in the fourteen days from `now`, the hour on the kitchen's clock."""
    if not FIRST_YEAR <= now.year <= LAST_YEAR:
        return NextSteps(steps={}, pending=False)
    return next_steps(works.week(now.date(), NEXT_DAYS, now), now)


@router.put("/hours", status_code=204)
def pin_hours(sent: HoursToPin, book: Book) -> None:
    """Pin the hours of some orders. An order keeps them as long as they fit its steps and the kitchen."""
    hours = {
        id: None if blocks is None else {"id": uuid.uuid4().hex, "blocks": blocks} for id, blocks in sent.hours.items()
    }
    WorkStore(book.engine).pin(hours)


@router.post("/better", response_class=Response, responses=IN_LINES)
async def better(
    works: WorksOf,
    planner: PlannerOf,
    caller: CallerOf,
    first: Annotated[Day, Body()],
    now: Annotated[NaiveDatetime, Body()],
    days: Annotated[int, Body(ge=1, le=LONGEST_DAYS)] = 7,
    begun: Annotated[tuple[uuid.UUID, ...], Body(max_length=MOST_AT_ONCE)] = (),
) -> Response:
    """Look for better hours for the orders due on these days. Those that have `begun`, or are due later, stay as they
    are. Answers a line of JSON for each better solution (`found`, its number), and last `better`, or null if there is
    none. Nothing is stored.
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
