"""A check: one thing to know about a design, where it stands, what will happen and what to do.

A check never stops anyone. Its text holds places such as `{disc}` for the measures in `values`, so
that the reader's own units are put in where it is shown.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Literal, Protocol

from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, Rounding, Unit

Severity = Literal["trouble", "care", "caution"]
Subject = Literal["order", "layers", "coats", "cover", "body", "stack", "bowls", "clock"]
"""What a check is about; a screen shows it where that is decided."""


@dataclass(frozen=True, slots=True)
class RoundedQuantity:
    """A number in a sentence: its unit, and which way it is rounded where it is shown."""

    value: float
    unit: Unit
    rounding: Rounding = "nearest"


class Check(PlanPart):
    """One thing to know. `tier` counts from 1 at the bottom; None is the whole cake."""

    code: str
    severity: Severity
    subject: Subject
    tier: int | None
    text: str
    values: dict[str, RoundedQuantity] = {}


class Said(PlanPart):
    """A sentence with places for measures, as a check's: a step of the work, or why a figure is what it is.

    `part` is the heading it stands under; a `caution` is one that guards somebody.
    """

    text: str
    values: dict[str, RoundedQuantity] = {}
    part: str = ""
    caution: bool = False


def say(text: str, part: str = "", caution: bool = False, **values: RoundedQuantity) -> Said:
    """A sentence with its measures."""
    return Said(text=text, values=values, part=part, caution=caution)


class Checker(Protocol):
    """Makes the checks of one tier."""

    def __call__(self, code: str, severity: Severity, subject: Subject, text: str, **values: RoundedQuantity) -> Check:
        """A check of that tier."""


@cache
def checker(tier: int | None) -> Checker:
    """A maker of checks for tier `tier`, or for the whole cake."""

    def check(code: str, severity: Severity, subject: Subject, text: str, **values: RoundedQuantity) -> Check:
        return Check(code=code, severity=severity, subject=subject, tier=tier, text=text, values=values)

    return check


def measure(figure: Figure) -> RoundedQuantity:
    """A figure for a sentence: the same number, rounded the same way, as wherever else it is shown."""
    return RoundedQuantity(figure.value, figure.unit, figure.rounding)


def mm(value: float, rounding: Rounding = "nearest") -> RoundedQuantity:
    """A length for a check's text."""
    return RoundedQuantity(value, "mm", rounding)


def grams(value: float) -> RoundedQuantity:
    """A weight for a sentence."""
    return RoundedQuantity(value=value, unit="g")


def degrees(value: float) -> RoundedQuantity:
    """An angle for a sentence."""
    return RoundedQuantity(value=value, unit="deg")


def times(value: float) -> RoundedQuantity:
    """A ratio for a check's text."""
    return RoundedQuantity(value=value, unit="ratio")


def listed(words: Sequence[str], last: Literal["and", "or"] = "and") -> str:
    """Words as a list in a sentence."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} {last} {words[-1]}"
