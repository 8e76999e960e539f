"""A job's call on both sides: with a key and as bytes where it is asked for, and in the process that runs it.

The worker imports this module too, so nothing of the designs is imported here.
"""

import hashlib
import pickle
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any, NamedTuple

from pydantic import BaseModel

from amber_spread.jobs.program import digest_of


class WithEntry(NamedTuple):
    """What a call returns if it works with an entry of the body cache: its result, and the new entry if it changed."""

    result: Any
    entry: bytes | None


@dataclass(frozen=True)
class Call:
    """A module-level function (or a partial of one) with its arguments, and its limit of processor time, s.

    `bodies_key` names the entry of the body cache that it gets as one more argument, if there is one by then.
    """

    work: Callable[..., Any]
    arguments: tuple[Any, ...]
    seconds: float
    bodies_key: str = ""

    @property
    def key(self) -> str:
        """A digest of the function, its arguments and the program: the same in every process."""
        return digest_of(_text(self.work), *map(_text, self.arguments))

    def pickled(self) -> bytes:
        """The call for a worker to run."""
        return pickle.dumps((self.work, self.arguments))


def run_call(call: bytes, entry: bytes | None) -> tuple[str, bytes, bytes | None]:
    """Run a pickled call. Returns the outcome ("done" or "failed"), the pickled result or error, and the new entry of
    the body cache if it changed. Raises MemoryError.
    """
    try:
        work, arguments = pickle.loads(call)
        found = work(*arguments) if entry is None else work(*arguments, entry)
        result, changed = found if isinstance(found, WithEntry) else WithEntry(found, None)
        return "done", pickle.dumps(result), changed
    except MemoryError:
        raise
    except Exception as error:
        return "failed", pickle.dumps(error), None


def _text(part: Any) -> str:
    """Everything that matters of a function or an argument, as text."""
    if isinstance(part, partial):
        return f"{_text(part.func)}({', '.join(map(_text, part.args))})"
    if isinstance(part, BaseModel):
        return f"{type(part).__qualname__} {part.model_dump_json()}"
    if isinstance(part, tuple):
        return f"({', '.join(map(_text, part))})"
    if isinstance(part, bytes):
        return hashlib.sha256(part).hexdigest()
    return f"{part.__module__}.{part.__qualname__}" if callable(part) else repr(part)
