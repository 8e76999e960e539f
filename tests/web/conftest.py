"""What every test of the web holds: nobody's work stands in the way of another's answer."""

import asyncio
import gc
import os
import time

import pytest

from amber_spread.serve import warm

LONGEST_MS = 50.0
"""The event loop is held up no longer than that, by the processor's time: the clock of a busy machine says nothing."""


@pytest.fixture(autouse=True, scope="session")
def _nothing_holds_up_the_loop():
    """All that the event loop runs in these tests is watched; what takes longer fails them at their end."""
    warm()
    held, run, collected = [], asyncio.Handle._run, [0.0, 0.0]

    def collects(phase, _):
        """The collector goes through all that the tests hold, which no server does."""
        collected[phase == "stop"] += time.thread_time()

    def watched(handle):
        began, before = time.thread_time(), collected[1] - collected[0]
        run(handle)
        took_ms = 1000 * (time.thread_time() - began - (collected[1] - collected[0] - before))
        if took_ms > LONGEST_MS:
            held.append(f"{took_ms:.0f} ms in {os.environ.get('PYTEST_CURRENT_TEST')}")

    asyncio.Handle._run = watched
    gc.callbacks.append(collects)
    yield
    gc.callbacks.remove(collects)
    asyncio.Handle._run = run
    assert held == [], "\n".join(held)
