"""A browser of ours, as the server sees it."""

from fastapi.testclient import TestClient

from amber_spread.kitchen import OURS

__all__ = ["OURS", "client_of", "shelf"]


def client_of(app):
    """Asks an application as its own pages do: by its own name, with the header that changes carry."""
    return TestClient(app, base_url="http://127.0.0.1:8765", headers=dict(OURS))


def shelf(client, **asked):
    """The orders on the first page of the shelf."""
    return client.get("/api/orders", params=asked).json()["orders"]
