"""A cake as it was measured: the straight, level body its coats go round, and what it takes to build it up to that."""

from amber_spread.core.design.builds import TaperedBuild
from amber_spread.core.design.finishes import Measured
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body, Carried, Straight
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.coats.rules import build_up_rise, build_up_side, build_up_volume
from amber_spread.core.tier.layers.slabs import Slab

COMPASS = ("back", "right", "front", "left")


class SidePlan(PlanPart):
    """One side of a cake that came out leaning or out of round: what it takes more than the straight wall, and the
    top.
    """

    foot: Figure
    top: Figure
    rise: Figure


class BuildUp(PlanPart):
    """What it takes to make a leaning or oval cake straight and level under its coat, and what had been planned."""

    width: Figure
    height: Figure
    planned_width: Figure
    planned_height: Figure
    trim: Figure
    sides: dict[str, SidePlan]
    volume: Figure
    weight: Figure


def as_measured(tier: SettledTier, bare: Body, slabs: list[Slab]) -> tuple[SettledTier, Body, list[Slab]]:
    """The tier, the body its coats go round and the levels in it, once the cake has been measured.

    The body is the planned one stretched to the widest and the highest measure, so that the whole cake lies within
    it; a tapered wall goes from the one measured end to the other. What was not measured stays as it was planned.
    Raises ValueError when such a body cannot be made.
    """
    measured = tier.asked.measured
    if measured is None:
        return tier, bare, slabs
    base = bare.base if isinstance(bare, Carried) else bare.outline
    wide, long = (max(ends) for ends in zip(measured.top_mm, measured.foot_mm, strict=True))
    outline = base.stretched(wide / bare.width_mm, long / bare.length_mm)
    height = max(measured.heights_mm)
    build = tier.asked.build
    if isinstance(build, TaperedBuild):
        across, along = measured.top_mm if build.narrow == "top" else measured.foot_mm
        narrow = min(max(across, along - (long - wide)), 2 * outline.half_width_mm)
        build = build.model_copy(update={"narrow_mm": narrow})
    body = build.body(outline, height)
    lift = body.height_mm / bare.height_mm
    return (
        SettledTier(tier.asked.model_copy(update={"build": build}), tier.usual),
        body,
        [Slab(slab.kind, slab.number, slab.low * lift, slab.high * lift) for slab in slabs],
    )


def measured_ml(measured: Measured, body: Body) -> float:
    """The volume of the cake as measured, ml, within the straight, level body made of its measures.

    The measured cake is the body's own outline stretched to each pair of widths, which makes a prismatoid: its
    volume is height / 6 x (foot + 4 middle + top) at the mean height (published: the prismoidal formula, as in
    Bronshtein and Semendyayev, Handbook of Mathematics, 3.3; chapter from memory). A body carved to a curve is taken
    as smaller than the level one by as much.
    """
    outline = body.base if isinstance(body, Carried) else body.outline
    mean_mm = sum(measured.heights_mm) / 4
    ends = [across * along for across, along in (measured.foot_mm, measured.top_mm)]
    middle = (measured.foot_mm[0] + measured.top_mm[0]) / 2 * (measured.foot_mm[1] + measured.top_mm[1]) / 2
    mean_mm2 = (ends[0] + 4 * middle + ends[1]) / 6
    box_mm2 = 4 * outline.half_width_mm * outline.half_length_mm
    if len(body_walls(body)) == 1:
        whole = outline.area_mm2 / box_mm2 * mean_mm2 * mean_mm / MM3_PER_ML
    else:
        whole = body.volume_ml * mean_mm2 / max(*ends, box_mm2) * mean_mm / body.height_mm
    return min(whole, body.volume_ml)


def body_walls(body: Body) -> list[object]:
    """The pieces of a body's wall, from the foot up: one where it goes straight from foot to top; none of a carved
    body.
    """
    if isinstance(body, Carried):
        return [piece for piece in body.profile if piece.face == "wall"]
    return [body] if isinstance(body, Straight) else []


def plan_build_up(tier: SettledTier, media: dict[str, Medium], body: Body, planned: Body) -> BuildUp | None:
    """A straight wall at the widest measure and a level top at the highest, less the cake as measured; None where the
    cake was not measured. `planned` is the body it was to be.
    """
    measured = tier.asked.measured
    if measured is None:
        return None
    width, height = max(*measured.top_mm, *measured.foot_mm), max(measured.heights_mm)
    oblong = abs(body.length_mm - body.width_mm) > 0.02 * body.width_mm
    wide, long = (body.width_mm, body.length_mm) if oblong else (width, width)
    volume = build_up_volume.figure(body.volume_ml, measured_ml(measured, body))
    tapered = tier.asked.build if isinstance(tier.asked.build, TaperedBuild) else None
    inward = wide - tapered.narrow_mm if tapered else 0.0
    less = {"foot": inward if tapered and tapered.narrow == "foot" else 0.0}
    less["top"] = inward - less["foot"]
    wanted = (long, wide, long, wide)
    sides = {
        name: SidePlan(
            foot=build_up_side.figure(wanted[index] - less["foot"], measured.foot_mm[1 - index % 2]),
            top=build_up_side.figure(wanted[index] - less["top"], measured.top_mm[1 - index % 2]),
            rise=build_up_rise.figure(height, measured.heights_mm[index]),
        )
        for index, name in enumerate(COMPASS)
    }
    medium = media[tier.outermost]
    return BuildUp(
        width=carry_over("widest measure", width, "mm"),
        height=carry_over("highest measure", height, "mm"),
        planned_width=carry_over("width of the cake as planned", planned.width_mm, "mm"),
        planned_height=carry_over("height of the cake as planned", planned.height_mm, "mm"),
        trim=build_up_rise.figure(height, min(measured.heights_mm)),
        sides=sides,
        volume=volume,
        weight=weight.figure(volume.value, medium.density_g_per_ml),
    )
