"""The API: it plans, keeps orders, and answers everything it cannot do with a problem that says what would do."""

import json
import uuid

import pytest
from sqlalchemy.exc import OperationalError

from amber_spread.core.document.document import plan_document, read_document, without_private, write_document
from amber_spread.core.kernel.limits import MAX_FILE_BYTES
from amber_spread.core.kernel.naming import figures
from amber_spread.schemas import schemas
from amber_spread.store.orders import OrderBook, Sought
from amber_spread.web.app import make_app
from tests.clients import client_of, shelf
from tests.designs import document, tier


@pytest.fixture
def client(book):
    return client_of(make_app(book))


JSON = {"content-type": "application/json"}


def body(title="A cake", tin=203.2):
    return document(tier(tin), title=title).model_dump(mode="json")


def problem(response, status):
    assert response.status_code == status
    assert response.headers["content-type"] == "application/problem+json"
    found = response.json()
    assert found["status"] == status
    assert found["title"]
    assert found["detail"].endswith(".")
    return found


def test_a_plan_over_http_is_the_plan_of_the_core(client):
    sent = document(tier(254), tier(203.2))
    answer = client.post("/api/plan", json={"document": json.loads(write_document(sent))})
    assert answer.json() == json.loads(plan_document(sent).model_dump_json())


def test_a_figure_is_explained_when_it_is_asked_for(client):
    sent = document(tier(254), tier(203.2))
    told = {"document": json.loads(write_document(sent))}
    (line,) = client.post("/api/plan/parts", json=told).text.splitlines()
    lean = list(leaves(json.loads(line)["plan"]))
    whole = list(figures(plan_document(sent)))
    assert len(lean) == len(whole) > 200
    assert {one["id"]: one["value"] for one in lean} == {figure.id: figure.value for figure in whole}
    assert all(one["given"] is None for one in lean)
    for figure in whole[::47]:
        found = client.post("/api/plan/figure", json={"figure": figure.id, **told}).json()
        assert found["given"] == {
            name: {"value": put_in.value, "unit": put_in.unit} for name, put_in in figure.given.items()
        }
        assert (found["id"], found["value"], found["rule"]) == (figure.id, figure.value, figure.rule)
    assert (
        "no such figure" in problem(client.post("/api/plan/figure", json={"figure": "tiers.9", **told}), 404)["detail"]
    )
    told["document"]["design"]["tiers"][0]["tin_diameter_mm"] = 9999
    answer = client.post("/api/plan/figure", json={"figure": whole[0].id, **told})
    assert problem(answer, 422)["errors"][0]["field"].startswith("document.design")


def leaves(node):
    """Every figure in the JSON of a plan."""
    if isinstance(node, dict) and node.keys() >= {"rule", "rounding", "given"}:
        yield node
    elif isinstance(node, dict | list):
        for part in node.values() if isinstance(node, dict) else node:
            yield from leaves(part)


def test_the_handbook_tells_media_limits_and_rules(client):
    book = client.get("/api/handbook").json()
    assert {"fondant", "lemon_curd"} <= {medium["key"] for medium in book["media"]}
    assert book["limits"]["tin_diameter_mm"] == {"low": 50, "high": 600, "unit": "mm"}
    assert book["rules"]["cover.drape.round"]["source"]["origin"] == "common practice"


def test_an_order_is_made_listed_opened_saved_copied_and_taken_off(client):
    made = client.post("/api/orders", json=body())
    assert made.status_code == 201
    id = made.json()["id"]
    saved = client.put(f"/api/orders/{id}", json={"began_from": 1, "document": body("Changed")})
    assert saved.json()["revision"] == 2
    (card,) = shelf(client)
    outside = card["outside"]
    assert (card["title"], len(outside["tiers"]), outside["height"]["unit"]) == ("Changed", 1, "mm")
    assert client.post(f"/api/orders/{id}/duplicate").status_code == 201
    assert client.post(f"/api/orders/{id}/archive").json()["archived"]
    assert [card["title"] for card in shelf(client)] == ["Changed (copy)"]
    assert len(shelf(client, archived=True)) == 1
    assert not client.post(f"/api/orders/{id}/restore").json()["archived"]
    assert [one["number"] for one in client.get(f"/api/orders/{id}/revisions").json()] == [2, 1]
    assert client.get(f"/api/orders/{id}/revisions/1").json()["title"] == "A cake"


def test_the_exported_file_is_the_design(client):
    id = client.post("/api/orders", json=body("Honey & comb")).json()["id"]
    answer = client.get(f"/api/orders/{id}/file")
    assert "Honey%20%26%20comb.amber.json" in answer.headers["content-disposition"]
    assert read_document(answer.content).title == "Honey & comb"


def test_a_stale_save_is_refused_with_both_revisions(client):
    id = client.post("/api/orders", json=body()).json()["id"]
    client.put(f"/api/orders/{id}", json={"began_from": 1, "document": body("Theirs")})
    found = problem(client.put(f"/api/orders/{id}", json={"began_from": 1, "document": body("Mine")}), 409)
    assert (found["current"], found["aside"]) == (2, 3)
    assert client.get(f"/api/orders/{id}/revisions/3").json()["title"] == "Mine"


def test_a_field_that_cannot_be_used_is_pointed_at(client):
    found = problem(_plan(client, 3000), 422)
    assert found["errors"] == [
        {
            "pointer": "#/document/design/tiers/0/tin_diameter_mm",
            "field": "document.design.tiers.1.tin_diameter_mm",
            "message": "should be 600 mm or less",
        }
    ]


def _plan(client, tin):
    sent = body()
    sent["design"]["tiers"][0]["tin_diameter_mm"] = tin
    return client.post("/api/plan", json={"document": sent})


def test_a_saves_complaints_point_below_its_document(client):
    id = client.post("/api/orders", json=body()).json()["id"]
    sent = body()
    sent["title"] = ""
    found = problem(client.put(f"/api/orders/{id}", json={"began_from": 1, "document": sent}), 422)
    assert found["errors"][0]["pointer"] == "#/document/title"


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"{",
        b"\xff\xfe",
        b"[" * 60_000,
        b'{"a": NaN}',
        b"9" * 6000,
        b'"\\ud800"',
        b"null",
        b"[]",
        b'{"\\ud800": 1, "format": "amber-spread/5"}',
        b'{"format": "amber-spread/5", "title": "\\ud800", "design": {}}',
        b'{"format":"amber-spread/5","title":"x","design":{"tiers":[{"tin_diameter_mm":NaN,"layers":{"count":1e400}}]}}',
    ],
)
def test_a_body_that_is_no_design_is_never_a_500(client, content):
    for path in ("/api/plan", "/api/orders"):
        answer = client.post(path, content=content, headers={"content-type": "application/json"})
        assert answer.status_code in (400, 422)
        problem(answer, answer.status_code)


def test_a_body_of_fifty_megabytes_is_refused_by_its_claim_and_by_its_size(client):
    found = problem(client.post("/api/plan", content=b"x" * 50_000_000, headers=JSON), 413)
    assert f"{MAX_FILE_BYTES // 1024} kB" in found["detail"]

    def drip():
        for _ in range(20):
            yield b" " * 65_536

    problem(client.post("/api/plan", content=drip(), headers=JSON), 413)


def test_fewer_portions_than_servings_asked_for_are_said_in_the_plan_and_on_the_shelf(client):
    def said(servings):
        plan = client.post("/api/plan", json={"document": body() | {"servings": servings}}).json()
        return plan["stack"]["portions"]["value"], [
            one["text"] for one in plan["checks"] if one["code"] == "brief.servings"
        ]

    portions, nothing = said(None)
    assert nothing == said(int(portions))[1] == []
    (told,) = said(int(portions) + 7)[1]
    assert f"{portions:.0f} portions, 7 fewer than asked for" in told
    client.post("/api/orders", json=body() | {"servings": int(portions) + 7})
    (card,) = client.get("/api/orders").json()["orders"]
    assert "brief.servings" in [one["code"] for one in card["outside"]["attention"]]


def test_pictures_that_were_traced_are_handed_on_only_where_that_is_asked_for(client):
    picture = {"data": "data:image/png;base64,iVBORw0KGgo=", "wide": 10, "high": 10}
    sent = body("Traced")
    made = client.post("/api/orders", json=sent).json()
    traced = without_private({"design": {"tiers": [{"build": {"kind": "carved", "picture": picture}}]}})
    assert traced == {"design": {"tiers": [{"build": {"kind": "carved", "picture": None}}]}}
    assert client.get(f"/api/orders/{made['id']}/file").json()["design"] == made["document"]["design"]


def test_whom_it_is_for_and_notes_are_handed_on_only_where_that_is_asked_for(client):
    sent = body("Meadow") | {"servings": 80, "customer": "Orla Fenn", "notes": "Ring first.\nNo nuts on the top tier."}
    id = client.post("/api/orders", json=sent).json()["id"]
    kept = client.get(f"/api/orders/{id}").json()["document"]
    assert [kept[name] for name in ("servings", "customer", "notes")] == [80, sent["customer"], sent["notes"]]
    shared = client.get(f"/api/orders/{id}/file")
    assert "Orla" not in shared.text
    assert "nuts" not in shared.text
    assert shared.json()["servings"] == 80
    own = client.get(f"/api/orders/{id}/file", params={"private": True}).json()
    assert (own["customer"], own["notes"]) == (sent["customer"], sent["notes"])
    copy = client.post(f"/api/orders/{id}/duplicate").json()["document"]
    assert (copy["customer"], copy["notes"]) == ("", "")
    for paper in ("plate.pdf", "plate.svg", "bench.pdf", "amounts.csv", "stacking.pdf"):
        assert "Orla" not in client.get(f"/api/orders/{id}/{paper}").content.decode("latin-1")
    for wrong in ({"servings": 0}, {"servings": 3.5}, {"customer": "x" * 81}, {"notes": "a\x00b"}):
        assert client.post("/api/orders", json=sent | wrong).status_code == 422


@pytest.mark.parametrize("path", ["/api/nothing", "/api/orders/{}", "/api/orders/{}/revisions", "/api/orders/{}/file"])
def test_what_is_not_there_is_said_to_be_missing(client, path):
    problem(client.get(path.format(uuid.uuid4())), 404)


def test_an_id_that_is_none_and_a_revision_out_of_range_are_refused(client):
    assert "id of an order" in problem(client.get("/api/orders/xyz"), 422)["detail"]
    id = client.post("/api/orders", json=body()).json()["id"]
    problem(client.get(f"/api/orders/{id}/revisions/0"), 422)
    problem(client.get(f"/api/orders/{id}/revisions/99999999999"), 422)
    problem(client.get(f"/api/orders/{id}/revisions/2"), 404)


def test_a_database_out_of_reach_is_a_503_and_planning_goes_on():
    away = OrderBook.at("postgresql+psycopg://nobody:x@127.0.0.1:9/none")
    client = client_of(make_app(away))
    assert "Nothing was changed" in problem(client.get("/api/orders"), 503)["detail"]
    assert client.post("/api/plan", json={"document": body()}).status_code == 200
    with pytest.raises(OperationalError):
        away.shelf(Sought())


def test_every_address_outside_the_api_serves_the_page(book, tmp_path):
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<title>the page</title>")
    client = client_of(make_app(book, built=tmp_path))
    for path in ("/", "/orders/abc/cover", "/no/such/page"):
        assert "the page" in client.get(path).text


def test_the_schemas_in_the_tree_are_current():
    for path, text in schemas().items():
        assert path.read_text() == text, f"{path.name} is out of date: run ./amber schemas"
