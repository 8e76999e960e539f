"""Who plans: the event loop what is soon done, another process what may take longer."""

import asyncio
import json
import time
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from typing import Annotated, ParamSpec, TypeVar

from anyio import to_thread
from fastapi import Depends, Request

from amber_spread.core.design.effort import bodies_of, carving_of, effort_ms
from amber_spread.core.document import Document, FileError, plan_document
from amber_spread.core.geometry.bare import BareBody, take_over
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.progress import Heard, unheard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import STARTING, Kit
from amber_spread.store.worked import WorkedShelf
from amber_spread.web.clients import client_of
from amber_spread.web.elsewhere import Done, Known, Work, with_bodies, written
from amber_spread.web.known import NOTHING, KnownBodies
from amber_spread.web.shares import Whose
from amber_spread.web.still import TooMuch
from amber_spread.web.workers import FAILED, LOOK_S, Unwanted, Workers

A = TypeVar("A")
P = ParamSpec("P")
T = TypeVar("T")
NOBODY = Whose(waited_for=False)
SLOWER_KINDS = 64
"""Of so many kinds of cake it is known that they take longer than is guessed."""
SOON_MS = 40.0
"""What takes no longer than this is planned where it was asked for; handing it over would take as long again."""
LONGEST_S = 60.0
"""So much of the processor's time is spent on one plan, s: by the clock it may be more, on a machine that is busy."""
MOST_CARVED = 4
"""So many carvings are known here: no more than a body keeps the coats of, so that what is known is there."""


class Asker:
    """Whoever asks over HTTP: which client it is, and whether they still wait."""

    def __init__(self, request: Request) -> None:
        self.whose = Whose(client_of(request))
        self.is_gone = request.is_disconnected


AskerOf = Annotated[Asker, Depends()]


@contextmanager
def sent_as(field: str) -> Iterator[None]:
    """Whatever is wrong with the design file that was sent in that field is said of it there."""
    try:
        yield
    except FileError as error:
        raise error.within(field) from error


class Planner:
    """Plans design files for the web."""

    def __init__(self, workers: Workers, shelf: WorkedShelf | None = None) -> None:
        self.workers = workers
        self.known = KnownBodies(shelf)
        self._slower: Latest[tuple[str, ...], float] = Latest(SLOWER_KINDS)
        """Kinds of cake that took so many times as long as was guessed."""
        self._keeping: set[asyncio.Future[None]] = set()
        self._carved: Latest[str, bool] = Latest(MOST_CARVED)
        """What was carved elsewhere, the last of it, for which tins, so that it is known here."""

    def soon(self, document: Document, kit: Kit | None) -> bool:
        """Whether it is soon planned here, what is carved in it having been worked out before for the same tins."""
        carved = bool(self._carved) and _carving(document, kit) in self._carved
        guessed = effort_ms(document.design, carved)
        return guessed * self._slower.get(_kind(document, carved), 1.0) <= SOON_MS

    def _here(self, work: Work[T], document: Document, kit: Kit | None, contents: Contents | None = None) -> T:
        """Work on a design file on the spot. How long it takes is measured: a kind of cake that takes longer than was
        guessed is worked on elsewhere the next time.
        """
        began = time.thread_time()
        try:
            return work(document, kit, contents)
        finally:
            took_ms = 1000 * (time.thread_time() - began)
            carved = bool(self._carved) and _carving(document, kit) in self._carved
            guessed, kind = effort_ms(document.design, carved), _kind(document, carved)
            if took_ms > guessed * self._slower.get(kind, 1.0):
                self._slower.put(kind, took_ms / guessed)

    async def written(
        self, asker: Asker, document: Document, kit: Kit | None, contents: Contents | None, heard: Heard = unheard
    ) -> str:
        """The plan of a design file as JSON; of one that takes long each part is told as it begins. Raises FileError
        where it cannot be planned, and what `elsewhere` does.
        """
        if self.soon(document, kit):
            return self._here(written, document, kit, contents)
        return await self.elsewhere(asker, written, document, kit, contents, heard)

    async def planned(
        self, asker: Asker, document: Document, kit: Kit | None = None, contents: Contents | None = None
    ) -> Plan:
        """The plan of a design file. Raises likewise."""
        if self.soon(document, kit):
            return self._here(plan_document, document, kit, contents)
        return await self.elsewhere(asker, plan_document, document, kit, contents)

    def plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
        """The plan of a design file that nobody waits for, in a thread of its own. Raises FileError likewise, and
        TooMuch.
        """
        if self.soon(document, kit):
            return self._here(plan_document, document, kit, contents)
        known = self.known.find(_bodies(document))
        begun = self.workers.begin_for(NOBODY, with_bodies, LONGEST_S, plan_document, known, document, kit, contents)
        with too_much():
            found, learnt = self._keep(document, kit, known, begun.result())
        if learnt:
            self.known.keep(_bodies(document))
        return found

    async def elsewhere(
        self,
        asker: Asker,
        work: Work[T],
        document: Document,
        kit: Kit | None,
        contents: Contents | None = None,
        heard: Heard = unheard,
    ) -> T:
        """Work on a design file in a worker, with what was worked out of its bodies before. Raises FileError likewise,
        and Unwanted once whoever asked is gone: the next edit follows soon, and would wait behind it. Raises Crowded
        where they wait for too much already, and TooMuch.
        """
        given = _bodies(document)
        known = self.known.here(given)
        if known is None:
            known = await to_thread.run_sync(self.known.find, given) if given else NOTHING
        begun = self.workers.begin_for(asker.whose, with_bodies, LONGEST_S, work, known, document, kit, contents)
        self.workers.hear(begun, heard)
        with too_much():
            found, learnt = self._keep(document, kit, known, await self._awaited(asker, begun))
        if learnt:
            keeping = asyncio.ensure_future(to_thread.run_sync(self.known.keep, given))
            self._keeping.add(keeping)
            keeping.add_done_callback(self._keeping.discard)
        return found

    async def alone(
        self, asker: Asker, gives_up: Exception, seconds: float, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs
    ) -> T:
        """What comes of work that needs no body, in so many seconds of the processor. Raises `gives_up` where it took
        more, and likewise.
        """
        try:
            return await self._awaited(asker, self.workers.begin_for(asker.whose, work, seconds, *args, **kwargs))
        except FAILED as error:
            raise gives_up from error

    async def _awaited(self, asker: Asker, begun: "Future[A]") -> A:
        waiting: asyncio.Future[A] = asyncio.wrap_future(begun)
        try:
            while not waiting.done():
                await asyncio.wait({waiting}, timeout=LOOK_S)
                if not waiting.done() and await asker.is_gone():
                    raise Unwanted
            return await waiting
        finally:
            if not waiting.done():
                waiting.cancel()
                self.workers.give_up(begun)

    def _keep(self, document: Document, kit: Kit | None, before: Known, done: "Done[T]") -> tuple[T, bool]:
        """What was asked for, and whether anything was learnt of its bodies, which are known here from now on."""
        given = _bodies(document)
        if not given:
            return done.found, False
        had = {body.key: body for body in before.bodies}
        bodies = tuple(one if isinstance(one, BareBody) else had[one] for one in done.bodies)
        known = self.known.learn(given, Known(bodies, {**before.made, **done.made}))
        take_over(known.bodies, known.made)
        self._carved.put(_carving(document, kit), True)
        return done.found, bool(done.made) or any(isinstance(one, BareBody) for one in done.bodies)


def _kind(document: Document, carved: bool) -> tuple[str, ...]:
    """What a design is made up of, as far as that says how long it takes."""
    return (str(carved), *(f"{tier.shape.kind} {tier.build.kind}" for tier in document.design.tiers))


def _bodies(document: Document) -> str:
    """What the bodies of a design rest on; nothing where none is carved."""
    return bodies_of(document.design, document.practice)


def _carving(document: Document, kit: Kit | None) -> str:
    """What the carved tiers of a design and the choice of their tins rest on; nothing where none is carved."""
    carved = carving_of(document.design, document.practice)
    return carved and carved + json.dumps([tin.model_dump(mode="json") for tin in (kit or STARTING).tins])


@contextmanager
def too_much() -> Iterator[None]:
    """Work that is given up is no fault of what was drawn. Raises TooMuch of it."""
    try:
        yield
    except FAILED as error:
        raise TooMuch from error


def _planner(request: Request) -> Planner:
    found: Planner = request.app.state.planner
    return found


PlannerOf = Annotated[Planner, Depends(_planner)]
