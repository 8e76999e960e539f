"""Pantry and shopping over HTTP: kept, refused line by line, and taken along as files."""

import csv
import io
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime

import pytest
from pypdf import PdfReader

from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal
from amber_spread.core.stock.pantry import Pantry
from amber_spread.store.orders import StaleSave
from amber_spread.store.shelves import PantryShelf
from amber_spread.web.app import make_app
from tests.clients import client_of
from tests.designs import document, tier
from tests.web.test_papers_and_kit import problem

PRICES = "item;pack;unit;price\nbutter;250;g;2,60\nsugar;1;kg;1,20\n"


@pytest.fixture
def client(book):
    return client_of(make_app(book))


def keep(client, cake):
    return client.post("/api/orders", json=cake.model_dump(mode="json")).json()["id"]


def due(day, title):
    return document(tier(final=FreehandFinal(colour="ivory")), title=title, due=datetime(2026, 12, day, 11))


def send(client, what, content):
    return client.post(f"/api/pantry/{what}", content=content, headers={"Content-Type": "text/csv"})


def test_the_pantry_is_kept_and_names_everything_within_reach(client):
    found = client.get("/api/pantry").json()
    assert found["number"] == 0 and found["in_use"]["dark_ganache"] == "dark_ganache"
    pantry = {**found["pantry"], "chosen": {"dark_ganache": "dark_ganache_hot"}}
    kept = client.put("/api/pantry", json={"began_from": 0, "pantry": pantry}).json()
    assert kept["in_use"]["dark_ganache"] == "dark_ganache_hot"
    assert client.get("/api/pantry").json()["number"] == kept["number"] > 0


def test_a_stale_save_is_refused_and_kept_aside(client, book):
    first = client.put("/api/pantry", json={"began_from": 0, "pantry": {"terms": {"hour_price": 20}}}).json()
    answer = client.put("/api/pantry", json={"began_from": 0, "pantry": {"terms": {"hour_price": 30}}})
    assert "What you make and buy was saved elsewhere" in problem(answer, 409)["detail"]
    assert client.get("/api/pantry").json()["pantry"]["terms"]["hour_price"] == 20
    assert (
        client.put(
            "/api/pantry", json={"began_from": first["number"], "pantry": {"terms": {"hour_price": 30}}}
        ).status_code
        == 200
    )


def test_of_many_saves_at_once_one_counts_and_none_is_lost(book):
    shelf = PantryShelf(book.engine)

    def save(hour):
        try:
            return shelf.save(Pantry.model_validate({"terms": {"hour_price": hour}}), 0).number
        except StaleSave as error:
            return -error.aside

    with ThreadPoolExecutor(8) as pool:
        numbers = list(pool.map(save, range(1, 9)))
    assert len(set(numbers)) == 8 and sum(number > 0 for number in numbers) == 1


def test_a_price_list_is_taken_over(client):
    found = send(client, "prices", PRICES.encode()).json()
    assert [pack["price"] for pack in found["pantry"]["packs"]] == [2.6, 1.2]
    rows = list(csv.DictReader(io.StringIO(client.get("/api/pantry/prices.csv").text)))
    assert rows[1] == {"item": "sugar", "name": "Sugar", "pack": "1000", "unit": "g", "price": "1.20"}


def test_a_price_list_with_two_bad_lines_takes_over_nothing(client):
    send(client, "prices", PRICES.encode())
    told = problem(send(client, "prices", (PRICES + "buter;1;kg;3\nhoney;-1;kg;3\n").encode()), 422)
    assert [one["field"] for one in told["errors"]] == ["line 4, item", "line 5, pack"]
    assert told["detail"].startswith("Nothing was taken over. 2 lines cannot be used.")
    assert len(client.get("/api/pantry").json()["pantry"]["packs"]) == 2


def test_larder_and_recipes_travel_as_files(client):
    found = send(client, "larder", b"item,amount,unit\nbutter,1,kg\negg,6,each\n").json()
    assert {one["item"]: one["amount"] for one in found["pantry"]["larder"]} == {"butter": 1000, "egg": 6}
    assert "Butter" in client.get("/api/pantry/larder.csv").text
    for kind in ("csv", "json"):
        book = client.get(f"/api/pantry/recipes.{kind}")
        found = send(client, "recipes", book.content).json()
        assert len(found["pantry"]["recipes"]) == len(found["recipes"]) > 20


@pytest.mark.parametrize(
    "pantry, pointer",
    [
        ({"packs": [{"item": "butter", "size": -250}]}, "#/pantry/packs/0/size"),
        (
            {"recipes": [{"key": "a", "name": "A", "makes": "syrup", "lines": [{"item": "syrup", "amount": 1}]}]},
            "#/pantry/recipes/0/lines",
        ),
        (
            {
                "recipes": [
                    {"key": "a", "name": "A", "makes": "syrup", "yield_g": 0, "lines": [{"item": "sugar", "amount": 1}]}
                ]
            },
            "#/pantry/recipes/0/yield_g",
        ),
    ],
)
def test_what_cannot_be_kept_is_pointed_at(client, pantry, pointer):
    told = problem(client.put("/api/pantry", json={"began_from": 0, "pantry": pantry}), 422)
    assert told["errors"][0]["pointer"] == pointer


def test_a_file_of_a_million_lines_is_refused_in_bounded_time(client):
    assert problem(send(client, "prices", b"item,pack,price\n" + b"butter,1,1\n" * 1_000_000), 413)["detail"]
    assert "6000" in problem(send(client, "prices", b"item,pack,price\n" + b"butter,1,1\n" * 5999), 422)["detail"]


def test_the_order_in_hand_is_shopped_for_as_it_stands(client):
    cake = document(tier(cover=DrapeCover())).model_dump(mode="json")
    found = client.post("/api/shop", json={"document": cake}).json()
    assert found["wants"]["fondant"]["needed"]["id"] == "shop.wants.fondant.needed"
    assert found["orders"]["order"]["cost"]["price"]["unit"] == "money"
    cake["design"]["tiers"][0]["tin_diameter_mm"] = -5
    told = problem(client.post("/api/shop", json={"document": cake}), 422)
    assert told["errors"][0]["pointer"] == "#/document/design/tiers/0/tin_diameter_mm"


def test_the_days_chosen_are_shopped_for_together(client):
    for day, title in ((4, "Early"), (5, "Late"), (20, "Next month")):
        keep(client, due(day, title))
    taken_off = keep(client, due(5, "Gone"))
    client.post(f"/api/orders/{taken_off}/archive")
    found = client.get("/api/shop/week", params={"first": "2026-12-01"}).json()
    assert [one["title"] for one in found["orders"].values()] == ["Early", "Late"]
    assert found["pools"]["meringue_buttercream~ivory"]["saved"]["value"] > 0
    pooled = client.get("/api/shop/week", params={"first": "2026-12-01", "pooled": True}).json()
    assert (
        pooled["recipes"]["meringue_buttercream"]["wanted"]["value"]
        < found["recipes"]["meringue_buttercream"]["wanted"]["value"]
    )
    assert client.get("/api/shop/week", params={"first": "2026-11-01", "days": 3}).json()["wants"] == {}


@pytest.mark.parametrize(
    "params", [{"first": "soon"}, {"first": "2026-12-01", "days": 0}, {"first": "2026-12-01", "days": 400}, {}]
)
def test_days_that_cannot_be_are_refused(client, params):
    problem(client.get("/api/shop/week", params=params), 422)


def test_the_lists_to_take_along(client):
    send(client, "prices", PRICES.encode())
    id = keep(
        client,
        document(
            tier(254, cover=DrapeCover(), layers=Layers(cake="none_such")),
            tier(),
            title="Skep & <comb>",
            due=datetime(2026, 12, 5, 11),
        ),
    )
    for base in (f"/api/orders/{id}/shopping", "/api/shop/week"):
        params = {"first": "2026-12-01"} if "week" in base else {}
        rows = list(csv.DictReader(io.StringIO(client.get(f"{base}.csv", params=params).text)))
        butter = next(row for row in rows if row["item"] == "butter")
        assert float(butter["to_buy"]) > 0 and float(butter["cost"]) > 0 and butter["currency"] == "EUR"
        pdf = client.get(f"{base}.pdf", params={**params, "length": "cm", "paper": "letter"})
        words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf.content)).pages).replace("\n", " ")
        for expected in ("Skep & <comb>", "Butter", "EUR", "Base board", "cm", "none_such", "wheat", "local food law"):
            assert expected in words, expected
    assert client.get("/api/orders/00000000-0000-0000-0000-000000000000/shopping.pdf").status_code == 404


SYRUP = {
    "key": "mine",
    "name": "Mine",
    "makes": "syrup",
    "lines": [{"item": "sugar", "amount": 100}, {"item": "egg", "amount": 2, "unit": "each", "whole": True}],
}


def test_a_recipe_is_scaled_as_it_stands_before_it_is_kept(client):
    found = client.post("/api/pantry/scale", json={"recipe": SYRUP, "wanted_g": 330}).json()
    assert found["factor"]["value"] == 2 and found["lines"]["line_2"]["count"]["value"] == 4
    assert found["lines"]["line_1"]["weight"]["id"] == "scaled.lines.line_1.weight"
    assert client.get("/api/pantry").json()["number"] == 0


@pytest.mark.parametrize(
    "change, pointer",
    [
        ({"lines": [{"item": "gravel", "amount": 1}]}, "#/recipe/lines/0/item"),
        ({"lines": [{"item": "syrup", "amount": 1}]}, "#/recipe/lines"),
        ({"yield_g": 0}, "#/recipe/yield_g"),
    ],
)
def test_a_recipe_that_cannot_be_scaled_is_pointed_at(client, change, pointer):
    told = problem(client.post("/api/pantry/scale", json={"recipe": {**SYRUP, **change}, "wanted_g": 100}), 422)
    assert told["errors"][0]["pointer"] == pointer


def test_a_weighed_cup_gives_a_density(client):
    found = client.post("/api/pantry/density", json={"cup_g": 190, "volume_ml": 250}).json()
    assert found["value"] == pytest.approx(0.76) and found["unit"] == "g_per_ml"
    problem(client.post("/api/pantry/density", json={"cup_g": 190, "volume_ml": 0}), 422)
