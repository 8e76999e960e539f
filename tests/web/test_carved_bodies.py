"""Bodies over HTTP: the width one is to have, one read from a 3D file, and one in the round."""

import base64
import http.client
import itertools
import json
import math
import threading
import time
from urllib.parse import urlsplit

import numpy
import pytest
import shapely
import trimesh
from shapely import Polygon

from amber_spread.browser import served
from amber_spread.core.design.builds import JoinedBuild, ModelledBuild
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.solids import BallSolid, BoxSolid
from amber_spread.core.kernel.base import without_fields
from amber_spread.core.kernel.limits import MAX_MODEL_BYTES
from amber_spread.web.app import make_app
from tests.clients import OURS, client_of
from tests.designs import document, planned, tier
from tests.web.test_papers_and_kit import problem

BINARY = {"content-type": "application/octet-stream"}
HIVE = JoinedBuild(solids=(BoxSolid(wide_mm=180), BallSolid(z_mm=30)))


@pytest.fixture
def client(book):
    with client_of(make_app(book)) as client:
        yield client


def stl(mesh):
    return mesh.export(file_type="stl")


def body(build, **parts):
    return document(tier(240, build=build, **parts)).model_dump(mode="json")


def test_a_width_is_worked_out_by_itself_or_for_another_size(client):
    build = HIVE.model_dump(mode="json")
    assert client.post("/api/width", json={"build": build}).json()["width_mm"] == pytest.approx(180)
    wide = client.post("/api/width", json={"build": build, "height_mm": 300}).json()["width_mm"]
    assert wide == pytest.approx(180 * 300 / 150, rel=1e-3)
    # For forty portions, as the kitchen cuts them, it makes forty and not one less.
    practice = Practice(portion_wide_mm=30, portion_deep_mm=40, portion_high_mm=100)
    wide = client.post(
        "/api/width", json={"build": build, "portions": 40, "practice": practice.model_dump(mode="json")}
    ).json()["width_mm"]
    made = planned(tier(math.ceil(wide * 100) / 100, build=HIVE), practice=practice).tiers[0]
    assert made.stack.portions.value == 40
    assert made.carving.volume.value == pytest.approx(40 * 0.03 * 0.04 * 0.1 * 1e6, rel=2e-3)
    apart = {"kind": "joined", "solids": [{"kind": "box"}, {"kind": "box", "x_mm": 500}]}
    found = problem(client.post("/api/width", json={"build": apart}), 422)
    assert "do not touch" in found["errors"][0]["message"] and found["errors"][0]["pointer"] == "#/build"
    problem(client.post("/api/width", json={"build": {"kind": "straight"}}), 422)
    problem(client.post("/api/width", json={"build": build, "volume_ml": -3}), 422)


def test_a_3d_file_is_read_into_a_tier_that_plans(client):
    ring = trimesh.creation.torus(4, 1.5)
    read = client.post("/api/model?unit=in&up=z", content=stl(ring), headers=BINARY).json()
    assert read["width_mm"] == pytest.approx(11 * 25.4, rel=1e-3)
    build = ModelledBuild(mesh=read["mesh"], error_mm=read["error_mm"])
    found = client.post("/api/plan", json={"document": body(build)}).json()["tiers"][0]
    assert found["carving"]["volume"]["value"] == pytest.approx(read["volume_ml"] * (240 / (11 * 25.4)) ** 3, rel=5e-3)
    assert found["carving"]["kept"]["triangles"]["value"] == read["kept"]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "no 3D file that is read"),
        (b"solid x\nfacet", "ends early"),
        (stl(trimesh.creation.box([90, 90, 90]))[:400], "ends early"),
        (b"\0" * 84 + b"\xff" * 5000, "no 3D file that is read"),
    ],
)
def test_what_is_no_body_is_refused_in_words(client, data, words):
    found = problem(client.post("/api/model", content=data, headers=BINARY), 422)
    assert found["title"] == "That body cannot be used" and words in found["detail"]


def test_a_file_that_is_too_large_or_not_so_sent_is_refused(client):
    found = problem(client.post("/api/model", content=bytes(MAX_MODEL_BYTES + 1), headers=BINARY), 413)
    assert "24 MB" in found["detail"]
    # No other request may be so large.
    problem(client.post("/api/width", content=bytes(600 * 1024), headers={"content-type": "application/json"}), 413)
    problem(client.post("/api/model?unit=ell", content=stl(trimesh.creation.box()), headers=BINARY), 422)
    assert client.post("/api/model", content=b"x", headers={"content-type": "text/plain"}).status_code == 415


def test_reading_a_large_file_keeps_nobody_waiting(client):
    fine = stl(trimesh.creation.icosphere(subdivisions=6, radius=100))
    plain = {"document": document(tier(203)).model_dump(mode="json")}
    client.post("/api/plan", json=plain)
    done = []
    reading = threading.Thread(target=lambda: done.append(client.post("/api/model", content=fine, headers=BINARY)))
    reading.start()
    waits = []
    while reading.is_alive():
        began = time.perf_counter()
        assert client.post("/api/plan", json=plain).status_code == 200
        waits.append(time.perf_counter() - began)
    assert done[0].status_code == 200
    assert len(waits) > 5
    assert sorted(waits)[len(waits) // 2] < 0.2


def test_a_tier_in_the_round_is_triangles_of_each_of_its_parts(client):
    sent = {"document": body(HIVE, cover=DrapeCover()), "tier": 0, "cut_open": False}
    # As on the screen it is planned first, so that neither takes all the time a piece of work is given.
    assert client.post("/api/plan", json={"document": sent["document"]}).status_code == 200
    answer = client.post("/api/round", json=sent)
    assert answer.status_code == 200, answer.text
    view, volumes = answer.json(), {}
    for part in view["parts"]:
        corners = numpy.frombuffer(base64.b64decode(part["corners"]), "<i2").reshape(-1, 3) * part["step_mm"]
        triangles = numpy.frombuffer(base64.b64decode(part["triangles"]), "<u2").reshape(-1, 3)
        mesh = trimesh.Trimesh(corners, triangles, process=False)
        assert mesh.is_watertight, part["matter"]
        volumes[part["matter"]] = volumes.get(part["matter"], 0) + mesh.volume / 1000
    planned = client.post("/api/plan", json={"document": sent["document"]}).json()["tiers"][0]
    assert volumes["cake"] == pytest.approx(planned["layers"]["cake_volume"]["value"], rel=0.01)
    assert volumes["filling"] == pytest.approx(planned["layers"]["filling"]["volume"]["value"], rel=0.03)
    both = volumes["crumb"] + volumes["final"]
    assert both == pytest.approx(planned["carving"]["coats"]["value"], rel=0.03)
    opened = client.post("/api/round", json=sent | {"cut_open": True}).json()
    assert opened["most"] == view["most"]
    # Of a tier with a formula, and of one that is not there, there is nothing to be seen so.
    assert client.post("/api/round", json={"document": document(tier(203)).model_dump(mode="json")}).json() is None
    assert client.post("/api/round", json=sent | {"tier": 7}).json() is None
    apart = JoinedBuild(solids=(BoxSolid(), BoxSolid(x_mm=500)))
    found = problem(client.post("/api/round", json={"document": body(apart)}), 422)
    assert found["errors"][0]["pointer"].startswith("#/document/design/tiers/0/build")


def test_a_tier_is_cut_level_at_every_height_and_its_levels_fill_it(client):
    sent = {"document": body(HIVE)}
    answer = client.post("/api/levels", json=sent)
    assert answer.status_code == 200, answer.text
    levels = answer.json()
    ups = [one["up_mm"] for one in levels]
    areas = [sum(Polygon(ring).area for ring in one["rings"]) for one in levels]
    planned = client.post("/api/plan", json=sent).json()["tiers"][0]
    assert ups[0] == 0 and ups[-1] == pytest.approx(planned["layers"]["height"]["value"])
    assert max(high - low for low, high in itertools.pairwise(ups)) <= 2.001
    assert numpy.trapezoid(areas, ups) / 1000 == pytest.approx(planned["carving"]["volume"]["value"], rel=0.01)
    for one in levels:
        left, low, right, high = shapely.MultiPoint([point for ring in one["rings"] for point in ring]).bounds
        assert (right - left, high - low) == pytest.approx((one["wide_mm"], one["long_mm"]), abs=0.03)
    # Of a tier with a formula, and of one that is not there, there are none.
    assert client.post("/api/levels", json={"document": document(tier(203)).model_dump(mode="json")}).json() == []
    assert client.post("/api/levels", json=sent | {"tier": 7}).json() == []


def test_what_nobody_waits_for_any_longer_is_given_up():
    """Someone presses a key ten times: the last edit does not wait behind nine that are thrown away."""
    headers = {**OURS, "content-type": "application/json"}
    with served() as address:
        host, port = urlsplit(address).hostname, urlsplit(address).port

        def ask(number, path="/api/plan"):
            build = JoinedBuild(solids=(BoxSolid(wide_mm=180 + number), BallSolid(z_mm=30 + number)))
            connection = http.client.HTTPConnection(host, port, timeout=30)
            connection.request("POST", path, json.dumps({"document": body(build)}), headers)
            return connection

        def timed(number):
            began = time.perf_counter()
            assert ask(number).getresponse().status == 200
            return time.perf_counter() - began

        timed(0)
        alone = min(timed(1), timed(2))
        for number in range(3, 15):
            # As the screen asks for it, told as it goes, and all at once.
            thrown_away = ask(number, "/api/plan/parts" if number % 2 else "/api/plan")
            time.sleep(0.03)
            thrown_away.close()
        # Two are worked on at a time; behind all twelve it would be seven times as long.
        assert timed(20) < 3 * alone + 1


@pytest.mark.parametrize(("kind", "of"), [("stl", "bare"), ("obj", "coated"), ("3mf", "covered")])
def test_a_body_is_taken_away_as_a_3d_file_and_read_back_to_the_same_volume(client, kind, of):
    id = client.post("/api/orders", json=body(HIVE, cover=DrapeCover())).json()["id"]
    answer = client.get(f"/api/orders/{id}/body.{kind}?of={of}")
    assert answer.status_code == 200 and f".{kind}" in answer.headers["content-disposition"]
    read = client.post("/api/model", content=answer.content, headers=BINARY).json()
    tier = client.get(f"/api/orders/{id}").json()["document"]["design"]["tiers"][0]
    planned = client.post("/api/plan", json={"document": body(HIVE, cover=DrapeCover())}).json()["tiers"][0]
    coats = planned["carving"]["coats"]["value"]
    whole = planned["carving"]["volume"]["value"] + {"bare": 0, "coated": coats}.get(
        of, coats + planned["cover"]["over"]["volume"]["value"]
    )
    assert read["volume_ml"] == pytest.approx(whole, rel=0.01)
    assert tier["build"]["kind"] == "joined"
    problem(client.get(f"/api/orders/{id}/body.{kind}?tier=2"), 422)
    assert client.get(f"/api/orders/{id}/body.dae").status_code == 422


def told(client, sent):
    """The lines of a plan that is told in parts."""
    answer = client.post("/api/plan/parts", json={"document": sent}, headers=OURS)
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith("application/x-ndjson")
    return [json.loads(line) for line in answer.text.splitlines()]


def test_a_plan_that_takes_long_says_how_far_it_is_and_comes_to_the_same(client):
    sent = body(JoinedBuild(solids=(BoxSolid(wide_mm=181), BallSolid(z_mm=33))), cover=DrapeCover())
    *parts, last = told(client, sent)
    assert last.keys() == {"plan"}
    assert len(parts) >= 5
    shares = [one["share"] for one in parts]
    assert shares == sorted(shares) and shares[0] <= 0.1 and 0.5 < shares[-1] < 1
    assert {"The layers", "How the sheet lies", "The tins"} <= {one["part"] for one in parts}
    plain = client.post("/api/plan", json={"document": sent}, headers=OURS).json()
    # It comes without the workings of its figures, which are most of its bytes.
    lean = without_fields(plain, "given".__eq__)
    assert last["plan"] == lean
    # What is known takes no parts.
    assert told(client, sent) == [{"plan": lean}]


def test_a_plan_in_parts_is_refused_where_it_was_typed(client):
    thick = FreehandFinal(side_mm=24, top_mm=24)
    sent = body(HIVE, final=thick, cover=DrapeCover(thickness_mm=8))
    (last,) = told(client, sent)[-1:]
    assert last["problem"]["status"] == 422
    plain = client.post("/api/plan", json={"document": sent}, headers=OURS)
    assert plain.status_code == 422 and last["problem"] == plain.json()
    unread = client.post("/api/plan/parts", json={"document": {"format": 99}}, headers=OURS)
    assert unread.status_code == 422
