"""What papers say of a step of the clock, in one person's units."""

from collections.abc import Iterator

from amber_spread.core.clock import TimedStep
from amber_spread.papers.printed import Sheet


class StepWords(Sheet):
    """A paper that says what to do at each step."""

    def hands(self, step: TimedStep) -> str:
        """Whose hands do it, where there are several pairs."""
        return f"{step.whose[:1].upper()}{step.whose[1:]}." if step.whose else ""

    def cautions(self, step: TimedStep) -> Iterator[str]:
        """What to be careful of."""
        return (f"Caution: {self.said(one)}" for one in step.tasks if one.caution)

    def sign(self, step: TimedStep) -> str:
        """How you know that a wait is over."""
        return f"Done when {step.sign}." if step.sign else ""


def place_words(step: TimedStep) -> str:
    """Where a wait is spent; in the cold, on which shelf."""
    return ", ".join(words for words in (step.place.capitalize(), step.stands) if words)
