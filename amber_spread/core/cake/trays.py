"""Which tin each layer of a carved tier is cut from, so that all of them take least batter."""

import math
from collections.abc import Callable, Iterator
from itertools import islice
from typing import NamedTuple

from shapely import Point, Polygon, box
from shapely.affinity import rotate, translate

from amber_spread.core.cake.batter import ball_batter, batter_volume
from amber_spread.core.cake.nested import Bed, Lying, together
from amber_spread.core.cake.set_partition import Offer, SetPartition
from amber_spread.core.geometry.bodies.sliced import Slice
from amber_spread.core.geometry.flat.outline import round_area
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.core.stock.kit import Tin, TinShape

TO_GET = 1e6
"""What a tin that is not owned counts for beside any batter, ml: it is taken only where no other holds a layer."""
A_BAKE = 1e-3
"""Of plans that take as little batter the one with fewest bakes is taken."""
COMMON_IN = (4, 5, 6, 7, 8, 9, 10, 12, 14)
"""Round and square tins as they are sold, in (common practice)."""
HALF_BALLS_IN = (4, 6, 8, 10)
"""Half-ball tins as they are sold, in (from memory)."""
BALL_DEEP = 0.95
"""A half-ball tin is at least so much of half its width deep; a shallower one is no half of a ball."""
SKIN_FIT_MM = 0.5
"""A slice this much wider than the trimmed cake is cut from it all the same (common practice)."""
ROUND = ("round", "ball")
KNIFE_MM = 5.0
"""Slices that are cut from one sheet lie so far apart (from memory)."""
QUARTER = 16
"""A quarter of a round tin is drawn in so many straight lines."""
MOST_GROUPS = 400
"""No more ways to lay slices side by side are weighed for one tin."""

Group = tuple[int, ...]
"""Slices that are cut from one layer out of a tin, by their numbers from 0."""


class Needed(NamedTuple):
    """What a slice needs of a tin: the radius of the least circle round it, how it is laid beside others, and the
    radius of the least half ball.
    """

    radius: float
    lying: Lying
    ball: float


class Tray(NamedTuple):
    """A tin as it may serve: its kind and size, into how many layers what it bakes is cut, and whether it is owned."""

    shape: TinShape
    across: float
    length: float | None
    each: int
    owned: bool

    @property
    def area(self) -> float:
        """Its area, mm²; of a half ball that of its flat face."""
        return round_area(self.across) if self.shape in ROUND else self.across * (self.length or self.across)

    def bed(self, skin: float) -> Bed | None:
        """What slices are laid side by side on, its skin trimmed off; None where it holds one alone."""
        short, long = sorted((self.across, self.length or self.across))
        off = 2 * skin - SKIN_FIT_MM
        return Bed(short - off, long - off, self.shape in ROUND)

    def holds(self, one: Needed, skin: float, built: float = 0.0) -> bool:
        """Whether a slice can be cut from what it bakes, its skin trimmed off, and paste built so far out from that."""
        if self.shape in ROUND:
            return one.radius <= self.across / 2 - skin + SKIN_FIT_MM + built
        bed = self.bed(skin)
        return bed is not None and one.lying.short <= bed.wide + 2 * built and one.lying.long <= bed.high + 2 * built

    def bakes(self, layers: int) -> int:
        """How often it is baked for so many layers."""
        return math.ceil(layers / self.each)

    def costs(self, work: "Work") -> tuple[float, float]:
        """What one more layer out of it takes of cake, and what one more bake does, ml."""
        return self.area * work.cut / 1000, self.area * work.level / 1000

    def batter(self, work: "Work", layers: int) -> Figure:
        """The batter of so many layers out of it."""
        return batter_volume.figure(self.area, layers, work.cut, self.bakes(layers), work.level, work.fill)

    def piled(self, work: "Work", layers: int) -> float:
        """How much cake so many layers out of it are before they are carved, ml: what is levelled off is gone."""
        return layers * self.costs(work)[0]


class HalfBall(Tray):
    """A half-ball tin: a layer is cut out of all of what it bakes, its flat face down or up."""

    def bed(self, skin: float) -> Bed | None:
        """Likewise."""
        return None

    def holds(self, one: Needed, skin: float, built: float = 0.0) -> bool:
        """Likewise, and nothing is built out from it."""
        return one.ball <= self.across / 2 - skin + SKIN_FIT_MM

    def costs(self, work: "Work") -> tuple[float, float]:
        """Likewise."""
        return 0.0, ball_batter(1, self.across, 1.0)

    def batter(self, work: "Work", layers: int) -> Figure:
        """Likewise: what the tin takes, whatever is cut from it."""
        return ball_batter.figure(self.bakes(layers), self.across, work.fill)

    def piled(self, work: "Work", layers: int) -> float:
        """Likewise."""
        return self.bakes(layers) * self.costs(work)[1]


def served(tin: Tin, each: int) -> Iterator[Tray]:
    """A tin that is owned, where layers are cut out of what it bakes: a round, a square, a sheet, or a half ball."""
    if tin.shape in ("round", "square") or (tin.shape == "rectangle" and tin.length_mm):
        yield Tray(tin.shape, tin.across_mm, tin.length_mm, each, True)
    elif tin.shape == "ball" and tin.depth_mm >= BALL_DEEP * tin.across_mm / 2:
        yield HalfBall(tin.shape, tin.across_mm, None, 1, True)


class Work(NamedTuple):
    """What is to be baked: the slices from the foot up, how high each is cut, and what goes with a bake; how far paste
    may be built out from what is baked, and in how many bakes at most all of it is wanted.
    """

    slices: tuple[Needed, ...]
    cut: float
    level: float
    fill: float
    skin: float
    built: float = 0.0
    most: int | None = None


Beyond = Callable[["Tray", int], float]
"""How much of a slice, by its number from 0, lies beyond what a tin bakes, ml."""


@cached(512)
def _groups(tray: Tray, work: Work) -> tuple[Group, ...]:
    """What may be cut from one layer out of a tin, by the slices' numbers from 0: each that it holds, and those that
    lie side by side on it.
    """
    alone = [(at,) for at, one in enumerate(work.slices) if tray.holds(one, work.skin, work.built)]
    bed = tray.bed(work.skin)
    if bed is None:
        return tuple(alone)
    lying = [one.lying for one in work.slices]
    return (*alone, *islice(together(lying, KNIFE_MM, bed), MOST_GROUPS))


class Choice:
    """The problem of cutting every layer out of some tins at least batter. The last tin is the tier's own: it holds any
    layer by itself, whatever its size. Tins that another tin can replace are left out.
    """

    def __init__(self, work: Work, trays: tuple[Tray, ...], beyond: Beyond) -> None:
        self.work, self.beyond = work, beyond
        alone = tuple((at,) for at in range(len(work.slices)))
        offers = [self._offer(tray) for tray in trays[:-1]] + [self._offer(trays[-1], alone)]
        self.offers = [
            one
            for at, one in enumerate(offers)
            if not any(
                other.offer.dominates(one.offer) and (before < at or not one.offer.dominates(other.offer))
                for before, other in enumerate(offers)
                if before != at
            )
        ]
        self._partition = SetPartition(len(work.slices), counted=work.most is not None)
        for one in self.offers:
            self._partition = self._partition.with_offer(one.offer)

    def cheapest(self, more: Tray | None = None) -> dict[Tray, list[Group]]:
        """The groups cut from each tin, with one more tin if given. In no more bakes than wanted, or in as few as these
        tins allow.
        """
        offers, partition = self.offers, self._partition
        if more is not None:
            offers = [*offers, self._offer(more)]
            partition = partition.with_offer(offers[-1].offer)
        cuts = partition.cheapest(self.work.most)
        found: dict[Tray, list[Group]] = {}
        for group, tray in sorted(((offers[at].groups[which], offers[at].tray) for at, which in cuts), key=_group):
            found.setdefault(tray, []).append(group)
        return found

    def _offer(self, tray: Tray, alone: tuple[Group, ...] = ()) -> "_TrayOffer":
        work = self.work
        groups = tuple(sorted({*alone, *_groups(tray, work)}))
        layer, bake = tray.costs(work)
        each = work.fill * layer + (0.0 if tray.owned else TO_GET)
        costs = tuple(each + (self.beyond(tray, one[0]) if needs_paste(tray, work, one) else 0.0) for one in groups)
        masks = tuple(sum(1 << at for at in one) for one in groups)
        return _TrayOffer(tray, groups, Offer(masks, costs, work.fill * bake + A_BAKE, tray.each))


class _TrayOffer(NamedTuple):
    tray: Tray
    groups: tuple[Group, ...]
    offer: Offer


def _group(cut: tuple[Group, Tray]) -> Group:
    return cut[0]


def choose(work: Work, trays: tuple[Tray, ...], beyond: Beyond) -> dict[Tray, list[Group]]:
    """What is cut from each layer out of each tin, so that all of them take least batter, and paste beyond them; in no
    more bakes than are wanted, or in as few as these tins allow.
    """
    return Choice(work, trays, beyond).cheapest()


def about(tray: Tray, one: Slice, off_mm: float = 0.0) -> Polygon:
    """A tin from above where a slice lies in the middle of it, by the least circle, rectangle or half ball about that;
    so much less across.
    """
    if tray.shape in ROUND:
        middle = one.middle if tray.shape == "round" else min(one.half_balls)[1]
        return Point(middle).buffer((tray.across - off_mm) / 2, quad_segs=QUARTER)
    (x0, y0), (x1, y1), (x2, y2), _ = one.box
    short, long = sorted((tray.across - off_mm, (tray.length or tray.across) - off_mm))
    turned = rotate(box(-short / 2, -long / 2, short / 2, long / 2), math.degrees(math.atan2(y1 - y0, x1 - x0)))
    return translate(turned, (x0 + x2) / 2, (y0 + y2) / 2)


def needs_paste(tray: Tray, work: Work, group: Group) -> bool:
    """Whether a slice is cut out of a tin that does not hold all of it."""
    return work.built > 0 and len(group) == 1 and tray.owned and not tray.holds(work.slices[group[0]], work.skin)


def batter_ml(work: Work, chosen: dict[Tray, list[Group]]) -> float:
    """The batter that all of it takes."""
    return sum(one.batter(work, len(taken)).value for one, taken in chosen.items())


def _sold(each: int) -> Iterator[Tray]:
    """The tins as they are sold, whose bakes are cut into so many layers; a half ball is one."""
    for across in (inches * MM_PER_INCH for inches in COMMON_IN if each > 0):
        yield Tray("round", across, None, each, True)
        yield Tray("square", across, None, each, True)
    for across in (inches * MM_PER_INCH for inches in HALF_BALLS_IN):
        yield HalfBall("ball", across, None, 1, True)


def best_more(work: Work, trays: tuple[Tray, ...], each: int, beyond: Beyond) -> tuple[float, Tray] | None:
    """The tin as they are sold with which least batter is taken, and how much, ml; None where none would serve."""
    owned = {(tray.shape, round(tray.across)) for tray in trays}
    choice = Choice(work, trays, beyond)
    serving = (
        one
        for one in _sold(each)
        if (one.shape, round(one.across)) not in owned
        and any(one.holds(need, work.skin, work.built) for need in work.slices)
    )
    return min(((batter_ml(work, choice.cheapest(one)), one) for one in serving), default=None)
