"""Errors as RFC 9457 problem details: what happened, which fields, and what would be accepted."""

import logging
from collections.abc import Callable, Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from starlette.exceptions import HTTPException

from amber_spread.core.document import Complaint, FileError, complaints_of
from amber_spread.core.kernel.base import Frozen
from amber_spread.jobs.not_ready import NotReady, Unwanted
from amber_spread.papers.csv_reading import TableError
from amber_spread.papers.model_reading import ModelError
from amber_spread.papers.outline_reading import OutlineError
from amber_spread.papers.picture_reading import PictureError
from amber_spread.store.orders import OrderMissing, StaleSave, Unread
from amber_spread.store.works import MarkChanged

UNWANTED = 499
"""The status of what nobody waited for: no one reads it (common practice)."""
BUSY_TYPE = "/problems/busy"
"""The type of the problem of an answer that is not ready yet; the client asks again."""
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
    return _answer(
        Problem(type=type, title=title, status=status, detail=detail, errors=list(errors), current=current, aside=aside)
    )


def _answer(problem: Problem) -> JSONResponse:
    return JSONResponse(problem.model_dump(mode="json"), problem.status, media_type="application/problem+json")


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


def unusable(complaints: Sequence[Complaint]) -> Problem:
    """What is wrong with what was sent, field by field."""
    words = " ".join(f"{one.field} {one.message}." for one in complaints[:3])
    return Problem(status=422, title="Some of this cannot be used", detail=words, errors=list(complaints))


def not_ready(error: Exception) -> Problem:
    """The problem of an answer that is not ready yet."""
    return Problem(type=BUSY_TYPE, title="Still working", status=503, detail=str(error))


def still_working(error: Exception) -> JSONResponse:
    """The response for an answer that is not ready yet."""
    return _answer(not_ready(error))


def _said(title: str) -> Callable[[Request, Exception], JSONResponse]:
    """What is wrong with a file, in its own words."""
    return lambda _, error: problem(422, title, str(error))


def catch_errors(app: FastAPI) -> None:
    """Turn every error an endpoint can meet into a problem detail."""
    app.add_exception_handler(OutlineError, _said("That drawing cannot be used"))
    app.add_exception_handler(PictureError, _said("That picture cannot be used"))
    app.add_exception_handler(ModelError, _said("That body cannot be used"))
    app.add_exception_handler(NotReady, lambda _, error: still_working(error))

    @app.exception_handler(RequestValidationError)
    def invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        if any(found["type"] == "json_invalid" for found in error.errors()):
            return problem(400, TITLES[400], "The body is not JSON.")
        return _answer(unusable(complaints_of(error.errors(), skip=1)))

    @app.exception_handler(HTTPException)
    def refused(_: Request, error: HTTPException) -> JSONResponse:
        detail = "The body could not be read." if error.status_code == 400 else f"{error.detail}."
        return problem(error.status_code, TITLES.get(error.status_code, "That did not work"), detail)

    @app.exception_handler(FileError)
    def unplannable(_: Request, error: FileError) -> JSONResponse:
        return _answer(unusable(error.complaints))

    @app.exception_handler(Unread)
    def unread(_: Request, error: Unread) -> JSONResponse:
        words = f"This version cannot read “{error.title}”: {error}. It is safe as it was saved; nothing was changed."
        return problem(422, "This version cannot read it", words, error.complaints, type=UNREAD)

    @app.exception_handler(Unwanted)
    def unwanted(_: Request, __: Unwanted) -> JSONResponse:
        return problem(UNWANTED, "Nobody waits for this any longer", "It was given up, since another edit came.")

    @app.exception_handler(TableError)
    def bad_lines(_: Request, error: TableError) -> JSONResponse:
        count = len(error.complaints)
        lines = "One line" if count == 1 else f"{count} lines"
        words = " ".join(f"{one.field}: {one.message}." for one in error.complaints[:3])
        detail = f"Nothing was taken over. {lines} cannot be used. {words[:1].upper()}{words[1:]}"
        return problem(422, "This file cannot be used yet", detail, error.complaints)

    @app.exception_handler(OrderMissing)
    def missing(_: Request, error: OrderMissing) -> JSONResponse:
        return problem(404, TITLES[404], f"{str(error).capitalize()}. It may have been removed.")

    @app.exception_handler(StaleSave)
    def stale(_: Request, error: StaleSave) -> JSONResponse:
        detail = (
            f"{error.what} was saved elsewhere meanwhile, as version {error.current}. "
            f"Yours is kept beside it as version {error.aside}; nothing is lost."
        )
        return problem(409, "Saved elsewhere meanwhile", detail, current=error.current, aside=error.aside)

    @app.exception_handler(MarkChanged)
    def changed(_: Request, __: MarkChanged) -> JSONResponse:
        detail = "Somebody else marked or moved this step meanwhile. Look at it as it is now, then mark it again."
        return problem(409, "Changed elsewhere meanwhile", detail)

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
