"""What is kept without growing: never more than it may hold, those put in last, and worked out once."""

import pickle
from concurrent.futures import ThreadPoolExecutor

from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.kernel.latest import Latest


@given(st.integers(1, 6), st.lists(st.integers(0, 9), max_size=40))
def test_it_holds_the_last_that_were_put_in_and_no_more(most: int, keys: list[int]) -> None:
    kept: Latest[int, int] = Latest(most)
    for turn, key in enumerate(keys):
        assert kept.put(key, turn) == turn
    last: list[int] = []
    for key in reversed(keys):
        if key not in last:
            last.append(key)
    assert list(kept) == last[:most][::-1]


def test_what_takes_long_is_worked_out_once_for_as_long_as_it_is_kept() -> None:
    worked: list[str] = []

    def work(key: str) -> int:
        worked.append(key)
        return len(worked)

    kept: Latest[str, int] = Latest(2)
    assert [kept.get_or_compute(key, lambda key=key: work(key)) for key in "abab"] == [1, 2, 1, 2]
    assert [kept.get_or_compute(key, lambda key=key: work(key)) for key in "cba"] == [3, 2, 4]
    assert worked == ["a", "b", "c", "a"]


def test_it_is_sent_to_another_process_with_its_bound() -> None:
    sent = pickle.loads(pickle.dumps(Latest(2, [("a", 1), ("b", 2)])))
    assert list(sent.items()) == [("a", 1), ("b", 2)]
    sent.put("c", 3)
    assert list(sent.items()) == [("b", 2), ("c", 3)]


def test_several_threads_may_look_things_up_at_once() -> None:
    kept: Latest[int, int] = Latest(3)
    with ThreadPoolExecutor(8) as threads:
        squares = list(threads.map(lambda turn: kept.get_or_compute(turn % 7, lambda: (turn % 7) ** 2), range(4000)))
    assert squares == [(turn % 7) ** 2 for turn in range(4000)]
    assert len(kept) <= 3
