"""Threads for short computations, apart from the threads that wait for the database."""

from collections.abc import Callable
from typing import TypeVar

from anyio import CapacityLimiter, to_thread

from amber_spread.jobs.not_ready import Unwanted
from amber_spread.web.caller import Caller
from amber_spread.web.clients import ClientLimits

T = TypeVar("T")
THREADS = 6
THREADS_PER_CLIENT = 2


class ComputeThreads:
    """A bounded thread pool that is fair to every client."""

    def __init__(self) -> None:
        self._threads = CapacityLimiter(THREADS)
        self._clients = ClientLimits(THREADS_PER_CLIENT)

    async def run(self, caller: Caller, compute: Callable[[], T]) -> T:
        """Run a function in a thread. Raises Unwanted if the caller hangs up before its turn."""
        async with self._clients.of(caller.owner.client):
            if await caller.is_gone():
                raise Unwanted
            return await to_thread.run_sync(compute, limiter=self._threads)
