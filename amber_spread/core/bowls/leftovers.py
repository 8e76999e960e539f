"""What is left of a bowl, and what it can still be used for."""

from collections.abc import Mapping

from amber_spread.core.bowls.bowls import Bowl
from amber_spread.core.stock.media import LEFTOVER, Medium

WORTH_KEEPING_G = 30.0
"""Less than this is not worth a box (from memory)."""


def lightness(hex: str) -> float:
    """How light a colour is, 0 to 1: its luma, 0.2126 R + 0.7152 G + 0.0722 B.

    Source: published (ITU-R Recommendation BT.709), on the values as they are written.
    """
    red, green, blue = (int(hex[at : at + 2], 16) / 255 for at in (1, 3, 5))
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def leftovers_of(bowls: Mapping[str, Bowl], media: Mapping[str, Medium]) -> dict[str, list[str]]:
    """For each bowl of which something worth keeping is likely left, what to do with it, in words."""
    found: dict[str, list[str]] = {}
    for key, bowl in bowls.items():
        if bowl.left["likely"].value < WORTH_KEEPING_G:
            continue
        medium = media[bowl.medium]
        words = []
        darker = [
            other.colour
            for other in bowls.values()
            if other.medium == bowl.medium and other.colour and lightness(other.hex) < lightness(bowl.hex) - 0.05
        ]
        if darker:
            into = " or the ".join(darker)
            words.append(f"Coloured on, it goes into the {into} of this cake: work with the light one first.")
        words.append(LEFTOVER[medium.kind])
        if medium.perishable or medium.raw_egg or medium.allergens:
            words.append("Label it with the day and its allergens; your local food code says how long it keeps.")
        found[key] = words
    return found
