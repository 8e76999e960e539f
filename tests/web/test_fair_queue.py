"""The fair queue: one client's many jobs never delay another client's only job."""

import time
from operator import add

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.web.fair_queue import MAX_PER_CLIENT, MAX_RUNNING, MAX_WAITING, FairQueue, Owner, QueueFull
from amber_spread.web.workers import FAILED

owners = st.builds(Owner, st.sampled_from("abc"), st.booleans())


@given(st.lists(owners, max_size=40), st.data())
def test_every_job_runs_and_no_client_gets_more_than_their_share(asked, data):
    queue, started, running = FairQueue(), [], []
    for number, owner in enumerate(asked):
        queue.add(owner, number)
    while queue.waiting or running:
        waiting = {owner for owner in queue.waiting if not owner.background}
        found = queue.start_next()
        if found is None:
            owner = running.pop(data.draw(st.integers(0, len(running) - 1)))
            queue.finished(owner)
            continue
        owner, number = found
        assert asked[number] == owner
        assert running.count(owner) < (1 if owner.background else MAX_PER_CLIENT)
        assert len(running) < MAX_RUNNING
        # No owner with fewer running jobs is passed over, and background jobs let every client go first.
        assert all(running.count(other) >= running.count(owner) for other in waiting)
        assert not owner.background or not waiting
        started.append(number)
        running.append(owner)
    assert sorted(started) == list(range(len(asked)))
    for owner in set(asked):
        own = [number for number in started if asked[number] == owner]
        assert own == sorted(own)


def test_the_queue_of_one_client_is_bounded():
    queue = FairQueue()
    for number in range(MAX_WAITING):
        queue.add(Owner("a"), number)
    with pytest.raises(QueueFull, match="waiting already"):
        queue.add(Owner("a"), MAX_WAITING)
    queue.add(Owner("b"), 0)
    queue.remove(Owner("a"), 3)
    queue.add(Owner("a"), MAX_WAITING)


def test_ten_jobs_of_one_client_delay_no_other_client(workers):
    assert workers.begin(add, 30, 1, 1).result() == 2
    many = [workers.begin_for(Owner("many"), time.sleep, 30, 20) for _ in range(10)]
    unseen = workers.begin_for(Owner(background=True), add, 30, 2, 2)
    began = time.monotonic()
    assert workers.begin_for(Owner("one"), add, 30, 2, 3).result() == 5
    assert time.monotonic() - began < 5
    assert not any(one.done() for one in many) and not unseen.done()
    for one in many:
        workers.give_up(one)
    assert unseen.result(timeout=20) == 4


def spin(seconds):
    """Use processor time, s."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return "done"


def test_the_limit_is_processor_time_and_not_the_clock(workers):
    assert workers.begin(spin, 3, 1.0).result() == "done"
    assert workers.begin(time.sleep, 0.5, 2.0).result() is None
    with pytest.raises(FAILED):
        workers.begin(spin, 1, 30).result()
