"""Send the API what nobody should: documents a little wrong or a little odd, and requests made up from its description.

The requests go to a real server over loopback, from one client or several at once. The report counts its errors and
adds up the memory of the server, its workers and its database. Meanwhile a second client plans a plain cake. Its
slowest answer is the figure that counts: nobody should feel another client's odd requests.
"""

import copy
import http.client
import io
import json
import random
import secrets
import signal
import struct
import sys
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager, suppress
from datetime import date
from multiprocessing import get_context
from multiprocessing.connection import Connection
from pathlib import Path
from queue import Queue
from typing import Any, NamedTuple
from urllib.parse import quote, urlencode

from amber_spread.core.document import FORMAT
from amber_spread.core.stock.kit import STARTING
from amber_spread.demo.pantry import PANTRY
from amber_spread.demo.week import week
from amber_spread.kitchen import Kitchen, children_of, kitchen, until_stopped
from amber_spread.web.app import make_app
from amber_spread.web.notices import PATH as NOTICES

SLOW_S = 1.0
FELT_S = 0.15
"""What a person feels as a wait, s: the limit for the second client."""
SHOWN = 5
"""How many of the slowest requests the report prints."""
SHOWN_BYTES = 1500
TIMEOUT_S = 60.0
REST_S = 0.05
"""Pause of the second client between plans, s."""
NAP_S = 0.005
EVERY = 10
"""One request in so many is made up from the description of the API alone; the others carry a document."""
ODD: list[Any] = [
    None, True, False, 0, -1, 1, 0.5, 1e-9, 49.9, 50, 600, 600.1, 1e9, -1e308, 1e308, 10**30, "", " ", "x", "ivory",
    "é", "a\u0000b", "\ud800", "😀" * 40, "x" * 500, "#FFFFFF", "2026-12-05T11:00", [], {}, [[]], [0, 0],
    {"kind": "round"}, {"kind": "nothing"},
]  # fmt: skip


class Asked(NamedTuple):
    """A request: how, where, and with what."""

    method: str
    path: str
    body: bytes
    media_type: str


class Told(NamedTuple):
    """How a request was answered."""

    asked: Asked
    status: int
    began: float
    seconds: float


class Wait(NamedTuple):
    """A plan of the second client: when it began, how long it took, and how long the computer itself stood still, s."""

    began: float
    seconds: float
    stood_still: float


def run_fuzz(requests: int, seed: int | None = None, clients: int = 1) -> int:
    """Send so many requests and print the figures. Returns the exit status: 1 if one was answered by an error of the
    server's own. Prints the seed, which is new each time unless given; one client then sends the same requests again.
    """
    seed = secrets.randbelow(2**31) if seed is None else seed
    print(f"seed {seed}")
    with kitchen() as asked, second_client(asked.port) as end:
        told = _sent(asked, requests, seed, clients)
        return _report(asked, told, end())


class Beside(NamedTuple):
    """What a second client saw: its plans, and how many of them failed."""

    waits: list[Wait]
    failed: int


@contextmanager
def second_client(port: int) -> Iterator[Callable[[], Beside]]:
    """Let a second client plan plain cakes meanwhile, in a process of its own: this one is busy making requests up.
    Gives a function that ends it and returns what it saw.
    """
    spawn = get_context("spawn")
    ours, theirs = spawn.Pipe()
    client = spawn.Process(target=_plan_plain_cakes, args=(port, theirs), daemon=True)
    client.start()
    theirs.close()
    ours.recv()  # it has sent its first plan

    def end() -> Beside:
        ours.send("end")
        seen: Beside = ours.recv()
        return seen

    try:
        yield end
    finally:
        client.kill()
        client.join()


class Stalls(threading.Thread):
    """Sleeps a moment at a time and records how much longer it took: so long this computer let nobody run."""

    def __init__(self) -> None:
        super().__init__(daemon=True)
        self._longest = 0.0

    def run(self) -> None:
        """Sleep again and again, until the process ends."""
        while True:
            began = time.perf_counter()
            time.sleep(NAP_S)
            self._longest = max(self._longest, time.perf_counter() - began - NAP_S)

    def longest_since_last(self) -> float:
        """The longest stall since the last call, s."""
        longest, self._longest = self._longest, 0.0
        return longest


class Client:
    """Sends requests over one connection, under a name of its own."""

    def __init__(self, port: int, name: str) -> None:
        self._connection = http.client.HTTPConnection("127.0.0.1", port, timeout=TIMEOUT_S)
        self._name = name

    def send(self, asked: Asked) -> tuple[Told, bytes]:
        """How a request was answered (status 0 if not at all), and the body of the answer."""
        began = time.perf_counter()
        try:
            headers = {"X-Amber-Spread": self._name, "Content-Type": asked.media_type}
            self._connection.request(asked.method, asked.path, asked.body or None, headers)
            answer = self._connection.getresponse()
            status, content = answer.status, answer.read()
        except (OSError, http.client.HTTPException):
            self._connection.close()
            status, content = 0, b""
        shown = asked._replace(body=asked.body[:SHOWN_BYTES])
        return Told(shown, status, began, time.perf_counter() - began), content


def _plan_plain_cakes(port: int, ending: Connection) -> None:
    """Plan cakes of changing size until something comes through the pipe, then answer with what was seen."""
    # Ctrl-C in a terminal reaches every process. Go on: the main process stops this one, and needs its figures.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    client, stalls = Client(port, secrets.token_hex(16)), Stalls()
    stalls.start()
    waits: list[Wait] = []
    failed = 0
    while not ending.poll(REST_S):
        tier = {"tin_diameter_mm": 150 + len(waits) % 90}
        body = {"document": {"format": FORMAT, "title": "Plain", "design": {"tiers": [tier]}}}
        told, _ = client.send(Asked("POST", "/api/plan", _written(body), "application/json"))
        failed += told.status != 200
        waits.append(Wait(told.began, told.seconds, stalls.longest_since_last()))
        if len(waits) == 1:
            ending.send("begun")
    ending.recv()
    ending.send(Beside(waits, failed))


def _sent(kitchen: Kitchen, requests: int, seed: int, clients: int) -> list[Told]:
    """Send the requests, from several clients at once, each of which makes up its own."""
    print(f"memory before {_memory_mb(kitchen):.0f} MB")
    turns: Queue[bool] = Queue(clients)
    with ThreadPoolExecutor(clients) as threads:
        told = [
            threads.submit(_client, kitchen.port, Maker(random.Random(f"{seed}, {client}")), turns)
            for client in range(clients)
        ]
        for number in until_stopped(requests):
            turns.put(True, timeout=3 * TIMEOUT_S)
            if number % 1000 == 0:
                print(f"  {number} of {requests}, memory {_memory_mb(kitchen):.0f} MB", file=sys.stderr)
        for _ in told:
            turns.put(False)
    return [one for client in told for one in client.result()]


def _client(port: int, maker: "Maker", turns: "Queue[bool]") -> list[Told]:
    """Send a request at each turn, until a turn says False."""
    client = Client(port, f"{maker.chance.getrandbits(128):032x}")
    found: list[Told] = []
    while turns.get():
        told, content = client.send(maker.any_one(len(found) + 1))
        if told.asked.path == "/api/orders" and told.status == 201:
            maker.ids.append(json.loads(content)["id"])
        found.append(told)
    return found


def _report(kitchen: Kitchen, told: list[Told], beside: Beside) -> int:
    print(f"memory after {_memory_mb(kitchen):.0f} MB")
    times = sorted(one.seconds for one in told)
    statuses = Counter(one.status // 100 * 100 for one in told)
    # 503 means "still working, ask again". It is counted separately.
    failed = [one for one in told if (one.status >= 500 and one.status != 503) or one.status == 0]
    slow = [one for one in told if one.seconds > SLOW_S]
    print(f"requests {len(told)}, errors of the server {len(failed)}, over {SLOW_S:g} s {len(slow)}")
    print(f"answers {dict(sorted(statuses.items()))}")
    print(f"median {1000 * times[len(times) // 2]:.1f} ms, slowest {1000 * times[-1]:.0f} ms")
    print(f"still working {sum(one.status == 503 for one in told)}")
    _report_beside(told, beside)
    for one in [*failed[:SHOWN], *slow[:SHOWN]]:
        print(f"  {one.status} in {one.seconds:.2f} s: {one.asked.method} {one.asked.path} {one.asked.body!r}")
    return 1 if failed or beside.failed else 0


def _report_beside(told: list[Told], beside: Beside) -> None:
    """Print how long the second client waited, and what the server was asked during its longest waits."""
    waits = sorted(beside.waits, key=lambda wait: wait.seconds)
    if not waits:
        return
    middle, slowest = 1000 * waits[len(waits) // 2].seconds, 1000 * waits[-1].seconds
    late = sum(wait.seconds > FELT_S for wait in waits)
    by_server = sum(wait.seconds - wait.stood_still > FELT_S for wait in waits)
    print(f"second client: plans {len(waits)}, failed {beside.failed}")
    print(f"second client: median {middle:.1f} ms, slowest {slowest:.0f} ms, over {1000 * FELT_S:.0f} ms {late}")
    print(f"  still over that without the time the computer stood still: {by_server}")
    for wait in waits[: -1 - SHOWN : -1]:
        during = [
            f"{one.asked.method} {one.asked.path[:40]} ({one.status}, {1000 * one.seconds:.0f} ms)"
            for one in told
            if one.began < wait.began + wait.seconds and wait.began < one.began + one.seconds
        ]
        stood_still = f"the computer stood still for {1000 * wait.stood_still:.0f} ms"
        print(f"  {1000 * wait.seconds:.0f} ms ({stood_still}), during {', '.join(during) or 'nothing'}")


def _memory_mb(kitchen: Kitchen) -> float:
    """Memory of the server with all its child processes (workers, PostgreSQL), MB: the sum of their proportional set
    sizes, in which shared pages count once.
    """
    assert kitchen.process is not None
    found, at = 0, [kitchen.process.pid]
    while at:
        pid = at.pop()
        with suppress(OSError):
            rollup = Path(f"/proc/{pid}/smaps_rollup").read_text()
            found += next(int(line.split()[1]) for line in rollup.splitlines() if line.startswith("Pss:"))
            at += children_of(pid)
    return found / 1024


class Maker:
    """Makes requests up: out of documents that are right, changed here and there, and out of the API's description."""

    def __init__(self, chance: random.Random) -> None:
        self.chance = chance
        self.orders = [one.model_dump(mode="json") for one in week(date(2026, 11, 24))]
        self.nodes: dict[str, list[Any]] = {}
        for order in self.orders:
            self._gather(order)
        self.ids = ["4a7c1d52-0000-4000-8000-000000000000"]
        described = make_app(None, built=Path("nowhere")).openapi()
        self.operations = [
            (method.upper(), path, operation)
            for path, methods in described["paths"].items()
            for method, operation in methods.items()
            if path != NOTICES  # which is answered without end
        ]

    def any_one(self, number: int) -> Asked:
        """The next request: mostly a document, sometimes a 3D file or a picture, sometimes made up."""
        if number % EVERY == 0:
            return self.made_up()
        return self.with_file() if number % EVERY == EVERY // 2 else self.with_document()

    def with_file(self) -> Asked:
        """A 3D file or a picture that is right, or damaged here and there."""
        path, media_type, made = self.chance.choice(
            [
                ("/api/model?unit=mm&up=z", "application/octet-stream", self._model),
                ("/api/model?unit=in&up=y", "application/octet-stream", self._model),
                ("/api/picture", "image/png", self._picture),
                ("/api/picture", "image/jpeg", self._picture),
            ]
        )
        content = bytearray(made())
        for _ in range(self.chance.choice((0, 0, 1, 5))):
            content[self.chance.randrange(len(content))] = self.chance.randrange(256)
        if self.chance.random() < 0.2:
            del content[self.chance.randrange(len(content)) :]
        return Asked("POST", path, bytes(content), media_type)

    def _model(self) -> bytes:
        """A binary STL file of a pyramid of any size, or of several."""
        triangles = []
        for at in range(self.chance.choice((1, 1, 3, 120))):
            wide, high, x = self.chance.uniform(1, 300), self.chance.uniform(1, 300), at * self.chance.uniform(0, 40)
            corners = [(x, 0, 0), (x + wide, 0, 0), (x + wide / 2, wide, 0), (x + wide / 2, wide / 2, high)]
            triangles += [[corners[at] for at in face] for face in ((0, 2, 1), (0, 1, 3), (1, 2, 3), (2, 0, 3))]
        packed = [struct.pack("<12fH", 0, 0, 0, *(value for corner in one for value in corner), 0) for one in triangles]
        return b"\0" * 80 + struct.pack("<I", len(packed)) + b"".join(packed)

    def _picture(self) -> bytes:
        from PIL import Image

        written = io.BytesIO()
        size = self.chance.choice((1, 40, 900)), self.chance.choice((1, 60, 1400))
        Image.new("RGB", size, (self.chance.randrange(256), 90, 60)).save(written, self.chance.choice(("PNG", "JPEG")))
        return written.getvalue()

    def with_document(self) -> Asked:
        """A request that carries a design file, or a kit or pantry, changed in a few places."""
        order = self._changed(self.chance.choice(self.orders))
        way: Callable[[Any], tuple[str, str, Any]] = self.chance.choice(
            [
                lambda order: ("POST", "/api/plan", {"document": order}),
                lambda order: ("POST", "/api/plan", {"document": order, "kit": self._changed(KIT)}),
                lambda order: ("POST", "/api/plan/parts", {"document": order}),
                lambda order: ("POST", "/api/plan/figure", {"figure": self.chance.choice(FIGURES), "document": order}),
                lambda order: ("POST", "/api/orders", order),
                lambda order: ("PUT", f"/api/orders/{self._id()}", {"began_from": self._few(), "document": order}),
                lambda order: ("POST", "/api/shop", {"document": order}),
                lambda order: ("POST", "/api/line/print", order),
                lambda order: ("POST", "/api/read", order),
                lambda _: ("PUT", "/api/kit", {"began_from": self._few(), "kit": self._changed(KIT)}),
                lambda _: ("PUT", "/api/pantry", {"began_from": self._few(), "pantry": self._changed(LARDER)}),
            ]
        )
        method, path, body = way(order)
        return Asked(method, path, _written(body), "application/json")

    def made_up(self) -> Asked:
        """A request to any address of the API, its places and questions filled with odd things."""
        method, path, operation = self.chance.choice(self.operations)
        query = {}
        for one in operation.get("parameters", ()):
            name, value = one["name"], self._answer(one["schema"])
            if one["in"] == "path":
                path = path.replace(
                    f"{{{name}}}",
                    quote(str(self._id() if name == "id" else value).encode("utf-8", "surrogatepass"), safe=""),
                )
            elif self.chance.random() < 0.7:
                query[name] = value
        content = operation.get("requestBody", {}).get("content", {})
        media_type = self.chance.choice([*content, "application/json"])
        body = b""
        if content:
            body = self._text() if "json" not in media_type else _written(self.chance.choice(ODD))
        asked = urlencode({name: str(value).encode("utf-8", "replace") for name, value in query.items()})
        return Asked(method, f"{path}?{asked}" if query else path, body, media_type)

    def _answer(self, schema: dict[str, Any]) -> Any:
        """Something a parameter may be: of its own kind, or odd."""
        if self.chance.random() < 0.3:
            return copy.deepcopy(self.chance.choice(ODD))
        choices = schema.get("enum") or [one for part in schema.get("anyOf", ()) for one in part.get("enum", ())]
        if choices:
            return self.chance.choice(choices)
        kinds = {schema.get("type"), *(part.get("type") for part in schema.get("anyOf", ()))}
        if "integer" in kinds:
            return self.chance.choice([0, 1, 2, 7, 62, 1000])
        if "boolean" in kinds:
            return self.chance.choice(["true", "false"])
        return self.chance.choice(["2026-11-24", "honey", "%", "in", "a4"])

    def _text(self) -> bytes:
        drawn = " ".join(
            f"{self.chance.choice('MLCQAZz')}{self.chance.uniform(-300, 300):.1f} {self._few()}"
            for _ in range(self.chance.randrange(40))
        )
        texts = [
            f'<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm"><path d="{drawn}"/></svg>',
            "item,size,unit,price\nbutter,250,g,2.5\n", "item;size;unit;price\n;;;\n", drawn, "\ufeff", "[]", "{}",
        ]  # fmt: skip
        return self.chance.choice(texts).encode()

    def _id(self) -> str:
        return self.chance.choice(self.ids[-50:])

    def _few(self) -> int:
        return self.chance.randrange(4)

    def _gather(self, node: Any) -> None:
        """Every part of the documents that are right, by the name it has there, to be put in other places of it."""
        if isinstance(node, dict):
            for name, value in node.items():
                self.nodes.setdefault(name, []).append(value)
                self._gather(value)
        elif isinstance(node, list):
            for value in node:
                self._gather(value)

    def _changed(self, document: Any) -> Any:
        changed = copy.deepcopy(document)
        for _ in range(self.chance.choice((0, 1, 1, 2, 4))):
            self._change(changed)
        return changed

    def _change(self, place: Any) -> None:
        """Change one place of it: down some way, then another value, another's part, one more, or one less."""
        node: Any = place
        while isinstance(node, dict | list) and node:
            name: Any = self.chance.choice(list(node) if isinstance(node, dict) else range(len(node)))
            value = node[name]
            if isinstance(value, dict | list) and value and self.chance.random() < 0.8:
                node = value
                continue
            what = self.chance.randrange(7)
            if what == 0:
                node[name] = copy.deepcopy(self.chance.choice(ODD))
            elif what == 1 and str(name) in self.nodes:
                node[name] = copy.deepcopy(self.chance.choice(self.nodes[str(name)]))
            elif what == 2 and isinstance(value, int | float) and not isinstance(value, bool):
                node[name] = value * self.chance.choice((-1, 0, 0.1, 0.5, 0.99, 1.01, 2, 10, 1e6))
            elif what == 3 and isinstance(node, list):
                node.append(copy.deepcopy(value))
            elif what == 4 and isinstance(node, dict):
                node[self.chance.choice(["hat", "kind", "colour", name])] = copy.deepcopy(self.chance.choice(ODD))
            elif what == 5 and isinstance(node, dict) and name in ("shape", "build"):
                node["shape"] = {"kind": "free", "points_mm": self._outline()}
            elif what == 6:
                del node[name]
            return

    def _outline(self) -> list[list[float]]:
        corners = self.chance.choice((3, 4, 7, 20, 60, 150))
        wild = self.chance.random()
        return [
            [round(self.chance.uniform(1 - wild, 1) * 150 * (index % 2 + 1), 2), round(self.chance.uniform(0, 300), 2)]
            if wild > 0.7
            else [
                round(150 + 100 * self.chance.uniform(0.8, 1) * (-1) ** (index // 2), 2),
                round(300 * index / corners, 2),
            ]
            for index in range(corners)
        ]


FIGURES = ("stack.height", "tiers.1.layers.height", "tiers.2.coats.final.weight", "")
KIT = STARTING.model_dump(mode="json")
LARDER = PANTRY.model_dump(mode="json")


def _written(body: Any) -> bytes:
    return json.dumps(body, ensure_ascii=True).encode()
