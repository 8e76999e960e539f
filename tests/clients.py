"""A browser of ours, as the server sees it."""

from fastapi.testclient import TestClient

OURS = {"X-Amber-Spread": "1"}


def client_of(app):
    """Asks an application as its own pages do: by its own name, with the header that changes carry."""
    return TestClient(app, base_url="http://127.0.0.1:8765", headers=OURS)


def shelf(client, **asked):
    """The orders on the first page of the shelf."""
    return client.get("/api/orders", params=asked).json()["orders"]
