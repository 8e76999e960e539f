"""Errors as RFC 9457 problem details: what happened, which fields, and what would be accepted."""

import asyncio
import logging
import time
from collections.abc import Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from amber_spread.core.base import Frozen
from amber_spread.core.document import Complaint, FileError, complaint_at, complaints_of
from amber_spread.core.limits import MAX_FILE_BYTES
from amber_spread.papers.csv_reading import TableError
from amber_spread.papers.svg_reading import OutlineError
from amber_spread.store.orders import OrderMissing, StaleSave, Unread

UNREAD = "/problems/unread"
"""The type of the problem of an order that this version cannot read."""
log = logging.getLogger("amber_spread")


class Problem(Frozen):
    """A problem detail. `errors` names fields; `current` and `aside` are the two revisions of a stale save."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[Complaint] = []
    current: int | None = None
    aside: int | None = None


def problem(
    status: int,
    title: str,
    detail: str,
    errors: Sequence[Complaint] = (),
    current: int | None = None,
    aside: int | None = None,
    type: str = "about:blank",
) -> JSONResponse:
    """A response of type application/problem+json."""
    body = Problem(
        type=type, title=title, status=status, detail=detail, errors=list(errors), current=current, aside=aside
    )
    return JSONResponse(body.model_dump(mode="json"), status, media_type="application/problem+json")


RESPONSES: dict[int | str, dict[str, Any]] = {
    code: {"model": Problem, "description": words}
    for code, words in {
        400: "The request could not be read",
        404: "There is no such thing",
        409: "Another save came first",
        413: "The request is too large",
        422: "A field is not acceptable",
        503: "The order book cannot be reached, or not written to",
    }.items()
}

TITLES = {400: "That could not be read", 404: "There is nothing here", 405: "That cannot be done here"}


def catch_errors(app: FastAPI) -> None:
    """Turn every error an endpoint can meet into a problem detail."""

    @app.exception_handler(RequestValidationError)
    def invalid(request: Request, error: RequestValidationError) -> JSONResponse:
        if any(found["type"] == "json_invalid" for found in error.errors()):
            return problem(400, TITLES[400], "The body is not JSON.")
        found = complaints_of(error.errors(), skip=1)
        words = " ".join(f"{one.field} {one.message}." for one in found[:3])
        return problem(422, "Some of this cannot be used", words, found)

    @app.exception_handler(HTTPException)
    def refused(request: Request, error: HTTPException) -> JSONResponse:
        detail = "The body could not be read." if error.status_code == 400 else f"{error.detail}."
        return problem(error.status_code, TITLES.get(error.status_code, "That did not work"), detail)

    @app.exception_handler(FileError)
    def unplannable(request: Request, error: FileError) -> JSONResponse:
        words = " ".join(f"{one.field} {one.message}." for one in error.complaints[:3])
        return problem(422, "Some of this cannot be used", words, error.complaints)

    @app.exception_handler(Unread)
    def unread(request: Request, error: Unread) -> JSONResponse:
        words = f"This version cannot read “{error.title}”: {error}. It is safe as it was saved; nothing was changed."
        return problem(422, "This version cannot read it", words, error.complaints, type=UNREAD)

    @app.exception_handler(OutlineError)
    def unreadable(request: Request, error: OutlineError) -> JSONResponse:
        return problem(422, "That drawing cannot be used", str(error))

    @app.exception_handler(TableError)
    def bad_lines(request: Request, error: TableError) -> JSONResponse:
        count = len(error.complaints)
        lines = "One line" if count == 1 else f"{count} lines"
        words = " ".join(f"{one.field}: {one.message}." for one in error.complaints[:3])
        detail = f"Nothing was taken over. {lines} cannot be used. {words[:1].upper()}{words[1:]}"
        return problem(422, "This file cannot be used yet", detail, error.complaints)

    @app.exception_handler(OrderMissing)
    def missing(request: Request, error: OrderMissing) -> JSONResponse:
        return problem(404, TITLES[404], f"{str(error).capitalize()}. It may have been removed.")

    @app.exception_handler(StaleSave)
    def stale(request: Request, error: StaleSave) -> JSONResponse:
        detail = (
            f"{error.what} was saved elsewhere meanwhile, as version {error.current}. "
            f"Yours is kept beside it as version {error.aside}; nothing is lost."
        )
        return problem(409, "Saved elsewhere meanwhile", detail, current=error.current, aside=error.aside)

    @app.exception_handler(SQLAlchemyError)
    def away(request: Request, error: SQLAlchemyError) -> JSONResponse:
        log.error("the database did not do what it was asked at %s: %s", request.url.path, error)
        title, words = database_trouble(error)
        return problem(503, title, f"{words} Nothing was changed.")

    @app.exception_handler(Exception)
    def unexpected(request: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected error at %s", request.url.path, exc_info=error)
        return problem(500, "Something went wrong here", "Nothing was changed. The fault has been written to the log.")


AWAY = ("The order book cannot be reached", "Try again in a moment.")
BUSY = ("The order book did not answer in time", "Try again in a moment.")
TROUBLES = {
    "53100": ("There is no room left on the disk", "Make room where Amber Spread keeps its data, then try again."),
    "25006": ("The order book can only be read just now", "Try again when it can be written to."),
    "57014": BUSY,
    "55P03": BUSY,
    "40P01": BUSY,
    "42P01": ("The order book is not ready", "Stop Amber Spread and start it again, so that it brings it up to date."),
}
"""What is said by the state PostgreSQL gives (published: PostgreSQL documentation, appendix A); else it is away."""


def database_trouble(error: SQLAlchemyError) -> tuple[str, str]:
    """What to say of an error of the database: a title, and what to do."""
    if isinstance(error, PoolTimeout):
        return BUSY
    state = getattr(getattr(error, "orig", None), "sqlstate", None)
    return TROUBLES.get(state or "", AWAY)


class Bounded:
    """Answers within ANSWER_S whatever happens below: what is still at work then goes on, and is no longer waited for.

    A save that is told so may yet be kept; sent again, it is found to be kept already.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        begun = given_up = False

        async def passed_on(message: Message) -> None:
            nonlocal begun
            if not given_up:
                begun = True
                await send(message)

        work = asyncio.ensure_future(self.app(scope, receive, passed_on))
        try:
            await asyncio.wait({work}, timeout=ANSWER_S)
        except asyncio.CancelledError:
            work.cancel()
            raise
        if work.done() or begun:
            await work
            return
        given_up = True
        work.add_done_callback(_noted)
        log.error("%s %s was not answered within %g s", scope["method"], scope["path"], ANSWER_S)
        title, words = BUSY
        await problem(503, title, words)(scope, receive, send)


def _noted(work: "asyncio.Future[None]") -> None:
    if not work.cancelled() and work.exception():
        log.error("what was no longer waited for failed", exc_info=work.exception())


ANSWER_S = 15.0
"""So long an answer may be in the making: the longest plan, and what comes after it."""
LONGEST_S = 20.0
"""So long a request's body may take to come in whole."""


class BoundedBody:
    """Refuses a request body over MAX_FILE_BYTES, or one that trickles in, before anything reads it, whatever its
    headers claim.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        claimed = dict(scope["headers"]).get(b"content-length", b"0")
        if claimed.isdigit() and int(claimed) > MAX_FILE_BYTES:
            await self._refuse(scope, receive, send)
            return
        body, more = bytearray(), scope["method"] in ("POST", "PUT", "PATCH")
        until = time.monotonic() + LONGEST_S
        while more:
            try:
                message = await asyncio.wait_for(receive(), max(0.0, until - time.monotonic()))
            except TimeoutError:
                slow = problem(408, "That came too slowly", f"A request must be whole within {LONGEST_S:g} s.")
                slow.headers["connection"] = "close"
                await slow(scope, receive, send)
                return
            if message["type"] == "http.disconnect":
                return
            body += message.get("body", b"")
            more = message.get("more_body", False)
            if len(body) > MAX_FILE_BYTES:
                await self._refuse(scope, receive, send)
                return
        given = False

        async def replay() -> Message:
            nonlocal given
            if given:
                return await receive()
            given = True
            return {"type": "http.request", "body": bytes(body), "more_body": False}

        await self.app(scope, replay, send)

    async def _refuse(self, scope: Scope, receive: Receive, send: Send) -> None:
        words = f"is larger than {MAX_FILE_BYTES // 1024} kB, the most that is read"
        await problem(413, "That is too large", f"The request {words}.", [complaint_at((), words)])(
            scope, receive, send
        )
