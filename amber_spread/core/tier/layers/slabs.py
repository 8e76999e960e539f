"""The levels of a bare tier: layers, fillings and a hidden board, each between two heights above its foot."""

from typing import Literal, NamedTuple

from amber_spread.core.design.design import Layers
from amber_spread.core.geometry.bodies.body import Solid
from amber_spread.core.kernel.figures import Figure, total


class Slab(NamedTuple):
    """One level of a tier between two heights above its foot; `number` counts layers, fillings and boards apart."""

    kind: Literal["layer", "filling", "board"]
    number: int
    low: float
    high: float


def slabs_of(layers: Layers, cut_mm: float, filling_mm: float, board_mm: float, dome_mm: float = 0.0) -> list[Slab]:
    """The levels from the foot up: every layer at its cut, the last with what is left of its dome, a filling above each
    but the last, or the hidden board.
    """
    slabs, up, fillings = [], 0.0, 0
    for number in range(1, layers.count + 1):
        high_mm = cut_mm + (dome_mm if number == layers.count else 0.0)
        slabs.append(Slab("layer", number, up, up + high_mm))
        up += high_mm
        if number == layers.board_after:
            slabs.append(Slab("board", 1, up, up + board_mm))
            up += board_mm
        elif number < layers.count:
            fillings += 1
            slabs.append(Slab("filling", fillings, up, up + filling_mm))
            up += filling_mm
    return slabs


def volume_over(body: Solid, slabs: list[Slab], kind: Literal["layer", "filling"]) -> Figure:
    """The volume of every slab of a kind in a body that is not straight, added up."""
    parts = {
        f"{slab.kind} {slab.number}": body.volume_between(slab.low, slab.high) for slab in slabs if slab.kind == kind
    }
    return total(parts, "ml")
