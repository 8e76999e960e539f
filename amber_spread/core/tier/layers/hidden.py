"""What is hidden in a tier: a board on supports, and a room for sweets with what it takes out of the levels."""

import math
from collections.abc import Sequence
from typing import Literal, NamedTuple

from amber_spread.core.design.design import Layers
from amber_spread.core.design.settled import SettledTier, settled
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body, Solid
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, decided, decided_or_default, total
from amber_spread.core.stock.media import weight
from amber_spread.core.tier.boards import BoardShape, own_shape
from amber_spread.core.tier.layers.rules import cavity_volume, cavity_wall, hidden_board
from amber_spread.core.tier.layers.slabs import Slab


class HiddenBoard(PlanPart):
    """The board inside a double-height tier. What it stands on is the joint's below it (`cake/joints.py`)."""

    shape: BoardShape
    diameter: Figure
    length: Figure | None
    thickness: Figure
    height: Figure


class CavityPlan(PlanPart):
    """A hidden cavity: how wide and high, what it holds, and what it takes out of the cake.

    `first` and `last` are the layers it goes through; from the first it stands on the board.
    """

    diameter: Figure
    height: Figure
    volume: Figure
    wall: Figure
    first: int
    last: int
    fill_weight: Figure | None


class Room(NamedTuple):
    """A hidden cavity as it lies in the body: how wide, no wider than the body there, and from what height to what."""

    asked_mm: float
    across_mm: float
    nearest_mm: float
    low: float
    high: float
    first: int
    last: int

    @property
    def area_mm2(self) -> float:
        """The area of its floor."""
        return math.pi / 4 * self.across_mm**2

    def holds(self, slab: Slab) -> bool:
        """Whether a level of the tier lies within it."""
        return slab.low >= self.low - 1e-9 and slab.high <= self.high + 1e-9

    def of(self, slabs: list[Slab], kind: Literal["layer", "filling"]) -> float:
        """What it takes out of the layers or the fillings, ml."""
        deep_mm = sum(slab.high - slab.low for slab in slabs if slab.kind == kind and self.holds(slab))
        return self.area_mm2 * deep_mm / MM3_PER_ML


def hollowed(slabs: list[Slab], first: int, last: int) -> list[Slab]:
    """The levels a room takes out: its layers, the fillings between and above them, and the one below unless it stands
    on a board.
    """
    own = [index for index, slab in enumerate(slabs) if slab.kind == "layer" and first <= slab.number <= last]
    begins = own[0] - 1 if own[0] and slabs[own[0] - 1].kind == "filling" else own[0]
    return slabs[begins : own[-1] + 2]


def hidden_in(slabs: Sequence[Slab], room: CavityPlan | None) -> dict[Slab, float]:
    """The levels that a room takes out, each with half its width there."""
    if room is None:
        return {}
    half = room.diameter.value / 2
    return {slab: max(0.0, min(half, half + room.wall.value)) for slab in hollowed(list(slabs), room.first, room.last)}


def room_in(layers: Layers, body: Body, slabs: list[Slab]) -> Room | None:
    """The hidden cavity in a body: from the filling or board below its first layer to the layer above its last."""
    if layers.cavity is None:
        return None
    first, last = layers.cavity.layers(layers.count)
    hollow = hollowed(slabs, first, last)
    low, high = hollow[0].low, hollow[-1].high
    heights = {low, *(slab.high for slab in hollow), *(up for up in body.bends_mm if low < up < high)}
    nearest = min(_inner(body, up) for up in heights)
    asked = layers.cavity.diameter_mm
    return Room(asked, min(asked, 2 * nearest), nearest, low, high, first, last)


def _inner(body: Solid, up: float) -> float:
    try:
        return body.section(min(up, body.height_mm * (1 - 1e-9))).inner_mm
    except ValueError:
        return 0.0


def plan_hidden_board(tier: SettledTier, slabs: list[Slab], body: Solid) -> HiddenBoard | None:
    """The board inside, in the shape of the cake there and a little smaller, on supports through the layers below."""
    for slab in slabs:
        if slab.kind == "board":
            cake = own_shape(body.section((slab.low + slab.high) / 2))
            margin_mm = min(tier.usual.hidden_board_in_mm, cake.across_mm / 4, cake.length_mm / 4)
            across = hidden_board.figure(cake.across_mm, margin_mm)
            return HiddenBoard(
                shape=cake.shape,
                diameter=across,
                length=hidden_board.figure(cake.length_mm, margin_mm) if cake.oblong else None,
                thickness=decided_or_default(None, tier.usual.tier_board_mm, "mm"),
                height=carry_over("height of the layers below", slab.low, "mm"),
            )
    return None


def plan_room(tier: SettledTier, room: Room) -> CavityPlan:
    """The room's own measures, and the weight of what fills it."""
    cavity = tier.asked.layers.cavity
    assert cavity is not None
    volume = cavity_volume.figure(room.across_mm, room.high - room.low)
    heaped = settled(cavity, "fill_g_per_ml", tier.usual, "g_per_ml").value
    return CavityPlan(
        diameter=decided(room.asked_mm, "mm"),
        height=total({"from its floor to its lid": room.high - room.low}, "mm"),
        volume=volume,
        wall=cavity_wall.figure(room.nearest_mm, room.asked_mm),
        first=room.first,
        last=room.last,
        fill_weight=None if cavity.filled_with is None else weight.figure(volume.value, heaped),
    )
