"""What a board stands on and in: the tier below or the layers below a hidden board, where supports may stand in it, and
all that lies above.
"""

from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import NamedTuple

from amber_spread.core.cake.heights import heights_at
from amber_spread.core.cake.levels import Mass, Place, PlacedTier, board_weight, gap_between, together
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.stands import StackedStand, Stand
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.geometry.flat.places import Hole, SupportArea, Within, common_edge_distance, edge_distance
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.stock.supports import Support
from amber_spread.core.tier import PlannedTier

RIM_MM = 3.0
"""So much is left between a support and any edge or hole (from memory)."""
RISER_SHARE = 0.75
"""The width of a hidden riser, as a share of the board above it (common practice: narrower, so as not to show)."""


class Kitchen(NamedTuple):
    """What of the kitchen and of the order a joint goes by: its usual, its supports, whether it is driven stacked,
    and how thick the centre dowel is, None where there is none.
    """

    usual: Practice
    owned: tuple[Support, ...]
    driven: bool
    dowel_mm: float | None


class Below(NamedTuple):
    """The tier below: as it is worked, how far the one above stands off its middle, and how high it is there."""

    lower: PlannedTier
    off: Point
    height_mm: float


class Inside(NamedTuple):
    """The tier itself, round the board hidden in it, and what of its coat is left off below the next tier, g."""

    less_g: float


class Above(NamedTuple):
    """All that stands above a joint: its parts by name, and all of it as one."""

    parts: tuple[tuple[str, float], ...]
    whole: Mass


class Foot(NamedTuple):
    """What turns over an edge: its weight, how high its balance point is above that edge, and how far inside it."""

    weight_g: float
    up_mm: float
    inward_mm: float


class Bearing(NamedTuple):
    """A board and what it stands on: its edge, the ground for its supports, from `stands_on_mm` to `height_mm` up the
    tier they stand in, what lies above, and how high the tier is at spots.

    `inward_mm` is how far the balance point of all that lies inside the edge the board tips over, None where its
    supports alone bear it. `place` is that of the tier it carries, `plane_mm` the height above the table of what its
    supports reach.
    """

    number: int
    inside: bool
    stand: Stand
    board: Outline
    inward_mm: float | None
    lower: Outline
    ground: SupportArea
    stands_on_mm: float
    height_mm: float
    plane_mm: float
    place: Place
    above: Above
    gap: Figure
    surface: Callable[[Sequence[Point]], list[float]]


def all_above(stood: Sequence[PlacedTier]) -> list[Above]:
    """All that stands from each tier up, bottom first, and at last the nothing above the top one."""
    parts: tuple[tuple[str, float], ...] = ()
    found, whole = [Above(parts, together([]))], together([])
    for one in reversed(stood):
        parts = (*[(name, mass.weight_g) for name, mass in one.masses.items()], *parts)
        whole = together([*one.masses.values(), whole])
        found.append(Above(parts, whole))
    return found[::-1]


def feet_of(stood: Sequence[PlacedTier], above: Sequence[Above], base: Outline, base_mm: float) -> list[Foot]:
    """Where a cake can tip, bottom first: on its base board over the foot of its bare lowest tier, where that lies on
    the board, and at each joint. On supports alone no edge is counted on.
    """
    whole, foot = above[0].whole, Within("foot", stood[0].done.stands.board_edge)
    inside_mm = common_edge_distance((foot, Within("base", base)), (whole.x, whole.y))
    feet = [Foot(whole.weight_g, whole.up - base_mm, inside_mm)]
    for (lower, upper), held in zip(pairwise(stood), above[1:], strict=False):
        place, mass = upper.place, held.whole
        off, at = (place.x - lower.place.x, place.y - lower.place.y), (mass.x - place.x, mass.y - place.y)
        inward_mm = _rests_inside(lower.done, upper.done, off, at)
        feet.append(Foot(mass.weight_g, mass.up - place.level_mm, inward_mm or 0.0))
    return feet


@cached(TIERS)
def _rests_inside(lower: PlannedTier, upper: PlannedTier, off: Point, at: Point) -> float | None:
    """How far a place lies inside the edge of what a tier rests on: of its board, or the riser below that, where it
    overlaps the flat top below. None for pillars and over a tier without a flat top, where its supports alone bear it.
    """
    stand, board, top = upper.tier.asked.stand, upper.stands.board_edge, lower.stands.top
    if stand.through or top is None:
        return None
    rests = board.stretched(RISER_SHARE, RISER_SHARE) if stand.plate else board
    return common_edge_distance((Within("board", rests), Within("top", top, (-off[0], -off[1]))), at)


def bearing_below(kitchen: Kitchen, upper: PlannedTier, on: Below, place: Place, number: int, above: Above) -> Bearing:
    """What a tier stands on: the one below it."""
    lower = on.lower
    stand, board = upper.tier.asked.stand, upper.stands.board_edge
    away, top = (-on.off[0], -on.off[1]), lower.stands.top or lower.stands.outline
    within = [Within("board", board), Within("top", top, away)]
    if lower.stands.foot.area_mm2 < top.area_mm2 - 1.0:
        within.append(Within("foot", lower.stands.foot, away))
    stands_on = 0.0
    if lower.hidden_edge is not None and lower.layers.board is not None:
        within.append(Within("inside", lower.hidden_edge, away))
        stands_on = lower.layers.board.height.value + lower.layers.board.thickness.value
    return Bearing(
        number=number,
        inside=False,
        stand=stand,
        board=board,
        inward_mm=_rests_inside(lower, upper, on.off, (above.whole.x - place.x, above.whole.y - place.y)),
        lower=top,
        ground=SupportArea(tuple(within), _holes(lower, kitchen.dowel_mm, away, place, False), 0.0, RIM_MM),
        stands_on_mm=stands_on,
        height_mm=on.height_mm,
        plane_mm=place.level_mm,
        place=place,
        above=above,
        gap=gap_between(upper.tier),
        surface=lambda spots: heights_at(lower, [(x - away[0], y - away[1]) for x, y in spots]),
    )


def bearing_inside(kitchen: Kitchen, done: PlannedTier, on: Inside, place: Place, number: int, above: Above) -> Bearing:
    """What the board hidden in a tier stands on, with everything above it in the tier, and above the tier, on it."""
    hidden, board = done.layers.board, done.hidden_edge
    assert hidden is not None and board is not None
    high = hidden.height.value
    lies = done.load_above(high + hidden.thickness.value)
    own, card = lies.weight_g - on.less_g, board_weight(board, hidden.thickness.value, kitchen.usual)
    parts = (f"tier {number}, above its board", own), (f"board inside tier {number}", card)
    foot = place.foot_mm - done.bodies.covered.foot_mm
    own_mass = Mass(own, place.x + done.centre.x, place.y + done.centre.y, foot + lies.up)
    mass = together([own_mass, Mass(card, place.x, place.y, foot + high), above.whole])
    within = (Within("board", board), Within("foot", done.stands.foot))
    return Bearing(
        number=number,
        inside=True,
        stand=StackedStand(sort=done.tier.asked.stand.sort),
        board=board,
        inward_mm=edge_distance(board, (mass.x - place.x, mass.y - place.y)),
        lower=done.stands.outline,
        ground=SupportArea(within, _holes(done, kitchen.dowel_mm, (0.0, 0.0), place, True), 0.0, RIM_MM),
        stands_on_mm=0.0,
        height_mm=high,
        plane_mm=foot + high,
        place=place,
        above=Above((*parts, *above.parts), mass),
        gap=carry_over("flush, no gap", 0.0, "mm"),
        surface=lambda spots: [high] * len(spots),
    )


def _holes(done: PlannedTier, dowel_mm: float | None, away: Point, place: Place, inside: bool) -> tuple[Hole, ...]:
    """What supports through a tier keep out of: the centre dowel, over the base's middle, and a hidden cavity."""
    found = []
    if dowel_mm is not None:
        found.append(Hole("dowel", (-place.x, -place.y), dowel_mm / 2))
    cavity, board = done.layers.cavity, done.tier.asked.layers.board_after
    if cavity is not None and (board is None or (cavity.last <= board if inside else cavity.first > board)):
        found.append(Hole("cavity", away, cavity.diameter.value / 2))
    return tuple(found)
