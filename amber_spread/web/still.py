"""What is not there yet: whoever asked may ask again, and nothing is said of what they drew or typed."""

SLOW = "This computer is busy. It is tried again in a moment; nothing is lost."


class StillWorking(RuntimeError):
    """What was asked for is not there yet; the message says so in sentences."""


class TooMuch(StillWorking):
    """A piece of work took more of the processor or the memory than one piece may."""

    def __init__(self) -> None:
        super().__init__(SLOW)
