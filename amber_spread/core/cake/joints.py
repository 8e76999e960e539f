"""The joints of a cake: what every upper tier, and every board inside one, stands on.

How many supports, of what length, exactly where, what each carries, when it would tip, the glue under each board and
the bead along each joint. Lengths in mm, weights in g, angles in degrees.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from functools import lru_cache
from typing import Literal, NamedTuple

from amber_spread.core.cake.glue import Held, board_outline, hidden_outline
from amber_spread.core.cake.heights import height_at
from amber_spread.core.cake.levels import Mass, Place, gap_between, standing_on, together
from amber_spread.core.cake.loads import pressure, push_held, shares_of, sinks, spare, tilt, tip_angle
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.design.stands import PillarsStand, RiserStand, School, StackedStand
from amber_spread.core.geometry.outline import Outline, Point, Round
from amber_spread.core.geometry.places import (
    Ground,
    Hole,
    Spread,
    Within,
    edge_distance,
    hull_distance,
    hull_of,
    hull_width,
    inside_edge,
    least_apart,
    looked_over,
    spread,
)
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Kept, Made, Same
from amber_spread.core.kernel.check import Said, grams, mm, say
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, decided, rule, same, total
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.supports import SORTS, Support, SupportSort, support_of
from amber_spread.core.tier import (
    Worked,
    one_fewer,
    supports_by_inches,
    supports_by_load,
    supports_in_band,
)

RIM_MM = 3.0
"""So much is left between a support and any edge or hole (from memory)."""
BETWEEN_MM = 2.0
"""So much cake is left between two supports at least (from memory)."""
FLUSH_MM = 1.0
"""A support that stands out of the coat by less is flush: the coat takes it up (common practice)."""
Why = Literal["school", "most", "decided", "free"]
MOST = int(limits.SUPPORTS.high)
"""No more supports are set under one tier."""
KEPT = 256
"""So many joints are kept, the ones asked for last."""
SCHOOLS: tuple[School, ...] = ("inches", "band", "load")
"""The schools, in the order in which one is taken where two ask for the same."""
STANDS = StackedStand | PillarsStand | RiserStand


class SupportPlan(Made):
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


class Obstacle(Made):
    """A round place that supports keep out of, seen from above."""

    what: str
    x: float
    y: float
    radius: float


class JointPlan(Made):
    """What one board stands on. `inside` is one within the tier, under its hidden board.

    `schools` are the supports by each rule, `why` how the number was taken, `taken` the school where it was one.
    `holds` is whether they hold it without pulling; `edge` the tilt at which its weight passes the edge of its foot,
    `leans` that at which it passes the outermost supports; `push` the hardest push to the side that does not tip it.
    """

    tier: int
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


@rule(
    "stack.support_length", unit="mm", formula="level - foot + gap", source=COMMON_PRACTICE,
    words="From what it stands on, the board of the tier below or the one inside it, to the finished top there, coat "
    "and cover included; a pillar goes on up to the next tier.",
)  # fmt: skip
def support_length(level_mm: float, foot_mm: float, gap_mm: float) -> float:
    """Length of a support, mm: finished height of the tier below - what it stands on + gap above. Source: common
    practice (cut flush with the finished top).

    >>> support_length(110, 0, 0)
    110
    """
    return level_mm - foot_mm + gap_mm


class Above(NamedTuple):
    """All that stands above a joint: its parts by name, and all of it as one."""

    parts: tuple[tuple[str, float], ...]
    whole: Mass


class Bearing(NamedTuple):
    """A board and what it stands on: its edge and its foot, the ground for its supports, from `stands_on_mm` to
    `height_mm` up the tier they stand in, what lies above, and how high the tier is at a spot.

    `place` is that of the tier it carries, `plane_mm` the height above the table of what its supports reach.
    """

    number: int
    inside: bool
    stand: STANDS
    board: Outline
    foot: Outline
    lower: Outline
    ground: Ground
    stands_on_mm: float
    height_mm: float
    plane_mm: float
    place: Place
    above: Above
    gap: Figure
    surface: Callable[[Point], float]


class Standings(NamedTuple):
    """A cake put together, bottom first: its tiers, where each stands, what holds it, and what weighs by name.

    `dowel_mm` is how thick the centre dowel is, None where there is none.
    """

    worked: Sequence[Worked]
    places: Sequence[Place]
    held: Sequence[Held]
    masses: Sequence[dict[str, Mass]]
    dowel_mm: float | None


def plan_joints(cake: SettledDesign, stood: Standings, owned: Sequence[Support]) -> dict[str, JointPlan]:
    """Every joint of a cake, bottom first; `owned` are the supports this kitchen keeps."""
    kitchen = Same(_first_like(Kitchen(cake.usual, tuple(owned), cake.asked.stacking.driven, stood.dowel_mm)))
    joints: dict[str, JointPlan] = {}
    for index, (done, place, held) in enumerate(zip(stood.worked, stood.places, stood.held, strict=True)):
        upper, bead = Same(done), Same(held)
        if index:
            lower, under = stood.worked[index - 1], stood.places[index - 1]
            on = On(Same(lower), (place.x - under.x, place.y - under.y), standing_on(lower, done, cake))
            above = _above(stood.masses, index)
            joints[f"tier_{index + 1}"] = _joint(index + 1, upper, bead, on, place, above, kitchen)
        if done.layers.board is not None:
            above = _above(stood.masses, index + 1)
            joints[f"inside_{index + 1}"] = _joint(index + 1, upper, bead, None, place, above, kitchen)
    return Kept(joints)


class Kitchen(NamedTuple):
    """What of the kitchen and of the order a joint goes by: its usual, its supports, whether it is driven stacked,
    and how thick the centre dowel is, None where there is none.
    """

    usual: Practice
    owned: tuple[Support, ...]
    driven: bool
    dowel_mm: float | None


class On(NamedTuple):
    """The tier below: as it is worked, how far the one above stands off its middle, and how high it is there."""

    lower: Same[Worked]
    off: Point
    height_mm: float


@lru_cache(maxsize=16)
def _first_like(kitchen: Kitchen) -> Kitchen:
    """The first of equal kitchens: every request brings one of its own, and telling them apart takes long."""
    return kitchen


@lru_cache(maxsize=KEPT)
def _joint(
    number: int,
    upper: Same[Worked],
    held: Same[Held],
    on: On | None,
    place: Place,
    above: Above,
    kitchen: Same[Kitchen],
) -> JointPlan:
    """The joint below a tier, or where `on` is None that inside it; the same where nothing about it changed."""
    if on is None:
        bearing, name = _within_tier(kitchen.one, upper.one, place, number, above), f"inside_{number}"
    else:
        bearing, name = _between(kitchen.one, upper.one, on, place, number, above), f"tier_{number}"
    return named(_planned(kitchen.one, upper.one, held.one, bearing), f"stack.joints.{name}")


def forget_joints() -> None:
    """Keep no joint any longer, so that the next is worked from nothing."""
    _joint.cache_clear()
    spread.cache_clear()


def _above(masses: Sequence[dict[str, Mass]], index: int) -> Above:
    parts = {name: mass for tier in masses[index:] for name, mass in tier.items()}
    return Above(tuple((name, mass.weight_g) for name, mass in parts.items()), together(list(parts.values())))


def _between(kitchen: Kitchen, upper: Worked, on: On, place: Place, number: int, above: Above) -> Bearing:
    """What a tier stands on: the one below it."""
    lower, stand, board = on.lower.one, upper.tier.asked.stand, board_outline(upper.stands)
    away, top = (-on.off[0], -on.off[1]), lower.stands.top or lower.stands.outline
    within = [Within("board", board), Within("top", top, away)]
    if lower.stands.foot.area_mm2 < top.area_mm2 - 1.0:
        within.append(Within("foot", lower.stands.foot, away))
    stands_on = 0.0
    if lower.layers.board is not None:
        within.append(Within("inside", hidden_outline(lower, lower.layers.board), away))
        stands_on = lower.layers.board.height.value + lower.layers.board.thickness.value
    return Bearing(
        number=number,
        inside=False,
        stand=stand,
        board=board,
        foot=upper.stands.foot if isinstance(stand, StackedStand) else board,
        lower=top,
        ground=Ground(tuple(within), _holes(lower, kitchen.dowel_mm, away, place, False), 0.0, RIM_MM),
        stands_on_mm=stands_on,
        height_mm=on.height_mm,
        plane_mm=place.level_mm,
        place=place,
        above=above,
        gap=gap_between(upper.tier),
        surface=lambda spot: height_at(lower, spot[0] - away[0], spot[1] - away[1]),
    )


def _within_tier(kitchen: Kitchen, done: Worked, place: Place, number: int, above: Above) -> Bearing:
    """What the board hidden in a tier stands on: everything above it in the tier, and above the tier, on it."""
    hidden = done.layers.board
    assert hidden is not None
    board, body, high = hidden_outline(done, hidden), done.bodies.covered, hidden.height.value
    share = body.volume_between(high + hidden.thickness.value, body.foot_mm + body.height_mm) / body.volume_ml
    own = sum(weight for _, weight in done.weights) * share
    card = board.area_mm2 * hidden.thickness.value / 1000 * kitchen.usual.board_g_per_ml
    parts = (f"tier {number}, above its board", own), (f"board inside tier {number}", card)
    middle = (place.foot_mm + high + place.top_mm) / 2
    mass = together([Mass(own + card, place.x, place.y, middle), above.whole])
    within = (Within("board", board), Within("foot", done.stands.foot))
    return Bearing(
        number=number,
        inside=True,
        stand=StackedStand(sort=done.tier.asked.stand.sort),
        board=board,
        foot=board,
        lower=done.stands.outline,
        ground=Ground(within, _holes(done, kitchen.dowel_mm, (0.0, 0.0), place, True), 0.0, RIM_MM),
        stands_on_mm=0.0,
        height_mm=high,
        plane_mm=place.foot_mm + high,
        place=place,
        above=Above((*parts, *above.parts), mass),
        gap=same("flush, no gap", 0.0, "mm"),
        surface=lambda _: high,
    )


def _holes(done: Worked, dowel_mm: float | None, away: Point, place: Place, inside: bool) -> tuple[Hole, ...]:
    """What supports through a tier keep out of: the centre dowel, over the base's middle, and a hidden room."""
    found = []
    if dowel_mm is not None:
        found.append(Hole("dowel", (-place.x, -place.y), dowel_mm / 2))
    cavity, board = done.layers.cavity, done.tier.asked.layers.board_after
    if cavity is not None and (board is None or (cavity.last <= board if inside else cavity.first > board)):
        found.append(Hole("cavity", away, cavity.diameter.value / 2))
    return tuple(found)


def _schools(
    kitchen: Kitchen, bearing: Bearing, support: Support
) -> tuple[dict[str, Figure], Why, School | None, Figure]:
    """The supports by each rule; why and by which their number was taken, and that number."""
    stand, across_mm = bearing.stand, 2 * max(bearing.board.half_width_mm, bearing.board.half_length_mm)
    load, factor = bearing.above.whole.weight_g, kitchen.usual.support_factor
    schools = {
        "inches": supports_by_inches.figure(across_mm),
        "band": supports_in_band.figure(across_mm),
        "load": supports_by_load.figure(load, support.bears_g, factor),
    }
    if stand.places == "free":
        return schools, "free", None, same("supports set one by one", len(stand.points_mm), "each")
    if stand.count is not None:
        return schools, "decided", None, decided(stand.count, "each")
    if bearing.inside:
        # Common practice: four pieces under the 6 in board of a 7 in tier, unless the load asks for more.
        taken: School = "load" if schools["load"].value > schools["band"].value else "band"
        why: Why = "most"
    elif stand.school is not None:
        why = "school"
        taken = stand.school
    else:
        why, taken = "most", max(SCHOOLS, key=lambda one: schools[one].value)
    count = schools[taken]
    if count.value > MOST:
        return schools, why, None, same("as many as are ever set; the load asks for stronger ones", MOST, "each")
    if stand.fewer and not kitchen.driven:
        count = one_fewer.figure(count.value)
    return schools, why, taken, count


def _spread(
    bearing: Bearing, ground: Ground, count: int, tier: SettledTier
) -> tuple[Spread, list[str | None], list[Point | None]]:
    """Where the supports stand; of those set one by one, what is in the way of each and where it could stand."""
    stand = bearing.stand
    if stand.places == "free":
        points = stand.points_mm
        seen = looked_over(ground, points, 2 * ground.radius_mm + BETWEEN_MM)
        spots = Spread(points, inside_edge(bearing.board, points), least_apart(points))
        return spots, [one and one.what for one in seen], [one and one.nearest for one in seen]
    inset, apart = tier.settled(stand, "inset_mm").value, tier.settled(stand, "apart_mm").value
    found = spread(ground, count, inset, apart, stand.places == "ring")
    return found, [None] * len(found.points), [None] * len(found.points)


def _planned(kitchen: Kitchen, done: Worked, held: Held, bearing: Bearing) -> JointPlan:
    """A joint, its supports set and loaded."""
    tier, stand, usual = done.tier, bearing.stand, kitchen.usual
    support = support_of(stand.sort, kitchen.owned)
    ground = bearing.ground._replace(radius_mm=support.across_mm / 2)
    schools, why, taken, count = _schools(kitchen, bearing, support)
    wanted = tier.settled(stand, "inset_mm").value, tier.settled(stand, "apart_mm").value
    spots, refused, nearest = _spread(bearing, ground, int(count.value), tier)
    mass, place = bearing.above.whole, bearing.place
    at, up_mm = (mass.x - place.x, mass.y - place.y), mass.up - bearing.plane_mm
    forces = shares_of(spots.points, mass.weight_g, at) if spots.points else None
    through = bearing.gap.value if isinstance(stand, PillarsStand) else 0.0
    length = support_length.figure(bearing.height_mm, bearing.stands_on_mm, through)
    carried = forces or [0.0] * len(spots.points)
    hull = hull_of(spots.points)
    edge_mm, hull_mm = _edge(bearing.foot, at), hull_distance(hull, at) if hull else 0.0
    bead = None if bearing.inside else held.bead
    pressed = pressure.figure(mass.weight_g, bearing.board.area_mm2)
    words = SORTS[stand.sort]
    return JointPlan(
        tier=bearing.number,
        inside=bearing.inside,
        kind=stand.kind,
        sort=stand.sort,
        one=words.one,
        many=words.many,
        across=same("width of one", support.across_mm, "mm"),
        stock=same("length it is sold in", support.length_mm, "mm"),
        bears=same("tested here" if support.tested else "from memory", support.bears_g, "g", "down"),
        tested=support.tested,
        schools=schools,
        why=why,
        taken=taken,
        count=count,
        length=length,
        gap=bearing.gap,
        level=same("height of what the supports reach", bearing.plane_mm, "mm"),
        supports={
            f"support_{number}": SupportPlan(
                x=round(x, 2),
                y=round(y, 2),
                carries=same("its share of the load", force, "g"),
                out=_out(bearing, (x, y)),
                refused=what,
                nearest=None if spot is None else (round(spot[0], 1), round(spot[1], 1)),
            )
            for number, ((x, y), force, what, spot) in enumerate(
                zip(spots.points, carried, refused, nearest, strict=True), 1
            )
        },
        holds=forces is not None,
        inset=same("from the board's edge to the outermost", spots.inset_mm, "mm"),
        apart=same("from the middle of one to the next", spots.apart_mm, "mm"),
        load=total(dict(bearing.above.parts), "g"),
        spare=spare.figure(support.bears_g, max(carried)) if forces and max(carried) > 0 else None,
        pressure=pressed,
        sinks=sinks.figure(pressed.value, usual.cake_bears_g_per_cm2),
        middle_up=same("height of the middle of the weight", up_mm, "mm"),
        edge=tip_angle.figure(edge_mm, up_mm),
        leans=tip_angle.figure(max(0.0, hull_mm), up_mm),
        push=push_held.figure(edge_mm, up_mm),
        tilt=tilt.figure(usual.cut_error_mm, max(1.0, hull_width(hull))),
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
        told=list(_told(kitchen, bearing, spots, wanted, why, len({one.value for one in schools.values()}) > 1)),
    )  # fmt: skip


def _out(bearing: Bearing, spot: Point) -> Figure | None:
    """How far a support at a spot stands out of the coat; None where it is flush."""
    out_mm = bearing.height_mm - bearing.surface(spot)
    return same("out of the coat at this spot", out_mm, "mm", "up") if out_mm > FLUSH_MM else None


def most_out(joint: JointPlan) -> float:
    """How far the worst of its supports stands out of the coat, mm."""
    return max((one.out.value for one in joint.supports.values() if one.out is not None), default=0.0)


def _told(
    kitchen: Kitchen, bearing: Bearing, spots: Spread, wanted: tuple[float, float], why: Why, differ: bool
) -> Iterator[Said]:
    """Why the supports are so many and stand where they do, where a rule cannot be kept to."""
    stand, (inset, apart), many = bearing.stand, wanted, len(spots.points)
    if not many:
        return
    if why == "most" and not bearing.inside and differ:
        yield say("Where the rules differ, the one that asks for most is taken.")
    if bearing.inside:
        yield say("Inside a tier three to six are enough, unless the load asks for more.")
    if stand.fewer and not bearing.inside:
        if kitchen.driven:
            yield say("None is left out, since the cake is driven.")
        elif why in ("most", "school"):
            share = bearing.above.whole.weight_g / many - bearing.above.whole.weight_g / (many + 1)
            yield say(
                "One is left out, since it is not driven: each of the others carries {more} more.", more=grams(share)
            )
    if why == "free":
        return
    if spots.apart_mm < apart - 0.5:
        yield say(
            "There is room for {found} between them, not for {wanted}: they stand as far apart as the edge allows.",
            found=mm(spots.apart_mm), wanted=mm(apart),
        )  # fmt: skip
    elif spots.inset_mm < inset - 0.5:
        yield say(
            f"{many} supports {{apart}} apart lie {{found}} inside the edge: there is no room for {{wanted}}.",
            apart=mm(spots.apart_mm), found=mm(spots.inset_mm), wanted=mm(inset),
        )  # fmt: skip


def _edge(foot: Outline, at: Point) -> float:
    """How far a place lies inside the edge of a foot, as it would tip over it; below 0 outside."""
    if isinstance(foot, Round):
        return foot.radius_mm - math.hypot(*at)
    return edge_distance(tuple(foot.points), at)


@lru_cache(maxsize=256)
def _drawn(outline: Outline, middle: Point = (0.0, 0.0)) -> tuple[Point, ...]:
    right, back = middle
    return tuple([(round(x + right, 1), round(y + back, 1)) for x, y in outline.points])
