"""Notifications through the database that all processes share (PostgreSQL's NOTIFY), and who listens to them.

A notification goes out when its transaction commits, not before: a notice of a save comes after the save.
"""

from collections.abc import Callable
from dataclasses import dataclass
from threading import Event, Lock, Thread
from typing import Literal

import psycopg
from sqlalchemy import Engine, func, select
from sqlalchemy.orm import Session

from amber_spread.core.document import FileKind
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.engine import CONNECT_S, address_of

SAVED, JOBS = CHANNELS = "amber_spread_saved", "amber_spread_jobs"
LOOK_S = 1.0
"""Time between two looks of a subscriber, and before a lost connection is tried again."""


class Notice(Frozen):
    """Something was saved: an order, of which `id` says which, or a whole; `number` is what its newest save is called.

    An order that was taken off the shelf or put back keeps its number, and so does one whose `hours` were pinned or
    marked.
    """

    what: FileKind | Literal["hours"]
    id: str
    number: int


def tell(session: Session, what: FileKind | Literal["hours"], number: int, id: object = "") -> None:
    """Announce a save."""
    notify(session, SAVED, Notice(what=what, id=str(id), number=number).model_dump_json())


def notify(session: Session, channel: str, payload: str) -> None:
    """Send a notification when the session commits."""
    session.execute(select(func.pg_notify(channel, payload)))


@dataclass(frozen=True, eq=False)
class Subscription:
    """Who listens to a channel. All three are called from the listener's thread.

    `heard` gets each payload, `connected` is called when notifications may have been missed, and `look` once a second.
    """

    channel: str
    heard: Callable[[str], None]
    connected: Callable[[], None] = lambda: None
    look: Callable[[], None] = lambda: None


class Listener:
    """One connection of this process to a database, listening for every subscriber while there is one."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self._subscriptions: list[Subscription] = []
        self._lock = Lock()
        self._changed = Event()
        self._thread: Thread | None = None

    def add(self, subscription: Subscription) -> None:
        """Begin a subscription."""
        with self._lock:
            self._subscriptions.append(subscription)
            if self._thread is None:
                self._thread = Thread(target=self._run, name="listener", daemon=True)
                self._thread.start()

    def remove(self, subscription: Subscription) -> None:
        """End a subscription."""
        with self._lock:
            if subscription in self._subscriptions:
                self._subscriptions.remove(subscription)
        self._changed.set()

    def _run(self) -> None:
        while self._is_wanted():
            try:
                with psycopg.connect(address_of(self.engine), autocommit=True, connect_timeout=CONNECT_S) as connection:
                    for channel in CHANNELS:
                        connection.execute(f"listen {channel}")
                    for one in self._current():
                        one.connected()
                    while self._is_wanted():
                        self._listen(connection)
            except psycopg.Error:
                self._changed.wait(LOOK_S)

    def _listen(self, connection: "psycopg.Connection[tuple[object, ...]]") -> None:
        for notification in connection.notifies(timeout=LOOK_S):
            for one in self._current():
                if one.channel == notification.channel:
                    one.heard(notification.payload)
        for one in self._current():
            one.look()

    def _current(self) -> list[Subscription]:
        with self._lock:
            return list(self._subscriptions)

    def _is_wanted(self) -> bool:
        """Whether anyone listens. The thread ends if not; the next subscription starts another."""
        with self._lock:
            self._changed.clear()
            if not self._subscriptions:
                self._thread = None
            return bool(self._subscriptions)
