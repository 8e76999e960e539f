"""The rules layers and fillings are worked out by: heights, cuts, slabs, dams and hidden cavities."""

import math

from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.kernel.figures import COMMON_PRACTICE, DEFINITION, rule


@rule(
    "layers.cake_diameter",
    unit="mm",
    formula="tin - 2 * (shrinkage + skin)",
    source=COMMON_PRACTICE,
    words="The tin's diameter, less what the cake shrinks in it and the browned skin you trim off, on both sides.",
)
def cake_diameter(tin_mm: float, shrinkage_mm: float, skin_mm: float) -> float:
    """Diameter of the trimmed cake, mm: tin - 2 x (shrinkage + skin). Source: common practice.

    >>> cake_diameter(254, 2, 2)
    246
    """
    return tin_mm - 2 * (shrinkage_mm + skin_mm)


@rule(
    "layers.height",
    unit="mm",
    formula="layers * cut + fillings * filling",
    words="Every layer at its cut height, and a filling between each two.",
)
def stacked_height(layers_count: int, cut_mm: float, fillings_count: int, filling_mm: float) -> float:
    """Height of the bare, filled cake, mm: layers x cut + fillings x filling. Source: geometry.

    >>> stacked_height(3, 30, 2, 6)
    102
    """
    return layers_count * cut_mm + fillings_count * filling_mm


@rule(
    "layers.height_with_board",
    unit="mm",
    formula="layers * cut + fillings * filling + board",
    words="Every layer at its cut height, a filling between each two, and the hidden board in place of one filling.",
)
def stacked_height_with_board(
    layers_count: int, cut_mm: float, fillings_count: int, filling_mm: float, board_mm: float
) -> float:
    """Height of a double-height cake, mm: layers x cut + fillings x filling + board. Source: geometry.

    >>> stacked_height_with_board(4, 24, 2, 6, 3)
    111
    """
    return layers_count * cut_mm + fillings_count * filling_mm + board_mm


@rule(
    "layers.shared_cut",
    unit="mm",
    formula="(height - between) / layers",
    words="What the fillings, boards and a dome that is left on leave of the height, shared among the layers.",
)
def shared_cut(height_mm: float, between_mm: float, layers_count: int) -> float:
    """Cut height of each layer of a body of fixed height, mm: (height - between) / layers. Source: geometry.

    >>> round(shared_cut(200, 12, 3), 2)
    62.67
    """
    return (height_mm - between_mm) / layers_count


@rule(
    "layers.filling_count",
    unit="each",
    formula="layers - 1 - boards",
    source=DEFINITION,
    words="One filling between each two layers, but none where a hidden board lies.",
)
def filling_count(layers_count: int, boards_count: int) -> float:
    """Number of fillings: layers - 1 - hidden boards. Source: definition.

    >>> filling_count(3, 0)
    2
    """
    return layers_count - 1 - boards_count


@rule(
    "layers.tin_cut",
    unit="mm",
    formula="depth - level",
    source=COMMON_PRACTICE,
    rounding="down",
    words="A tin baked to its rim, less what is levelled off with the dome.",
)
def tin_cut(depth_mm: float, level_mm: float) -> float:
    """What a tin of that depth gives once it is levelled, mm: depth - levelled. Source: common practice.

    >>> tin_cut(50.8, 5)
    45.8
    """
    return depth_mm - level_mm


@rule(
    "layers.tins",
    unit="each",
    formula="ceil(layers / slices)",
    source=DEFINITION,
    rounding="up",
    words="The layers of the tier, as many from each tin.",
)
def tins_for(layers_count: int, slices_count: int) -> float:
    """Tins to bake: layers / layers from each, up. Source: definition.

    >>> tins_for(3, 1)
    3
    """
    return math.ceil(layers_count / slices_count)


@rule(
    "layers.tin_depth",
    unit="mm",
    formula="slices * cut + level",
    source=COMMON_PRACTICE,
    rounding="up",
    words="What is cut from one tin, and what is levelled off with the dome: the tin is to be as deep as that.",
)
def tin_depth(slices_count: int, cut_mm: float, level_mm: float) -> float:
    """How deep a tin must be for what is cut from it, mm: slices x cut + levelled. Source: common practice.

    >>> tin_depth(1, 30, 5)
    35
    """
    return slices_count * cut_mm + level_mm


@rule(
    "layers.slice_height",
    unit="mm",
    formula="common / slices",
    rounding="down",
    words="The common cut, shared among the slices each layer is torted into.",
)
def slice_height(common_mm: float, slices_count: int) -> float:
    """Height of one torted slice, mm: common cut / slices. Source: geometry.

    >>> slice_height(51.5, 2)
    25.75
    """
    return common_mm / slices_count


@rule(
    "layers.slices",
    unit="each",
    formula="baked * slices",
    source=DEFINITION,
    words="Each baked layer gives so many slices.",
)
def slices(baked_count: int, slices_count: int) -> float:
    """Layers to stack from what is baked: baked x slices of each. Source: definition.

    >>> slices(3, 2)
    6
    """
    return baked_count * slices_count


@rule(
    "layers.spread",
    unit="mm",
    formula="thickness / (1 - settling)",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The filling is spread a little thicker than it ends, since the weight above settles it.",
)
def spread_thickness(thickness_mm: float, settling: float) -> float:
    """Thickness to spread so that the filling settles to `thickness_mm`: thickness / (1 - settling).

    That a filling settles is common practice; the share is this kitchen's own.

    >>> round(spread_thickness(6, 0.05), 2)
    6.32
    """
    return thickness_mm / (1 - settling)


@rule(
    "layers.without_cavity",
    unit="ml",
    formula="whole - cavity",
    words="The whole, less what the hidden cavity takes out of it.",
)
def without_cavity(whole_ml: float, cavity_ml: float) -> float:
    """Volume left round a cavity, ml: whole - cavity. Source: geometry.

    >>> without_cavity(720, 50.9)
    669.1
    """
    return whole_ml - cavity_ml


@rule(
    "layers.cake_as_measured",
    unit="ml",
    formula="max(0, planned + measured - whole)",
    words="The cake as planned, and what the cake as measured is larger or smaller than the whole that was planned.",
)
def cake_as_measured(planned_ml: float, measured_ml: float, whole_ml: float) -> float:
    """Volume of the layers of a measured cake, ml: planned layers + measured cake - planned whole. The fillings stay
    as they were planned. Source: geometry.

    >>> round(cake_as_measured(1746.6, 1704.6, 1947), 2)
    1504.2
    """
    return max(0.0, planned_ml + measured_ml - whole_ml)


@rule(
    "layers.cavity",
    unit="ml",
    formula="pi / 4 * across**2 * high / 1000",
    rounding="down",
    words="The room inside, a cylinder: what it holds of sweets.",
)
def cavity_volume(across_mm: float, high_mm: float) -> float:
    """Volume of the hidden cavity, ml: pi/4 d² h / 1000. Source: geometry (cylinder).

    >>> round(cavity_volume(60, 66), 2)
    186.61
    """
    return math.pi / 4 * across_mm**2 * high_mm / MM3_PER_ML


@rule(
    "layers.cavity_wall",
    unit="mm",
    formula="nearest - across / 2",
    words="The cake left standing round the hidden cavity, where the wall comes nearest to it.",
)
def cavity_wall(nearest_mm: float, across_mm: float) -> float:
    """Least thickness of the cake round the cavity, mm: from the axis to the nearest wall - cavity / 2.

    Below 0 the room breaks through the wall. Source: geometry.

    >>> cavity_wall(0, 70)
    -35.0
    """
    return nearest_mm - across_mm / 2


@rule(
    "layers.offcut",
    unit="g",
    formula="(stack - carved) * density",
    words="The cake that your knife takes off the stacked layers.",
)
def offcut(stack_ml: float, carved_ml: float, density_g_per_ml: float) -> float:
    """Weight carved off, g: (stack - carved) x density. Source: geometry.

    >>> round(offcut(3600, 2776.6, 0.5), 2)
    411.7
    """
    return (stack_ml - carved_ml) * density_g_per_ml


@rule(
    "layers.hidden_board",
    unit="mm",
    formula="cake - 2 * margin",
    source=COMMON_PRACTICE,
    words="A hidden board is a little smaller than the cake, so that the coat hides its edge.",
)
def hidden_board(cake_mm: float, margin_mm: float) -> float:
    """Diameter of a hidden board, mm: cake - 2 x margin; 1 in smaller than the cake (common practice).

    >>> hidden_board(200, 12.7)
    174.6
    """
    return cake_mm - 2 * margin_mm


@rule(
    "layers.slab_volume",
    unit="ml",
    formula="slabs * area * thickness / 1000",
    words="A slab of that area and thickness, as many times as there are.",
)
def slab_volume(slabs_count: float, area_mm2: float, thickness_mm: float) -> float:
    """Volume of equal slabs, ml: n x area x t / 1000. Source: geometry (prism).

    >>> slab_volume(2, 40115, 1)
    80.23
    """
    return slabs_count * area_mm2 * thickness_mm / MM3_PER_ML


@rule(
    "layers.dam_volume",
    unit="ml",
    formula="slabs * (area - inside) * thickness / 1000",
    words="A ring at the rim, as high as the filling: the whole area less the area inside the ring.",
)
def dam_volume(slabs_count: float, area_mm2: float, inside_mm2: float, thickness_mm: float) -> float:
    """Volume of the dams, ml: n x (area - area inside) x t / 1000. Source: geometry.

    >>> round(dam_volume(2, 40000, 35344, 6), 2)
    55.87
    """
    return slabs_count * (area_mm2 - inside_mm2) * thickness_mm / MM3_PER_ML


@rule(
    "layers.soft_filling_volume",
    unit="ml",
    formula="slabs * inside * (thickness - seal) / 1000",
    words="The area inside the dam, filled to the height of the dam above the seal.",
)
def soft_filling_volume(slabs_count: float, inside_mm2: float, thickness_mm: float, seal_mm: float) -> float:
    """Volume inside the dams above the seal, ml. Source: geometry.

    >>> soft_filling_volume(2, 40115, 6, 1)
    401.15
    """
    return slabs_count * inside_mm2 * (thickness_mm - seal_mm) / MM3_PER_ML


@rule(
    "layers.target.bare_height",
    unit="mm",
    formula="target - above",
    words="The finished height asked for, less the coats and the cover that lie on top.",
)
def target_bare_height(target_mm: float, above_mm: float) -> float:
    """Height the bare cake must reach, mm: target - all that lies above it. Source: geometry.

    >>> target_bare_height(127, 14)
    113
    """
    return target_mm - above_mm


@rule(
    "layers.target.missing",
    unit="mm",
    formula="wanted - reached",
    words="The height wanted of the bare cake, less the height it reaches; below zero it is too tall.",
)
def target_missing(wanted_mm: float, reached_mm: float) -> float:
    """How much the bare cake falls short, mm; negative when it is too tall. Source: geometry.

    >>> target_missing(113, 108)
    5
    """
    return wanted_mm - reached_mm


@rule(
    "layers.target.filling_thickness",
    unit="mm",
    formula="(wanted - layers * cut) / (layers - 1)",
    words="What the layers leave of the height wanted, shared among the fillings.",
)
def filling_for_height(wanted_mm: float, layers_count: int, cut_mm: float) -> float:
    """Filling thickness that reaches a bare height, mm. Source: geometry.

    Raises ZeroDivisionError for a single layer, which has no filling.

    >>> round(filling_for_height(113, 4, 25), 2)
    4.33
    """
    return (wanted_mm - layers_count * cut_mm) / (layers_count - 1)


@rule(
    "layers.target.cut_height",
    unit="mm",
    formula="(wanted - (layers - 1) * filling) / layers",
    rounding="nearest",
    words="What the fillings leave of the height wanted, shared among the layers.",
)
def cut_for_height(wanted_mm: float, layers_count: int, filling_mm: float) -> float:
    """Cut height that reaches a bare height, mm. Source: geometry.

    >>> cut_for_height(113, 4, 6)
    23.75
    """
    return (wanted_mm - (layers_count - 1) * filling_mm) / layers_count
