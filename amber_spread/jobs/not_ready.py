"""Answers that are not ready yet, and jobs that end without one."""


class NotReady(RuntimeError):
    """An answer is not ready yet: the client asks again. Nothing is wrong with what they drew or typed.

    The message says why, in sentences.
    """


class OutOfBudget(NotReady):
    """A job used up its processor time or memory, its process ended, or its queue was away."""

    def __init__(self) -> None:
        super().__init__("This computer is busy. We keep trying, and nothing is lost.")


class QueueFull(NotReady):
    """A client has too many unfinished jobs."""

    def __init__(self, unfinished: int) -> None:
        super().__init__(f"You have {unfinished} requests waiting already. We try this one again in a moment.")


class Ended(RuntimeError):
    """The process of a job ended before it returned a result."""


class Unwanted(RuntimeError):
    """Nobody waits for a job any longer."""
