"""Start a worker: here, or as a child process of a server."""

import logging
import os
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from sqlalchemy.exc import ArgumentError

from amber_spread.store.engine import DATABASE_URL, NO_ADDRESS, with_driver
from amber_spread.store.private_postgres import signals_waiting

ROOT = Path(__file__).resolve().parents[2]
RESTART_S = 1.0
STOPS_S = 5.0


def log_warnings() -> None:
    """Log warnings and errors, with the time."""
    logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(name)s: %(message)s")


def run_jobs(at_once: int, with_parent: bool) -> int:
    """Run long jobs of the database at AMBER_DATABASE_URL until Ctrl-C. Returns the exit status."""
    from amber_spread.jobs.worker import run_worker

    log_warnings()
    try:
        run_worker(with_driver(os.environ.get(DATABASE_URL, "")), at_once, with_parent)
    except ArgumentError:
        print(NO_ADDRESS, file=sys.stderr)
        return 2
    return 0


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
        with signals_waiting():
            for process in processes:
                process.terminate()
                with suppress(subprocess.TimeoutExpired):
                    process.wait(STOPS_S)
                process.kill()
            keeper.join(STOPS_S)
