"""Carving a tier to its views: what to cut every layer to, how far the knife moves up it, and what hangs over.

Layers lie flat, with the fillings between them, so each is cut to a template of its own before they are stacked, or
along it once they are; what the outline does between its two faces is then carved by eye, along the board of the view
from the side.
"""

import math
from collections.abc import Iterator, Mapping

from shapely import Point as Point2
from shapely import Polygon

from amber_spread.core.design.builds import Build, Carvable, CarvedBuild, JoinedBuild, ModelledBuild
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Envelopes
from amber_spread.core.geometry.bodies.meshed import FLAT, UPRIGHT, seen
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sliced import DRAWN_MM, Slice, rings_of, sliced
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.pieces import Piece, paper_of
from amber_spread.core.geometry.sheets.hollows import hollows_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import GEOMETRY, Figure, carry_over, decided, rule
from amber_spread.core.kernel.task import Task, hands_on
from amber_spread.core.tier.carve.boards import board_of, boards_of
from amber_spread.core.tier.carve.emptied import Emptied
from amber_spread.core.tier.carve.openings import OpeningPlan
from amber_spread.core.tier.carve.slice_papers import Emptying, Template, emptying_of, templates_of
from amber_spread.core.tier.carve.tasks import CARVE_TASKS, Carved, carving_tasks
from amber_spread.core.tier.coats.coats import CoatsPlan
from amber_spread.core.tier.layers.layers import LayersPlan
from amber_spread.core.tier.layers.slabs import Slab
from amber_spread.core.tier.mass import pressure

DOME_STEPS, DOME_ROUND = 12, 32
"""A dome is looked at in so many slices, each a circle of so many pieces a quarter."""


class EmptyingSeen(PlanPart):
    """The edges of what is cut out of a layer, at its lower and upper face, and all of it, a ring a part."""

    bottom: list[list[Point]]
    top: list[list[Point]]
    whole: list[list[Point]]


class SlicePlan(PlanPart):
    """One layer as it is carved: between which heights, how large at its widest, and what is left of it.

    `circle` is the least round it, `half_ball` the least half ball, `short` and `side` those of the least rectangle.
    `volume` is the cake in it and `filled` all that lies between it and the next, both without a hidden room.
    `moves` is the farthest its outline goes in or out between its two faces, `hangs` how far it reaches out beyond what
    it lies on. `whole` is all of it from above about the axis, `bottom` and `top` its faces, a ring a part; `cut_out`
    is what a hidden room and openings take out of it; `pieces` are its templates.
    """

    number: int
    low: Figure
    high: Figure
    wide: Figure
    long: Figure
    circle: Figure
    half_ball: Figure
    short: Figure
    side: Figure
    area: Figure
    girth: Figure
    volume: Figure
    filled: Figure | None
    moves: Figure
    hangs: Figure
    whole: list[list[Point]]
    bottom: list[list[Point]]
    top: list[list[Point]]
    cut_out: dict[str, EmptyingSeen]
    pieces: dict[str, Piece]


class SolidSeen(PlanPart):
    """One of the solids a tier is built of, where it lies: the middle of its foot about the axis and above the foot of
    the tier, and what is seen of it from the side and from above, a ring a part.
    """

    cut_out: bool
    place: tuple[float, float, float]
    side: list[list[Point]]
    above: list[list[Point]]


class MeshKept(PlanPart):
    """What is kept of a 3D file: so many triangles, in so many thousand bytes, no farther from it than `error`."""

    triangles: Figure
    size: Figure
    error: Figure


class DomePlan(PlanPart):
    """The dome left on the top layer: how high at its middle, and what of the carved body there it does not fill."""

    left: Figure
    missing: Figure


class NeckPlan(PlanPart):
    """Where a carved tier presses hardest on what is left of it: how far up, on how much, what lies above, and how hard
    that presses.
    """

    up: Figure
    area: Figure
    above: Figure
    pressed: Figure


class CarvingPlan(PlanPart):
    """A carved tier: its slices from the foot up, templates of its views from the side and the front, the tasks of
    carving it with their hands-on time, its openings, and what its coats would take by its surface alone.

    `foot` is its outline on the board, `flat_top` how much of its top is flat once it is covered, where a tier may
    stand. `neck` is the height that carries the highest pressure, `dome` the part of the top layer's dome that stays.
    A tier built of solids has `own_width`, the width they have at the sizes you gave them, and `solids`, where each
    lies at the size of the tier. `seen` is all of it from the side, `scored` the lines on it there; `kept` is about a
    3D file. `flat` is the share of its coated surface that a flat smoother reaches, `bent` the radius of one that
    reaches its hollows. `front_agrees` is how long the tin would have to be for the view from the front to agree with
    the one from the side, where there is one.
    """

    slices: dict[str, SlicePlan]
    view: Piece
    front: Piece
    tasks: list[Task]
    hands_on: Figure
    openings: dict[str, OpeningPlan]
    volume: Figure
    foot: Figure
    flat_top: Figure | None
    footprint: Figure
    neck: NeckPlan | None
    dome: DomePlan | None
    surface: Figure
    coats: Figure
    by_surface: Figure
    flat: Figure
    bent: Figure | None
    front_agrees: Figure | None
    own_width: Figure | None
    kept: MeshKept | None
    solids: list[SolidSeen]
    seen: list[list[Point]]
    scored: list[list[Point]]


@rule(
    "carve.by_surface",
    unit="ml",
    formula="surface * (crumb + final) / 1000",
    words="All of its surface, times both coats. What a coat takes differs: it runs together in hollows, and goes "
    "farther round over edges.",
)
def by_surface(surface_mm2: float, crumb_mm: float, final_mm: float) -> float:
    """What coats of a carved body would take by its surface, ml: surface x thickness. Source: geometry.

    >>> by_surface(100000, 2, 6)
    800.0
    """
    return surface_mm2 * (crumb_mm + final_mm) / 1000


@rule(
    "carve.above",
    unit="g",
    formula="weight * share",
    source=GEOMETRY,
    rounding="up",
    words="What lies above that height, or up to the hidden board above it: its share of the whole tier, taken as "
    "equally heavy everywhere.",
)
def lies_above(weight_g: float, share: float) -> float:
    """The weight above a height of a carved tier, g: weight x share of its volume. Source: geometry.

    >>> lies_above(2000, 0.25)
    500.0
    """
    return weight_g * share


@rule(
    "carve.front_agrees",
    unit="mm",
    formula="high * front / up",
    source=GEOMETRY,
    words="A view from the front, drawn as high as the cake is, is so wide.",
)
def front_agrees(high_mm: float, front_mm: float, up_mm: float) -> float:
    """How long a cake is that agrees with its view from the front, mm: its height x width / height of the view.

    Source: geometry.

    >>> front_agrees(90, 120, 60)
    180.0
    """
    return high_mm * front_mm / up_mm


def slices_of(bare: Sculpted, slabs: list[Slab]) -> list[Slice]:
    """The layers of a carved tier as they are cut, from the foot up."""
    return sliced(bare, [(slab.number, slab.low, slab.high) for slab in slabs if slab.kind == "layer"])


def plan_carving(
    tier: SettledTier,
    bodies: Envelopes,
    layers: LayersPlan,
    emptied: Emptied | None,
    openings: dict[str, OpeningPlan],
    coats: CoatsPlan,
    weight_g: float,
) -> CarvingPlan | None:
    """The slices of a carved tier, None of any other. `bodies` are its own without coats and with them, `emptied` what
    is cut out of it, `openings` what of that is filled up or left empty, `weight_g` what all of it weighs.
    """
    build, bare, coated = tier.asked.build, bodies.bare, bodies.coated
    if not isinstance(bare, Sculpted) or not isinstance(coated, Sculpted) or not isinstance(build, Carvable):
        return None
    assert emptied is not None
    slabs = list(emptied.slabs)
    hollows, boards, flat = hollows_of(coated), boards_of(bare, build), bodies.covered.flat_top
    slices = slices_of(bare, slabs)
    key = tuple(slices), emptied.key
    emptying = bare.core.cached("emptied", key, lambda: [emptying_of(one, emptied) for one in slices])
    templates = bare.core.cached(
        "templates", key, lambda: [list(templates_of(*one)) for one in zip(slices, emptying, strict=True)]
    )
    surface = carry_over("all that is coated", bare.surface_mm2, "mm2", "up")
    final_mm = max(0.0, coats.final.side.value) if coats.final else 0.0
    both = coats.crumb.volume.value + (coats.final.volume.value if coats.final else 0.0)
    work = Carved(tier.asked.id, slices, layers.cavity, openings, build.scored_mm, tier.dome_mm)
    tasks = list(carving_tasks(work))
    return CarvingPlan(
        neck=_neck(bare, slabs, weight_g),
        dome=_dome(tier, bare, slabs),
        slices={
            f"layer_{one.number}": _slice_plan(emptied, one, out, papers)
            for one, out, papers in zip(slices, emptying, templates, strict=True)
        },
        view=board_of("side", boards.side),
        front=board_of("front", boards.front),
        tasks=tasks,
        hands_on=hands_on(tasks, CARVE_TASKS),
        openings=openings,
        volume=carry_over("inside it", bare.volume_ml, "ml"),
        foot=carry_over("on the board", float(slices[0].bottom.area), "mm2", "down"),
        flat_top=None if flat is None else carry_over("flat on top, for a tier", flat.area_mm2, "mm2", "down"),
        footprint=carry_over("seen from above", bare.outline.area_mm2, "mm2"),
        surface=surface,
        coats=carry_over("both coats", both, "ml", "up"),
        front_agrees=_front_agrees(build, bare),
        own_width=_own_width(build),
        kept=_mesh_kept(build, bare),
        solids=_solids(build, bare),
        seen=rings_of(bare.core.side.simplify(DRAWN_MM)),
        scored=boards.scored,
        by_surface=by_surface.figure(surface.value, coats.crumb.side.value, final_mm),
        flat=carry_over("of the coated surface", hollows.flat, "ratio", "down"),
        bent=None if hollows.radius is None else carry_over("but for a little of it", hollows.radius, "mm", "down"),
    )


def _front_agrees(build: Build, bare: Sculpted) -> Figure | None:
    if not isinstance(build, CarvedBuild) or build.front_line_mm is None:
        return None
    left, low, right, high = Polygon(build.front_line_mm).bounds
    return front_agrees.figure(bare.core.height_mm, right - left, high - low)


def _neck(bare: Sculpted, slabs: list[Slab], weight_g: float) -> NeckPlan | None:
    board = max((slab.high for slab in slabs if slab.kind == "board"), default=None)
    found = bare.core.neck(board)
    if found is None:
        return None
    up, area, share = found
    above = lies_above.figure(weight_g, share)
    return NeckPlan(
        up=carry_over("up from its foot", up, "mm"),
        area=carry_over("of cake there", area, "mm2", "down"),
        above=above,
        pressed=pressure.figure(above.value, area),
    )


def _dome(tier: SettledTier, bare: Sculpted, slabs: list[Slab]) -> DomePlan | None:
    """The dome left on the top layer: a paraboloid as wide as the tin (from memory)."""
    left_mm = tier.dome_mm
    if not left_mm:
        return None
    high = max(slab.high for slab in slabs)
    radius, step = tier.asked.tin_diameter_mm / 2, left_mm / DOME_STEPS
    beyond = 0.0
    for index in range(DOME_STEPS):
        up = (index + 0.5) * step
        disc = Point2(0.0, 0.0).buffer(radius * math.sqrt(1 - up / left_mm), quad_segs=DOME_ROUND)
        beyond += float(bare.core.region(high - left_mm + up).difference(disc).area) * step
    return DomePlan(
        left=decided(left_mm, "mm"), missing=carry_over("of the body beyond the dome", beyond / MM3_PER_ML, "ml", "up")
    )


def _own_width(build: Build) -> Figure | None:
    if not isinstance(build, JoinedBuild):
        return None
    return carry_over("all its solids together, as they were given", build.width_for(), "mm")


def _mesh_kept(build: Build, bare: Sculpted) -> MeshKept | None:
    if not isinstance(build, ModelledBuild):
        return None
    off = build.error_mm * bare.width_mm / build.width_for()
    return MeshKept(
        triangles=carry_over("triangles", len(build.own().triangles), "each"),
        size=carry_over("thousand bytes", len(build.mesh) / 1000, "each", "up"),
        error=carry_over("from the file's own, at this size", off, "mm", "up"),
    )


def _solids(build: Build, bare: Sculpted) -> list[SolidSeen]:
    """Each solid where it lies about the middle of the foot of all of them, at the size of the tier."""
    if not isinstance(build, JoinedBuild):
        return []
    scale = bare.width_mm / build.width_for(), bare.core.height_mm / build.own().height_mm
    return bare.core.cached("solids", (build.solids, scale), lambda: list(_solids_seen(build, *scale)))


def _solids_seen(build: JoinedBuild, across: float, up: float) -> Iterator[SolidSeen]:
    left, front, low = build.lowest_mm
    for part in build.solids:
        x, y, z = part.x_mm - left, part.y_mm - front, part.z_mm - low
        placed = part.placed().translate([-left, -front, -low]).scale([across, across, up])
        yield SolidSeen(
            cut_out=part.does == "cut",
            place=(across * x, across * y, up * z),
            side=rings_of(seen(placed, UPRIGHT)),
            above=rings_of(seen(placed, FLAT)),
        )


def _slice_plan(emptied: Emptied, one: Slice, out: Mapping[str, Emptying], templates: list[Template]) -> SlicePlan:
    (wide, long), (short, side), (whole, bottom, top) = one.size, one.least, one.rings
    over = emptied.above(one.number)
    return SlicePlan(
        number=one.number,
        low=carry_over("height of its lower face", one.low, "mm"),
        high=carry_over("height of its upper face", one.high, "mm"),
        wide=carry_over("across at its widest", wide, "mm", "up"),
        long=carry_over("from front to back at its longest", long, "mm", "up"),
        circle=carry_over("the least circle round it", one.circle, "mm", "up"),
        half_ball=carry_over("the least half ball round it", one.half_ball, "mm", "up"),
        short=carry_over("the least rectangle round it, its short side", short, "mm", "up"),
        side=carry_over("the least rectangle round it, its long side", side, "mm", "up"),
        area=carry_over("at its largest", float(one.widest.area), "mm2"),
        girth=carry_over("once round at its largest", float(one.widest.length), "mm"),
        volume=emptied.left(emptied.layer(one.number)),
        filled=None if over is None or over.kind != "filling" else emptied.left(over),
        moves=carry_over("from face to face", one.moves, "mm"),
        hangs=carry_over("beyond what it lies on", one.hangs, "mm"),
        whole=whole,
        bottom=bottom,
        top=top,
        cut_out={
            name: EmptyingSeen(**{face: rings_of(getattr(each, face)) for face in Emptying._fields})
            for name, each in out.items()
        },
        pieces={f"layer_{one.number}_{at}": paper_of(*template) for at, template in enumerate(templates, 1)},
    )
