"""Serving processes share the connections: the one with fewer accepts first."""

import asyncio
import errno
import socket
import threading
import time

import pytest

from amber_spread.web import sharing
from amber_spread.web.sharing import SharingLoop

PEOPLE = 60


class Greeting(asyncio.Protocol):
    """Says the name of its server to whoever connects."""

    def __init__(self, name):
        self.name = name

    def connection_made(self, transport):
        transport.write(self.name)


class Serving(threading.Thread):
    """A server on a shared socket, with an event loop of its own."""

    def __init__(self, listener, name):
        super().__init__(daemon=True)
        self.listener, self.greeting = listener, name
        self.loop = SharingLoop()
        self.ready, self.ending = threading.Event(), asyncio.Event()

    async def serve(self):
        server = await self.loop.create_server(lambda: Greeting(self.greeting), sock=self.listener, backlog=8)
        self.ready.set()
        await self.ending.wait()
        server.close()
        server.close()
        await server.wait_closed()

    def run(self):
        self.loop.run_until_complete(self.serve())
        self.loop.close()
        self.listener.close()

    def stop(self):
        self.loop.call_soon_threadsafe(self.ending.set)
        self.join(10)
        assert not self.is_alive()


@pytest.fixture
def listener():
    with socket.create_server(("127.0.0.1", 0)) as found:
        yield found


def served(listener, *names):
    found = [Serving(listener.dup(), name) for name in names]
    for one in found:
        one.start()
        assert one.ready.wait(10)
    return found


def connect(listener):
    return socket.create_connection(listener.getsockname(), timeout=10)


def test_people_who_come_one_after_another_are_shared_evenly(listener):
    servers = served(listener, b"a", b"b")
    people = [connect(listener) for _ in range(PEOPLE)]
    greeted = [person.recv(1) for person in people]
    assert set(greeted) == {b"a", b"b"}
    # One timer tick of the event loop is five connections' worth.
    assert abs(greeted.count(b"a") - greeted.count(b"b")) <= 20
    # Those of one leave, and the next ones are all its own.
    gone = [person for person, name in zip(people, greeted, strict=True) if name == b"a"]
    for person in gone:
        person.close()
    time.sleep(0.3)
    later = [connect(listener) for _ in range(10)]
    assert [person.recv(1) for person in later].count(b"a") >= 8
    for person in {*people, *later}:
        person.close()
    for server in servers:
        server.stop()


def test_a_process_that_cannot_accept_tries_again_and_the_other_serves_meanwhile(listener, monkeypatch):
    monkeypatch.setattr(sharing, "AGAIN_S", 0.3)

    class Full(socket.socket):
        tries = 0

        def accept(self):
            Full.tries += 1
            if Full.tries == 1:
                raise OSError(errno.EMFILE, "Too many open files")
            return super().accept()

    (server,) = served(Full(fileno=listener.dup().detach()), b"a")
    with connect(listener) as person:
        assert person.recv(1) == b"a"
    assert Full.tries == 2
    server.stop()
    # Closed, it accepts nobody, and whoever opened the socket may serve on.
    (other,) = served(listener, b"b")
    with connect(listener) as person:
        assert person.recv(1) == b"b"
    other.stop()
