"""The queue: every job runs once, whoever asks gets its result, and no client delays another."""

import asyncio
import os
import signal
import time
from collections import Counter, defaultdict
from concurrent.futures import CancelledError
from contextlib import contextmanager
from operator import add

import procrastinate
import pytest
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError

from amber_spread.core.document import FileError, read_document
from amber_spread.jobs import queue
from amber_spread.jobs.calls import Call
from amber_spread.jobs.command import job_worker
from amber_spread.jobs.not_ready import Ended, QueueFull
from amber_spread.jobs.queue import PER_CLIENT, Jobs, Owner, place_in_queue
from amber_spread.kitchen import children_of
from amber_spread.store.engine import address_of
from amber_spread.store.jobs import Job, JobStore
from amber_spread.store.migrate import migrate
from amber_spread.store.notices import Listener
from amber_spread.store.orders import OrderBook
from tests.jobs.work import carved, noted, parted, spin

ME = Owner("me")
LONG_S = 60
"""Time limit of a wait in these tests, s."""


@contextmanager
def database(postgres, name):
    """Another database."""
    book = OrderBook.at(postgres.url(name))
    migrate(book.engine)
    yield book.engine
    book.engine.dispose()


def eventually(condition):
    until = time.monotonic() + LONG_S
    while not condition():
        assert time.monotonic() < until
        time.sleep(0.1)


def rows(engine, table="procrastinate_jobs"):
    with engine.connect() as connection:
        return connection.execute(text(f"select count(*) from {table}")).scalar_one()


def lines(path):
    return path.read_text().split() if path.exists() else []


def test_a_job_returns_its_result_and_raises_its_errors_here(jobs):
    assert jobs.begin(ME, Call(add, (2, 3), 30)).result(LONG_S) == 5
    with pytest.raises(FileError):
        jobs.begin(ME, Call(read_document, (b"no design file",), 30)).result(LONG_S)


def test_a_job_runs_once_however_many_ask_from_whichever_process(jobs, book, tmp_path):
    call, other = Call(noted, (str(tmp_path / "log"), 1.0), 30), Jobs(Listener(book.engine))
    asked = [one.begin(Owner(client), call) for one in (jobs, other) for client in ("a", "b")]
    found = {one.result(LONG_S) for one in asked}
    assert len(found) == 1
    assert jobs.begin(ME, call).result(LONG_S) in found
    assert lines(tmp_path / "log") == ["begun", "ended"]
    other.stop()


def test_jobs_with_the_same_bodies_compute_them_once(jobs, tmp_path):
    path = tmp_path / "log"
    asked = [jobs.begin(Owner(name), Call(carved, (str(path), name, 0.5), 30, "stone")) for name in "abc"]
    assert [one.result(LONG_S) for one in asked] == ["a", "b", "c"]
    assert sorted(lines(path)) == ["computed", "known", "known"]


def test_nobody_waits_for_bodies_that_a_background_job_computes(jobs, tmp_path):
    path = tmp_path / "log"
    slow = jobs.begin(Owner("a", background=True), Call(carved, (str(path), "slow", 20.0), 30, "pebble"))
    eventually(lambda: lines(path))
    assert jobs.begin(ME, Call(carved, (str(path), "soon"), 30, "pebble")).result(LONG_S) == "soon"
    assert not slow.done() and lines(path) == ["computed", "computed"]
    jobs.give_up(slow)


def test_where_computing_bodies_fails_the_next_job_computes_them(jobs, tmp_path):
    path = tmp_path / "log"
    first = jobs.begin(ME, Call(carved, (str(path), "first", 20.0), 30, "rock"))
    eventually(lambda: lines(path))
    second = jobs.begin(Owner("other"), Call(carved, (str(path), "second"), 30, "rock"))
    time.sleep(0.5)
    assert lines(path) == ["computed"]
    jobs.give_up(first)
    assert second.result(LONG_S) == "second" and lines(path) == ["computed", "computed"]


def test_a_job_out_of_time_is_no_result_and_runs_again_when_asked_for_again(jobs, tmp_path):
    call = Call(spin, (30,), 1)
    for _ in range(2):
        began = time.monotonic()
        with pytest.raises(Ended):
            jobs.begin(ME, call).result(LONG_S)
        assert time.monotonic() - began > 0.5


def test_a_late_word_of_an_earlier_run_does_not_end_the_wait_for_this_one(jobs, tmp_path):
    path = tmp_path / "log"
    call = Call(noted, (str(path), 1.5), 30)
    begun = jobs.begin(ME, call)
    eventually(lambda: lines(path) == ["begun"])
    jobs._hear(f"{call.key} ")
    time.sleep(0.5)
    assert not begun.done()
    assert len(begun.result(LONG_S)) == 2 and lines(path) == ["begun", "ended"]


def test_progress_is_heard_by_everyone_who_waits(jobs, book):
    heard, call, other = ([], []), Call(parted, ("layers", "coats"), 30), Jobs(Listener(book.engine))
    asked = [one.begin(ME, call, mine.append) for one, mine in zip((jobs, other), heard, strict=True)]
    assert [one.result(LONG_S) for one in asked] == [2, 2]
    other.stop()
    assert max(heard, key=len) == ["layers", "coats"]


def test_a_job_ends_when_the_last_who_waits_for_it_gives_up(jobs, book, tmp_path):
    path = tmp_path / "log"
    call = Call(noted, (str(path), 20.0), 30)
    first, second = (jobs.begin(Owner(client), call) for client in "ab")
    eventually(lambda: lines(path) == ["begun"])
    jobs.give_up(first)
    with pytest.raises(CancelledError):
        first.result(0)
    time.sleep(1)
    assert not second.done() and rows(book.engine, "jobs") == 1
    jobs.give_up(second)
    eventually(lambda: rows(book.engine, "jobs") == 0 and rows(book.engine) == 0)
    assert lines(path) == ["begun"]


def test_a_job_ends_when_the_process_that_asked_for_it_is_gone(book, jobs, tmp_path):
    path, store = tmp_path / "log", JobStore(book.engine)
    call = Call(noted, (str(path), 30.0), 60)

    def defer(connection, _):
        task = jobs._queue.configure_task(queue.TASK, queue=queue.queue_name(), connection=connection)
        return task.defer(key=call.key), 0

    store.ask(Job(call.key, "gone", False, 60, call.pickled()), "gone", 9, defer)
    eventually(lambda: lines(path) == ["begun"])
    eventually(lambda: rows(book.engine, "jobs") == 0 and rows(book.engine) == 0)
    assert lines(path) == ["begun"]


def test_ten_jobs_of_one_client_delay_no_other_client(jobs):
    assert jobs.begin(ME, Call(add, (1, 1), 30)).result(LONG_S) == 2
    many = [jobs.begin(Owner("many"), Call(time.sleep, (20 + number,), 30)) for number in range(10)]
    unseen = jobs.begin(Owner(background=True), Call(add, (2, 2), 30))
    began = time.monotonic()
    assert jobs.begin(Owner("one"), Call(add, (2, 3), 30)).result(LONG_S) == 5
    assert time.monotonic() - began < 15
    assert not any(one.done() for one in many)
    for one in many:
        jobs.give_up(one)
    assert unseen.result(LONG_S) == 4


def test_the_queue_of_one_client_is_bounded(jobs, book, monkeypatch):
    monkeypatch.setattr(queue, "MAX_UNFINISHED", 3)
    asked = []
    for number in range(3):
        asked.append(jobs.begin(Owner("bounded"), Call(time.sleep, (120 + number,), 30)))
        eventually(lambda: rows(book.engine, "jobs where client = 'bounded'") == len(asked))
    with pytest.raises(QueueFull, match="waiting already"):
        jobs.begin(Owner("bounded"), Call(time.sleep, (130,), 30)).result(LONG_S)
    assert jobs.begin(Owner("other"), Call(add, (2, 2), 30)).result(LONG_S) == 4
    for one in (asked[0], asked[2]):
        jobs.give_up(one)
    eventually(lambda: rows(book.engine, "jobs where client = 'bounded'") == 1)
    assert jobs.begin(Owner("bounded"), Call(add, (3, 3), 30)).result(LONG_S) == 6
    jobs.give_up(asked[1])


def test_without_its_database_a_job_fails_with_the_reason():
    away = Jobs(Listener(OrderBook.at("postgresql://nobody@127.0.0.1:1/nothing").engine))
    with pytest.raises(SQLAlchemyError):
        away.begin(ME, Call(add, (2, 3), 30)).result(LONG_S)
    away.stop()


def test_jobs_are_shared_among_workers_and_those_of_a_dead_one_run_elsewhere(postgres, tmp_path):
    """As on three machines: two processes ask, two workers run."""
    path = tmp_path / "log"
    with database(postgres, "shared") as engine:
        asking = [Jobs(Listener(engine)) for _ in range(2)]
        with job_worker(postgres.url("shared"), 1), job_worker(postgres.url("shared"), 1):
            asked = [
                asking[number % 2].begin(Owner(str(number)), Call(noted, (str(tmp_path / str(number)), 1.0), 30))
                for number in range(4)
            ]
            assert len({one.result(LONG_S)[1] for one in asked}) == 2
            long = asking[0].begin(ME, Call(noted, (str(path), 3.0), 30))
            eventually(lambda: lines(path) == ["begun"])
            workers = [pid for pid in children_of(os.getpid()) if "--with-parent" in _command(pid)]
            assert len(workers) >= 2
            for pid in workers[-2:]:
                os.kill(pid, signal.SIGKILL)
            assert isinstance(long.result(LONG_S), tuple)
            assert lines(path)[-2:] == ["begun", "ended"]
        for one in asking:
            one.stop()


def _command(pid):
    with open(f"/proc/{pid}/cmdline") as file:
        return file.read()


owners = st.builds(Owner, st.sampled_from("abc"), st.booleans())


@given(st.lists(st.one_of(owners, st.none()), max_size=24), st.data())
def test_every_job_runs_and_no_client_gets_more_than_their_share(postgres, steps, data):
    with database(postgres, "fairness") as engine:
        asyncio.run(_simulated(address_of(engine), steps, data))


async def _simulated(address, steps, data):
    """Ask for jobs, start them and end them in any order."""
    app = procrastinate.App(connector=procrastinate.PsycopgConnector(conninfo=address, min_size=1, max_size=1))
    async with app.open_async():
        await app.connector.execute_query_async("delete from procrastinate_jobs")
        worker = await app.job_manager.register_worker()
        unfinished, waiting, running, started = defaultdict(Counter), [], [], []
        number = 0

        async def start():
            job = await app.job_manager.fetch_job(queues=None, worker_id=worker)
            if job is None:
                assert all(_running(running, owner) for owner, *_ in waiting)
                return False
            owner, depth, name, slot = found = next(one for one in waiting if one[2] == job.task_kwargs["key"])
            waiting.remove(found)
            # Never more than a client's share, background jobs one at a time.
            assert _running(running, owner) < (1 if owner.background else PER_CLIENT)
            # Whoever asks with nothing else unfinished goes before anyone's next job, and before background jobs.
            firsts = [other for other, level, *_ in waiting if level == 0 and not other.background]
            assert not (firsts and (depth > 0 or owner.background))
            running.append((owner, job, slot))
            started.append(name)
            return True

        async def end():
            owner, job, slot = running.pop(data.draw(st.integers(0, len(running) - 1)))
            await app.job_manager.finish_job(job=job, status=procrastinate.jobs.Status.SUCCEEDED, delete_job=True)
            unfinished[owner][slot] -= 1

        for step in steps:
            if step is None:
                if not await start() and running:
                    await end()
                continue
            depth = unfinished[step].total()
            slot, lock, priority = place_in_queue(step, unfinished[step])
            await app.configure_task("run", lock=lock, priority=priority).defer_async(key=str(number))
            unfinished[step][slot] += 1
            waiting.append((step, depth, str(number), slot))
            number += 1
        while waiting or running:
            if not await start():
                await end()
        assert sorted(started, key=int) == [str(one) for one in range(number)]


def _running(running, owner):
    return sum(one.background if owner.background else one == owner for one, *_ in running)
