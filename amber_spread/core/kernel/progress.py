"""How far a long piece of work has come, said by it as it goes; nobody need listen."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

Heard = Callable[[str], None]


def unheard(_: str) -> None:
    """Nobody listens."""


_heard: ContextVar[Heard] = ContextVar("heard", default=unheard)


def begun(name: str) -> None:
    """Say which part of the work begins."""
    _heard.get()(name)


@contextmanager
def hearing(heard: Heard) -> Iterator[None]:
    """Be told the parts of what is worked out here as each begins."""
    token = _heard.set(heard)
    try:
        yield
    finally:
        _heard.reset(token)
