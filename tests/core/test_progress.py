"""What was marked done, begun or moved, and what follows from it, held to an inspector that knows nothing of how."""

from datetime import datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from amber_spread.core.clock import (
    Mark,
    PinnedBlock,
    Places,
    Progress,
    Span,
    changes_of,
    in_turn,
    minute_of,
    week_of,
)
from amber_spread.core.clock.places import Hands
from amber_spread.core.clock.placing import place_order
from tests.core.test_clock import any_places, most_at_once
from tests.core.test_clock import step as a_step
from tests.core.test_week import CAKES, DUE, as_placed

ALONE = Places(hands=(Hands(),))
DAY_MIN = 24 * 60


def with_progress(orders, progress, id="0"):
    return [
        one._replace(progress=progress, revision=f"{one.revision} {progress}") if one.id == id else one
        for one in orders
    ]


def hours(placed):
    return {id: one.whole for id, one in placed.timings.items()}


def inspect(turns, places, now):
    """Find every way in which what is left to do could not be done from now on."""
    left, taken, ovens = [], {}, []
    moves = [one.start for order, _ in turns if order.progress for one in order.progress.marks.values()]
    moved = any(one is not None for one in moves)
    for order, placed in turns:
        steps = {one.id: one for one in order.work.steps}
        ends = {id: placed.timings[id].whole.end for id in steps}
        for id, step in steps.items():
            timing = placed.timings[id]
            if id in placed.started:
                continue
            begins = timing.whole.start
            assert all(ends[before] <= begins for before in step.after), f"{id} starts before what it follows is done"
            assert (begins >= now or not step.hands) or order.progress is None, f"{id} starts before now"
            lasts = sum(end - start for start, end in timing.spans)
            assert lasts == step.minutes if step.hands else lasts >= step.minutes, id
            left += [(timing, step)] if step.hands else []
        for id, timing in placed.timings.items():
            spans = [(max(now, start), end) for start, end in timing.spans if end > now]
            begun = placed.mark(id).begun is not None and id in placed.started
            if timing.hand is not None and not begun:
                taken.setdefault(timing.hand, []).extend(spans)
            if steps.get(id) and steps[id].place == "oven":
                ovens += spans
    for spans in taken.values():
        assert all(end <= begins for (_, end), (begins, _) in pairwise(sorted(spans))), "hands do two things at once"
    assert most_at_once(ovens) <= places.ovens
    for timing, step in left:
        for start, end in timing.spans:
            day = places.hands[timing.hand].week[(start // DAY_MIN + 3) % 7]
            long = any(one and one.ends_min - one.begins_min >= 300 for one in places.hands[timing.hand].week)
            if step.on == "cake" or not long or moved:  # the drive goes by the hour of the customer
                continue
            assert day is not None and day.begins_min <= start % DAY_MIN <= (end - 1) % DAY_MIN < day.ends_min


@st.composite
def a_day_in_the_kitchen(draw):
    """Orders in a kitchen, an hour in the middle of their work, and marks that follow the plan or not."""
    kinds = draw(st.lists(st.tuples(st.sampled_from(range(len(CAKES))), st.integers(0, 30)), min_size=1, max_size=3))
    orders = as_placed([CAKES[kind](DUE + timedelta(hours=later)) for kind, later in kinds])
    places = draw(any_places)
    turns = dict((order.id, placed) for order, placed in in_turn(orders, places))
    first = min(one.first for one in turns.values())
    now = draw(st.integers(first - 300, minute_of(min(one.due for one in orders)) - 1))
    found = orders
    for order in orders:
        steps = draw(st.lists(st.sampled_from(order.work.steps), max_size=6, unique_by=lambda one: one.id))
        marks = {}
        for step in steps:
            begun = now - draw(st.integers(0, 600))
            wanted = now + draw(st.integers(0, 2000))
            for_work = [Mark(begun=begun), Mark(begun=begun, done=now), Mark(done=now, hand=3), Mark(start=wanted)]
            marks[step.id] = draw(st.sampled_from([Mark(done=begun), *(for_work if step.hands else [])]))
        if draw(st.booleans()):
            found = with_progress(found, Progress(marks, now, True), order.id)
    return found, places, now


@settings(max_examples=60, deadline=None)
@given(drawn=a_day_in_the_kitchen())
def test_whatever_was_marked_the_rest_can_be_done_from_now_on(drawn):
    orders, places, now = drawn
    turns = in_turn(orders, places)
    inspect(turns, places, now)
    for order, placed in turns:
        for id, mark in order.progress.marks.items() if order.progress else ():
            whole = placed.timings[id].whole
            assert mark.done in (None, whole.end) or mark.start is not None
            assert mark.begun is None or mark.begun == whole.start or len(placed.timings[id].spans) > 1
        assert all(before in placed.started for id in placed.started for before in _after(order, id))


def _after(order, id):
    return next((one.after for one in order.work.steps if one.id == id), ())


@pytest.fixture
def cake():
    return as_placed([CAKES[1](DUE)])


def works(placed):
    return sorted((one for one in placed.steps if one.hands), key=lambda one: placed.timings[one.id].whole.start)


def placed_of(orders, places=ALONE):
    ((_, placed),) = in_turn(orders, places)
    return placed


def test_what_is_done_by_the_plan_moves_nothing(cake):
    before = placed_of(cake)
    done = works(before)[:9]
    now = before.timings[done[-1].id].whole.end
    marks = {one.id: Mark(done=before.timings[one.id].whole.end, hand=0) for one in done}
    after = placed_of(with_progress(cake, Progress(marks, now)))
    late = {id for id, span in hours(after).items() if span != hours(before).get(id) and id not in after.started}
    assert {id for id in late if after.timings[id].hand is not None} == set()
    assert after.ends == before.ends


def test_a_step_that_is_late_moves_what_follows_it_and_says_when_all_is_ready(cake):
    before = placed_of(cake)
    mixed = works(before)[0]
    now = before.timings[mixed.id].whole.start + 6 * 60
    after = placed_of(with_progress(cake, Progress({}, now, True)))
    assert after.timings[mixed.id].whole.start == now + -now % 5
    moved = [one for one in works(after) if hours(after)[one.id].start != hours(before)[one.id].start]
    assert mixed.id in {one.id for one in moved}
    assert all(hours(after)[one.id].start > hours(before)[one.id].start for one in moved)
    (order,) = week_of(
        with_progress(cake, Progress({}, now, True)), ALONE, datetime(1970, 1, 1) + timedelta(minutes=now)
    ).orders
    late = max(one.end for one in order.steps.values()) > order.ready
    assert ("clock.over" in {one.code for one in order.checks}) == late
    assert "clock.late" not in {one.code for one in order.checks}


def test_work_done_early_leaves_the_rest_as_late_as_it_was(cake):
    before = placed_of(cake)
    mixed = works(before)[0]
    early = before.timings[mixed.id].whole.start - 3 * 60
    after = placed_of(with_progress(cake, Progress({mixed.id: Mark(done=early)}, early)))
    assert after.timings[mixed.id].whole.end == early
    assert after.ends == before.ends


def test_a_step_moved_later_starts_then_and_what_breaks_is_said(cake):
    before = placed_of(cake)
    cover = next(one for one in works(before) if one.row.kind == "cover")
    now = before.first - 600
    wanted = before.timings[cover.id].whole.start + 120
    moved = with_progress(cake, Progress({cover.id: Mark(start=wanted)}, now))
    after = placed_of(moved)
    assert after.timings[cover.id].whole.start == wanted
    places = ALONE
    changes = changes_of(
        in_turn(cake, places), in_turn(moved, places), places, datetime(1970, 1, 1) + timedelta(minutes=now)
    )
    assert cover.name in {one.name for one in changes.moved}
    assert all(one.start != one.would_start for one in changes.moved)
    assert (after.ends > max(block.ready for block in after.blocks)) == any(
        one.check.code == "clock.over" for one in changes.broken
    )


def test_a_step_moved_earlier_than_what_it_follows_starts_as_soon_as_it_can_and_says_so(cake):
    before = placed_of(cake)
    cover = next(one for one in works(before) if one.row.kind == "cover")
    now = before.first - 30
    wanted = before.first
    placed = placed_of(with_progress(cake, Progress({cover.id: Mark(start=wanted)}, now)))
    assert placed.timings[cover.id].whole.start > wanted
    moment = datetime(1970, 1, 1) + timedelta(minutes=now)
    (order,) = week_of(with_progress(cake, Progress({cover.id: Mark(start=wanted)}, now)), ALONE, moment).orders
    assert "clock.moved" in {one.code for one in order.checks}


def test_work_longer_than_a_day_that_has_begun_goes_on_the_next_day():
    begins = minute_of(datetime(2026, 12, 3, 16))
    progress = Progress({"carve": Mark(begun=begins)}, begins + 10)
    steps = [a_step("carve", 700, splits=True), a_step("coat", 60, "carve")]
    found = {id: one.spans for id, one in place_order(steps, DUE, ALONE, progress=progress).timings.items()}
    evening, morning = minute_of(datetime(2026, 12, 3, 18)), minute_of(datetime(2026, 12, 4, 8))
    assert found["carve"] == ((begins, evening), (morning, morning + 580))
    assert found["coat"] == ((minute_of(DUE) - 60, minute_of(DUE)),)


@pytest.mark.parametrize(
    ("mark", "work", "field"),
    [
        (Mark(done=1_000_001), True, "done"),
        (Mark(begun=1_000_001), True, "begun"),
        (Mark(begun=900_000), True, "begun"),
        (Mark(begun=999_000, done=998_000), True, "done"),
        (Mark(start=999_999), True, "start"),
        (Mark(start=1_100_000), True, "start"),
        (Mark(start=1_000_100), False, "start"),
        (Mark(begun=999_000, done=1_000_000), True, None),
        (Mark(start=1_000_000), True, None),
        (Mark(done=999_999), False, None),
        (Mark(begun=999_999), False, "begun"),
    ],
)
def test_a_mark_that_cannot_be_is_refused_by_its_field(mark, work, field):
    found = mark.trouble(work, 1_000_000, 1_002_000)
    assert (found and found[0]) == field


def test_the_states_of_steps_say_what_has_begun_and_what_is_done(cake):
    before = placed_of(cake)
    first, second = works(before)[:2]
    now = before.timings[second.id].whole.start + 1
    progress = Progress({first.id: Mark(done=before.timings[first.id].whole.end), second.id: Mark(begun=now - 1)}, now)
    (order,) = week_of(with_progress(cake, progress), ALONE).orders
    assert order.steps[first.id].state == "done" and order.steps[second.id].state == "begun"
    assert order.steps[second.id].noted.begun == order.steps[second.id].start
    assert order.steps[works(before)[-1].id].state == ""
    assert {one.state for one in week_of(cake, ALONE).orders[0].steps.values()} == {""}


def test_pinned_hours_give_way_to_a_step_that_was_moved(cake):
    (order,) = cake
    before = placed_of(cake)
    blocks = {one.steps[0].id: one for one in before.work}
    pinned = {
        id: PinnedBlock(before.timings[id].hand or 0, (Span(before.begins(one), before.begins(one) + one.minutes),))
        for id, one in blocks.items()
    }
    first = before.work[0].steps[0]
    wanted, now = before.timings[first.id].whole.start - 60, before.first - 600
    moved = order._replace(pinned=pinned, progress=Progress({first.id: Mark(start=wanted)}, now), revision="moved")
    after = placed_of([moved])
    assert placed_of([order._replace(pinned=pinned, revision="pinned")]).pinned
    assert after.timings[first.id].whole.start == wanted
    others = [id for id in blocks if id != first.id]
    assert after.pinned and all(after.timings[id].spans == before.timings[id].spans for id in others)
