"""The clock of an order over HTTP: when to do what, and the day sheet to print."""

import uuid
from datetime import UTC, datetime
from functools import partial
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import NaiveDatetime, StringConstraints

from amber_spread.core.clock import Clock, Gives, Pace
from amber_spread.core.kernel.limits import TOOK
from amber_spread.jobs.designs import Inputs
from amber_spread.jobs.papers import Took, clock_json, gives_json, pace_json, paper_of
from amber_spread.papers.calendar import Saved, write_calendar
from amber_spread.papers.day_sheet import write_day_sheet
from amber_spread.store.orders import Order
from amber_spread.web.caller import CallerOf
from amber_spread.web.files import CALENDAR, JSON, PDF, download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.kitchen import MadeOf
from amber_spread.web.orders import open_order
from amber_spread.web.papers import PapersOf, PrintingOf
from amber_spread.web.planner import PlannerOf, sent_as
from amber_spread.web.planning import InputsOf
from amber_spread.web.works import WorksOf

router = APIRouter(tags=["clock"])
StepId = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,119}$")]


SavedOrder = Annotated[Order, Depends(open_order)]


@router.post("/clock", response_model=Clock)
async def clock_for_one(
    planner: PlannerOf,
    caller: CallerOf,
    works: WorksOf,
    inputs: InputsOf,
    now: Annotated[NaiveDatetime | None, Body()] = None,
    order: Annotated[uuid.UUID | None, Body()] = None,
) -> Response:
    """When to do what for one design as it stands, counted back from its due hour, around what the other orders take of
    the kitchen; `order` says which of them it is. `now` is the hour on the kitchen's clock, to see what is late.
    Nothing is stored.
    """
    around = await run_in_threadpool(works.around, inputs.document, order, now)
    with sent_as("document"):
        found = await planner.run(caller, partial(clock_json, now, works.kitchen, around), inputs, longer=True)
    return Response(found, media_type=JSON)


@router.post("/clock/gives", response_model=Gives)
async def gives_for_one(
    planner: PlannerOf,
    caller: CallerOf,
    works: WorksOf,
    inputs: InputsOf,
    now: Annotated[NaiveDatetime, Body()],
    order: Annotated[uuid.UUID | None, Body()] = None,
) -> Response:
    """What would help an order that cannot be ready in time, or finds no room in the cold: changes to it, to its
    design, or to the places of the kitchen. Each is tried, and says what comes of it. Nothing is stored.
    """
    around = await run_in_threadpool(works.around, inputs.document, order, now)
    variants = await run_in_threadpool(works.variants, inputs.document, order, now)
    with sent_as("document"):
        work = partial(gives_json, now, works.kitchen, around, variants)
        found = await planner.run(caller, work, inputs, longer=True)
    return Response(found, media_type=JSON)


@router.post("/clock/pace", response_model=Pace)
async def pace_for_one(
    planner: PlannerOf,
    caller: CallerOf,
    made_of: MadeOf,
    inputs: InputsOf,
    step: Annotated[StepId, Body()],
    took_min: Annotated[float, Body(), TOOK.field()],
) -> Response:
    """How well the fridge or the freezer cools, if the coat at a step of the clock took so many minutes to firm.
    Nothing is stored.
    """
    with sent_as("document"):
        work = partial(pace_json, Took(step, took_min), made_of)
        found = await planner.run(caller, work, inputs, longer=True)
    return Response(found, media_type=JSON)


@router.get("/orders/{id}/days.pdf", response_class=Response)
async def days_pdf(order: SavedOrder, papers: PapersOf, by: PrintingOf, works: WorksOf) -> Response:
    """What to do on each day, hour by hour, with a box to tick."""
    around = await run_in_threadpool(works.around, order.document, order.id)
    return await papers.file("day sheet.pdf", PDF, write_day_sheet, *by.choices, works.kitchen, around)


@router.get("/orders/{id}/days.ics", response_class=Response)
async def calendar_of(
    order: SavedOrder, kit: OwnedKit, planner: PlannerOf, caller: CallerOf, by: PrintingOf, works: WorksOf
) -> Response:
    """The work on an order as events for a calendar. A newer file replaces what an older one brought."""
    length, weight, _ = by.choices
    saved = Saved(str(order.id), order.revision, datetime.now(UTC))
    around = await run_in_threadpool(works.around, order.document, order.id)
    work = partial(paper_of, write_calendar, (saved, length, weight, works.kitchen, around))
    found = await planner.elsewhere(caller, work, Inputs(order.document, kit))
    return download(f"{order.document.title} calendar.ics", CALENDAR, found)
