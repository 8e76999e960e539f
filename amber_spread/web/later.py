"""Work that nobody waits for: begun once at a time, and looked at again by whoever asks for what comes of it."""

import logging
import time
from collections.abc import Callable, Hashable
from concurrent.futures import ThreadPoolExecutor
from threading import Lock

from amber_spread.jobs.not_ready import NotReady

log = logging.getLogger("amber_spread")
HANDS = 2
"""So much is done at a time; what takes long in it is done by the workers."""
AGAIN_S = 60.0
"""What failed is not begun again for so long."""


class Later:
    """Pieces of work by what they are known by."""

    def __init__(self) -> None:
        self._hands: ThreadPoolExecutor | None = None
        self._under_way: set[Hashable] = set()
        self._failed: dict[Hashable, float] = {}
        self._lock = Lock()

    def begin(self, key: Hashable, work: Callable[[], object]) -> bool:
        """Have it done, where it is not under way already. False of what failed a little while ago."""
        with self._lock:
            if time.monotonic() - self._failed.get(key, -AGAIN_S) < AGAIN_S:
                return False
            if key in self._under_way:
                return True
            self._under_way.add(key)
            self._failed.pop(key, None)
            self._hands = self._hands or ThreadPoolExecutor(HANDS, thread_name_prefix="later")
        self._hands.submit(self._do, key, work)
        return True

    def _do(self, key: Hashable, work: Callable[[], object]) -> None:
        try:
            work()
        except NotReady:
            log.warning("%s ran out of time on a busy computer; the next request starts it again", key)
        except Exception:
            log.exception("%s could not be worked out", key)
            self._failed[key] = time.monotonic()
        finally:
            with self._lock:
                self._under_way.discard(key)

    def stop(self) -> None:
        """Begin nothing more."""
        if self._hands is not None:
            self._hands.shutdown(wait=False, cancel_futures=True)
