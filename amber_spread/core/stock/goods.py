"""Goods: what is bought by the piece and not by weight - boards, supports, sheets, and tools that are still to get."""

import re
from typing import NamedTuple

from amber_spread.core.kernel.units import LengthUnit, UnitError, parse_length
from amber_spread.core.stock.supports import SORTS

GOODS: dict[str, str] = {
    "board": "Cake board",
    "base_board": "Base board",
    "support": "Support rod",
    "dowel": "Centre dowel",
    "straw": "Straw",
    "wide_straw": "Wide straw",
    "wooden_dowel": "Wooden dowel",
    "plastic_tube": "Plastic tube",
    "printed_sheet": "Printed sheet",
    "card": "Setting-up board",
    "disc": "Disc",
    "scraper": "Scraper",
    "smoother": "Smoother",
    "mat": "Rolling mat",
    "pin": "Rolling pin",
    "tin": "Tin",
}
"""Every kind of goods, as it stands at the head of an item's key, by its name."""
SHAPES = ("square", "rectangle", "oval", "outline")
"""The shapes that goods other than round ones are named by, after their kind."""
USED_UP = ("board", "base_board", "support", "dowel", *SORTS, "printed_sheet")
"""What leaves with the cake, and so is bought for each; the rest is a tool, bought once."""
_KEY = re.compile(rf"({'|'.join(sorted(GOODS, key=len, reverse=True))})(?:_([a-z]+))?_(\d+)(?:x(\d+))?")


class Good(NamedTuple):
    """One kind of goods in one size, mm; of smoothers the size is their count."""

    kind: str
    size: int
    length: int | None = None
    shape: str = "round"


def good_key(kind: str, size: float, length: float | None = None, shape: str = "round") -> str:
    """The item's key of goods in a size, mm: `board_254`, `printed_sheet_254x203`, `tin_square_203`."""
    head = kind.replace(" ", "_") + ("" if shape == "round" else f"_{shape}")
    return f"{head}_{size:.0f}" + ("" if length is None else f"x{length:.0f}")


def goods_in_words(words: str, unit: LengthUnit = "in") -> str | None:
    """The key of goods named with their size, such as `Cake board 10 in`, `Cake board, square 8 in` or
    `Printed sheet 10 x 8 in`; None otherwise.

    A size without a unit is in `unit`, that of the last size where one is given.
    """
    text = " ".join(words.casefold().split())
    for kind in sorted(GOODS, key=lambda one: -len(GOODS[one])):
        name = GOODS[kind].casefold()
        if not text.startswith((f"{name} ", f"{name},")):
            continue
        rest = text[len(name) :].strip(" ,")
        shape = next((one for one in SHAPES if rest.startswith(f"{one} ")), "round")
        sides = [side.strip() for side in re.split("[x×]", rest.removeprefix(shape).strip(" ,"))]
        tail = re.search(r"[a-z]+$", sides[-1])
        try:
            size, *length = [
                parse_length(side if side[-1:].isalpha() or not tail else f"{side} {tail[0]}", unit) for side in sides
            ]
        except UnitError:
            return None
        return good_key(kind, size, length[0] if length else None, shape) if len(length) <= 1 else None
    return None


def read_good(key: str) -> Good | None:
    """The goods an item's key stands for, None when it is no goods."""
    match = _KEY.fullmatch(key)
    if not match:
        return None
    return Good(match[1], int(match[3]), int(match[4]) if match[4] else None, match[2] or "round")
