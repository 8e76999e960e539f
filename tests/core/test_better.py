"""Better hours by constraint programming: the solver against known optima and exhaustive search, and the weeks it
improves against the inspector of weeks.
"""

from datetime import datetime, timedelta
from itertools import permutations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from amber_spread.core.clock import Kitchen, PinnedBlock, Places, Span, around, clock_of, solver, week_of
from amber_spread.core.clock.better import better_hours, better_week
from amber_spread.core.clock.places import Hands
from amber_spread.core.clock.solver import Between, Busy, Lag, Problem, Spoils, Task, Use, Way, solve, worth_of
from amber_spread.core.clock.week import in_turn
from amber_spread.core.document.document import plan_document
from amber_spread.demo.places import PLACES
from amber_spread.demo.week import week
from amber_spread.speed.job_shops import SIX_BY_SIX, SIX_TAKES, job_shop
from tests.core.test_week import CAKES, DUE, TODAY, as_placed, inspect


@pytest.fixture(autouse=True)
def by_effort_alone(monkeypatch):
    """A slow machine finds the same as a quick one: only the solver's own measure of effort ends a search."""
    monkeypatch.setattr(solver, "MOST_S", 600.0)


def test_the_six_by_six_job_shop_of_fisher_and_thompson_takes_55():
    found = solve(job_shop(SIX_BY_SIX, 200), 20)
    assert found.optimal and 200 - found.worth == SIX_TAKES == 200 - found.bound
    ends = {
        id: one.start_min + next(task.minutes for task in job_shop(SIX_BY_SIX, 200).tasks if task.id == id)
        for id, one in found.chosen.items()
    }
    for job, operations in enumerate(SIX_BY_SIX):
        for at in range(1, len(operations)):
            assert ends[f"{job} {at - 1}"] <= found.chosen[f"{job} {at}"].start_min
    for machine in range(6):
        spans = sorted(
            (found.chosen[f"{job} {at}"].start_min, ends[f"{job} {at}"])
            for job, operations in enumerate(SIX_BY_SIX)
            for at, (on, _) in enumerate(operations)
            if on == machine
        )
        assert all(end <= begin for (_, end), (begin, _) in zip(spans, spans[1:], strict=False))


@settings(max_examples=15, deadline=None)
@given(
    lengths=st.lists(st.integers(1, 9), min_size=2, max_size=4),
    values=st.lists(st.integers(0, 3), min_size=4, max_size=4),
    busy=st.integers(0, 20),
)
def test_small_problems_are_solved_as_well_as_exhaustive_search_solves_them(lengths, values, busy):
    """Tasks on one machine that is taken for five minutes: by every order, each task as late as it goes."""
    until, taken = 40, (busy, busy + 5)

    def worth(order):
        end, total = until, 0
        for at in order:
            if end - lengths[at] < taken[1] and end > taken[0]:
                end = taken[0] if end - lengths[at] < taken[1] else end
            end -= lengths[at]
            if end < 0:
                return None
            total += values[at] * end
        return total

    tasks = tuple(
        Task(str(at), length, (Way((Use("machine", 0, length),), ((0, until),)),), values[at])
        for at, length in enumerate(lengths)
    )
    problem = Problem(tasks, busy=(Busy("machine", *taken),))
    found = solve(problem, 5)
    assert found.worth == worth_of(problem, found.chosen)
    best = max(one for order in permutations(range(len(lengths))) if (one := worth(order)) is not None)
    assert found.optimal and found.worth >= best - 1e-9
    spans = sorted([taken, *((one.start_min, one.start_min + lengths[int(id)]) for id, one in found.chosen.items())])
    assert all(end <= begin for (_, end), (begin, _) in zip(spans, spans[1:], strict=False))


def one_way(*uses, windows=((0, 100),)):
    return (Way(tuple(uses), windows),)


def test_what_spoils_is_used_in_time_where_that_is_worth_more():
    mix = Task("mix", 10, one_way(Use("hands", 0, 10), windows=((0, 15),)))
    tasks = (mix, Task("use", 10, one_way(Use("hands", 0, 10)), 1))
    other = Task("other", 60, one_way(Use("hands", 0, 60), windows=((30, 90),)))
    lag = Lag("mix", 10, "use", 5)
    loose = solve(Problem((*tasks, other), (lag,)), 5).chosen
    assert loose["use"].start_min - loose["mix"].start_min - 10 > 20
    spoils = Spoils("mix", 10, (("use", 0),), 20, 100)
    kept = solve(Problem((*tasks, other), (lag,), (spoils,)), 5).chosen
    assert 5 <= kept["use"].start_min - kept["mix"].start_min - 10 <= 20


def test_a_shelf_is_taken_between_two_tasks():
    pairs = [(Task(f"{name} 1", 5, one_way()), Task(f"{name} 2", 5, one_way(), 1)) for name in "ab"]
    lags = tuple(Lag(f"{name} 1", 5, f"{name} 2", 30) for name in "ab")
    between = tuple(Between(f"{name} 1", 5, f"{name} 2", "shelf", 1) for name in "ab")
    tasks = tuple(task for pair in pairs for task in pair)
    for capacity, overlap in ((1, False), (2, True)):
        chosen = solve(Problem(tasks, lags, between=between, capacity={"shelf": capacity}), 5).chosen
        stays = [(chosen[f"{name} 1"].start_min + 5, chosen[f"{name} 2"].start_min) for name in "ab"]
        assert (max(stays[0][0], stays[1][0]) < min(stays[0][1], stays[1][1])) == overlap


def test_what_cannot_be_done_has_no_solution():
    assert solve(Problem((Task("long", 200, one_way()),)), 5) is None


def with_hours(orders, better):
    return [one._replace(pinned=better.hours.get(one.id), revision=f"{one.revision} kept") for one in orders]


def test_a_week_that_is_late_by_the_heuristic_is_not_by_the_solver():
    """Two cakes due together and one the day after: placed last, the ones due first would have begun before now."""
    orders = as_placed([CAKES[1](DUE + timedelta(hours=late)) for late in (0, 2, 20)])
    begins = min(one.begins for one in week_of(orders, Places()).orders)
    now = begins + timedelta(minutes=20)
    better = better_hours(orders, Places(), now, 3)
    assert better is not None and better.before < better.worth <= better.bound
    kept = with_hours(orders, better)
    assert all(placed.pinned for _, placed in in_turn(kept, Places()))
    found = week_of(kept, Places(), now)
    inspect(found, orders, Places())
    late = [
        sum(max(timedelta(), now - one.begins).total_seconds() for one in week.orders)
        for week in (week_of(orders, Places(), now), found)
    ]
    assert late[1] <= late[0]


def test_the_demo_week_keeps_every_rule_at_better_hours_and_what_has_begun_stays():
    orders = as_placed(week(TODAY)[:5])
    now = datetime(2026, 12, 2, 8)
    begun = orders[-1].id
    found = better_hours(orders, PLACES, now, 2, {begun})
    better = None if found is None else better_week(orders, PLACES, found)
    before = week_of(orders, PLACES, now)
    assert better is not None
    kept = with_hours(orders, better)
    found = week_of(kept, PLACES, now)
    inspect(found, orders, PLACES)
    same = {one.id: {id: (step.spans, step.hand) for id, step in one.steps.items()} for one in before.orders}
    after = {one.id: {id: (step.spans, step.hand) for id, step in one.steps.items()} for one in found.orders}
    assert same[begun] == after[begun]
    moved = {one.id for one in before.orders if same[one.id] != after[one.id]}
    assert moved == {one.id for one in better.moved} and moved
    for one in better.moved:
        assert one.would_begin == next(each.begins for each in found.orders if each.id == one.id)


def test_kept_hours_that_no_longer_fit_give_way_and_the_others_stay():
    orders = as_placed([CAKES[0](DUE), CAKES[0](DUE + timedelta(hours=3))])
    placed = {order.id: one for order, one in in_turn(orders, Places())}
    block = next(one for one in placed["0"].blocks if not one.flexible)
    hours = {
        one.steps[0].id: PinnedBlock(
            0,
            (
                Span(
                    *map(
                        lambda at: at - 1440,
                        (
                            placed["0"].timings[one.steps[0].id].whole.start,
                            placed["0"].timings[one.steps[-1].id].whole.end,
                        ),
                    )
                ),
            ),
        )
        for one in placed["0"].blocks
        if not one.flexible
    }
    early = [one._replace(pinned=hours if one.id == "0" else None, revision=f"{one.revision} early") for one in orders]
    found = {one.id: one for one in week_of(early, Places()).orders}
    assert found["0"].pinned and not found["1"].pinned
    inspect(week_of(early, Places()), orders, Places())
    wrong = hours | {block.steps[0].id: PinnedBlock(3, hours[block.steps[0].id].spans)}
    for other in (wrong, {}, {id: one for id, one in hours.items() if id != block.steps[0].id}):
        late = [
            one._replace(pinned=other if one.id == "0" else None, revision=f"{one.revision} {id(other)}")
            for one in orders
        ]
        assert not any(one.pinned for one in week_of(late, Places()).orders)


def test_the_clock_of_an_order_keeps_the_hours_that_were_chosen_for_it_and_its_edit_gives_them_up():
    documents = [CAKES[0](DUE), CAKES[1](DUE + timedelta(hours=3))]
    orders = as_placed(documents)
    two = Places(hands=(Hands(),) * 2)
    chosen = {order.id: one for order, one in in_turn(orders, two)}
    hours = {
        id: {
            block.steps[0].id: PinnedBlock(
                placed.timings[next(one.id for one in block.steps if one.hands)].hand,
                (
                    Span(
                        placed.timings[block.steps[0].id].whole.start - 1440,
                        placed.timings[block.steps[-1].id].whole.end - 1440,
                    ),
                ),
            )
            for block in placed.blocks
            if not block.flexible
        }
        for id, placed in chosen.items()
    }
    kept = [one._replace(pinned=hours[one.id], revision=f"{one.revision} chosen") for one in orders]
    found = {one.id: one for one in week_of(kept, two).orders}
    assert found["0"].pinned and found["1"].pinned
    for index, document in enumerate(documents):
        others = [one for one in kept if one.id != str(index)]
        beside = around(others, document.due, str(index), hours[str(index)], two)
        clock = clock_of(document, plan_document(document), None, Kitchen(two), beside)
        mine = found[str(index)]
        assert {id: one.spans for id, one in clock.steps.items()} == {id: one.spans for id, one in mine.steps.items()}
    edited = CAKES[1](DUE)
    beside = around([one for one in kept if one.id != "0"], DUE, "0", hours["0"], two)
    clock = clock_of(edited, plan_document(edited), None, Kitchen(two), beside)
    taken = [span for step in found["1"].steps.values() if step.hand == 1 for span in step.spans]
    mine = [span for step in clock.steps.values() if step.hand == 1 for span in step.spans]
    assert not any(one[0] < other[1] and other[0] < one[1] for one in taken for other in mine)


@pytest.mark.parametrize("count", [0, 1])
def test_nothing_better_is_found_where_there_is_nothing_to_move(count):
    orders = as_placed([CAKES[0](DUE)] * count)
    now = DUE - timedelta(days=5)
    assert better_hours(orders, Places(), now, 0.1, begun={one.id for one in orders}) is None


def test_nothing_better_is_found_where_there_are_no_working_hours_left():
    orders = as_placed([CAKES[0](DUE)])
    assert better_hours(orders, Places(), DUE - timedelta(minutes=20), 0.1) is None
    assert better_hours([], Places(), DUE, 0.1) is None
