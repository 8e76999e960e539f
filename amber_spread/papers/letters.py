"""The letters of printed papers: the standard fonts where they have every letter, an embedded one where they do not."""

from functools import cache
from pathlib import Path

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

BROAD = "DejaVuSans"
"""Has the letters of all of Europe, and more; it lies beside this file, with its licence."""


def lettered(words: str, font: str) -> tuple[str, str]:
    """Words as they can be printed, and the font to print them in: `font`, a standard one, where it has every letter.

    A letter that no font here has becomes a question mark.
    """
    try:
        words.encode("cp1252")
    except UnicodeEncodeError:
        known = _broad()
        return "".join(letter if ord(letter) in known else "?" for letter in words), BROAD
    return words, font


@cache
def _broad() -> frozenset[int]:
    """Have the embedded font at hand; gives back the letters it has."""
    font = TTFont(BROAD, str(Path(__file__).parent / "fonts" / f"{BROAD}.ttf"))
    pdfmetrics.registerFont(font)
    return frozenset(font.face.charToGlyph)
