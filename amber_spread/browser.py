"""Headless Chromium for the tests, the screenshots and the bench; needs the test packages and Debian's chromium."""

import os
import shutil
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from amber_spread.store.private_postgres import PrivatePostgres, free_port, temporary_folder

ROOT = Path(__file__).resolve().parents[1]
BENCH_LAPTOP = (1280, 800)
FLAGS = [
    "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage",
]  # fmt: skip


@contextmanager
def chromium() -> Iterator[Browser]:
    """A headless Chromium. Raises RuntimeError when Debian's package is not installed."""
    program = shutil.which("chromium")
    if program is None:
        raise RuntimeError("Chromium is not installed; on Debian it is the package chromium")
    flags = [*FLAGS, "--no-sandbox"] if os.geteuid() == 0 else FLAGS
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=program, args=flags)
        yield browser
        browser.close()


@contextmanager
def page(browser: Browser, size: tuple[int, int] = BENCH_LAPTOP) -> Iterator[Page]:
    """A page of its own: no storage shared with any other."""
    context = browser.new_context(viewport={"width": size[0], "height": size[1]}, locale="en-GB")
    context.set_default_timeout(15_000)
    yield context.new_page()
    context.close()


@contextmanager
def served(command: str = "start") -> Iterator[str]:
    """The application as a process of its own, over a PostgreSQL of its own; gives its address."""
    with temporary_folder() as folder, PrivatePostgres(folder / "postgres") as server:
        port = free_port()
        environment = {**os.environ, "AMBER_DATABASE_URL": server.url("served"), "PYTHONPATH": str(ROOT)}
        process = subprocess.Popen(
            [sys.executable, "-m", "amber_spread", command, "--port", str(port)],
            env=environment,
            stdout=subprocess.DEVNULL,
        )
        try:
            address = f"http://127.0.0.1:{port}"
            _wait_for(address, process)
            yield address
        finally:
            process.terminate()
            process.wait(15)


def _wait_for(address: str, process: "subprocess.Popen[bytes]") -> None:
    until = time.monotonic() + 30
    while time.monotonic() < until:
        if process.poll() is not None:
            raise RuntimeError(f"the application ended with status {process.returncode}")
        try:
            urllib.request.urlopen(f"{address}/api/handbook", timeout=2).close()
            return
        except (urllib.error.URLError, TimeoutError):
            time.sleep(0.1)
    raise RuntimeError("the application did not answer within 30 s")
