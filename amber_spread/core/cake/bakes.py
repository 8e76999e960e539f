"""What a carved tier is baked in: for each layer a tin that holds its slice, so that least is carved away."""

import math
from collections.abc import Iterable, Mapping, Sequence
from functools import cache

from shapely import get_coordinates
from shapely.affinity import translate

from amber_spread.core.cake.nested import Lying, laid_on
from amber_spread.core.cake.oven import Oven, oven_loads
from amber_spread.core.cake.trays import (
    KNIFE_MM,
    SKIN_FIT_MM,
    Group,
    Needed,
    Tray,
    Work,
    about,
    best_more,
    choose,
    needs_paste,
    served,
)
from amber_spread.core.design.builds import Carvable
from amber_spread.core.design.design import MeasuredBake, TinBake
from amber_spread.core.design.practice import Practice
from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sliced import Slice, rings_of
from amber_spread.core.geometry.flat.outline import Point, round_area
from amber_spread.core.geometry.flat.traced import areas_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import DEFINITION, FROM_MEMORY, Figure, carry_over, decided, rule, total
from amber_spread.core.kernel.limits import TORTE
from amber_spread.core.stock.kit import TIN_WORDS, Tin, TinShape
from amber_spread.core.stock.media import weight
from amber_spread.core.tier import PlannedTier, shape_of, slices_of

PASTE_G_PER_ML = 1.1
"""Modelling paste of crumbs and coat, pressed, weighs so much (from memory)."""
WORTH_ML = 100.0
"""One more tin is named where it saves at least so much batter (from memory)."""


class Beside(PlanPart):
    """A layer of cake out of a tin that several layers of the tier are cut from side by side: it as it lies trimmed,
    a circle or a rectangle, and each layer on it, by its number and its edges.
    """

    round: bool
    wide: Figure
    high: Figure
    layers: list[int]
    edges: list[list[list[Point]]]


class Baked(PlanPart):
    """One tin of a carved tier: which layers are cut from what it bakes, in how many bakes, of how much batter.
    `edges` is its own edge from above about each layer, and `beside` are those that are cut out of one layer of it
    together.
    """

    shape: TinShape
    across: Figure
    length: Figure | None
    owned: bool
    layers: list[int]
    edges: dict[str, list[Point]]
    beside: dict[str, Beside]
    each: Figure
    bakes: Figure
    batter: Figure


class OneMore(PlanPart):
    """The tin that would save most batter, were it owned."""

    shape: TinShape
    across: Figure
    batter: Figure
    saves: Figure


class Built(PlanPart):
    """What of a layer no tin reaches that it is cut out of, and the modelling paste it is built of."""

    layer: int
    beyond: Figure
    paste: Figure


class CarvedBake(PlanPart):
    """All the baking of a carved tier: its tins from the largest to the smallest, what they take, what is carved off,
    and the modelling paste that makes with `paste_coat` of the coat.

    `loads` is how often the oven is filled, nothing where a tin does not go in. `built` is what of it paste has to make
    up, and `built_paste` all of that, with `built_coat` of the coat in it.
    """

    tins: dict[str, Baked]
    bakes: Figure
    loads: Figure | None
    batter: Figure
    offcut_volume: Figure
    offcut: Figure
    paste_coat: Figure
    paste: Figure
    built: dict[str, Built]
    built_paste: Figure | None
    built_coat: Figure | None
    one_more: OneMore | None


@rule(
    "carve.offcut",
    unit="ml",
    formula="baked - left",
    source=DEFINITION,
    words="All that is baked and cut to its height, less the cake that is left of it.",
)
def carved_off(baked_ml: float, left_ml: float) -> float:
    """Volume carved off, ml: what is baked, without what is levelled off, less what is left. Source: definition.

    >>> carved_off(3600, 2800)
    800
    """
    return baked_ml - left_ml


@rule(
    "carve.paste_coat",
    unit="g",
    formula="offcut / parts",
    source=FROM_MEMORY,
    rounding="up",
    words="One part of coat to so many parts of crumbs, by weight: 4 to 6 by common practice.",
)
def paste_coat(offcut_g: float, parts: float) -> float:
    """Coat worked into crumbs for modelling paste, g: crumbs / parts. Source: common practice, from memory.

    >>> paste_coat(500, 5)
    100.0
    """
    return offcut_g / parts


@rule(
    "carve.paste",
    unit="g",
    formula="offcut + coat",
    source=DEFINITION,
    rounding="down",
    words="The crumbs and the coat that binds them.",
)
def paste(offcut_g: float, coat_g: float) -> float:
    """Modelling paste out of crumbs and coat, g: both together. Source: definition.

    >>> paste(500, 100)
    600
    """
    return offcut_g + coat_g


@rule(
    "carve.built_coat",
    unit="g",
    formula="paste / (parts + 1)",
    source=DEFINITION,
    rounding="up",
    words="One part of coat to so many parts of crumbs: that share of the paste.",
)
def coat_in_paste(paste_g: float, parts: float) -> float:
    """Coat in so much modelling paste, g: paste / (parts of crumbs + 1). Source: definition.

    >>> coat_in_paste(600, 5)
    100.0
    """
    return paste_g / (parts + 1)


def plan_carved_bake(done: PlannedTier, tins: Sequence[Tin]) -> CarvedBake | None:
    """What a tier is baked in, out of the tins that are owned; None where it is not carved or baked already.

    The choice takes least batter: layers x cut and what is levelled off each bake, over the areas of the tins, several
    slices being cut from one layer where they lie on it side by side (exactly: `cake/set_partition.py`).
    Where no tin that is owned holds a layer, one as large as the tier's own outline is to be got. Where paste may be
    built out from a layer, it may lie so far beyond its tin; where no more bakes are wanted than so many, no more are
    taken, or as few as there can be.
    """
    layers, usual, build = done.tier.asked.layers, done.tier.usual, done.tier.asked.build
    body = done.bodies.bare
    if not isinstance(body, Sculpted) or not isinstance(build, Carvable) or isinstance(layers.bake, MeasuredBake):
        return None
    cut, level, skin = done.layers.cut_height.value, usual.level_mm, usual.narrower_mm
    slices = slices_of(body, done.slabs)

    def each(depth_mm: float) -> int:
        """Into how many layers what a tin so deep bakes is cut."""
        if isinstance(layers.bake, TinBake):
            return layers.bake.torte
        return min(int(TORTE.high), layers.count, math.floor((depth_mm - level) / cut + 1e-6))

    new_each = each(usual.tin_depth_mm)
    trays = [one for tin in tins for one in served(tin, each(tin.depth_mm)) if one.each > 0]
    trays.append(_own(done, max(1, new_each)))
    wanted = tuple(Needed(one.circle / 2, Lying(*one.least, one.hull), one.half_ball / 2) for one in slices)
    work = Work(wanted, cut, level, usual.batter_fill, skin, build.paste_mm or 0.0, build.most_bakes)

    @cache
    def beyond(tray: Tray, at: int) -> float:
        return _beyond_ml(tray, slices[at], skin)

    # Kept with the body, so that neither is looked for again while it stays as it is.
    key = (work, tuple(trays))
    chosen = body.core.cached("tins", key, lambda: choose(*key, beyond))
    more = body.core.cached("one more tin", (*key, new_each), lambda: best_more(*key, new_each, beyond))
    edges = body.core.cached("tin edges", key, lambda: _edges(chosen, slices))
    built = {
        f"layer_{at + 1}": _built(at + 1, beyond(one, at))
        for one, taken in chosen.items()
        for group in taken
        for at in group
        if needs_paste(one, work, group)
    }
    built_paste = total({f"layer {one.layer}": one.paste.value for one in built.values()}, "g") if built else None
    found: dict[str, Baked] = {}
    for at, (one, taken) in enumerate(sorted(chosen.items(), key=lambda pair: -pair[0].area), 1):
        found[f"tin_{at}"] = Baked(
            shape=one.shape,
            across=carry_over("tin, across", one.across, "mm", "up"),
            length=None if one.length is None else carry_over("tin, long", one.length, "mm", "up"),
            owned=one.owned,
            layers=sorted(place + 1 for group in taken for place in group),
            edges={f"layer_{place + 1}": edges[place] for group in taken for place in group},
            beside={
                f"sheet_{at}": _beside(one, group, work, slices)
                for at, group in enumerate((group for group in taken if len(group) > 1), 1)
            },
            each=decided(one.each, "each"),
            bakes=carry_over("bakes", one.bakes(len(taken)), "each"),
            batter=one.batter(work, len(taken)),
        )
    parts = {f"{TIN_WORDS[one.shape]} tin {at}": one for at, one in enumerate(found.values(), 1)}
    batter = total({name: one.batter.value for name, one in parts.items()}, "ml")
    piled_ml = sum(one.piled(work, len(taken)) for one, taken in chosen.items())
    if done.tier.dome_mm:
        # A dome left on is half of a cylinder as high (geometry: a paraboloid).
        piled_ml += round_area(done.tier.asked.tin_diameter_mm) * done.tier.dome_mm / 2 / 1000
    left_ml = done.layers.cake_volume.value - sum(one.beyond.value for one in built.values())
    off = carved_off.figure(piled_ml, left_ml)
    crumbs = weight.figure(off.value, usual.cake_density_g_per_ml)
    worked_g = max(0.0, crumbs.value)
    binds = paste_coat.figure(worked_g, usual.paste_parts)
    return CarvedBake(
        tins=found,
        bakes=total({name: one.bakes.value for name, one in parts.items()}, "each"),
        loads=_loads(found.values(), done.tier.usual),
        batter=batter,
        offcut_volume=off,
        offcut=crumbs,
        paste_coat=binds,
        paste=paste.figure(worked_g, binds.value),
        built=dict(sorted(built.items())),
        built_paste=built_paste,
        built_coat=None if built_paste is None else coat_in_paste.figure(built_paste.value, usual.paste_parts),
        one_more=_one_more(more, batter.value),
    )


def _loads(tins: Iterable[Baked], usual: Practice) -> Figure | None:
    bakes = tuple(((one.across.value, (one.length or one.across).value), round(one.bakes.value)) for one in tins)
    loads = oven_loads(bakes, Oven.of(usual))
    return None if loads is None else carry_over("oven loads", loads, "each")


def _built(number: int, beyond_ml: float) -> Built:
    beyond = carry_over("of it beyond its tin", beyond_ml, "ml", "up")
    return Built(layer=number, beyond=beyond, paste=weight.figure(beyond.value, PASTE_G_PER_ML))


def _beyond_ml(tray: Tray, one: Slice, skin: float) -> float:
    """How much of a slice lies beyond what a tin bakes, trimmed, when it lies in the middle of it, ml: its areas there
    at every height it is looked at, by the trapezoidal rule.
    """
    baked = about(tray, one, 2 * skin - SKIN_FIT_MM)
    areas = [float(face.difference(baked).area) for face in one.faces]
    whole = sum(areas) - (areas[0] + areas[-1]) / 2
    return whole * (one.high - one.low) / (len(areas) - 1) / MM3_PER_ML


def _edges(chosen: Mapping[Tray, Sequence[Group]], slices: Sequence[Slice]) -> dict[int, list[Point]]:
    """The edge of its tin about every slice, by its number from 0."""
    return {
        at: [(round(x, 1), round(y, 1)) for x, y in get_coordinates(about(tray, slices[at]).exterior)[:-1].tolist()]
        for tray, taken in chosen.items()
        for group in taken
        for at in group
    }


def _own(done: PlannedTier, each: int) -> Tray:
    """A tin as large as the tier's own outline: of its shape where that is round or square, else a sheet."""
    tier, bare = done.tier.asked, done.bodies.bare
    if tier.build.own_outline:
        skin = 2 * done.tier.usual.narrower_mm
        short, long = sorted((bare.width_mm + skin, bare.length_mm + skin))
        return Tray("rectangle", short, long, each, False)
    outline = tier.shape.outline(tier.tin_diameter_mm)
    wide, long = 2 * outline.half_width_mm, 2 * outline.half_length_mm
    own = shape_of(outline)
    if own == "round" or own == "square":
        return Tray(own, wide, None, each, False)
    return Tray("rectangle", wide, long, each, False)


def _beside(tray: Tray, group: Group, work: Work, slices: Sequence[Slice]) -> Beside:
    """Slices side by side on a layer, each where it was laid."""
    bed = tray.bed(work.skin)
    assert bed is not None
    own = [slices[at] for at in group]
    room = laid_on(tuple(work.slices[at].lying for at in group), KNIFE_MM, bed)
    assert room is not None
    spots = sorted(room.spots)
    return Beside(
        round=bed.round,
        wide=carry_over("what is baked, trimmed", bed.wide, "mm", "down"),
        high=carry_over("what is baked, trimmed", bed.high, "mm", "down"),
        layers=[one.number for one in own],
        edges=[
            rings_of(areas_of(translate(one.laid(spot.quarters), spot.x, spot.y)))
            for one, spot in zip(own, spots, strict=True)
        ],
    )


def _one_more(found: tuple[float, Tray] | None, batter_ml: float) -> OneMore | None:
    """The tin as they are sold that would save most, where it saves enough to be worth it."""
    if found is None or batter_ml - found[0] < WORTH_ML:
        return None
    with_it, tin = found
    return OneMore(
        shape=tin.shape,
        across=carry_over("tin, across", tin.across, "mm", "up"),
        batter=carry_over("with one tin more", with_it, "ml", "up"),
        saves=carry_over("less batter", batter_ml - with_it, "ml", "down"),
    )
