"""Work that is short but no matter of the database (lists, papers): in threads of its own, shared out fairly."""

from collections.abc import Callable
from typing import Annotated, ParamSpec, TypeVar
from weakref import WeakValueDictionary

from anyio import CapacityLimiter, to_thread
from fastapi import Depends, Request

from amber_spread.web.planner import Asker
from amber_spread.web.workers import Unwanted

P = ParamSpec("P")
T = TypeVar("T")
THREADS = 6
OF_ONE = 2
"""So many of the threads one client has at once."""


class Thinking:
    """Short work in a thread, no more than OF_ONE pieces of a client's at once."""

    def __init__(self) -> None:
        self._threads = CapacityLimiter(THREADS)
        self._clients: WeakValueDictionary[str, CapacityLimiter] = WeakValueDictionary()

    async def done(self, asker: Asker, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """What comes of `work`. Raises Unwanted where whoever asked is gone when it is their turn."""
        own = self._clients.setdefault(asker.whose.client, CapacityLimiter(OF_ONE))
        async with own:
            if await asker.is_gone():
                raise Unwanted
            return await to_thread.run_sync(lambda: work(*args, **kwargs), limiter=self._threads)


def _thinking(request: Request) -> Thinking:
    found: Thinking = request.app.state.thinking
    return found


ThinkingOf = Annotated[Thinking, Depends(_thinking)]
