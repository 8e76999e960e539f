"""Whose turn it is among those who wait for work: nobody's many pieces keep another's one waiting."""

import time
from operator import add

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.web.shares import MOST_AT_ONCE, MOST_OF_ONE, MOST_WAITING, Crowded, Shares, Whose
from amber_spread.web.workers import FAILED, Workers

clients = st.builds(Whose, st.sampled_from("abc"), st.booleans())


@given(st.lists(clients, max_size=40), st.data())
def test_every_piece_has_its_turn_and_nobody_more_than_their_share(asked, data):
    shares, begun, under_way = Shares(), [], []
    for number, whose in enumerate(asked):
        shares.add(whose, number)
    while shares.waiting or under_way:
        waiting = {whose for whose in shares.waiting if whose.waited_for}
        found = shares.next()
        if found is None:
            whose = under_way.pop(data.draw(st.integers(0, len(under_way) - 1)))
            shares.done(whose)
            continue
        whose, number = found
        assert asked[number] == whose
        assert under_way.count(whose) < (MOST_OF_ONE if whose.waited_for else 1)
        assert len(under_way) < MOST_AT_ONCE
        # Nobody with less under way is passed over, and what nobody looks at waits for all who do.
        assert all(under_way.count(other) >= under_way.count(whose) for other in waiting)
        assert whose.waited_for or not waiting
        begun.append(number)
        under_way.append(whose)
    assert sorted(begun) == list(range(len(asked)))
    for whose in set(asked):
        own = [number for number in begun if asked[number] == whose]
        assert own == sorted(own)


def test_one_client_may_have_only_so_much_waiting():
    shares = Shares()
    for number in range(MOST_WAITING):
        shares.add(Whose("a"), number)
    with pytest.raises(Crowded, match="waiting already"):
        shares.add(Whose("a"), MOST_WAITING)
    shares.add(Whose("b"), 0)
    shares.drop(Whose("a"), 3)
    shares.add(Whose("a"), MOST_WAITING)


@pytest.fixture
def workers():
    found = Workers()
    yield found
    found.stop()


def test_ten_pieces_of_one_client_keep_nobody_else_waiting(workers):
    assert workers.begin(add, 30, 1, 1).result() == 2
    many = [workers.begin_for(Whose("many"), time.sleep, 30, 20) for _ in range(10)]
    unseen = workers.begin_for(Whose(waited_for=False), add, 30, 2, 2)
    began = time.monotonic()
    assert workers.begin_for(Whose("one"), add, 30, 2, 3).result() == 5
    assert time.monotonic() - began < 5
    assert not any(one.done() for one in many) and not unseen.done()
    for one in many:
        workers.give_up(one)
    assert unseen.result(timeout=20) == 4


def spin(seconds):
    """So many seconds of the processor's time."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return "done"


def test_what_counts_is_the_processors_time_and_not_the_clock(workers):
    assert workers.begin(spin, 3, 1.0).result() == "done"
    assert workers.begin(time.sleep, 0.5, 2.0).result() is None
    with pytest.raises(FAILED):
        workers.begin(spin, 1, 30).result()
