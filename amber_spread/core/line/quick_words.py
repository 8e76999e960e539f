"""The words of the quick line: what a field of the design is called, and how its value is written and read.

The words come from the design's own types: `overlap_mm` is written `overlap 25mm`. So a new kind of coat or
cover is read and printed without a line here.
"""

import re
from collections.abc import Mapping, Sequence
from decimal import Decimal
from fractions import Fraction
from functools import cache
from typing import Any, NamedTuple

from pydantic import BaseModel

from amber_spread.core.design.design import BaseBoard
from amber_spread.core.design.kinds import PARTS
from amber_spread.core.design.part_ids import typed_fields
from amber_spread.core.design.rows import Kind
from amber_spread.core.design.stands import Stacking
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.units import MM_PER_INCH, LengthUnit, UnitError, parse_length

NUMBER = r"\d+(?:[ -]\d+/\d+|/\d+)?(?:\.\d+)?|\.\d+"
_TOKEN = re.compile(
    r'(?P<text>"(?:[^"]|"")*")'
    r"|(?P<medium>=[a-z][a-z0-9_]*)"
    rf"|(?P<length>(?:{NUMBER}|\d+[½¼¾⅓⅔⅛⅜⅝⅞])\s?(?:mm|cm|in(?:ch(?:es)?)?|ft|m|″|”)(?![A-Za-z]))"
    rf"|(?P<number>(?:{NUMBER}|\d+[½¼¾⅓⅔⅛⅜⅝⅞])%?)"
    r"|(?P<hex>#[0-9A-Fa-f]{6}\b)"
    r"|(?P<by>[xX](?=\s?\d))"
    r"|(?P<word>[^\W\d][\w-]*)"
    r"|(?P<sign>[/:×])"
    r"|(?P<other>\S)"
)


CLAUSES = tuple(part for part in PARTS if part.word)
"""The parts of a tier that are clauses of the line; its shape and build stand in its head."""
NESTED = {part.path[-1] for part in CLAUSES if len(part.path) > 1}
"""Fields of a part that are clauses of their own."""


def drawn_fields(model: type[object]) -> tuple[str, ...]:
    """The fields of a part that are drawn, and so stand in no line."""
    found: tuple[str, ...] = getattr(model, "drawn", ())
    return found


class WholeClause(NamedTuple):
    """A clause of the whole cake: its word, the field of the design it sets, of what model, and its leading measure."""

    word: str
    field: str
    model: type[Frozen]
    leading: str | None = None


WHOLE = (WholeClause("base", "base_board", BaseBoard, "diameter_mm"), WholeClause("stacking", "stacking", Stacking))


class Token(NamedTuple):
    """One word, number, length, quoted text or sign, and where it stands in the line."""

    kind: str
    text: str
    start: int
    end: int

    @property
    def unquoted(self) -> str:
        """What stands between its quotes; a quote in a name is written twice."""
        return self.text[1:-1].replace('""', '"')


class Unread(Frozen):
    """A stretch of the line that could not be read, and why."""

    start: int
    end: int
    message: str
    meant: str | None = None
    """What was probably meant, to be put in its place."""


LOOKED_AHEAD = 24
"""Number of tokens to look ahead. The names of kinds, fields and media are all shorter."""


class CannotRead(ValueError):
    """What stands at a place cannot be read; the message says what would be."""

    def __init__(self, start: int, end: int, message: str) -> None:
        super().__init__(message)
        self.unread = Unread(start=start, end=end, message=message)


def tokens_of(text: str, offset: int = 0) -> list[Token]:
    """The tokens of a piece of the line that begins at `offset`."""
    return [
        Token(str(match.lastgroup), match[0], match.start() + offset, match.end() + offset)
        for match in _TOKEN.finditer(text)
    ]


def find_kind(tokens: Sequence[Token], kinds: Mapping[type[BaseModel], Kind]) -> tuple[type[BaseModel], int] | None:
    """The kind named at the head of `tokens`, and how many of them name it: the longest of the words of its row that
    ends where no field of the kind has begun (`twin disc diameter 8in` is a twin of that disc diameter).
    """
    best: tuple[type[BaseModel], int] | None = None
    tokens = tokens[:LOOKED_AHEAD]
    said = [token.text.lower() for token in tokens]
    for model, kind in kinds.items():
        for phrase in phrases_of(kind):
            long = len(phrase)
            if (
                tuple(said[:long]) == phrase
                and (best is None or long > best[1])
                and not _cuts_field(tokens, long, model)
            ):
                best = model, long
    return best


def _cuts_field(tokens: Sequence[Token], at: int, model: type[BaseModel]) -> bool:
    """Whether the name of a field stands across that place, or before it with its value after it."""
    said = [token.text.lower() for token in tokens]
    valued = at < len(tokens) and (tokens[at].kind in ("length", "number") or said[at] == "none")
    for field in typed_fields(model):
        words = word_of(field).split()
        for begin in range(max(1, at - len(words)), at):
            end = begin + len(words)
            if said[begin:end] == words and (end > at or (end == at and valued)):
                return True
    return False


@cache
def _phrase(words: str) -> tuple[str, ...]:
    return tuple(token.text for token in tokens_of(words.lower()))


def phrases_of(kind: Kind) -> list[tuple[str, ...]]:
    """All that a kind is called in a line, word by word: its name, its words on a button, what else its row says."""
    return _phrases(kind.kind, kind.words, *kind.said)


@cache
def _phrases(kind: str, *words: str) -> list[tuple[str, ...]]:
    return [_phrase(one) for one in (kind_word(kind), *words) if kind]


def word_of(field: str) -> str:
    """What a field is called: its name without the unit."""
    return field.removesuffix("_mm").replace("_", " ")


def kind_word(kind: str) -> str:
    """What a kind is called."""
    return kind.replace("_", "-")


def written(value: Any) -> str:
    """A number without loss, and without trailing noise."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(int(value)) if float(value).is_integer() else f"{Decimal(repr(float(value))):f}"


def length_written(value: float, unit: LengthUnit = "mm") -> str:
    """A length without loss: in that unit where it has a mark for it (of an inch sixteenths), else in millimetres."""
    candidates = []
    if unit == "in":
        whole, sixteenths = divmod(round(value / MM_PER_INCH * 16), 16)
        part = "" if sixteenths == 0 else str(Fraction(sixteenths, 16))
        candidates.append(f"{whole or ''}{' ' if whole and part else ''}{part}in" if whole or part else "0in")
    elif unit == "cm":
        candidates.append(f"{written(round(value / 10, 2))}cm")
    candidates.append(f"{written(round(value, 2))}mm")
    return next((one for one in candidates if _read_back(one) == value), f"{written(value)}mm")


def _read_back(text: str) -> float | None:
    try:
        return parse_length(text, "mm")
    except UnitError:
        return None


def colour_written(name: str) -> str:
    """A name in quotes; a quote within it is written twice."""
    return '"' + name.replace('"', '""') + '"'


def read_length(token: Token, unit: LengthUnit) -> float:
    """Millimetres from a length or a bare number. Raises CannotRead."""
    if token.kind not in ("length", "number") or token.text.endswith("%"):
        raise CannotRead(token.start, token.end, "A length belongs here, such as 8 in or 20 mm.")
    try:
        return parse_length(token.text, unit)
    except UnitError as error:
        raise CannotRead(token.start, token.end, str(error)) from error


def read_number(token: Token) -> float | int:
    """A plain number; per cent become a share. Raises CannotRead."""
    if token.kind != "number" or "/" in token.text:
        raise CannotRead(token.start, token.end, "A plain number belongs here.")
    if token.text.endswith("%"):
        return float(token.text[:-1]) / 100
    return float(token.text) if "." in token.text else int(token.text)
