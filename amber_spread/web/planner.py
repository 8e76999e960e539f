"""Plans design files: quick ones on the event loop or in a thread, the others as jobs."""

import asyncio
import json
import time
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from typing import Annotated, Any, NamedTuple, TypeAlias, TypeVar, cast

from anyio import to_thread
from fastapi import Depends, Request

from amber_spread.core.design.effort import bodies_of, carving_of, effort_ms
from amber_spread.core.document import Document, FileError, plan_document
from amber_spread.core.geometry.bodies.bare import take_over
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.progress import Heard, unheard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import STARTING, Kit
from amber_spread.jobs.bodies import BodyCache, bodies_key
from amber_spread.jobs.calls import Call
from amber_spread.jobs.designs import EMPTY, Inputs, Work, with_bodies
from amber_spread.jobs.not_ready import Ended, OutOfBudget, Unwanted
from amber_spread.jobs.queue import Jobs, Owner
from amber_spread.store.bodies import BodyStore
from amber_spread.store.notices import Listener
from amber_spread.web.caller import Caller
from amber_spread.web.pace import slowness
from amber_spread.web.threads import ComputeThreads

T = TypeVar("T")
Cakes: TypeAlias = tuple[str, ...]
"""A kind of cake: the shapes and builds of its tiers, and whether what is carved is cached."""
BACKGROUND = Owner(background=True)
SOON_MS = 40.0
"""Plans up to this long are made at once; handing one to a worker would take as long again."""
LOOK_S = 0.1
"""Time between two looks at whether a caller still waits."""
LONGEST_S = 60.0
"""Processor time limit of one plan, s. By the clock it may take longer on a busy machine."""
MAX_CARVED = 4
"""Carvings remembered as cached, no more than a body caches coats of."""
MAX_KINDS = 64


class Slow(NamedTuple):
    """By how many limits the last runs of a kind of cake were too long here, and until when it goes to a worker."""

    limits: float
    until: float


QUICK = Slow(0.0, 0.0)
SLOW_LIMITS = 8.0
MOST_LIMITS = 4.0
"""A run counts as so many at most: one slow run may be a cold start, a collection of garbage or a busy moment."""
SLOW_FOR_S = 60.0


@contextmanager
def sent_as(field: str) -> Iterator[None]:
    """Report errors of a design file under the request field that carried it."""
    try:
        yield
    except FileError as error:
        raise error.within(field) from error


class Planner:
    """Plans design files for the web."""

    def __init__(self, listener: Listener | None) -> None:
        self._threads = ComputeThreads()
        self._jobs = None if listener is None else Jobs(listener)
        self._bodies = None if listener is None else BodyCache(BodyStore(listener.engine))
        self._carved: Latest[str, bool] = Latest(MAX_CARVED)
        """Carvings and tins whose results are cached in this process."""
        self._slow: Latest[Cakes, Slow] = Latest(MAX_KINDS)
        """Kinds of cake that took longer here than estimated."""

    def stop(self) -> None:
        """Wait for no job any longer."""
        if self._jobs is not None:
            self._jobs.stop()

    async def run(self, caller: Caller, work: Work[T], inputs: Inputs, longer: bool = False) -> T:
        """The result of some work on a design file: at once if the plan is quick, else from a job.

        `longer` says that the work takes longer than the plan. Raises FileError, and what `elsewhere` raises.
        """
        found = await self.at_once(caller, work, inputs, longer)
        return await self.elsewhere(caller, work, inputs) if found is None else found

    async def at_once(self, caller: Caller, work: Work[T], inputs: Inputs, longer: bool = False) -> T | None:
        """Do some work if the plan should be quick, and measure it. None if it should be a job.

        What is `longer` than a plan is done in a thread, and so is a carved cake: even with its carving cached, a part
        that no plan has asked for before takes several times the usual time. Raises FileError, and Unwanted once the
        caller is gone.
        """
        kind = self._quick_kind(inputs.document, inputs.kit)
        if kind is None:
            return None
        if longer:
            return await self._threads.run(caller, lambda: work(*inputs))
        if any(tier.build.carved for tier in inputs.document.design.tiers):
            return await self._threads.run(caller, lambda: self._timed(kind, work, inputs))
        return self._timed(kind, work, inputs)

    def quick_plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan | None:
        """The plan if it is quick. Raises FileError."""
        return self.quick(plan_document, Inputs(document, kit, contents))

    def plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
        """The plan, from a background job if it takes long; call it from a thread. Raises FileError and OutOfBudget."""
        found = self.quick_plan(document, kit, contents)
        if found is not None:
            return found
        inputs = Inputs(document, kit, contents)
        bodies, call = _call(plan_document, inputs)
        with _stopped_means(OutOfBudget()):
            found, changed = self._ask(BACKGROUND, call).result()
        return cast(Plan, self._learnt(inputs, bodies, found, changed))

    async def elsewhere(
        self,
        caller: Caller,
        work: Work[T],
        inputs: Inputs,
        heard: Heard = unheard,
    ) -> T:
        """Run a job on a design file, with its cached bodies.

        `heard` is called with each part of the job as it begins. Raises FileError, OutOfBudget, QueueFull, and Unwanted
        once the caller is gone: their next edit follows soon and should not wait behind this one.
        """
        bodies, call = _call(work, inputs)
        with _stopped_means(OutOfBudget()):
            found, changed = await self._result(caller, self._ask(caller.owner, call, heard))
        return cast(T, await to_thread.run_sync(self._learnt, inputs, bodies, found, changed))

    async def alone(
        self,
        caller: Caller,
        gives_up: Exception,
        seconds: float,
        work: Callable[..., T],
        *args: Any,
        heard: Heard = unheard,
    ) -> T:
        """Run a job without a design file; `heard` is called with each part of it as it begins. Raises `gives_up` if
        it runs out of processor time or memory or its process crashes, else what `elsewhere` raises.
        """
        with _stopped_means(gives_up):
            return cast(T, await self._result(caller, self._ask(caller.owner, Call(work, args, seconds), heard)))

    def soon(self, document: Document, kit: Kit | None) -> bool:
        """Whether a plan is quick enough for the event loop."""
        return self._quick_kind(document, kit) is not None

    def _quick_kind(self, document: Document, kit: Kit | None) -> Cakes | None:
        """The kind of a cake that should be quick to plan; None if it should be a job."""
        carved = bool(self._carved) and _carving(document, kit) in self._carved
        if effort_ms(document.design, carved) > SOON_MS:
            return None
        kind = (str(carved), *(f"{tier.shape.kind} {tier.build.kind}" for tier in document.design.tiers))
        return kind if self._slow.get(kind, QUICK).until <= time.monotonic() else None

    def quick(self, work: Work[T], inputs: Inputs) -> T | None:
        """Run some work here if it should be quick, and measure it. None if it should be a job. Raises FileError."""
        kind = self._quick_kind(inputs.document, inputs.kit)
        return None if kind is None else self._timed(kind, work, inputs)

    def _timed(self, kind: Cakes, work: Work[T], inputs: Inputs) -> T:
        """Run some work and note how long it took for this kind of cake."""
        began = time.thread_time()
        try:
            return work(*inputs)
        finally:
            self._measured(kind, 1000 * (time.thread_time() - began))

    def _measured(self, kind: Cakes, took_ms: float) -> None:
        """Note how long a kind of cake took: one that proves slow becomes a job for a while."""
        before = self._slow.get(kind, QUICK).limits
        if took_ms > SOON_MS and (over := took_ms / (SOON_MS * slowness())) > 1:
            limits = before + min(over, MOST_LIMITS)
            until = time.monotonic() + SLOW_FOR_S if limits >= SLOW_LIMITS else 0.0
            self._slow.put(kind, Slow(limits, until))
        elif before:
            self._slow.put(kind, QUICK)

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

    def _learnt(self, inputs: Inputs, bodies: str, found: Any, changed: bool) -> Any:
        """What a job found, once the results of the design's bodies are taken over, which it may have changed. Raises
        the FileError that it found instead.
        """
        known = self._bodies.load(bodies, changed) if bodies and self._bodies is not None else EMPTY
        if known.bodies:
            take_over(known.bodies, known.made)
            self._carved.put(_carving(inputs.document, inputs.kit), True)
        if isinstance(found, FileError):
            raise found
        return found


def _call(work: Work[T], inputs: Inputs) -> tuple[str, Call]:
    """Everything the bodies of a design depend on, as text (empty if none is carved), and the call of a job on it."""
    bodies = bodies_of(inputs.document.design, inputs.document.practice)
    return bodies, Call(with_bodies, (work, inputs), LONGEST_S, bodies_key(bodies))


def _carving(document: Document, kit: Kit | None) -> str:
    """Everything the carved tiers and the choice of their tins depend on, as text; empty if none is carved."""
    carved = carving_of(document.design, document.practice)
    return carved and carved + json.dumps([tin.model_dump(mode="json") for tin in (kit or STARTING).tins])


@contextmanager
def _stopped_means(error: Exception) -> Iterator[None]:
    """Raise an error of the caller's for a job that was stopped."""
    try:
        yield
    except Ended as ended:
        raise error from ended


async def _planner(request: Request) -> Planner:
    found: Planner = request.app.state.planner
    return found


PlannerOf = Annotated[Planner, Depends(_planner)]
