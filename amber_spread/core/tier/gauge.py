"""The height gauge: running marks of every layer, filling, board and coat of a tier, from the plane it stands on."""

from collections.abc import Iterable
from typing import Literal

from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, rule
from amber_spread.core.tier.layers.slabs import Slab

MarkKind = Literal["layer", "filling", "board", "crumb", "final", "cover"]
COAT_NAMES: dict[str, str] = {"crumb": "Crumb coat", "final": "Final coat", "cover": "Cover"}


class GaugeMark(PlanPart):
    """One mark: what ends there, and how high above the foot of the finished tier."""

    name: str
    kind: MarkKind
    up: Figure


@rule("gauge.mark", unit="mm", formula="below + own", words="The mark below, and what lies between the two.")
def running_mark(below_mm: float, own_mm: float) -> float:
    """A running mark, mm: the mark below + what lies between. Source: definition.

    >>> running_mark(0, 31.8)
    31.8
    """
    return below_mm + own_mm


def plan_gauge(slabs: Iterable[Slab], under_mm: float, coats: Iterable[tuple[MarkKind, float]]) -> dict[str, GaugeMark]:
    """The marks from the foot up: every slab's top, then each coat on top by its kind and thickness.

    `under_mm` is the coat below the bare cake, which lifts every mark.
    """
    marks: dict[str, GaugeMark] = {}
    up_mm = under_mm
    for slab in slabs:
        figure = running_mark.figure(up_mm, slab.high - slab.low)
        marks[f"{slab.kind}_{slab.number}"] = GaugeMark(
            name="Hidden board" if slab.kind == "board" else f"{slab.kind.capitalize()} {slab.number}",
            kind=slab.kind,
            up=figure,
        )
        up_mm = figure.value
    for kind, thickness_mm in coats:
        if thickness_mm > 0:
            figure = running_mark.figure(up_mm, thickness_mm)
            marks[kind] = GaugeMark(name=COAT_NAMES[kind], kind=kind, up=figure)
            up_mm = figure.value
    return marks
