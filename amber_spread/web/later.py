"""Background work: each piece runs once at a time, and whoever needs its result asks for it again."""

import logging
import time
from collections.abc import Callable, Hashable
from concurrent.futures import CancelledError, ThreadPoolExecutor
from threading import Lock

from amber_spread.jobs.not_ready import NotReady

log = logging.getLogger("amber_spread")
THREADS = 2
"""Pieces of work at once. Workers run the long parts."""
AGAIN_S = 60.0
"""Work that failed is not started again for this long."""


class Later:
    """Background work by key."""

    def __init__(self) -> None:
        self._threads: ThreadPoolExecutor | None = None
        self._under_way: set[Hashable] = set()
        self._failed: dict[Hashable, float] = {}
        self._lock = Lock()

    def begin(self, key: Hashable, work: Callable[[], object]) -> bool:
        """Start some work unless it is running. Returns False if it failed a moment ago."""
        with self._lock:
            if time.monotonic() - self._failed.get(key, -AGAIN_S) < AGAIN_S:
                return False
            if key in self._under_way:
                return True
            self._under_way.add(key)
            self._failed.pop(key, None)
            self._threads = self._threads or ThreadPoolExecutor(THREADS, thread_name_prefix="later")
        self._threads.submit(self._do, key, work)
        return True

    def _do(self, key: Hashable, work: Callable[[], object]) -> None:
        try:
            work()
        except NotReady:
            log.warning("%s ran out of time on a busy computer; the next request starts it again", key)
        except CancelledError:
            pass  # the server stops: the next one starts it again
        except Exception:
            log.exception("%s failed", key)
            self._failed[key] = time.monotonic()
        finally:
            with self._lock:
                self._under_way.discard(key)

    def stop(self) -> None:
        """Start nothing more."""
        if self._threads is not None:
            self._threads.shutdown(wait=False, cancel_futures=True)
