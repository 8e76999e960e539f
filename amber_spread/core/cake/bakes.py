"""What a carved tier is baked in: for each layer a tin that holds its slice, so that least is carved away."""

import math
from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import islice
from typing import NamedTuple

import numpy
from shapely.affinity import translate

from amber_spread.core.cake.batter import ball_batter, batter_volume
from amber_spread.core.cake.nested import Bed, Lying, forget_rooms, laid_on, together
from amber_spread.core.design.design import MeasuredBake, TinBake
from amber_spread.core.geometry.outline import Point, round_area
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.sliced import Slice, rings_of
from amber_spread.core.geometry.traced import areas_of
from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.figures import DEFINITION, FROM_MEMORY, Figure, decided, rule, same, total
from amber_spread.core.kernel.limits import TORTE
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.core.stock.kit import TIN_WORDS, Tin, TinShape
from amber_spread.core.tier import Worked, offcut, shape_of, slices_of

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
MOST_GROUPS = 400
"""No more ways to lay slices side by side are weighed for one tin."""
WORTH_ML = 100.0
"""One more tin is named where it saves at least so much batter (from memory)."""


class Beside(Made):
    """A layer of cake out of a tin that several layers of the tier are cut from side by side: it as it lies trimmed,
    a circle or a rectangle, and each layer on it, by its number and its edges.
    """

    round: bool
    wide: Figure
    high: Figure
    layers: list[int]
    edges: list[list[list[Point]]]


class Baked(Made):
    """One tin of a carved tier: which layers are cut from what it bakes, in how many bakes, of how much batter.
    `beside` are those that are cut out of one layer of it together.
    """

    shape: TinShape
    across: Figure
    length: Figure | None
    owned: bool
    layers: list[int]
    beside: dict[str, Beside]
    each: Figure
    bakes: Figure
    batter: Figure


class OneMore(Made):
    """The tin that would save most batter, were it owned."""

    shape: TinShape
    across: Figure
    batter: Figure
    saves: Figure


class CarvedBake(Made):
    """All the baking of a carved tier: its tins from the largest to the smallest, what they take, what is carved off,
    and the modelling paste that makes with `paste_coat` of the coat.
    """

    tins: dict[str, Baked]
    bakes: Figure
    batter: Figure
    offcut: Figure
    paste_coat: Figure
    paste: Figure
    one_more: OneMore | None


@rule(
    "carve.paste_coat", unit="g", formula="offcut / parts", source=FROM_MEMORY, rounding="up",
    words="One part of coat to so many parts of crumbs, by weight: 4 to 6 by common practice.",
)  # fmt: skip
def paste_coat(offcut_g: float, parts: float) -> float:
    """Coat worked into crumbs for modelling paste, g: crumbs / parts. Source: common practice, from memory.

    >>> paste_coat(500, 5)
    100.0
    """
    return offcut_g / parts


@rule(
    "carve.paste", unit="g", formula="offcut + coat", source=DEFINITION, rounding="down",
    words="The crumbs and the coat that binds them.",
)  # fmt: skip
def paste(offcut_g: float, coat_g: float) -> float:
    """Modelling paste out of crumbs and coat, g: both together. Source: definition.

    >>> paste(500, 100)
    600
    """
    return offcut_g + coat_g


Group = tuple[int, ...]
"""Slices that are cut from one layer out of a tin, by their numbers from 0."""


class _Slice(NamedTuple):
    """What a slice needs of a tin: the radius of the least circle round it, how it is laid beside others, and the
    radius of the least half ball.
    """

    radius: float
    lying: Lying
    ball: float


class _Tray(NamedTuple):
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

    def holds(self, one: _Slice, skin: float) -> bool:
        """Whether a slice can be cut from what it bakes, its skin trimmed off."""
        if self.shape in ROUND:
            return one.radius <= self.across / 2 - skin + SKIN_FIT_MM
        bed = self.bed(skin)
        return bed is not None and one.lying.short <= bed.wide and one.lying.long <= bed.high

    def bakes(self, layers: int) -> int:
        """How often it is baked for so many layers."""
        return math.ceil(layers / self.each)

    def costs(self, work: "_Work") -> tuple[float, float]:
        """What one more layer out of it takes of cake, and what one more bake does, ml."""
        return self.area * work.cut / 1000, self.area * work.level / 1000

    def batter(self, work: "_Work", layers: int) -> Figure:
        """The batter of so many layers out of it."""
        return batter_volume.figure(self.area, layers, work.cut, self.bakes(layers), work.level, work.fill)

    def piled(self, work: "_Work", layers: int) -> float:
        """How much cake so many layers out of it are before they are carved, ml: what is levelled off is gone."""
        return layers * self.costs(work)[0]


class _HalfBall(_Tray):
    """A half-ball tin: a layer is cut out of all of what it bakes, its flat face down or up."""

    def bed(self, skin: float) -> Bed | None:
        """Likewise."""
        return None

    def holds(self, one: _Slice, skin: float) -> bool:
        """Likewise."""
        return one.ball <= self.across / 2 - skin + SKIN_FIT_MM

    def costs(self, work: "_Work") -> tuple[float, float]:
        """Likewise."""
        return 0.0, ball_batter(1, self.across, 1.0)

    def batter(self, work: "_Work", layers: int) -> Figure:
        """Likewise: what the tin takes, whatever is cut from it."""
        return ball_batter.figure(self.bakes(layers), self.across, work.fill)

    def piled(self, work: "_Work", layers: int) -> float:
        """Likewise."""
        return self.bakes(layers) * self.costs(work)[1]


def plan_carved_bake(done: Worked, tins: Sequence[Tin]) -> CarvedBake | None:
    """What a tier is baked in, out of the tins that are owned; None where it is not carved or baked already.

    The choice takes least batter: layers x cut and what is levelled off each bake, over the areas of the tins, several
    slices being cut from one layer where they lie on it side by side (an integer programme, by HiGHS through scipy).
    Where no tin that is owned holds a layer, one as large as the tier's own outline is to be got.
    """
    layers, usual = done.tier.asked.layers, done.tier.usual
    body = done.bodies.bare
    if not isinstance(body, Sculpted) or isinstance(layers.bake, MeasuredBake):
        return None
    cut, level, skin = done.layers.cut_height.value, usual.level_mm, usual.trimmed_skin_mm
    slices = slices_of(body, done.slabs)

    def each(depth_mm: float) -> int:
        """Into how many layers what a tin so deep bakes is cut."""
        if isinstance(layers.bake, TinBake):
            return layers.bake.torte
        return min(int(TORTE.high), layers.count, math.floor((depth_mm - level) / cut + 1e-6))

    new_each = each(usual.tin_depth_mm)
    trays = [one for tin in tins for one in _served(tin, each(tin.depth_mm)) if one.each > 0]
    trays.append(_own(done, max(1, new_each)))
    wanted = tuple(_Slice(one.circle / 2, _lying(one), one.half_ball / 2) for one in slices)
    work = _Work(wanted, cut, level, usual.batter_fill, skin)
    # Kept with the body, so that neither is looked for again while it stays as it is.
    key = (work, tuple(trays))
    chosen = body.core.keep("tins", key, lambda: _choose(*key))
    more = body.core.keep("one more tin", (*key, new_each), lambda: _best_more(*key, new_each))
    found: dict[str, Baked] = {}
    for at, (one, taken) in enumerate(sorted(chosen.items(), key=lambda pair: -pair[0].area), 1):
        found[f"tin_{at}"] = Baked(
            shape=one.shape,
            across=same("tin, across", one.across, "mm", "up"),
            length=None if one.length is None else same("tin, long", one.length, "mm", "up"),
            owned=one.owned,
            layers=sorted(place + 1 for group in taken for place in group),
            beside={
                f"sheet_{at}": _beside(one, group, work, slices)
                for at, group in enumerate((group for group in taken if len(group) > 1), 1)
            },
            each=decided(one.each, "each"),
            bakes=same("bakes", one.bakes(len(taken)), "each"),
            batter=one.batter(work, len(taken)),
        )
    parts = {f"{TIN_WORDS[one.shape]} tin {at}": one for at, one in enumerate(found.values(), 1)}
    batter = total({name: one.batter.value for name, one in parts.items()}, "ml")
    piled_ml = sum(one.piled(work, len(taken)) for one, taken in chosen.items())
    if done.tier.dome_mm:
        # A dome left on is half of a cylinder as high (geometry: a paraboloid).
        piled_ml += round_area(done.tier.asked.tin_diameter_mm) * done.tier.dome_mm / 2 / 1000
    crumbs = offcut.figure(piled_ml, done.layers.cake_volume.value, usual.cake_density_g_per_ml)
    worked_g = max(0.0, crumbs.value)
    binds = paste_coat.figure(worked_g, usual.paste_parts)
    return CarvedBake(
        tins=found,
        bakes=total({name: one.bakes.value for name, one in parts.items()}, "each"),
        batter=batter,
        offcut=crumbs,
        paste_coat=binds,
        paste=paste.figure(worked_g, binds.value),
        one_more=_one_more(more, batter.value),
    )


def _served(tin: Tin, each: int) -> Iterator[_Tray]:
    """A tin that is owned, where layers are cut out of what it bakes: a round, a square, a sheet, or a half ball."""
    if tin.shape in ("round", "square") or (tin.shape == "rectangle" and tin.length_mm):
        yield _Tray(tin.shape, tin.across_mm, tin.length_mm, each, True)
    elif tin.shape == "ball" and tin.depth_mm >= BALL_DEEP * tin.across_mm / 2:
        yield _HalfBall(tin.shape, tin.across_mm, None, 1, True)


class _Work(NamedTuple):
    """What is to be baked: the slices from the foot up, how high each is cut, and what goes with a bake."""

    slices: tuple[_Slice, ...]
    cut: float
    level: float
    fill: float
    skin: float


def _own(done: Worked, each: int) -> _Tray:
    """A tin as large as the tier's own outline: of its shape where that is round or square, else a sheet."""
    tier, bare = done.tier.asked, done.bodies.bare
    if tier.build.own_outline:
        skin = 2 * done.tier.usual.trimmed_skin_mm
        short, long = sorted((bare.width_mm + skin, bare.length_mm + skin))
        return _Tray("rectangle", short, long, each, False)
    outline = tier.shape.outline(tier.tin_diameter_mm)
    wide, long = 2 * outline.half_width_mm, 2 * outline.half_length_mm
    own = shape_of(outline)
    if own == "round" or own == "square":
        return _Tray(own, wide, None, each, False)
    return _Tray("rectangle", wide, long, each, False)


def forget_bakes() -> None:
    """Keep no way to lay slices side by side, so that the next is looked for from nothing."""
    _groups.cache_clear()
    forget_rooms()


@lru_cache(maxsize=512)
def _groups(tray: _Tray, work: _Work) -> tuple[Group, ...]:
    """What may be cut from one layer out of a tin, by the slices' numbers from 0: each that it holds, and those that
    lie side by side on it.
    """
    alone = [(at,) for at, one in enumerate(work.slices) if tray.holds(one, work.skin)]
    bed = tray.bed(work.skin)
    if bed is None:
        return tuple(alone)
    lying = [one.lying for one in work.slices]
    return (*alone, *islice(together(lying, KNIFE_MM, bed), MOST_GROUPS))


def _choose(work: _Work, trays: tuple[_Tray, ...]) -> dict[_Tray, list[Group]]:
    """What is cut from each layer out of each tin, so that all of them take least batter."""
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import csr_matrix, diags_array, hstack

    layers, kinds = len(work.slices), len(trays)
    ways: list[tuple[int, Group]] = [(at, group) for at, tray in enumerate(trays[:-1]) for group in _groups(tray, work)]
    # The last holds each by itself, whatever its size.
    own: set[Group] = {(at,) for at in range(layers)} | set(_groups(trays[-1], work))
    ways += [(kinds - 1, group) for group in sorted(own)]
    # For each of these whether a layer of that tin is cut so, then how often each tin is baked.
    of_tin = numpy.array([at for at, _ in ways])
    cut = csr_matrix(
        (numpy.ones(sum(len(group) for _, group in ways)),
         ([layer for _, group in ways for layer in group],
          [way for way, (_, group) in enumerate(ways) for _ in group])),
        (layers, len(ways)),
    )  # fmt: skip
    used = csr_matrix((numpy.ones(len(ways)), (of_tin, numpy.arange(len(ways)))), (kinds, len(ways)))
    costs = [tray.costs(work) for tray in trays]
    one = [work.fill * layer + (0.0 if tray.owned else TO_GET) for tray, (layer, _) in zip(trays, costs, strict=True)]
    bake = [work.fill * each + A_BAKE for _, each in costs]
    found = milp(
        numpy.concatenate([numpy.array(one)[of_tin], bake]),
        constraints=[
            LinearConstraint(hstack([cut, csr_matrix((layers, kinds))]), 1, 1),
            LinearConstraint(hstack([used, -diags_array([float(tray.each) for tray in trays])]), -numpy.inf, 0),
        ],
        integrality=numpy.ones(len(ways) + kinds),
        bounds=Bounds(0, numpy.concatenate([numpy.ones(len(ways)), numpy.full(kinds, float(layers))])),
        options={"time_limit": 1.0},
    )
    taken: list[tuple[int, Group]] = [(kinds - 1, (at,)) for at in range(layers)]
    if found.x is not None:
        taken = [ways[at] for at in numpy.flatnonzero(found.x[: len(ways)] > 0.5)]
    chosen: dict[_Tray, list[Group]] = {}
    for at, group in sorted(taken, key=lambda way: way[1]):
        chosen.setdefault(trays[at], []).append(group)
    return chosen


def _beside(tray: _Tray, group: Group, work: _Work, slices: Sequence[Slice]) -> Beside:
    """Slices side by side on a layer, each where it was laid."""
    bed = tray.bed(work.skin)
    assert bed is not None
    own = [slices[at] for at in group]
    room = laid_on(tuple(_lying(one) for one in own), KNIFE_MM, bed)
    assert room is not None
    spots = sorted(room.spots)
    return Beside(
        round=bed.round,
        wide=same("what is baked, trimmed", bed.wide, "mm", "down"),
        high=same("what is baked, trimmed", bed.high, "mm", "down"),
        layers=[one.number for one in own],
        edges=[
            rings_of(areas_of(translate(one.laid(spot.quarters), spot.x, spot.y)))
            for one, spot in zip(own, spots, strict=True)
        ],
    )


def _lying(one: Slice) -> Lying:
    return Lying(*one.least, one.hull)


def _batter_ml(work: _Work, chosen: dict[_Tray, list[Group]]) -> float:
    return sum(one.batter(work, len(taken)).value for one, taken in chosen.items())


def _one_more(found: tuple[float, _Tray] | None, batter_ml: float) -> OneMore | None:
    """The tin as they are sold that would save most, where it saves enough to be worth it."""
    if found is None or batter_ml - found[0] < WORTH_ML:
        return None
    with_it, tin = found
    return OneMore(
        shape=tin.shape,
        across=same("tin, across", tin.across, "mm", "up"),
        batter=same("with one tin more", with_it, "ml", "up"),
        saves=same("less batter", batter_ml - with_it, "ml", "down"),
    )


def _sold(each: int) -> Iterator[_Tray]:
    """The tins as they are sold, whose bakes are cut into so many layers; a half ball is one."""
    for across in (inches * MM_PER_INCH for inches in COMMON_IN if each > 0):
        yield _Tray("round", across, None, each, True)
        yield _Tray("square", across, None, each, True)
    for across in (inches * MM_PER_INCH for inches in HALF_BALLS_IN):
        yield _HalfBall("ball", across, None, 1, True)


def _best_more(work: _Work, trays: tuple[_Tray, ...], each: int) -> tuple[float, _Tray] | None:
    """The tin as they are sold with which least batter is taken, and how much, ml; None where none would serve."""
    owned = {(tray.shape, round(tray.across)) for tray in trays}
    serving = (
        one
        for one in _sold(each)
        if (one.shape, round(one.across)) not in owned and any(one.holds(need, work.skin) for need in work.slices)
    )
    return min(((_batter_ml(work, _choose(work, (one, *trays))), one) for one in serving), default=None)
