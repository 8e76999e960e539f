"""Long jobs in processes of their own, with limits on processor time and memory. They end with the worker.

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
from typing import Any, NamedTuple, TypeVar

from amber_spread.core.kernel.progress import Heard, hearing, unheard
from amber_spread.jobs.not_ready import Ended, Unwanted

T = TypeVar("T")
AT_ONCE = 8
"""Jobs at once. The system shares its cores among them."""
LOOK_S = 0.1
"""Time between two looks at whether anyone still waits for a job."""
IDLE_FACTOR = 10.0
"""A process that uses no processor time at all is ended after this many times its limit by the clock."""
NICE, NICE_IN_BACKGROUND = 10, 19
"""How much lower the system's priority of a job is than that of the servers: quick answers come first."""
RETRY_S = 0.3
MEGABYTE = 1024 * 1024
MOST_MEMORY = 256 * MEGABYTE
"""Memory a job may allocate beyond what the program itself holds."""


FAILED = (TimeoutError, MemoryError, Ended)
"""A job ran out of time or memory, or its process ended."""


class _Job(NamedTuple):
    """A job, its limits, and the signs between whoever asked for it and the thread that waits for its process."""

    work: Callable[[], Any]
    seconds: float
    nice: int
    heard: Heard
    future: "Future[Any]"
    unwanted: Event


class Processes:
    """Runs jobs in processes of their own, at most `at_once` at a time, in the order they come."""

    def __init__(self, at_once: int = AT_ONCE) -> None:
        self._context = get_context("forkserver")
        self._context.set_forkserver_preload(["amber_spread.jobs.preload"])
        self._threads = ThreadPoolExecutor(at_once, thread_name_prefix="job")
        self._lock = Lock()
        self._jobs: dict[Future[Any], _Job] = {}
        self._running: set[ForkServerProcess] = set()
        self._stopped = False
        self._awake = Event()

    def wake(self) -> None:
        """Import everything before the first job."""
        self.begin(_here, 60.0)

    def begin(
        self, work: Callable[[], T], seconds: float, background: bool = False, heard: Heard = unheard
    ) -> "Future[T]":
        """Run a module-level function (or a partial of one) in a process of its own, with a limit on its processor
        seconds and, in the `background`, a still lower priority. `heard` is called with each part of it as it begins.

        The future raises one of FAILED if the job runs out of time or memory, else whatever the function raises.
        """
        job = _Job(work, seconds, NICE_IN_BACKGROUND if background else NICE, heard, Future(), Event())
        with self._lock:
            self._jobs[job.future] = job
        try:
            self._threads.submit(self._run, job)
        except RuntimeError:  # stopped
            job.future.set_exception(Ended())
        return job.future

    def give_up(self, begun: "Future[Any]") -> None:
        """Cancel a job: drop it if it still waits, or end its process at once."""
        with self._lock:
            job = self._jobs.get(begun)
        if job is not None and not begun.cancel():
            job.unwanted.set()

    def stop(self) -> None:
        """Cancel every job and end every process at once."""
        self._stopped = True
        if not self._awake.is_set():
            _end_fork_server()
        with self._lock:
            running = list(self._running)
        for process in running:
            process.kill()
        self._threads.shutdown(cancel_futures=True)

    def _run(self, job: _Job) -> None:
        """Run a job and set its future's result or exception."""
        try:
            if job.future.set_running_or_notify_cancel():
                job.future.set_result(self._in_process(job))
        except BaseException as error:
            job.future.set_exception(error)
        finally:
            with self._lock:
                self._jobs.pop(job.future, None)

    def _in_process(self, job: _Job) -> Any:
        told, telling = self._context.Pipe(duplex=False)
        process = self._context.Process(target=_work, args=(telling, job.seconds, job.nice, job.work), daemon=True)
        try:
            self._start(process)
            telling.close()
            well, found = _result(job, process, told)
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
            return found
        raise found

    def _start(self, process: ForkServerProcess) -> None:
        with self._lock:
            if self._stopped:
                raise Ended
            try:
                process.start()
            except (EOFError, OSError):  # the fork server ended a moment ago and is started again
                if self._stopped:
                    raise Ended from None
                time.sleep(RETRY_S)
                process.start()
            self._running.add(process)


def _result(job: _Job, process: ForkServerProcess, told: Connection) -> tuple[bool, Any]:
    """Wait for what the process of a job sends, reporting its parts: (True, result) or (False, error). Raises Unwanted,
    and TimeoutError if it no longer computes.
    """
    spent, since = 0, time.monotonic()
    while True:
        if told.poll(LOOK_S):
            well, found = told.recv()
            if well is not None:
                return well, found
            job.heard(found)
        if job.unwanted.is_set():
            raise Unwanted
        before, spent = spent, _processor_time(process.pid)
        if spent > before:
            since = time.monotonic()
        elif time.monotonic() - since > IDLE_FACTOR * job.seconds:
            raise TimeoutError


def _end_fork_server() -> None:
    """End the process that all jobs are forked from while it still imports the program: stopping would wait for it. The
    next one starts afresh.
    """
    pid = forkserver._forkserver._forkserver_pid  # type: ignore[attr-defined]
    if pid is not None:
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)


def _processor_time(pid: int | None) -> int:
    """Processor time of a process so far, in ticks of the system's clock; 0 if it has ended."""
    with suppress(OSError), open(f"/proc/{pid}/stat") as stat:
        fields = stat.read().rpartition(")")[2].split()
        return int(fields[11]) + int(fields[12])
    return 0


def _here() -> None:
    """Do nothing: the process has started."""


def _work(telling: Connection, seconds: float, nice: int, work: Callable[[], object]) -> None:
    """Run a job within its limits and send (True, result) or (False, error); before that, (None, name) for each part of
    the job as it starts.
    """
    os.nice(nice)
    spent = math.ceil(time.process_time() + seconds)
    resource.setrlimit(resource.RLIMIT_CPU, (spent, spent + 1))
    with open("/proc/self/status") as status:
        held = next(int(line.split()[1]) * 1024 for line in status if line.startswith("VmData:"))
    resource.setrlimit(resource.RLIMIT_DATA, (held + MOST_MEMORY, resource.RLIM_INFINITY))
    try:
        with hearing(lambda name: telling.send((None, name))):
            told: tuple[bool, object] = True, work()
    except Exception as error:
        told = False, error
    telling.send(told)
