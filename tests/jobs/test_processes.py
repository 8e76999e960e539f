"""Each job has a process of its own, with limits, and ends with whoever asked for it."""

import time
from functools import partial
from multiprocessing import get_context
from operator import add

import pytest

from amber_spread.core.design.builds import CarvedBuild, JoinedBuild
from amber_spread.core.design.design import Tier
from amber_spread.core.design.solids import BoxSolid
from amber_spread.core.document import FileError, read_document
from amber_spread.jobs.calling import run_call
from amber_spread.jobs.calls import Call
from amber_spread.jobs.designs import Wanted, tier_levels, width_of, with_bodies, written
from amber_spread.jobs.not_ready import Unwanted
from amber_spread.jobs.processes import FAILED, MEGABYTE
from tests.designs import document
from tests.jobs.work import spin

STONE = CarvedBuild(points_mm=((0, 0), (200, 0), (200, 61), (90, 97), (0, 60)))


def test_a_job_returns_its_result_and_raises_its_errors_here(processes):
    assert processes.begin(add, 30, 2, 3).result() == 5
    assert processes.begin(sorted, 30, [2, 3, 1], reverse=True).result() == [3, 2, 1]
    assert processes.begin_background(add, 30, 2, 3).result() == 5
    with pytest.raises(FileError):
        processes.begin(read_document, 30, b"no design file").result()


READ = """
(lambda before: ([run(call, None, bodies) for call, bodies in all],
                 set(__import__("sys").modules) - before)[1])(set(__import__("sys").modules))
"""


def test_a_job_has_imported_what_it_works_with_and_nothing_of_the_web(processes):
    """Each has a process of its own, and would import it again: that takes longer than some jobs."""
    wanted, carved = Wanted(build=JoinedBuild(solids=(BoxSolid(),))), document(Tier(tin_diameter_mm=207, build=STONE))
    calls = [(Call(width_of, (wanted,), 60).pickled(), False)]
    calls += [
        (Call(with_bodies, (work, carved, None, None), 60).pickled(), True)
        for work in (written, partial(tier_levels, 0))
    ]
    given = {"all": calls, "run": run_call}
    assert processes.begin(eval, 60, READ.strip(), given).result() == set()
    loaded = processes.begin(eval, 60, '[name for name in __import__("sys").modules if "amber_spread.web" in name]')
    assert loaded.result() == []


def test_a_job_that_takes_too_long_or_too_much_is_ended(processes):
    began = time.monotonic()
    with pytest.raises(FAILED):
        processes.begin(time.sleep, 1.5, 60).result()
    with pytest.raises(FAILED):
        processes.begin(bytearray, 30, 1500 * MEGABYTE).result()
    assert time.monotonic() - began < 30
    assert processes.begin(add, 30, 1, 1).result() == 2


def test_the_limit_is_processor_time_and_not_the_clock(processes):
    assert processes.begin(spin, 3, 1.0).result() == "done"
    assert processes.begin(time.sleep, 0.5, 2.0).result() is None
    with pytest.raises(FAILED):
        processes.begin(spin, 1, 30).result()


def test_every_job_ends_at_once_with_the_worker(processes):
    assert processes.begin(add, 30, 1, 1).result() == 2
    under_way = processes.begin(time.sleep, 60, 60)
    time.sleep(0.3)
    began = time.monotonic()
    processes.stop()
    assert time.monotonic() - began < 20
    with pytest.raises(BaseException):  # noqa: B017  (each way has its own word for it)
        under_way.result(timeout=10)


def test_jobs_need_no_lock_that_processes_share(processes, monkeypatch):
    def none(*_, **__):
        raise PermissionError("no locks here")

    monkeypatch.setattr("multiprocessing.synchronize.SemLock.__init__", none)
    with pytest.raises(PermissionError):
        get_context("forkserver").Lock()
    assert processes.begin(add, 30, 2, 3).result() == 5


def test_a_job_that_is_given_up_ends_at_once_and_frees_its_place(processes):
    slow = [processes.begin(time.sleep, 30, 20) for _ in range(10)]
    time.sleep(0.4)
    began = time.perf_counter()
    for one in slow:
        processes.give_up(one)
    assert processes.begin(add, 30, 2, 3).result() == 5
    assert time.perf_counter() - began < 15
    ends = [one.exception() if not one.cancelled() else None for one in slow]
    assert sum(isinstance(end, Unwanted) for end in ends) == 8 and ends.count(None) == 2
