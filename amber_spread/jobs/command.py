"""Start a worker as a child process."""

import os
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress

from amber_spread.jobs.program import ROOT
from amber_spread.stopping import SignalsWaiting
from amber_spread.store.engine import DATABASE_URL

RESTART_S = 1.0
STOPS_S = 5.0


@contextmanager
def job_worker(url: str, at_once: int) -> Iterator[None]:
    """Run long jobs in a process of its own within the block. If that process ends, another starts."""
    command = [sys.executable, "-m", "amber_spread", "worker", "--jobs", str(at_once), "--with-parent"]
    environment = {**os.environ, DATABASE_URL: url, "PYTHONPATH": str(ROOT)}
    ending = threading.Event()
    processes: list[subprocess.Popen[bytes]] = []

    def keep_running() -> None:
        while not ending.is_set():
            process = subprocess.Popen(command, env=environment, stdin=subprocess.PIPE, start_new_session=True)
            processes[:] = [process]
            if ending.is_set():
                process.kill()
            process.wait()
            ending.wait(RESTART_S)

    keeper = threading.Thread(target=keep_running, name="job worker", daemon=True)
    keeper.start()
    try:
        yield
    finally:
        ending.set()
        with SignalsWaiting():
            for process in processes:
                process.terminate()
                with suppress(subprocess.TimeoutExpired):
                    process.wait(STOPS_S)
                process.kill()
            keeper.join(STOPS_S)
