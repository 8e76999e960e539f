"""Serve the application: its own PostgreSQL unless one is named, tables up to date, the demo when asked for."""

import fcntl
import gc
import hashlib
import os
import signal
import socket
import sys
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path
from types import FrameType

import uvicorn
from sqlalchemy.exc import OperationalError

from amber_spread.core.reserve import normals
from amber_spread.demo.week import load_week
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import (
    PostgresFailed,
    PostgresMissing,
    PrivatePostgres,
    reachable_folder,
)
from amber_spread.web.app import make_app

ROOT = Path(__file__).resolve().parents[1]
FIRST_PORT = 8765


class CannotServe(RuntimeError):
    """The application cannot be served; the message says why and what to do."""


def serve(demo: bool, port: int | None) -> int:
    """Serve until Ctrl-C or a terminate signal, then stop all that was started. Returns the exit status."""
    signal.signal(signal.SIGTERM, _interrupt)
    signal.signal(signal.SIGHUP, _interrupt)
    began = time.monotonic()
    try:
        with ExitStack() as stack:
            url = os.environ.get("AMBER_DATABASE_URL") or stack.enter_context(_own_database(demo))
            book = OrderBook.at(_with_driver(url))
            migrate(book.engine)
            if demo:
                load_week(book)
            warm()
            listener = _listen(port)
            address = f"http://127.0.0.1:{listener.getsockname()[1]}"
            print(
                f"Amber Spread is ready at {address} ({time.monotonic() - began:.1f} s). Ctrl-C stops it.", flush=True
            )
            config = uvicorn.Config(make_app(book), log_level="warning", timeout_graceful_shutdown=3)
            uvicorn.Server(config).run(sockets=[listener])
    except KeyboardInterrupt:
        pass
    except OperationalError as error:
        print(f"The database cannot be reached: {error.orig}", file=sys.stderr)
        return 1
    except (CannotServe, PostgresMissing, PostgresFailed) as error:
        print(error, file=sys.stderr)
        return 1
    print("Stopped.", flush=True)
    return 0


def warm() -> None:
    """Work out what every plan shares before anyone waits for one, and spare the collector all that stays."""
    normals()
    gc.collect()
    gc.freeze()
    # A plan makes some five thousand objects and hardly a cycle: the collector need not look seven times a plan.
    gc.set_threshold(10_000, 10, 10)


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
def _own_database(demo: bool) -> Iterator[str]:
    folder = data_folder()
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "lock").open("a") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            raise CannotServe(f"Amber Spread is already running on the data in {folder}. Stop it first.") from error
        print("Starting PostgreSQL on loopback …", flush=True)
        with PrivatePostgres(folder / "postgres") as server:
            yield server.url("amber_demo" if demo else "amber")


def _with_driver(url: str) -> str:
    """A PostgreSQL address that names the driver in use, whichever of its usual spellings was given."""
    for spelling in ("postgresql://", "postgres://"):
        if url.startswith(spelling):
            return "postgresql+psycopg://" + url.removeprefix(spelling)
    return url


def _listen(port: int | None) -> socket.socket:
    """A listening loopback socket on `port`, or on the first free port from 8765 on."""
    for candidate in [port] if port is not None else range(FIRST_PORT, FIRST_PORT + 50):
        listener = socket.socket()
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind(("127.0.0.1", candidate))
            listener.listen(128)
            return listener
        except (OSError, OverflowError):
            listener.close()
    raise CannotServe(f"Port {port or FIRST_PORT} is taken. Name another with --port.")


def _interrupt(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt
