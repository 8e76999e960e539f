"""Kill the server and its database over and over in the middle of saves: no acknowledged save may be lost."""

import http.client
import json
import os
import random
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from amber_spread.core.document import FORMAT
from amber_spread.store.private_postgres import free_port, temporary_folder

ROOT = Path(__file__).resolve().parents[1]
ROUNDS = 20
SEED = 20261126
WRITERS = 3
STARTS_S = 60.0
UP_S = (0.2, 1.2)
"""So long, at least and at most, the writers save before the next kill."""


class Kitchen:
    """A server as a process of its own, with its data in a folder; it can be killed and started again."""

    def __init__(self, folder: Path, options: Sequence[str] = ()) -> None:
        self.folder = folder
        self.options = options
        self.port = free_port()
        self.log = folder / "server.log"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> float:
        """Start it, and wait until it answers. Returns how long that took, s."""
        began = time.monotonic()
        environment = {**os.environ, "AMBER_DATA": str(self.folder), "PYTHONPATH": str(ROOT)}
        environment.pop("AMBER_DATABASE_URL", None)
        words = [sys.executable, "-X", "faulthandler", "-m", "amber_spread", "start", "--port", str(self.port)]
        with self.log.open("w") as written:
            self.process = subprocess.Popen([*words, *self.options], env=environment, stdout=written, stderr=written)
        while time.monotonic() - began < STARTS_S:
            try:
                if ask(self.port, "GET", "/api/orders")[0] == 200:
                    return time.monotonic() - began
            except (OSError, http.client.HTTPException):
                pass
            if self.process.poll() is not None:
                raise RuntimeError(f"the server ended with status {self.process.returncode}:\n{self.log.read_text()}")
            time.sleep(0.05)
        self.process.send_signal(signal.SIGABRT)
        self.process.wait()
        raise RuntimeError(f"the server did not answer within {STARTS_S:g} s:\n{self.log.read_text()}")

    def kill_server(self) -> None:
        """The server's own process, at once; its database is left running, for the next start to find."""
        assert self.process is not None
        self.process.kill()
        self.process.wait()

    def kill_database(self) -> None:
        """Its database, at once; the server starts it again by itself."""
        mark = self.folder / "postgres" / "data" / "postmaster.pid"
        os.kill(int(mark.read_text().split("\n", 1)[0]), signal.SIGKILL)

    def kill_both(self) -> None:
        """As a power cut does."""
        self.kill_database()
        self.kill_server()

    def stop(self) -> float:
        """End it in good order. Returns how long that took, s."""
        began = time.monotonic()
        if self.process is not None and self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(30)
        return time.monotonic() - began


def ask(port: int, method: str, path: str, body: object = None, timeout: float = 10) -> tuple[int, Any]:
    """One request over a connection of its own: its status, and what was answered."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=timeout)
    try:
        headers = {"X-Amber-Spread": "1", "Content-Type": "application/json"}
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        return answer.status, json.loads(answer.read() or b"null")
    finally:
        connection.close()


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
        made = {"format": FORMAT, "title": title, "design": {"tiers": [{"tin_diameter_mm": 150 + self.sent % 90}]}}
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


def run_crashtest(rounds: int = ROUNDS) -> int:
    """Kill and look so many times, and print the figures. Returns the exit status: 1 where a save was lost."""
    chance = random.Random(SEED)
    with temporary_folder() as folder, _kitchen(folder) as kitchen:
        starts = [kitchen.start()]
        ways: list[Callable[[], None]] = [kitchen.kill_server, kitchen.kill_database, kitchen.kill_both]
        writers: list[Writer] = []
        lost = 0
        for number in _until_stopped(rounds):
            mine = [Writer(kitchen.port, f"Order {number}.{one}") for one in range(WRITERS)]
            for writer in mine:
                writer.start()
            time.sleep(chance.uniform(*UP_S))
            ways[number % len(ways)]()
            time.sleep(chance.uniform(0, 0.3))
            for writer in mine:
                writer.ending.set()
            for writer in mine:
                writer.join(15)
            writers.extend(mine)
            if kitchen.process is not None and kitchen.process.poll() is not None:
                starts.append(kitchen.start())
            else:
                starts.append(_until_back(kitchen))
            lost += sum(_lost(kitchen.port, writer) for writer in mine)
            if number % 10 == 0 or number == rounds:
                print(f"  {number} of {rounds} rounds, {lost} lost", file=sys.stderr)
        lost = sum(_lost(kitchen.port, writer) for writer in writers)
        acknowledged = sum(len(writer.kept) for writer in writers)
        stopped = kitchen.stop()
    print(f"rounds {len(writers) // WRITERS}, acknowledged {acknowledged}, lost {lost}")
    print(f"back after a kill in {sorted(starts)[len(starts) // 2]:.1f} s (median), {max(starts):.1f} s at most")
    print(f"stopped in {stopped:.1f} s")
    return 1 if lost or not acknowledged else 0


def _until_stopped(rounds: int) -> Iterator[int]:
    """The rounds one after another, fewer where Ctrl-C comes: the one that is under way is ended first."""
    stopped: list[int] = []
    signal.signal(signal.SIGINT, lambda number, _: stopped.append(number))
    for number in range(1, rounds + 1):
        if stopped:
            return
        yield number


@contextmanager
def _kitchen(folder: Path) -> Iterator[Kitchen]:
    kitchen = Kitchen(folder)
    try:
        yield kitchen
    finally:
        kitchen.stop()


def _until_back(kitchen: Kitchen) -> float:
    """How long it took the server to reach its database again, s."""
    began = time.monotonic()
    while time.monotonic() - began < STARTS_S:
        try:
            if ask(kitchen.port, "GET", "/api/orders")[0] == 200:
                return time.monotonic() - began
        except (OSError, http.client.HTTPException):
            pass
        time.sleep(0.05)
    raise RuntimeError("the server did not reach its database again")


def _lost(port: int, writer: Writer) -> int:
    """How many acknowledged saves of a writer are not there, word for word, under their revision."""
    if not writer.id:
        return 0
    status, found = ask(port, "GET", f"/api/orders/{writer.id}/revisions")
    titles = {one["number"]: one["title"] for one in found} if status == 200 else {}
    return sum(titles.get(revision) != title for revision, title in writer.kept.items())
