"""The week over HTTP: when to do what for all orders together, better hours, and the hours to pin."""

import uuid
from collections.abc import Sequence
from datetime import datetime, timedelta
from datetime import time as hour
from typing import Annotated

from fastapi import APIRouter, Body, Query, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import AfterValidator, Field, NaiveDatetime, StringConstraints

from amber_spread.core.clock import FIRST_YEAR, LAST_YEAR, NextSteps, Week, next_steps
from amber_spread.core.kernel.base import Frozen, printable
from amber_spread.core.kernel.check import listed
from amber_spread.core.kernel.limits import HANDS
from amber_spread.core.kernel.progress import Heard
from amber_spread.jobs.not_ready import NotReady, OutOfBudget
from amber_spread.jobs.week import better_json
from amber_spread.store.works import MOST_AT_ONCE, WorkStore
from amber_spread.web.caller import CallerOf
from amber_spread.web.lines import IN_LINES, in_lines
from amber_spread.web.orders import Book, Day
from amber_spread.web.planner import LONGEST_S, PlannerOf
from amber_spread.web.works import AHEAD, WorksOf

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
