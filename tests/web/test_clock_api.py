"""The clock of an order over HTTP, and its day sheet."""

import io
import re
from datetime import datetime, timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from amber_spread.core.design.finishes import DrapeCover
from amber_spread.web.app import make_app
from tests.clients import client_of
from tests.designs import document, tier

DUE = datetime(2026, 12, 5, 11)


@pytest.fixture
def client(book):
    return client_of(make_app(book))


def cake(due=DUE, **parts):
    found = document(tier(254, cover=DrapeCover(colour="blush")), tier(203), title="Skep & comb", due=due, **parts)
    return found.model_dump(mode="json")


def told(found):
    """What a clock says beside cautions."""
    assert [one["code"] for one in found["checks"] if one["severity"] == "caution"].count("clock.plan") == 1
    return [one["code"] for one in found["checks"] if one["severity"] != "caution"]


def test_an_order_is_counted_back_from_its_hour(client):
    found = client.post("/api/clock", json={"document": cake()}).json()
    steps = found["steps"]
    assert found["ready"] == "2026-12-05T10:30:00" and max(one["end"] for one in steps.values()) == found["ready"]
    assert found["begins"] == min(one["start"] for one in steps.values()) and not told(found)
    assert found["hands_on"]["value"] == pytest.approx(
        sum(one["hands"]["value"] for one in steps.values() if one["hands"])
    )


def test_what_is_late_is_told_by_the_hour_in_the_kitchen(client):
    late = client.post("/api/clock", json={"document": cake(), "now": "2026-12-05T09:00:00"}).json()
    assert told(late) == ["clock.late"]
    past = client.post("/api/clock", json={"document": cake(), "now": "2026-12-06T09:00:00"}).json()
    assert told(past) == ["clock.past"]


EVERY_DAY = [{"begins_min": 480.0, "ends_min": 1080.0}] * 7


def keep(client, **places):
    """Keep other hands and places."""
    now = client.get("/api/places").json()
    sent = {"began_from": now["number"], "places": now["places"] | places}
    answer = client.put("/api/places", json=sent)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_more_hands_and_longer_days_are_taken_from_the_hands_and_places(client):
    def begins():
        return client.post("/api/clock", json={"document": cake()}).json()["begins"]

    first = begins()
    keep(client, hands=[{"week": EVERY_DAY}, {"week": EVERY_DAY, "name": "Wren"}])
    two = begins()
    keep(client, hands=[{"week": [{"begins_min": 480.0, "ends_min": 1320.0}] * 7}])
    assert first < two and first < begins()


def test_hands_and_places_are_kept_and_a_stale_save_is_refused(client):
    first = client.get("/api/places").json()
    assert (first["number"], len(first["places"]["fridge"]), first["unread"]) == (0, 3, "")
    kept = keep(client, ovens=2, hands=[{"week": [None, *EVERY_DAY[:6]], "name": " Wren ", "off": ["2026-12-04"]}])
    assert client.get("/api/places").json() == kept and kept["places"]["hands"][0]["name"] == "Wren"
    stale = client.put("/api/places", json={"began_from": 0, "places": first["places"]})
    assert stale.status_code == 409 and "Hands and places" in stale.text
    assert client.get("/api/places").json()["places"]["ovens"] == 2


@pytest.mark.parametrize(
    ("sent", "pointer", "words"),
    [
        ({"hands": []}, "#/places/hands", "1"),
        ({"hands": [{"week": [None] * 7}]}, "#/places/hands/0/week", "hours on one day at least"),
        ({"hands": [{"week": EVERY_DAY[:6]}]}, "#/places/hands/0/week", "7"),
        (
            {"hands": [{"week": [{"begins_min": 600, "ends_min": 600}, *EVERY_DAY[:6]]}]},
            "#/places/hands/0/week/0/ends_min",
            "at least an hour after",
        ),
        ({"hands": [{"week": EVERY_DAY, "off": ["soon"]}]}, "#/places/hands/0/off/0", ""),
        ({"ovens": 0}, "#/places/ovens", "1"),
        ({"fridge": [{"height_mm": 4}]}, "#/places/fridge/0/height_mm", "50"),
    ],
)
def test_places_that_cannot_be_are_pointed_at(client, sent, pointer, words):
    answer = client.put("/api/places", json={"began_from": 0, "places": sent})
    assert answer.status_code == 422
    (error,) = answer.json()["errors"]
    assert error["pointer"] == pointer and words in error["message"]


@pytest.mark.parametrize(
    ("sent", "pointer", "words"),
    [
        ({"document": cake(due=None)}, "#/document/due", "set the day and hour"),
        ({"document": cake(), "now": "2026-12-05T09:00:00+01:00"}, "#/now", ""),
        ({"document": cake(), "now": "soon"}, "#/now", ""),
        ({"document": cake() | {"practice": {"hands": 2}}}, "#/document/practice/hands", ""),
    ],
)
def test_what_cannot_be_counted_back_is_pointed_at(client, sent, pointer, words):
    answer = client.post("/api/clock", json=sent)
    errors = answer.json()["errors"]
    assert answer.status_code == 422 and [one["pointer"] for one in errors] == [pointer]
    assert words in errors[0]["message"]


def test_a_due_hour_at_either_end_of_the_calendar_is_no_fault_of_the_servers(client):
    for due in (datetime(1, 1, 1), datetime(9999, 12, 31, 23, 59)):
        answer = client.post("/api/clock", json={"document": cake(due=due)})
        assert answer.status_code == 422 and answer.json()["errors"][0]["pointer"] == "#/document/due"
    for due in (datetime(1971, 1, 1), datetime(2200, 12, 31, 23, 59)):
        assert client.post("/api/clock", json={"document": cake(due=due)}).status_code == 200


def words_of(answer):
    assert answer.status_code == 200, answer.text
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages))


def test_the_day_sheet_says_what_the_screen_says(client):
    order = client.post("/api/orders", json=cake()).json()["id"]
    found = client.post("/api/clock", json={"document": cake()}).json()
    words = words_of(client.get(f"/api/orders/{order}/days.pdf", params={"length": "mm"}))
    assert "Skep & comb: day sheet" in words
    for one in found["steps"].values():
        begins, ends = datetime.fromisoformat(one["start"]), datetime.fromisoformat(one["end"])
        assert f"{begins:%H:%M} " in words and f"{one['name']}." in words
        if one["wait"]:
            assert f"{ends:%H:%M}" in words and (not one["sign"] or f"Done when {one['sign']}." in words)
    hours = divmod(-(-found["hands_on"]["value"] // 1), 60)
    assert f"About {hours[0]:.0f} h {hours[1]:.0f} min of work" in words
    assert words.count("Caution: ") == sum(task["caution"] for one in found["steps"].values() for task in one["tasks"])
    assert "local food code" in words


def test_an_order_without_a_due_hour_has_no_day_sheet(client):
    order = client.post("/api/orders", json=cake(due=None)).json()["id"]
    answer = client.get(f"/api/orders/{order}/days.pdf")
    assert answer.status_code == 422 and "set the day and hour" in answer.text


def test_work_on_several_days_stands_on_each_of_them(client):
    keep(client, hands=[{"week": [{"begins_min": 600.0, "ends_min": 680.0}] * 7}])
    sent = cake() | {"design": document(*[tier(300 - 12 * at) for at in range(12)]).design.model_dump(mode="json")}
    found = client.post("/api/clock", json={"document": sent}).json()
    several = [one for one in found["steps"].values() if len(one["spans"]) > 1]
    for one in several:
        assert one["spans"][0][0] == one["start"] and one["spans"][-1][1] == one["end"]
        long = [datetime.fromisoformat(end) - datetime.fromisoformat(start) for start, end in one["spans"]]
        assert max(long) <= timedelta(minutes=80)
    assert several, "nothing in it is longer than a day"


def test_what_a_coat_took_says_how_well_the_fridge_cools(client):
    steps = client.post("/api/clock", json={"document": cake()}).json()["steps"]
    step, one = next((id, one) for id, one in steps.items() if one["kind"] == "firm_final")
    assert one["firming"]["where"] == "fridge" and one["firming"]["through"]["value"] == one["wait"]["value"]
    asked = {"document": cake(), "step": step, "took_min": 1.4 * one["wait"]["value"]}
    found = client.post("/api/clock/pace", json=asked)
    assert found.status_code == 200 and found.json()["where"] == "fridge" and 0.25 <= found.json()["pace"] < 1
    slower = client.post("/api/clock", json={"document": cake(practice={"fridge_pace": found.json()["pace"]})}).json()
    assert slower["steps"][step]["wait"]["value"] == pytest.approx(asked["took_min"], rel=0.05)


@pytest.mark.parametrize(
    ("sent", "pointer", "words"),
    [
        ({"took_min": 1.0}, "#/took_min", "too far off"),
        ({"took_min": 0.0}, "#/took_min", "1"),
        ({"took_min": "soon"}, "#/took_min", "number"),
        ({"step": "tier_1_bake"}, "#/step", "firms in the cold"),
        ({"step": "../x"}, "#/step", ""),
    ],
)
def test_a_time_that_cannot_be_is_refused_at_its_field(client, sent, pointer, words):
    steps = client.post("/api/clock", json={"document": cake()}).json()["steps"]
    step = next(id for id, one in steps.items() if one["kind"] == "firm_final")
    found = client.post("/api/clock/pace", json={"document": cake(), "step": step, "took_min": 30.0} | sent)
    assert found.status_code == 422
    (error,) = found.json()["errors"]
    assert error["pointer"] == pointer and words in error["message"]


def test_a_saved_order_is_taken_into_a_calendar_and_a_later_one_replaces_it(client):
    order = client.post("/api/orders", json=cake()).json()
    answer = client.get(f"/api/orders/{order['id']}/days.ics")
    assert answer.status_code == 200 and answer.headers["content-type"].startswith("text/calendar")
    assert "calendar.ics" in answer.headers["content-disposition"]
    first = {str(one["uid"]): one for one in Calendar.from_ical(answer.content).walk("VEVENT")}
    changed = cake(due=DUE + timedelta(days=1))
    client.put(f"/api/orders/{order['id']}", json={"began_from": 1, "document": changed})
    second = Calendar.from_ical(client.get(f"/api/orders/{order['id']}/days.ics").content).walk("VEVENT")
    for one in second:
        before = first[str(one["uid"])]
        assert one["sequence"] > before["sequence"]
        assert one.decoded("dtstart") == before.decoded("dtstart") + timedelta(days=1)
    answer = client.get("/api/orders/00000000-0000-0000-0000-000000000000/days.ics")
    assert answer.status_code == 404
    undated = client.post("/api/orders", json=cake(due=None)).json()
    assert client.get(f"/api/orders/{undated['id']}/days.ics").status_code == 422


def test_a_coat_of_the_kitchens_own_recipe_firms_as_that_does(client):
    def through():
        steps = client.post("/api/clock", json={"document": cake()}).json()["steps"]
        return next(one["firming"]["through"]["value"] for one in steps.values() if one["kind"] == "firm_final")

    before = through()
    lines = [{"item": "shortening", "amount": 500}, {"item": "icing_sugar", "amount": 500}]
    own = {"key": "mine", "name": "Mine", "makes": "meringue_buttercream", "lines": lines}
    pantry = client.get("/api/pantry").json()
    kept = client.put(
        "/api/pantry", json={"began_from": pantry["number"], "pantry": pantry["pantry"] | {"recipes": [own]}}
    )
    assert kept.status_code == 200 and through() < before
