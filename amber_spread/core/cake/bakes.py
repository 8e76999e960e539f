"""What a carved tier is baked in: for each layer a tin that holds its slice, so that least is carved away."""

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy

from amber_spread.core.cake.batter import ball_batter, batter_volume
from amber_spread.core.design.design import MeasuredBake, TinBake
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.figures import DEFINITION, FROM_MEMORY, Figure, decided, rule, same, total
from amber_spread.core.kernel.limits import TORTE
from amber_spread.core.kernel.units import MM_PER_INCH
from amber_spread.core.stock.kit import Tin, TinShape
from amber_spread.core.tier import Worked, offcut, shape_of

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
_NAMES = {"ball": "half-ball"}
SKIN_FIT_MM = 0.5
"""A slice this much wider than the trimmed cake is cut from it all the same (common practice)."""
WORTH_ML = 100.0
"""One more tin is named where it saves at least so much batter (from memory)."""


class Baked(Made):
    """One tin of a carved tier: which layers are cut from what it bakes, in how many bakes, of how much batter."""

    shape: TinShape
    across: Figure
    length: Figure | None
    owned: bool
    layers: list[int]
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


class _Slice(NamedTuple):
    """What a slice needs of a tin: the radius of the least circle round it, the sides of the least rectangle, and the
    radius of the least half ball.
    """

    radius: float
    short: float
    long: float
    ball: float


class _Tray(NamedTuple):
    """A tin as it may serve: its kind and size, its area, into how many layers what it bakes is cut, and whether it is
    owned.
    """

    shape: TinShape
    across: float
    length: float | None
    area: float
    each: int
    owned: bool

    def holds(self, one: _Slice, skin: float) -> bool:
        """Whether a slice can be cut from what it bakes, its skin trimmed off."""
        room = self.across / 2 - skin + SKIN_FIT_MM
        if self.shape in ("round", "ball"):
            return (one.radius if self.shape == "round" else one.ball) <= room
        short, long = sorted((self.across, self.length or self.across))
        return one.short <= short - 2 * skin + SKIN_FIT_MM and one.long <= long - 2 * skin + SKIN_FIT_MM

    def bakes(self, layers: int) -> int:
        """How often it is baked for so many layers."""
        return math.ceil(layers / self.each)

    def batter(self, work: "_Work", layers: int) -> Figure:
        """The batter of so many layers out of it: of a half-ball tin what it takes, whatever is cut from it."""
        bakes = self.bakes(layers)
        if self.shape == "ball":
            return ball_batter.figure(bakes, self.across, work.fill)
        return batter_volume.figure(self.area, layers, work.cut, bakes, work.level, work.fill)

    def costs(self, work: "_Work") -> tuple[float, float]:
        """What one more layer out of it takes of batter, and what one more bake does, ml."""
        if self.shape == "ball":
            return 0.0, ball_batter(1, self.across, work.fill)
        return self.area * work.cut * work.fill / 1000, self.area * work.level * work.fill / 1000

    def piled(self, work: "_Work", layers: int) -> float:
        """How much cake so many layers out of it are before they are carved, ml."""
        if self.shape == "ball":
            return ball_batter(self.bakes(layers), self.across, 1.0)
        return self.area * layers * work.cut / 1000


def plan_carved_bake(done: Worked, tins: Sequence[Tin]) -> CarvedBake | None:
    """What a tier is baked in, out of the tins that are owned; None where it is not carved or baked already.

    The choice takes least batter: layers x cut and what is levelled off each bake, over the areas of the tins
    (an integer programme, by HiGHS through scipy). Where no tin that is owned holds a layer, one as large as the tier's
    own outline is to be got.
    """
    carving, layers, usual = done.carving, done.tier.asked.layers, done.tier.usual
    body = done.bodies.bare
    if carving is None or not isinstance(body, Sculpted) or isinstance(layers.bake, MeasuredBake):
        return None
    cut, level, skin = done.layers.cut_height.value, usual.level_mm, usual.trimmed_skin_mm
    slices = tuple(
        _Slice(one.circle.value / 2, one.short.value, one.side.value, one.half_ball.value / 2)
        for one in carving.slices.values()
    )

    def tray(tin: Tin, owned: bool) -> _Tray:
        if tin.shape == "ball":
            return _Tray(tin.shape, tin.across_mm, None, math.pi / 4 * tin.across_mm**2, 1, owned)
        deep = math.floor((tin.depth_mm - level) / cut + 1e-6)
        each = layers.bake.torte if isinstance(layers.bake, TinBake) else min(int(TORTE.high), layers.count, deep)
        area = math.pi / 4 * tin.across_mm**2
        if tin.shape != "round":
            area = tin.across_mm * (tin.length_mm or tin.across_mm)
        return _Tray(tin.shape, tin.across_mm, tin.length_mm, area, each, owned)

    served = [tin for tin in tins if _serves(tin)]
    new_each = tray(Tin(across_mm=100.0, depth_mm=usual.tin_depth_mm), False).each
    trays = [one for one in (tray(tin, True) for tin in served) if one.each > 0]
    trays.append(_own(done, max(1, new_each)))
    work = _Work(slices, cut, level, usual.batter_fill, skin)
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
            layers=[place + 1 for place in taken],
            each=decided(one.each, "each"),
            bakes=same("bakes", one.bakes(len(taken)), "each"),
            batter=one.batter(work, len(taken)),
        )
    parts = {f"{_NAMES.get(one.shape, one.shape)} tin {at}": one for at, one in enumerate(found.values(), 1)}
    batter = total({name: one.batter.value for name, one in parts.items()}, "ml")
    piled_ml = sum(one.piled(work, len(taken)) for one, taken in chosen.items())
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


def _serves(tin: Tin) -> bool:
    """Whether layers are cut out of what a tin bakes: a round, a square, a sheet, or a half ball that is one."""
    if tin.shape == "rectangle":
        return tin.length_mm is not None
    return tin.shape in ("round", "square") or (tin.shape == "ball" and tin.depth_mm >= BALL_DEEP * tin.across_mm / 2)


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
        return _Tray("rectangle", short, long, short * long, each, False)
    outline = tier.shape.outline(tier.tin_diameter_mm)
    wide, long = 2 * outline.half_width_mm, 2 * outline.half_length_mm
    own = shape_of(outline)
    if own == "round" or own == "square":
        return _Tray(own, wide, None, outline.area_mm2, each, False)
    return _Tray("rectangle", wide, long, wide * long, each, False)


def _choose(work: _Work, trays: tuple[_Tray, ...]) -> dict[_Tray, list[int]]:
    """The tin of each layer, counted from 0, so that all of them take least batter."""
    from scipy.optimize import Bounds, LinearConstraint, milp

    layers, kinds = len(work.slices), len(trays)
    # For each layer and tin whether it is baked there, then how often each tin is baked.
    holds = numpy.array([[tray.holds(one, work.skin) for tray in trays] for one in work.slices])
    holds[:, -1] = True
    costs = [tray.costs(work) for tray in trays]
    cost = [[layer + (0.0 if tray.owned else TO_GET) for tray, (layer, _) in zip(trays, costs, strict=True)]] * layers
    bake = [each + A_BAKE for _, each in costs]
    once = numpy.hstack([numpy.kron(numpy.eye(layers), numpy.ones(kinds)), numpy.zeros((layers, kinds))])
    room = numpy.hstack([
        numpy.tile(numpy.eye(kinds), layers), -numpy.diag([float(tray.each) for tray in trays])
    ])  # fmt: skip
    found = milp(
        numpy.concatenate([numpy.array(cost).ravel(), bake]),
        constraints=[LinearConstraint(once, 1, 1), LinearConstraint(room, -numpy.inf, 0)],
        integrality=numpy.ones((layers + 1) * kinds),
        bounds=Bounds(0, numpy.concatenate([holds.ravel().astype(float), numpy.full(kinds, float(layers))])),
        options={"time_limit": 1.0},
    )
    chosen: dict[_Tray, list[int]] = {}
    for layer in range(layers):
        place = kinds - 1
        if found.x is not None:
            place = int(found.x[layer * kinds : (layer + 1) * kinds].argmax())
        chosen.setdefault(trays[place], []).append(layer)
    return chosen


def _batter_ml(work: _Work, chosen: dict[_Tray, list[int]]) -> float:
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
    kinds: tuple[tuple[TinShape, int, tuple[int, ...], float], ...] = (
        ("round", each, COMMON_IN, math.pi / 4),
        ("square", each, COMMON_IN, 1.0),
        ("ball", 1, HALF_BALLS_IN, math.pi / 4),
    )
    for shape, times, sizes, share in kinds:
        for across in (inches * MM_PER_INCH for inches in sizes if times > 0):
            yield _Tray(shape, across, None, share * across**2, times, True)


def _best_more(work: _Work, trays: tuple[_Tray, ...], each: int) -> tuple[float, _Tray] | None:
    """The tin as they are sold with which least batter is taken, and how much, ml; None where none would serve."""
    owned = {(tray.shape, round(tray.across)) for tray in trays}
    serving = (
        one
        for one in _sold(each)
        if (one.shape, round(one.across)) not in owned and any(one.holds(need, work.skin) for need in work.slices)
    )
    return min(((_batter_ml(work, _choose(work, (one, *trays))), one) for one in serving), default=None)
