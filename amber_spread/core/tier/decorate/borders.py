"""Piped borders along the foot and the top edge of a finished tier."""

import math
from typing import Literal

from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.geometry.flat.outline import Outline, perimeter_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, rule
from amber_spread.core.stock.media import Medium, weight

BEADS = {"half": 0.5, "round": 1.0, "shell": 1.25, "rope": 1.6}
"""What a border takes of a round bead as wide: shells lie half on each other, each loop of a rope on the last (from
memory; half and round: geometry).
"""
HALF_BEAD = 2 / (3 * math.pi)
"""How far the middle of half a round lies from its flat, as a share of its width (geometry: 4 r / 3 pi)."""


class BorderPlan(PlanPart):
    """A piped border: how long, the section of its bead, how far it stands out and up, and what it takes."""

    at: Literal["foot", "top"]
    out: Figure
    up: Figure
    length: Figure
    bead: Figure
    volume: Figure
    weight: Figure


@rule(
    "extras.border",
    unit="ml",
    formula="length * pi / 4 * bead**2 * share / 1000",
    words="The length of the edge, times the section of the bead: a round, half of one, or more where shells or loops "
    "lie on each other.",
)
def border_volume(length_mm: float, bead_mm: float, share: float) -> float:
    """Volume of a piped border, ml: length x pi/4 bead² x share / 1000; share 1 for a round bead, 1/2 for a half, more
    for shells and ropes.

    Source: geometry; what shells and ropes take besides is from memory.

    >>> round(border_volume(847.8, 8, 0.5), 2)
    21.31
    """
    return length_mm * math.pi / 4 * bead_mm**2 * share / MM3_PER_ML


def plan_borders(
    tier: SettledTier, media: dict[str, Medium], foot: Outline, flat: Outline | None
) -> dict[str, BorderPlan]:
    """Each border by its id, along the foot or the top edge of the finished tier: round the wall at the foot, within
    the edge on the top. A tier without a flat top takes it at its foot.
    """
    plans = {}
    for border in tier.asked.borders:
        at: Literal["foot", "top"] = border.at if flat is not None else "foot"
        bead = tier.settled(border, "bead_mm")
        # A round bead stands out by its width, its middle at half of it; half of one lies against the wall or the top.
        out_mm = bead.value / 2 if border.bead == "half" else bead.value
        edge, way = (foot, 1) if at == "foot" or flat is None else (flat, -1)
        centroid_mm = bead.value / 2 if border.bead != "half" or at == "top" else HALF_BEAD * bead.value
        length = carry_over("length along the middle of the bead", perimeter_at(edge, way * centroid_mm), "mm")
        volume = border_volume.figure(length.value, bead.value, BEADS[border.bead])
        heavy = weight.figure(volume.value, media[border.medium].density_g_per_ml)
        plans[f"border_{border.id}"] = BorderPlan(
            at=at,
            out=carry_over("out from the wall", out_mm if at == "foot" else 0.0, "mm"),
            up=carry_over("up from the top", out_mm if at == "top" else 0.0, "mm"),
            length=length,
            bead=bead,
            volume=volume,
            weight=heavy,
        )
    return plans
