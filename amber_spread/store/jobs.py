"""Long jobs in the database: what to run, who waits for it, and its result. The queue itself is procrastinate's.

Both tables are unlogged: after a crash of the database they are empty, and whoever still waits asks again.
"""

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from datetime import timedelta
from typing import Any, NamedTuple

from sqlalchemy import Engine, Text, cast, column, delete, exists, func, or_, select, table, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from amber_spread.store.notices import JOBS, notify
from amber_spread.store.tables import JobRow, JobWaiterRow

QUEUE = table("procrastinate_jobs", column("id"), column("status"))
WAITS_S = 12.0
"""A process that has not renewed its interest in a job for this long no longer waits for it."""
RESULT_S = 60.0
"""A result is deleted after this long, for anyone who asks for the same job again."""


class Job(NamedTuple):
    """A job to run: a pickled call, and the key of the cached bodies it needs."""

    key: str
    client: str
    background: bool
    seconds: float
    call: bytes
    bodies_key: str = ""


class Finished(NamedTuple):
    """How a job ended, with its pickled result or error.

    The `outcome` is "done" (it returned a result), "failed" (it raised an error of its own) or "stopped" (it ran out of
    time or memory, or its process ended).
    """

    outcome: str
    result: bytes


UNFINISHED = Finished("", b"")
"""What there is of a job that waits or runs."""


class Full(Exception):
    """A client has too many unfinished jobs."""


Defer = Callable[[Any, "Counter[int]"], tuple[int, int]]
"""Puts a job into the queue: gets the open connection and how many unfinished jobs the client has in each slot, and
returns the id in the queue and the slot. Of the jobs in one slot, one runs at a time.
"""


class JobStore:
    """The jobs of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def ask(self, job: Job, process: str, max_unfinished: int, defer: Defer) -> Finished | None:
        """Register a process as waiting for a job. Returns the result if there is one.

        A job that nobody has asked for yet goes into the queue. Raises Full.
        """
        with Session(self.engine) as session, session.begin():
            _lock(session, job.key)
            row = session.get(JobRow, job.key)
            if row is not None and row.outcome in ("done", "failed"):
                return Finished(row.outcome, row.result or b"")
            if not session.scalar(select(exists().where(JobRow.key == job.key, ~_ended()))):
                mine = (JobRow.client == job.client, JobRow.background == job.background, JobRow.outcome.is_(None))
                unfinished = Counter(session.execute(select(JobRow.slot).where(*mine)).scalars())
                if unfinished.total() >= max_unfinished and not job.background:
                    raise Full
                job_id, slot = defer(session.connection().connection.driver_connection, unfinished)
                fresh = {**job._asdict(), "job_id": job_id, "slot": slot, "asked_at": func.now()}
                fresh |= {"outcome": None, "result": None, "finished_at": None}
                session.execute(insert(JobRow).values(fresh).on_conflict_do_update(index_elements=["key"], set_=fresh))
            session.execute(_waits(process, [job.key]))
        return None

    def renew(self, process: str, keys: Sequence[str]) -> set[str]:
        """Renew a process's interest in jobs. Returns the keys of those that have ended, or are gone."""
        with Session(self.engine) as session, session.begin():
            session.execute(_waits(process, keys))
            return set(keys) - set(session.scalars(select(JobRow.key).where(JobRow.key.in_(keys), ~_ended())))

    def result(self, key: str) -> Finished | None:
        """How a job ended, or UNFINISHED. None if it was lost: it is not in the queue and has no result."""
        with Session(self.engine) as session:
            if session.scalar(select(exists().where(JobRow.key == key, ~_ended()))):
                return UNFINISHED
            row = session.get(JobRow, key)
            return None if row is None or row.outcome is None else Finished(row.outcome, row.result or b"")

    def leave(self, process: str, key: str) -> int | None:
        """Wait for a job no longer. Returns its id in the queue if nobody else waits for it and it has not ended: it
        should be cancelled.
        """
        with Session(self.engine) as session, session.begin():
            _lock(session, key)
            session.execute(delete(JobWaiterRow).where(JobWaiterRow.key == key, JobWaiterRow.process == process))
            if _awaited(session, key):
                return None
            dropped = delete(JobRow).where(JobRow.key == key, JobRow.outcome.is_(None))
            return session.execute(dropped.returning(JobRow.job_id)).scalar_one_or_none()

    def take(self, key: str, job_id: int) -> Job | None:
        """The job to run. None if nobody waits for it any longer."""
        with Session(self.engine) as session, session.begin():
            row = session.get(JobRow, key)
            if row is None or row.job_id != job_id or not _awaited(session, key):
                return None
            return Job(key, row.client, row.background, row.seconds, row.call, row.bodies_key)

    def report(self, key: str, part: str) -> None:
        """Tell all who wait that a part of a job begins."""
        with Session(self.engine) as session, session.begin():
            notify(session, JOBS, f"{key} {part}")

    def finish(self, key: str, job_id: int, finished: Finished) -> None:
        """Store a result and tell all who wait."""
        with Session(self.engine) as session, session.begin():
            done = {"outcome": finished.outcome, "result": finished.result, "finished_at": func.now(), "call": b""}
            session.execute(update(JobRow).where(JobRow.key == key, JobRow.job_id == job_id).values(done))
            notify(session, JOBS, f"{key} ")

    def sweep(self) -> list[int]:
        """Delete old results, processes that no longer wait, and unfinished jobs nobody waits for. Returns the ids in
        the queue of the last.
        """
        old, gone = (func.now() - timedelta(seconds=seconds) for seconds in (RESULT_S, WAITS_S))
        awaited = exists().where(JobWaiterRow.key == JobRow.key)
        with Session(self.engine) as session, session.begin():
            session.execute(delete(JobWaiterRow).where(~_alive()))
            session.execute(delete(JobRow).where(JobRow.finished_at < old))
            unwanted = delete(JobRow).where(JobRow.outcome.is_(None), ~awaited, JobRow.asked_at < gone)
            return list(session.execute(unwanted.returning(JobRow.job_id)).scalars())


def _lock(session: Session, key: str) -> None:
    """Only one transaction at a time asks for a job or leaves it."""
    session.execute(select(func.pg_advisory_xact_lock(func.hashtextextended(key, 0))))


def _awaited(session: Session, key: str) -> bool:
    return bool(session.scalar(select(exists().where(JobWaiterRow.key == key, _alive()))))


def _alive() -> Any:
    return JobWaiterRow.until > func.now()


def _waits(process: str, keys: Iterable[str]) -> Any:
    until = func.now() + timedelta(seconds=WAITS_S)
    rows = [{"key": key, "process": process, "until": until} for key in keys]
    return (
        insert(JobWaiterRow)
        .values(rows)
        .on_conflict_do_update(index_elements=["key", "process"], set_={"until": until})
    )


def _ended() -> Any:
    """Whether a job has ended, or is gone from the queue."""
    status = cast(QUEUE.c.status, Text).in_(("todo", "doing"))
    return or_(JobRow.outcome.is_not(None), ~exists().where(QUEUE.c.id == JobRow.job_id, status))
