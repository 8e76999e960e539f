"""Values of more than one word in the quick line: lengths, places, stripes and corners, each parted by strokes.

Every reader takes the tokens from the value on and gives it back with the tokens after it. Raises CannotRead.
"""

from collections.abc import Callable, Mapping
from typing import Any, NamedTuple, TypeVar

from amber_spread.core.kernel.units import LengthUnit
from amber_spread.core.line.quick_media import find_medium
from amber_spread.core.line.quick_words import CannotRead, Token, read_length, read_number
from amber_spread.core.stock.media import Medium

T = TypeVar("T")
Tokens = list[Token]


class Terms(NamedTuple):
    """What a value is read by: the unit of a bare number, and the media within reach."""

    unit: LengthUnit
    media: Mapping[str, Medium]


Reader = Callable[[Tokens, Terms], tuple[Any, Tokens]]
STROKE = "/"


def listed(tokens: Tokens, one: Callable[[Tokens], tuple[T, Tokens]]) -> tuple[list[T], Tokens]:
    """Values of one kind, parted by strokes."""
    first, tokens = one(tokens)
    found = [first]
    while len(tokens) > 1 and tokens[0].text == STROKE:
        following, tokens = one(tokens[1:])
        found.append(following)
    return found, tokens


def lengths(tokens: Tokens, by: Terms) -> tuple[list[float], Tokens]:
    """Lengths, mm."""
    return listed(tokens, lambda rest: (read_length(rest[0], by.unit), rest[1:]))


def signed(tokens: Tokens, by: Terms) -> tuple[float, Tokens]:
    """A length that may be to the other side, with a minus, mm."""
    if len(tokens) > 1 and tokens[0].text == "-":
        return -read_length(tokens[1], by.unit), tokens[2:]
    return read_length(tokens[0], by.unit), tokens[1:]


def places(tokens: Tokens, by: Terms) -> tuple[list[list[float]], Tokens]:
    """Places of supports as right:back, mm."""

    def one(rest: Tokens) -> tuple[list[float], Tokens]:
        first = rest[0]
        x, rest = signed(rest, by)
        if len(rest) < 2 or rest[0].text != ":":
            raise CannotRead(first.start, first.end, "Places are given as right:back, such as 30mm:0mm / -15mm:26mm.")
        y, rest = signed(rest[1:], by)
        return [x, y], rest

    return listed(tokens, one)


def stripes(tokens: Tokens, _: Terms) -> tuple[list[dict[str, Any]], Tokens]:
    """Colours with their shares."""

    def one(rest: Tokens) -> tuple[dict[str, Any], Tokens]:
        first, rest = rest[0], rest[1:]
        if first.kind != "text" and first.text.lower() != "plain":
            raise CannotRead(first.start, first.end, 'A stripe is a colour in quotes and its share: "honey" 2.')
        stripe: dict[str, Any] = {"colour": first.unquoted if first.kind == "text" else None}
        if rest and rest[0].kind == "number":
            stripe["share"], rest = read_number(rest[0]), rest[1:]
        return stripe, rest

    return listed(tokens, one)


def corners(tokens: Tokens, _: Terms) -> tuple[list[dict[str, Any]], Tokens]:
    """Corners of a turned profile as up:out."""

    def one(rest: Tokens) -> tuple[dict[str, Any], Tokens]:
        if len(rest) < 3 or rest[1].text != ":":
            raise CannotRead(
                rest[0].start, rest[0].end, "Points are given as height:width, such as 0:1 / 0.5:0.8 / 1:0.9."
            )
        return {"up": read_number(rest[0]), "out": read_number(rest[2])}, rest[3:]

    return listed(tokens, one)


def patches(tokens: Tokens, by: Terms) -> tuple[list[dict[str, Any]], Tokens]:
    """What each patch is cut from: a medium of its own where one is named, and a colour or plain."""

    def one(rest: Tokens) -> tuple[dict[str, Any], Tokens]:
        first, patch = rest[0], dict[str, Any]()
        plain = first.text.lower() == "plain"
        if not plain and (found := find_medium(rest, by.media)) is not None:
            patch["medium"], rest = found[0], rest[found[1] :]
        if rest and (rest[0].kind == "text" or rest[0].text.lower() == "plain"):
            patch["colour"] = rest[0].unquoted if rest[0].kind == "text" else None
            return patch, rest[1:]
        if not patch:
            raise CannotRead(first.start, first.end, 'A patch is a colour in quotes or plain, such as "honey" / plain.')
        return patch, rest

    return listed(tokens, one)


RUNS = ("level", "upright")
SIDES = ("beyond", "before")


def seams(tokens: Tokens, _: Terms) -> tuple[list[dict[str, Any]], Tokens]:
    """Seams as level or upright, at what share of the way, turned by how many degrees, and beyond or before which one
    they run.
    """

    def one(rest: Tokens) -> tuple[dict[str, Any], Tokens]:
        first = rest[0]
        if first.text.lower() not in RUNS or len(rest) < 2 or rest[1].kind != "number":
            raise CannotRead(
                first.start, first.end, "A seam is level or upright, at a share, such as level 0.4 / upright 0.5."
            )
        seam: dict[str, Any] = {"run": first.text.lower(), "at": read_number(rest[1])}
        rest = rest[2:]
        turned = -1 if rest and rest[0].text in ("-", "−") else 1
        ahead = rest[1:] if turned < 0 else rest
        if ahead and ahead[0].kind == "number":
            seam["turn_deg"], rest = turned * read_number(ahead[0]), ahead[1:]
        if rest and rest[0].text.lower() in SIDES:
            if len(rest) < 2 or rest[1].kind != "number":
                raise CannotRead(rest[0].start, rest[-1].end, "Say which seam, by its number, such as beyond 1.")
            seam["within"], rest = {"side": rest[0].text.lower(), "seam": read_number(rest[1])}, rest[2:]
        return seam, rest

    return listed(tokens, one)


SEVERAL: dict[str, Reader] = {
    "edges_mm": lengths, "heights_mm": lengths, "off_x_mm": signed, "off_y_mm": signed, "points_mm": places,
    "points": corners, "stripes": stripes, "patch_colours": patches,
    "own_seams": seams,
}  # fmt: skip
"""How a field is read whose value may be more than one word."""
