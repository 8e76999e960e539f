"""The day sheets and the calendar of a week, read back by other libraries."""

import io
import re
from datetime import UTC, date, datetime, timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from amber_spread.core.clock import Kitchen, around, clock_of, week_of
from amber_spread.core.document import plan_document
from amber_spread.demo.places import PLACES
from amber_spread.demo.week import week
from amber_spread.papers.calendar import Saved, write_calendar
from amber_spread.papers.week_sheet import Whose, write_week_calendar, write_week_sheet
from tests.core.test_week import as_placed

NOW = datetime(2026, 12, 1, 18)
WREN, LINNET, ALL = Whose(1, "Wren"), Whose(2, "Linnet"), Whose(None, "")
WRITTEN = datetime(2026, 12, 1, 18, tzinfo=UTC)


@pytest.fixture(scope="module")
def documents():
    return week(date(2026, 12, 1))[:3]


@pytest.fixture(scope="module")
def found(documents):
    return week_of(as_placed(documents), PLACES, NOW)


def works(found, whose):
    return [
        one for order in found.orders for one in order.steps.values() if whose.hand in (None, one.hand) and one.hand
    ]


def text_of(content):
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)


@pytest.mark.parametrize("whose", [WREN, LINNET, ALL])
def test_every_piece_of_work_of_a_pair_of_hands_is_on_its_sheet_by_the_hour(found, whose):
    text = text_of(write_week_sheet(found, whose))
    assert (whose.name or "Day sheets of the week") in text and "local food code" in text
    spans = [span for one in works(found, whose) for span in one.spans]
    assert len(re.findall(r"^\d+ min$", text, re.MULTILINE)) == len(spans) > 10
    for start, _ in spans:
        assert f"{start:%H:%M}" in text
    homes = {}
    for start, end in spans:
        homes[start.date()] = max(homes.get(start.date(), end), end)
    for day, home in homes.items():
        assert f"{day:%A} {day.day} {day:%B}, home at {home:%H:%M}" in text


def test_a_pair_without_work_is_told_so(found):
    assert "No work on these days." in text_of(write_week_sheet(found, Whose(3, "Nobody")))


@pytest.mark.parametrize("whose", [WREN, ALL])
def test_the_calendar_of_a_week_is_read_back_and_has_the_ids_of_the_orders_calendar(found, documents, whose):
    content = write_week_calendar(found, whose, {"0": 7}, WRITTEN)
    calendar = Calendar.from_ical(content)
    events = {str(one["uid"]): one for one in calendar.walk("VEVENT")}
    assert not calendar.errors and all(len(line) <= 75 for line in content.split(b"\r\n"))
    spans = [span for one in works(found, whose) for span in one.spans]
    assert len(events) == len(spans) + len(found.orders)
    timed = sorted((one.decoded("dtstart"), one.decoded("dtend")) for one in events.values() if "dtend" in one)
    assert timed == sorted(spans)
    others = [one for one in as_placed(documents) if one.id != "0"]
    beside = around(others, documents[0].due, "0", None, PLACES)
    own = write_calendar(
        documents[0], plan_document(documents[0]), Saved("0", 7, WRITTEN), kitchen=Kitchen(PLACES), around=beside
    )
    mine = {str(one["uid"]): one for one in Calendar.from_ical(own).walk("VEVENT")}
    shared = {uid for uid in events if uid.startswith("0-")}
    assert shared and shared <= mine.keys()
    assert all(events[uid].decoded("dtstart") == mine[uid].decoded("dtstart") for uid in shared)
    assert {int(events[uid]["sequence"]) for uid in shared} == {7}
    clock = clock_of(documents[0], plan_document(documents[0]), NOW, Kitchen(PLACES), beside)
    assert max(one.end for one in clock.steps.values()) - clock.ready <= timedelta()
