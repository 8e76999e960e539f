"""Work that may take long, in processes of its own: bounded in time and memory, and ended with the server."""

import pickle
import resource
import subprocess
import sys
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, TimeoutError
from multiprocessing import get_context
from pathlib import Path
from threading import Lock
from typing import Any, ParamSpec, TypeVar

from pebble import ProcessExpired, ProcessPool

P = ParamSpec("P")
T = TypeVar("T")
ROOT = Path(__file__).resolve().parents[2]
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""What a piece of work may take beyond what the program itself holds."""
FAILED = (TimeoutError, MemoryError, ProcessExpired)
"""How a piece of work ends that was given up: too long, too large, or the end of its process."""


class Workers:
    """A few processes that work one thing after another. They begin with the first thing asked of them.

    Where this machine lends processes no locks to share (an ordinary user without /dev/shm), each piece of work has a
    process by itself instead: slower to begin, as bounded, and as soon ended.
    """

    def __init__(self, count: int = 2, shared: bool | None = None) -> None:
        self._count = count
        self._lock = Lock()
        self._pool: ProcessPool | None = None
        self._apart: _Apart | None = None
        self._shared = locks_are_lent() if shared is None else shared

    def wake(self) -> None:
        """Have every process ready before anything is asked of it."""
        for _ in range(self._count if self._shared else 0):
            self.begin(_here, 60.0)

    def begin(self, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs) -> "Future[T]":
        """Have `work`, a function of a module, done elsewhere. What comes back raises one of FAILED where it took
        longer than that or more memory than there is; given up, it is stopped.
        """
        with self._lock:
            if not self._shared:
                self._apart = self._apart or _Apart(self._count)
                return self._apart.begin(seconds, work, args, kwargs)
            if self._pool is None:
                # Forked off one that has read everything: a worker that was stopped has its successor in no time.
                context = get_context("forkserver")
                context.set_forkserver_preload(["amber_spread.web.ready"])
                self._pool = ProcessPool(self._count, context=context)
            found: Future[T] = self._pool.schedule(bounded, args=[work, *args], kwargs=kwargs, timeout=seconds)
            return found

    def stop(self) -> None:
        """End every process at once, whatever it is at."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join(timeout=3)
                self._pool = None
            if self._apart is not None:
                self._apart.stop()
                self._apart = None


class _Apart:
    """A process for each piece of work, so many at once."""

    def __init__(self, count: int) -> None:
        self._waiting = ThreadPoolExecutor(count)
        self._running: set[subprocess.Popen[bytes]] = set()

    def begin(self, seconds: float, work: Callable[..., Any], args: Any, kwargs: Any) -> "Future[Any]":
        return self._waiting.submit(self._done, seconds, pickle.dumps((work, args, kwargs)))

    def stop(self) -> None:
        self._waiting.shutdown(wait=False, cancel_futures=True)
        for process in list(self._running):
            process.kill()

    def _done(self, seconds: float, asked: bytes) -> Any:
        command = [sys.executable, "-m", "amber_spread.web.alone"]
        process = subprocess.Popen(command, cwd=ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE)
        self._running.add(process)
        try:
            told, _ = process.communicate(asked, timeout=seconds)
        except subprocess.TimeoutExpired as error:
            raise TimeoutError from error
        finally:
            process.kill()
            process.wait()
            self._running.discard(process)
        if process.returncode != 0:
            raise ProcessExpired("the process ended", process.returncode)  # type: ignore[no-untyped-call]
        well, found = pickle.loads(told)
        if well:
            return found
        raise found


def locks_are_lent() -> bool:
    """Whether processes of this user may share locks here."""
    try:
        get_context("forkserver").Lock()
    except OSError:
        return False
    return True


def _here() -> None:
    """Nothing to do but to be there."""


def bounded(work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
    """Work with no more memory than is there for it."""
    with open("/proc/self/status") as status:
        held = next(int(line.split()[1]) * 1024 for line in status if line.startswith("VmData:"))
    resource.setrlimit(resource.RLIMIT_DATA, (held + MOST_MEMORY, resource.RLIM_INFINITY))
    return work(*args, **kwargs)
