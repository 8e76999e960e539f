"""Layers and fillings of one tier: the bare cake, its height, and what reaches a height that was asked for."""

from amber_spread.core.base import Frozen
from amber_spread.core.body import MM3_PER_ML, Straight
from amber_spread.core.design import Layers, PlainFilling, Tier
from amber_spread.core.figures import COMMON_PRACTICE, DEFINITION, Figure, chosen, decided, rule, same
from amber_spread.core.limits import LAYER_COUNT
from amber_spread.core.media import Medium, weight
from amber_spread.core.outline import Outline
from amber_spread.core.practice import Practice


class FillingPlan(Frozen):
    """All the fillings of a tier taken together; a plain one has neither dam nor seal."""

    soft: bool
    count: Figure
    thickness: Figure
    volume: Figure
    weight: Figure
    dam_width: Figure | None = None
    dam_volume: Figure | None = None
    dam_weight: Figure | None = None
    seal_thickness: Figure | None = None
    seal_volume: Figure | None = None
    seal_weight: Figure | None = None


class OtherCount(Frozen):
    """Another number of layers that would reach the target, and the cut it needs."""

    count: Figure
    cut_height: Figure


class TargetPlan(Frozen):
    """What reaches the finished height asked for: one change at a time, None where that change cannot."""

    height: Figure
    bare_height: Figure
    missing: Figure
    filling_thickness: Figure | None
    cut_height: Figure | None
    other_count: OtherCount | None


class LayersPlan(Frozen):
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
    target: TargetPlan | None


@rule(
    "layers.cake_diameter", unit="mm", formula="tin - 2 * skin", source=COMMON_PRACTICE,
    words="The tin's diameter, less the browned skin trimmed off on both sides.",
)  # fmt: skip
def cake_diameter(tin_mm: float, skin_mm: float) -> float:
    """Diameter of the trimmed cake, mm: tin - 2 x skin. Source: common practice."""
    return tin_mm - 2 * skin_mm


@rule(
    "layers.height", unit="mm", formula="layers * cut + fillings * filling",
    words="Every layer at its cut height, and a filling between each two.",
)  # fmt: skip
def stacked_height(layers_count: int, cut_mm: float, fillings_count: int, filling_mm: float) -> float:
    """Height of the bare, filled cake, mm: layers x cut + fillings x filling. Source: geometry."""
    return layers_count * cut_mm + fillings_count * filling_mm


@rule(
    "layers.filling_count", unit="each", formula="layers - 1", source=DEFINITION,
    words="One filling between each two layers.",
)  # fmt: skip
def filling_count(layers_count: int) -> float:
    """Number of fillings: layers - 1. Source: definition."""
    return layers_count - 1


@rule(
    "layers.slab_volume", unit="ml", formula="slabs * area * thickness / 1000",
    words="A slab of that area and thickness, as many times as there are.",
)  # fmt: skip
def slab_volume(slabs_count: float, area_mm2: float, thickness_mm: float) -> float:
    """Volume of equal slabs, ml: n x area x t / 1000. Source: geometry (prism)."""
    return slabs_count * area_mm2 * thickness_mm / MM3_PER_ML


@rule(
    "layers.dam_volume", unit="ml", formula="slabs * (area - inside) * thickness / 1000",
    words="A ring at the rim, as high as the filling: the whole area less the area inside the ring.",
)  # fmt: skip
def dam_volume(slabs_count: float, area_mm2: float, inside_mm2: float, thickness_mm: float) -> float:
    """Volume of the dams, ml: n x (area - area inside) x t / 1000. Source: geometry."""
    return slabs_count * (area_mm2 - inside_mm2) * thickness_mm / MM3_PER_ML


@rule(
    "layers.soft_filling_volume", unit="ml", formula="slabs * inside * (thickness - seal) / 1000",
    words="The area inside the dam, filled to the height of the dam above the seal.",
)  # fmt: skip
def soft_filling_volume(slabs_count: float, inside_mm2: float, thickness_mm: float, seal_mm: float) -> float:
    """Volume inside the dams above the seal, ml. Source: geometry."""
    return slabs_count * inside_mm2 * (thickness_mm - seal_mm) / MM3_PER_ML


def area_inside(outline: Outline, dam_mm: float) -> float:
    """The area left inside a dam of that width, mm²; 0 where the dam leaves none."""
    try:
        return outline.offset(-dam_mm).area_mm2
    except ValueError:
        return 0.0


@rule(
    "layers.target.bare_height", unit="mm", formula="target - above",
    words="The finished height asked for, less the coats and the cover that lie on top.",
)  # fmt: skip
def target_bare_height(target_mm: float, above_mm: float) -> float:
    """Height the bare cake must reach, mm: target - all that lies above it. Source: geometry."""
    return target_mm - above_mm


@rule(
    "layers.target.missing", unit="mm", formula="wanted - reached",
    words="The height wanted of the bare cake, less the height it reaches; below zero it is too tall.",
)  # fmt: skip
def target_missing(wanted_mm: float, reached_mm: float) -> float:
    """How much the bare cake falls short, mm; negative when it is too tall. Source: geometry."""
    return wanted_mm - reached_mm


@rule(
    "layers.target.filling_thickness", unit="mm", formula="(wanted - layers * cut) / (layers - 1)",
    words="What the layers leave of the height wanted, shared among the fillings.",
)  # fmt: skip
def filling_for_height(wanted_mm: float, layers_count: int, cut_mm: float) -> float:
    """Filling thickness that reaches a bare height, mm. Source: geometry.

    Raises ZeroDivisionError for a single layer, which has no filling.
    """
    return (wanted_mm - layers_count * cut_mm) / (layers_count - 1)


@rule(
    "layers.target.cut_height", unit="mm", formula="(wanted - (layers - 1) * filling) / layers", rounding="nearest",
    words="What the fillings leave of the height wanted, shared among the layers.",
)  # fmt: skip
def cut_for_height(wanted_mm: float, layers_count: int, filling_mm: float) -> float:
    """Cut height that reaches a bare height, mm. Source: geometry."""
    return (wanted_mm - (layers_count - 1) * filling_mm) / layers_count


def plan_layers(
    tier: Tier, practice: Practice, media: dict[str, Medium], above_mm: float
) -> tuple[LayersPlan, Straight]:
    """The layers of a tier and the bare body they make.

    `above_mm` is the thickness of every coat and cover on top, which a target height has to hold.
    """
    layers = tier.layers
    outline = tier.shape.outline(tier.tin_diameter_mm).offset(-practice.trimmed_skin_mm)
    area = outline.area_figure()
    filling = _plan_filling(tier, practice, media, outline)
    thickness_mm = filling.thickness.value
    height = stacked_height.figure(layers.count, layers.height_mm, layers.count - 1, thickness_mm)
    cake = slab_volume.figure(layers.count, area.value, layers.height_mm)
    plan = LayersPlan(
        cake_diameter=cake_diameter.figure(tier.tin_diameter_mm, practice.trimmed_skin_mm),
        cake_length=length_of(outline),
        area=area,
        count=decided(layers.count, "each"),
        cut_height=decided(layers.height_mm, "mm"),
        filling=filling,
        height=height,
        cake_volume=cake,
        cake_weight=weight.figure(cake.value, practice.cake_density_g_per_ml),
        target=_plan_target(layers, practice, thickness_mm, height.value, above_mm),
    )
    return plan, Straight(outline, height.value)


def length_of(outline: Outline) -> Figure | None:
    """The length of an outline as a figure, where it is not the same as its width."""
    if abs(outline.half_length_mm - outline.half_width_mm) < 0.05:
        return None
    return same("length from above", 2 * outline.half_length_mm, "mm")


def _plan_filling(tier: Tier, practice: Practice, media: dict[str, Medium], outline: Outline) -> FillingPlan:
    filling = tier.filling
    count = filling_count.figure(tier.layers.count)
    thickness = chosen(filling.thickness_mm, practice.filling_mm, "mm")
    density = media[filling.medium].density_g_per_ml
    area_mm2 = outline.area_mm2
    if isinstance(filling, PlainFilling):
        volume = slab_volume.figure(count.value, area_mm2, thickness.value)
        return FillingPlan(
            soft=False, count=count, thickness=thickness, volume=volume, weight=weight.figure(volume.value, density)
        )
    dam_width = chosen(filling.dam_width_mm, thickness.value, "mm")
    inside_mm2 = area_inside(outline, dam_width.value)
    seal = chosen(filling.seal_mm, practice.seal_mm, "mm")
    seal_mm = min(seal.value, thickness.value)
    volume = soft_filling_volume.figure(count.value, inside_mm2, thickness.value, seal_mm)
    dam = dam_volume.figure(count.value, area_mm2, inside_mm2, thickness.value)
    sealed = slab_volume.figure(count.value, inside_mm2, seal_mm)
    stiff = media[filling.dam_medium].density_g_per_ml
    return FillingPlan(
        soft=True,
        count=count,
        thickness=thickness,
        volume=volume,
        weight=weight.figure(volume.value, density),
        dam_width=dam_width,
        dam_volume=dam,
        dam_weight=weight.figure(dam.value, stiff),
        seal_thickness=seal,
        seal_volume=sealed,
        seal_weight=weight.figure(sealed.value, stiff),
    )


def _plan_target(
    layers: Layers, practice: Practice, filling_mm: float, reached_mm: float, above_mm: float
) -> TargetPlan | None:
    """One change at a time that reaches the target, each only within what this kitchen does."""
    if layers.target_height_mm is None:
        return None
    bare = target_bare_height.figure(layers.target_height_mm, above_mm)
    filling = None
    if layers.count > 1:
        thickness_mm = filling_for_height(bare.value, layers.count, layers.height_mm)
        if practice.filling_least_mm <= thickness_mm <= practice.filling_most_mm:
            filling = filling_for_height.figure(bare.value, layers.count, layers.height_mm)
    cut = None
    if practice.cut_least_mm <= cut_for_height(bare.value, layers.count, filling_mm) <= layers.height_mm:
        cut = cut_for_height.figure(bare.value, layers.count, filling_mm)
    return TargetPlan(
        height=decided(layers.target_height_mm, "mm"),
        bare_height=bare,
        missing=target_missing.figure(bare.value, reached_mm),
        filling_thickness=filling,
        cut_height=cut,
        other_count=_other_count(layers, practice, filling_mm, bare.value),
    )


def _other_count(layers: Layers, practice: Practice, filling_mm: float, bare_mm: float) -> OtherCount | None:
    """The number of layers nearest the one decided that reaches `bare_mm` by cutting no layer higher than baked."""
    counts = range(int(LAYER_COUNT.low), int(LAYER_COUNT.high) + 1)
    for count in sorted(counts, key=lambda other: abs(other - layers.count)):
        reaches = practice.cut_least_mm <= cut_for_height(bare_mm, count, filling_mm) <= layers.height_mm
        if count != layers.count and reaches:
            cut = cut_for_height.figure(bare_mm, count, filling_mm)
            return OtherCount(count=same("layers", count, "each"), cut_height=cut)
    return None
