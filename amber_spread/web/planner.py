"""Who plans: the event loop what is soon done, another process what may take longer."""

import asyncio
from collections.abc import Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from typing import Annotated, TypeVar

from fastapi import Depends, Request

from amber_spread.core.design.effort import bodies_of, carving_of, effort_ms
from amber_spread.core.document import Document, FileError, complaint_at, plan_document
from amber_spread.core.geometry.bare import BareBody, take_over
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.progress import Heard, unheard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import Kit
from amber_spread.web.elsewhere import Done, Known, Work, with_bodies, written
from amber_spread.web.workers import FAILED, LOOK_S, Unwanted, Workers

T = TypeVar("T")
SOON_MS = 40.0
"""What takes no longer than this is planned where it was asked for; handing it over would take as long again."""
LONGEST_S = 10.0
MOST_BODIES = 12
"""The bodies of so many designs are known here, those worked on last."""
MOST_CARVED = 4
"""So many carvings are known here: no more than a body keeps the coats of, so that what is known is there."""
TOO_LONG = "takes too long to work out: give its outlines fewer corners, or plan it as two cakes"


@contextmanager
def sent_as(field: str) -> Iterator[None]:
    """Whatever is wrong with the design file that was sent in that field is said of it there."""
    try:
        yield
    except FileError as error:
        raise error.within(field) from error


class Planner:
    """Plans design files for the web."""

    def __init__(self, workers: Workers) -> None:
        self.workers = workers
        self._carved: Latest[str, bool] = Latest(MOST_CARVED)
        """What was carved elsewhere, the last of it, so that it is known here."""
        self._known: Latest[str, Known] = Latest(MOST_BODIES)

    def soon(self, document: Document) -> bool:
        """Whether it is soon planned here, what is carved in it having been worked out before."""
        carved = bool(self._carved) and carving_of(document.design, document.practice) in self._carved
        return effort_ms(document.design, carved) <= SOON_MS

    async def written(
        self, asker: Request, document: Document, kit: Kit | None, contents: Contents | None, heard: Heard = unheard
    ) -> str:
        """The plan of a design file as JSON; of one that takes long each part is told as it begins. Raises FileError
        where it cannot be planned, and Unwanted as `elsewhere` does.
        """
        if self.soon(document):
            return written(document, kit, contents)
        return await self.elsewhere(asker, written, document, kit, contents, heard)

    def plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
        """The plan of a design file, for those who wait in a thread of their own. Raises FileError likewise."""
        if self.soon(document):
            return plan_document(document, kit, contents)
        known, begun = self._begin(plan_document, document, kit, contents)
        try:
            return self._keep(document, known, begun.result())
        except FAILED as error:
            raise _too_long() from error

    async def elsewhere(
        self,
        asker: Request,
        work: Work[T],
        document: Document,
        kit: Kit | None,
        contents: Contents | None = None,
        heard: Heard = unheard,
    ) -> T:
        """Work on a design file in a worker, with what was worked out of its bodies before. Raises FileError likewise,
        and Unwanted once whoever asked is gone: the next edit follows soon, and would wait behind it.
        """
        known, begun = self._begin(work, document, kit, contents)
        self.workers.hear(begun, heard)
        try:
            return self._keep(document, known, await self._awaited(asker, begun))
        except FAILED as error:
            raise _too_long() from error

    def _begin(
        self, work: Work[T], document: Document, kit: Kit | None, contents: Contents | None
    ) -> "tuple[Known, Future[Done[T]]]":
        """Have it done elsewhere, with what is known so far of the bodies that are carved in it."""
        known = self._known.get(bodies_of(document.design, document.practice), Known((), {}))
        return known, self.workers.begin(with_bodies, LONGEST_S, work, known, document, kit, contents)

    async def _awaited(self, asker: Request, begun: "Future[Done[T]]") -> "Done[T]":
        waiting: asyncio.Future[Done[T]] = asyncio.wrap_future(begun)
        try:
            while not waiting.done():
                await asyncio.wait({waiting}, timeout=LOOK_S)
                if not waiting.done() and await asker.is_disconnected():
                    raise Unwanted
            return await waiting
        finally:
            if not waiting.done():
                waiting.cancel()
                self.workers.give_up(begun)

    def _keep(self, document: Document, before: Known, done: "Done[T]") -> T:
        """What was asked for; the bodies worked out on the way are kept for the next time."""
        given = bodies_of(document.design, document.practice)
        if given:
            had = {body.key: body for body in before.bodies}
            bodies = tuple(one if isinstance(one, BareBody) else had[one] for one in done.bodies)
            known = self._known.put(given, Known(bodies, {**before.made, **done.made}))
            take_over(known.bodies, known.made)
            self._carved.put(carving_of(document.design, document.practice), True)
        return done.found


def _too_long() -> FileError:
    return FileError([complaint_at(("design",), TOO_LONG)])


def _planner(request: Request) -> Planner:
    found: Planner = request.app.state.planner
    return found


PlannerOf = Annotated[Planner, Depends(_planner)]
