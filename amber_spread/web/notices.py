"""What others save, told to every screen that is open as it happens: server-sent events."""

import asyncio
from collections.abc import AsyncIterable, AsyncIterator, Iterator
from contextlib import asynccontextmanager, contextmanager, suppress
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Request
from fastapi.sse import EventSourceResponse

from amber_spread.store.notices import Away, Notice, listening
from amber_spread.store.orders import OrderBook
from amber_spread.web.clients import client_of

router = APIRouter(prefix="/notices", tags=["notices"])
PATH = "/api/notices"
AGAIN_S = 1.0
"""So long after a lost connection to the database the next is tried."""
OF_ONE = 24
"""Open streams of one client. One more closes the oldest."""
WAITING = 200
"""So many notices may wait for a screen that is slow to take them; it is then left to ask anew."""
Heard = asyncio.Queue[Notice | None]
END: Final = None


def is_endless(scope: Any) -> bool:
    """Whether a request is one that is answered for as long as somebody listens."""
    return bool(scope["path"] == PATH)


class Notices:
    """Hands what the database tells on to every screen that listens.

    When notices may have been missed, every stream is ended: a screen then opens another, and asks for all it shows.
    """

    def __init__(self) -> None:
        self._screens: dict[Heard, str] = {}
        """Each screen with its client, oldest first."""

    @asynccontextmanager
    async def from_others(self, book: OrderBook | None) -> AsyncIterator[None]:
        """Listen to the database of an order book within the block."""
        task = asyncio.create_task(self._listen(book)) if book is not None else None
        try:
            yield
        finally:
            self._end()
            if task is not None:
                task.cancel()
                with suppress(asyncio.CancelledError):
                    await task

    @contextmanager
    def heard(self, client: str = "") -> Iterator[Heard]:
        """What one screen is to be told, for as long as the block lasts; END where it is to ask anew."""
        queue: Heard = asyncio.Queue(WAITING)
        own = [screen for screen, whose in self._screens.items() if whose == client]
        for screen in own[: max(0, len(own) + 1 - OF_ONE)]:
            self._end_of(screen)
        self._screens[queue] = client
        try:
            yield queue
        finally:
            self._screens.pop(queue, None)

    def _end_of(self, screen: Heard) -> None:
        """Close a stream. The screen opens another and reloads what it shows."""
        self._screens.pop(screen, None)
        while screen.full():
            screen.get_nowait()
        screen.put_nowait(END)

    async def _listen(self, book: OrderBook) -> None:
        while True:
            with suppress(Away):
                async with listening(book.engine) as notices:
                    self._end()
                    async for notice in notices:
                        self._tell(notice)
            await asyncio.sleep(AGAIN_S)

    def _tell(self, notice: Notice) -> None:
        for queue in list(self._screens):
            if queue.full():
                self._end_of(queue)
            else:
                queue.put_nowait(notice)

    def _end(self) -> None:
        for queue in list(self._screens):
            self._end_of(queue)


def _notices(request: Request) -> Notices:
    found: Notices = request.app.state.notices
    return found


@router.get("", response_class=EventSourceResponse)
async def hear(request: Request, notices: Annotated[Notices, Depends(_notices)]) -> AsyncIterable[Notice]:
    """Every save from now on, as it happens. Where some may have been missed it ends, and is to be opened again."""
    with notices.heard(client_of(request)) as heard:
        while (notice := await heard.get()) is not END:
            yield notice
