"""Plans design files: quick ones on the event loop, the others as jobs."""

import asyncio
import json
import time
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from typing import Annotated, Any, NamedTuple, ParamSpec, TypeVar

from anyio import to_thread
from fastapi import Depends, Request
from sqlalchemy import Engine

from amber_spread.core.design.effort import bodies_of, carving_of, effort_ms
from amber_spread.core.document import Document, FileError, plan_document
from amber_spread.core.geometry.bare import take_over
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.progress import Heard, unheard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import STARTING, Kit
from amber_spread.jobs.bodies import BodyCache, bodies_key
from amber_spread.jobs.calls import Call
from amber_spread.jobs.designs import Work, with_bodies, written
from amber_spread.jobs.not_ready import Ended, Lost, OutOfBudget, Unwanted
from amber_spread.jobs.queue import Jobs, Owner
from amber_spread.store.bodies import BodyStore
from amber_spread.web.clients import client_of

P = ParamSpec("P")
T = TypeVar("T")
BACKGROUND = Owner(background=True)
SOON_MS = 40.0
"""Plans up to this long run on the event loop; handing one to a worker would take as long again."""
LOOK_S = 0.1
"""Time between two looks at whether a caller still waits."""
LONGEST_S = 60.0
"""Processor time limit of one plan, s. By the clock it may take longer on a busy machine."""
MAX_CARVED = 4
"""Carvings remembered as cached, no more than a body caches coats of."""
MAX_KINDS = 64


class Slow(NamedTuple):
    """How often in a row a kind of cake took too long here, and until when it goes to a worker."""

    runs: int
    until: float


QUICK = Slow(0, 0.0)
SLOW_RUNS = 2
"""One slow run may be a cold start or a busy moment."""
SLOW_FOR_S = 60.0
REFERENCE_MS = 1.6
"""Time of the work in `_slowness` on the computer SOON_MS was chosen on, ms."""


class Caller:
    """The client behind a request that may take long. They wait for it on purpose, so the usual time limit is off."""

    def __init__(self, request: Request) -> None:
        self.owner = Owner(client_of(request))
        self.is_gone = request.is_disconnected
        request.state.waits_on_purpose = True


CallerOf = Annotated[Caller, Depends()]


@contextmanager
def sent_as(field: str) -> Iterator[None]:
    """Report errors of a design file under the request field that carried it."""
    try:
        yield
    except FileError as error:
        raise error.within(field) from error


class Planner:
    """Plans design files for the web."""

    def __init__(self, engine: Engine | None) -> None:
        self._jobs = None if engine is None else Jobs(engine)
        self._bodies = None if engine is None else BodyCache(BodyStore(engine))
        self._carved: Latest[str, bool] = Latest(MAX_CARVED)
        """Carvings and tins whose results are cached in this process."""
        self._slow: Latest[tuple[str, ...], Slow] = Latest(MAX_KINDS)
        """Kinds of cake that took longer here than estimated."""

    def stop(self) -> None:
        """Wait for no job any longer."""
        if self._jobs is not None:
            self._jobs.stop()

    def soon(self, document: Document, kit: Kit | None) -> bool:
        """Whether a plan is quick enough for the event loop."""
        kind, ms = self._estimate(document, kit)
        return ms <= SOON_MS and self._slow.get(kind, QUICK).until <= time.monotonic()

    async def written(
        self, caller: Caller, document: Document, kit: Kit | None, contents: Contents | None, heard: Heard = unheard
    ) -> str:
        """The plan as JSON, reporting progress if it takes long. Raises FileError, and what `elsewhere` raises."""
        if self.soon(document, kit):
            return self._here(written, document, kit, contents)
        return await self.elsewhere(caller, written, document, kit, contents, heard)

    async def planned(
        self, caller: Caller, document: Document, kit: Kit | None = None, contents: Contents | None = None
    ) -> Plan:
        """The plan. Raises FileError, and what `elsewhere` raises."""
        if self.soon(document, kit):
            return self._here(plan_document, document, kit, contents)
        return await self.elsewhere(caller, plan_document, document, kit, contents)

    def plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
        """The plan, computed in the background; call it from a thread. Raises FileError and OutOfBudget."""
        if self.soon(document, kit):
            return self._here(plan_document, document, kit, contents)
        with out_of_budget():
            found = self._begin(BACKGROUND, plan_document, document, kit, contents).result()
        plan: Plan = self._learn(document, kit, found)
        return plan

    async def elsewhere(
        self,
        caller: Caller,
        work: Work[T],
        document: Document,
        kit: Kit | None,
        contents: Contents | None = None,
        heard: Heard = unheard,
    ) -> T:
        """Run a job on a design file, with its cached bodies.

        Raises FileError, OutOfBudget, QueueFull, and Unwanted once the caller is gone: their next edit follows soon and
        should not wait behind this one.
        """
        with out_of_budget():
            found = await self._result(caller, self._begin(caller.owner, work, document, kit, contents, heard))
        result: T = await to_thread.run_sync(self._learn, document, kit, found) if _bodies(document) else found
        return result

    async def alone(
        self,
        caller: Caller,
        gives_up: Exception,
        seconds: float,
        work: Callable[..., T],
        *args: Any,
    ) -> T:
        """Run a job without a design file. Raises `gives_up` if it runs out of processor time or memory or its process
        crashes, else what `elsewhere` raises.
        """
        try:
            found: T = await self._result(caller, self._ask(caller.owner, Call(work, args, seconds)))
        except Lost as error:
            raise OutOfBudget from error
        except Ended as error:
            raise gives_up from error
        return found

    def _estimate(self, document: Document, kit: Kit | None) -> tuple[tuple[str, ...], float]:
        """The kind of a cake and how long it should take to plan, ms."""
        carved = bool(self._carved) and _carving(document, kit) in self._carved
        kind = (str(carved), *(f"{tier.shape.kind} {tier.build.kind}" for tier in document.design.tiers))
        return kind, effort_ms(document.design, carved)

    def _here(self, work: Work[T], document: Document, kit: Kit | None, contents: Contents | None) -> T:
        """Run a quick job on the spot and measure it: a kind of cake that proves slow goes to a worker for a while."""
        kind, _ = self._estimate(document, kit)
        began = time.thread_time()
        try:
            return work(document, kit, contents)
        finally:
            took_ms = 1000 * (time.thread_time() - began)
            slow = took_ms > SOON_MS and took_ms > SOON_MS * _slowness()
            runs = self._slow.get(kind, QUICK).runs + 1 if slow else 0
            if runs:
                self._slow.put(kind, Slow(runs, time.monotonic() + SLOW_FOR_S if runs >= SLOW_RUNS else 0.0))
            elif self._slow.get(kind, QUICK).runs:
                self._slow.put(kind, QUICK)

    def _begin(
        self,
        owner: Owner,
        work: Work[T],
        document: Document,
        kit: Kit | None,
        contents: Contents | None,
        heard: Heard = unheard,
    ) -> "Future[Any]":
        bodies = bodies_key(_bodies(document))
        if not bodies:
            return self._ask(owner, Call(work, (document, kit, contents), LONGEST_S), heard)
        return self._ask(owner, Call(with_bodies, (work, document, kit, contents), LONGEST_S, bodies), heard)

    def _ask(self, owner: Owner, call: Call, heard: Heard = unheard) -> "Future[Any]":
        if self._jobs is None:
            raise OutOfBudget
        return self._jobs.begin(owner, call, heard)

    async def _result(self, caller: Caller, begun: "Future[Any]") -> Any:
        assert self._jobs is not None
        waiting = asyncio.wrap_future(begun)
        try:
            while not waiting.done():
                await asyncio.wait({waiting}, timeout=LOOK_S)
                if not waiting.done() and await caller.is_gone():
                    raise Unwanted
            return await waiting
        finally:
            if not waiting.done():
                self._jobs.give_up(begun)

    def _learn(self, document: Document, kit: Kit | None, found: Any) -> Any:
        """The result of a job. What is known of its bodies is taken over into this process."""
        bodies = _bodies(document)
        if not bodies or self._bodies is None:
            return found
        result, more_is_known = found
        known = None if more_is_known else self._bodies.in_memory(bodies)
        known = known or self._bodies.load(bodies)
        if known.bodies:
            take_over(known.bodies, known.made)
            self._carved.put(_carving(document, kit), True)
        return result


def _slowness() -> float:
    """How much slower this computer is just now than the one SOON_MS was chosen on: by a fixed piece of work."""
    began = time.thread_time()
    sum(one * one for one in range(20_000))
    return 1000 * (time.thread_time() - began) / REFERENCE_MS


def _bodies(document: Document) -> str:
    """Everything the bodies of a design depend on, as text; empty if none is carved."""
    return bodies_of(document.design, document.practice)


def _carving(document: Document, kit: Kit | None) -> str:
    """Everything the carved tiers and the choice of their tins depend on, as text; empty if none is carved."""
    carved = carving_of(document.design, document.practice)
    return carved and carved + json.dumps([tin.model_dump(mode="json") for tin in (kit or STARTING).tins])


@contextmanager
def out_of_budget() -> Iterator[None]:
    """Raise OutOfBudget for a job that was stopped: that is no fault of the drawing."""
    try:
        yield
    except Ended as error:
        raise OutOfBudget from error


def _planner(request: Request) -> Planner:
    found: Planner = request.app.state.planner
    return found


PlannerOf = Annotated[Planner, Depends(_planner)]
