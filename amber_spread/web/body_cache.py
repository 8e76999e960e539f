"""The cache of carved bodies: in this process, and behind it in the database."""

import hashlib
import logging
import pickle
import zlib
from concurrent.futures import ThreadPoolExecutor
from functools import cache
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

import amber_spread.core
from amber_spread.core.kernel.latest import Latest
from amber_spread.store.bodies import BodyStore
from amber_spread.web.elsewhere import Known

log = logging.getLogger("amber_spread")
MAX_IN_MEMORY = 12
EMPTY = Known((), {})


@cache
def program_version() -> str:
    """A digest of the core's source: no cached result outlives a change of the arithmetic."""
    digest = hashlib.sha256()
    for path in sorted(Path(amber_spread.core.__file__).parent.rglob("*.py")):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]


class BodyCache:
    """Entries by everything that the bodies of a design depend on, as text. Without a database, or while it is away,
    only the memory of this process serves: no plan fails for that.
    """

    def __init__(self, store: BodyStore | None) -> None:
        self.store = store
        self._memory: Latest[str, Known] = Latest(MAX_IN_MEMORY)
        self._writer = ThreadPoolExecutor(1, thread_name_prefix="body cache")

    def in_memory(self, key: str) -> Known | None:
        """The entry in this process, without asking the database."""
        return self._memory.get(key)

    def load(self, key: str) -> Known:
        """The entry in this process or in the database; EMPTY if there is none."""
        found = self.in_memory(key)
        if found is not None or self.store is None or not key:
            return found or EMPTY
        try:
            content = self.store.get(_digest(key))
            # Only this program writes there, into a database of its own.
            loaded: Known = EMPTY if content is None else pickle.loads(zlib.decompress(content))
        except Exception:  # a damaged pickle may raise any of them
            log.exception("a cached body cannot be read and is computed again")
            loaded = EMPTY
        return self._memory.put(key, loaded) if loaded.bodies else EMPTY

    def save(self, key: str, entry: Known) -> None:
        """Put an entry in this process at once, and in the database soon after."""
        self._memory.put(key, entry)
        if self.store is not None:
            self._writer.submit(self._write, self.store, key, entry)

    def stop(self) -> None:
        """Finish writing."""
        self._writer.shutdown()

    def _write(self, store: BodyStore, key: str, entry: Known) -> None:
        try:
            store.put(_digest(key), zlib.compress(pickle.dumps(entry), 1))
        except SQLAlchemyError:
            log.warning("a carved body could not be cached; it is computed again after a restart")


def _digest(key: str) -> str:
    return hashlib.sha256(f"{program_version()}\n{key}".encode()).hexdigest()
