"""Marks over HTTP: what a step that was done, begun or moved moves and breaks, here and in other orders."""

from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta

import pytest
from icalendar import Calendar

from amber_spread.web.app import make_app
from tests.clients import client_of
from tests.web.test_week_api import DUE, put, week


@pytest.fixture
def client(book):
    with client_of(make_app(book)) as client:
        yield client


def steps_of(client, id, now):
    (order,) = [one for one in week(client, now=now)["orders"] if one["id"] == id]
    return order, sorted((one["start"], name) for name, one in order["steps"].items() if one["minutes"])


def post(client, id, now, **body):
    answer = client.post(f"/api/orders/{id}/marks", json={"now": now, **body})
    assert answer.status_code == 200, answer.text
    return answer.json()


@pytest.fixture
def made(client):
    id, _ = put(client, "Skep", tiers=(254, 178))
    _, steps = steps_of(client, id, "2031-05-06T08:00")
    return id, steps


def test_what_is_only_tried_changes_nothing_and_what_is_kept_shows_everywhere(client, made):
    id, steps = made
    start, first = steps[0]
    now = (datetime.fromisoformat(start) + timedelta(hours=5)).isoformat()
    tried = post(client, id, now, step=first, mark={"start": now})
    assert first in {name for _, name in steps} and tried["moved"]
    assert steps_of(client, id, now)[1] == steps
    kept = post(client, id, now, step=first, mark={"start": now}, keep=True)
    assert kept == tried
    order, after = steps_of(client, id, now)
    assert after != steps and order["steps"][first]["start"] == now
    assert order["steps"][first]["noted"] == {
        "begun": None,
        "done": None,
        "start": now,
        "hand": None,
    }
    document = client.get(f"/api/orders/{id}").json()["document"]
    clock = client.post("/api/clock", json={"document": document, "order": id, "now": now}).json()
    assert {name: one["spans"] for name, one in clock["steps"].items()} == {
        name: one["spans"] for name, one in order["steps"].items()
    }
    moved = {one["name"]: one["would_start"] for one in kept["moved"]}
    assert moved[order["steps"][first]["name"]] == now
    post(client, id, now, step=first, mark=None, seen={"start": now}, keep=True)
    assert steps_of(client, id, now)[1] == steps


def test_done_by_the_plan_moves_nothing_and_the_next_work_is_what_follows(client, made):
    id, steps = made
    order, _ = steps_of(client, id, "2031-05-06T08:00")
    first = order["steps"][steps[0][1]]
    now = first["end"]
    found = post(client, id, now, step=steps[0][1], mark={"done": now, "hand": 1}, keep=True)
    assert found == {"moved": [], "broken": []}
    assert steps_of(client, id, now)[0]["steps"][steps[0][1]]["state"] == "done"
    upcoming = client.get("/api/week/next", params={"now": now}).json()["steps"][id]
    assert upcoming["name"] == order["steps"][steps[1][1]]["name"]


def test_an_order_of_which_nothing_has_begun_is_planned_from_now_and_back(client, made):
    id, steps = made
    now = (datetime.fromisoformat(steps[0][0]) + timedelta(hours=2)).isoformat()
    late, _ = steps_of(client, id, now)
    assert [one["code"] for one in late["checks"]] == ["clock.late"]
    answer = client.post(f"/api/orders/{id}/from-now", json={"now": now, "keep": True})
    assert answer.status_code == 200 and answer.json()["moved"]
    order, after = steps_of(client, id, now)
    assert min(after)[0] >= now and "clock.late" not in {one["code"] for one in order["checks"]}
    client.post(f"/api/orders/{id}/from-now", json={"now": now, "on": False, "keep": True})
    assert steps_of(client, id, now)[1] == steps


def test_the_delay_of_one_order_is_seen_in_the_other(client):
    ids = [put(client, title, DUE + timedelta(hours=later), (254, 203))[0] for title, later in (("A", 0), ("B", 2))]
    _, steps = steps_of(client, ids[1], "2031-05-06T08:00")
    start, first = steps[0]
    now = (datetime.fromisoformat(start) - timedelta(minutes=30)).isoformat()
    wanted = (datetime.fromisoformat(start) + timedelta(hours=3)).isoformat()
    found = post(client, ids[1], now, step=first, mark={"start": wanted})
    assert {one["order"] for one in found["moved"]} <= set(ids) and ids[1] in {one["order"] for one in found["moved"]}
    assert all(one["start"] != one["would_start"] for one in found["moved"])
    assert found["moved"] == sorted(found["moved"], key=lambda one: (one["would_start"], one["title"], one["name"]))


@pytest.mark.parametrize(
    ("mark", "field"),
    [
        ({"done": "2031-05-09T13:00"}, "mark/done"),
        ({"begun": "2019-05-09T13:00"}, "mark/begun"),
        ({"start": "2031-05-01T13:00"}, "mark/start"),
        ({"begun": "2031-05-06T07:00", "done": "2031-05-06T06:00"}, "mark/done"),
    ],
)
def test_a_mark_that_cannot_be_is_refused_at_its_field_and_nothing_is_stored(client, made, mark, field):
    id, steps = made
    sent = {"now": "2031-05-06T08:00", "step": steps[0][1], "mark": mark, "keep": True}
    answer = client.post(f"/api/orders/{id}/marks", json=sent)
    assert answer.status_code == 422 and [one["pointer"] for one in answer.json()["errors"]] == [f"#/{field}"]
    assert steps_of(client, id, "2031-05-06T08:00")[1] == steps


@pytest.mark.parametrize("step", ["no_such_step", "", "x" * 300, "a\u0000b"])
def test_a_step_that_is_not_there_cannot_be_marked(client, made, step):
    answer = client.post(f"/api/orders/{made[0]}/marks", json={"now": "2031-05-06T08:00", "step": step})
    assert answer.status_code == 422 and answer.json()["errors"]


def test_an_order_that_is_gone_or_past_its_hour_cannot_be_marked(client, made):
    id, steps = made
    sent = {"now": "2031-05-09T15:00", "step": steps[0][1], "mark": {"done": "2031-05-09T14:30"}}
    assert client.post(f"/api/orders/{id}/marks", json=sent).status_code == 404
    client.post(f"/api/orders/{id}/archive")
    sent = {"now": "2031-05-06T08:00", "step": steps[0][1], "mark": None, "keep": True}
    assert client.post(f"/api/orders/{id}/marks", json=sent).status_code == 404


def test_two_people_who_mark_one_step_do_not_lose_each_others_mark(client, made):
    id, steps = made
    now = "2031-05-08T18:00"

    def mark(number):
        sent = {"now": now, "step": steps[0][1], "mark": {"done": f"2031-05-08T17:{number:02}"}, "keep": True}
        return client.post(f"/api/orders/{id}/marks", json=sent).status_code

    with ThreadPoolExecutor(4) as pool:
        answers = list(pool.map(mark, range(10, 14)))
    assert sorted(answers) == [200, 409, 409, 409]
    order, _ = steps_of(client, id, now)
    assert order["steps"][steps[0][1]]["noted"]["done"] == f"2031-05-08T17:{10 + answers.index(200)}:00"
    with ThreadPoolExecutor(4) as pool:
        others = list(
            pool.map(lambda one: post(client, id, now, step=one[1], mark={"done": now}, keep=True), steps[1:5])
        )
    assert len(others) == 4
    done = {name for name, one in steps_of(client, id, now)[0]["steps"].items() if one["noted"]}
    assert done == {name for _, name in steps[:5]}


def test_what_gives_is_tried_among_the_other_orders_and_stores_nothing(client, made):
    id, steps = made
    put(client, "Beside it", DUE + timedelta(hours=1), (254, 203))
    document = client.get(f"/api/orders/{id}").json()["document"]
    now = (DUE - timedelta(hours=12)).isoformat()
    sent = {"document": document, "order": id, "now": now}
    answer = client.post("/api/clock/gives", json=sent)
    assert answer.status_code == 200, answer.text
    found = answer.json()
    assert not found["enough"] and found["as_it_is"]["values"]["late"]["unit"] == "min"
    (later,) = [one for one in found["gives"] if one["what"] == "due"]
    (change,) = later["changes"]
    assert change["path"] == "/due" and change["value"] > document["due"] and later["enough"]
    then = {"document": document | {"due": change["value"]}, "order": id, "now": now}
    assert not client.post("/api/clock/gives", json=then).json()["as_it_is"]["values"].get("late")
    assert client.get(f"/api/orders/{id}").json()["document"] == document
    answer = client.post("/api/clock/gives", json={"document": document | {"due": None}, "now": now})
    assert answer.status_code == 422 and "due" in answer.json()["detail"]


def test_a_calendar_written_after_a_mark_replaces_the_one_before(client, made):
    id, steps = made
    start, first = steps[0]
    now = (datetime.now() + timedelta(minutes=1)).isoformat()
    wanted = (datetime.fromisoformat(start) - timedelta(hours=3)).isoformat()

    def events():
        found = Calendar.from_ical(client.get(f"/api/orders/{id}/days.ics").content).walk("VEVENT")
        return {str(one["uid"]): (one.decoded("dtstart"), one.decoded("dtstamp")) for one in found}

    before = events()
    post(client, id, now, step=first, mark={"start": wanted}, keep=True)
    after = events()
    assert after.keys() == before.keys()
    assert all(after[uid][1] >= stamp for uid, (_, stamp) in before.items())
    assert after[f"{id}-{first}"][0] == datetime.fromisoformat(wanted) != before[f"{id}-{first}"][0]
