"""What stands on what: weights above a joint, how supports share them, what cake would bear alone, and when it tips."""

import math
from collections.abc import Sequence

import numpy

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel.figures import COMMON_PRACTICE, FROM_MEMORY, rule

GRAVITY = 9.81
"""m/s² (published: ISO 80000-3, standard acceleration of free fall 9.80665, rounded)."""
WOOD_MPA = 15.0
"""The bending stress a wooden dowel is let bear: a quarter of what breaks hardwood (from memory)."""
LIFTED_G = 10_000.0
"""What one person lifts and carries level without help (common practice; local rules on lifting decide)."""


@rule(
    "stack.sinks",
    unit="ratio",
    formula="pressure / bears",
    source=FROM_MEMORY,
    rounding="up",
    words="That pressure, held against what this kitchen takes cake to bear by itself. Above 1 the tier sinks in.",
)
def sinks(pressure_g_per_cm2: float, bears_g_per_cm2: float) -> float:
    """How many times what cake bears: pressure / bears. What it bears is from memory.

    >>> round(sinks(13.6, 8), 2)
    1.7
    """
    return pressure_g_per_cm2 / bears_g_per_cm2


@rule(
    "stack.spare",
    unit="ratio",
    formula="bears / most",
    rounding="down",
    words="What one support bears, held against what the most loaded one carries.",
)
def spare(bears_g: float, most_g: float) -> float:
    """How many times its load the most loaded support bears. Source: definition.

    >>> round(spare(4000, 480), 2)
    8.33
    """
    return bears_g / most_g


@rule(
    "stack.tip",
    unit="deg",
    formula="degrees(atan(edge / up))",
    rounding="down",
    words="How far it may be tipped before the middle of its weight passes over the nearest edge of what it stands on.",
)
def tip_angle(edge_mm: float, up_mm: float) -> float:
    """The angle of tipping, degrees: atan(distance of the edge / height of the middle of the weight). Source: statics.

    >>> round(tip_angle(75, 60), 1)
    51.3
    """
    return math.degrees(math.atan(edge_mm / up_mm))


@rule(
    "stack.push",
    unit="ratio",
    formula="edge / up",
    rounding="down",
    words="The hardest push to the side, as a share of its weight, that does not tip it.",
)
def push_held(edge_mm: float, up_mm: float) -> float:
    """The push to the side that just tips it, as a share of its weight: edge / height. Source: statics.

    >>> push_held(75, 60)
    1.25
    """
    return edge_mm / up_mm


@rule(
    "stack.tilt",
    unit="deg",
    formula="degrees(atan(out / across))",
    rounding="up",
    source=COMMON_PRACTICE,
    words="How far out of level it comes where one support is so much longer than the one across from it.",
)
def tilt(out_mm: float, across_mm: float) -> float:
    """Out of level, degrees: atan(difference / distance across). Source: geometry.

    >>> round(tilt(1, 60), 2)
    0.95
    """
    return math.degrees(math.atan(out_mm / across_mm))


@rule(
    "stack.dowel.across",
    unit="mm",
    formula="(32 * max(0, load / 1000 * 9.81 * (share * up - edge)) / (pi * 15)) ** (1 / 3)",
    source=FROM_MEMORY,
    rounding="up",
    words="A push to the side turns the stack about the edge of its foot, and its own weight holds it down. What is "
    "left the dowel has to take: as thick as bears that in bending, at a quarter of what breaks hardwood.",
)
def dowel_across(load_g: float, share: float, up_mm: float, edge_mm: float) -> float:
    """The least width of a dowel, mm: (32 M / (pi sigma))^(1/3), M = W g (share x height - edge) in N mm, never below
    0, sigma 15 N/mm².

    Source: published (bending of a round bar, section modulus pi d³ / 32, as in any handbook of mechanics; from
    memory); what the wood bears is from memory.

    >>> round(dowel_across(6000, 0.5, 200, 70), 1)
    10.6
    """
    moment = max(0.0, load_g / 1000 * GRAVITY * (share * up_mm - edge_mm))
    return float((32 * moment / (math.pi * WOOD_MPA)) ** (1 / 3))


@rule(
    "stack.people",
    unit="each",
    formula="ceil(weight / 10000)",
    source=COMMON_PRACTICE,
    rounding="up",
    words="One person for every 10 kg. Your local rules on lifting decide.",
)
def people(weight_g: float) -> float:
    """People to lift it: one for every 10 kg. Source: common practice.

    >>> people(12400)
    2
    """
    return math.ceil(weight_g / LIFTED_G)


def people_in_words(count: float) -> str:
    """So many people, in words up to four."""
    words = {1: "one person", 2: "two people", 3: "three people", 4: "four people"}
    return words.get(int(count), f"{count:.0f} people")


def shares_of(points: Sequence[Point], load_g: float, at: Point) -> list[float] | None:
    """What each support carries of a load at a place, g: a stiff board on supports that give alike and only push.

    The force of each that is pressed is linear in its place, F = a + b x + c y, so that forces and moments balance; of
    three supports that is the one solution. A support that would have to pull carries nothing. None
    where no push alone holds the load: it lies outside them all. Source: published (rigid plate on springs; statics,
    from memory).
    """
    if not points:
        return None
    forces = _balanced(points, load_g, at)
    if min(forces) < -1e-9 * load_g:
        forces = _pushed_only(points, load_g, at)
    return forces if _holds(points, forces, load_g, at) else None


def _holds(points: Sequence[Point], forces: Sequence[float], load_g: float, at: Point) -> bool:
    """Whether forces only push, and balance a load with its moments."""
    far = max(1.0, abs(at[0]), abs(at[1]))
    moments = (
        sum(forces) - load_g,
        (sum([force * x for force, (x, _) in zip(forces, points, strict=True)]) - load_g * at[0]) / far,
        (sum([force * y for force, (_, y) in zip(forces, points, strict=True)]) - load_g * at[1]) / far,
    )
    return min(forces) >= -1e-9 * load_g and max(map(abs, moments)) <= 2e-6 * max(1.0, load_g)


def _pushed_only(points: Sequence[Point], load_g: float, at: Point) -> list[float]:
    """The forces of least sum of squares that balance a load and only push; where no pushes can, they do not balance.

    With F = F0 + N z, F0 the balanced forces of least squares and N z any that balance nothing, z is the shortest with
    N z >= -F0. Source: published (least distance programming: Lawson and Hanson, Solving Least Squares Problems, 1974,
    chapter 23; from memory).
    """
    from scipy.optimize import nnls

    spots = numpy.array([*points, at])
    spots = (spots - spots[:-1].mean(axis=0)) / max(1.0, float(numpy.ptp(spots[:-1], axis=0).max()))
    rows, wanted = numpy.vstack([numpy.ones(len(points)), spots[:-1].T]), numpy.array([1.0, *spots[-1]])
    _, sizes, free = numpy.linalg.svd(rows)
    free = free[int((sizes > 1e-9 * sizes[0]).sum()) :].T
    balanced = numpy.linalg.lstsq(rows, wanted, rcond=1e-9)[0]
    goal = numpy.append(numpy.zeros(free.shape[1]), 1.0)
    system = numpy.vstack([free.T, -balanced])
    short = system @ nnls(system, goal)[0] - goal
    if short[-1] > -1e-12:
        return [-1.0] * len(points)
    forces = balanced + free @ (short[:-1] / -short[-1])
    return [float(force) * load_g for force in numpy.where(abs(forces) < 1e-7, 0.0, forces)]


def _balanced(spots: Sequence[Point], load_g: float, at: Point) -> list[float]:
    """Forces linear in their place that balance a load as nearly as they can, about the middle of the places."""
    count = len(spots)
    middle_x, middle_y = sum([x for x, _ in spots]) / count, sum([y for _, y in spots]) / count
    own = [(x - middle_x, y - middle_y) for x, y in spots]
    xx, xy, yy = sum([x * x for x, _ in own]), sum([x * y for x, y in own]), sum([y * y for _, y in own])
    out_x, out_y = load_g * (at[0] - middle_x), load_g * (at[1] - middle_y)
    spread = xx * yy - xy * xy
    if spread > 1e-9 * (xx + yy) ** 2:
        b, c = (out_x * yy - out_y * xy) / spread, (out_y * xx - out_x * xy) / spread
    elif xx + yy > 1e-9:
        # All on one line: forces differ along it alone.
        along = (out_x * xx + out_y * xy, out_x * xy + out_y * yy)
        b, c = along[0] / (xx + yy) ** 2, along[1] / (xx + yy) ** 2
    else:
        b = c = 0.0
    return [load_g / count + b * x + c * y for x, y in own]
