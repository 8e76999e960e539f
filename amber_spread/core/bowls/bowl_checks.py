"""What to know about the bowls: colours that never match again, strong colours, and more than one batch."""

import colorsys
from collections.abc import Iterator, Mapping

from amber_spread.core.bowls.bowls import Bowl
from amber_spread.core.design.design import Design
from amber_spread.core.kernel.check import Check, checker, measure
from amber_spread.core.stock.media import Medium

STRONG_SATURATION, STRONG_VALUE, DARK_VALUE = 0.75, 0.85, 0.25
"""A colour this full, or this dark, takes so much paste that it is bought ready-made (from memory)."""
STRONG_LEAST_G = 150.0
"""Less than this is coloured by hand all the same (from memory)."""


def is_strong(hex: str) -> bool:
    """Whether a colour is so full or so dark that mixing it takes a great deal of paste."""
    red, green, blue = (int(hex[at : at + 2], 16) / 255 for at in (1, 3, 5))
    _, saturation, value = colorsys.rgb_to_hsv(red, green, blue)
    return value < DARK_VALUE or (saturation > STRONG_SATURATION and value < STRONG_VALUE)


def bought_coloured(design: Design, bowl: Bowl, medium: Medium) -> bool:
    """Whether a bowl of a rolled sheet is better bought ready-coloured than coloured by hand."""
    colour = design.colour_hex(bowl.colour)
    return bool(colour and medium.kind == "fondant" and is_strong(colour) and bowl.mix.value >= STRONG_LEAST_G)


def checks_of_bowls(design: Design, bowls: Mapping[str, Bowl], media: Mapping[str, Medium]) -> Iterator[Check]:
    """Everything to know about what is mixed."""
    check = checker(None)
    for bowl in bowls.values():
        colour = design.colour_hex(bowl.colour)
        weight = measure(bowl.mix)
        if colour and is_strong(colour) and bowl.mix.value >= STRONG_LEAST_G:
            what = media[bowl.medium].name.lower()
            yield check(
                "mix.strong_colour",
                "care",
                "bowls",
                f"So much paste goes into {{weight}} of {what} in {bowl.colour} that it turns soft and tastes of it. "
                "Buy it ready-coloured, or colour it a day ahead and let it deepen.",
                weight=weight,
            )
        if bowl.colour and bowl.batches is not None and bowl.batches.value > 1:
            yield check(
                "mix.combine_first",
                "care",
                "bowls",
                f"{bowl.name} takes {{count}} fillings of the mixer. Stir the uncoloured batches together before you "
                "colour them: two mixes of one colour never match.",
                count=measure(bowl.batches),
            )
