"""Kill the server and its database over and over in the middle of saves: no acknowledged save may be lost.

Writers save orders, carved orders, the kit, the pantry and the kitchen's defaults to two server processes, and go on
while these recover. Killing a process is not a power cut: the system still writes its buffers to disk. So the test also
checks that the database has the settings on that protect a save from a power cut (fsync, full_page_writes,
synchronous_commit).
"""

import http.client
import json
import random
import statistics
import sys
import threading
import time
from collections.abc import Callable
from typing import Any

from sqlalchemy import text

from amber_spread.core.document import FORMAT
from amber_spread.kitchen import Kitchen, ask, kitchen, until_stopped
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import PrivatePostgres

ROUNDS = 20
ANSWERS_S = 120.0
"""So long the server may take to say what it has; a busy disk is no lost save."""
SEED = 20261126
SERVING = 2
"""Server processes."""
SAFE = ("fsync", "full_page_writes", "synchronous_commit")
"""Settings that protect a save from a power cut (published: PostgreSQL documentation, chapter 30)."""
UP_S = (0.2, 1.2)
"""So long, at least and at most, the writers save before the next kill."""


class Writer(threading.Thread):
    """Saves one order again and again, and notes what was acknowledged."""

    def __init__(self, port: int, name: str) -> None:
        super().__init__(daemon=True)
        self.port = port
        self.title = name
        self.id = ""
        self.revision = 0
        self.sent = 0
        self.kept: dict[int, str] = {}
        """By revision, the title that the server said was saved."""
        self.ending = threading.Event()

    def run(self) -> None:
        """Save until told to end; a server that is away is asked again."""
        while not self.ending.is_set():
            try:
                self._save()
            except (OSError, http.client.HTTPException, ValueError):
                time.sleep(0.02)

    def _save(self) -> None:
        title = f"{self.title}, save {self.sent}"
        made = {"format": FORMAT, "title": title, "design": {"tiers": [self._tier()]}}
        if not self.id:
            status, found = ask(self.port, "POST", "/api/orders", made)
        else:
            status, found = ask(
                self.port, "PUT", f"/api/orders/{self.id}", {"began_from": self.revision, "document": made}
            )
        if status == 409:
            # The save before was kept and its answer cut off: go on from there.
            self.revision = found["current"]
            return
        if status in (200, 201):
            self.id, self.revision = found["id"], found["revision"]
            self.kept[self.revision] = title
            self.sent += 1

    def _tier(self) -> dict[str, Any]:
        return {"tin_diameter_mm": 150 + self.sent % 90}

    def lost(self) -> int:
        """The number of acknowledged saves that are missing or different."""
        if not self.id:
            return 0
        found = _stored(self.port, f"/api/orders/{self.id}/revisions") or []
        titles = {one["number"]: one["title"] for one in found}
        return sum(titles.get(revision) != title for revision, title in self.kept.items())


class CarvedWriter(Writer):
    """Saves a carved order: its plan follows after the save."""

    def _tier(self) -> dict[str, Any]:
        view = [[0, 0], [200, 0], [200, 61 + self.sent % 30], [90, 97], [0, 60]]
        return super()._tier() | {"build": {"kind": "carved", "points_mm": view}}


class WholeWriter(Writer):
    """Saves the kit, the pantry or the kitchen's defaults. The API gives the newest one."""

    def __init__(self, port: int, name: str, change: Callable[[Any, int], None]) -> None:
        super().__init__(port, name)
        self.change = change
        self.content: Any = None
        self.saved: dict[int, Any] = {}

    def _save(self) -> None:
        if self.content is None:
            status, found = ask(self.port, "GET", f"/api/{self.title}")
            if status == 200:
                self.revision, self.content = found["number"], found[self.title]
            return
        self.change(self.content, self.sent)
        sent = json.loads(json.dumps(self.content))
        status, found = ask(self.port, "PUT", f"/api/{self.title}", {"began_from": self.revision, self.title: sent})
        if status == 409:
            self.revision = found["current"]
        elif status == 200:
            self.revision = found["number"]
            self.saved[self.revision] = found[self.title]
            self.kept[self.revision] = self.title
            self.sent += 1

    def lost(self) -> int:
        """1 unless the newest acknowledged save is there, or a later one."""
        if not self.saved:
            return 0
        found, newest = _stored(self.port, f"/api/{self.title}"), max(self.saved)
        if found is None or found["number"] < newest:
            return 1
        return int(found["number"] == newest and found[self.title] != self.saved[newest])


def _stored(port: int, path: str) -> Any:
    """What the server has there, None where nothing. Asks again while it is too busy to say. Raises TimeoutError."""
    until = time.monotonic() + ANSWERS_S
    while time.monotonic() < until:
        try:
            status, found = ask(port, "GET", path)
        except (OSError, http.client.HTTPException):
            status = 0
        if status in (200, 404):
            return found if status == 200 else None
        time.sleep(0.2)
    raise TimeoutError(f"the server did not say within {ANSWERS_S:g} s what {path} has")


def _pin(kit: Any, number: int) -> None:
    kit["pin_mm"] = 300 + number % 200


def _hour(pantry: Any, number: int) -> None:
    pantry["terms"]["hour_price"] = 10 + number % 90


def _crumb(practice: Any, number: int) -> None:
    practice["crumb_mm"] = 1 + number % 8 / 2


def _writers(port: int, number: int) -> list[Writer]:
    return [
        Writer(port, f"Order {number}.1"),
        Writer(port, f"Order {number}.2"),
        CarvedWriter(port, f"Carved {number}"),
        WholeWriter(port, "kit", _pin),
        WholeWriter(port, "pantry", _hour),
        WholeWriter(port, "practice", _crumb),
    ]


def _unsafe(kitchen: Kitchen) -> list[str]:
    """The names of the protecting settings that are off."""
    url = PrivatePostgres(kitchen.folder / "postgres").url_of_running("amber")
    with OrderBook.at(url or "").engine.connect() as connection:
        return [name for name in SAFE if connection.execute(text(f"show {name}")).scalar_one() != "on"]


def run_crashtest(rounds: int = ROUNDS) -> int:
    """Kill and look so many times, and print the figures. Returns the exit status: 1 where a save was lost."""
    chance = random.Random(SEED)
    with kitchen(options=("--workers", str(SERVING))) as killed:
        unsafe = _unsafe(killed)
        backs: list[float] = []
        ways: list[Callable[[], None]] = [killed.kill_server, killed.kill_database, killed.kill_both]
        writers: list[Writer] = []
        lost = wholes = done = 0
        for number in until_stopped(rounds):
            mine = _writers(killed.port, number)
            for writer in mine:
                writer.start()
            time.sleep(chance.uniform(*UP_S))
            ways[number % len(ways)]()
            backs.append(killed.wait() if killed.runs else killed.start())
            time.sleep(chance.uniform(0, 0.3))
            for writer in mine:
                writer.ending.set()
            for writer in mine:
                writer.join(15)
            lost += sum(writer.lost() for writer in mine)
            writers.extend(writer for writer in mine if not isinstance(writer, WholeWriter))
            wholes += sum(len(writer.kept) for writer in mine if isinstance(writer, WholeWriter))
            done = number
            if number % 10 == 0 or number == rounds:
                print(f"  {number} of {rounds} rounds, {lost} lost", file=sys.stderr)
        lost += sum(writer.lost() for writer in writers)
        acknowledged = sum(len(writer.kept) for writer in writers) + wholes
        stopped = killed.stop()
    print(f"rounds {done}, acknowledged {acknowledged}, lost {lost}")
    print(f"off in the database: {', '.join(unsafe) or 'nothing'} (of {', '.join(SAFE)})")
    print(f"back after a kill in {statistics.median(backs):.1f} s (median), {max(backs):.1f} s at most")
    print(f"stopped in {stopped:.1f} s")
    return 1 if lost or unsafe or not acknowledged else 0
