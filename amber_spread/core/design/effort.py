"""How much work a design is to plan, guessed from what it says before any of it is drawn."""

import json

from amber_spread.core.design.design import Design, Tier
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import FreeShape, RoundShape
from amber_spread.core.kernel.base import without_fields
from amber_spread.core.kernel.limits import SUPPORTS

TIER_MS = 6.0
"""An everyday tier (measured, and doubled)."""
CORNER_MS, SLANTED_CORNER_MS = 0.01, 0.04
"""For the square of the corners of an outline of one's own: the worst of them, all teeth (measured)."""

SUPPORT_MS = {True: 0.12, False: 0.5}
"""For each support under a tier, on a round tin or another: where it may stand is found by trying (measured)."""
JOINT_MS = {True: 0.0, False: 6.0}
INCH_MM = 25.4
UNSHAPED = ("medium", "colour", "name", "cake", "picture", "scored_mm", "scored_run")
"""Fields that say what something is made of or called, what it was drawn after, or what is drawn on it; and its id."""


def effort_ms(design: Design, carved: bool = False) -> float:
    """How long a design may take to plan from nothing on an everyday machine, ms; more rather than less. With what is
    `carved` in it worked out before, a carved tier is an everyday one.
    """
    tiers = (TIER_MS if carved and tier.build.carved else _tier_ms(tier) for tier in design.tiers)
    return sum(tiers) + sum(_joint_ms(tier) for tier in design.tiers[1:])


def carving_of(design: Design, practice: Practice) -> str:
    """What the work on the carved tiers of a design rests on, as one text; nothing where none is carved.

    All that says how anything is shaped and how thick it is, without what it is made of, coloured and called.
    """
    carved = [without_fields(tier.model_dump(mode="json"), _unshaped) for tier in design.tiers if tier.build.carved]
    return json.dumps([carved, practice.model_dump(mode="json")]) if carved else ""


def bodies_of(design: Design, practice: Practice) -> str:
    """What the bare bodies of the carved tiers of a design rest on, as one text: the same for other coats and layers of
    as many. Nothing where none is carved.
    """
    tiers = [tier for tier in design.tiers if tier.build.carved]
    fields = {"shape": True, "build": True, "tin_diameter_mm": True, "measured": True}
    # What is cut out of a body once it is made changes nothing of it.
    bodies = [tier.model_dump(mode="json", include=fields, exclude={"build": {"openings"}}) for tier in tiers]
    shaped = without_fields(bodies, _unshaped)
    return json.dumps([shaped, practice.narrower_mm]) if tiers else ""


def _unshaped(name: str) -> bool:
    return name == "id" or name.endswith(UNSHAPED)


def _joint_ms(tier: Tier) -> float:
    """For what a tier stands on; without a number of its own it has about one support an inch."""
    round_one = isinstance(tier.shape, RoundShape)
    count = min(SUPPORTS.high, tier.stand.count or tier.tin_diameter_mm / INCH_MM)
    return JOINT_MS[round_one] + SUPPORT_MS[round_one] * count


def _tier_ms(tier: Tier) -> float:
    straight, shape, build = tier.build.straight and tier.measured is None, tier.shape, kind_of(tier.build)
    if build.effort_ms is not None:
        return build.effort_ms
    pieces = sum(_corners_ms(top.shape.line_mm, CORNER_MS) for top in tier.on_top if isinstance(top.shape, FreeShape))
    if isinstance(shape, FreeShape):
        return TIER_MS + pieces + _corners_ms(shape.line_mm, CORNER_MS if straight else SLANTED_CORNER_MS)
    slanted_ms = None if straight else kind_of(shape).effort_ms
    return pieces + (TIER_MS if slanted_ms is None else slanted_ms)


def _corners_ms(points: tuple[tuple[float, float], ...], each_ms: float) -> float:
    return each_ms * len(points) ** 2
