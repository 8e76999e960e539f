"""A worker: takes jobs from the queue in the database and runs each in a process of its own."""

import asyncio
import logging
import os
import signal
import sys
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from functools import partial

import procrastinate
from anyio import to_thread
from procrastinate.exceptions import ConnectorException, JobAborted
from procrastinate.job_context import AbortReason
from psycopg_pool import PoolTimeout
from sqlalchemy.exc import SQLAlchemyError

from amber_spread.jobs.calls import run_call
from amber_spread.jobs.parent import end_when
from amber_spread.jobs.processes import AT_ONCE, FAILED, Processes
from amber_spread.jobs.queue import TASK, queue_name
from amber_spread.store.bodies import BodyStore
from amber_spread.store.engine import DATABASE_URL, address_of, engine_at
from amber_spread.store.jobs import Finished, Job, JobStore

log = logging.getLogger("amber_spread")
POLL_S = 0.2
"""A client's next job starts at most this long after their last one, when they wait for each other."""
HEARTBEAT_S = 2.0
STALLED_S = 20.0
"""A worker without a heartbeat for this long is dead, and its jobs go back into the queue."""
AWAY = (ConnectorException, PoolTimeout, SQLAlchemyError, OSError)
ATTEMPTS = 3
RETRY_S = 0.5


class Worker:
    """Runs the jobs of one database."""

    def __init__(self, url: str, at_once: int = AT_ONCE) -> None:
        self._engine = engine_at(url)
        self.at_once = at_once
        self.store = JobStore(self._engine)
        self.bodies = BodyStore(self._engine)
        self.processes = Processes(at_once)
        self._computing: dict[str, asyncio.Event] = {}
        """By the key of some bodies: set as soon as the job that computes them has ended."""

    async def run(self, stopping: asyncio.Event) -> None:
        """Work until `stopping` is set; go on as soon as a database that was away is back."""
        self.processes.wake()
        stopped = asyncio.create_task(stopping.wait())
        while not stopping.is_set():
            working = asyncio.create_task(self._work())
            await asyncio.wait({working, stopped}, return_when=asyncio.FIRST_COMPLETED)
            working.cancel()
            try:
                await working
            except (asyncio.CancelledError, *AWAY) as error:
                if not stopping.is_set():
                    log.warning("the queue cannot be reached: %s", error)
            with suppress(TimeoutError):
                await asyncio.wait_for(asyncio.shield(stopped), RETRY_S)
        self.processes.stop()
        self._engine.dispose()

    async def _work(self) -> None:
        connector = procrastinate.PsycopgConnector(conninfo=address_of(self._engine), min_size=1, max_size=4)
        queue = procrastinate.App(connector=connector)
        retry = procrastinate.RetryStrategy(max_attempts=ATTEMPTS)
        queue.task(name=TASK, pass_context=True, retry=retry)(self._run)
        async with queue.open_async():
            sweeping = asyncio.create_task(self._sweep(queue.job_manager))
            try:
                await queue.run_worker_async(
                    queues=[queue_name()],
                    concurrency=self.at_once,
                    fetch_job_polling_interval=POLL_S,
                    delete_jobs="always",
                    update_heartbeat_interval=HEARTBEAT_S,
                    stalled_worker_timeout=STALLED_S,
                    shutdown_graceful_timeout=0,
                    install_signal_handlers=False,
                )
            finally:
                sweeping.cancel()

    async def _run(self, context: procrastinate.JobContext, key: str) -> None:
        """Run one job and store its result."""
        assert context.job.id is not None
        job = await to_thread.run_sync(self.store.take, key, context.job.id)
        if job is None:
            return
        try:
            async with self._entry(job) as entry:
                finished, changed = await self._result(job, entry)
                await to_thread.run_sync(self._finish, job, context.job.id, finished, changed)
        except asyncio.CancelledError:
            if context.abort_reason() is AbortReason.USER_REQUEST:
                raise JobAborted from None
            raise  # the worker stops, and the job goes back into the queue

    @asynccontextmanager
    async def _entry(self, job: Job) -> AsyncIterator[bytes | None]:
        """The entry of the body cache for a job. While another job computes the same bodies, wait for that one: both at
        once would take twice the processor time. Nobody waits for a background job, since those are slow.
        """
        entry = None
        while job.bodies_key:
            entry = await to_thread.run_sync(self.bodies.get, job.bodies_key)
            other = self._computing.get(job.bodies_key)
            if entry is not None or other is None:
                break
            await other.wait()
        if entry is not None or not job.bodies_key or job.background:
            yield entry
            return
        computed = self._computing[job.bodies_key] = asyncio.Event()
        try:
            yield None
        finally:
            del self._computing[job.bodies_key]
            computed.set()

    async def _result(self, job: Job, entry: bytes | None) -> tuple[Finished, bytes | None]:
        """Run a job in a process of its own. Returns its result, and the new entry of the body cache if it changed."""
        call, heard = partial(run_call, job.call, entry), partial(self.store.report, job.key)
        begun = self.processes.begin(call, job.seconds, job.background, heard)
        try:
            outcome, result, changed = await asyncio.wrap_future(begun)
        except asyncio.CancelledError:
            self.processes.give_up(begun)
            raise
        except FAILED:
            outcome, result, changed = "stopped", b"", None
        return Finished(outcome, result), changed

    def _finish(self, job: Job, job_id: int, finished: Finished, entry: bytes | None) -> None:
        if entry is not None:
            self.bodies.put(job.bodies_key, entry)
        self.store.finish(job.key, job_id, finished)

    async def _sweep(self, queue: procrastinate.manager.JobManager) -> None:
        """Cancel what nobody waits for, and put back what dead workers left."""
        while True:
            await asyncio.sleep(HEARTBEAT_S)
            with suppress(SQLAlchemyError, ConnectorException):
                for job_id in await to_thread.run_sync(self.store.sweep):
                    await queue.cancel_job_by_id_async(job_id, abort=True, delete_job=True)
                for job in await queue.get_stalled_jobs(seconds_since_heartbeat=STALLED_S):
                    await queue.retry_job(job)


def run_worker(at_once: int, with_parent: bool) -> int:
    """Run jobs of the database at AMBER_DATABASE_URL until Ctrl-C, a terminate signal or, `with_parent`, the end of
    standard input. Returns the exit status. Raises sqlalchemy.exc.ArgumentError if that is no address.
    """
    asyncio.run(_until_stopped(Worker(os.environ.get(DATABASE_URL, ""), at_once), with_parent))
    return 0


async def _until_stopped(worker: Worker, with_parent: bool) -> None:
    loop, stopping = asyncio.get_running_loop(), asyncio.Event()
    for one in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        loop.add_signal_handler(one, stopping.set)

    if with_parent:
        end_when(sys.stdin.buffer.read)
    await worker.run(stopping)
