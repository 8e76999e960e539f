"""How long the server waits for a request, and how long it serves one connection."""

import asyncio
import random
from typing import Any

from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

from amber_spread.web.notices import is_endless

MOST_HEAD = 64 * 1024
"""Size limit of request headers, bytes."""
READ_AT_ONCE = 256 * 1024
"""One read may also contain the start of a body."""
HEADERS_S = 10.0
"""So long the head of a request may take to come in whole."""
LONGEST_KEPT_S = 120.0
"""Between half of this age and all of it, by chance, a connection is closed after its next answer, and the client opens
another. Otherwise the first of several serving processes to be ready after a start would go on serving everybody alone.
Renewed every 10 s, people changed processes so often that their plans began from nothing: a fifth more processor time.
"""


class Patient(HttpToolsProtocol):
    """HTTP as uvicorn speaks it, with an end to a head that trickles in and to a connection that has grown old."""

    _old_s = 0.0
    _giving_up: asyncio.TimerHandle | None = None
    _head = 0
    _in_head = True

    def data_received(self, data: bytes) -> None:
        """Close the connection once the headers are too large."""
        if self._in_head:
            self._head += len(data)
            if self._head > MOST_HEAD + READ_AT_ONCE:
                self.transport.close()
                return
        super().data_received(data)

    def connection_made(self, transport: Any) -> None:
        """Somebody is there, and is to say what they want."""
        super().connection_made(transport)
        self._old_s = self.loop.time() + LONGEST_KEPT_S * random.uniform(0.5, 1)
        self._wait()

    def on_message_begin(self) -> None:
        """Another request begins on the connection."""
        super().on_message_begin()
        self._head, self._in_head = 0, True
        self._wait()

    def on_headers_complete(self) -> None:
        """It has been said; how long the rest may take is for others to see."""
        self._done()
        self._head, self._in_head = 0, False
        super().on_headers_complete()
        if self.cycle is not None and self.loop.time() >= self._old_s:
            self.cycle.keep_alive = False

    def connection_lost(self, exc: Exception | None) -> None:
        """Nobody is there any longer."""
        self._done()
        super().connection_lost(exc)

    def shutdown(self) -> None:
        """The server stops: an answer that never ends of itself is ended, the others are waited for."""
        if self.cycle is not None and self.cycle.response_started and is_endless(self.cycle.scope):
            self.transport.close()
        else:
            super().shutdown()

    def _wait(self) -> None:
        self._done()
        self._giving_up = self.loop.call_later(HEADERS_S, self.transport.close)

    def _done(self) -> None:
        if self._giving_up is not None:
            self._giving_up.cancel()
            self._giving_up = None
