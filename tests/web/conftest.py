"""Fixtures of the web's tests, and a watch over the event loop."""

import asyncio
import gc
import os
import threading
import time
from collections import deque

import pytest

from amber_spread.jobs.warm import warm
from amber_spread.web.pace import slowness

LONGEST_MS = 50.0
"""Longest processor time of one callback on the event loop, ms."""
SAMPLE_S, SAMPLES = 0.25, 12
"""A computer whose speed doubles and halves within seconds is looked at so often; the slowest of so many samples counts."""


@pytest.fixture(autouse=True, scope="session")
def _the_event_loop_stays_quick():
    """Time every callback of the event loop; slow ones fail the tests at their end.

    The garbage collector is left out, because a test run has far more objects than a server. Its time is recorded by
    thread: each thread has a processor clock of its own. The limit grows on a
    slow or busy computer.
    """
    warm()
    # A test run has far more objects than a server: most of them are never looked at again.
    gc.freeze()
    gc.set_threshold(10_000, 10, 10)
    slow, run, collector = [], asyncio.Handle._run, threading.local()
    samples, ended = deque([1.0], maxlen=SAMPLES), threading.Event()

    def sample():
        while not ended.wait(SAMPLE_S):
            samples.append(slowness())

    def collects(phase, _):
        if phase == "start":
            collector.began = time.thread_time()
        else:
            collector.spent = getattr(collector, "spent", 0.0) + time.thread_time() - collector.began

    def watched(handle):
        began, before = time.thread_time(), getattr(collector, "spent", 0.0)
        run(handle)
        took_ms = 1000 * (time.thread_time() - began - (getattr(collector, "spent", 0.0) - before))
        # Playwright runs the test's own code in callbacks of its loop.
        if (
            took_ms > LONGEST_MS * max(samples)
            and took_ms > LONGEST_MS * slowness()
            and "playwright" not in repr(handle)
        ):
            slow.append(f"{took_ms:.0f} ms in {os.environ.get('PYTEST_CURRENT_TEST')}: {handle!r:.300}")

    asyncio.Handle._run = watched
    gc.callbacks.append(collects)
    threading.Thread(target=sample, daemon=True).start()
    yield
    ended.set()
    gc.callbacks.remove(collects)
    asyncio.Handle._run = run
    assert slow == [], "\n".join(slow)
