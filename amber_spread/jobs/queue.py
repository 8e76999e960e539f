"""Ask for long jobs, and hear how they go. The jobs wait in the database; workers on any machine run them."""

import logging
import pickle
import threading
import uuid
from collections import Counter
from collections.abc import Callable
from concurrent.futures import Future, InvalidStateError, ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any, NamedTuple

import procrastinate
from procrastinate.exceptions import ConnectorException
from sqlalchemy.exc import SQLAlchemyError

from amber_spread.core.kernel.progress import Heard, unheard
from amber_spread.jobs.calls import Call
from amber_spread.jobs.not_ready import Ended, OutOfBudget, QueueFull
from amber_spread.jobs.program import program_version
from amber_spread.store.engine import address_of
from amber_spread.store.jobs import UNFINISHED, Finished, Full, Job, JobStore
from amber_spread.store.notices import JOBS, Listener, Subscription

log = logging.getLogger("amber_spread")
MAX_UNFINISHED = 42
"""Jobs of one client that may run or wait."""
PER_CLIENT = 2
"""Jobs of one client that may run at once."""
BACKGROUND_PRIORITY = -1000
TASK = "run"
THREADS = 4


class Owner(NamedTuple):
    """The client a job is for. Nobody watches the screen for a `background` job."""

    client: str = ""
    background: bool = False


def queue_name() -> str:
    """The queue of this version of the program: jobs of other versions are not for its workers."""
    return f"amber-spread {program_version()}"


class Place(NamedTuple):
    """Where a job goes in the queue. Of the jobs with one lock, one runs at a time."""

    slot: int
    lock: str
    priority: int


def place_in_queue(owner: Owner, unfinished: "Counter[int]") -> Place:
    """Where a client's next job goes, given their unfinished jobs in each slot: fair to every client.

    A client has PER_CLIENT slots, so at most that many jobs run. Their n-th unfinished job comes after everyone else's
    (n-1)-th. Background jobs come last, one at a time.
    """
    if owner.background:
        return Place(0, "background", BACKGROUND_PRIORITY)
    slot = min(range(PER_CLIENT), key=unfinished.__getitem__)
    return Place(slot, f"{owner.client} {slot}", -unfinished.total())


@dataclass
class _Waiting:
    """Everyone in this process who waits for one job."""

    futures: "dict[Future[Any], Heard]" = field(default_factory=dict)
    asked: bool = False


class Jobs:
    """The queue as one process sees it."""

    def __init__(self, listener: Listener) -> None:
        self.store = JobStore(listener.engine)
        self._process = uuid.uuid4().hex
        address = address_of(listener.engine)
        connector = procrastinate.SyncPsycopgConnector(conninfo=address, min_size=0, max_size=2)
        self._queue = procrastinate.App(connector=connector)
        self._threads = [ThreadPoolExecutor(1, thread_name_prefix="jobs") for _ in range(THREADS)]
        """What is done for one key is done in order, so each key has its thread."""
        self._waiting: dict[str, _Waiting] = {}
        self._lock = threading.Lock()
        self._stopped = False
        self._listener = listener
        self._subscription: Subscription | None = None

    def begin(self, owner: Owner, call: Call, heard: Heard = unheard) -> "Future[Any]":
        """Ask for a job, and hear of its parts as they begin.

        The future raises QueueFull, Ended if the job was stopped, OutOfBudget if it was lost, an error of the database,
        or whatever the job raises.
        """
        begun: Future[Any] = Future()
        key = call.key
        with self._lock:
            if self._stopped:
                begun.set_exception(Ended())
                return begun
            if self._subscription is None:
                self._subscription = Subscription(JOBS, self._hear, look=self._look)
                self._listener.add(self._subscription)
            waiting = self._waiting.setdefault(key, _Waiting())
            waiting.futures[begun] = heard
            if len(waiting.futures) == 1:
                self._submit(key, self._ask, owner, call)
        return begun

    def give_up(self, begun: "Future[Any]") -> None:
        """Wait for a job no longer. It is ended unless somebody else waits for it."""
        with self._lock:
            found = next((item for item in self._waiting.items() if begun in item[1].futures), None)
            if found is None:
                return
            key, waiting = found
            del waiting.futures[begun]
            if not waiting.futures:
                del self._waiting[key]
                self._submit(key, self._leave)
        begun.cancel()

    def stop(self) -> None:
        """Wait for nothing any longer."""
        with self._lock:
            self._stopped = True
            keys = list(self._waiting)
        for key in keys:
            self._settle(key, lambda future: future.cancel())
            self._submit(key, self._leave)
        if self._subscription is not None:
            self._listener.remove(self._subscription)
        for thread in self._threads:
            thread.shutdown()
        self._queue.close()

    def _submit(self, key: str, work: Callable[..., None], *args: Any) -> None:
        with suppress(RuntimeError):  # stopped meanwhile
            self._threads[hash(key) % THREADS].submit(self._do, key, work, *args)

    def _do(self, key: str, work: Callable[..., None], *args: Any) -> None:
        try:
            work(key, *args)
        except ConnectorException as error:
            log.warning("the queue cannot be reached: %s", error)
            self._fail(key, OutOfBudget())
        except Exception as error:
            self._fail(key, error)

    def _fail(self, key: str, error: Exception) -> None:
        self._settle(key, lambda future: future.set_exception(error))

    def _ask(self, key: str, owner: Owner, call: Call) -> None:
        def defer(connection: Any, unfinished: "Counter[int]") -> tuple[int, int]:
            slot, lock, priority = place_in_queue(owner, unfinished)
            task = self._queue.configure_task(
                TASK, queue=queue_name(), lock=lock, priority=priority, connection=connection
            )
            return task.defer(key=key), slot

        if key not in self._waiting:
            return
        job = Job(key, owner.client, owner.background, call.seconds, call.pickled(), call.bodies_key)
        try:
            finished = self.store.ask(job, self._process, MAX_UNFINISHED, defer)
        except Full as error:
            raise QueueFull(MAX_UNFINISHED) from error
        if finished is not None:
            self._take(key, finished)
        elif (waiting := self._waiting.get(key)) is not None:
            waiting.asked = True

    def _leave(self, key: str) -> None:
        job_id = self.store.leave(self._process, key)
        if job_id is not None:
            self._queue.open()
            self._queue.job_manager.cancel_job_by_id(job_id, abort=True, delete_job=True)

    def _fetch(self, key: str) -> None:
        """Take the result of a job that has ended. What is heard late of an earlier run says nothing of this one."""
        if key in self._waiting and (finished := self.store.result(key)) is not UNFINISHED:
            self._take(key, finished)
            self.store.leave(self._process, key)

    def _take(self, key: str, finished: Finished | None) -> None:
        if finished is None or finished.outcome == "stopped":
            self._fail(key, OutOfBudget() if finished is None else Ended())
            return
        result = pickle.loads(finished.result)
        if finished.outcome == "failed":
            self._fail(key, result)
        else:
            self._settle(key, lambda future: future.set_result(result))

    def _settle(self, key: str, how: "Callable[[Future[Any]], object]") -> None:
        with self._lock:
            waiting = self._waiting.pop(key, None)
            futures = list(waiting.futures) if waiting else []
        for future in futures:
            with suppress(InvalidStateError):  # cancelled meanwhile
                how(future)

    def _hear(self, payload: str) -> None:
        key, part = payload.split(" ", 1)
        waiting = self._waiting.get(key)
        if waiting is None:
            return
        if not part:
            self._submit(key, self._fetch)
            return
        with self._lock:
            listeners = list(waiting.futures.values())
        for heard in listeners:
            heard(part)

    def _look(self) -> None:
        """Renew this process's interest in its jobs, and fetch what has ended."""
        keys = [key for key, waiting in list(self._waiting.items()) if waiting.asked]
        with suppress(SQLAlchemyError):
            for key in self.store.renew(self._process, keys) if keys else ():
                self._submit(key, self._fetch)
