"""A database in trouble, slow clients, and signals at any moment: clear words in bounded time, and nothing left over."""

import http.client
import json
import os
import re
import signal
import socket
import subprocess
import sys
import threading
import time
import zipfile
from contextlib import contextmanager
from pathlib import Path

import pytest
import uvicorn
from sqlalchemy import text

from amber_spread.crashtest import run_crashtest
from amber_spread.fuzz import run_fuzz
from amber_spread.kitchen import STARTS_S, ask, children_of, kitchen
from amber_spread.serve import ROOT, _config
from amber_spread.stopping import STOP_SIGNALS, SignalsWaiting
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import PrivatePostgres, is_running, temporary_folder
from amber_spread.web import bounds, errors, patient
from amber_spread.web.app import make_app
from tests.clients import client_of
from tests.designs import document, tier

SENT = document(tier()).model_dump(mode="json")


@contextmanager
def clients(postgres, name):
    book = OrderBook.at(postgres.url(name))
    migrate(book.engine)
    yield book, client_of(make_app(book))
    book.engine.dispose()


def told(answer, status=503):
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"
    found = answer.json()
    assert "Nothing was changed" in found["detail"]
    return found["title"]


@pytest.mark.parametrize(
    ("state", "words"),
    [
        ("53100", "no room left on the disk"),
        ("25006", "only be read"),
        ("57014", "in time"),
        ("53300", "cannot be reached"),
    ],
)
def test_each_trouble_of_the_database_is_said_in_its_own_words(postgres, state, words):
    with clients(postgres, "troubled") as (book, client):
        with book.engine.begin() as connection:
            connection.execute(
                text(
                    "create or replace function trouble() returns trigger language plpgsql as $$ begin "
                    f"raise exception 'no' using errcode = '{state}'; end $$"
                )
            )
            connection.execute(text("drop trigger if exists trouble on revisions"))
            connection.execute(
                text("create trigger trouble before insert on revisions for each row execute function trouble()")
            )
        assert words in told(client.post("/api/orders", json=SENT))
        with book.engine.begin() as connection:
            connection.execute(text("drop trigger trouble on revisions"))
        assert client.post("/api/orders", json=SENT).status_code == 201


def test_a_database_that_can_only_be_read_is_said_to_be_so(postgres):
    with clients(postgres, "readonly") as (book, client):
        with book.engine.begin() as connection:
            connection.execute(text("alter database readonly set default_transaction_read_only = on"))
        book.engine.dispose()
        assert "only be read" in told(client.post("/api/orders", json=SENT))
        assert client.get("/api/orders").status_code == 200


def test_what_waits_too_long_for_another_is_told_so(postgres):
    with clients(postgres, "locked") as (book, client):
        id = client.post("/api/orders", json=SENT).json()["id"]
        with book.engine.begin() as connection:
            connection.execute(text("select * from orders for update"))
            began = time.monotonic()
            assert "in time" in told(client.put(f"/api/orders/{id}", json={"began_from": 1, "document": SENT}))
            assert time.monotonic() - began < 10
        assert client.put(f"/api/orders/{id}", json={"began_from": 1, "document": SENT}).status_code == 200


def test_a_frozen_database_is_told_in_bounded_time_and_planning_goes_on(monkeypatch):
    with (
        temporary_folder() as folder,
        PrivatePostgres(folder / "pg") as server,
        clients(server, "frozen") as (_, client),
    ):
        assert client.get("/api/orders").status_code == 200
        monkeypatch.setattr(bounds, "ANSWER_S", 1.0)
        mark = int((server.data / "postmaster.pid").read_text().split("\n", 1)[0])
        family = [mark, *_children(mark)]
        for pid in family:
            os.kill(pid, signal.SIGSTOP)
        try:
            began = time.monotonic()
            with client_of(client.app) as other:
                assert "in time" in other.get("/api/orders").json()["title"]
                assert time.monotonic() - began < 5
                assert other.post("/api/plan", json={"document": SENT}).status_code == 200
                for pid in family:
                    os.kill(pid, signal.SIGCONT)
        finally:
            for pid in family:
                os.kill(pid, signal.SIGCONT)
        monkeypatch.undo()
        assert client.get("/api/orders").status_code == 200


def _children(pid):
    with open(f"/proc/{pid}/task/{pid}/children") as children:
        return [int(one) for one in children.read().split()]


def test_a_database_that_was_killed_is_started_again_by_itself():
    with (
        temporary_folder() as folder,
        PrivatePostgres(folder / "pg") as server,
        clients(server, "again") as (_, client),
    ):
        server.watch()
        id = client.post("/api/orders", json=SENT).json()["id"]
        first = _running(server)
        os.kill(first, signal.SIGKILL)
        until = time.monotonic() + 30
        # A connection may outlive the server it was made to for a moment, so the new one is waited for.
        while _running(server) in (None, first) or (found := client.get(f"/api/orders/{id}")).status_code != 200:
            assert time.monotonic() < until
            time.sleep(0.1)
        assert found.json()["document"]["title"] == SENT["title"]


def _running(server):
    """The process of a database server, None while none is."""
    try:
        return int((server.data / "postmaster.pid").read_text().split("\n", 1)[0])
    except (OSError, ValueError):
        return None


@pytest.fixture
def address(monkeypatch):
    """Planning alone, served over a socket as it is in earnest, by a server in a hurry."""
    monkeypatch.setattr(patient, "HEADERS_S", 0.5)
    monkeypatch.setattr(bounds, "LONGEST_S", 0.5)
    listener = socket.socket()
    listener.bind(("127.0.0.1", 0))
    server = uvicorn.Server(uvicorn.Config(make_app(None), http=patient.Patient, log_level="error"))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]}, daemon=True)
    thread.start()
    until = time.monotonic() + 20
    while not server.started and time.monotonic() < until:
        time.sleep(0.05)
    yield listener.getsockname()
    server.should_exit = True
    thread.join(10)


def _trickled(address, start, drop=b"x"):
    """How long the server listens to somebody who says a letter at a time, and what it answers."""
    with socket.create_connection(address) as slow:
        slow.settimeout(0.1)
        slow.sendall(start)
        began, heard = time.monotonic(), b""
        while time.monotonic() - began < 8:
            try:
                slow.sendall(drop)
                part = slow.recv(1000)
            except TimeoutError:
                continue
            except OSError:
                break
            if not part:
                break
            heard += part
        return time.monotonic() - began, heard


def test_a_head_that_trickles_in_is_not_waited_for(address):
    took, heard = _trickled(address, b"GET /api/handbook HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
    assert took < 5
    assert heard == b""


def test_an_old_connection_is_closed_after_its_answer(address, monkeypatch):
    """Else the first of several processes to be ready would serve everybody for as long as they stay."""
    monkeypatch.setattr(patient, "LONGEST_KEPT_S", 0.0)
    connection = http.client.HTTPConnection(*address, timeout=10)

    def ask():
        connection.request("GET", "/api/handbook", headers={"X-Amber-Spread": "1"})
        answer = connection.getresponse()
        assert answer.status == 200 and json.loads(answer.read())["media"]
        return answer.getheader("Connection"), connection.sock

    assert ask() == ("close", None)
    monkeypatch.setattr(patient, "LONGEST_KEPT_S", 3600.0)
    (told, kept) = ask()
    assert told is None and kept is not None
    assert ask() == (None, kept)


def test_a_body_that_trickles_in_is_told_so(address):
    head = (
        b"POST /api/plan HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Amber-Spread: 1\r\nContent-Type: application/json\r\n"
        b"Content-Length: 5000\r\n\r\n"
    )
    took, heard = _trickled(address, head, b" ")
    assert took < 8
    assert b"408" in heard.split(b"\r\n", 1)[0]
    assert b"too slowly" in heard


def test_a_head_without_an_end_is_not_gathered(address):
    """Seventy-five megabytes of it were, before."""
    sent = 0
    with socket.create_connection(address, timeout=10) as connection:
        connection.sendall(b"GET /api/handbook HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Endless: ")
        with pytest.raises(OSError):
            for _ in range(2000):
                sent += connection.send(b"x" * 32768)
    assert sent < 8 * 1024 * 1024


def test_a_backup_beside_a_running_demo_is_of_what_is_seen_there(tmp_path):
    with kitchen("demo") as served:
        seen = {card["title"] for card in ask(served.port, "GET", "/api/orders")[1]["orders"]}
        backup = _run("backup", str(tmp_path / "week.zip"), AMBER_DATA=str(served.folder))
        told, _ = backup.communicate(timeout=60)
    assert backup.returncode == 0 and f"{len(seen)} orders" in told
    with zipfile.ZipFile(tmp_path / "week.zip") as archive:
        kept = [json.loads(archive.read(name))["title"] for name in archive.namelist() if name.startswith("orders/")]
    assert set(kept) == seen and len(seen) >= 10


def test_a_backup_that_fails_says_so_in_words(tmp_path):
    away = "postgresql://nobody@127.0.0.1:1/nothing"
    backup = _run("backup", str(tmp_path / "none.zip"), AMBER_DATABASE_URL=away)
    _, told = backup.communicate(timeout=60)
    assert backup.returncode == 1 and told.strip() == "The order book cannot be reached. Try again in a moment."
    assert not (tmp_path / "none.zip").exists()


def _run(*arguments, **environment):
    return subprocess.Popen(
        [sys.executable, "-m", "amber_spread", *arguments],
        env={**os.environ, "PYTHONPATH": str(ROOT), **environment},
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    )


@pytest.mark.parametrize(
    ("seconds", "number"), [(0.3, signal.SIGTERM), (1.5, signal.SIGINT), (2.5, signal.SIGTERM), (4.0, signal.SIGINT)]
)
def test_a_signal_at_any_moment_ends_everything(seconds, number):
    with temporary_folder() as folder:
        process = _run("start", AMBER_DATA=str(folder))
        time.sleep(seconds)
        process.send_signal(number)
        _, told = process.communicate(timeout=30)
        assert "Traceback" not in told
        # What it ended may still be on its way out on a busy machine.
        until = time.monotonic() + 10
        while left := [pid for pid in map(int, filter(str.isdigit, os.listdir("/proc"))) if _works_in(pid, folder)]:
            assert time.monotonic() < until, left
            time.sleep(0.1)


@pytest.mark.parametrize("seconds", [0.0, 0.4, 1.0])
def test_a_signal_while_the_last_libraries_are_read_is_not_lost(seconds):
    """From the word that it is ready until it serves, it reads what plans take."""
    with temporary_folder() as folder:
        process = _run("start", AMBER_DATA=str(folder))
        while "is ready" not in process.stdout.readline():
            assert process.poll() is None
        time.sleep(seconds)
        process.send_signal(signal.SIGINT)
        said, told = process.communicate(timeout=30)
        assert "Stopped." in said and "Traceback" not in told


def test_a_signal_that_reaches_another_thread_waits_too():
    """Threads of the libraries do not block it: it broke off an import, and the start ended in a traceback."""
    ended, done, before = threading.Event(), [], signal.signal(signal.SIGINT, signal.default_int_handler)
    thread = threading.Thread(target=ended.wait, daemon=True)
    thread.start()
    try:
        with pytest.raises(KeyboardInterrupt), SignalsWaiting():
            signal.pthread_kill(thread.ident, signal.SIGINT)
            for _ in range(20):
                time.sleep(0.01)
            done.append("all of it")
    finally:
        ended.set()
        signal.signal(signal.SIGINT, before)
    assert done == ["all of it"]
    assert signal.pthread_sigmask(signal.SIG_BLOCK, ()) & STOP_SIGNALS == set()


def _works_in(pid, folder):
    try:
        with open(f"/proc/{pid}/cmdline", "rb") as words:
            return str(folder).encode() in words.read() and is_running(pid)
    except OSError:
        return False


@pytest.mark.parametrize(
    ("arguments", "environment", "words"),
    [
        (["start", "--port", "99999"], {}, "from 0 to 65535"),
        (["start", "--workers", "0"], {}, "from 1 to 32"),
        (["start"], {"AMBER_DATABASE_URL": "not an address"}, "is not an address of a database"),
        (["start"], {"AMBER_DATABASE_URL": "postgresql://amber@127.0.0.1:1/none"}, "cannot be reached"),
        (["start"], {"AMBER_DATA": "/proc/nothing"}, "No such file"),
    ],
)
def test_what_cannot_be_served_is_said_in_a_line(arguments, environment, words):
    process = _run(*arguments, **environment)
    _, told = process.communicate(timeout=30)
    assert process.returncode in (1, 2)
    assert words in told
    assert "Traceback" not in told


def test_a_missing_password_file_is_said():
    with temporary_folder() as folder:
        with PrivatePostgres(folder / "postgres"):
            pass
        (folder / "postgres" / "password").unlink()
        process = _run("start", AMBER_DATA=str(folder))
        _, told = process.communicate(timeout=30)
        assert "password" in told
        assert "Traceback" not in told


def test_several_processes_serve_one_book():
    with kitchen(options=("--workers", "2")) as served:
        made = ask(served.port, "POST", "/api/orders", SENT)[1]
        for number in range(1, 9):
            changed = SENT | {"title": f"Save {number}"}
            saved = ask(served.port, "PUT", f"/api/orders/{made['id']}", {"began_from": number, "document": changed})
            assert saved[0] == 200
            assert ask(served.port, "GET", f"/api/orders/{made['id']}")[1]["document"]["title"] == f"Save {number}"
            (card,) = ask(served.port, "GET", "/api/orders")[1]["orders"]
            assert card["title"] == f"Save {number}"
        assert served.stop() < 15


def test_serving_processes_end_when_the_one_that_started_them_is_killed():
    def runs(pid):
        # A process that has ended but was not waited for has no command any more.
        path = Path(f"/proc/{pid}/cmdline")
        return path.exists() and b"spawn_main" in path.read_bytes()

    with kitchen(options=("--workers", "2")) as served:
        serving = [pid for pid in children_of(served.process.pid) if runs(pid)]
        assert len(serving) == 2
        served.process.kill()
        served.process.wait()
        deadline = time.monotonic() + 60
        while any(map(runs, serving)) and time.monotonic() < deadline:
            time.sleep(0.1)
        assert not any(map(runs, serving))


def test_a_serving_process_may_take_as_long_to_import_as_a_start_may_take():
    """Within the library's own 5 s a slow computer never finished, and was started again without end."""
    assert _config("amber_spread.serve:shared_app", factory=True, workers=2).timeout_worker_healthcheck >= STARTS_S


def test_no_acknowledged_save_is_lost_in_a_crash(capsys):
    assert run_crashtest(2) == 0
    told = capsys.readouterr().out
    assert "lost 0" in told and "off in the database: nothing" in told


def test_what_nobody_should_send_is_answered(capsys):
    """Another seed each time: one that finds something is printed, and gives the same requests again."""
    assert run_fuzz(150) == 0, capsys.readouterr().out
    told = capsys.readouterr().out
    assert told.startswith("seed ") and "errors of the server 0" in told
    beside = re.search(r"second client: plans (\d+), failed 0", told)
    assert beside and int(beside[1]) > 10


def test_the_words_of_a_problem_are_one_sentence_each():
    for title, words in errors.TROUBLES.values():
        assert words.endswith(".")
        assert not title.endswith(".")
    assert json.loads(errors.problem(503, *errors.BUSY).body)["status"] == 503
