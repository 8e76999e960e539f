"""A server as a process of its own, over data of its own: for the tests, the bench, the crash test and the fuzz."""

import http.client
import json
import os
import re
import signal
import subprocess
import sys
import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from pathlib import Path
from types import MappingProxyType
from typing import Any

from amber_spread.store.private_postgres import temporary_folder

ROOT = Path(__file__).resolve().parents[1]
STARTS_S = 120.0
"""So long a server may take until it answers: on two busy processors reading the libraries alone took a minute."""
OURS = MappingProxyType({"X-Amber-Spread": "1"})
"""What every page of ours sends along; nobody adds to it."""


class Kitchen:
    """A server with its data in a folder; it can be killed and started again."""

    def __init__(self, folder: Path, command: str = "start", options: Sequence[str] = ()) -> None:
        self.folder = folder
        self.port = 0
        """The server chooses it at its first start, and keeps it."""
        self.log = folder / "server.log"
        self.process: subprocess.Popen[bytes] | None = None
        self._words = ["-X", "faulthandler", "-m", "amber_spread", command, *options, "--port"]

    @property
    def address(self) -> str:
        """Where its pages are."""
        return f"http://127.0.0.1:{self.port}"

    @property
    def runs(self) -> bool:
        """Whether the server's own process is there."""
        return self.process is not None and self.process.poll() is None

    def start(self) -> float:
        """Start it, and wait until it answers. Returns how long that took, s."""
        environment = {**os.environ, "AMBER_DATA": str(self.folder), "PYTHONPATH": str(ROOT)}
        environment.pop("AMBER_DATABASE_URL", None)
        with self.log.open("w") as written:
            self.process = subprocess.Popen(
                [sys.executable, *self._words, str(self.port)], env=environment, stdout=written, stderr=written
            )
        return self.wait()

    def wait(self) -> float:
        """Wait until it answers with its orders. Returns how long that took, s. Raises RuntimeError with its log."""
        began = time.monotonic()
        while time.monotonic() - began < STARTS_S and self.runs:
            if not self.port and (said := re.search(r"ready at http://127\.0\.0\.1:(\d+)", self.log.read_text())):
                self.port = int(said.group(1))
            try:
                if self.port and ask(self.port, "GET", "/api/orders")[0] == 200:
                    return time.monotonic() - began
            except (OSError, http.client.HTTPException):
                pass
            time.sleep(0.05)
        if self.process is not None and self.runs:
            # Where each of its threads stands goes into the log.
            self.process.send_signal(signal.SIGABRT)
            self.process.wait()
        raise RuntimeError(f"the server did not answer within {STARTS_S:g} s:\n{self.log.read_text()}")

    def kill_server(self) -> None:
        """Kill the server's processes. The database keeps running, and the next start finds it."""
        assert self.process is not None
        serving = [pid for pid in children_of(self.process.pid) if "postgres" not in _called(pid)]
        self.process.kill()
        for pid in serving:
            with suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)
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
        """End it in good order; where it is gone, end the database it left. Returns how long that took, s."""
        began = time.monotonic()
        if self.process is not None and self.runs:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(30)
        else:
            with suppress(OSError, ValueError):
                self.kill_database()
        return time.monotonic() - began


@contextmanager
def kitchen(command: str = "start", options: Sequence[str] = ()) -> Iterator[Kitchen]:
    """A server over an empty book, or the demo's; ended, and its data removed, when the block ends."""
    with temporary_folder() as folder:
        found = Kitchen(folder, command, options)
        try:
            found.start()
            yield found
        finally:
            found.stop()


def children_of(pid: int) -> list[int]:
    """The child processes of a process, in the order they started."""
    found: list[int] = []
    for thread in Path(f"/proc/{pid}/task").glob("*/children"):
        with suppress(OSError):
            found += map(int, thread.read_text().split())
    return sorted(found)


def _called(pid: int) -> str:
    with suppress(OSError):
        return Path(f"/proc/{pid}/comm").read_text()
    return ""


def ask(port: int, method: str, path: str, body: object = None, timeout: float = 10) -> tuple[int, Any]:
    """One request over a connection of its own: its status, and what was answered."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=timeout)
    try:
        headers = {**OURS, "Content-Type": "application/json"}
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        return answer.status, json.loads(answer.read() or b"null")
    finally:
        connection.close()


def until_stopped(count: int) -> Iterator[int]:
    """Numbers from 1 to `count`, fewer where Ctrl-C comes: what is under way is ended first."""
    stopped: list[int] = []
    before = signal.signal(signal.SIGINT, lambda number, _: stopped.append(number))
    try:
        for number in range(1, count + 1):
            if stopped:
                print("stopped early", file=sys.stderr)
                return
            yield number
    finally:
        signal.signal(signal.SIGINT, before)
