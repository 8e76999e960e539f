"""Where the middle of a finished tier's weight lies: its cake and fillings in the bare body, the rest in the shell."""

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from amber_spread.core.geometry.bodies.body import Body, Envelopes, Sideways, Solid, Straight
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.kernel.figures import DEFINITION, rule
from amber_spread.core.tier.decorate.borders import BorderPlan
from amber_spread.core.tier.decorate.regions import RegionPlan
from amber_spread.core.tier.layers.slabs import Slab

SLICES = 24
SHELL_SLICES = 8
SHELLS = {"crumb": 0, "final": 1, "cover": 2}
"""The steps that lie between one envelope of a tier and the next, by the number of the inner one."""
FILLINGS = ("seal", "dam", "filling")
INSIDE = ("cake", "syrup", "seal", "dam", "filling", "what is hidden in it", "refill", "cut out of it")
"""What of a tier lies within its bare body."""


class Centre(NamedTuple):
    """The middle of a weight, mm: right and back of the axis, and up from the foot."""

    x: float
    y: float
    up: float


@rule(
    "stack.pressure",
    unit="g_per_cm2",
    formula="load / (area / 100)",
    source=DEFINITION,
    words="All that stands above, on the area of what bears it: a board's own, as if there were no supports, or what "
    "is left of a carved cake.",
)
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
        return body.get_or_compute("middle height", lambda: _by_slices(body))
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
    inside = sum([weights.get(name, 0.0) for name in INSIDE])
    whole = sum(weights.values())
    bare, outer = bodies.bare, bodies.covered
    x, y = outer.middle
    low = middle_height(bare) + bare.foot_mm - outer.foot_mm
    shell_ml = outer.volume_ml - bare.volume_ml
    if shell_ml <= 0 or whole <= 0:
        return Centre(x, y, low)
    shell = (outer.volume_ml * middle_height(outer) - bare.volume_ml * low) / shell_ml
    return Centre(x, y, (inside * low + (whole - inside) * shell) / whole)


class Load(NamedTuple):
    """What of a tier lies above a height: its weight, g, and how high its balance point is above the bare foot, mm."""

    weight_g: float
    up: float


def load_above(
    bodies: Envelopes,
    slabs: Sequence[Slab],
    weights: Mapping[str, float],
    borders: Mapping[str, BorderPlan],
    regions: Mapping[str, RegionPlan],
    low_mm: float,
) -> Load:
    """What of an upright tier lies above a height, part by part: layers and fillings by the levels they fill, coats and
    cover by the shell they fill, borders and pieces by the edge they are on.

    `weights` are its parts, g; `low_mm` is measured from the foot of the bare tier. Source: statics.
    """
    bare, top_mm = bodies.bare, bodies.covered.foot_mm + bodies.covered.height_mm
    layers = _levels(bare, slabs, ("layer",), low_mm)
    fillings, whole = _levels(bare, slabs, ("filling",), low_mm), _levels(bare, slabs, ("layer", "filling"), low_mm)
    nested, found = (bodies.bare, bodies.crumbed, bodies.coated, bodies.covered), []
    for name, grams in weights.items():
        if name in SHELLS:
            inner = SHELLS[name]
            share, up = _shell(nested[inner], nested[inner + 1], low_mm)
        elif name == "border":
            share, up = _on_top(borders), top_mm
        elif name == "region":
            share, up = _of_regions(regions, bodies.covered, low_mm)
        elif name == "on_top":
            share, up = 1.0, top_mm
        elif name in FILLINGS:
            share, up = fillings
        else:
            share, up = layers if name in ("cake", "syrup") else whole
        found.append((grams * share, up))
    return Load(*_together(found, low_mm))


def _together(parts: Sequence[tuple[float, float]], low_mm: float) -> tuple[float, float]:
    """Parts, each so much and its middle so high: how much they come to, and how high the middle of all is."""
    whole = sum(much for much, _ in parts)
    return (whole, sum(much * up for much, up in parts) / whole) if whole > 0 else (0.0, low_mm)


def _levels(bare: Solid, slabs: Sequence[Slab], kinds: Sequence[str], low_mm: float) -> tuple[float, float]:
    """Of what fills the levels of some kinds: the share above a height, and how high the middle of that is."""
    whole, above = 0.0, list[tuple[float, float]]()
    for slab in slabs:
        if slab.kind in kinds:
            volume, low = _between(bare, slab.low, slab.high), max(slab.low, low_mm)
            whole += volume
            if slab.high > low:
                above.append((volume if low == slab.low else _between(bare, low, slab.high), (low + slab.high) / 2))
    return _share(whole, above, low_mm)


def _shell(inner: Solid, outer: Solid, low_mm: float) -> tuple[float, float]:
    """Of what fills the room between two envelopes: the share above a height, and how high the middle of that is."""
    whole, top_mm = outer.volume_ml - inner.volume_ml, outer.foot_mm + outer.height_mm
    step = (top_mm - low_mm) / SHELL_SLICES
    if whole <= 0 or step <= 0:
        return 0.0, low_mm
    lows = [low_mm + step * index for index in range(SHELL_SLICES)]
    parts = [_between(outer, low, low + step) - _between(inner, low, low + step) for low in lows]
    return _share(whole, [(part, low + step / 2) for part, low in zip(parts, lows, strict=True)], low_mm)


def _share(whole: float, above: Sequence[tuple[float, float]], low_mm: float) -> tuple[float, float]:
    """What share of a whole its parts above a height are, and how high the middle of those is."""
    much, up = _together(above, low_mm)
    return (much / whole if much > 0 else 0.0), up


def _between(body: Solid, low_mm: float, high_mm: float) -> float:
    low, high = max(low_mm, body.foot_mm), min(high_mm, body.foot_mm + body.height_mm)
    return body.volume_between(low, high) if high > low else 0.0


def _on_top(borders: Mapping[str, BorderPlan]) -> float:
    """The share of all that is piped along edges which is on the top edge."""
    whole = sum(border.weight.value for border in borders.values())
    return sum(one.weight.value for one in borders.values() if one.at == "top") / whole if whole > 0 else 0.0


def _of_regions(regions: Mapping[str, RegionPlan], covered: Solid, low_mm: float) -> tuple[float, float]:
    """The share of what is piped over the tier that lies above a height, by how high each region reaches."""
    whole, above = 0.0, list[tuple[float, float]]()
    for one in regions.values():
        low, high = covered.foot_mm + one.low.value, covered.foot_mm + one.high.value
        grams, begins = one.weight.value, max(low, low_mm)
        whole += grams
        if high > begins:
            above.append((grams * (high - begins) / (high - low), (begins + high) / 2))
    return _share(whole, above, low_mm)
