"""What the process of a job does: unpack the call, run it, pack what comes of it.

The worker imports this module too, so what designs need is imported only where it is used.
"""

import logging
import pickle
import zlib
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from amber_spread.jobs.designs import Known

log = logging.getLogger("amber_spread")


def pack(known: "Known") -> bytes:
    """What is known of bodies, as an entry of the cache."""
    return zlib.compress(pickle.dumps(known), 1)


def unpack(entry: bytes | None) -> "Known":
    """An entry of the cache. EMPTY if there is none, or if it is damaged."""
    from amber_spread.jobs.designs import EMPTY

    if entry is None:
        return EMPTY
    try:
        # Only this program writes there, into a database of its own.
        known: Known = pickle.loads(zlib.decompress(entry))
    except Exception:  # a damaged pickle may raise any of them
        log.exception("a cached body cannot be read and is computed again")
        return EMPTY
    return known


def run_call(call: bytes, entry: bytes | None, with_bodies: bool) -> tuple[str, bytes, bytes | None]:
    """Run a pickled call, with an entry of the cache if it needs bodies.

    Returns the outcome ("done" or "failed"), the pickled result or error, and the new entry if more is known of the
    bodies. The result of a call with bodies is a pair: what it found, and whether there is a new entry. Raises
    MemoryError.
    """
    try:
        work, arguments = pickle.loads(call)
        if not with_bodies:
            return "done", pickle.dumps(work(*arguments)), None
        done = work(*arguments, unpack(entry))
        return "done", pickle.dumps((done.found, done.known is not None)), done.known and pack(done.known)
    except MemoryError:
        raise
    except Exception as error:
        return "failed", pickle.dumps(error), None
