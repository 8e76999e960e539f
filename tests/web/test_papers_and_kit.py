"""Kit, papers, outlines and the quick line over HTTP."""

import io

import pytest
from pypdf import PdfReader

from amber_spread.core.design.finishes import DrapeCover, PanelCover
from amber_spread.web.app import make_app
from tests.clients import client_of
from tests.designs import document, tier


@pytest.fixture
def client(book):
    return client_of(make_app(book))


@pytest.fixture
def order(client):
    cake = document(tier(254, cover=DrapeCover()), tier(203.2, cover=PanelCover(top="over")), title="Skep & comb")
    return client.post("/api/orders", json=cake.model_dump(mode="json")).json()["id"]


def problem(response, status):
    assert response.status_code == status
    assert response.headers["content-type"] == "application/problem+json"
    return response.json()


def test_the_kit_is_kept_and_planned_with(client):
    kept = client.get("/api/kit").json()
    kit = {**kept["kit"], "discs_mm": [215.0]}
    saved = client.put("/api/kit", json={"began_from": kept["number"], "kit": kit}).json()
    assert saved["kit"] == kit and saved["number"] > kept["number"]
    assert client.get("/api/kit").json() == saved
    cake = document(tier(final={"kind": "disc", "disc_diameter_mm": 215})).model_dump(mode="json")
    with_kit = client.post("/api/plan", json={"document": cake, "kit": kit}).json()["kit"]
    without = client.post("/api/plan", json={"document": cake}).json()["kit"]
    assert [need["status"] for need in with_kit.values() if need["tool"] == "disc"] == ["have"]
    assert [need["status"] for need in without.values() if need["tool"] == "disc"] == ["next best"]


def test_a_kit_that_cannot_be_is_pointed_at(client):
    kept = client.get("/api/kit").json()
    save = {"began_from": kept["number"], "kit": {**kept["kit"], "boards_mm": [5]}}
    assert problem(client.put("/api/kit", json=save), 422)["errors"][0]["pointer"] == "#/kit/boards_mm/0"
    save["kit"]["boards_mm"] = [200, 200]
    assert "twice" in problem(client.put("/api/kit", json=save), 422)["detail"]


def test_a_kit_made_out_of_an_older_one_is_kept_aside(client):
    kept = client.get("/api/kit").json()
    first, second = ({"began_from": kept["number"], "kit": {**kept["kit"], "pin_mm": pin}} for pin in (350, 450))
    newest = client.put("/api/kit", json=first).json()
    told = problem(client.put("/api/kit", json=second), 409)
    assert "What you own was saved elsewhere meanwhile" in told["detail"]
    assert told["current"] == newest["number"] < told["aside"]
    assert client.get("/api/kit").json() == newest


def test_an_orders_papers_are_taken_away_under_its_name(client, order):
    pdf = client.get(f"/api/orders/{order}/templates.pdf?paper=letter")
    assert pdf.headers["content-type"] == "application/pdf"
    assert "Skep%20%26%20comb%20templates.pdf" in pdf.headers["content-disposition"]
    whole = len(PdfReader(io.BytesIO(pdf.content)).pages)
    alone = len(PdfReader(io.BytesIO(client.get(f"/api/orders/{order}/templates.pdf?tier=2").content)).pages)
    assert 0 < alone < whole
    assert client.get(f"/api/orders/{order}/templates.svg").text.startswith("<?xml")
    assert "LWPOLYLINE" in client.get(f"/api/orders/{order}/templates.dxf").text
    assert client.get(f"/api/orders/{order}/amounts.csv").text.startswith("tier,name,step")
    # How many pages it takes is said before it is printed.
    for asked in ("paper=letter", "paper=a4&whole=true", "tier=2&whole=true"):
        said = client.get(f"/api/orders/{order}/templates/pages?{asked}").json()["pages"]
        found = client.get(f"/api/orders/{order}/templates.pdf?{asked}").content
        assert said == len(PdfReader(io.BytesIO(found)).pages)


def test_papers_and_lists_are_made_by_workers(client, order, monkeypatch):
    """The serving process makes none: one person's long paper would delay everyone's plans."""

    def made_here(*_):
        raise AssertionError("made in the serving process")

    for name in ("jobs.papers.plan_document", "jobs.papers.shop", "papers.orders.write_pdf", "papers.orders.plate_of"):
        monkeypatch.setattr(f"amber_spread.{name}", made_here)
    for path in (
        f"/api/orders/{order}/templates.pdf", f"/api/orders/{order}/templates/pages", f"/api/orders/{order}/plate.svg",
        f"/api/orders/{order}/shopping.pdf", "/api/shop/week?first=2026-12-01&days=60", "/api/shop/week.csv?first=2026-12-01",
    ):  # fmt: skip
        assert client.get(path).status_code == 200, path


def test_papers_that_are_not_there_or_cannot_be_are_refused(client, order):
    problem(client.get("/api/orders/00000000-0000-0000-0000-000000000000/templates.pdf"), 404)
    problem(client.get(f"/api/orders/{order}/templates.pdf?paper=a3"), 422)
    problem(client.get(f"/api/orders/{order}/templates.svg?tier=0"), 422)
    beyond = client.get(f"/api/orders/{order}/templates.pdf?tier=9")
    assert "nothing to cut" in PdfReader(io.BytesIO(beyond.content)).pages[0].extract_text()


def test_an_outline_is_read_from_a_drawing_or_refused_in_words(client):
    head = '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">'
    kind = {"content-type": "image/svg+xml"}
    found = client.post("/api/outline", content=f'{head}<rect width="150" height="90"/></svg>', headers=kind).json()
    assert (round(found["width_mm"], 3), round(found["length_mm"], 3)) == (150, 90)
    refused = problem(client.post("/api/outline", content=f'{head}<path d="M0 0 H90 V90"/></svg>', headers=kind), 422)
    assert "open" in refused["detail"]
    problem(client.post("/api/outline", content=b"\xff\xfe", headers=kind), 422)


def pointed_at(client, build, words):
    """A document with a build that the plan refuses at its field, in these words."""
    sent = document(tier()).model_dump(mode="json")
    sent["design"]["tiers"][0]["build"] = build
    found = problem(client.post("/api/plan", json={"document": sent}), 422)
    assert found["errors"][0]["pointer"].startswith("#/document/design/tiers/0/build")
    assert words in found["errors"][0]["message"]
    return sent


@pytest.mark.parametrize(
    "build, words",
    [
        ({"kind": "tapered", "narrow_mm": 300}, "narrow end is wider"),
        ({"kind": "bevelled", "in_mm": 150, "down_mm": 10}, "larger than the tier"),
        ({"kind": "side", "cut_mm": 150}, "higher than the middle"),
        ({"kind": "domed", "rise_mm": 120}, "dome"),
    ],
)
def test_a_build_that_cannot_be_made_is_pointed_at_by_the_plan_and_saved_all_the_same(client, order, build, words):
    sent = pointed_at(client, build, words)
    assert client.put(f"/api/orders/{order}", json={"began_from": 1, "document": sent}).json()["revision"] == 2
    assert client.get(f"/api/orders/{order}").json()["document"]["design"]["tiers"][0]["build"]["kind"] == build["kind"]


def test_a_build_that_is_no_build_is_pointed_at_and_not_saved(client, order):
    flat = {"kind": "turned", "points": [{"up": 0, "out": 1}, {"up": 0, "out": 1}]}
    sent = pointed_at(client, flat, "higher than the point below")
    problem(client.put(f"/api/orders/{order}", json={"began_from": 1, "document": sent}), 422)
    assert client.get(f"/api/orders/{order}").json()["revision"] == 1


def test_a_line_is_printed_and_read_and_what_cannot_be_read_is_no_error(client):
    cake = document(tier(254, cover=DrapeCover())).model_dump(mode="json")
    text = client.post("/api/line/print", json=cake).json()["text"]
    read = client.post("/api/line/read", json={"text": text, "document": cake}).json()
    assert (read["design"], read["unread"]) == (cake["design"], [])
    bad = client.post("/api/line/read", json={"text": "8 x 4 blob", "document": cake}).json()
    assert bad["design"] is None
    assert bad["unread"][0]["start"] == 6
    long = problem(client.post("/api/line/read", json={"text": "x" * 9000, "document": cake}), 422)
    assert "at most 8000 characters" in long["detail"]
