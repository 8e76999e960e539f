"""Who is let in, and what every answer says of itself.

The server listens on this machine alone, but a page of another site, open in the same browser, can send it requests
too. So nothing is changed without a header that such a page cannot send, nothing is answered under a name that is not
the server's own, and no page of ours runs, loads or is framed by what is not ours.
"""

import os
from collections.abc import Iterator
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from amber_spread.web.clients import ASKED_BY
from amber_spread.web.errors import problem

OWN_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]"})
TYPES = frozenset(
    {
        "application/json",
        "application/octet-stream",
        "text/csv",
        "image/jpeg",
        "image/png",
        "image/svg+xml",
        "image/vnd.dxf",
    }
)
SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
ALWAYS = {
    "content-security-policy": (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    ),
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}
FOR_EVER = "public, max-age=31536000, immutable"


class Guard:
    """Lets in what may come in, and writes on every answer what a browser may do with it."""

    def __init__(self, app: ASGIApp, names: frozenset[str] | None = None) -> None:
        self.app = app
        self.names = own_names() if names is None else names

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        method, path = scope["method"], scope["path"]
        only_head = method == "HEAD"

        async def marked(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in ALWAYS.items():
                    headers.setdefault(name, value)
                found = message["status"] < 400
                if path.startswith("/api/"):
                    headers["cache-control"] = "no-store"
                elif path.startswith("/assets/") and found:
                    headers["cache-control"] = FOR_EVER
            elif only_head and message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        for status, title, words in self._objections(method, Headers(scope=scope)):
            await problem(status, title, words)(scope, receive, marked)
            return
        await self.app({**scope, "method": "GET"} if only_head else scope, receive, marked)

    def _objections(self, method: str, headers: Headers) -> Iterator[tuple[int, str, str]]:
        host = headers.get("host", "")
        if _name_of(host) not in self.names:
            yield 421, "That is not this kitchen's name", "Open Amber Spread at the address it said when it started."
        if method in SAFE:
            return
        origin = headers.get("origin")
        if origin is not None and urlsplit(origin).netloc != host:
            yield 403, "That came from elsewhere", "Another site's page asked for this change, and nothing was changed."
        if ASKED_BY not in headers:
            yield 403, "That came from elsewhere", "A change must carry the header X-Amber-Spread. Nothing was changed."
        sent = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
        if sent and headers.get("content-type", "").partition(";")[0].strip().lower() not in TYPES:
            yield 415, "That is not of a kind that is read", f"What is read is {', '.join(sorted(TYPES))}."


def own_names() -> frozenset[str]:
    """The names the server goes by: this machine's own, and those in AMBER_HOSTS, parted by commas."""
    more = (name.strip().lower() for name in os.environ.get("AMBER_HOSTS", "").split(","))
    return OWN_NAMES | frozenset(name for name in more if name)


def _name_of(host: str) -> str:
    """The name in a Host header, without its port."""
    if host.startswith("["):
        return host.partition("]")[0] + "]"
    return host.partition(":")[0].lower()
