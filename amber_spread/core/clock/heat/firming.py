"""How long the coats of a tier take to firm in the cold, and how long they then stay firm on the bench.

A coat is firm when all of it is below the temperature at which its fat holds. Side and top are each followed in one
dimension; the top edge, which warms from both sides, by the product of the two (exact for a body of one material that
starts at one temperature).
"""

import math
from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

import numpy as np
from scipy.optimize import brentq

from amber_spread.core.clock.heat.air import ON_A_BOARD_FILM, Air, Rooms
from amber_spread.core.clock.heat.conduction import LATEST_MIN, TIMES_MIN, Array, Cooling, Layers, Slice
from amber_spread.core.clock.heat.materials import holds_degc, material
from amber_spread.core.clock.heat.sweating import Sweat, Wetness, sweat_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import Figure, Unit, of_part, parts_rule
from amber_spread.core.stock.composition import Composition

Level = Literal["touch", "through", "lift"]
"""How firm: at its skin, right through, or with the cake just below it."""
SOFT_ABOVE_K = 6.0
"""A coat dents when its face is so much warmer than the temperature it holds below (from memory)."""
LIFT_MM = 10.0
"""A tier is lifted when its coat, and the cake so far below it, are cold (from memory)."""
FILM_SPREAD = 0.3
"""Films are known to within so much, two times out of three (from memory)."""
MOST_OFF = 8.0
"""An appliance cools at most so many times as well, or as badly, as it is said to."""
SETS_MIN = 10.0
"""Fat takes minutes to set, however cold it is (from memory)."""
CAKE_DEGC = 25.0
"""Cake is coated no warmer than this: in a hotter kitchen it comes out of the fridge (from memory)."""
PUBLISHED = (
    "Y. Choi and M. R. Okos (1986) for what it is made of; H. S. Carslaw and J. C. Jaeger, Conduction of Heat in "
    "Solids (1959) for how heat flows; the temperatures at which fats hold are from memory"
)
FIRM = parts_rule(
    "clock.firm",
    "Heat flowing out of the coat and the cake below it, until all of the coat is below the temperature at which its "
    "fat holds. Go by the sign, not by the clock.",
    "heat flow in one dimension",
    "published",
    PUBLISHED,
)
HOLDS = parts_rule(
    "clock.holds",
    "Butter holds a coat below about 12 °C, cocoa butter below 18, shortening below 14; a mixture in between, by their "
    "weights.",
    "sum of share x temperature",
    "from memory",
)
STAYS_FIRM = parts_rule(
    "clock.stays_firm",
    "Heat flowing in from the bench until the top edge, which warms from both sides, is warm enough to dent.",
    "heat flow in one dimension, side x top",
    "published",
    PUBLISHED,
)

DEW = parts_rule(
    "clock.dew_point",
    "The temperature at which the kitchen's air gives off water, by how warm and how humid it is.",
    "saturated at the dew point = humidity x saturated at the kitchen's temperature",
    "published",
    "ASHRAE Handbook, Fundamentals (2017), chapter 1",
)
SWEATS = parts_rule(
    "clock.sweats",
    "Water settles on what is colder than the dew point, and dries off again, as fast as heat passes from the air to "
    "its face. Of a tier that is cold right through.",
    "sum of h / (rho c R T) x (pressure of vapour in the air - at the face)",
    "published",
    "the Lewis relation, as in F. P. Incropera and D. P. DeWitt, Fundamentals of Heat and Mass Transfer; the film is "
    "from memory",
)


class Spread(NamedTuple):
    """One layer of coat or cover, mm: what it is made of, whether it `firms` in the cold, and whether it was spread
    just now.
    """

    thick_mm: float
    composition: Composition
    density_g_per_ml: float
    firms: bool
    fresh: bool


class Shell(NamedTuple):
    """What a tier wears at its side and on top, the outermost first, over its cake.

    Its wall is followed as that of a cylinder with as much wall for its cake as it has: `radius_mm` is 2 x area /
    girth. `on_its_top` is a tier that stands upside-down on a board.
    """

    side: tuple[Spread, ...]
    top: tuple[Spread, ...]
    radius_mm: float
    height_mm: float
    cake: Composition
    cake_g_per_ml: float
    on_its_top: bool = False


class Firming(PlanPart):
    """How a coat firms in the fridge or the freezer, `where` the plan puts it, in minutes: until you can `touch` it,
    until it is firm `through`, and until you can `lift` the tier; `least` and `most` are for through. `other` is
    through in the freezer instead of the fridge, or in the fridge instead of the freezer. It then `stays` firm on the
    bench for some minutes. None is more than three days.

    Below the `dew` point of the kitchen it sweats: it is `wet` for so long once it leaves the cold, if it is cold right
    through, and `wetness` is how wet. It is empty, and `wet` 0, where it stays dry.
    """

    where: Literal["fridge", "freezer"]
    holds: Figure
    touch: Figure | None
    through: Figure | None
    least: Figure | None
    most: Figure | None
    lift: Figure | None
    other: Figure | None
    stays: Figure | None
    dew: Figure
    wet: Figure | None
    wetness: Wetness

    def at(self, level: Level) -> Figure | None:
        """Minutes until it is that firm."""
        found: Figure | None = getattr(self, level)
        return found


class Minutes(NamedTuple):
    """The same in plain minutes; infinite where it never gets there."""

    holds_degc: float
    touch: float
    through: float
    least: float
    most: float
    lift: float
    other: float
    stays: float
    sweat: Sweat


def firming_of(shell: Shell, rooms: Rooms, freezer: bool) -> Firming | None:
    """How the coats of a tier firm, in the fridge or the freezer. None where nothing on it firms in the cold."""
    found = minutes_of(shell, rooms, freezer)
    if found is None:
        return None
    where: Literal["fridge", "freezer"] = "freezer" if freezer else "fridge"
    given: list[tuple[str, Unit, float]] = [
        ("coat at the side", "mm", sum(one.thick_mm for one in shell.side)),
        ("coat on top", "mm", sum(one.thick_mm for one in shell.top)),
        ("kitchen", "degC", rooms.bench.degc),
        (where, "degC", (rooms.freezer if freezer else rooms.fridge).degc),
        ("holds below", "degC", found.holds_degc),
    ]
    names, units, numbers = (tuple(column) for column in zip(*given, strict=True))

    def minutes(value: float, rule: str = FIRM) -> Figure | None:
        if not math.isfinite(value):
            return None
        return of_part(rule, (names, units, numbers), value, "min", "down" if rule == STAYS_FIRM else "up")

    return Firming(
        where=where,
        holds=of_part(HOLDS, "its fats", found.holds_degc, "degC"),
        touch=minutes(found.touch),
        through=minutes(found.through),
        least=minutes(found.least),
        most=minutes(found.most),
        lift=minutes(found.lift),
        other=minutes(found.other),
        stays=minutes(found.stays, STAYS_FIRM),
        dew=of_part(DEW, "kitchen", found.sweat.dew_degc, "degC"),
        wet=minutes(found.sweat.wet_min, SWEATS),
        wetness=found.sweat.wetness,
    )


def pace_from(shell: Shell, rooms: Rooms, freezer: bool, level: Level, took_min: float) -> float | None:
    """How many times as well an appliance cools as `rooms` say, if a coat took so long: the factor on its film that
    gives the same minutes. None where none from 1/`MOST_OFF` to `MOST_OFF` does.
    """

    def over(factor: float) -> float:
        """By how much longer it takes with that film, as a logarithm."""
        cold = rooms.freezer if freezer else rooms.fridge
        cold = cold._replace(film=factor * cold.film)
        other = rooms._replace(freezer=cold) if freezer else rooms._replace(fridge=cold)
        found = minutes_of(shell, other, freezer)
        minutes = math.inf if found is None else getattr(found, level)
        return math.log(min(minutes, LATEST_MIN) / took_min)

    if over(1 / MOST_OFF) < 0 or over(MOST_OFF) > 0:
        return None
    return float(brentq(over, 1 / MOST_OFF, MOST_OFF, rtol=1e-3))


@cached(TIERS)
def minutes_of(shell: Shell, rooms: Rooms, freezer: bool, fine: int = 1) -> Minutes | None:
    """Minutes until the coats of a tier are firm, and for how long they stay so; None where they never firm. Each layer
    is cut into `fine` times as many cells.
    """
    worn = (*shell.side, *shell.top)
    holds = [found for one in worn if one.firms and (found := holds_degc(one.composition)) is not None]
    if not holds:
        return None
    firm_degc = min(holds)
    cold, other = (rooms.freezer, rooms.fridge) if freezer else (rooms.fridge, rooms.freezer)
    faces = [_Face(shell, top, rooms.bench.degc, firm_degc, fine) for top in (False, True)]

    def until(air: Air, factor: float = 1.0) -> list[float]:
        """Minutes until the skin, the coats, and the coats with the cake just below them are firm on every face."""
        found = (face.cooling(air, factor).minutes_until(firm_degc, *face.depths) for face in faces)
        return [max(SETS_MIN, *those) for those in zip(*found, strict=True)]

    touch, through, lift = until(cold)
    return Minutes(
        holds_degc=firm_degc,
        touch=touch,
        through=through,
        least=until(cold, 1 + FILM_SPREAD)[1],
        most=until(cold, 1 - FILM_SPREAD)[1],
        lift=lift,
        other=until(other)[1],
        stays=_stays(faces, cold, rooms.bench, lift, firm_degc + SOFT_ABOVE_K),
        sweat=sweat_of([face.layers for face in faces if not face.lies], rooms, cold.degc),
    )


class _Face:
    """The side or the top of a tier. `depths` are its cells down to its skin, to the end of its coats, and to the end
    of the cake just below them.
    """

    def __init__(self, shell: Shell, top: bool, bench_degc: float, firm_degc: float, fine: int) -> None:
        slices = list(_slices(shell, top, bench_degc, firm_degc))
        radius_mm = None if top else sum(one.thick_mm for one in slices)
        self.layers = Layers(slices, radius_mm, fine)
        self.lies = shell.on_its_top and top
        worn = len(shell.top if top else shell.side)
        self.depths = 1, self.layers.ends[worn - 1] if worn else 1, self.layers.ends[worn]

    def cooling(self, air: Air, factor: float = 1.0) -> Cooling:
        """It in the cold, with a film that many times as strong as it should be."""
        film = min(air.film, ON_A_BOARD_FILM) if self.lies else air.film
        return Cooling(self.layers, Air(air.degc, factor * film))

    def warming(self, cold: Air, minutes: float, bench: Air) -> Array:
        """The temperature of its face on the bench, °C, once it has been in the cold for some minutes."""
        return Cooling(self.layers, bench, self.cooling(cold).cells(minutes)).face()


def _slices(shell: Shell, top: bool, bench_degc: float, firm_degc: float) -> Iterator[Slice]:
    """The layers of the side or the top, from the air to the axis or the board. What was spread just now is as warm as
    the kitchen, and so is cake that has no firm coat yet, up to `CAKE_DEGC`; what was firmed before is just firm.
    """
    worn, just_firm = shell.top if top else shell.side, min(bench_degc, firm_degc)
    warm_degc = max(bench_degc, firm_degc)
    for one in worn:
        food = material(one.composition, one.density_g_per_ml, warm_degc, firm_degc)
        yield Slice(one.thick_mm, food, bench_degc if one.fresh else just_firm)
    cake = material(shell.cake, shell.cake_g_per_ml, warm_degc, firm_degc)
    cake_degc = min(bench_degc, CAKE_DEGC) if all(one.fresh for one in worn) else just_firm
    yield Slice(LIFT_MM, cake, cake_degc)
    yield Slice(max(1.0, (shell.height_mm if top else shell.radius_mm) - LIFT_MM), cake, cake_degc)


def _stays(faces: Sequence[_Face], cold: Air, bench: Air, after_min: float, soft_degc: float) -> float:
    """Minutes on the bench until the top edge dents, from the moment the tier can be lifted."""
    if bench.degc <= soft_degc or not math.isfinite(after_min):
        return math.inf
    side, top = (bench.degc - face.warming(cold, after_min, bench) for face in faces)
    edge = max(side[0], top[0]) * (side / side[0]) * (top / top[0])
    soft = np.flatnonzero(edge <= bench.degc - soft_degc)
    return float(TIMES_MIN[soft[0]]) if len(soft) else math.inf
