"""The rules coats are worked out by: thicknesses given and following, what lies between envelopes, what is built up."""

import math

from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.kernel.figures import COMMON_PRACTICE, rule


@rule(
    "coats.diameter",
    unit="mm",
    formula="inner + 2 * side",
    words="The diameter below the coat, and the side thickness on both sides of it.",
)
def coated_diameter(inner_mm: float, side_mm: float) -> float:
    """Diameter over a coat, mm: inner + 2 x side. Source: geometry.

    >>> coated_diameter(250, 2)
    254
    """
    return inner_mm + 2 * side_mm


@rule(
    "coats.height",
    unit="mm",
    formula="inner + top",
    words="The height below the coat, and the coat's thickness on top.",
)
def coated_height(inner_mm: float, top_mm: float) -> float:
    """Height over a coat, mm: inner + top. Source: geometry.

    >>> coated_height(102, 2)
    104
    """
    return inner_mm + top_mm


@rule(
    "coats.volume",
    unit="ml",
    formula="max(0, outer - inner)",
    words="The volume over the coat, less the volume below it: what lies between, and never less than none.",
)
def coat_volume(outer_ml: float, inner_ml: float) -> float:
    """Volume of a coat, ml: outer envelope - inner envelope, never below 0. Round edges over a thick sharp
    crumb coat would take some of that off, where next to nothing goes on.

    For a round tier pi[(r + s)²(h + t) - r² h]. Source: geometry (cylinders).

    >>> round(coat_volume(1992.9, 1855), 2)
    137.9
    >>> coat_volume(1855, 1860)
    0.0
    """
    return max(0.0, outer_ml - inner_ml)


@rule(
    "coats.disc.side",
    unit="mm",
    formula="(disc - inner) / 2",
    words="A disc sets the outside: half of what it is wider than the crumb-coated cake.",
)
def side_from_disc(disc_mm: float, inner_mm: float) -> float:
    """Side thickness a disc leaves, mm: (disc - inner) / 2; negative when the disc is too small.

    Source: geometry. A 6.25 in disc on a 6 in cake leaves 1/8 in (common practice).

    >>> round(side_from_disc(158.75, 152.4), 2)
    3.17
    """
    return (disc_mm - inner_mm) / 2


@rule(
    "coats.relief",
    unit="ml",
    formula="area * relief / 1000",
    words="The area of wall and top, times the mean height of the piping or strokes on it.",
)
def relief_volume(area_mm2: float, relief_mm: float) -> float:
    """Volume of a textured coat, ml: (wall + top area) x mean relief / 1000. Source: geometry.

    >>> relief_volume(90825, 8)
    726.6
    """
    return area_mm2 * relief_mm / MM3_PER_ML


@rule(
    "coats.rim",
    unit="ml",
    formula="(outer - inner) * high / 1000",
    words="The ring of coat at the side, carried up above the top as a lip.",
)
def rim_volume(outer_mm2: float, inner_mm2: float, high_mm: float) -> float:
    """Volume of a deckled rim, ml: (area over the coat - area under it) x height / 1000. Source: geometry.

    >>> rim_volume(34636, 31416, 12)
    38.64
    """
    return (outer_mm2 - inner_mm2) * high_mm / MM3_PER_ML


@rule(
    "coats.across_slope",
    unit="mm",
    formula="side / cos(lean)",
    words="On a leaning wall the coat is thicker along a level line than at right angles to the wall.",
)
def across_slope(side_mm: float, lean: float) -> float:
    """Level thickness of a coat on a tapered wall, mm: side / cos(lean), lean in radians from upright. Source:
    geometry.

    >>> round(across_slope(2, 0.24), 2)
    2.06
    """
    return side_mm / math.cos(lean)


@rule(
    "coats.parchment",
    unit="mm",
    formula="disc",
    source=COMMON_PRACTICE,
    rounding="down",
    words="A circle of parchment the size of the disc, or a hair less, so that the disc comes off.",
)
def parchment(disc_mm: float) -> float:
    """Diameter of the parchment under a disc, mm: the disc's own, cut a little under. Source: common practice.

    >>> parchment(216)
    216
    """
    return disc_mm


@rule(
    "coats.scraper",
    unit="mm",
    formula="height",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The scraper must be taller than the coated tier, so that it draws the whole wall at one go.",
)
def scraper(height_mm: float) -> float:
    """Least height of the scraper, mm: the coated tier's. Source: common practice.

    >>> scraper(135)
    135
    """
    return height_mm


@rule(
    "coats.build_up.side",
    unit="mm",
    formula="(width - measured) / 2",
    words="Half of what the cake is narrower there than at its widest.",
)
def build_up_side(width_mm: float, measured_mm: float) -> float:
    """Extra coat on one side, mm: (widest - measured) / 2, taking the cake as centred on its board. Source:
    geometry.

    >>> build_up_side(205, 203)
    1.0
    """
    return (width_mm - measured_mm) / 2


@rule(
    "coats.build_up.rise",
    unit="mm",
    formula="highest - measured",
    words="What that side is lower than the highest side.",
)
def build_up_rise(highest_mm: float, measured_mm: float) -> float:
    """What one side of the top must be built up, mm: highest - measured. Source: geometry.

    >>> build_up_rise(118, 110)
    8
    """
    return highest_mm - measured_mm


@rule(
    "coats.build_up.volume",
    unit="ml",
    formula="straight - measured",
    words="The straight, level cake around the widest and highest measures, less the cake as it was measured.",
)
def build_up_volume(straight_ml: float, measured_ml: float) -> float:
    """Coat that makes a leaning or oval cake straight, ml: straight - measured. Source: geometry.

    >>> round(build_up_volume(3894.8, 2805.5), 2)
    1089.3
    """
    return straight_ml - measured_ml
