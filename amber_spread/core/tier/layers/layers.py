"""Layers and fillings of one tier: the bare cake, its height, and what reaches a height that was asked for."""

import math
from typing import Literal

from amber_spread.core.design.builds import BallBuild
from amber_spread.core.design.design import Layers, MeasuredBake
from amber_spread.core.design.finishes import PlainFilling
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body, Solid, Straight
from amber_spread.core.geometry.flat.outline import Outline, Round
from amber_spread.core.geometry.flat.traced import Traced
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over, decided, of_parts, parts_rule, total
from amber_spread.core.kernel.limits import LAYER_COUNT, TORTE
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.layers.hidden import CavityPlan, HiddenBoard, Room, plan_hidden_board, plan_room, room_in
from amber_spread.core.tier.layers.rules import (
    cake_diameter,
    cut_for_height,
    dam_volume,
    filling_count,
    filling_for_height,
    offcut,
    shared_cut,
    slab_volume,
    slice_height,
    slices,
    soft_filling_volume,
    spread_thickness,
    stacked_height,
    stacked_height_with_board,
    target_bare_height,
    target_missing,
    tin_cut,
    tin_depth,
    tins_for,
    without_cavity,
)
from amber_spread.core.tier.layers.slabs import Slab, slabs_of, volume_over

_COMMON = parts_rule(
    "layers.common_cut",
    "The lowest edge of all the baked layers: every one of them can be levelled to that.",
    "least",
    "geometry",
)


class FillingPlan(PlanPart):
    """All the fillings of a tier taken together; a plain one has neither dam nor seal."""

    soft: bool
    count: Figure
    thickness: Figure
    spread: Figure
    volume: Figure
    weight: Figure
    dam_width: Figure | None = None
    dam_volume: Figure | None = None
    dam_weight: Figure | None = None
    seal_thickness: Figure | None = None
    seal_volume: Figure | None = None
    seal_weight: Figure | None = None


class OtherCount(PlanPart):
    """Another number of layers that would reach the target, and the cut it needs."""

    count: Figure
    cut_height: Figure


class TargetPlan(PlanPart):
    """What reaches the finished height asked for: one change at a time, None where that change cannot."""

    height: Figure
    bare_height: Figure
    missing: Figure
    filling_thickness: Figure | None
    cut_height: Figure | None
    other_count: OtherCount | None


class BakePlan(PlanPart):
    """What the baked layers allow: the cut common to all, the height of each slice, and how many slices there are."""

    common_cut: Figure
    slice_height: Figure
    slices: Figure


class LayerPlace(PlanPart):
    """Where one layer goes: counted from the foot, cut from which baked layer, and which way up."""

    number: int
    baked: int
    slice: int
    way: Literal["tin side down", "cut sides in", "turned over, tin side up"]


class SyrupPlan(PlanPart):
    """Syrup for every layer of a tier."""

    soak: Figure
    volume: Figure
    weight: Figure


class LayersPlan(PlanPart):
    """The bare, filled cake of one tier."""

    cake_diameter: Figure
    cake_length: Figure | None
    area: Figure
    count: Figure
    cut_height: Figure
    filling: FillingPlan
    height: Figure
    cake_volume: Figure
    cake_weight: Figure
    offcut: Figure | None
    target: TargetPlan | None
    bake: BakePlan | None
    tins: Figure | None
    slices_each: Figure | None
    tin_depth: Figure | None
    order: list[LayerPlace]
    board: HiddenBoard | None
    cavity: CavityPlan | None
    syrup: SyrupPlan | None


def area_inside(outline: Outline, dam_mm: float) -> float:
    """The area left inside a dam of that width, mm²; 0 where the dam leaves none."""
    try:
        return outline.offset(-dam_mm).area_mm2
    except ValueError:
        return 0.0


def trimmed(tier: SettledTier) -> Outline:
    """The tin's outline less what the cake shrinks in it and the skin trimmed off, or the width asked for of a body
    with an outline of its own.

    Raises ValueError where nothing is left of it.
    """
    if tier.asked.build.own_outline:
        return Round(tier.asked.tin_diameter_mm / 2)
    return tier.asked.shape.outline(tier.asked.tin_diameter_mm).offset(-tier.usual.narrower_mm)


def plan_layers(tier: SettledTier, media: dict[str, Medium], above_mm: float) -> tuple[LayersPlan, Body, list[Slab]]:
    """The layers of a tier, the bare body they make, and what lies at which height in it.

    `above_mm` is the thickness of every coat and cover on top, which a target height has to hold.
    Raises ValueError when the build cannot be made of these layers; the message says why.
    """
    layers = tier.asked.layers
    outline = trimmed(tier)
    bake = _plan_bake(tier)
    boards = 0 if layers.board_after is None else 1
    board_mm = tier.usual.tier_board_mm * boards
    count = filling_count.figure(layers.count, boards)
    thickness = tier.filling
    cut, height = _heights(tier, bake, outline, int(count.value), thickness.value, board_mm)
    body = tier.asked.build.body(outline, height.value)
    slabs = slabs_of(layers, cut.value, thickness.value, board_mm, tier.dome_mm)
    room = room_in(layers, body, slabs)
    hollow = plan_room(tier, room) if room else None
    filling = _plan_filling(tier, media, outline, body, slabs, count, room)
    area = outline.area_figure()
    stack = slab_volume.figure(layers.count, area.value, cut.value)
    cake = stack
    if not isinstance(body, Straight):
        cake = volume_over(body, slabs, "layer")
    if room:
        cake = without_cavity.figure(cake.value, min(cake.value, room.of(slabs, "layer")))
    carved_ml = sum(body.volume_between(slab.low, slab.high) for slab in slabs if slab.kind == "layer")
    density = tier.usual.cake_density_g_per_ml
    plan = LayersPlan(
        cake_diameter=decided(tier.asked.tin_diameter_mm, "mm")
        if tier.asked.build.own_outline
        else carry_over("trimmed cake at its widest", 2 * outline.half_width_mm, "mm")
        if isinstance(outline, Traced)
        else cake_diameter.figure(tier.asked.tin_diameter_mm, tier.usual.shrinkage_mm, tier.usual.trimmed_skin_mm),
        cake_length=length_of(body.outline if tier.asked.build.own_outline else outline),
        area=area,
        count=decided(layers.count, "each"),
        cut_height=cut,
        filling=filling,
        height=height,
        cake_volume=cake,
        cake_weight=weight.figure(cake.value, density),
        # What is carved off depends on what each layer is baked in (`cake/bakes.py`); half balls come out of their tins
        # as they are.
        offcut=None
        if isinstance(body, Straight) or tier.asked.build.carved or tier.asked.build.half_balls
        else offcut.figure(stack.value, carved_ml, density),
        target=_plan_target(tier, thickness.value, cut.value, height.value, above_mm, board_mm)
        if not tier.asked.build.own_height
        else None,
        bake=bake,
        **_plan_tins(tier, cut.value),
        order=_order(layers, slices_from_a_tin(tier, cut.value)),
        board=plan_hidden_board(tier, slabs, body),
        cavity=hollow,
        syrup=_plan_syrup(tier, media, area.value, body, slabs, room),
    )
    return plan, body, slabs


def _heights(
    tier: SettledTier, bake: BakePlan | None, outline: Outline, fillings: int, filling_mm: float, board_mm: float
) -> tuple[Figure, Figure]:
    """The cut height of a layer and the height they make; a ball's own height sets the cut instead."""
    layers = tier.asked.layers
    if tier.asked.build.own_height:
        own = tier.asked.build.own_height_mm(outline)
        cut = shared_cut.figure(own, fillings * filling_mm + board_mm + tier.dome_mm, layers.count)
        if cut.value <= 0:
            raise ValueError(
                "its fillings and its dome are thicker than the cake; take fewer layers, or make them thinner"
            )
        return cut, carry_over("height the shape gives", own, "mm")
    if layers.height_mm is not None:
        cut = decided(layers.height_mm, "mm")
    else:
        assert bake is not None
        cut = bake.slice_height
    if board_mm:
        return cut, stacked_height_with_board.figure(layers.count, cut.value, fillings, filling_mm, board_mm)
    return cut, stacked_height.figure(layers.count, cut.value, fillings, filling_mm)


def _plan_bake(tier: SettledTier) -> BakePlan | None:
    layers = tier.asked.layers
    bake = layers.bake
    if bake is None:
        return None
    if isinstance(bake, MeasuredBake):
        edges = {f"baked {number}": edge for number, edge in enumerate(bake.edges_mm, 1)}
        common, baked = of_parts(_COMMON, min(bake.edges_mm), edges, "mm"), len(bake.edges_mm)
    else:
        common, baked = tin_cut.figure(bake.depth_mm, tier.usual.level_mm), math.ceil(layers.count / bake.torte)
    return BakePlan(
        common_cut=common,
        slice_height=slice_height.figure(common.value, bake.torte),
        slices=slices.figure(baked, bake.torte),
    )


def _order(layers: Layers, torte: int) -> list[LayerPlace]:
    """Bottoms of tins to the outside, cut faces inward, the last layer turned over so that the tin's face is the top.

    The slices of a baked layer are counted from the tin's face; the last one goes on upside down, and each once.
    """
    count = layers.count
    last_baked = (count - 1) // torte
    places = []
    for number in range(1, count + 1):
        baked, slice = divmod(number - 1, torte)
        turned = baked == last_baked and last_baked > 0
        if turned:
            slice = count - number
        way: Literal["tin side down", "cut sides in", "turned over, tin side up"] = "cut sides in"
        if number == 1:
            way = "tin side down"
        elif turned and slice == 0:
            way = "turned over, tin side up"
        places.append(LayerPlace(number=number, baked=baked + 1, slice=slice + 1, way=way))
    return places


def slices_from_a_tin(tier: SettledTier, cut_mm: float) -> int:
    """How many layers one baked tin is cut into: as said, or as many as its depth gives once it is levelled."""
    layers, usual = tier.asked.layers, tier.usual
    if isinstance(tier.asked.build, BallBuild):
        return math.ceil(layers.count / tier.asked.build.halves)
    if layers.bake is not None:
        return layers.bake.torte
    return max(1, min(layers.count, int(TORTE.high), math.floor((usual.tin_depth_mm - usual.level_mm) / cut_mm)))


def _plan_tins(tier: SettledTier, cut_mm: float) -> dict[str, Figure | None]:
    """How many tins are still to be baked, in how many layers each is cut, and how deep they must be."""
    layers = tier.asked.layers
    if isinstance(layers.bake, MeasuredBake):
        return {"tins": None, "slices_each": None, "tin_depth": None}
    each = slices_from_a_tin(tier, cut_mm)
    if isinstance(tier.asked.build, BallBuild):
        return {
            "tins": carry_over("half-ball tins", tier.asked.build.halves, "each"),
            "slices_each": carry_over("layers a tin gives", each, "each"),
            "tin_depth": carry_over("half the ball", tier.asked.tin_diameter_mm / 2, "mm"),
        }
    if tier.asked.build.carved:
        deep = tin_depth.figure(min(each, layers.count), cut_mm, tier.usual.level_mm)
        return {"tins": None, "slices_each": None, "tin_depth": deep}
    return {
        "tins": tins_for.figure(layers.count, each),
        "slices_each": decided(each, "each") if layers.bake else carry_over("layers a tin gives", each, "each"),
        "tin_depth": tin_depth.figure(min(each, layers.count), cut_mm, tier.usual.level_mm),
    }


def _plan_syrup(
    tier: SettledTier,
    media: dict[str, Medium],
    area_mm2: float,
    body: Solid,
    slabs: list[Slab],
    room: Room | None,
) -> SyrupPlan | None:
    """Syrup on the upper face of every layer, as that face is once the cake is carved and hollowed."""
    syrup = tier.asked.layers.syrup
    if syrup is None:
        return None
    soak = tier.settled(syrup, "soak_mm")
    if isinstance(body, Straight) and room is None:
        volume = slab_volume.figure(tier.asked.layers.count, area_mm2, soak.value)
    else:
        faces = {
            f"layer {slab.number}": max(
                0.0,
                body.section(min(slab.high, body.height_mm * (1 - 1e-9))).area_mm2
                - (room.area_mm2 if room and room.first <= slab.number <= room.last else 0.0),
            )
            for slab in slabs
            if slab.kind == "layer"
        }
        volume = total({name: slab_volume(1, area, soak.value) for name, area in faces.items()}, "ml")
    return SyrupPlan(soak=soak, volume=volume, weight=weight.figure(volume.value, media[syrup.medium].density_g_per_ml))


def length_of(outline: Outline) -> Figure | None:
    """The length of an outline as a figure, where it is not the same as its width."""
    if abs(outline.half_length_mm - outline.half_width_mm) < 0.05:
        return None
    return carry_over("length from above", 2 * outline.half_length_mm, "mm")


def _plan_filling(
    tier: SettledTier,
    media: dict[str, Medium],
    outline: Outline,
    body: Solid,
    slabs: list[Slab],
    count: Figure,
    room: Room | None,
) -> FillingPlan:
    filling, thickness = tier.asked.filling, tier.filling
    density = media[filling.medium].density_g_per_ml
    spread = spread_thickness.figure(thickness.value, tier.usual.settling)
    common = {"count": count, "thickness": thickness, "spread": spread}
    own = [slab for slab in slabs if slab.kind == "filling"]
    if isinstance(filling, PlainFilling):
        if isinstance(body, Straight):
            volume = slab_volume.figure(count.value, outline.area_mm2, thickness.value)
        else:
            volume = volume_over(body, slabs, "filling")
        if room:
            volume = without_cavity.figure(volume.value, min(volume.value, room.of(slabs, "filling")))
        return FillingPlan(soft=False, volume=volume, weight=weight.figure(volume.value, density), **common)
    dam_width, seal = tier.dam, tier.settled(filling, "seal_mm")
    assert dam_width is not None
    seal_mm = min(seal.value, thickness.value)
    if isinstance(body, Straight) and room is None:
        area_mm2, inside_mm2 = outline.area_mm2, area_inside(outline, dam_width.value)
        volume = soft_filling_volume.figure(count.value, inside_mm2, thickness.value, seal_mm)
        dam = dam_volume.figure(count.value, area_mm2, inside_mm2, thickness.value)
        sealed = slab_volume.figure(count.value, inside_mm2, seal_mm)
    else:
        gap_ml = thickness.value / MM3_PER_ML
        inside, ring = {}, {}
        for slab in own:
            name = f"filling {slab.number}"
            whole = area_inside(body.section((slab.low + slab.high) / 2), dam_width.value)
            out = room.area_mm2 if room and room.holds(slab) else 0.0
            # What a room takes beyond the inside of the dam it takes out of the dam.
            inside[name] = max(0.0, whole - out)
            wall_ml = body.volume_between(slab.low, slab.high) - whole * gap_ml - max(0.0, out - whole) * gap_ml
            ring[name] = max(0.0, wall_ml)
        volume = total(
            {name: soft_filling_volume(1, area, thickness.value, seal_mm) for name, area in inside.items()}, "ml"
        )
        dam = total(ring, "ml")
        sealed = total({name: slab_volume(1, area, seal_mm) for name, area in inside.items()}, "ml")
    stiff = media[filling.dam_medium].density_g_per_ml
    return FillingPlan(
        soft=True,
        volume=volume,
        weight=weight.figure(volume.value, density),
        dam_width=dam_width,
        dam_volume=dam,
        dam_weight=weight.figure(dam.value, stiff),
        seal_thickness=seal,
        seal_volume=sealed,
        seal_weight=weight.figure(sealed.value, stiff),
        **common,
    )


def _plan_target(
    tier: SettledTier,
    filling_mm: float,
    cut_mm: float,
    reached_mm: float,
    above_mm: float,
    board_mm: float,
) -> TargetPlan | None:
    """One change at a time that reaches the target, each only within what this kitchen does; none once it is built and
    measured.
    """
    layers = tier.asked.layers
    if layers.target_height_mm is None:
        return None
    if tier.asked.measured is not None:
        bare = target_bare_height.figure(layers.target_height_mm, above_mm)
        return TargetPlan(
            height=decided(layers.target_height_mm, "mm"),
            bare_height=bare,
            missing=target_missing.figure(bare.value, max(tier.asked.measured.heights_mm)),
            filling_thickness=None,
            cut_height=None,
            other_count=None,
        )
    bare = target_bare_height.figure(layers.target_height_mm, above_mm)
    # A hidden board stands in place of one filling: the rest has to be reached without both.
    wanted = bare.value + ((filling_mm - board_mm) if board_mm else 0.0)
    filling = None
    if layers.count > 1 and not board_mm:
        thickness_mm = filling_for_height(wanted, layers.count, cut_mm)
        if tier.usual.filling_least_mm <= thickness_mm <= tier.usual.filling_most_mm:
            filling = filling_for_height.figure(wanted, layers.count, cut_mm)
    cut = None
    if tier.usual.cut_least_mm <= cut_for_height(wanted, layers.count, filling_mm) <= cut_mm:
        cut = cut_for_height.figure(wanted, layers.count, filling_mm)
    return TargetPlan(
        height=decided(layers.target_height_mm, "mm"),
        bare_height=bare,
        missing=target_missing.figure(bare.value, reached_mm),
        filling_thickness=filling,
        cut_height=cut,
        other_count=_other_count(tier, filling_mm, cut_mm, wanted),
    )


def _other_count(tier: SettledTier, filling_mm: float, baked_mm: float, bare_mm: float) -> OtherCount | None:
    """The number of layers nearest the one decided that reaches `bare_mm` by cutting no layer higher than baked."""
    layers = tier.asked.layers
    counts = range(int(LAYER_COUNT.low), int(LAYER_COUNT.high) + 1)
    for count in sorted(counts, key=lambda other: abs(other - layers.count)):
        reaches = tier.usual.cut_least_mm <= cut_for_height(bare_mm, count, filling_mm) <= baked_mm
        below_board = layers.board_after is not None and count <= layers.board_after
        no_lid = layers.cavity is not None and count < 3
        if count != layers.count and reaches and not (below_board or no_lid):
            cut = cut_for_height.figure(bare_mm, count, filling_mm)
            return OtherCount(count=carry_over("layers", count, "each"), cut_height=cut)
    return None
