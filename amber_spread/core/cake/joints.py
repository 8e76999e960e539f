"""The joints of a cake: what every upper tier, and every board inside one, stands on.

How many supports, of what length, exactly where, what each carries, when it would tip, the glue under each board and
the bead along each joint. Lengths in mm, weights in g, angles in degrees.
"""

from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import Literal

import numpy
from shapely.geometry.base import BaseGeometry

from amber_spread.core.cake.bearing import (
    Above,
    Bearing,
    Below,
    Inside,
    Kitchen,
    bearing_below,
    bearing_inside,
)
from amber_spread.core.cake.counts import Counted, Why, counted, supports_by_load
from amber_spread.core.cake.glue import Held
from amber_spread.core.cake.levels import Place, PlacedTier
from amber_spread.core.cake.loads import push_held, shares_of, sinks, spare, tilt, tip_angle
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.design.stands import School, Stand
from amber_spread.core.geometry.flat.outline import Outline, Point
from amber_spread.core.geometry.flat.places import (
    Refused,
    Spread,
    SupportArea,
    hull_distance,
    hull_of,
    hull_width,
    inside_edge,
    keeps_in,
    least_apart,
    looked_over,
    place_supports,
)
from amber_spread.core.kernel.base import FrozenDict, Interned, PlanPart, interned
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.check import Said, grams, mm, say
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, carry_over, rule, total
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.supports import SORTS, Support, SupportSort, support_of
from amber_spread.core.tier import PlannedTier, pressure

BETWEEN_MM = 2.0
"""So much cake is left between two supports at least (from memory)."""
FLUSH_MM = 1.0
"""A support that stands out of the coat by less is flush: the coat takes it up (common practice)."""


class SupportPlan(PlanPart):
    """One support: its place about the middle of the tier it carries, x to the right and y to the back, what it
    carries, and how far it stands out of the coat at that spot, None where it is flush. All of a joint are cut alike.

    `refused` says what is in the way of one that was set there, `nearest` where it could stand.
    """

    x: float
    y: float
    carries: Figure
    out: Figure | None = None
    refused: str | None = None
    nearest: Point | None = None


class Obstacle(PlanPart):
    """A round place that supports keep out of, seen from above."""

    what: str
    x: float
    y: float
    radius: float


class Stronger(PlanPart):
    """A sort of support of which fewer are enough: what several are called, and how many it takes."""

    sort: SupportSort
    many: str
    count: int


class JointPlan(PlanPart):
    """What one board stands on. `inside` is one within the tier, under its hidden board.

    `schools` are the supports by each rule, `why` how the number was taken, `taken` the school where it was one.
    `holds` is whether they hold it without pulling; `inward` how far its balance point lies inside the edge it tips
    over, which is where its board and the flat top below overlap (below 0: it tips by itself); `edge` the tilt at which
    the balance point passes that edge, `leans` that at which it passes the outermost supports that carry; `push` the
    hardest push to the side that does not tip it.
    """

    tier: int
    tier_id: str
    inside: bool
    kind: Literal["stacked", "pillars", "riser"]
    sort: SupportSort
    one: str
    many: str
    across: Figure
    stock: Figure
    bears: Figure
    tested: bool
    schools: dict[str, Figure]
    why: Why
    taken: School | None
    count: Figure
    stronger: Stronger | None
    length: Figure
    gap: Figure
    level: Figure
    supports: dict[str, SupportPlan]
    holds: bool
    inset: Figure
    apart: Figure
    load: Figure
    spare: Figure | None
    pressure: Figure
    sinks: Figure
    middle_up: Figure
    inward: Figure
    edge: Figure
    leans: Figure
    push: Figure
    tilt: Figure
    bead: Figure | None
    bead_length: Figure | None
    bead_weight: Figure | None
    off_x: float
    off_y: float
    board: list[Point]
    below: list[Point]
    keep_out: list[Obstacle]
    told: list[Said] = []

    @cached_property
    def path(self) -> str:
        """Its path in the plan."""
        return f"stack.joints.{'inside' if self.inside else 'tier'}_{self.tier_id}"

    @cached_property
    def where(self) -> str:
        """Where it is, in words."""
        return f"{'inside' if self.inside else 'under'} tier {self.tier}"


@rule(
    "stack.support_length",
    unit="mm",
    formula="level - foot + gap",
    source=COMMON_PRACTICE,
    words="From what it stands on, the board of the tier below or the one inside it, to the finished top there, coat "
    "and cover included; a pillar goes on up to the next tier.",
)
def support_length(level_mm: float, foot_mm: float, gap_mm: float) -> float:
    """Length of a support, mm: finished height of the tier below - what it stands on + gap above. Source: common
    practice (cut flush with the finished top).

    >>> support_length(110, 0, 0)
    110
    """
    return level_mm - foot_mm + gap_mm


def plan_joints(
    cake: SettledDesign,
    stood: Sequence[PlacedTier],
    above: Sequence[Above],
    owned: Sequence[Support],
    dowel_mm: float | None,
) -> dict[str, JointPlan]:
    """Every joint of a cake, bottom first; `above` is what stands from each tier up, and nothing at last, `owned` the
    supports this kitchen keeps, `dowel_mm` how thick the centre dowel is, None where there is none.
    """
    kitchen = interned(Kitchen(cake.usual, tuple(owned), cake.asked.stacking.driven, dowel_mm))
    joints: dict[str, JointPlan] = {}
    for index, one in enumerate(stood):
        done, place, tier = one.done, one.place, (one.number, one.done, one.place, one.held)
        if index:
            under = stood[index - 1]
            off = place.x - under.place.x, place.y - under.place.y
            on = Below(under.done, off, under.carries_at_mm)
            joints[f"tier_{done.id}"] = _joint(*tier, on, above[index], kitchen)
        if done.hidden_edge is not None:
            inside = Inside(one.less_g)
            joints[f"inside_{done.id}"] = _joint(*tier, inside, above[one.number], kitchen)
    return FrozenDict(joints)


@cached(TIERS)
def _joint(
    number: int,
    done: PlannedTier,
    place: Place,
    held: Held,
    on: Below | Inside,
    above: Above,
    kitchen: Interned[Kitchen],
) -> JointPlan:
    """The joint below a tier, or that inside it; the same where nothing about it changed."""
    if isinstance(on, Inside):
        bearing = bearing_inside(kitchen.value, done, on, place, number, above)
    else:
        bearing = bearing_below(kitchen.value, done, on, place, number, above)
    found = _planned(kitchen.value, done, held, bearing)
    return named(found, found.path)


def _spread(
    stand: Stand, ground: SupportArea, count: int, inset_mm: float, apart_mm: float
) -> tuple[Spread, list[Refused | None]]:
    """Where the supports stand; of those set one by one, what is in the way of each and where it could stand."""
    if stand.places == "free":
        points = stand.points_mm
        spots = Spread(points, inside_edge(ground.within[0].outline, points), least_apart(points))
        return spots, looked_over(ground, points, 2 * ground.radius_mm + BETWEEN_MM)
    found = place_supports(ground, count, inset_mm, apart_mm, stand.places == "ring")
    return found, [None] * len(found.points)


def _planned(kitchen: Kitchen, done: PlannedTier, held: Held, bearing: Bearing) -> JointPlan:
    """A joint, its supports set and loaded."""
    tier, stand, usual = done.tier, bearing.stand, kitchen.usual
    support = support_of(stand.sort, kitchen.owned)
    ground = bearing.ground._replace(radius_mm=support.across_mm / 2)
    taken = counted(kitchen, bearing, support)
    wanted = tier.settled(stand, "inset_mm").value, tier.settled(stand, "apart_mm").value
    spots, refused = _spread(stand, ground, int(taken.number.value), *wanted)
    mass, place = bearing.above.whole, bearing.place
    at, up_mm = (mass.x - place.x, mass.y - place.y), mass.up - bearing.plane_mm
    under, forces = spots.points, None
    if stand.places == "free":
        under, forces = _carrying(ground, under, mass.weight_g, at)
    elif under:
        forces = shares_of(under, mass.weight_g, at)
    through = bearing.gap.value if stand.through else 0.0
    length = support_length.figure(bearing.height_mm, bearing.stands_on_mm, through)
    carried = forces or [0.0] * len(spots.points)
    hull, hull_wide_mm = _footing(under)
    hull_mm = hull_distance(hull, at) if under else 0.0
    inward_mm = hull_mm if bearing.inward_mm is None else bearing.inward_mm
    edge_mm, hull_mm = max(0.0, inward_mm), max(0.0, hull_mm)
    bead = None if bearing.inside else held.bead
    pressed = pressure.figure(mass.weight_g, bearing.board.area_mm2)
    words = SORTS[stand.sort]
    return JointPlan(
        tier=bearing.number,
        tier_id=tier.asked.id,
        inside=bearing.inside,
        kind=stand.kind,
        sort=stand.sort,
        one=words.one,
        many=words.many,
        across=carry_over("width of one", support.across_mm, "mm"),
        stock=carry_over("length it is sold in", support.length_mm, "mm"),
        bears=carry_over("tested here" if support.tested else "from memory", support.bears_g, "g", "down"),
        tested=support.tested,
        schools=taken.schools,
        why=taken.why,
        taken=taken.taken,
        count=taken.number,
        stronger=_stronger(kitchen, bearing, support, taken),
        length=length,
        gap=bearing.gap,
        level=carry_over("height of what the supports reach", bearing.plane_mm, "mm"),
        supports={
            f"support_{at}": SupportPlan(
                x=round(x, 2),
                y=round(y, 2),
                carries=carry_over("its share of the load", force, "g"),
                out=out,
                refused=no and no.what,
                nearest=no and no.nearest and (round(no.nearest[0], 1), round(no.nearest[1], 1)),
            )
            for at, ((x, y), force, no, out) in enumerate(
                zip(spots.points, carried, refused, _out(bearing, spots.points), strict=True), 1
            )
        },
        holds=forces is not None,
        inset=carry_over("from the board's edge to the outermost", spots.inset_mm, "mm"),
        apart=carry_over("from the middle of one to the next", spots.apart_mm, "mm"),
        load=total(dict(bearing.above.parts), "g"),
        spare=spare.figure(support.bears_g, max(carried)) if forces and max(carried) > 0 else None,
        pressure=pressed,
        sinks=sinks.figure(pressed.value, usual.cake_bears_g_per_cm2),
        middle_up=carry_over("height of the middle of the weight", up_mm, "mm"),
        inward=carry_over("balance point to the edge it tips over", inward_mm, "mm", "down"),
        edge=tip_angle.figure(edge_mm, up_mm),
        leans=tip_angle.figure(hull_mm, up_mm),
        push=push_held.figure(edge_mm, up_mm),
        tilt=tilt.figure(usual.cut_error_mm, max(1.0, hull_wide_mm)),
        bead=bead and bead.thick,
        bead_length=bead and bead.length,
        bead_weight=bead and bead.weight,
        off_x=stand.off_x_mm,
        off_y=stand.off_y_mm,
        board=list(_drawn(bearing.board)),
        below=list(_drawn(bearing.lower, ground.within[1].middle)),
        keep_out=[
            Obstacle(what=hole.what, x=round(hole.middle[0], 2), y=round(hole.middle[1], 2), radius=hole.radius_mm)
            for hole in ground.holes
        ],
        told=list(_told(kitchen, bearing, spots, wanted, taken)),
    )


@cached(TIERS)
def _footing(points: tuple[Point, ...]) -> tuple[BaseGeometry, float]:
    """The convex outline of the supports that carry, and its least width, mm. A load that grows mostly leaves them."""
    hull = hull_of(points)
    return hull, hull_width(hull)


def _carrying(
    ground: SupportArea, points: Sequence[Point], load_g: float, at: Point
) -> tuple[tuple[Point, ...], list[float] | None]:
    """The supports that stand under the board and in the tier below, which alone carry; and what each one carries."""
    under = tuple(point for point in points if all(keeps_in(edge, 0.0, [point]) for edge in ground.within[:2]))
    shares = shares_of(under, load_g, at)
    if shares is None:
        return under, None
    by_place = dict(zip(under, shares, strict=True))
    return under, [by_place.get(point, 0.0) for point in points]


def _stronger(kitchen: Kitchen, bearing: Bearing, support: Support, taken: Counted) -> Stronger | None:
    """The weakest sort of which no more are needed than the width of the tier asks for; None where these are enough."""
    by_width = max(taken.schools["inches"].value, taken.schools["band"].value)
    if taken.why in ("free", "decided") or taken.schools["load"].value <= by_width:
        return None
    for sort, words in SORTS.items():
        other = support_of(sort, kitchen.owned)
        if other.bears_g > support.bears_g:
            by_load = supports_by_load(bearing.above.whole.weight_g, other.bears_g, kitchen.usual.support_factor)
            if by_load <= by_width:
                return Stronger(sort=sort, many=words.many, count=int(by_width))
    return None


def _out(bearing: Bearing, spots: Sequence[Point]) -> list[Figure | None]:
    """How far supports at these spots stand out of the coat; None where one is flush."""
    out = [bearing.height_mm - high_mm for high_mm in bearing.surface(spots)]
    return [carry_over("out of the coat at this spot", one, "mm", "up") if one > FLUSH_MM else None for one in out]


def most_out(joint: JointPlan) -> float:
    """How far the worst of its supports stands out of the coat, mm."""
    return max((one.out.value for one in joint.supports.values() if one.out is not None), default=0.0)


def _told(
    kitchen: Kitchen, bearing: Bearing, spots: Spread, wanted: tuple[float, float], taken: Counted
) -> Iterator[Said]:
    """Why the supports are so many and stand where they do, where a rule cannot be kept to."""
    stand, (inset, apart), many, why = bearing.stand, wanted, len(spots.points), taken.why
    if not many:
        return
    if why == "most" and not bearing.inside and taken.differ:
        yield say("Where the rules differ, the one that asks for most is taken.")
    if bearing.inside:
        yield say("Inside a tier three to six are enough, unless the load asks for more.")
    if stand.fewer and not bearing.inside:
        if kitchen.driven:
            yield say("None is left out, since the cake is driven.")
        elif taken.one_left_out:
            share = bearing.above.whole.weight_g / many - bearing.above.whole.weight_g / (many + 1)
            yield say(
                "One is left out, since it is not driven: each of the others carries {more} more.", more=grams(share)
            )
    if why == "free":
        return
    if spots.apart_mm < apart - 0.5:
        yield say(
            "There is room for {found} between them, not for {wanted}: they stand as far apart as the edge allows.",
            found=mm(spots.apart_mm),
            wanted=mm(apart),
        )
    elif spots.inset_mm < inset - 0.5:
        yield say(
            f"{many} supports {{apart}} apart lie {{found}} inside the edge: there is no room for {{wanted}}.",
            apart=mm(spots.apart_mm),
            found=mm(spots.inset_mm),
            wanted=mm(inset),
        )


@cached(TIERS)
def _drawn(outline: Outline, middle: Point = (0.0, 0.0)) -> tuple[Point, ...]:
    found: list[list[float]] = (numpy.asarray(outline.points) + middle).round(1).tolist()
    return tuple([(x, y) for x, y in found])
