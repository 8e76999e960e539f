"""What a part of a design takes of which medium, beside the one it names first."""

from abc import abstractmethod
from collections.abc import Iterator

from amber_spread.core.kernel.base import Frozen

Taken = tuple[tuple[str | int, ...], str, str | None]
"""The path of the field that names a medium, its key, and the colour it is mixed to."""


class TakesMore(Frozen):
    """A part that takes more than one medium, or one in more than one colour."""

    @abstractmethod
    def also_takes(self) -> Iterator[Taken]:
        """What it takes besides, by paths below it."""
