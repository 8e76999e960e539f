"""Answers that are not ready yet. The client asks again; nothing is wrong with what they drew or typed."""


class NotReady(RuntimeError):
    """An answer is not ready yet. The message says why, in sentences."""


class OutOfBudget(NotReady):
    """A job used up its processor time or memory, or its process ended."""

    def __init__(self) -> None:
        super().__init__("This computer is busy. We keep trying, and nothing is lost.")
