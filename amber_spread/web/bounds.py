"""What is bounded for every request: how large and how slow it may come, and how long its answer may take."""

import asyncio
import logging
import re
import time
from weakref import WeakValueDictionary

from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from amber_spread.core.document import complaint_at
from amber_spread.core.kernel.limits import MAX_FILE_BYTES, MAX_MODEL_BYTES
from amber_spread.web.clients import client_of
from amber_spread.web.errors import BUSY, problem

log = logging.getLogger("amber_spread")
ANSWER_S = 15.0
"""So long an answer may be in the making that only asks the database."""
THINKS_S = 900.0
"""So long one may be that is worked out elsewhere, on a machine that is busy: somebody waits for it on purpose."""
THINKS = re.compile(
    r"/api/(plan|round|levels|width|model|picture|outline|shop)\b.*|/api/orders/.*[./](pdf|svg|dxf|csv|pages|3mf|stl|obj)"
)
LONGEST_S = 20.0
"""So long a request's body may take to come in whole."""


LARGE_AT_ONCE = 3
"""So many bodies larger than a design file are held at once, and one of a client."""
MOST_BYTES = {"/api/model": MAX_MODEL_BYTES, "/api/picture": MAX_MODEL_BYTES}
"""What may be larger than a design file, by its path."""


def _size(most: int) -> str:
    kilobytes = most // 1024
    return f"{kilobytes} kB" if kilobytes < 1024 else f"{kilobytes // 1024} MB"


class BoundedTime:
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

        longest = THINKS_S if THINKS.fullmatch(scope["path"]) else ANSWER_S
        work = asyncio.ensure_future(self.app(scope, receive, passed_on))
        try:
            await asyncio.wait({work}, timeout=longest)
        except asyncio.CancelledError:
            work.cancel()
            raise
        if work.done() or begun:
            await work
            return
        given_up = True
        work.add_done_callback(_noted)
        log.error("%s %s was not answered within %g s", scope["method"], scope["path"], longest)
        title, words = BUSY
        await problem(503, title, words)(scope, receive, send)


def _noted(work: "asyncio.Future[None]") -> None:
    if not work.cancelled() and work.exception():
        log.error("what was no longer waited for failed", exc_info=work.exception())


class BoundedBody:
    """Refuses a request body over MAX_FILE_BYTES (of a 3D file or a picture MAX_MODEL_BYTES), or one that trickles in,
    before anything reads it, whatever its headers claim.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app
        self._large = asyncio.Semaphore(LARGE_AT_ONCE)
        self._clients: WeakValueDictionary[str, asyncio.Semaphore] = WeakValueDictionary()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
        elif scope["path"] in MOST_BYTES:
            # What has not come in stays with whoever sends it until there is room for it.
            own = self._clients.setdefault(client_of(HTTPConnection(scope)), asyncio.Semaphore(1))
            async with own, self._large:
                await self._bounded(scope, receive, send)
        else:
            await self._bounded(scope, receive, send)

    async def _bounded(self, scope: Scope, receive: Receive, send: Send) -> None:
        most = MOST_BYTES.get(scope["path"], MAX_FILE_BYTES)
        claimed = dict(scope["headers"]).get(b"content-length", b"0")
        if claimed.isdigit() and int(claimed) > most:
            await self._refuse(most, scope, receive, send)
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
            if len(body) > most:
                await self._refuse(most, scope, receive, send)
                return
        given = False

        async def replay() -> Message:
            nonlocal given
            if given:
                return await receive()
            given = True
            return {"type": "http.request", "body": bytes(body), "more_body": False}

        await self.app(scope, replay, send)

    async def _refuse(self, most: int, scope: Scope, receive: Receive, send: Send) -> None:
        words = f"is larger than {_size(most)}, the most that is read"
        await problem(413, "That is too large", f"The request {words}.", [complaint_at((), words)])(
            scope, receive, send
        )
