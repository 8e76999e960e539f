"""Crumb coat and final coat of one tier, as the room between nested envelopes."""

from amber_spread.core.base import Frozen
from amber_spread.core.body import Straight
from amber_spread.core.design import DiscFinal, FreehandFinal, NoFinal, Tier
from amber_spread.core.figures import Figure, chosen, rule
from amber_spread.core.media import Medium, weight
from amber_spread.core.practice import Practice


class CoatPlan(Frozen):
    """One coat: how thick, what the tier measures over it, and how much of it stays."""

    side: Figure
    top: Figure
    diameter: Figure
    height: Figure
    volume: Figure
    weight: Figure


class CoatsPlan(Frozen):
    """Both coats; `final` is None where the tier stays at its crumb coat."""

    crumb: CoatPlan
    final: CoatPlan | None


@rule(
    "coats.diameter", unit="mm", formula="inner + 2 * side",
    words="The diameter below the coat, and the side thickness on both sides of it.",
)  # fmt: skip
def coated_diameter(inner_mm: float, side_mm: float) -> float:
    """Diameter over a coat, mm: inner + 2 x side. Source: geometry."""
    return inner_mm + 2 * side_mm


@rule(
    "coats.height", unit="mm", formula="inner + top",
    words="The height below the coat, and the coat's thickness on top.",
)  # fmt: skip
def coated_height(inner_mm: float, top_mm: float) -> float:
    """Height over a coat, mm: inner + top. Source: geometry."""
    return inner_mm + top_mm


@rule(
    "coats.volume", unit="ml", formula="outer - inner",
    words="The volume over the coat, less the volume below it: the coat is what lies between.",
)  # fmt: skip
def coat_volume(outer_ml: float, inner_ml: float) -> float:
    """Volume of a coat with a sharp edge, ml: outer envelope - inner envelope.

    For a round tier pi[(r + s)²(h + t) - r² h]. Source: geometry (cylinders).
    """
    return outer_ml - inner_ml


@rule(
    "coats.disc.side", unit="mm", formula="(disc - inner) / 2",
    words="A disc sets the outside: half of what it is wider than the crumb-coated cake.",
)  # fmt: skip
def side_from_disc(disc_mm: float, inner_mm: float) -> float:
    """Side thickness a disc leaves, mm: (disc - inner) / 2; negative when the disc is too small.

    Source: geometry. A 6.25 in disc on a 6 in cake leaves 1/8 in (common practice).
    """
    return (disc_mm - inner_mm) / 2


def crumb_thickness(tier: Tier, practice: Practice) -> Figure:
    """The thickness of the crumb coat, side and top alike."""
    return chosen(tier.crumb.thickness_mm, practice.crumb_coat_mm, "mm")


def final_top(tier: Tier, practice: Practice) -> Figure | None:
    """The thickness of the final coat on top, None where there is no final coat."""
    if isinstance(tier.final, NoFinal):
        return None
    return chosen(tier.final.top_mm, practice.coat_top_mm, "mm")


def plan_coats(
    tier: Tier, practice: Practice, media: dict[str, Medium], bare: Straight
) -> tuple[CoatsPlan, Straight, Straight]:
    """Both coats over the bare body, with the body after the crumb coat and after the final coat."""
    thickness = crumb_thickness(tier, practice)
    crumb, crumbed = lay(bare, thickness, thickness, media[tier.crumb.medium])
    top = final_top(tier, practice)
    if isinstance(tier.final, NoFinal) or top is None:
        return CoatsPlan(crumb=crumb, final=None), crumbed, crumbed
    side = _final_side(tier.final, practice, crumbed)
    final, coated = lay(crumbed, side, top, media[tier.final.medium])
    return CoatsPlan(crumb=crumb, final=final), crumbed, coated


def lay(inner: Straight, side: Figure, top: Figure, medium: Medium) -> tuple[CoatPlan, Straight]:
    """A coat laid on a body. A side thickness below zero is kept as a figure but takes nothing off the body."""
    side_mm = max(0.0, side.value)
    outer = inner.envelope(side_mm, top.value)
    volume = coat_volume.figure(outer.volume_ml, inner.volume_ml)
    plan = CoatPlan(
        side=side,
        top=top,
        diameter=coated_diameter.figure(inner.width_mm, side_mm),
        height=coated_height.figure(inner.height_mm, top.value),
        volume=volume,
        weight=weight.figure(volume.value, medium.density_g_per_ml),
    )
    return plan, outer


def _final_side(final: FreehandFinal | DiscFinal, practice: Practice, crumbed: Straight) -> Figure:
    if isinstance(final, DiscFinal):
        return side_from_disc.figure(final.disc_diameter_mm, crumbed.width_mm)
    return chosen(final.side_mm, practice.coat_side_mm, "mm")
