"""Work that may take long, in processes of its own: bounded in time and memory, and ended with the server."""

import resource
from collections.abc import Callable
from concurrent.futures import Future, TimeoutError
from multiprocessing import get_context
from threading import Lock
from typing import ParamSpec, TypeVar

from pebble import ProcessExpired, ProcessPool

P = ParamSpec("P")
T = TypeVar("T")
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""What a piece of work may take beyond what the program itself holds."""
FAILED = (TimeoutError, MemoryError, ProcessExpired)
"""How a piece of work ends that was given up: too long, too large, or the end of its process."""


class Workers:
    """A few processes that work one thing after another. They begin with the first thing asked of them."""

    def __init__(self, count: int = 2) -> None:
        self._count = count
        self._lock = Lock()
        self._pool: ProcessPool | None = None

    def wake(self) -> None:
        """Have every process ready before anything is asked of it."""
        for _ in range(self._count):
            self.begin(_here, 60.0)

    def begin(self, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs) -> "Future[T]":
        """Have `work`, a function of a module, done elsewhere. What comes back raises one of FAILED where it took
        longer than that or more memory than there is; given up, it is stopped.
        """
        with self._lock:
            if self._pool is None:
                # Forked off one that has read everything: a worker that was stopped has its successor in no time.
                context = get_context("forkserver")
                context.set_forkserver_preload(["amber_spread.web.ready"])
                self._pool = ProcessPool(self._count, context=context)
            found: Future[T] = self._pool.schedule(_bounded, args=[work, *args], kwargs=kwargs, timeout=seconds)
        return found

    def stop(self) -> None:
        """End every process at once, whatever it is at."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join(timeout=3)
                self._pool = None


def _here() -> None:
    """Nothing to do but to be there."""


def _bounded(work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
    with open("/proc/self/status") as status:
        held = next(int(line.split()[1]) * 1024 for line in status if line.startswith("VmData:"))
    resource.setrlimit(resource.RLIMIT_DATA, (held + MOST_MEMORY, resource.RLIM_INFINITY))
    return work(*args, **kwargs)
