"""What is bounded for every request: how large and how slow it may come, and how long its answer may take."""

import asyncio
import logging
import time
from tempfile import SpooledTemporaryFile
from typing import IO

from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from amber_spread.core.document import complaint_at
from amber_spread.core.kernel.limits import MAX_FILE_BYTES, MAX_MODEL_BYTES
from amber_spread.jobs.not_ready import OutOfBudget
from amber_spread.web.clients import ClientLimits, client_of
from amber_spread.web.errors import BUSY, problem, still_working

log = logging.getLogger("amber_spread")
ANSWER_S = 15.0
"""Time limit of an answer that only asks the database, s."""
WAITS_S = 900.0
"""Time limit of an answer that a caller waits for on purpose (`Caller` marks the request), s."""
LONGEST_S = 20.0
"""So long a request's body may take to come in whole."""


CHUNK_BYTES = 256 * 1024
LARGE_AT_ONCE = 3
"""Large request bodies at once, each in a temporary file until it is whole; of one client, one."""
MOST_BYTES = {"/api/model": MAX_MODEL_BYTES, "/api/picture": MAX_MODEL_BYTES}
"""What may be larger than a design file, by its path."""


def _replayed(body: IO[bytes], receive: Receive) -> Receive:
    """Gives the body that arrived in chunks, then whatever comes after it."""
    body.seek(0)
    ended = False

    async def replay() -> Message:
        nonlocal ended
        if ended:
            return await receive()
        chunk = body.read(CHUNK_BYTES)
        ended = len(chunk) < CHUNK_BYTES
        return {"type": "http.request", "body": chunk, "more_body": not ended}

    return replay


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

        # What is below writes here: the same dict is `request.state`.
        state = scope.setdefault("state", {})
        work = asyncio.ensure_future(self.app(scope, receive, passed_on))
        try:
            await asyncio.wait({work}, timeout=ANSWER_S)
            waits = bool(state.get("waits_on_purpose"))
            if waits:
                await asyncio.wait({work}, timeout=WAITS_S - ANSWER_S)
        except asyncio.CancelledError:
            work.cancel()
            raise
        if work.done() or begun:
            await work
            return
        given_up = True
        work.add_done_callback(_noted)
        log.error("%s %s was not answered in time", scope["method"], scope["path"])
        late = still_working(OutOfBudget()) if waits else problem(503, *BUSY)
        await late(scope, receive, send)


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
        self._clients = ClientLimits(1)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
        elif scope["path"] in MOST_BYTES:
            # Until there is room, the bytes stay with the sender.
            async with self._clients.of(client_of(HTTPConnection(scope))), self._large:
                await self._bounded(scope, receive, send)
        else:
            await self._bounded(scope, receive, send)

    async def _bounded(self, scope: Scope, receive: Receive, send: Send) -> None:
        most = MOST_BYTES.get(scope["path"], MAX_FILE_BYTES)
        claimed = dict(scope["headers"]).get(b"content-length", b"0")
        if claimed.isdigit() and int(claimed) > most:
            await self._refuse(most, scope, receive, send)
            return
        with SpooledTemporaryFile(MAX_FILE_BYTES) as body:
            if await self._arrived(most, body, scope, receive, send):
                await self.app(scope, _replayed(body, receive), send)

    async def _arrived(self, most: int, body: IO[bytes], scope: Scope, receive: Receive, send: Send) -> bool:
        """Whether a request body came in whole, in time and within `most` bytes. Refuses it otherwise."""
        more = scope["method"] in ("POST", "PUT", "PATCH")
        until = time.monotonic() + LONGEST_S
        while more:
            try:
                message = await asyncio.wait_for(receive(), max(0.0, until - time.monotonic()))
            except TimeoutError:
                slow = problem(408, "That came too slowly", f"A request must be whole within {LONGEST_S:g} s.")
                slow.headers["connection"] = "close"
                await slow(scope, receive, send)
                return False
            if message["type"] == "http.disconnect":
                return False
            body.write(message.get("body", b""))
            more = message.get("more_body", False)
            if body.tell() > most:
                await self._refuse(most, scope, receive, send)
                return False
        return True

    async def _refuse(self, most: int, scope: Scope, receive: Receive, send: Send) -> None:
        words = f"is larger than {_size(most)}, the most that is read"
        await problem(413, "That is too large", f"The request {words}.", [complaint_at((), words)])(
            scope, receive, send
        )
