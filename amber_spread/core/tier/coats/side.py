"""A drum on its side: the flat foot cut off its rim, what is left of its height, and whether it will stand."""

import math

from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body, Sideways
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, carry_over, rule
from amber_spread.core.stock.media import weight


class FootPlan(PlanPart):
    """The foot of a drum on its side. The leans say how far it may tip, forward and sideways, before it falls."""

    cut: Figure
    width: Figure
    length: Figure
    height_left: Figure
    slice_weight: Figure
    lean_forward: Figure
    lean_sideways: Figure


@rule(
    "side.foot_width",
    unit="mm",
    formula="2 * sqrt(cut * (across - cut))",
    words="The chord a cut so deep leaves across a circle that wide.",
)
def foot_width(across_mm: float, cut_mm: float) -> float:
    """Width of the flat foot, mm: 2 sqrt(cut (d - cut)).

    Source: geometry (chord and sagitta). 1.5 cm off a 6.25 in drum leaves a foot of 93 mm (the depth: common
    practice).

    >>> round(foot_width(216, 15), 2)
    109.82
    """
    return 2 * math.sqrt(cut_mm * (across_mm - cut_mm))


@rule(
    "side.height_left",
    unit="mm",
    formula="across - cut",
    words="What the cut leaves of the drum's width is its height now.",
)
def height_left(across_mm: float, cut_mm: float) -> float:
    """Height of a drum on its side, mm: d - cut. Source: geometry.

    >>> height_left(216, 15)
    201
    """
    return across_mm - cut_mm


@rule(
    "side.slice",
    unit="ml",
    formula="((across / 2)**2 * acos(1 - 2 * cut / across) - (across / 2 - cut) * sqrt(cut * (across - cut))) "
    "* thick / 1000",
    words="The segment cut off the circle, times how thick the drum is.",
)
def slice_volume(across_mm: float, cut_mm: float, thick_mm: float) -> float:
    """Volume of the slice cut off, ml: [r² acos((r - cut) / r) - (r - cut) sqrt(cut (d - cut))] x thickness / 1000.

    Source: geometry (circular segment).

    >>> round(slice_volume(200, 15, 100), 2)
    107.05
    """
    radius = across_mm / 2
    chord = math.sqrt(cut_mm * (across_mm - cut_mm))
    return (radius**2 * math.acos(1 - 2 * cut_mm / across_mm) - (radius - cut_mm) * chord) * thick_mm / MM3_PER_ML


@rule(
    "side.lean",
    unit="deg",
    formula="degrees(atan(foot / height))",
    source=COMMON_PRACTICE,
    rounding="down",
    words="How far it may be tipped before its weight, taken at half its height, passes the edge of its foot.",
)
def lean(foot_mm: float, height_mm: float) -> float:
    """The angle of tipping, degrees: atan((foot / 2) / (height / 2)). Source: geometry; the centre at half height is
    common practice and on the safe side of a drum with a foot cut off.

    >>> round(lean(118, 201), 2)
    30.42
    """
    return math.degrees(math.atan(foot_mm / height_mm))


def tipped(coated: Body, tier: SettledTier) -> Sideways:
    """A coated drum on its side, standing on the flat its cut makes. Raises ValueError for one past its middle."""
    assert tier.asked.build.on_side
    cut = tier.settled(tier.asked.build, "cut_mm").value
    radius = coated.width_mm / 2
    if cut >= radius:
        raise ValueError("the foot would be cut higher than the middle of the cake")
    return Sideways(radius, coated.height_mm, radius - cut)


def plan_foot(tier: SettledTier, coated: Body, coated_g: float) -> FootPlan | None:
    """The foot of a tier that stands on its side, None for any other; `coated_g` is the weight of the whole drum."""
    if not tier.asked.build.on_side:
        return None
    across, thick = coated.width_mm, coated.height_mm
    cut = tier.settled(tier.asked.build, "cut_mm")
    sliced = slice_volume.figure(across, cut.value, thick)
    width, left = foot_width.figure(across, cut.value), height_left.figure(across, cut.value)
    return FootPlan(
        cut=cut,
        width=width,
        length=carry_over("thickness of the drum", thick, "mm"),
        height_left=left,
        slice_weight=weight.figure(sliced.value, coated_g / coated.volume_ml),
        lean_forward=lean.figure(thick, left.value),
        lean_sideways=lean.figure(width.value, left.value),
    )
