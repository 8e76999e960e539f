"""Headless Chromium for the tests, the screenshots and the bench; needs the test packages and Debian's chromium."""

import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from amber_spread.kitchen import kitchen

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
    context.set_default_timeout(30_000)
    yield context.new_page()
    context.close()


@contextmanager
def served(command: str = "start") -> Iterator[str]:
    """The application as a process of its own; gives its address."""
    with kitchen(command) as found:
        yield found.address
