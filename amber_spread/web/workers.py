"""Work that may take long, in processes of its own: bounded in time and memory, and ended with the server.

Each piece of work has a process by itself, forked off one that has read everything. The two share a pipe and no lock:
not every machine lends its users locks that processes share.
"""

import asyncio
import os
import resource
import signal
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, TimeoutError
from contextlib import suppress
from multiprocessing import forkserver, get_context
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerProcess
from threading import Event, Lock
from typing import Any, ParamSpec, TypeVar, cast
from weakref import WeakKeyDictionary

from amber_spread.core.kernel.progress import Heard, hearing, unheard

P = ParamSpec("P")
T = TypeVar("T")
LOOK_S = 0.1
"""So often it is looked whether a piece of work is still wanted."""
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""What a piece of work may take beyond what the program itself holds."""


class Ended(RuntimeError):
    """The process of a piece of work ended before it said what came of it."""


class Unwanted(RuntimeError):
    """Nobody waited for a piece of work any longer."""


FAILED = (TimeoutError, MemoryError, Ended)
"""How a piece of work ends that was given up: too long, too large, or the end of its process."""


class _Asked:
    """Whether a piece of work is still wanted, and who is told of its parts."""

    def __init__(self) -> None:
        self.unwanted = Event()
        self.heard: Heard = unheard


class Workers:
    """Does so many pieces of work at once elsewhere; the others wait."""

    def __init__(self, count: int = 2) -> None:
        self._context = get_context("forkserver")
        self._context.set_forkserver_preload(["amber_spread.web.ready"])
        self._waiting = ThreadPoolExecutor(count)
        self._lock = Lock()
        self._running: set[ForkServerProcess] = set()
        self._asked: WeakKeyDictionary[Future[Any], _Asked] = WeakKeyDictionary()
        self._stopped = False
        self._awake = Event()

    def wake(self) -> None:
        """Have everything read before anything is asked."""
        self.begin(_here, 60.0)

    def begin(self, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs) -> "Future[T]":
        """Have `work`, a function of a module, done elsewhere. What comes back raises one of FAILED where it took
        longer than that or more memory than there is; given up, it is stopped.
        """
        asked = _Asked()
        found = self._waiting.submit(self._done, seconds, asked, work, args, kwargs)
        self._asked[found] = asked
        return found

    def hear(self, begun: "Future[Any]", heard: Heard) -> None:
        """Have each part of a piece of work told as it begins from now on, in a thread that waits for it."""
        if begun in self._asked:
            self._asked[begun].heard = heard

    async def done(
        self, gives_up: Exception, seconds: float, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs
    ) -> T:
        """What comes of `work`, done elsewhere. Raises `gives_up` where it was given up, and whatever `work` raises."""
        try:
            return await asyncio.wrap_future(self.begin(work, seconds, *args, **kwargs))
        except FAILED as error:
            raise gives_up from error

    def give_up(self, begun: "Future[Any]") -> None:
        """End a piece of work that nobody waits for any longer, at once, and leave it out if it has not begun."""
        begun.cancel()
        if begun in self._asked:
            self._asked[begun].unwanted.set()

    def stop(self) -> None:
        """End every process at once, whatever it is at."""
        self._stopped = True
        if not self._awake.is_set():
            _end_reader()
        with self._lock:
            running = list(self._running)
        for process in running:
            process.kill()
        self._waiting.shutdown(cancel_futures=True)

    def _done(
        self,
        seconds: float,
        asked: "_Asked",
        work: Callable[..., T],
        args: tuple[Any, ...],
        kwargs: dict[str, Any],
    ) -> T:
        told, telling = self._context.Pipe(duplex=False)
        process = self._context.Process(target=_work, args=(telling, work, args, kwargs), daemon=True)
        try:
            with self._lock:
                if self._stopped:
                    raise Ended
                process.start()
                self._running.add(process)
            telling.close()
            until = time.monotonic() + seconds
            well: bool | None = None
            found: Any = None
            while well is None:
                if told.poll(min(LOOK_S, max(0.0, until - time.monotonic()))):
                    well, found = told.recv()
                    if well is None:
                        asked.heard(found)
                elif asked.unwanted.is_set():
                    raise Unwanted
                elif time.monotonic() >= until:
                    raise TimeoutError
            self._awake.set()
        except TimeoutError:
            raise
        except (EOFError, OSError) as error:
            raise Ended from error
        finally:
            told.close()
            if process.pid is not None:
                process.kill()
                process.join()
            with self._lock:
                self._running.discard(process)
        if well:
            return cast(T, found)
        raise found


def _end_reader() -> None:
    """End the process that all workers are forked from while it still reads the program: whoever stops would wait for
    it. The next one is begun anew.
    """
    pid = forkserver._forkserver._forkserver_pid  # type: ignore[attr-defined]
    if pid is not None:
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)


def _here() -> None:
    """Nothing to do but to be there."""


def _work(telling: Connection, work: Callable[..., object], args: tuple[Any, ...], kwargs: dict[str, Any]) -> None:
    """Work with no more memory than is there for it, and tell what came of it: true and that, or false and an error;
    before that nothing and the name of each part of the work as that begins.
    """
    with open("/proc/self/status") as status:
        held = next(int(line.split()[1]) * 1024 for line in status if line.startswith("VmData:"))
    resource.setrlimit(resource.RLIMIT_DATA, (held + MOST_MEMORY, resource.RLIM_INFINITY))
    try:
        with hearing(lambda name: telling.send((None, name))):
            told: tuple[bool, object] = True, work(*args, **kwargs)
    except Exception as error:
        told = False, error
    telling.send(told)
