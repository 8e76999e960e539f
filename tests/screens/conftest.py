"""The application in a process of its own, and headless Chromium to use it with."""

import pytest
from playwright.sync_api import expect

from amber_spread.browser import chromium, page, served

# Long enough for a machine that is busy with other tests; what comes sooner is not waited for.
expect.set_options(timeout=30_000)


@pytest.fixture(scope="session")
def address():
    with served() as found:
        yield found


@pytest.fixture
def empty_address():
    """One of its own, for whoever must be the first to use it."""
    with served() as found:
        yield found


@pytest.fixture(scope="session")
def demo_address():
    with served("demo") as found:
        yield found


@pytest.fixture(scope="session")
def browser():
    with chromium() as found:
        yield found


@pytest.fixture
def screen(browser):
    """A page that fails the test when the program in it does."""
    with page(browser) as found:
        errors = []
        found.on("pageerror", lambda error: errors.append(str(error)))
        yield found
        assert errors == []
