"""A dict of what was put in last: how what takes long to work out is kept without growing for ever."""

from collections.abc import Callable, Hashable, Iterable
from contextlib import suppress
from itertools import islice
from typing import Any, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class Latest(dict[K, V]):
    """No more than `most` entries, those put in last; `left_out` is called with one that is too many.

    Finding one changes nothing, so that several threads may look at it, and send it, at once.
    """

    def __init__(
        self, most: int, entries: Iterable[tuple[K, V]] = (), left_out: Callable[[V], None] | None = None
    ) -> None:
        super().__init__(entries)
        self.most, self.left_out = most, left_out

    def put(self, key: K, value: V) -> V:
        """Put in as the last, or again as the last."""
        self.pop(key, None)
        self[key] = value
        # Where another thread puts one in meanwhile, that one, or the next, leaves out what is too many.
        with suppress(RuntimeError):
            for old in list(islice(self, max(0, len(self) - self.most))):
                gone = self.pop(old, None)
                if gone is not None and self.left_out is not None:
                    self.left_out(gone)
        return value

    def get_or_compute(self, key: K, work_out: Callable[[], V]) -> V:
        """What is kept under a key, or what is worked out now and kept."""
        try:
            return self[key]
        except KeyError:
            return self.put(key, work_out())

    def __reduce__(self) -> tuple[Any, ...]:
        return Latest, (self.most, list(self.items()))
