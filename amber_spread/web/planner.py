"""Who plans: the event loop what is soon done, another process what may take longer."""

import asyncio
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from typing import Annotated, TypeAlias, TypeVar

from fastapi import Depends, Request

from amber_spread.core.design.effort import carving_of, effort_ms
from amber_spread.core.document import Document, FileError, carved_bodies, complaint_at, plan_document
from amber_spread.core.geometry.lofted import Lofted, take_over
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import Kit
from amber_spread.web.workers import FAILED, Workers

T = TypeVar("T")
Work: TypeAlias = Callable[[Document, Kit | None, Contents | None], T]
SOON_MS = 40.0
"""What takes no longer than this is planned where it was asked for; handing it over would take as long again."""
LONGEST_S = 10.0
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

    def _soon(self, document: Document) -> bool:
        """Whether it is soon planned here, what is carved in it having been worked out before."""
        carved = bool(self._carved) and carving_of(document.design, document.practice) in self._carved
        return effort_ms(document.design, carved) <= SOON_MS

    async def written(self, document: Document, kit: Kit | None, contents: Contents | None) -> str:
        """The plan of a design file as JSON. Raises FileError where it cannot be planned."""
        if self._soon(document):
            return _written(document, kit, contents)
        try:
            done = await asyncio.wrap_future(self._begin(_written, document, kit, contents))
            return self._keep(document, done)
        except FAILED as error:
            raise _too_long() from error

    def plan(self, document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
        """The plan of a design file, for those who wait in a thread of their own. Raises FileError likewise."""
        if self._soon(document):
            return plan_document(document, kit, contents)
        try:
            return self._keep(document, self._begin(plan_document, document, kit, contents).result())
        except FAILED as error:
            raise _too_long() from error

    def _begin(
        self, work: Work[T], document: Document, kit: Kit | None, contents: Contents | None
    ) -> "Future[tuple[T, list[Lofted]]]":
        """Have it done elsewhere, with what was worked out before of the bodies that are carved in it."""
        known = [body for body in carved_bodies(document) if "distances" in body.kept]
        return self.workers.begin(_with_bodies, LONGEST_S, work, known, document, kit, contents)

    def _keep(self, document: Document, done: tuple[T, list[Lofted]]) -> T:
        """What was asked for; the bodies worked out on the way are kept for the next time."""
        found, made = done
        take_over(made)
        carving = carving_of(document.design, document.practice)
        if carving:
            self._carved.put(carving, True)
        return found


def _written(document: Document, kit: Kit | None, contents: Contents | None) -> str:
    return plan_document(document, kit, contents).model_dump_json()


def _with_bodies(
    work: Work[T], known: list[Lofted], document: Document, kit: Kit | None, contents: Contents | None
) -> tuple[T, list[Lofted]]:
    """A piece of work with the bodies known so far, and those that were worked out anew in it."""
    take_over(known)
    had = {body.key: body.known for body in known}
    found = work(document, kit, contents)
    return found, [body for body in carved_bodies(document) if body.known != had.get(body.key)]


def _too_long() -> FileError:
    return FileError([complaint_at(("design",), TOO_LONG)])


def _planner(request: Request) -> Planner:
    found: Planner = request.app.state.planner
    return found


PlannerOf = Annotated[Planner, Depends(_planner)]
