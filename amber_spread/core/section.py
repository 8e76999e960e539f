"""The half-section: what the drawing shows, as closed outlines in mm, x from the axis and z up from the table."""

from collections.abc import Callable, Iterator
from typing import Literal

from amber_spread.core.base import Frozen
from amber_spread.core.body import Envelopes, Straight
from amber_spread.core.design import Design, NoCover, NoFinal, SoftFilling, Tier
from amber_spread.core.layers import LayersPlan
from amber_spread.core.media import Medium
from amber_spread.core.stack import StackPlan, TierStack

SPONGE_HEX = "#E5C489"
BOARD_HEX = "#CFE3E2"

PartKind = Literal["board", "sponge", "filling", "seal", "dam", "crumb", "final", "cover"]
Point = tuple[float, float]


class Part(Frozen):
    """One thing cut through. `place` is the path in the plan whose figures belong to it."""

    place: str
    kind: PartKind
    hex: str
    outline: list[Point]


class Silhouette(Frozen):
    """A finished tier from outside, as a half-outline from the axis out and up and back to the axis.

    A wall that is not `curved` shows upright `edges` so far from the axis. `seen_from_above` is its plan outline.
    """

    place: str
    hex: str
    outline: list[Point]
    curved: bool
    edges: list[float]
    seen_from_above: list[Point]


class Section(Frozen):
    """Every part of the cut half, and every tier's outside, bottom first."""

    parts: list[Part]
    tiers: list[Silhouette]


def slab(inner_mm: float, outer_mm: float, bottom_mm: float, top_mm: float) -> list[Point]:
    """A rectangle from `inner_mm` to `outer_mm` off the axis, between two heights."""
    return [(inner_mm, bottom_mm), (outer_mm, bottom_mm), (outer_mm, top_mm), (inner_mm, top_mm)]


def shell(inner: Point, outer: Point, bottom_mm: float) -> list[Point]:
    """The room between two nested straight envelopes, each given by its half-width and height, standing at one foot."""
    (inner_x, inner_h), (outer_x, outer_h) = inner, outer
    return [
        (inner_x, bottom_mm),
        (outer_x, bottom_mm),
        (outer_x, bottom_mm + outer_h),
        (0.0, bottom_mm + outer_h),
        (0.0, bottom_mm + inner_h),
        (inner_x, bottom_mm + inner_h),
    ]


def draw_section(
    design: Design,
    tiers: list[tuple[LayersPlan, Envelopes]],
    standing: list[TierStack],
    whole: StackPlan,
    media: dict[str, Medium],
) -> Section:
    """The half-section of a whole cake, from the base board up; `tiers` and `standing` are bottom first."""

    def hex_of(medium: str, colour: str | None) -> str:
        return design.colour_hex(colour) or media[medium].hex

    base = slab(0, whole.base_diameter.value / 2, 0, whole.base_thickness.value)
    parts = [Part(place="stack", kind="board", hex=BOARD_HEX, outline=base)]
    outsides = []
    for number, (tier, (layers, body), stands) in enumerate(zip(design.tiers, tiers, standing, strict=True), 1):
        place, foot = f"tiers.{number}", stands.bottom.value
        radius = body.bare.width_mm / 2
        if stands.board_thickness:
            board = slab(0, radius, foot - stands.board_thickness.value, foot)
            parts.append(Part(place=f"{place}.stack", kind="board", hex=BOARD_HEX, outline=board))
        dam_hex = ""
        if isinstance(tier.filling, SoftFilling):
            dam_hex = hex_of(tier.filling.dam_medium, tier.filling.dam_colour)
        fill_hex = hex_of(tier.filling.medium, tier.filling.colour)
        parts.extend(_inside(f"{place}.layers", tier, layers, radius, foot, fill_hex, dam_hex))
        outside = SPONGE_HEX
        for kind, hex, inner, outer in _coats(tier, body, hex_of):
            if outer != inner:
                outside = hex
                outline = shell((inner.width_mm / 2, inner.height_mm), (outer.width_mm / 2, outer.height_mm), foot)
                room = "cover" if kind == "cover" else f"coats.{kind}"
                parts.append(Part(place=f"{place}.{room}", kind=kind, hex=hex, outline=outline))
        outline = slab(0, body.covered.width_mm / 2, foot, foot + body.covered.height_mm)
        above = body.covered.outline
        outsides.append(
            Silhouette(
                place=place,
                hex=outside,
                outline=outline,
                curved=above.curved,
                edges=above.edges_mm,
                seen_from_above=[(round(x, 2), round(y, 2)) for x, y in above.points],
            )
        )
    return Section(parts=parts, tiers=outsides)


def _coats(
    tier: Tier, body: Envelopes, hex_of: Callable[[str, str | None], str]
) -> Iterator[tuple[PartKind, str, Straight, Straight]]:
    yield "crumb", hex_of(tier.crumb.medium, tier.crumb.colour), body.bare, body.crumbed
    if not isinstance(tier.final, NoFinal):
        yield "final", hex_of(tier.final.medium, tier.final.colour), body.crumbed, body.coated
    if not isinstance(tier.cover, NoCover):
        yield "cover", hex_of(tier.cover.medium, tier.cover.colour), body.coated, body.covered


def _inside(
    place: str, tier: Tier, layers: LayersPlan, radius: float, foot: float, fill_hex: str, dam_hex: str
) -> Iterator[Part]:
    """Layers and fillings from the foot up, each filling with its seal below and its dam at the rim."""
    cut_mm, filling = layers.cut_height.value, layers.filling
    gap_mm = filling.thickness.value
    dam_mm = min(filling.dam_width.value, radius) if filling.dam_width else 0.0
    seal_mm = min(filling.seal_thickness.value, gap_mm) if filling.seal_thickness else 0.0
    inside = radius - dam_mm
    for index in range(tier.layers.count):
        bottom = foot + index * (cut_mm + gap_mm)
        top = bottom + cut_mm
        yield Part(place=place, kind="sponge", hex=SPONGE_HEX, outline=slab(0, radius, bottom, top))
        if index == tier.layers.count - 1:
            return
        rooms: tuple[tuple[PartKind, str, list[Point], bool], ...] = (
            ("seal", dam_hex, slab(0, inside, top, top + seal_mm), seal_mm > 0 < inside),
            ("filling", fill_hex, slab(0, inside, top + seal_mm, top + gap_mm), seal_mm < gap_mm and inside > 0),
            ("dam", dam_hex, slab(inside, radius, top, top + gap_mm), dam_mm > 0),
        )
        for kind, hex, outline, there in rooms:
            if there:
                yield Part(place=f"{place}.filling", kind=kind, hex=hex, outline=outline)
