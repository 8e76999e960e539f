"""The cache of carved bodies: in this process, and behind it in the database, where workers put what they compute."""

from amber_spread.core.kernel.latest import Latest
from amber_spread.jobs.designs import Known, unpack
from amber_spread.jobs.program import digest_of
from amber_spread.store.bodies import BodyStore

MAX_IN_MEMORY = 12


def bodies_key(bodies: str) -> str:
    """The key in the database of the bodies of a design: a digest of all they depend on, given as text. Empty if there
    are none.
    """
    return bodies and digest_of(bodies)


class BodyCache:
    """Entries by everything that the bodies of a design depend on, as text."""

    def __init__(self, store: BodyStore) -> None:
        self.store = store
        self._memory: Latest[str, Known] = Latest(MAX_IN_MEMORY)

    def load(self, bodies: str, changed: bool) -> Known:
        """The entry in this process, or in the database if there is none here or if it `changed` there. EMPTY if there
        is none at all.
        """
        known = None if changed else self._memory.get(bodies)
        if known is None:
            known = unpack(self.store.get(bodies_key(bodies)))
            if known.bodies:
                self._memory.put(bodies, known)
        return known
