"""An event loop for one of several serving processes on one socket: the fewer connections a process has, the sooner it
accepts another.

The usual loop accepts whatever waits as soon as it wakes. Of two processes that are both idle the same one always wakes
first, and it went on to serve 85 of 100 people.
"""

import asyncio
import socket
from collections.abc import Callable
from typing import Any

import uvloop

WAIT_S = 0.0002
"""For each connection that it has, a process waits so long before it accepts another."""
LONGEST_WAIT_S = 0.02
AGAIN_S = 1.0
"""Pause after a connection that could not be accepted: too many files are open."""


class SharingLoop(uvloop.Loop):
    """The usual event loop, but for how a server on an open socket accepts."""

    async def create_server(  # type: ignore[override]
        self, protocol_factory: Callable[[], asyncio.BaseProtocol], *, sock: socket.socket, **_: Any
    ) -> "Accepting":
        """Serve the connections to a listening socket."""
        return Accepting(self, protocol_factory, sock)


class Accepting:
    """Accepts connections to a listening socket until it is closed."""

    def __init__(
        self,
        loop: asyncio.AbstractEventLoop,
        protocol_factory: Callable[[], asyncio.BaseProtocol],
        listener: socket.socket,
    ) -> None:
        self._loop, self._protocol_factory, self._listener = loop, protocol_factory, listener
        self._beginning: set[asyncio.Task[None]] = set()
        self._transports: set[asyncio.BaseTransport] = set()
        self._open = True
        listener.setblocking(False)
        self._watch()

    def close(self) -> None:
        """Accept no more. Whoever opened the socket closes it."""
        if self._open:
            self._open = False
            self._loop.remove_reader(self._listener)

    async def wait_closed(self) -> None:
        """Wait until the connections that were accepted last have begun."""
        if self._beginning:
            await asyncio.wait(self._beginning)

    def _watch(self) -> None:
        if self._open:
            self._loop.add_reader(self._listener, self._called)

    def _called(self) -> None:
        """Somebody connects: accept them after a while, unless another process is faster."""
        self._loop.remove_reader(self._listener)
        self._transports = {one for one in self._transports if not one.is_closing()}
        wait_s = WAIT_S * (len(self._transports) + len(self._beginning))
        self._loop.call_later(min(wait_s, LONGEST_WAIT_S), self._accept)

    def _accept(self) -> None:
        if not self._open:
            return
        try:
            connection, _ = self._listener.accept()
        except (BlockingIOError, ConnectionAbortedError):
            self._watch()  # another process was faster, or the client left
        except OSError:
            self._loop.call_later(AGAIN_S, self._watch)
        else:
            self._watch()
            connection.setblocking(False)
            task = self._loop.create_task(self._begin(connection))
            self._beginning.add(task)
            task.add_done_callback(self._beginning.discard)

    async def _begin(self, connection: socket.socket) -> None:
        try:
            transport, _ = await self._loop.connect_accepted_socket(self._protocol_factory, connection)
        except OSError:
            connection.close()  # the client left
        else:
            self._transports.add(transport)
