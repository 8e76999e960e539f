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
from amber_spread.jobs.calls import Call, run_call
from amber_spread.jobs.designs import Inputs, Wanted, tier_levels, width_of, with_bodies, written
from amber_spread.jobs.not_ready import Unwanted
from amber_spread.jobs.processes import FAILED, MEGABYTE
from tests.designs import document
from tests.jobs.work import spin

STONE = CarvedBuild(points_mm=((0, 0), (200, 0), (200, 61), (90, 97), (0, 60)))


def test_a_job_returns_its_result_and_raises_its_errors_here(processes):
    assert processes.begin(partial(add, 2, 3), 30).result() == 5
    assert processes.begin(partial(sorted, [2, 3, 1], reverse=True), 30).result() == [3, 2, 1]
    assert processes.begin(partial(add, 2, 3), 30, background=True).result() == 5
    with pytest.raises(FileError):
        processes.begin(partial(read_document, b"no design file"), 30).result()


READ = """
(lambda before: ([run(call, None) for call in all],
                 set(__import__("sys").modules) - before)[1])(set(__import__("sys").modules))
"""


WEB = '[name for name in __import__("sys").modules if "amber_spread.web" in name]'


def test_a_job_has_imported_what_it_works_with_and_nothing_of_the_web(processes):
    """Each has a process of its own, and would import it again: that takes longer than some jobs."""
    wanted, carved = Wanted(build=JoinedBuild(solids=(BoxSolid(),))), document(Tier(tin_diameter_mm=207, build=STONE))
    calls = [Call(width_of, (wanted,), 60).pickled()]
    calls += [Call(with_bodies, (work, Inputs(carved)), 60).pickled() for work in (written, partial(tier_levels, 0))]
    given = {"all": calls, "run": run_call}
    assert processes.begin(partial(eval, READ.strip(), given), 60).result() == set()
    loaded = processes.begin(partial(eval, WEB), 60)
    assert loaded.result() == []


def test_a_job_that_takes_too_long_or_too_much_is_ended(processes):
    began = time.monotonic()
    with pytest.raises(FAILED):
        processes.begin(partial(time.sleep, 60), 1.5).result()
    with pytest.raises(FAILED):
        processes.begin(partial(bytearray, 1500 * MEGABYTE), 30).result()
    assert time.monotonic() - began < 30
    assert processes.begin(partial(add, 1, 1), 30).result() == 2


def test_the_limit_is_processor_time_and_not_the_clock(processes):
    assert processes.begin(partial(spin, 1.0), 3).result() == "done"
    assert processes.begin(partial(time.sleep, 2.0), 0.5).result() is None
    with pytest.raises(FAILED):
        processes.begin(partial(spin, 30), 1).result()


def test_every_job_ends_at_once_with_the_worker(processes):
    assert processes.begin(partial(add, 1, 1), 30).result() == 2
    under_way = processes.begin(partial(time.sleep, 60), 60)
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
    assert processes.begin(partial(add, 2, 3), 30).result() == 5


def test_a_job_that_is_given_up_ends_at_once_and_frees_its_place(processes):
    slow = [processes.begin(partial(time.sleep, 20), 30) for _ in range(10)]
    time.sleep(0.4)
    began = time.perf_counter()
    for one in slow:
        processes.give_up(one)
    assert processes.begin(partial(add, 2, 3), 30).result() == 5
    assert time.perf_counter() - began < 15
    ends = [one.exception() if not one.cancelled() else None for one in slow]
    assert sum(isinstance(end, Unwanted) for end in ends) == 8 and ends.count(None) == 2
