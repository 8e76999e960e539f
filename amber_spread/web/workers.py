"""Work that may take long, in processes of its own: bounded in processor time and memory, and ended with the server.

A busy machine is slow and never wrong, so that what is bounded is how long the processor works, and not the clock.

Each piece of work has a process by itself, forked off one that has read everything. The two share a pipe and no lock:
not every machine lends its users locks that processes share.
"""

import math
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

from amber_spread.core.kernel.progress import Heard, hearing, unheard
from amber_spread.web.shares import MOST_AT_ONCE, Shares, Whose

P = ParamSpec("P")
T = TypeVar("T")
LOOK_S = 0.1
"""So often it is looked whether a piece of work is still wanted."""
CLOCK = 10.0
"""A process that does nothing, or next to nothing, is ended after so many times its processor time by the clock."""
NICE = 10
"""By so much less of the processor is asked for by work that nobody waits for."""
AGAIN_S = 0.3
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""What a piece of work may take beyond what the program itself holds."""


SOMEBODY = Whose()


class Ended(RuntimeError):
    """The process of a piece of work ended before it said what came of it."""


class Unwanted(RuntimeError):
    """Nobody waited for a piece of work any longer."""


FAILED = (TimeoutError, MemoryError, Ended)
"""How a piece of work ends that was given up: too long, too large, or the end of its process."""


class _Asked:
    """A piece of work: what it is and whose, whether it is still wanted, and who is told of its parts."""

    def __init__(self, whose: Whose, seconds: float, run: Callable[["_Asked"], Any]) -> None:
        self.whose = whose
        self.seconds = seconds
        self.run = run
        self.future: Future[Any] = Future()
        self.unwanted = Event()
        self.heard: Heard = unheard

    def finish(self) -> None:
        """Do it, and tell what came of it."""
        if not self.future.set_running_or_notify_cancel():
            return
        try:
            found = self.run(self)
        except BaseException as error:
            self.future.set_exception(error)
        else:
            self.future.set_result(found)


class Workers:
    """Does pieces of work elsewhere, shared out fairly among those who ask; the others wait."""

    def __init__(self) -> None:
        self._context = get_context("forkserver")
        self._context.set_forkserver_preload(["amber_spread.web.ready"])
        self._hands = ThreadPoolExecutor(MOST_AT_ONCE, thread_name_prefix="waits for work")
        self._shares: Shares[_Asked] = Shares()
        self._lock = Lock()
        self._running: set[ForkServerProcess] = set()
        self._asked: dict[Future[Any], _Asked] = {}
        self._stopped = False
        self._awake = Event()

    def wake(self) -> None:
        """Have everything read before anything is asked."""
        self.begin(_here, 60.0)

    def begin(self, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs) -> "Future[T]":
        """Have `work`, a function of a module, done elsewhere, in so many seconds of the processor. What comes back
        raises one of FAILED where it took more of them, or more memory than there is; given up, it is stopped.
        """
        return self.begin_for(SOMEBODY, work, seconds, *args, **kwargs)

    def begin_for(
        self, whose: Whose, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs
    ) -> "Future[T]":
        """The same for a client, when it is their turn. Raises Crowded where they have too much waiting."""
        asked = _Asked(whose, seconds, lambda asked: self._done(asked, work, args, kwargs))
        with self._lock:
            if self._stopped:
                asked.future.set_exception(Ended())
                return asked.future
            self._shares.add(whose, asked)
            self._asked[asked.future] = asked
        self._go_on()
        return asked.future

    def _go_on(self) -> None:
        """Begin what may begin."""
        while True:
            with self._lock:
                found = None if self._stopped else self._shares.next()
            if found is None:
                return
            with suppress(RuntimeError):  # stopped meanwhile
                self._hands.submit(self._finish, *found)

    def _finish(self, whose: Whose, asked: _Asked) -> None:
        try:
            asked.finish()
        finally:
            with self._lock:
                self._shares.done(whose)
                self._asked.pop(asked.future, None)
            self._go_on()

    def hear(self, begun: "Future[Any]", heard: Heard) -> None:
        """Have each part of a piece of work told as it begins from now on, in a thread that waits for it."""
        asked = self._asked.get(begun)
        if asked is not None:
            asked.heard = heard

    def give_up(self, begun: "Future[Any]") -> None:
        """End a piece of work that nobody waits for any longer, at once, and leave it out if it has not begun."""
        with self._lock:
            asked = self._asked.get(begun)
            if asked is None:
                return
            self._shares.drop(asked.whose, asked)
            if begun.cancel():
                del self._asked[begun]
        asked.unwanted.set()

    def stop(self) -> None:
        """End every process at once, whatever it is at."""
        self._stopped = True
        if not self._awake.is_set():
            _end_reader()
        with self._lock:
            running = list(self._running)
            waiting = [asked for queue in self._shares.waiting.values() for asked in queue]
            self._shares.waiting.clear()
        for asked in waiting:
            asked.future.cancel()
        for process in running:
            process.kill()
        self._hands.shutdown(cancel_futures=True)

    def _done(self, asked: "_Asked", work: Callable[..., T], args: tuple[Any, ...], kwargs: dict[str, Any]) -> T:
        told, telling = self._context.Pipe(duplex=False)
        bounds = asked.seconds, 0 if asked.whose.waited_for else NICE
        process = self._context.Process(target=_work, args=(telling, *bounds, work, args, kwargs), daemon=True)
        try:
            with self._lock:
                if self._stopped:
                    raise Ended
                try:
                    process.start()
                except (EOFError, OSError):  # what all are forked from was ended a moment ago, and is begun anew
                    time.sleep(AGAIN_S)
                    process.start()
                self._running.add(process)
            telling.close()
            until = time.monotonic() + CLOCK * asked.seconds
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
            if process.pid is None:
                raise Ended from error
            process.join(1.0)
            raise TimeoutError if process.exitcode == -signal.SIGXCPU else Ended from error
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


def _work(
    telling: Connection,
    seconds: float,
    nicer: int,
    work: Callable[..., object],
    args: tuple[Any, ...],
    kwargs: dict[str, Any],
) -> None:
    """Work with no more processor time and memory than is there for it, and tell what came of it: true and that, or
    false and an error; before that nothing and the name of each part of the work as that begins.
    """
    os.nice(nicer)
    spent = math.ceil(time.process_time() + seconds)
    resource.setrlimit(resource.RLIMIT_CPU, (spent, spent + 1))
    with open("/proc/self/status") as status:
        held = next(int(line.split()[1]) * 1024 for line in status if line.startswith("VmData:"))
    resource.setrlimit(resource.RLIMIT_DATA, (held + MOST_MEMORY, resource.RLIM_INFINITY))
    try:
        with hearing(lambda name: telling.send((None, name))):
            told: tuple[bool, object] = True, work(*args, **kwargs)
    except Exception as error:
        told = False, error
    telling.send(told)
