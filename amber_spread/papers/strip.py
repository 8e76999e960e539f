"""One strip of paper in place of a stack of circles and rectangles: from the pin to the pencil of each circle, and
every side of each rectangle.
"""

from collections.abc import Sequence

from amber_spread.core.geometry.flat.pieces import Mark, circle, rectangle
from amber_spread.papers.templates import LABEL_MM, WORDS_WIDE_MM, Template, beside, ticks

COLUMN_MM = 66.0
PIN_MM = 10.0
"""The pin stands so far up the strip."""
CROSS_MM = 4.0


def with_strip(templates: Sequence[Template]) -> list[Template]:
    """The templates, the plain circles and rectangles among them on one strip at the end."""
    rounds = [one for one in templates if is_round(one)]
    straight = [one for one in templates if is_straight(one)]
    drawn = [one for one in templates if one not in rounds and one not in straight]
    return [*drawn, strip_of(rounds, straight)] if rounds or straight else drawn


def is_round(one: Template) -> bool:
    """Whether it is a circle with nothing on it."""
    return not one.marks and one.corners == circle(one.size[0])


def is_straight(one: Template) -> bool:
    """Whether it is a rectangle with nothing on it."""
    return not one.marks and one.corners == rectangle(*one.size)


def strip_of(rounds: Sequence[Template], straight: Sequence[Template]) -> Template:
    """The strip: radii on the left, up from the pin, sides on the right, up from the lower edge."""
    radii = [(PIN_MM + one.size[0] / 2, _called(one)) for one in rounds]
    sides = [
        (side, f"{_called(one)}, {way}")
        for one in straight
        for side, way in zip(one.size, ("long", "high"), strict=True)
    ]
    first = (*rounds, *straight)[0]
    highest = max(up for up, _ in (*radii, *sides))
    second = COLUMN_MM if radii else 0.0
    wide = second + (COLUMN_MM if sides else 0.0) + WORDS_WIDE_MM
    marks = [*ticks(radii), *ticks(sides, second)]
    if radii:
        marks.append(Mark(name="", x0=0, y0=PIN_MM, x1=2 * CROSS_MM, y1=PIN_MM))
        marks.append(Mark(name="Pin here", x0=12, y0=PIN_MM - 1, x1=12, y1=PIN_MM - 1))
        marks.append(Mark(name="", x0=CROSS_MM, y0=PIN_MM - CROSS_MM, x1=CROSS_MM, y1=PIN_MM + CROSS_MM))
    return Template(
        key="strip",
        tier="Strip",
        name="circles from the pin, sides from the lower edge",
        copies=1,
        corners=rectangle(wide, highest + LABEL_MM),
        marks=marks,
        order=first.order,
        due=first.due,
        **beside(wide),
    )


def _called(one: Template) -> str:
    return f"{one.tier}: {one.name}" + (f" × {one.copies}" if one.copies > 1 else "")
