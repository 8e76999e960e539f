"""No order, drawing, page or neighbour keeps others out: one order at fault, what cannot be read, what takes long."""

import asyncio
import json
import math
import threading
import time
from concurrent.futures import CancelledError
from datetime import date, datetime, timedelta
from types import SimpleNamespace

import pytest
from sqlalchemy import text

from amber_spread.core.design.effort import effort_ms
from amber_spread.core.document.document import FORMAT, Document
from amber_spread.jobs.not_ready import OutOfBudget
from amber_spread.store.orders import MOST_AT_ONCE
from amber_spread.web import bounds
from amber_spread.web.app import make_app
from amber_spread.web.bounds import LARGE_AT_ONCE, BoundedBody
from amber_spread.web.later import Later
from amber_spread.web.planner import SOON_MS
from amber_spread.web.soon import MAKES_S
from tests.clients import OURS, client_of, in_a_loop, shelf
from tests.designs import document, tier

NECK = [[0, 0], [200, 0], [200, 99], [206, 99], [206, 40], [226, 40], [226, 160], [206, 160], [206, 102], [200, 102],
        [200, 200], [0, 200]]  # fmt: skip
"""A square with a lobe on a neck 3 mm wide."""


@pytest.fixture
def app(book):
    return make_app(book)


@pytest.fixture
def client(app):
    with client_of(app) as client:
        yield client


def body(title="A cake", due=None, **tiers):
    return document(tier(**tiers), title=title, due=due).model_dump(mode="json")


def drawn(points, tin=226, **more):
    """An order whose one tier has an outline of its own."""
    made = body("Drawn")
    made["design"]["tiers"][0] |= {"tin_diameter_mm": tin, "shape": {"kind": "free", "points_mm": points}, **more}
    return made


def teeth(count=400, out=150.0, into=135.0):
    """A ring of teeth: a small file that takes long to grow and shrink."""
    turns = [2 * math.pi * index / count for index in range(count)]
    return [
        [(into if index % 2 else out) * math.cos(turn), (into if index % 2 else out) * math.sin(turn)]
        for index, turn in enumerate(turns)
    ]


def create(client, sent):
    answer = client.post("/api/orders", json=sent)
    assert answer.status_code == 201, answer.text
    return answer.json()["id"]


def rewrite(book, id, changed):
    """Write over what an order says, as another version of the program, or a fault, would have."""
    with book.engine.begin() as connection:
        connection.execute(
            text(
                "update revisions set document = cast(:document as json) where order_id = :id and number = "
                "(select revision from orders where orders.id = :id)"
            ),
            {"document": json.dumps(changed), "id": id},
        )
        connection.execute(text("update orders set card_made_by = null where id = :id"), {"id": id})


def test_a_thin_neck_is_saved_and_said_at_its_shape_by_the_plan_and_on_the_shelf(client):
    """What only planning finds never keeps what was drawn from being saved."""
    id = create(client, drawn(NECK))
    kept = client.get(f"/api/orders/{id}").json()["document"]["design"]["tiers"][0]["shape"]["points_mm"]
    assert kept == NECK
    planned = client.post("/api/plan", json={"document": drawn(NECK)})
    assert planned.status_code == 422
    (complaint,) = planned.json()["errors"]
    assert complaint["pointer"] == "#/document/design/tiers/0/shape"
    assert "too narrow" in complaint["message"]
    (card,) = shelf(client)
    assert card["outside"] is None and "too narrow" in card["unseen"]
    again = client.put(f"/api/orders/{id}", json={"began_from": 1, "document": drawn(teeth(24))})
    assert again.status_code == 200
    (card,) = shelf(client)
    assert card["outside"] and not card["unseen"]


@pytest.mark.parametrize("trim", [0, 1, 2, 4, 8, 15])
def test_what_is_taken_can_be_planned_at_its_own_trim(client, trim):
    sent = drawn(NECK)
    sent["practice"] = {"trimmed_skin_mm": trim}
    create(client, sent)
    planned = client.post("/api/plan", json={"document": sent})
    # Cut through at its neck it is two cakes; trimmed further, next to nothing is left of the lobe.
    assert planned.status_code == (422 if trim in (2, 4) else 200)
    (card,) = shelf(client)
    assert (card["outside"] is None) == (planned.status_code == 422)


def unknown_field(made):
    made["design"]["tiers"][0]["hat"] = 1


def later_format(made):
    made["format"] = "amber-spread/99"


def tightened(made):
    made["design"]["tiers"][0]["tin_diameter_mm"] = 5000


def thin_neck(made):
    made["design"] = drawn(NECK)["design"]


SPOILT = [unknown_field, later_format, tightened, thin_neck]
UNREAD = SPOILT[:3]


@pytest.mark.parametrize("spoil", SPOILT)
def test_one_order_at_fault_leaves_the_shelf_and_the_weeks_list_to_the_others(client, book, spoil):
    day = datetime(2026, 12, 5, 11)
    good, bad = create(client, body("Good", day)), create(client, body("Bad", day + timedelta(hours=1)))
    made = body("Bad", day + timedelta(hours=1))
    spoil(made)
    rewrite(book, bad, made)
    cards = {card["id"]: card for card in shelf(client)}
    assert cards[good]["outside"]
    assert not cards[good]["unseen"]
    assert cards[bad]["outside"] is None
    assert cards[bad]["unseen"].endswith(".")
    assert cards[bad]["title"] == "Bad"
    week = client.get("/api/shop/week", params={"first": "2026-12-05", "days": 1})
    assert week.status_code == 200
    assert list(week.json()["orders"]) == [good]
    assert any("“Bad” is not in this list" in gap for gap in week.json()["gaps"])
    assert "Bad" in client.get("/api/shop/week.csv", params={"first": "2026-12-05", "days": 1}).text


@pytest.mark.parametrize("spoil", UNREAD)
def test_an_order_this_version_cannot_read_is_told_taken_away_archived_and_brought_back(client, book, spoil):
    id = create(client, body("First"))
    client.put(f"/api/orders/{id}", json={"began_from": 1, "document": body("Second")})
    made = body("Second")
    spoil(made)
    rewrite(book, id, made)
    opened = client.get(f"/api/orders/{id}")
    assert opened.status_code == 422
    assert opened.json()["type"] == "/problems/unread"
    assert "Second" in opened.json()["detail"]
    assert json.loads(client.get(f"/api/orders/{id}/file").content) == made
    assert [one["number"] for one in client.get(f"/api/orders/{id}/revisions").json()] == [2, 1]
    assert client.post(f"/api/orders/{id}/archive").json()["archived"]
    assert not client.post(f"/api/orders/{id}/restore").json()["archived"]
    for address in ("templates.pdf", "amounts.csv", "shopping.csv"):
        assert client.get(f"/api/orders/{id}/{address}").status_code == 422
    assert client.post(f"/api/orders/{id}/duplicate").status_code == 422
    assert client.post(f"/api/orders/{id}/revisions/2/again").status_code == 422
    back = client.post(f"/api/orders/{id}/revisions/1/again").json()
    assert (back["revision"], back["document"]["title"]) == (3, "First")
    assert client.get(f"/api/orders/{id}").json() == back


@pytest.mark.parametrize(
    ("table", "address", "field"),
    [("kits", "kit", "kit"), ("pantries", "pantry", "pantry"), ("practices", "practice", "practice")],
)
def test_a_kit_or_pantry_this_version_cannot_read_is_said_and_the_newest_it_can_is_taken(
    client, book, table, address, field
):
    first = client.get(f"/api/{address}").json()
    changed = dict(first[field])
    if field == "kit":
        changed["pin_mm"] = 420
    elif field == "practice":
        changed["filling_mm"] = 7
    else:
        changed["packs"] = [{"item": "butter", "size": 250, "price": 2.5}]
    kept = client.put(f"/api/{address}", json={"began_from": first["number"], field: changed}).json()
    assert kept["unread"] == ""
    with book.engine.begin() as connection:
        connection.execute(
            text(f"insert into {table} (began_from, aside, format, content) values (:number, false, 99, '{{}}')"),
            {"number": kept["number"]},
        )
    found = client.get(f"/api/{address}").json()
    assert found[field] == kept[field]
    assert "number 99" in found["unread"]
    assert found["number"] > kept["number"]
    again = client.put(f"/api/{address}", json={"began_from": found["number"], field: kept[field]}).json()
    assert again["unread"] == ""
    assert client.get(f"/api/{address}").json()[field] == kept[field]


def test_a_file_of_the_format_before_is_read_and_saved_in_todays(client):
    old = body("Old") | {"format": "amber-spread/1"}
    old["design"]["tiers"][0]["on_top"] = {"shape": {"kind": "round"}, "across_mm": 60}
    read = client.post("/api/read", json=old).json()
    assert read["format"] == FORMAT
    assert [piece["across_mm"] for piece in read["design"]["tiers"][0]["on_top"]] == [60]
    id = create(client, old)
    assert client.get(f"/api/orders/{id}").json()["document"] == read


def test_a_design_of_a_long_while_holds_up_nobody(client):
    """What takes seconds is worked elsewhere: others are answered meanwhile, and it is told when it is given up."""
    sent = drawn(teeth(240), 600, build={"kind": "tapered", "narrow_mm": 560})
    sent["design"]["tiers"][0]["crumb"] = {"thickness_mm": 40}
    sent["design"]["tiers"][0]["final"] = {"kind": "freehand", "side_mm": 40, "top_mm": 40}
    assert effort_ms(Document.model_validate(sent).design) > 10 * SOON_MS
    client.post("/api/plan", json={"document": drawn(teeth(90), 300)})
    answers = []
    heavy = threading.Thread(target=lambda: answers.append(client.post("/api/plan", json={"document": sent})))
    heavy.start()
    waits = []
    while heavy.is_alive():
        began = time.perf_counter()
        assert client.post("/api/plan", json={"document": body()}).status_code == 200
        waits.append(time.perf_counter() - began)
    assert answers[0].status_code in (200, 422)
    assert len(waits) > 5
    assert sorted(waits)[len(waits) // 2] < 0.2


def test_whoever_waits_on_purpose_is_not_cut_off_and_is_told_the_truth_at_last(client, monkeypatch):
    planner, sent = client.app.state.planner, {"document": body()}
    plan = planner.run

    async def slow(*asked):
        await asyncio.sleep(2.0)
        return await plan(*asked)

    monkeypatch.setattr(planner, "run", slow)
    # Much longer than a request takes to reach the planner, even on a busy machine.
    monkeypatch.setattr(bounds, "ANSWER_S", 1.0)
    assert client.post("/api/plan", json=sent).status_code == 200
    monkeypatch.setattr(bounds, "WAITS_S", 1.1)
    late = client.post("/api/plan", json=sent)
    assert late.status_code == 503
    assert late.json()["type"] == "/problems/busy" and "order book" not in late.text


def test_an_everyday_cake_is_planned_where_it_is_asked_for():
    assert effort_ms(document(tier(254), tier(203.2), tier(152.4)).design) <= SOON_MS


def test_a_drawing_that_would_hang_is_given_up_and_the_server_stays_quick(client):
    arcs = "M0 0 " + "a1 1 0 0 1 1 1 " * 4900 + "z"
    drawing = f'<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="90mm"><path d="{arcs}"/></svg>'
    send = {"content": drawing, "headers": {"content-type": "image/svg+xml"}}
    client.post("/api/outline", **send | {"content": "<svg/>"})
    began = time.perf_counter()
    answer = client.post("/api/outline", **send)
    assert time.perf_counter() - began < 30
    assert answer.status_code == 422
    assert "too intricate" in answer.json()["detail"]
    assert client.get("/api/handbook").status_code == 200


def test_the_shelf_goes_by_pages_and_is_searched_by_title_and_day(client, book):
    sent = Document.model_validate(body())
    for number in range(1, 96):
        due = datetime(2026, 1, 1, 9) + timedelta(days=number)
        title = f"Cake {number} of {'Honey' if number % 2 else '100% oats'}"
        book.create(sent.model_copy(update={"title": title, "due": due}))
    pages = [client.get("/api/orders", params={"page": page}).json() for page in (1, 2, 3, 4)]
    assert [(len(page["orders"]), page["count"], page["pages"]) for page in pages] == [
        (40, 95, 3),
        (40, 95, 3),
        (15, 95, 3),
        (0, 95, 3),
    ]
    titles = [card["title"] for page in pages for card in page["orders"]]
    assert titles[0].startswith("Cake 1 ")
    assert titles[-1].startswith("Cake 95 ")
    assert len(set(titles)) == 95
    assert [card["title"] for card in shelf(client, words="honey cake 7")][:1] == ["Cake 7 of Honey"]
    assert client.get("/api/orders", params={"words": "0% O"}).json()["count"] == 47
    between = client.get("/api/orders", params={"first": "2026-01-05", "last": "2026-01-07"}).json()
    assert [card["title"].split()[1] for card in between["orders"]] == ["4", "5", "6"]
    assert client.get("/api/orders", params={"words": "nothing like it"}).json() == {
        "orders": [],
        "count": 0,
        "page": 1,
        "pages": 1,
    }
    assert client.get("/api/orders", params={"first": "1492-01-01"}).status_code == 422


def test_a_card_is_made_at_save_and_again_when_the_kit_is_another(client, book):
    create(client, body("Kept", final={"kind": "disc", "disc_diameter_mm": 215}))
    with book.engine.connect() as connection:
        made, by = connection.execute(text("select card, card_made_by from orders")).one()
    assert made["outside"]["tiers"]
    kit = client.get("/api/kit").json()
    client.put("/api/kit", json={"began_from": kit["number"], "kit": kit["kit"] | {"pin_mm": 123}})
    (card,) = shelf(client)
    with book.engine.connect() as connection:
        again, by_now = connection.execute(text("select card, card_made_by from orders")).one()
    assert by_now != by
    assert again["outside"]["height"] == card["outside"]["height"] == made["outside"]["height"]


def forgotten(book, id):
    """As after a change of the program: nothing that was made of it before counts."""
    with book.engine.begin() as connection:
        connection.execute(text("update orders set card_made_by = null where id = :id"), {"id": id})


def test_a_card_that_takes_long_is_drawn_while_the_shelf_waits_for_none(client, app, book, monkeypatch):
    """However many look along it: it is begun once, said to be on its way, and there a little later."""
    plain, slow = create(client, body("Plain")), create(client, drawn(teeth()))
    assert all(card["outside"] for card in shelf(client))
    forgotten(book, plain)
    forgotten(book, slow)
    begun, go, plan = [], threading.Event(), app.state.planner.plan

    def waits(document, *more):
        if effort_ms(document.design) > SOON_MS:
            begun.append(document)
            assert go.wait(30)
        return plan(document, *more)

    monkeypatch.setattr(app.state.planner, "plan", waits)
    for _ in range(3):
        cards = {card["id"]: card for card in client.get("/api/orders").json()["orders"]}
        assert cards[plain]["outside"] and not cards[plain]["pending"]
        assert cards[slow]["pending"] and cards[slow]["outside"] is None and cards[slow]["unseen"].endswith(".")
    assert len(begun) == 1
    go.set()
    cards = {card["id"]: card for card in shelf(client)}
    assert cards[slow]["outside"] and not cards[slow]["unseen"]
    assert len(begun) == 1


def test_however_slow_the_computer_one_request_makes_cards_for_a_while_and_the_rest_follow(
    client, app, book, monkeypatch
):
    """On a slow computer a list made of every card at once was given up by whoever waited, and begun again."""
    for one in (orders := [create(client, body(f"Cake {number}")) for number in range(5)]):
        forgotten(book, one)
    now, quick = [0.0], app.state.planner.quick_plan

    def takes_a_while(*given):
        if threading.current_thread().name.startswith("later"):
            return quick(*given)
        now[0] += 0.6 * MAKES_S
        return quick(*given)

    monkeypatch.setattr("amber_spread.web.soon.time", SimpleNamespace(monotonic=lambda: now[0]))
    monkeypatch.setattr(app.state.planner, "quick_plan", takes_a_while)
    cards = client.get("/api/orders").json()["orders"]
    assert [card["pending"] for card in cards] == [False, False, True, True, True]
    assert all(bool(card["outside"]) != card["pending"] for card in cards)
    monkeypatch.undo()
    assert len(shelf(client)) == len(orders) and all(card["outside"] for card in shelf(client))


def test_a_card_that_a_busy_computer_gave_up_is_tried_again_and_nothing_is_said_of_the_drawing(
    client, app, book, monkeypatch
):
    slow, tried, plan = create(client, drawn(teeth())), [], app.state.planner.plan
    assert all(card["outside"] for card in shelf(client))
    forgotten(book, slow)

    def busy(*given):
        tried.append(given)
        if len(tried) < 3:
            raise OutOfBudget
        return plan(*given)

    monkeypatch.setattr(app.state.planner, "plan", busy)
    (card,) = client.get("/api/orders").json()["orders"]
    assert card["pending"] and "being drawn" in card["unseen"]
    (card,) = shelf(client)
    assert card["outside"] and not card["unseen"] and len(tried) >= 3


def test_a_card_that_fails_is_said_to_and_not_drawn_over_and_over(client, app, book, monkeypatch):
    slow = create(client, drawn(teeth()))
    assert all(card["outside"] for card in shelf(client))
    forgotten(book, slow)
    tried = []

    def fails(document, *_):
        tried.append(document)
        raise RuntimeError("out of memory")

    monkeypatch.setattr(app.state.planner, "plan", fails)
    for _ in range(3):
        (card,) = shelf(client)
        assert card["outside"] is None and "log" in card["unseen"] and not card["pending"]
    assert len(tried) == 1


@pytest.mark.parametrize("spoilt", [None, '{"tiers": 3}', '{"left": "by another version"}'])
def test_a_bill_is_made_at_save_and_again_where_it_cannot_be_read(client, book, spoilt):
    create(client, body("Kept", datetime(2026, 12, 5, 11)))
    week = {"first": "2026-12-05", "days": 1}
    listed = client.get("/api/shop/week", params=week).json()
    with book.engine.begin() as connection:
        made = connection.execute(text("select bill from orders")).scalar_one()
        connection.execute(text("update orders set bill = :bill"), {"bill": spoilt})
    assert made["bowls"]
    assert client.get("/api/shop/week", params=week).json() == listed
    with book.engine.connect() as connection:
        assert connection.execute(text("select bill from orders")).scalar_one() == made


def test_a_list_is_by_the_kit_that_is_owned_now(client):
    create(client, body("Disc", datetime(2026, 12, 5, 11), final={"kind": "disc", "disc_diameter_mm": 215}))
    week = {"first": "2026-12-05", "days": 1}
    before = client.get("/api/shop/week", params=week).json()["wants"]
    kit = client.get("/api/kit").json()
    owned = kit["kit"] | {"tins": [], "boards_mm": []}
    assert client.put("/api/kit", json={"began_from": kit["number"], "kit": owned}).status_code == 200
    after = client.get("/api/shop/week", params=week).json()["wants"]
    assert {one["group"] for one in after.values()} >= {"tools"}
    assert set(after) != set(before)


def test_more_orders_than_one_list_takes_are_said_to_be_left_out(client, book):
    sent = Document.model_validate(body(due="2026-12-05T11:00:00"))
    for _ in range(MOST_AT_ONCE + 3):
        book.create(sent)
    asked, until = {"first": "2026-12-05", "days": 1}, time.monotonic() + 60
    while (answer := client.get("/api/shop/week", params=asked)).status_code == 503 and time.monotonic() < until:
        assert answer.json()["type"] == "/problems/busy", "its bills are still being made"
        time.sleep(0.05)
    gaps = answer.json()["gaps"]
    assert f"3 of the {MOST_AT_ONCE + 3} orders" in gaps[0]
    assert "fewer days" in gaps[0]


SENT = {"began_from": 0, "kit": {}}


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"host": "evil.example"}, 421),
        ({"host": "127.0.0.1.evil.example:8765"}, 421),
        ({"origin": "http://evil.example"}, 403),
        ({"origin": "null"}, 403),
        ({"origin": "http://127.0.0.1:9999"}, 403),
        ({"x-amber-spread": None}, 403),
        ({"content-type": "text/plain"}, 415),
        ({"content-type": "application/x-www-form-urlencoded"}, 415),
        ({"origin": "http://127.0.0.1:8765"}, 200),
        ({"host": "localhost:8765", "origin": "http://localhost:8765"}, 200),
        ({"host": "[::1]:8765"}, 200),
    ],
)
def test_only_pages_of_ours_change_anything(app, headers, status):
    client = client_of(app)
    content = json.dumps({"began_from": 0, "kit": client.get("/api/kit").json()["kit"] | {"pin_mm": 333}})
    sent = {"content-type": "application/json", **OURS, **{name.lower(): value for name, value in headers.items()}}
    client.headers = {}
    sent = {name.lower(): value for name, value in sent.items()}
    answer = client.put("/api/kit", content=content, headers={k: v for k, v in sent.items() if v is not None})
    assert answer.status_code == status
    pin = client.get("/api/kit", headers=dict(OURS)).json()["kit"]["pin_mm"]
    assert (pin == 333) == (status == 200)


def test_reading_is_refused_under_a_name_that_is_not_the_servers(client):
    for address in ("/api/orders", "/", "/api/handbook"):
        assert client.get(address, headers={"host": "rebound.example"}).status_code == 421


def test_every_answer_says_what_a_browser_may_do_with_it(client):
    for address in ("/api/handbook", "/api/orders", "/api/nothing"):
        headers = client.get(address).headers
        assert "frame-ancestors 'none'" in headers["content-security-policy"]
        assert headers["x-content-type-options"] == "nosniff"
        assert headers["referrer-policy"] == "no-referrer"
        assert headers["cache-control"] == "no-store"


def test_an_answer_is_made_smaller_where_it_leaves_the_machine(client):
    asked = {"document": body()}
    here = client.post("/api/plan", json=asked)
    assert "content-encoding" not in here.headers
    through = client.post("/api/plan", json=asked, headers={"X-Forwarded-For": "192.0.2.7"})
    assert through.headers["content-encoding"] == "gzip"
    assert through.json() == here.json()


def test_the_page_and_its_parts_are_kept_as_long_as_they_are_true(book, tmp_path):
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<!doctype html>page")
    (tmp_path / "api-docs.html").write_text("<!doctype html>docs")
    (tmp_path / "assets" / "main-1a2b.js").write_text("1")
    client = client_of(make_app(book, built=tmp_path))
    assert client.get("/orders/1/brief").headers["cache-control"] == "no-cache"
    assert "immutable" in client.get("/assets/main-1a2b.js").headers["cache-control"]
    assert client.get("/assets/gone.js").status_code == 404
    assert "immutable" not in client.get("/assets/gone.js").headers.get("cache-control", "")
    assert "docs" in client.get("/api/docs").text
    head = client.head("/orders/1/brief")
    assert (head.status_code, head.content) == (200, b"")
    assert client.head("/api/handbook").status_code == 200


def test_a_week_with_no_order_is_an_empty_list(client):
    assert client.get("/api/shop/week", params={"first": str(date(2026, 12, 5))}).json()["orders"] == {}


def test_a_new_order_takes_a_copy_of_the_kitchens_usual_and_keeps_it(client):
    kept = client.get("/api/practice").json()
    usual = kept["practice"] | {"filling_mm": 7.5}
    first = client.put("/api/practice", json={"began_from": kept["number"], "practice": usual}).json()
    bare = {name: value for name, value in body().items() if name != "practice"}
    own = create(client, bare)
    assert client.get(f"/api/orders/{own}").json()["document"]["practice"] == usual
    told = create(client, body())
    assert client.get(f"/api/orders/{told}").json()["document"]["practice"]["filling_mm"] == 6
    client.put("/api/practice", json={"began_from": first["number"], "practice": usual | {"filling_mm": 5}})
    assert client.get(f"/api/orders/{own}").json()["document"]["practice"] == usual


def test_what_was_usual_before_can_be_looked_at_and_a_stale_save_is_kept_aside(client):
    kept = client.get("/api/practice").json()
    first = client.put(
        "/api/practice", json={"began_from": kept["number"], "practice": kept["practice"] | {"fondant_mm": 4}}
    ).json()
    stale = client.put(
        "/api/practice", json={"began_from": kept["number"], "practice": kept["practice"] | {"fondant_mm": 5}}
    )
    assert stale.status_code == 409
    assert "kitchen’s usual was saved elsewhere" in stale.json()["detail"]
    history = client.get("/api/practice/history").json()
    assert [(one["number"], one["aside"]) for one in history] == [
        (stale.json()["aside"], True),
        (first["number"], False),
    ]
    assert client.get(f"/api/practice/history/{stale.json()['aside']}").json()["fondant_mm"] == 5
    assert client.get("/api/practice").json() == first
    assert client.get("/api/practice/history/99999").status_code == 404
    wrong = client.put("/api/practice", json={"began_from": first["number"], "practice": {"fondant_mm": 99}})
    assert wrong.json()["errors"][0]["pointer"] == "#/practice/fondant_mm"


def test_one_clients_large_bodies_come_in_one_after_another():
    """Twenty of 24 MB at once took 1.3 GB, before."""
    at_once, most = 0, 0

    async def reads(scope, receive, send):
        nonlocal at_once, most
        at_once += 1
        most = max(most, at_once)
        await asyncio.sleep(0.01)
        at_once -= 1

    async def body():
        return {"type": "http.request", "body": b"solid", "more_body": False}

    async def all_of(clients):
        bounded = BoundedBody(reads)
        scopes = [
            {"type": "http", "path": "/api/model", "method": "POST", "headers": [], "client": (client, 1)}
            for client in clients
        ]
        await asyncio.gather(*(bounded(scope, body, None) for scope in scopes))

    in_a_loop(all_of(["one"] * 20))
    assert most == 1
    most = 0
    in_a_loop(all_of([str(number) for number in range(20)]))
    assert most == LARGE_AT_ONCE


def test_background_work_that_ends_with_the_server_is_no_failure(caplog):
    later, tried = Later(), []

    def stopped():
        tried.append(True)
        raise CancelledError

    for times in (1, 2):
        while len(tried) < times:
            assert later.begin("card", stopped)
            time.sleep(0.01)
    later.stop()
    assert caplog.records == []
