"""Several orders in one kitchen, held to an inspector that knows nothing of how they are placed."""

from datetime import date, datetime, timedelta
from itertools import count, pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from amber_spread.core.clock import Kitchen, OrderWork, Places, Work, around, clock_of, week_of, work_of
from amber_spread.core.clock.places import Hands, WorkingDay
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, InvertedFinal
from amber_spread.core.document.document import FileError, plan_document
from amber_spread.demo.places import PLACES
from amber_spread.demo.week import week
from tests.core.test_clock import any_places, most_at_once, ordered
from tests.designs import tier

TODAY = date(2026, 12, 1)
DUE = datetime(2026, 12, 5, 11)


REVISIONS = count()
"""The same order and revision always mean the same work."""


def asked(document, id):
    return OrderWork(id, str(next(REVISIONS)), document.title, document.due, work_of(document, plan_document(document)))


def as_placed(documents):
    """Orders in the order in which they are placed: the one due last first."""
    orders = [asked(one, str(index)) for index, one in enumerate(documents)]
    return sorted(orders, key=lambda one: (one.due, one.id), reverse=True)


def inspect(found, orders, places):
    """Find every way in which the hours of several orders could not be kept together."""
    work = {order.id: {one.id: one for one in order.work.steps} for order in orders}
    every = [(order, id, one) for order in found.orders for id, one in order.steps.items()]
    for order, id, one in every:
        assert one.end <= order.ready and one.start < one.end
        assert all(order.steps[earlier].end <= one.start for earlier in one.follows), id
        asks = work[order.id].get(id)
        lasts = sum((end - start for start, end in one.spans), timedelta())
        assert asks is None or (
            lasts == timedelta(minutes=asks.minutes) if asks.hands else lasts.total_seconds() >= 60 * asks.minutes
        )
        assert (one.minutes is None) == (one.hand is None)
    for hand in range(1, len(places.hands) + 1):
        spans = sorted(span for _, _, one in every if one.hand == hand for span in one.spans)
        assert all(ends <= begins for (_, ends), (begins, _) in pairwise(spans)), f"hands {hand} do two things at once"
    spans = {
        what: [span for order, id, one in every if is_one(one, id) for span in one.spans]
        for what, is_one in {
            "ovens": lambda one, _: one.place == "oven",
            "mixers": lambda one, id: id.endswith(("mix_bowl", "mix_batter")),
            "benches": lambda one, _: one.place == "bench" and one.minutes,
        }.items()
    }
    for what, taken in spans.items():
        assert most_at_once(taken) <= getattr(places, what), what
    for place, shelves in (("fridge", places.fridge), ("freezer", places.freezer)):
        stays = [(work[order.id], one) for order, _, one in every if one.place == place and one.shelves]
        sizes = [
            (one, next(each.size for each in steps.values() if (each.on, each.tier) == (one.on, one.tier)))
            for steps, one in stays
        ]
        for one, size in sizes:
            there = [(other, its) for other, its in sizes if other.start <= one.start < other.end]
            beside = [its.width_mm * its.depth_mm for other, its in there if other.shelves[-1] == one.shelves[-1]]
            shelf = shelves[one.shelves[-1] - 1]
            assert sum(beside) <= shelf.width_mm * shelf.depth_mm + 1e-6
            assert size.height_mm <= sum(shelves[at - 1].height_mm for at in one.shelves)
            assert not any(other.shelves[-1] in one.shelves[:-1] for other, _ in there)


def test_the_week_of_the_demo_can_be_kept_and_nothing_is_late_or_without_room():
    orders = as_placed(week(TODAY))
    found = week_of(orders, PLACES, datetime(2026, 12, 1, 18))
    inspect(found, orders, PLACES)
    assert [one.due for one in found.orders] == sorted(one.due for one in orders)
    assert {check.code for one in found.orders for check in one.checks} == set()


CAKES = [
    lambda due: ordered(tier(203)).model_copy(update={"due": due}),
    lambda due: ordered(tier(254, cover=DrapeCover()), tier(152)).model_copy(update={"due": due}),
    lambda due: ordered(tier(178, final=InvertedFinal(disc_diameter_mm=190))).model_copy(update={"due": due}),
    lambda due: ordered(tier(203, final=FreehandFinal(medium="dark_ganache"))).model_copy(update={"due": due}),
]


@settings(max_examples=15, deadline=None)
@given(
    drawn=st.lists(st.tuples(st.sampled_from(range(len(CAKES))), st.integers(0, 60)), min_size=2, max_size=5),
    places=any_places,
)
def test_any_orders_can_be_kept_in_any_kitchen(drawn, places):
    orders = as_placed([CAKES[kind](DUE + timedelta(hours=late)) for kind, late in drawn])
    inspect(week_of(orders, places), orders, places)


def test_the_clock_of_an_order_says_the_hours_that_its_week_says():
    documents = week(TODAY)[:4]
    orders = as_placed(documents)
    found = {one.id: one for one in week_of(orders, PLACES).orders}
    for index, document in enumerate(documents):
        others = [one for one in orders if one.id != str(index)]
        beside = around(others, document.due, str(index), None, PLACES)
        clock = clock_of(document, plan_document(document), None, Kitchen(PLACES), beside)
        mine = found[str(index)]
        assert clock.begins == mine.begins and clock.ready == mine.ready
        assert {id: (one.spans, one.hand, one.shelves, one.look) for id, one in clock.steps.items()} == {
            id: (one.spans, one.hand, one.shelves, one.look) for id, one in mine.steps.items()
        }


def test_an_edit_moves_what_is_due_before_it_and_nothing_that_is_due_after_it():
    first, other, last = (CAKES[kind](DUE + timedelta(hours=late)) for kind, late in ((0, 0), (0, 1), (0, 2)))
    before_edit = week_of(as_placed([first, other, last]), Places())
    larger = CAKES[1](other.due)
    orders = [asked(last, "2"), asked(larger, "1"), asked(first, "0")]
    after_edit = week_of(orders, Places())
    hours = [
        {one.id: {id: each.spans for id, each in one.steps.items()} for one in found.orders}
        for found in (before_edit, after_edit)
    ]
    assert hours[0]["2"] == hours[1]["2"] and hours[0]["0"] != hours[1]["0"]
    assert after_edit.orders[0].begins < before_edit.orders[0].begins


def test_two_orders_for_one_hour_are_later_by_two_pairs_of_hands_than_by_one():
    both = as_placed([CAKES[1](DUE), CAKES[1](DUE)])
    one, two = (week_of(both, Places(hands=(Hands(),) * count, mixers=count, ovens=count)) for count in (1, 2))
    assert min(order.begins for order in one.orders) < min(order.begins for order in two.orders)
    assert {step.hand for order in two.orders for step in order.steps.values() if step.hand} == {1, 2}


def test_work_is_kept_as_plain_json_and_gives_the_same_hours():
    document = week(TODAY)[0]
    work = work_of(document, plan_document(document))
    again = Work.model_validate_json(work.model_dump_json())
    assert again == work and len(work.model_dump_json()) < 20_000
    due = document.due
    hours = [
        week_of([OrderWork("a", f"json {number}", "", due, each)], PLACES) for number, each in enumerate((work, again))
    ]
    assert hours[0].orders[0].steps.keys() == hours[1].orders[0].steps.keys()
    for id, one in hours[0].orders[0].steps.items():
        assert hours[1].orders[0].steps[id].spans == one.spans


def test_an_order_without_an_hour_has_no_work():
    with pytest.raises(FileError, match="set the day and hour"):
        work_of(CAKES[0](None), plan_document(CAKES[0](None)))


def test_what_is_late_is_said_of_the_order_that_is():
    early, late = CAKES[0](datetime(2026, 12, 2, 9)), CAKES[0](DUE)
    hands = (Hands(week=(WorkingDay(begins_min=480, ends_min=720),) * 7),)
    found = week_of(as_placed([early, late]), Places(hands=hands), datetime(2026, 12, 1, 18))
    assert [[check.code for check in one.checks] for one in found.orders] == [["clock.late"], []]
