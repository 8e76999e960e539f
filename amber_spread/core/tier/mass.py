"""Where the middle of a finished tier's weight lies: its cake and fillings in the bare body, the rest in the shell."""

import math
from typing import NamedTuple

from amber_spread.core.geometry.body import Body, Envelopes, Sideways, Straight
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.kernel.figures import DEFINITION, rule

SLICES = 24
INSIDE = ("cake", "syrup", "seal", "dam", "filling", "what is hidden in it", "refill", "cut out of it")
"""What of a tier lies within its bare body."""


class Centre(NamedTuple):
    """The middle of a weight, mm: right and back of the axis, and up from the foot."""

    x: float
    y: float
    up: float


@rule(
    "stack.pressure", unit="g_per_cm2", formula="load / (area / 100)", source=DEFINITION,
    words="All that stands above, on the area of what bears it: a board's own, as if there were no supports, or what "
    "is left of a carved cake.",
)  # fmt: skip
def pressure(load_g: float, area_mm2: float) -> float:
    """Pressure on cake, g/cm²: load / area. Source: definition.

    >>> round(pressure(2400, 17671), 1)
    13.6
    """
    return load_g / (area_mm2 / 100)


def middle_height(body: Body | Sideways) -> float:
    """The height of the middle of a body's volume above its foot, mm: the integral of area x height over that of area.

    Of a drum on its side the middle of a circle with a segment cut off. Source: geometry.
    """
    if isinstance(body, Straight):
        return body.height_mm / 2
    if isinstance(body, Sideways):
        whole = math.pi * body.radius_mm**2
        if body.foot_width_mm == 0:
            return body.radius_mm
        # The segment's own middle lies 2/3 half-chord³ / area from the circle's: so much the rest moves up.
        moment = 2 / 3 * (body.foot_width_mm / 2) ** 3
        return body.centre_mm + moment / (whole - body.sliced_mm2)
    if isinstance(body, Sculpted):
        return body.once("middle height", lambda: _by_slices(body))
    return _by_slices(body)


def _by_slices(body: Body) -> float:
    step = body.height_mm / SLICES
    low = body.foot_mm
    parts = [body.volume_between(low + step * index, low + step * (index + 1)) for index in range(SLICES)]
    return sum(part * (index + 0.5) * step for index, part in enumerate(parts)) / sum(parts)


def centre_of(bodies: Envelopes, leaning: dict[str, Sideways] | None, weights: dict[str, float]) -> Centre:
    """The middle of a finished tier's weight; `weights` are its parts, g.

    Cake and fillings are taken as even through the bare body, coats and cover as even through the shell about it.
    """
    if leaning is not None:
        return Centre(0.0, 0.0, middle_height(leaning["covered"]))
    inside = sum(weights.get(name, 0.0) for name in INSIDE)
    whole = sum(weights.values())
    bare, outer = bodies.bare, bodies.covered
    x, y = outer.middle
    low = middle_height(bare) + bare.foot_mm - outer.foot_mm
    shell_ml = outer.volume_ml - bare.volume_ml
    if shell_ml <= 0 or whole <= 0:
        return Centre(x, y, low)
    shell = (outer.volume_ml * middle_height(outer) - bare.volume_ml * low) / shell_ml
    return Centre(x, y, (inside * low + (whole - inside) * shell) / whole)
