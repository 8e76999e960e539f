"""One tier cut through and seen from outside, as closed outlines in mm: x from the axis, z up from its own foot."""

from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import Literal, NamedTuple, TypeVar

from amber_spread.core.base import Made
from amber_spread.core.body import Envelopes, Sideways, Straight
from amber_spread.core.coats import CoatsPlan
from amber_spread.core.design import Tier
from amber_spread.core.finishes import NoCover, NoFinal, PanelCover, PrintedCover, SemiNakedFinal, SoftFilling
from amber_spread.core.layers import FillingPlan, LayersPlan, Slab
from amber_spread.core.outline import Outline

HexOf = Callable[[str, str | None], str]
D = TypeVar("D", "Part", "Silhouette")
SPONGE_HEX = "#E5C489"
BOARD_HEX = "#CFE3E2"
PRINTED_HEX = "#FBF7EE"

PartKind = Literal["board", "sponge", "filling", "seal", "dam", "crumb", "final", "cover"]
Point = tuple[float, float]


class Part(Made):
    """One thing cut through. `place` is the path in the plan whose figures belong to it."""

    place: str
    kind: PartKind
    hex: str
    outline: list[Point]


class Silhouette(Made):
    """A finished tier from outside, as a half-outline from the axis out and up and back to the axis.

    A wall that is not `curved` shows upright `edges` so far from the axis. `seen_from_above` is its plan outline.
    """

    place: str
    hex: str
    outline: list[Point]
    curved: bool
    edges: list[float]
    bands: list[tuple[str, float]] = []
    seen_from_above: list[Point]


class Cut(NamedTuple):
    """One tier as the section needs it: its layers, its nested bodies, and what lies at which height of the bare
    one.
    """

    layers: LayersPlan
    coats: CoatsPlan
    bodies: Envelopes
    slabs: list[Slab]
    tipped: dict[str, Sideways] | None


class Drawn(NamedTuple):
    """A tier as it is drawn: what the cut shows, from the foot up, and its outside."""

    parts: list[Part]
    outside: Silhouette


def slab(inner_mm: float, outer_mm: float, bottom_mm: float, top_mm: float) -> list[Point]:
    """A rectangle from `inner_mm` to `outer_mm` off the axis, between two heights."""
    return [(inner_mm, bottom_mm), (outer_mm, bottom_mm), (outer_mm, top_mm), (inner_mm, top_mm)]


def shell(inner: list[Point], outer: list[Point]) -> list[Point]:
    """The room between two nested half profiles, both from the foot up to the axis."""
    start = [(0.0, inner[0][1])] if outer[0][0] == 0 and inner[0][1] > outer[0][1] else []
    return [*outer, *reversed(inner), *start]


def draw_tier(number: int, tier: Tier, cut: Cut, hex_of: HexOf) -> Drawn:
    """Tier `number`, counted from 1, standing on its own foot at height 0."""
    place = f"tiers.{number}"
    body = cut.tipped["covered"] if cut.tipped else cut.bodies.covered
    parts = list(_tipped(place, cut) if cut.tipped else _inside(f"{place}.layers", tier, cut, hex_of))
    outside = SPONGE_HEX
    for kind, hex, inner, outer in _coats(tier, cut, hex_of):
        if outer != inner:
            outside = hex
            room = "cover" if kind == "cover" else f"coats.{kind}"
            parts.append(Part(place=f"{place}.{room}", kind=kind, hex=hex, outline=shell(inner, outer)))
    rim, lip = body.half_profile(), _lip(cut)
    if lip:
        parts.append(Part(place=f"{place}.coats.final", kind="final", hex=outside, outline=lip))
        rim = [*rim[:-1], *lip[1:], lip[0], rim[-1]]
    above = cut.bodies.covered.outline
    silhouette = Silhouette(
        place=place,
        hex=_outermost(tier, outside, hex_of),
        outline=[(0.0, rim[0][1]), *rim],
        curved=above.curved,
        edges=above.edges_mm if isinstance(cut.bodies.covered, Straight) else [],
        bands=_bands(tier, hex_of),
        seen_from_above=_above(cut),
    )
    return Drawn([lifted(part, -body.foot_mm) for part in parts], lifted(silhouette, -body.foot_mm))


def lifted(piece: D, lift_mm: float) -> D:
    """A piece of the drawing moved up by so much."""
    if lift_mm == 0:
        return piece
    return piece.but(outline=[(x, z + lift_mm) for x, z in piece.outline])


def _lip(cut: Cut) -> list[Point]:
    """The rim of a deckled coat, standing proud of the top; nothing where there is none."""
    flat, coats = cut.bodies.coated.flat_top, cut.coats
    if coats.rim_height is None or coats.final is None or flat is None:
        return []
    out, low = flat.half_width_mm, cut.bodies.coated.foot_mm + cut.bodies.coated.height_mm
    return slab(max(0.0, out - coats.final.side.value), out, low, low + coats.rim_height.value)


def _above(cut: Cut) -> list[Point]:
    if cut.tipped:
        drum = cut.tipped["covered"]
        return slab(-drum.radius_mm, drum.radius_mm, -drum.thick_mm / 2, drum.thick_mm / 2)
    return _drawn(cut.bodies.covered.outline)


@lru_cache(maxsize=256)
def _drawn(outline: Outline) -> list[Point]:
    """The outline as it is drawn, to a hundredth of a millimetre; kept, since most tiers stay the same in an edit."""
    return [(round(x, 2), round(y, 2)) for x, y in outline.points]


def _outermost(tier: Tier, outside: str, hex_of: HexOf) -> str:
    if isinstance(tier.cover, PrintedCover):
        return PRINTED_HEX
    if isinstance(tier.cover, PanelCover) and tier.cover.stripes:
        return hex_of(tier.cover.medium, tier.cover.stripes[0].colour)
    return outside


def _bands(tier: Tier, hex_of: HexOf) -> list[tuple[str, float]]:
    """The stripes of a panel as (colour, share of the girth)."""
    if not isinstance(tier.cover, PanelCover) or not tier.cover.stripes:
        return []
    shares = sum(stripe.share for stripe in tier.cover.stripes)
    return [(hex_of(tier.cover.medium, stripe.colour), stripe.share / shares) for stripe in tier.cover.stripes]


def _coats(tier: Tier, cut: Cut, hex_of: HexOf) -> Iterator[tuple[PartKind, str, list[Point], list[Point]]]:
    """Each coat with the half profiles below and above it."""
    names = ("bare", "crumbed", "coated", "covered")
    if cut.tipped:
        lines = {name: cut.tipped[name].half_profile() for name in names}
    else:
        lines = {name: getattr(cut.bodies, name).half_profile() for name in names}
    yield "crumb", hex_of(tier.crumb.medium, tier.crumb.colour), lines["bare"], lines["crumbed"]
    if not isinstance(tier.final, NoFinal | SemiNakedFinal):
        yield "final", hex_of(tier.final.medium, tier.final.colour), lines["crumbed"], lines["coated"]
    if not isinstance(tier.cover, NoCover | PrintedCover):
        stripes = tier.cover.stripes if isinstance(tier.cover, PanelCover) else ()
        colour = stripes[0].colour if stripes else tier.cover.colour
        yield "cover", hex_of(tier.cover.medium, colour), lines["coated"], lines["covered"]


def _tipped(place: str, cut: Cut) -> Iterator[Part]:
    """A drum on its side is cut between two layers: its sponge is one disc on its flat."""
    assert cut.tipped is not None
    yield Part(place=f"{place}.layers", kind="sponge", hex=SPONGE_HEX, outline=cut.tipped["bare"].half_profile())


def _inside(place: str, tier: Tier, cut: Cut, hex_of: HexOf) -> Iterator[Part]:
    """Layers, fillings and a hidden board from the foot up, each filling with its seal below and its dam at the rim."""
    filling, bare = cut.layers.filling, cut.bodies.bare
    fill_hex, dam_hex = hex_of(tier.filling.medium, tier.filling.colour), ""
    if isinstance(tier.filling, SoftFilling):
        dam_hex = hex_of(tier.filling.dam_medium, tier.filling.dam_colour)
    hollow_mm = min(cut.layers.cavity.diameter.value / 2, bare.width_mm / 2) if cut.layers.cavity else 0.0
    last = tier.layers.count
    for kind, number, low, high in cut.slabs:
        rim = bare.half_profile(low, high)
        top = rim[-1][1]
        inner = hollow_mm if kind == "filling" or (kind == "layer" and 1 < number < last) else 0.0
        if kind == "layer":
            yield Part(place=place, kind="sponge", hex=SPONGE_HEX, outline=_ring(rim, inner))
        elif kind == "board":
            assert cut.layers.board is not None
            half = cut.layers.board.diameter.value / 2
            yield Part(place=f"{place}.board", kind="board", hex=BOARD_HEX, outline=slab(0, half, low, high))
            gap = [(half, low), *rim[:-1], (half, high)]
            yield Part(place="", kind="crumb", hex=hex_of(tier.crumb.medium, tier.crumb.colour), outline=gap)
        else:
            yield from _filled(f"{place}.filling", filling, rim, inner, low, top, fill_hex, dam_hex)


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
    fill_hex: str,
    dam_hex: str,
) -> Iterator[Part]:
    half = min(x for x, _ in rim[:-1])
    dam_mm = min(filling.dam_width.value, half) if filling.dam_width else 0.0
    seal_mm = min(filling.seal_thickness.value, high - low) if filling.seal_thickness else 0.0
    if not dam_mm:
        yield Part(place=place, kind="filling", hex=fill_hex, outline=_ring(rim, inner))
        return
    inside = half - dam_mm
    rooms: tuple[tuple[PartKind, str, list[Point], bool], ...] = (
        ("seal", dam_hex, slab(min(inner, inside), inside, low, low + seal_mm), seal_mm > 0 and inside > inner),
        ("filling", fill_hex, slab(inner, inside, low + seal_mm, high), seal_mm < high - low and inside > inner),
        ("dam", dam_hex, _ring(rim, inside), True),
    )
    for kind, hex, outline, there in rooms:
        if there:
            yield Part(place=place, kind=kind, hex=hex, outline=outline)
