"""What travels is made smaller; what stays on this machine is not, since that takes longer than handing it over."""

from starlette.datastructures import Headers
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Receive, Scope, Send

BETWEEN = ("x-forwarded-for", "forwarded", "via")
"""What a request carries that came by way of a balancer, and so from another machine."""
ONCE = ("/assets", "/api/handbook")
"""What a browser asks for once and keeps: it may take longer to be made as small as it can be."""


class Compressed:
    """Compresses the answers that go by way of a balancer."""

    def __init__(self, app: ASGIApp) -> None:
        self._as_it_is = app
        self._smaller = GZipMiddleware(app, minimum_size=1000, compresslevel=1)
        self._smallest = GZipMiddleware(app, minimum_size=1000, compresslevel=9)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        travels = scope["type"] == "http" and any(name in Headers(scope=scope) for name in BETWEEN)
        if not travels:
            await self._as_it_is(scope, receive, send)
        elif scope["path"].startswith(ONCE):
            await self._smallest(scope, receive, send)
        else:
            await self._smaller(scope, receive, send)
