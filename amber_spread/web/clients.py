"""Which client a request comes from: a browser says a name of its own, anyone else goes by where they call from.

A name tells screens apart that share one machine or one way in; it lets nobody in and keeps nobody out.
"""

import re

from starlette.requests import HTTPConnection

ASKED_BY = "x-amber-spread"
"""The header that a change must carry, and a browser's own name in it. A page of another site would have to ask leave
to send it, and gets none.
"""
NAME = re.compile(r"[0-9a-f-]{16,64}")


def client_of(connection: HTTPConnection) -> str:
    """The client of a request: by the name in its header, or by its address."""
    said = connection.headers.get(ASKED_BY, "")
    if NAME.fullmatch(said):
        return said
    return connection.client.host if connection.client else ""
