"""The week over HTTP: every order on the same hands and in the same places, and the same hours in each one's clock."""

import json
import threading
import time
from datetime import datetime, timedelta

import pytest

from amber_spread.core.design.builds import CarvedBuild
from amber_spread.core.design.finishes import DrapeCover
from amber_spread.core.document import FileError, complaint_at, plan_document
from amber_spread.web import week as room
from amber_spread.web import works
from amber_spread.web.app import make_app
from amber_spread.web.planner import Planner
from tests.clients import client_of
from tests.designs import STONE, document, tier

DUE = datetime(2031, 5, 9, 14)


@pytest.fixture
def client(book):
    with client_of(make_app(book)) as client:
        yield client


def put(client, title, due=DUE, tiers=(203,), **more):
    made = document(*[tier(across, **more) for across in tiers], title=title, due=due).model_dump(mode="json")
    answer = client.post("/api/orders", json=made)
    assert answer.status_code == 201, answer.text
    return answer.json()["id"], made


def week(client, first="2031-05-05", **asked):
    until = time.monotonic() + 60
    while True:
        answer = client.get("/api/week", params={"first": first, **asked})
        assert answer.status_code == 200, answer.text
        if not answer.json()["pending"] or time.monotonic() > until:
            return answer.json()
        time.sleep(0.05)


def test_the_clock_of_every_order_says_what_the_week_says(client):
    made = dict(put(client, f"Skep {number}", DUE + timedelta(hours=number // 2), (254, 178)) for number in range(4))
    found = week(client)
    assert [one["title"] for one in found["orders"]] and found["left_out"] == []
    assert sorted(one["due"] for one in found["orders"]) == [one["due"] for one in found["orders"]]
    for one in found["orders"]:
        clock = client.post("/api/clock", json={"document": made[one["id"]], "order": one["id"]}).json()
        assert clock["begins"] == one["begins"]
        assert {id: step["spans"] for id, step in clock["steps"].items()} == {
            id: step["spans"] for id, step in one["steps"].items()
        }
    spans = sorted(
        span for one in found["orders"] for step in one["steps"].values() if step["hand"] for span in step["spans"]
    )
    assert all(ends <= begins for (_, ends), (begins, _) in zip(spans, spans[1:], strict=False)), "one pair of hands"


def test_an_order_that_is_new_edited_or_put_away_changes_the_week(client):
    first, _ = put(client, "First")
    alone = week(client)["orders"][0]
    other, made = put(client, "Other", DUE + timedelta(hours=1))
    both = {one["id"]: one for one in week(client)["orders"]}
    assert both.keys() == {first, other} and both[first]["begins"] < alone["begins"]
    changed = made | {"due": (DUE + timedelta(days=3)).isoformat()}
    assert client.put(f"/api/orders/{other}", json={"began_from": 1, "document": changed}).status_code == 200
    assert week(client)["orders"][0]["begins"] == alone["begins"]
    client.post(f"/api/orders/{other}/archive")
    assert [one["id"] for one in week(client, days=31)["orders"]] == [first]


def test_only_what_is_due_on_these_days_is_shown_though_what_follows_takes_its_hands(client):
    sunday, _ = put(client, "Sunday", datetime(2031, 5, 11, 9), (254, 203))
    put(client, "Monday", datetime(2031, 5, 12, 9), (254, 203))
    (one,) = week(client)["orders"]
    assert one["id"] == sunday
    alone = client.post("/api/clock", json={"document": put(client, "x", datetime(2031, 8, 1))[1]}).json()
    assert alone["steps"].keys() == week(client, first="2031-08-01", days=1)["orders"][0]["steps"].keys()
    assert week(client, first="2031-06-01")["orders"] == []


def test_a_carved_cake_is_worked_out_and_what_cannot_be_made_is_left_out_by_name(client, monkeypatch):
    put(client, "Stone", build=CarvedBuild(points_mm=STONE), cover=DrapeCover())
    put(client, "Skep")

    def cannot(found, *_):
        if found.title == "Stone":
            raise FileError([complaint_at(("design",), "is hollow")])
        return plan_document(found)

    assert sorted(one["title"] for one in week(client)["orders"]) == ["Skep", "Stone"]
    monkeypatch.setattr(Planner, "quick_plan", lambda _, *given: cannot(*given))
    kit = client.get("/api/kit").json()
    client.put("/api/kit", json={"began_from": kit["number"], "kit": kit["kit"] | {"pin_mm": 400}})
    found = week(client)
    assert [one["title"] for one in found["orders"]] == ["Skep"]
    assert found["left_out"] == ["“Stone” is left out. It cannot be made like this: design: is hollow."]


@pytest.mark.parametrize(
    "asked", [{}, {"first": "soon"}, {"first": "2031-05-05", "days": 0}, {"first": "2031-05-05", "days": 32},
              {"first": "1800-01-01"}, {"first": "2031-05-05", "now": "2031-05-05T09:00:00+01:00"}]
)  # fmt: skip
def test_a_week_that_cannot_be_is_refused(client, asked):
    answer = client.get("/api/week", params=asked)
    assert answer.status_code == 422 and answer.json()["errors"]


def test_another_kit_or_recipe_makes_the_work_again_and_other_hands_do_not(client, monkeypatch):
    put(client, "Skep")
    week(client)
    planned = []
    real = works.work_of
    monkeypatch.setattr(works, "work_of", lambda *given: planned.append(given) or real(*given))
    week(client)
    places = client.get("/api/places").json()
    client.put("/api/places", json={"began_from": places["number"], "places": places["places"] | {"ovens": 2}})
    week(client)
    assert not planned
    kit = client.get("/api/kit").json()
    client.put("/api/kit", json={"began_from": kit["number"], "kit": kit["kit"] | {"pin_mm": 400}})
    week(client)
    assert len(planned) == 1


def better(client, **more):
    sent = {"first": "2031-05-05", "now": "2031-05-05T08:00:00"} | more
    answer = client.post("/api/week/better", json=sent)
    assert answer.status_code == 200, answer.text
    return [json.loads(line) for line in answer.text.splitlines()]


def test_better_hours_are_looked_for_kept_and_given_up(client, monkeypatch):
    monkeypatch.setattr(room, "EFFORT", 1.0)
    made = dict(put(client, f"Skep {number}", DUE + timedelta(hours=number), (254, 178)) for number in range(3))
    put(client, "Next week", DUE + timedelta(days=4), (254, 203))
    before, later = week(client), week(client, first="2031-05-12")
    late = before["orders"][0]["begins"]
    now = (datetime.fromisoformat(late) + timedelta(minutes=10)).isoformat()
    *parts, last = better(client, now=now)
    assert all(part.keys() == {"found"} for part in parts) and "problem" not in last
    found = last["better"]
    assert found is not None and found["moved"] and {one["id"] for one in found["moved"]} <= made.keys()
    assert client.put("/api/week/hours", json={"hours": found["hours"]}).status_code == 204
    after = week(client)
    assert {one["id"] for one in after["orders"] if one["pinned"]} == made.keys()
    kept_later = week(client, first="2031-05-12")["orders"][0]
    assert kept_later == later["orders"][0] | {"pinned": True}
    for one in after["orders"]:
        clock = client.post("/api/clock", json={"document": made[one["id"]], "order": one["id"]}).json()
        assert {id: step["spans"] for id, step in clock["steps"].items()} == {
            id: step["spans"] for id, step in one["steps"].items()
        }
    assert client.put("/api/week/hours", json={"hours": dict.fromkeys(found["hours"])}).status_code == 204
    assert week(client) == before


def test_orders_that_have_begun_keep_their_hours(client, monkeypatch):
    monkeypatch.setattr(room, "EFFORT", 0.1)
    id, _ = put(client, "Begun")
    assert better(client, begun=[id]) == [{"better": None}]


@pytest.mark.parametrize(
    "hours",
    [
        {"not an id": None},
        {"00000000-0000-0000-0000-000000000000": {"a": [12, [[0, 1]]]}},
        {"00000000-0000-0000-0000-000000000000": {"a": [0, []]}},
        {"00000000-0000-0000-0000-000000000000": {"a": [0, [["now", 3]]]}},
    ],
)
def test_hours_that_cannot_be_are_refused_and_those_of_an_order_that_is_gone_are_passed_over(client, hours):
    assert client.put("/api/week/hours", json={"hours": hours}).status_code == 422
    gone = {"00000000-0000-0000-0000-000000000000": {"a": [0, [[0, 1]]]}}
    assert client.put("/api/week/hours", json={"hours": gone}).status_code == 204


def test_hours_that_were_kept_and_no_longer_fit_are_no_fault_of_anybodys(client):
    id, made = put(client, "Skep")
    before = week(client)["orders"][0]
    for blocks in ({}, {"tier_1_mix_batter": [7, [[5, 1]]]}, {"x": [0, [[0, 0]]]}):
        assert client.put("/api/week/hours", json={"hours": {id: blocks}}).status_code == 204
        (now,) = week(client)["orders"]
        assert now == before and not now["pinned"]
        clock = client.post("/api/clock", json={"document": made, "order": id})
        assert clock.status_code == 200 and clock.json()["begins"] == before["begins"]


def test_nobody_waits_for_an_order_that_is_being_worked_out(client, monkeypatch):
    stone, made = put(client, "Stone")
    skep, own = put(client, "Skep", DUE - timedelta(hours=1))
    before = {one["id"]: one for one in week(client)["orders"]}
    gate, quick = threading.Event(), Planner.quick_plan
    monkeypatch.setattr(
        Planner, "quick_plan", lambda self, found, *more: None if found.title == "Stone" else quick(self, found, *more)
    )
    monkeypatch.setattr(Planner, "plan", lambda self, found, *more: gate.wait(60) and plan_document(found))
    tall = made | {"design": document(tier(254), tier(203)).design.model_dump(mode="json")}
    assert client.put(f"/api/orders/{stone}", json={"began_from": 1, "document": tall}).status_code == 200
    now = client.get("/api/week", params={"first": "2031-05-05"}).json()
    assert now["pending"] == ["Stone"]
    assert {one["id"]: one["steps"] for one in now["orders"]} == {id: one["steps"] for id, one in before.items()}
    clock = client.post("/api/clock", json={"document": own, "order": skep}).json()
    (said,) = [one["text"] for one in clock["checks"] if one["code"] == "clock.pending"]
    assert said == "“Stone” is still being worked out: these hours may move."
    answer = client.post("/api/week/better", json={"first": "2031-05-05", "now": "2031-05-05T08:00:00"})
    assert answer.status_code == 503 and "Stone" in answer.json()["detail"]
    put(client, "New")
    gate.set()
    after = {one["id"]: one for one in week(client)["orders"]}
    assert len(after[stone]["steps"]) > len(before[stone]["steps"]) and len(after) == 3
    clock = client.post("/api/clock", json={"document": own, "order": skep}).json()
    assert not [one for one in clock["checks"] if one["code"] == "clock.pending"]


def test_the_shelf_is_told_what_to_do_next_on_each_order(client):
    id, _ = put(client, "Skep")
    put(client, "Much later", DUE + timedelta(days=40))
    (one,) = week(client)["orders"]
    work = sorted((step for step in one["steps"].values() if step["minutes"]), key=lambda step: step["start"])
    for now, then in (("2031-05-06T08:00:00", work[0]), (work[1]["start"], work[1]), (work[0]["end"], work[1])):
        mine = {"name": then["name"], "start": then["start"], "whose": ""}
        found = client.get("/api/week/next", params={"now": now}).json()
        assert found == {"steps": {id: mine}, "pending": False}
    for now in (DUE.isoformat(), "0001-01-01T00:00:00"):
        assert client.get("/api/week/next", params={"now": now}).json() == {"steps": {}, "pending": False}
    assert client.get("/api/week/next").status_code == 422


def test_the_week_is_printed_and_goes_into_a_calendar_for_a_pair_of_hands_or_all(client):
    put(client, "Skep", tiers=(254, 178))
    steps = [one for one in week(client)["orders"][0]["steps"].values() if one["minutes"]]
    asked = {"first": "2031-05-05", "now": "2031-05-05T08:00"}
    for hand in (1, None):
        by = asked | ({} if hand is None else {"hand": hand})
        pdf = client.get("/api/week/days.pdf", params=by | {"paper": "letter"})
        assert pdf.status_code == 200 and pdf.content.startswith(b"%PDF"), pdf.text
        ics = client.get("/api/week/days.ics", params=by)
        assert ics.status_code == 200 and ics.headers["content-type"].startswith("text/calendar")
        assert ics.text.count("BEGIN:VEVENT") == sum(len(one["spans"]) for one in steps) + 1
        name = "The%20week" if hand is None else "Hands%201"
        assert f"{name}%20from%202031-05-05" in pdf.headers["content-disposition"]
    for file in ("days.pdf", "days.ics"):
        answer = client.get(f"/api/week/{file}", params=asked | {"hand": 5})
        assert answer.status_code == 422 and "from 1 to 1" in answer.json()["detail"]
        assert client.get(f"/api/week/{file}", params={"first": "soon"}).status_code == 422
