"""How long the coats of a tier need in the cold at a step of its work: what the step's wait is taken from."""

from collections.abc import Iterator, Mapping
from typing import NamedTuple

from amber_spread.core.clock.heat import Firming, Rooms, Shell, Spread, firming_of
from amber_spread.core.design.design import Tier
from amber_spread.core.design.practice import Practice
from amber_spread.core.plan import TierPlan
from amber_spread.core.stock.composition import BAKED_CAKE, Compositions, composition_of
from amber_spread.core.stock.media import Medium

FRESH: dict[str, tuple[str, ...]] = {
    "firm_crumb": ("crumb",),
    "firm_final": ("final",),
    "firm_inverted": ("final",),
    "chill_cover": ("cover", "final"),
}
"""The steps that firm what a tier wears in the cold, and what of that is as warm as the kitchen as they begin."""
LEAST_MM = 0.1
"""What is thinner holds no heat to speak of."""
WORN = ("cover", "final", "crumb")
"""What a tier wears, the outermost first."""


class InUse(NamedTuple):
    """What a kitchen works with: its practice, its media by key, and what those are made of."""

    usual: Practice
    media: Mapping[str, Medium]
    made_of: Compositions


def firming_at(kind: str, asked: Tier, done: TierPlan, in_use: InUse) -> Firming | None:
    """How a tier firms at a step of that kind; None at another step, and where nothing on it firms in the cold."""
    if kind not in FRESH:
        return None
    usual = in_use.usual
    return firming_of(shell_at(kind, asked, done, in_use), Rooms.of(usual), usual.firm_in == "freezer")


def shell_at(kind: str, asked: Tier, done: TierPlan, in_use: InUse) -> Shell:
    """What a tier wears as a step of that kind begins, over its cake."""
    outline = asked.shape.outline(asked.tin_diameter_mm)
    side, top = (tuple(_spreads(kind, asked, done, in_use, face)) for face in ("side", "top"))
    return Shell(
        side=side,
        top=top,
        radius_mm=2 * outline.area_mm2 / outline.perimeter_mm,
        height_mm=done.layers.height.value,
        cake=BAKED_CAKE,
        cake_g_per_ml=in_use.usual.cake_density_g_per_ml,
        on_its_top=kind == "firm_inverted",
    )


def _spreads(kind: str, asked: Tier, done: TierPlan, in_use: InUse, face: str) -> Iterator[Spread]:
    """The layers of its side or its top, the outermost first."""
    fresh = FRESH[kind]
    for worn in WORN[WORN.index(fresh[0]) :]:
        medium = getattr(getattr(asked, worn), "medium", None)
        thick_mm = _thick_mm(worn, done, face)
        if medium is not None and thick_mm >= LEAST_MM:
            known = in_use.media[medium]
            composition = composition_of(known, in_use.made_of)
            yield Spread(thick_mm, composition, known.density_g_per_ml, not known.soft, worn in fresh)


def _thick_mm(worn: str, done: TierPlan, face: str) -> float:
    cover = done.cover.over if done.cover is not None else None
    coat = cover if worn == "cover" else done.coats.final if worn == "final" else done.coats.crumb
    if coat is None:
        return 0.0
    return coat.side.value if face == "side" else coat.top.value
