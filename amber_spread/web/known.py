"""What is known of the bodies of a design: in this process, and in the database for every other and for a restart."""

import hashlib
import logging
import pickle
import zlib
from functools import cache
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

import amber_spread.core
from amber_spread.core.kernel.latest import Latest
from amber_spread.store.worked import WorkedShelf
from amber_spread.web.elsewhere import Known

log = logging.getLogger("amber_spread")
MOST_BODIES = 12
"""The bodies of so many designs are known here, those worked on last."""
NOTHING = Known((), {})


@cache
def program() -> str:
    """Which program works the figures out: a digest of its arithmetic, so that nothing outlives a change of it."""
    digest = hashlib.sha256()
    for path in sorted(Path(amber_spread.core.__file__).parent.rglob("*.py")):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]


class KnownBodies:
    """By the text that says what the bodies of a design rest on. What the database cannot keep just now is worked out
    again: nobody's plan fails for it.
    """

    def __init__(self, shelf: WorkedShelf | None) -> None:
        self.shelf = shelf
        self._here: Latest[str, Known] = Latest(MOST_BODIES)

    def here(self, given: str) -> Known | None:
        """What this process knows; nothing is asked of the database."""
        return self._here.get(given)

    def find(self, given: str) -> Known:
        """What is known, in this process or in the database."""
        found = self.here(given)
        if found is not None or self.shelf is None or not given:
            return found or NOTHING
        try:
            content = self.shelf.get(_key(given))
            # Only this program writes there, into a database of its own.
            kept: Known = NOTHING if content is None else pickle.loads(zlib.decompress(content))
        except Exception:  # a pickle that is damaged may raise any of them
            log.exception("what was worked out of a body cannot be read; it is worked out again")
            kept = NOTHING
        return self.learn(given, kept) if kept.bodies else NOTHING

    def learn(self, given: str, known: Known) -> Known:
        """Know it in this process from now on."""
        return self._here.put(given, known)

    def keep(self, given: str) -> None:
        """Keep what this process knows in the database."""
        known = self.here(given)
        if self.shelf is None or known is None:
            return
        try:
            self.shelf.put(_key(given), zlib.compress(pickle.dumps(known), 1))
        except SQLAlchemyError:
            log.warning("what was worked out of a body could not be kept; it is worked out again after a restart")


def _key(given: str) -> str:
    return hashlib.sha256(f"{program()}\n{given}".encode()).hexdigest()
