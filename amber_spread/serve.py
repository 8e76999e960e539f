"""Serve the application: its own PostgreSQL unless one is named, tables up to date, the demo when asked for."""

import fcntl
import hashlib
import os
import signal
import socket
import sys
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from multiprocessing import parent_process
from pathlib import Path
from types import FrameType

import uvicorn
from fastapi import FastAPI
from sqlalchemy.exc import OperationalError
from uvicorn.supervisors import Multiprocess

from amber_spread.demo.week import load_week
from amber_spread.jobs.command import job_worker
from amber_spread.jobs.parent import end_when
from amber_spread.jobs.processes import AT_ONCE
from amber_spread.jobs.program import ROOT
from amber_spread.jobs.warm import short_collections, warm
from amber_spread.stopping import SignalsWaiting
from amber_spread.store.engine import DATABASE_URL
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import (
    PostgresFailed,
    PostgresMissing,
    PrivatePostgres,
    reachable_folder,
)
from amber_spread.web.app import make_app
from amber_spread.web.patient import Patient

FIRST_PORT = 8765
SERVED = "serving"
"""The file with the name of the served database, for `./amber backup`."""
SHARED_URL = "AMBER_SHARED_DATABASE_URL"
IMPORTS_S = 120
"""So long a serving process may take to import the program before it is taken for dead and started again. The usual 5 s
never let it finish on a slow computer.
"""
MOST_CONNECTIONS = 400
"""So many connections and requests are served at once; what comes beyond is told to come again."""


class CannotServe(RuntimeError):
    """The application cannot be served; the message says why and what to do."""


def serve(demo: bool, port: int | None, workers: int = 1, jobs: int = AT_ONCE) -> int:
    """Serve until Ctrl-C or a terminate signal, then stop all that was started. Returns the exit status.

    With several `workers`, as many processes serve on one address and one database. Another process runs at most `jobs`
    long jobs at once; with none, workers on other machines run them.
    """
    signal.signal(signal.SIGTERM, _interrupt)
    signal.signal(signal.SIGHUP, _interrupt)
    began = time.monotonic()
    try:
        with ExitStack() as stack:
            url = os.environ.get(DATABASE_URL) or stack.enter_context(own_database(demo))
            book = OrderBook.at(url)
            migrate(book.engine)
            if demo:
                load_week(book)
            if jobs:
                stack.enter_context(job_worker(url, jobs))
            listener = _listen(port)
            address = f"http://127.0.0.1:{listener.getsockname()[1]}"
            print(
                f"Amber Spread is ready at {address} ({time.monotonic() - began:.1f} s). Ctrl-C stops it.", flush=True
            )
            if workers == 1:
                with SignalsWaiting() as waiting:
                    warm()
                    short_collections()
                    _Server(_config(make_app(book)), waiting).run(sockets=[listener])
            else:
                os.environ[SHARED_URL] = url
                book.engine.dispose()
                many = _config("amber_spread.serve:shared_app", factory=True, workers=workers)
                Multiprocess(many, sockets=[listener]).run()
    except KeyboardInterrupt:
        pass
    except OSError as error:
        print(f"{error.filename or 'This machine'}: {error.strerror or error}.", file=sys.stderr)
        return 1
    except OperationalError as error:
        print(f"The database cannot be reached: {error.orig}", file=sys.stderr)
        return 1
    except (CannotServe, PostgresMissing, PostgresFailed) as error:
        print(error, file=sys.stderr)
        return 1
    print("Stopped.", flush=True)
    return 0


class _Server(uvicorn.Server):
    """A server to start while signals wait: it takes them once it has handlers of its own.

    A KeyboardInterrupt raised before, in the middle of an import or of a weak reference's callback, may be swallowed.
    """

    def __init__(self, config: uvicorn.Config, waiting: SignalsWaiting) -> None:
        super().__init__(config)
        self._waiting = waiting

    @contextmanager
    def capture_signals(self) -> Iterator[None]:
        """Take signals, also those that came earlier, until the server has stopped."""
        self._waiting.restore_handlers()
        with super().capture_signals():
            self._waiting.take()
            yield


def shared_app() -> FastAPI:
    """The application of one of several processes, over the database that they share."""
    # Left behind, it would keep the address while the database is away.
    if (parent := parent_process()) is not None:
        end_when(parent.join)
    warm()
    short_collections()
    return make_app(OrderBook.at(os.environ[SHARED_URL]))


def _config(app: "FastAPI | str", factory: bool = False, workers: int = 1) -> uvicorn.Config:
    return uvicorn.Config(
        app,
        factory=factory,
        workers=workers,
        loop="auto" if workers == 1 else "amber_spread.web.sharing:SharingLoop",
        http=Patient,
        log_level="warning",
        timeout_graceful_shutdown=2,
        timeout_keep_alive=30,
        timeout_worker_healthcheck=IMPORTS_S,
        limit_concurrency=MOST_CONNECTIONS,
        server_header=False,
    )


def data_folder() -> Path:
    """Where this checkout keeps its data: `.amber` beside the code, or where AMBER_DATA says.

    Below a closed home folder root's PostgreSQL could not reach it; a folder named after the
    checkout under /var/lib serves then.
    """
    named = os.environ.get("AMBER_DATA")
    if named:
        return Path(named).resolve()
    mark = hashlib.sha256(str(ROOT).encode()).hexdigest()[:12]
    return reachable_folder(ROOT / ".amber", Path("/var/lib/amber-spread") / mark)


@contextmanager
def own_database(demo: bool) -> Iterator[str]:
    """A PostgreSQL of the project's own on this checkout's data; gives the address of the book in it."""
    folder = data_folder()
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "lock").open("a") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            raise CannotServe(f"Amber Spread is already running on the data in {folder}. Stop it first.") from error
        print("Starting PostgreSQL on loopback …", flush=True)
        name = "amber_demo" if demo else "amber"
        with PrivatePostgres(folder / "postgres") as server:
            server.watch()
            served = folder / SERVED
            served.write_text(name)
            try:
                yield server.url(name)
            finally:
                served.unlink(missing_ok=True)


def served_database() -> str | None:
    """The name of the database that is being served, the demo's or the kitchen's own; None if no server runs."""
    try:
        return (data_folder() / SERVED).read_text()
    except FileNotFoundError:
        return None


def _listen(port: int | None) -> socket.socket:
    """A listening loopback socket on `port` (0 is any free one), or on the first free port from 8765 on."""
    for candidate in [port] if port is not None else range(FIRST_PORT, FIRST_PORT + 50):
        listener = socket.socket()
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind(("127.0.0.1", candidate))
            listener.listen(128)
            return listener
        except OSError:
            listener.close()
    taken = f"Port {port} is" if port is not None else f"The ports from {FIRST_PORT} on are"
    raise CannotServe(f"{taken} taken. Name another with --port.")


def _interrupt(_number: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt
