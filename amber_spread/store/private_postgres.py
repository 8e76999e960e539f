"""A PostgreSQL of the project's own: on loopback, on a free port, in a data folder that nothing else uses.

PostgreSQL refuses to run as root, so as root it is run as the `postgres` user of the Debian package.
It listens on TCP only (no socket file is left anywhere) and asks for a password kept in the folder.
"""

import logging
import os
import pwd
import secrets
import shutil
import signal
import socket
import subprocess
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from types import TracebackType
from typing import IO, Self

from amber_spread.stopping import SignalsWaiting

log = logging.getLogger("amber_spread")

LEAST_VERSION = 14
ACCOUNT = "amber"


class PostgresMissing(RuntimeError):
    """No PostgreSQL server programs are on this machine."""


class PostgresFailed(RuntimeError):
    """PostgreSQL did not start; the message ends with what it logged."""


def programs() -> Path:
    """The folder of the newest PostgreSQL server programs here. Raises PostgresMissing."""
    found = [
        (int(folder.parent.name), folder)
        for folder in Path("/usr/lib/postgresql").glob("*/bin")
        if folder.parent.name.isdigit() and (folder / "initdb").exists()
    ]
    on_path = shutil.which("initdb")
    if found and max(found)[0] >= LEAST_VERSION:
        return max(found)[1]
    if on_path:
        return Path(on_path).resolve().parent
    raise PostgresMissing("PostgreSQL is not installed; on Debian it is the package postgresql-15")


START_S = 60.0
"""So long a server may take to start; after a power cut it has its log to go through."""
STOP_S, AT_ONCE_S = 3.0, 1.0
"""So long it may take to stop in good order, and then at once; what still runs after that is killed."""
LOOK_S = 0.5
"""So often it is looked whether a watched server still runs."""


class PrivatePostgres:
    """A server for as long as the `with` block lasts; `url(name)` gives a database, made when it is new.

    Whatever interrupts its start, no process of it is left.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.data = folder / "data"
        self.log = folder / "postgres.log"
        self.port = 0
        self._bin = programs()
        self._account = pwd.getpwnam("postgres") if os.geteuid() == 0 else None
        self._server: subprocess.Popen[bytes] | None = None
        self._ending = threading.Event()
        self._watcher: threading.Thread | None = None

    def __enter__(self) -> Self:
        try:
            self._make_folder()
            password_file = self.folder / "password"
            if not (self.data / "PG_VERSION").exists():
                self._make_data(password_file)
            try:
                self._password = password_file.read_text()
            except OSError as error:
                raise PostgresFailed(
                    f"The password of the database in {self.folder} is missing ({error.strerror}). Put the file "
                    "“password” back from a copy of this folder."
                ) from error
            self._stop_left_over()
            self._start()
        except BaseException:
            self._stop()
            raise
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._ending.set()
        if self._watcher is not None:
            self._watcher.join()
        self._stop()

    def url_of_running(self, database: str) -> str | None:
        """The address of a database of a server that another process runs on this folder; None where none does."""
        try:
            lines = (self.data / "postmaster.pid").read_text().split("\n")
            self._password = (self.folder / "password").read_text()
            self.port = int(lines[3])
            return self.url(database) if is_running(int(lines[0])) else None
        except (OSError, ValueError, IndexError):
            return None

    def watch(self) -> None:
        """Start the server again, on the same port, whenever it ends by itself before the block does."""
        self._watcher = threading.Thread(target=self._watch, name="postgres", daemon=True)
        self._watcher.start()

    def _watch(self) -> None:
        while not self._ending.wait(LOOK_S):
            if self._server is not None and self._server.poll() is None:
                continue
            log.error("PostgreSQL ended by itself; it is started again")
            try:
                self._stop_left_over()
                self._begin()
                self._await(time.monotonic() + START_S)
            except Exception:
                log.exception("PostgreSQL could not be started again; it is tried once more")
                self._stop()

    def _make_data(self, password_file: Path) -> None:
        fresh = self.folder / "data.new"
        shutil.rmtree(fresh, ignore_errors=True)
        password_file.write_text(secrets.token_urlsafe(24))
        self._own(password_file)
        password_file.chmod(0o600)
        self._run(
            "initdb",
            "-D",
            str(fresh),
            "-U",
            ACCOUNT,
            "-A",
            "scram-sha-256",
            "--pwfile",
            str(password_file),
            "--encoding=UTF8",
            "--locale=C.UTF-8",
        )
        fresh.rename(self.data)

    def _start(self) -> None:
        """Start the server on a port that is free; where somebody takes that first, on another."""
        until = time.monotonic() + START_S
        while True:
            self.port = free_port()
            self._begin()
            try:
                self._await(until)
                return
            except PostgresFailed:
                # Its port was taken meanwhile, or what was left of an earlier server is not gone yet.
                self._stop()
                if time.monotonic() > until - 0.75 * START_S:
                    raise
                time.sleep(LOOK_S)

    def _begin(self) -> None:
        settings = ("listen_addresses=127.0.0.1", "unix_socket_directories=", f"port={self.port}")
        chosen = [part for setting in settings for part in ("-c", setting)]
        with self.log.open("ab") as written, SignalsWaiting():
            self._own(self.log)
            self._server = self._popen("postgres", "-D", str(self.data), *chosen, out=written)

    def _await(self, until: float) -> None:
        """Wait until the server answers. Raises PostgresFailed when it ends, or takes too long."""
        import psycopg

        while True:
            assert self._server is not None
            if self._server.poll() is not None or time.monotonic() > until or self._ending.is_set():
                tail = self.log.read_text(errors="replace")[-2000:] if self.log.exists() else ""
                raise PostgresFailed(f"PostgreSQL did not start. It logged:\n{tail}")
            try:
                psycopg.connect(self._address("postgres", "postgresql"), connect_timeout=2).close()
                return
            except psycopg.OperationalError:
                time.sleep(0.05)

    def _stop(self) -> None:
        """End the server: in good order, else at once, else by force. Signals that come meanwhile wait."""
        server, self._server = self._server, None
        if server is None:
            return
        with SignalsWaiting():
            for how, seconds in ((signal.SIGINT, STOP_S), (signal.SIGQUIT, AT_ONCE_S), (signal.SIGKILL, AT_ONCE_S)):
                if server.poll() is None:
                    os.kill(server.pid, how)
                try:
                    server.wait(seconds)
                    return
                except subprocess.TimeoutExpired:
                    continue

    def url(self, database: str) -> str:
        """The address of a database of this server, made now if it does not exist."""
        import psycopg
        from psycopg import sql

        with psycopg.connect(
            self._address("postgres", "postgresql"), autocommit=True, connect_timeout=10
        ) as connection:
            there = connection.execute("select 1 from pg_database where datname = %s", (database,)).fetchone()
            if not there:
                connection.execute(sql.SQL("create database {}").format(sql.Identifier(database)))
        return self._address(database, "postgresql+psycopg")

    def _address(self, database: str, scheme: str) -> str:
        return f"{scheme}://{ACCOUNT}:{self._password}@127.0.0.1:{self.port}/{database}"

    def _make_folder(self) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        self._own(self.folder)
        self.folder.chmod(0o700)

    def _own(self, path: Path) -> None:
        if self._account:
            os.chown(path, self._account.pw_uid, self._account.pw_gid)

    def _popen(self, program: str, *arguments: str, out: IO[bytes]) -> "subprocess.Popen[bytes]":
        """Begin a server program as the right user, in its own session so that Ctrl-C does not reach it."""
        return subprocess.Popen(
            [str(self._bin / program), *arguments],
            cwd=self.folder,
            stdin=subprocess.DEVNULL,
            stdout=out,
            stderr=out,
            start_new_session=True,
            user=self._account.pw_uid if self._account else None,
            group=self._account.pw_gid if self._account else None,
            extra_groups=[] if self._account else None,
            env={"PATH": os.environ.get("PATH", ""), "LC_ALL": "C.UTF-8"},
        )

    def _run(self, program: str, *arguments: str) -> None:
        """Run a server program to its end; interrupted, it ends with all that it began. Raises PostgresFailed."""
        with (self.folder / "commands.log").open("ab") as written:
            done = self._popen(program, *arguments, out=written)
            try:
                status = done.wait()
            except BaseException:
                with SignalsWaiting(), suppress(ProcessLookupError):
                    os.killpg(done.pid, signal.SIGKILL)
                    done.wait()
                raise
        if status:
            tail = (self.folder / "commands.log").read_text(errors="replace")[-2000:]
            raise PostgresFailed(f"{program} failed:\n{tail}")

    def _stop_left_over(self) -> None:
        """After a crash or power cut: stop a server still running on this folder, or clear the mark of a dead one."""
        mark = self.data / "postmaster.pid"
        if not mark.exists():
            return
        try:
            pid = int(mark.read_text().split("\n", 1)[0])
            words = Path(f"/proc/{pid}/cmdline").read_bytes().split(b"\0")
        except (ValueError, OSError):
            words, pid = [], 0
        if pid and str(self.data).encode() in words:
            os.kill(pid, signal.SIGINT)
            until = time.monotonic() + 30
            while is_running(pid):
                if time.monotonic() > until:
                    raise PostgresFailed(f"a PostgreSQL left over from an earlier start (process {pid}) does not end")
                time.sleep(0.1)
        mark.unlink(missing_ok=True)


def is_running(pid: int) -> bool:
    """Whether a process runs: it is there, and not merely waiting for its parent to take note of its end."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False


def free_port() -> int:
    """A TCP port of the loopback interface that nothing listens on just now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@contextmanager
def temporary_folder() -> Iterator[Path]:
    """A folder that PostgreSQL can reach even when it may not run as this user; removed at the end."""
    folder = Path(tempfile.mkdtemp(prefix="amber-"))
    folder.chmod(0o755)
    try:
        yield folder
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def reachable_folder(wanted: Path, elsewhere: Path) -> Path:
    """`wanted`, or `elsewhere` where root's PostgreSQL could not enter `wanted` (below a closed home folder)."""
    if os.geteuid() != 0:
        return wanted
    closed = any(parent.exists() and not parent.stat().st_mode & 0o001 for parent in wanted.parents)
    return elsewhere if closed else wanted
