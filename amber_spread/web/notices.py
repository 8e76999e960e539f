"""What others save, told to every screen that is open as it happens: server-sent events."""

import asyncio
from collections.abc import AsyncIterable, Callable, Iterator
from contextlib import contextmanager, suppress
from functools import partial
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Request
from fastapi.sse import EventSourceResponse
from pydantic import ValidationError

from amber_spread.store.notices import SAVED, Listener, Notice, Subscription
from amber_spread.web.clients import client_of

router = APIRouter(prefix="/notices", tags=["notices"])
PATH = "/api/notices"
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

    @contextmanager
    def from_others(self, listener: Listener | None) -> Iterator[None]:
        """Pass on what a listener hears within the block; call it on the event loop of the screens."""
        if listener is None:
            yield
            return
        loop = asyncio.get_running_loop()

        def pass_on(call: Callable[..., None], *payload: str) -> None:
            with suppress(RuntimeError):  # the loop has ended meanwhile
                loop.call_soon_threadsafe(call, *payload)

        subscription = Subscription(SAVED, partial(pass_on, self._hear), connected=partial(pass_on, self._end))
        listener.add(subscription)
        try:
            yield
        finally:
            listener.remove(subscription)
            self._end()

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

    def _hear(self, payload: str) -> None:
        with suppress(ValidationError):  # from a later version of the program on the same database
            self._tell(Notice.model_validate_json(payload))

    def _tell(self, notice: Notice) -> None:
        for queue in list(self._screens):
            if queue.full():
                self._end_of(queue)
            else:
                queue.put_nowait(notice)

    def _end(self) -> None:
        for queue in list(self._screens):
            self._end_of(queue)


async def _notices(request: Request) -> Notices:
    found: Notices = request.app.state.notices
    return found


@router.get("", response_class=EventSourceResponse)
async def hear(request: Request, notices: Annotated[Notices, Depends(_notices)]) -> AsyncIterable[Notice]:
    """Every save from now on, as it happens. Where some may have been missed it ends, and is to be opened again."""
    with notices.heard(client_of(request)) as heard:
        while (notice := await heard.get()) is not END:
            yield notice
