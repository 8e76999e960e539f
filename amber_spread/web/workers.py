"""Long jobs in processes of their own, with limits on processor time and memory. They end with the server.

The limit is processor time, not the clock: a busy machine is slow, never wrong.

Each job has its own process, forked from one that has imported everything. The two share a pipe and no lock, since not
every machine offers locks that processes can share.
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
from amber_spread.web.fair_queue import MAX_RUNNING, FairQueue, Owner

P = ParamSpec("P")
T = TypeVar("T")
LOOK_S = 0.1
"""Time between two looks at whether anyone still waits for a job."""
CLOCK_FACTOR = 10.0
"""A process that hardly computes is ended after this many times its processor time by the clock."""
NICE = 10
"""How much lower the system's priority of a background job is."""
RETRY_S = 0.3
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""Memory a job may allocate beyond what the program itself holds."""


class Ended(RuntimeError):
    """The process of a job ended before it returned a result."""


class Unwanted(RuntimeError):
    """Nobody waits for a job any longer."""


FAILED = (TimeoutError, MemoryError, Ended)
"""A job ran out of time or memory, or its process ended."""


class _Job:
    """A job, its owner and its future."""

    def __init__(self, owner: Owner, seconds: float, run: Callable[["_Job"], Any]) -> None:
        self.owner = owner
        self.seconds = seconds
        self.future: Future[Any] = Future()
        self.unwanted = Event()
        self.heard: Heard = unheard
        self._run = run

    def run(self) -> None:
        """Run the job and set the future's result or exception."""
        if not self.future.set_running_or_notify_cancel():
            return
        try:
            found = self._run(self)
        except BaseException as error:
            self.future.set_exception(error)
        else:
            self.future.set_result(found)


class Workers:
    """Runs jobs in worker processes, in an order that is fair to every client."""

    def __init__(self) -> None:
        self._context = get_context("forkserver")
        self._context.set_forkserver_preload(["amber_spread.web.ready"])
        self._threads = ThreadPoolExecutor(MAX_RUNNING, thread_name_prefix="job")
        self._lock = Lock()
        self._queue: FairQueue[_Job] = FairQueue()
        self._jobs: dict[Future[Any], _Job] = {}
        self._running: set[ForkServerProcess] = set()
        self._stopped = False
        self._awake = Event()

    def wake(self) -> None:
        """Import everything before the first job."""
        self.begin(_here, 60.0)

    def begin(self, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs) -> "Future[T]":
        """Run a module-level function in a worker process, with a limit on its processor seconds.

        The future raises one of FAILED if the job runs out of time or memory, else whatever the function raises.
        """
        return self.begin_for(Owner(), work, seconds, *args, **kwargs)

    def begin_for(
        self, owner: Owner, work: Callable[P, T], seconds: float, *args: P.args, **kwargs: P.kwargs
    ) -> "Future[T]":
        """The same on behalf of a client, when their turn comes. Raises QueueFull."""
        job = _Job(owner, seconds, lambda job: self._in_process(job, work, args, kwargs))
        with self._lock:
            if self._stopped:
                job.future.set_exception(Ended())
                return job.future
            self._queue.add(owner, job)
            self._jobs[job.future] = job
        self._start_jobs()
        return job.future

    def hear(self, begun: "Future[Any]", heard: Heard) -> None:
        """Report the progress of a job from now on, from the thread that waits for it."""
        job = self._jobs.get(begun)
        if job is not None:
            job.heard = heard

    def give_up(self, begun: "Future[Any]") -> None:
        """Cancel a job: drop it from the queue, or end its process at once."""
        with self._lock:
            job = self._jobs.get(begun)
            if job is None:
                return
            self._queue.remove(job.owner, job)
            if begun.cancel():
                del self._jobs[begun]
        job.unwanted.set()

    def stop(self) -> None:
        """Cancel every job and end every process at once."""
        self._stopped = True
        if not self._awake.is_set():
            _end_reader()
        with self._lock:
            running, waiting = list(self._running), self._queue.clear()
        for job in waiting:
            job.future.cancel()
        for process in running:
            process.kill()
        self._threads.shutdown(cancel_futures=True)

    def _start_jobs(self) -> None:
        """Start every job that may start now."""
        while True:
            with self._lock:
                found = None if self._stopped else self._queue.start_next()
            if found is None:
                return
            with suppress(RuntimeError):  # stopped meanwhile
                self._threads.submit(self._run, *found)

    def _run(self, owner: Owner, job: _Job) -> None:
        try:
            job.run()
        finally:
            with self._lock:
                self._queue.finished(owner)
                self._jobs.pop(job.future, None)
            self._start_jobs()

    def _in_process(self, job: _Job, work: Callable[..., T], args: tuple[Any, ...], kwargs: dict[str, Any]) -> T:
        told, telling = self._context.Pipe(duplex=False)
        limits = job.seconds, NICE if job.owner.background else 0
        process = self._context.Process(target=_work, args=(telling, *limits, work, args, kwargs), daemon=True)
        try:
            with self._lock:
                if self._stopped:
                    raise Ended
                try:
                    process.start()
                except (EOFError, OSError):  # the fork server ended a moment ago and is started again
                    time.sleep(RETRY_S)
                    process.start()
                self._running.add(process)
            telling.close()
            until = time.monotonic() + CLOCK_FACTOR * job.seconds
            well: bool | None = None
            found: Any = None
            while well is None:
                if told.poll(min(LOOK_S, max(0.0, until - time.monotonic()))):
                    well, found = told.recv()
                    if well is None:
                        job.heard(found)
                elif job.unwanted.is_set():
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
    """Run a job within its limits and send (True, result) or (False, error); before that, (None, name) for each part of
    the job as it starts.
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
