"""Kill the server and its database over and over in the middle of saves: no acknowledged save may be lost."""

import http.client
import random
import statistics
import sys
import threading
import time
from collections.abc import Callable

from amber_spread.core.document import FORMAT
from amber_spread.kitchen import ask, kitchen, until_stopped

ROUNDS = 20
SEED = 20261126
WRITERS = 3
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
    with kitchen() as killed:
        backs: list[float] = []
        ways: list[Callable[[], None]] = [killed.kill_server, killed.kill_database, killed.kill_both]
        writers: list[Writer] = []
        lost = 0
        for number in until_stopped(rounds):
            mine = [Writer(killed.port, f"Order {number}.{one}") for one in range(WRITERS)]
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
            backs.append(killed.wait() if killed.runs else killed.start())
            lost += sum(_lost(killed.port, writer) for writer in mine)
            if number % 10 == 0 or number == rounds:
                print(f"  {number} of {rounds} rounds, {lost} lost", file=sys.stderr)
        lost = sum(_lost(killed.port, writer) for writer in writers)
        acknowledged = sum(len(writer.kept) for writer in writers)
        stopped = killed.stop()
    print(f"rounds {len(writers) // WRITERS}, acknowledged {acknowledged}, lost {lost}")
    print(f"back after a kill in {statistics.median(backs):.1f} s (median), {max(backs):.1f} s at most")
    print(f"stopped in {stopped:.1f} s")
    return 1 if lost or not acknowledged else 0


def _lost(port: int, writer: Writer) -> int:
    """How many acknowledged saves of a writer are not there, word for word, under their revision."""
    if not writer.id:
        return 0
    status, found = ask(port, "GET", f"/api/orders/{writer.id}/revisions")
    titles = {one["number"]: one["title"] for one in found} if status == 200 else {}
    return sum(titles.get(revision) != title for revision, title in writer.kept.items())
