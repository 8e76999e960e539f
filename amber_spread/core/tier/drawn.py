"""One tier cut through and seen from outside, as closed outlines in mm: x from the axis, z up from its own foot."""

import math
from collections.abc import Callable, Iterable, Iterator
from typing import Literal, NamedTuple

from shapely import unary_union

from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import (
    NoCoat,
    NoCover,
    PanelCover,
    PrintedCover,
    SoftFilling,
)
from amber_spread.core.geometry.bodies.body import Body, Envelopes, Sideways, Straight
from amber_spread.core.geometry.bodies.sculpted import Sculpted, rings_right
from amber_spread.core.geometry.flat.outline import Outline, Point, arc
from amber_spread.core.geometry.flat.traced import Region, areas_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.paint import Paint
from amber_spread.core.tier.carve.emptied import Emptied
from amber_spread.core.tier.carve.openings import OpeningPlan, cuts_of
from amber_spread.core.tier.coats.coats import CoatsPlan
from amber_spread.core.tier.cover.plan import CoverPlan
from amber_spread.core.tier.decorate.borders import BorderPlan
from amber_spread.core.tier.decorate.on_top import OnTopPlan
from amber_spread.core.tier.decorate.piped import PipedOver, piped_over
from amber_spread.core.tier.decorate.regions import RegionPlan
from amber_spread.core.tier.layers.hidden import hidden_in
from amber_spread.core.tier.layers.layers import FillingPlan, LayersPlan
from amber_spread.core.tier.layers.slabs import Slab

HexOf = Callable[[str, str | None], str]
BEAD_STEP = math.radians(15)

PartKind = Literal[
    "board",
    "sponge",
    "filling",
    "seal",
    "dam",
    "refill",
    "crumb",
    "final",
    "cover",
    "border",
    "region",
    "on_top",
    "support",
]


class Part(PlanPart):
    """One thing cut through. `place` is the path in the plan whose figures belong to it; `off` is how far the axis of
    its tier stands to the right, and to the back, of the base's.
    """

    place: str
    kind: PartKind
    paint: Paint
    outline: list[Point]
    off: Point = (0.0, 0.0)

    def lifted(self, lift_mm: float, off: Point) -> "Part":
        """The same moved up by so much, its axis so far off the base's."""
        outline = lifted_line(self.outline, lift_mm)
        return Part(place=self.place, kind=self.kind, paint=self.paint, outline=outline, off=off)


class Silhouette(PlanPart):
    """A finished tier from outside, as a half-outline from the axis out and up and back to the axis.

    A wall that is not `curved` shows upright `edges` so far from the axis. `bands` are the stripes of a panel, as (hex,
    share) of its girth, or of its height from the foot where they lie `round`. `seen_from_above` is its plan outline.
    `left` is the left half, as if it were the right, where the two differ; `piped` what is piped over the outside.
    """

    place: str
    paint: Paint
    outline: list[Point]
    curved: bool
    edges: list[float]
    bands: list[tuple[str, float]] = []
    round: bool = False
    seen_from_above: list[Point]
    off: Point = (0.0, 0.0)
    left: list[Point] = []
    piped: list[PipedOver] = []

    def lifted(self, lift_mm: float, off: Point) -> "Silhouette":
        """The same moved up by so much, its axis so far off the base's."""
        piped = [
            one.replace(
                left=[lifted_line(ring, lift_mm) for ring in one.left],
                right=[lifted_line(ring, lift_mm) for ring in one.right],
            )
            for one in self.piped
        ]
        outline, left = lifted_line(self.outline, lift_mm), lifted_line(self.left, lift_mm)
        return self.replace(outline=outline, left=left, piped=piped, off=off)


class Cut(NamedTuple):
    """One tier as its rooms planned it, before it is drawn and its bowls are filled: with its nested bodies, and what
    lies at which height of the bare one.
    """

    layers: LayersPlan
    emptied: Emptied | None
    openings: dict[str, OpeningPlan]
    coats: CoatsPlan
    cover: CoverPlan | None
    borders: dict[str, BorderPlan]
    regions: dict[str, RegionPlan]
    on_top: dict[str, OnTopPlan]
    bodies: Envelopes
    slabs: list[Slab]
    tipped: dict[str, Sideways] | None


class Drawn:
    """A tier as it is drawn: what the cut shows, from the foot up, and its outside. `added` is seen on both: what
    stands above its top or at its foot.
    """

    def __init__(self, parts: Iterable[Part], outside: Silhouette, added: Iterable[Part]) -> None:
        self.parts, self.outside, self.added = list(parts), outside, list(added)
        self._raised: tuple[tuple[float, Point], Drawn] | None = None

    def raised(self, by_mm: float, off: Point = (0.0, 0.0)) -> "Drawn":
        """The same moved up by so much, and off the axis. What was asked for last is kept, since most edits leave a
        tier in its place.
        """
        kept = self._raised
        if kept is not None and kept[0] == (by_mm, off):
            return kept[1]
        if by_mm == 0 and off == self.outside.off:
            return self
        found = Drawn(
            [part.lifted(by_mm, off) for part in self.parts],
            self.outside.lifted(by_mm, off),
            [part.lifted(by_mm, off) for part in self.added],
        )
        self._raised = (by_mm, off), found
        return found


def lifted_line(line: list[Point], lift_mm: float) -> list[Point]:
    """A line moved up by so much."""
    return [(x, z + lift_mm) for x, z in line]


def slab(inner_mm: float, outer_mm: float, bottom_mm: float, top_mm: float) -> list[Point]:
    """A rectangle from `inner_mm` to `outer_mm` off the axis, between two heights."""
    return [(inner_mm, bottom_mm), (outer_mm, bottom_mm), (outer_mm, top_mm), (inner_mm, top_mm)]


def shell(inner: list[Point], outer: list[Point]) -> list[Point]:
    """The room between two nested half profiles, both from the foot up to the axis."""
    start = [(0.0, inner[0][1])] if outer[0][0] == 0 and inner[0][1] > outer[0][1] else []
    return [*outer, *reversed(inner), *start]


def draw_tier(tier: Tier, cut: Cut, hex_of: HexOf) -> Drawn:
    """A tier standing on its own foot at height 0."""
    place = f"tiers.{tier.id}"
    body = cut.tipped["covered"] if cut.tipped else cut.bodies.covered
    parts = list(_tipped(place, cut) if cut.tipped else _inside(f"{place}.layers", tier, cut, hex_of))
    for key, opening in cut.openings.items():
        there = f"{place}.carving.openings.{key}"
        if opening.hex is not None:
            parts += [Part(place=there, kind="refill", paint=opening.hex, outline=ring) for ring in opening.cut]
    outside = "sponge"
    for kind, hex, outlines in _coats(tier, cut, hex_of):
        for outline in outlines:
            outside = hex
            room = "cover" if kind == "cover" else f"coats.{kind}"
            parts.append(Part(place=f"{place}.{room}", kind=kind, paint=hex, outline=outline))
    piped = [] if cut.tipped else list(piped_over(tier.regions, cut.regions, cut.bodies.covered))
    for region in piped:
        parts += [
            Part(place=f"{place}.regions.{region.key}", kind="region", paint=region.hex, outline=ring)
            for ring in rings_right(region.cut)
        ]
    rim, lip = body.half_profile(), _lip(cut)
    if lip:
        parts.append(Part(place=f"{place}.coats.final", kind="final", paint=outside, outline=lip))
    collar = _collar(cut)
    if collar:
        parts.append(Part(place=f"{place}.cover", kind="cover", paint=outside, outline=collar))
    # Over the rim and down to the top: first the collar, which is outside, then the lip within it.
    over = [collar[2], collar[3]] if collar else lip[1:2]
    over += [lip[2], lip[3], lip[0]] if lip else collar[:1]
    rim = [*rim[:-1], *over, rim[-1]]
    above, left = cut.bodies.covered.outline, _left(cut.bodies.covered)
    silhouette = Silhouette(
        place=place,
        paint=_outermost(tier, outside, hex_of),
        outline=[(0.0, rim[0][1]), *rim],
        # No line stands upright on a wall that is carved freely.
        curved=above.curved and not left,
        edges=above.edges_mm if isinstance(cut.bodies.covered, Straight) else [],
        bands=_bands(tier, hex_of),
        round=isinstance(tier.cover, PanelCover) and tier.cover.run == "round",
        seen_from_above=_above(cut),
        left=left,
        piped=[one.over for one in piped],
    )
    return Drawn(parts, silhouette, _added(place, tier, cut, body, hex_of)).raised(-body.foot_mm)


def _left(body: Body) -> list[Point]:
    """The left half from the foot up and back to the axis, where it is not as the right."""
    left = body.left_profile()
    return [] if left == body.half_profile() else [(0.0, left[0][1]), *left]


def _lip(cut: Cut) -> list[Point]:
    """The rim of a deckled coat, standing proud of the top; nothing where there is none."""
    flat, coats = cut.bodies.coated.flat_top, cut.coats
    if coats.rim_height is None or coats.final is None or flat is None:
        return []
    out, low = cut.bodies.coated.half_profile()[-2]
    return slab(max(0.0, out - coats.final.side.value), out, low, low + coats.rim_height.value)


def _collar(cut: Cut) -> list[Point]:
    """What of a collar stands above the tier; nothing where there is none."""
    if cut.cover is None or cut.cover.above is None or cut.cover.above.value <= 0 or cut.tipped:
        return []
    if cut.bodies.coated.flat_top is None:
        return []
    inner, (outer, low) = cut.bodies.coated.half_profile()[-2][0], cut.bodies.covered.half_profile()[-2]
    return slab(inner, outer, low, low + cut.cover.above.value)


def _added(place: str, tier: Tier, cut: Cut, body: Body | Sideways, hex_of: HexOf) -> Iterator[Part]:
    """Borders along the edges, as the beads they are, and flat pieces on the top."""
    top_mm = body.foot_mm + body.height_mm
    widest = sorted(cut.on_top.items(), key=lambda one: -one[1].piece.size[0])
    for key, laid in widest:
        outline = slab(0.0, laid.piece.size[0] / 2, top_mm, top_mm + laid.piece.sizes["thickness"].value)
        yield Part(place=f"{place}.on_top.{key}", kind="on_top", paint=laid.piece.paint, outline=outline)
    half = body.half_profile()
    flat = None if cut.tipped else cut.bodies.covered.flat_top
    for (key, border), asked in zip(cut.borders.items(), tier.borders, strict=True):
        radius, wholly = border.bead.value / 2, asked.bead != "half"
        if border.at == "foot":
            edge = max(x for x, z in half if z <= half[1][1] + 1e-6) if len(half) > 1 else half[0][0]
            middle = (edge + (radius if wholly else 0.0), body.foot_mm + radius)
            turn = (0.0, 2 * math.pi) if wholly else (-math.pi / 2, math.pi / 2)
        else:
            assert flat is not None
            middle = (max(0.0, flat.half_width_mm - radius), top_mm + (radius if wholly else 0.0))
            turn = (0.0, 2 * math.pi) if wholly else (0.0, math.pi)
        outline = [(max(0.0, x), z) for x, z in arc(middle, radius, *turn, BEAD_STEP)]
        hex = hex_of(asked.medium, asked.colour)
        yield Part(place=f"{place}.borders.{key}", kind="border", paint=hex, outline=outline)


def _above(cut: Cut) -> list[Point]:
    if cut.tipped:
        drum = cut.tipped["covered"]
        return slab(-drum.radius_mm, drum.radius_mm, -drum.thick_mm / 2, drum.thick_mm / 2)
    return _drawn(cut.bodies.covered.outline)


@cached(256)
def _drawn(outline: Outline) -> list[Point]:
    """The outline as it is drawn, to a hundredth of a millimetre; kept, since most tiers stay the same in an edit."""
    return [(round(x, 2), round(y, 2)) for x, y in outline.points]


def _outermost(tier: Tier, outside: Paint, hex_of: HexOf) -> Paint:
    if isinstance(tier.cover, PrintedCover):
        return "printed"
    if isinstance(tier.cover, PanelCover) and tier.cover.stripes:
        return hex_of(tier.cover.medium, tier.cover.stripes[0].colour)
    return outside


def _bands(tier: Tier, hex_of: HexOf) -> list[tuple[str, float]]:
    """The stripes of a panel as (colour, share of the girth)."""
    if not isinstance(tier.cover, PanelCover) or not tier.cover.stripes:
        return []
    shares = sum(stripe.share for stripe in tier.cover.stripes)
    return [(hex_of(tier.cover.medium, stripe.colour), stripe.share / shares) for stripe in tier.cover.stripes]


def _coats(tier: Tier, cut: Cut, hex_of: HexOf) -> Iterator[tuple[PartKind, str, list[list[Point]]]]:
    """Each coat with what of it is cut through, part by part; nothing of one that adds none."""
    yield "crumb", hex_of(tier.crumb.medium, tier.crumb.colour), _between(cut, "bare", "crumbed")
    if not isinstance(tier.final, NoCoat):
        yield "final", hex_of(tier.final.medium, tier.final.colour), _between(cut, "crumbed", "coated")
    if not isinstance(tier.cover, NoCover | PrintedCover):
        stripes = tier.cover.stripes if isinstance(tier.cover, PanelCover) else ()
        colour = stripes[0].colour if stripes else tier.cover.colour
        yield "cover", hex_of(tier.cover.medium, colour), _between(cut, "coated", "covered")


def _between(cut: Cut, below: str, above: str) -> list[list[Point]]:
    """The room between two envelopes of a tier, on the right of the axis, part by part."""
    if cut.tipped:
        lines = [cut.tipped[name].half_profile() for name in (below, above)]
    else:
        bodies = [getattr(cut.bodies, name) for name in (below, above)]
        inner, outer = bodies
        if isinstance(inner, Sculpted) and isinstance(outer, Sculpted):
            return outer.shell(inner)
        lines = [body.half_profile() for body in bodies]
    return [] if lines[0] == lines[1] else [shell(*lines)]


def _tipped(place: str, cut: Cut) -> Iterator[Part]:
    """A drum on its side is cut between two layers: its sponge is one disc on its flat."""
    assert cut.tipped is not None
    yield Part(place=f"{place}.layers", kind="sponge", paint="sponge", outline=cut.tipped["bare"].half_profile())


def _inside(place: str, tier: Tier, cut: Cut, hex_of: HexOf) -> Iterator[Part]:
    """Layers, fillings and a hidden board from the foot up, each filling with its seal below and its dam at the rim."""
    filling, bare = cut.layers.filling, cut.bodies.bare
    fill_hex, dam_hex = hex_of(tier.filling.medium, tier.filling.colour), ""
    if isinstance(tier.filling, SoftFilling):
        dam_hex = hex_of(tier.filling.dam_medium, tier.filling.dam_colour)
    hidden = hidden_in(cut.slabs, cut.layers.cavity)
    away = None
    if isinstance(bare, Sculpted) and cut.emptied is not None and cut.openings:
        away = areas_of(unary_union(cuts_of(bare, cut.emptied)))
    for slab_of in cut.slabs:
        kind, _, low, high = slab_of
        rim = bare.half_profile(low, high)
        top = rim[-1][1]
        inner = hidden.get(slab_of, 0.0)
        if isinstance(bare, Sculpted) and kind != "board":
            yield from _carved(place, bare, slab_of, cut.layers.filling, inner, (fill_hex, dam_hex), away)
        elif kind == "layer":
            yield Part(place=place, kind="sponge", paint="sponge", outline=_ring(rim, inner))
        elif kind == "board":
            assert cut.layers.board is not None
            half = cut.layers.board.diameter.value / 2
            yield Part(place=f"{place}.board", kind="board", paint="board", outline=slab(0, half, low, high))
            gap = [(half, low), *rim[:-1], (half, high)]
            yield Part(place="", kind="crumb", paint=hex_of(tier.crumb.medium, tier.crumb.colour), outline=gap)
        else:
            yield from _filled(f"{place}.filling", filling, rim, inner, low, top, (fill_hex, dam_hex))


def _carved(
    place: str,
    bare: Sculpted,
    slab_of: Slab,
    filling: FillingPlan,
    inner: float,
    hexes: tuple[str, str],
    away: Region | None,
) -> Iterator[Part]:
    """A layer or a filling of a carved body, in as many parts as it is cut through in; without what is cut `away`."""
    kind, _, low, high = slab_of
    far, (fill_hex, dam_hex) = bare.width_mm, hexes
    if kind == "layer":
        for ring in bare.cut(inner, far, low, high, away):
            yield Part(place=place, kind="sponge", paint="sponge", outline=ring)
        return
    wall = bare.half_profile(low, high)
    inside = far
    if filling.dam_width is not None:
        inside = max(inner, min(x for x, _ in wall[:-1]) - filling.dam_width.value)
    seal = low + (min(filling.seal_thickness.value, high - low) if filling.seal_thickness else 0.0)
    rooms: tuple[tuple[PartKind, str, list[list[Point]]], ...] = (
        ("seal", dam_hex, bare.cut(inner, inside, low, seal, away)),
        ("filling", fill_hex, bare.cut(inner, inside, seal, high, away)),
        ("dam", dam_hex, bare.cut(inside, far, low, high, away)),
    )
    for what, hex, rings in rooms:
        for ring in rings:
            yield Part(place=f"{place}.filling", kind=what, paint=hex, outline=ring)


def _ring(rim: list[Point], inner_mm: float) -> list[Point]:
    """What lies between a wall and a hollow of that half width."""
    return [(inner_mm, rim[0][1]), *rim[:-1], (inner_mm, rim[-1][1])]


def _filled(
    place: str,
    filling: FillingPlan,
    rim: list[Point],
    inner: float,
    low: float,
    high: float,
    hexes: tuple[str, str],
) -> Iterator[Part]:
    fill_hex, dam_hex = hexes
    half = min(x for x, _ in rim[:-1])
    dam_mm = min(filling.dam_width.value, half) if filling.dam_width else 0.0
    seal_mm = min(filling.seal_thickness.value, high - low) if filling.seal_thickness else 0.0
    if not dam_mm:
        yield Part(place=place, kind="filling", paint=fill_hex, outline=_ring(rim, inner))
        return
    inside = half - dam_mm
    rooms: tuple[tuple[PartKind, str, list[Point], bool], ...] = (
        ("seal", dam_hex, slab(min(inner, inside), inside, low, low + seal_mm), seal_mm > 0 and inside > inner),
        ("filling", fill_hex, slab(inner, inside, low + seal_mm, high), seal_mm < high - low and inside > inner),
        ("dam", dam_hex, _ring(rim, inside), True),
    )
    for kind, hex, outline, there in rooms:
        if there:
            yield Part(place=place, kind=kind, paint=hex, outline=outline)
