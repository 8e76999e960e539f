"""A browser of ours, as the server sees it."""

import asyncio
import time
from concurrent.futures import ThreadPoolExecutor

from fastapi.testclient import TestClient

from amber_spread.kitchen import OURS

__all__ = ["OURS", "client_of", "in_a_loop", "shelf"]


def client_of(app):
    """Asks an application as its own pages do: by its own name, with the header that changes carry."""
    return TestClient(app, base_url="http://127.0.0.1:8765", headers=dict(OURS))


def in_a_loop(coroutine):
    """What a coroutine returns, run in a thread of its own: the browser of other tests may keep a loop in this one."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, coroutine).result()


def shelf(client, **asked):
    """The orders on the first page of the shelf, once none of them is being drawn any longer."""
    until = time.monotonic() + 60
    while True:
        found = client.get("/api/orders", params=asked).json()["orders"]
        if not any(card["pending"] for card in found) or time.monotonic() > until:
            return found
        time.sleep(0.05)
