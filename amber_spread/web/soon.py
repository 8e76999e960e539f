"""What is computed of an order and stored beside it: now if that is quick, else in the background."""

import time
from collections.abc import Callable, Hashable
from typing import TypeVar

from amber_spread.core.document import FileError
from amber_spread.jobs.program import program_version
from amber_spread.web.later import Later

T = TypeVar("T")
MAKES_S = 1.0
"""One request computes for this long; what is still missing then is computed in the background."""
UNREADABLE = "This version cannot read it. Open it to see why."


class FailedLately(RuntimeError):
    """Computing something failed a moment ago; it is tried again later."""


class Soon:
    """The time that one request has to compute what is not stored."""

    def __init__(self, later: Later) -> None:
        self.later = later
        self.until = time.monotonic() + MAKES_S

    def make(self, key: Hashable, now: Callable[[], T | None], then: Callable[[], object]) -> T | None:
        """The result of `now`, if the request has time left; None if it is not quick: `then` runs in the background.
        Raises FailedLately.
        """
        made = now() if time.monotonic() < self.until else None
        if made is None and not self.later.begin(key, then):
            raise FailedLately
        return made


def made_by(kit_number: int) -> str:
    """What a stored result depends on beside the order: the program and the kit."""
    return f"{program_version()}, kit {kit_number}"


def why_not(error: FileError) -> str:
    """Why a design cannot be made, as a sentence."""
    return f"It cannot be made like this: {error}."
