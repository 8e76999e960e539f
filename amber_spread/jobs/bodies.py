"""The cache of carved bodies: in this process, and behind it in the database, where workers put what they compute."""

import hashlib

from amber_spread.core.kernel.latest import Latest
from amber_spread.jobs.calling import unpack
from amber_spread.jobs.designs import EMPTY, Known
from amber_spread.jobs.program import program_version
from amber_spread.store.bodies import BodyStore

MAX_IN_MEMORY = 12


def bodies_key(bodies: str) -> str:
    """The key in the database of the bodies of a design: a digest of all they depend on, given as text. Empty if there
    are none.
    """
    return hashlib.sha256(f"{program_version()}\n{bodies}".encode()).hexdigest() if bodies else ""


class BodyCache:
    """Entries by everything that the bodies of a design depend on, as text."""

    def __init__(self, store: BodyStore) -> None:
        self.store = store
        self._memory: Latest[str, Known] = Latest(MAX_IN_MEMORY)

    def in_memory(self, bodies: str) -> Known | None:
        """The entry in this process, without asking the database."""
        return self._memory.get(bodies)

    def load(self, bodies: str) -> Known:
        """The entry in the database, from now on also in this process; EMPTY if there is none."""
        known = unpack(self.store.get(bodies_key(bodies)))
        return self._memory.put(bodies, known) if known.bodies else EMPTY
