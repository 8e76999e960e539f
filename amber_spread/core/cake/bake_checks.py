"""What to know about how a carved tier is baked: too often, in too small an oven, or short of crumbs for its paste."""

from collections.abc import Iterator

from amber_spread.core.cake.bakes import CarvedBake
from amber_spread.core.design.builds import Carvable
from amber_spread.core.kernel.check import Check, checker, measure, mm
from amber_spread.core.tier import PlannedTier


def checks_of_bake(number: int, done: PlannedTier, baked: CarvedBake) -> Iterator[Check]:
    """Everything to know about how carved tier `number` is baked."""
    check, build = checker(number), done.tier.asked.build
    most = build.most_bakes if isinstance(build, Carvable) else None
    if most is not None and baked.bakes.value > most:
        yield check(
            "carve.bakes",
            "care",
            "body",
            f"Out of the tins you own all of it takes {baked.bakes.value:.0f} bakes at least, more than the {most} you "
            "allow. Own a deeper or a wider tin, make fewer layers, or allow more.",
        )
    if baked.loads is None:
        largest = max((tin.length or tin.across).value for tin in baked.tins.values())
        yield check(
            "carve.oven",
            "trouble",
            "body",
            "A tin of {tin} does not go into the oven, whose shelf is {wide} by {deep}, with an inch of air round it. "
            "Carve out of smaller tins side by side, or say how large the oven is among the kitchen's usual.",
            tin=mm(largest),
            wide=mm(done.tier.usual.oven_wide_mm),
            deep=mm(done.tier.usual.oven_deep_mm),
        )
    if baked.built_paste is not None and baked.built_paste.value > baked.paste.value:
        yield check(
            "carve.paste_short",
            "trouble",
            "body",
            "Beyond its tins it takes {built} of modelling paste, and what is carved off makes {paste}. Bake more cake "
            "for crumbs, or let paste build out less.",
            built=measure(baked.built_paste),
            paste=measure(baked.paste),
        )
