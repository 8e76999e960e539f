"""Caches of what depends on a design: every one is registered here, so that one call empties them all.

What never changes while the program runs uses `functools.cache` and stays.
"""

from collections.abc import Callable, Iterator
from functools import lru_cache, wraps
from typing import Any, ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
F = TypeVar("F", bound=Callable[..., Any])
D = TypeVar("D", bound=dict[Any, Any])
_CLEAR: list[Callable[[], None]] = []
TIERS = 512
"""So many results for one tier or one joint are cached: those of a hundred cakes of three to five tiers that are edited
at the same time. With fewer, everybody's edit computes all of a cake again: each pushes out what the others need.
"""


def cached(most: int) -> Callable[[F], F]:
    """Cache what a function returns for its arguments: of the last `most` calls.

    The arguments must be hashable, and what is returned must never be changed.
    """

    def wrap(function: F) -> F:
        caching: Any = lru_cache(maxsize=most)(function)
        _CLEAR.append(caching.cache_clear)
        return caching  # type: ignore[no-any-return]

    return wrap


def cached_items(most: int) -> Callable[[Callable[P, Iterator[T]]], Callable[P, tuple[T, ...]]]:
    """Cache all that a generator function yields for its arguments, as a tuple; otherwise like `cached`."""

    def wrap(function: Callable[P, Iterator[T]]) -> Callable[P, tuple[T, ...]]:
        @cached(most)
        @wraps(function)
        def collected(*args: P.args, **kwargs: P.kwargs) -> tuple[T, ...]:
            return tuple(function(*args, **kwargs))

        return collected

    return wrap


def forgettable(cache: D) -> D:
    """Register a dict that is used as a cache."""
    _CLEAR.append(cache.clear)
    return cache


def forget() -> None:
    """Empty every cache, so that the next plan is computed from nothing."""
    for clear in _CLEAR:
        clear()
