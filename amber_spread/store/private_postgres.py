"""A PostgreSQL of the project's own: on loopback, on a free port, in a data folder that nothing else uses.

PostgreSQL refuses to run as root, so as root it is run as the `postgres` user of the Debian package.
It listens on TCP only (no socket file is left anywhere) and asks for a password kept in the folder.
"""

import os
import pwd
import secrets
import shutil
import signal
import socket
import subprocess
import time
from pathlib import Path
from types import TracebackType
from typing import Self

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


class PrivatePostgres:
    """A server for as long as the `with` block lasts; `url(name)` gives a database, made when it is new."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.data = folder / "data"
        self.log = folder / "postgres.log"
        self.port = 0
        self._bin = programs()
        self._account = pwd.getpwnam("postgres") if os.geteuid() == 0 else None

    def __enter__(self) -> Self:
        self._make_folder()
        password_file = self.folder / "password"
        if not (self.data / "PG_VERSION").exists():
            fresh = self.folder / "data.new"
            shutil.rmtree(fresh, ignore_errors=True)
            password_file.write_text(secrets.token_urlsafe(24))
            self._own(password_file)
            password_file.chmod(0o600)
            self._run(
                "initdb", "-D", str(fresh), "-U", ACCOUNT, "-A", "scram-sha-256", "--pwfile", str(password_file),
                "--encoding=UTF8", "--locale=C.UTF-8",
            )  # fmt: skip
            fresh.rename(self.data)
        self._password = password_file.read_text()
        self._stop_left_over()
        for _ in range(3):
            self.port = free_port()
            settings = f"-p {self.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
            started = self._run(
                "pg_ctl", "start", "-w", "-t", "60", "-D", str(self.data), "-l", str(self.log), "-o", settings,
                check=False,
            )  # fmt: skip
            if started == 0:
                return self
        tail = self.log.read_text(errors="replace")[-2000:] if self.log.exists() else ""
        raise PostgresFailed(f"PostgreSQL did not start. It logged:\n{tail}")

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._run("pg_ctl", "stop", "-w", "-m", "fast", "-D", str(self.data), check=False)

    def url(self, database: str) -> str:
        """The address of a database of this server, made now if it does not exist."""
        import psycopg
        from psycopg import sql

        with psycopg.connect(self._address("postgres", "postgresql"), autocommit=True) as connection:
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

    def _run(self, program: str, *arguments: str, check: bool = True) -> int:
        """Run a server program as the right user, in its own session so that Ctrl-C does not reach it."""
        with (self.folder / "commands.log").open("ab") as log:
            done = subprocess.run(
                [str(self._bin / program), *arguments],
                cwd=self.folder,
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=log,
                start_new_session=True,
                user=self._account.pw_uid if self._account else None,
                group=self._account.pw_gid if self._account else None,
                extra_groups=[] if self._account else None,
                env={"PATH": os.environ.get("PATH", ""), "LC_ALL": "C.UTF-8"},
                check=False,
            )
        if check and done.returncode:
            tail = (self.folder / "commands.log").read_text(errors="replace")[-2000:]
            raise PostgresFailed(f"{program} failed:\n{tail}")
        return done.returncode

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


def reachable_folder(wanted: Path, elsewhere: Path) -> Path:
    """`wanted`, or `elsewhere` where root's PostgreSQL could not enter `wanted` (below a closed home folder)."""
    if os.geteuid() != 0:
        return wanted
    closed = any(parent.exists() and not parent.stat().st_mode & 0o001 for parent in wanted.parents)
    return elsewhere if closed else wanted
