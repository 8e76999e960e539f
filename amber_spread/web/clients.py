"""Which client sent a request, and what each client may do at once.

A browser sends a name that it made up for itself; anyone else is known by their address. The name tells apart the
screens that share one machine or one proxy. It grants no rights.
"""

import re
from weakref import WeakValueDictionary

from anyio import CapacityLimiter
from starlette.requests import HTTPConnection

ASKED_BY = "x-amber-spread"
"""The header that a change must carry, with the browser's own name in it. A page of another site cannot send it."""
NAME = re.compile(r"[0-9a-f-]{16,64}")


def client_of(connection: HTTPConnection) -> str:
    """The client of a request: the name in its header, or its address."""
    name = connection.headers.get(ASKED_BY, "")
    if NAME.fullmatch(name):
        return name
    return connection.client.host if connection.client else ""


class ClientLimits:
    """A limiter for each client, as long as anyone uses it."""

    def __init__(self, at_once: int) -> None:
        self.at_once = at_once
        self._limiters: WeakValueDictionary[str, CapacityLimiter] = WeakValueDictionary()

    def of(self, client: str) -> CapacityLimiter:
        """The limiter of a client: `async with` waits for one of its places."""
        return self._limiters.setdefault(client, CapacityLimiter(self.at_once))
