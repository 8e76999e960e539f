"""A check: one thing to know about a design, where it stands, what will happen and what to do.

A check never stops anyone. Its text holds places such as `{disc}` for the measures in `values`, so
that the reader's own units are put in where it is shown.
"""

from collections.abc import Sequence
from typing import Literal, Protocol

from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.figures import Quantity

Severity = Literal["trouble", "care", "caution"]
Lens = Literal["brief", "layers", "coats", "cover", "carve", "stack", "mix"]


class Check(Made):
    """One thing to know. `tier` counts from 1 at the bottom; None is the whole cake."""

    code: str
    severity: Severity
    lens: Lens
    tier: int | None
    text: str
    values: dict[str, Quantity] = {}


class Said(Made):
    """A sentence with places for measures, as a check's: a step of the work, or why a figure is what it is.

    `part` is the heading it stands under; a `caution` is one that guards somebody.
    """

    text: str
    values: dict[str, Quantity] = {}
    part: str = ""
    caution: bool = False


def say(text: str, part: str = "", caution: bool = False, **values: Quantity) -> Said:
    """A sentence with its measures."""
    return Said(text=text, values=values, part=part, caution=caution)


class Checker(Protocol):
    """Makes the checks of one tier."""

    def __call__(self, code: str, severity: Severity, lens: Lens, text: str, **values: Quantity) -> Check:
        """A check of that tier."""


def checker(tier: int | None) -> Checker:
    """A maker of checks for tier `tier`, or for the whole cake."""

    def check(code: str, severity: Severity, lens: Lens, text: str, **values: Quantity) -> Check:
        return Check(code=code, severity=severity, lens=lens, tier=tier, text=text, values=values)

    return check


def mm(value: float) -> Quantity:
    """A length for a check's text."""
    return Quantity(value=value, unit="mm")


def grams(value: float) -> Quantity:
    """A weight for a sentence."""
    return Quantity(value=value, unit="g")


def degrees(value: float) -> Quantity:
    """An angle for a sentence."""
    return Quantity(value=value, unit="deg")


def times(value: float) -> Quantity:
    """A ratio for a check's text."""
    return Quantity(value=value, unit="ratio")


def listed(words: Sequence[str]) -> str:
    """Words as a list in a sentence."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"
