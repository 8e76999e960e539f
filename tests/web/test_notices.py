"""What one screen saves, another hears: through any of the processes, and not before it is kept."""

import http.client
import json
import threading
import time
from contextlib import ExitStack

import pytest

from amber_spread.kitchen import ask, kitchen
from amber_spread.store.notices import Notice
from amber_spread.web.notices import END, OF_ONE, WAITING, Notices
from tests.designs import document, tier

SENT = document(tier()).model_dump(mode="json")


class Screen:
    """Listens to a kitchen's notices in a thread of its own, until they end."""

    def __init__(self, port):
        self.heard = []
        self.ended = threading.Event()
        self._connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        self._connection.request("GET", "/api/notices")
        self._answer = self._connection.getresponse()
        assert self._answer.getheader("content-type").startswith("text/event-stream")
        threading.Thread(target=self._listen, daemon=True).start()

    def _listen(self):
        while line := self._answer.readline():
            if line.startswith(b"data: "):
                self.heard.append(json.loads(line[6:]))
        self.ended.set()

    def has_heard(self, *expected):
        until = time.monotonic() + 20
        while self.heard != list(expected) and not self.ended.is_set() and time.monotonic() < until:
            time.sleep(0.01)
        return self.heard == list(expected)


def screens_on(port, many):
    """Screens that hear what is saved. A stream that was opened before its process listens to the database is ended, and
    a page would open another: so do these, until each of them hears a first order.
    """
    while True:
        screens = [Screen(port) for _ in range(many)]
        first = {"what": "order", "id": ask(port, "POST", "/api/orders", SENT)[1]["id"], "number": 1}
        if all([screen.has_heard(first) for screen in screens]):
            for screen in screens:
                screen.heard.clear()
            return screens
        assert any(screen.ended.is_set() for screen in screens)


@pytest.fixture(scope="module")
def served():
    with kitchen(options=("--workers", "2")) as found:
        yield found


def test_every_screen_hears_what_is_kept_and_nothing_else(served):
    port = served.port
    screens = screens_on(port, 6)
    id = ask(port, "POST", "/api/orders", SENT)[1]["id"]
    order = {"what": "order", "id": id}
    assert ask(port, "PUT", f"/api/orders/{id}", {"began_from": 1, "document": SENT | {"title": "Two"}})[0] == 200
    kept_aside = {"began_from": 1, "document": SENT | {"title": "Too late"}}
    assert ask(port, "PUT", f"/api/orders/{id}", kept_aside)[0] == 409
    assert ask(port, "POST", f"/api/orders/{id}/archive")[0] == 200
    kit = ask(port, "GET", "/api/kit")[1]["kit"]
    assert ask(port, "PUT", "/api/kit", {"began_from": 0, "kit": kit | {"discs_mm": [100]}})[0] == 200
    assert ask(port, "PUT", "/api/kit", {"began_from": 0, "kit": kit | {"discs_mm": [101]}})[0] == 409
    expected = [
        order | {"number": 1}, order | {"number": 2}, order | {"number": 2}, {"what": "kit", "id": "", "number": 1},
    ]  # fmt: skip
    for screen in screens:
        assert screen.has_heard(*expected)
        assert not screen.ended.is_set()


def test_a_screen_is_told_to_ask_anew_when_the_database_was_away(served):
    screen = Screen(served.port)
    served.kill_database()
    assert screen.ended.wait(20)
    served.wait()
    (again,) = screens_on(served.port, 1)
    id = ask(served.port, "POST", "/api/orders", SENT)[1]["id"]
    assert again.has_heard({"what": "order", "id": id, "number": 1})


def test_screens_that_listen_do_not_keep_a_server_from_stopping():
    with kitchen() as served:
        screens = [Screen(served.port) for _ in range(3)]
        assert served.stop() < 20  # they listen for as long as the server lets them
        assert all(screen.ended.wait(2) for screen in screens)


def test_a_screen_that_does_not_take_its_notices_is_left_to_ask_anew():
    notices = Notices()
    with notices.heard() as slow, notices.heard() as quick:
        for number in range(WAITING + 5):
            notices._tell(Notice(what="kit", id="", number=number))
            assert quick.get_nowait().number == number
        taken = [slow.get_nowait() for _ in range(slow.qsize())]
        assert taken[-1] is None
        assert len(taken) == WAITING


def test_of_one_clients_many_screens_the_one_that_has_listened_longest_asks_anew():
    notices = Notices()
    with ExitStack() as stack:
        other = stack.enter_context(notices.heard("other"))
        own = [stack.enter_context(notices.heard("many")) for _ in range(OF_ONE + 3)]
        ended = [not queue.empty() and queue.get_nowait() is END for queue in own]
        assert ended == [True] * 3 + [False] * OF_ONE
        assert other.empty()
