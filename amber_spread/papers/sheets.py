"""The paper that is printed on."""

from typing import Literal

from reportlab.lib.pagesizes import A4, LETTER

Paper = Literal["a4", "letter"]
SIZES = {"a4": A4, "letter": LETTER}
