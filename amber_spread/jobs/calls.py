"""A job's call as bytes, with a key: the same call has the same key in every process."""

import hashlib
import pickle
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import partial
from typing import Any

from pydantic import BaseModel

from amber_spread.jobs.program import program_version


@dataclass(frozen=True)
class Call:
    """A module-level function (or a partial of one) with its arguments, and its limit of processor time, s.

    `bodies_key` names the cached bodies it gets as its last argument; empty if it needs none.
    """

    work: Callable[..., Any]
    arguments: tuple[Any, ...]
    seconds: float
    bodies_key: str = field(default="")

    @property
    def key(self) -> str:
        """A digest of the function, its arguments and the program."""
        parts = [program_version(), _text(self.work), *map(_text, self.arguments)]
        return hashlib.sha256("\n".join(parts).encode()).hexdigest()

    def pickled(self) -> bytes:
        """The call for a worker to run."""
        return pickle.dumps((self.work, self.arguments))


def _text(part: Any) -> str:
    """Everything that matters of a function or an argument, as text."""
    if isinstance(part, partial):
        return f"{_text(part.func)}({', '.join(map(_text, part.args))})"
    if isinstance(part, BaseModel):
        return f"{type(part).__qualname__} {part.model_dump_json()}"
    if isinstance(part, bytes):
        return hashlib.sha256(part).hexdigest()
    return f"{part.__module__}.{part.__qualname__}" if callable(part) else repr(part)
