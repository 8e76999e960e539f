"""The calendar of an order, read back by the library that other programs use too."""

from datetime import UTC, datetime, timedelta

import pytest
from icalendar import Calendar

from amber_spread.core.clock import Kitchen, Places, clock_of
from amber_spread.core.clock.places import Hands, WorkingDay
from amber_spread.core.design.finishes import DrapeCover
from amber_spread.core.document import FileError, plan_document
from amber_spread.papers.calendar import Saved, write_calendar
from tests.designs import document, tier

DUE = datetime(2026, 10, 25, 11)
"""On this day clocks go back in much of the world."""
SAVED = Saved("8b8a471e", 3, datetime(2026, 10, 1, 12, 30, tzinfo=UTC))


def order(*tiers, title="Skep, comb; & é 🐝", **more):
    return document(*(tiers or (tier(254, cover=DrapeCover()), tier(203))), title=title, due=DUE, **more)


ONE = Kitchen()


def read(found, saved=SAVED, kitchen=ONE):
    content = write_calendar(found, plan_document(found), saved, kitchen=kitchen)
    assert all(len(line) <= 75 for line in content.split(b"\r\n"))
    calendar = Calendar.from_ical(content)
    assert not calendar.errors and str(calendar["version"]) == "2.0"
    return list(calendar.walk("VEVENT"))


@pytest.mark.parametrize("firm_in", ["fridge", "freezer"])
def test_every_piece_of_work_is_an_event_at_its_hour(firm_in):
    found, two = order(practice={"firm_in": firm_in}), Kitchen(Places(hands=(Hands(),) * 2))
    clock = clock_of(found, plan_document(found), kitchen=two)
    events = {str(one["uid"]): one for one in read(found, kitchen=two)}
    due = events.pop(f"{SAVED.id}-due")
    assert due.decoded("dtstart") == DUE and str(due["summary"]) == f"Due: {found.title}"
    rings = {id for id, one in clock.steps.items() if one.wait and one.place in ("oven", "freezer")}
    assert len(rings) >= (2 if firm_in == "fridge" else 6)
    assert events.keys() == {f"{SAVED.id}-{id}" for id, one in clock.steps.items() if one.hands or id in rings}
    for id, one in clock.steps.items():
        if one.hands or id in rings:
            event = events[f"{SAVED.id}-{id}"]
            assert (event.decoded("dtstart"), event.decoded("dtend")) == (one.start, one.end)
            assert event.decoded("dtstart").tzinfo is None, "the hour on the kitchen's wall"
            assert str(event["summary"]) == f"{one.name}: {found.title}"
            assert bool(event.walk("VALARM")) == (id in rings)
            assert (f"Hands {one.hand}." in str(event.get("description", ""))) == bool(one.hands)
    alarm = events[f"{SAVED.id}-{min(rings)}"].walk("VALARM")[0]
    assert alarm.decoded("trigger") == timedelta(0) and alarm["trigger"].params["related"] == "END"


def test_work_over_several_days_is_an_event_on_each():
    found = order(*[tier(300 - 20 * number) for number in range(8)])
    kitchen = Kitchen(Places(hands=(Hands(week=(WorkingDay(ends_min=540.0),) * 7),)))
    clock = clock_of(found, plan_document(found), kitchen=kitchen)
    long = {id: one for id, one in clock.steps.items() if len(one.spans) > 1 and one.hands}
    events = {str(one["uid"]): one for one in read(found, kitchen=kitchen)}
    assert long
    for id, one in long.items():
        spans = [events[f"{SAVED.id}-{id}-{number}"] for number in range(1, len(one.spans) + 1)]
        assert [(one.decoded("dtstart"), one.decoded("dtend")) for one in spans] == one.spans


def test_a_later_file_has_the_same_ids_and_a_higher_number():
    before, after = read(order()), read(order(title="Renamed"), SAVED._replace(revision=4))
    assert [str(one["uid"]) for one in before] == [str(one["uid"]) for one in after]
    assert {one["sequence"] for one in before} == {3} and {one["sequence"] for one in after} == {4}
    assert {one.decoded("dtstamp") for one in before} == {SAVED.at}
    other = read(order(), SAVED._replace(id="c0ffee"))
    assert not {str(one["uid"]) for one in other} & {str(one["uid"]) for one in before}


def test_what_to_do_and_its_sign_are_in_the_words():
    events = {str(one["uid"]): str(one.get("description", "")) for one in read(order(practice={"firm_in": "freezer"}))}
    assert any("Done when nothing comes off on your finger." in words for words in events.values())
    assert not any("{" in words for words in events.values())
    assert any(" g" in words for words in events.values())


def test_an_order_without_an_hour_has_no_calendar():
    found = document(tier(203))
    with pytest.raises(FileError):
        write_calendar(found, plan_document(found), SAVED)
