"""What a coat really took corrects how well the fridge or the freezer of a kitchen cools."""

import math
from typing import Literal

from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.firm_waits import InUse, shell_at
from amber_spread.core.clock.heat import Rooms, pace_from
from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.limits import COLD_PACE
from amber_spread.core.plan import Plan
from amber_spread.core.stock.composition import NO_RECIPES, Compositions
from amber_spread.core.stock.media import shelf

AS_PLANNED_MIN = 1.0
"""What took as long as planned, to within so much, corrects nothing."""


class WrongPace(FileError):
    """The step, or the minutes it took, cannot be."""

    def within(self, _: str) -> "WrongPace":
        """The same: what is wrong is beside the design file, wherever that stands."""
        return self


class Pace(PlanPart):
    """How well an appliance of this kitchen cools, as a share of what is usual, by what a coat took in it."""

    where: Literal["fridge", "freezer"]
    pace: float


def pace_of(document: Document, plan: Plan, step_id: str, took_min: float, made_of: Compositions = NO_RECIPES) -> Pace:
    """How well the fridge or the freezer cools, if the coat at a step took so many minutes to firm. Raises WrongPace
    where nothing firms in the cold at that step, or where no fridge or freezer would take so long.
    """
    usual = document.practice
    step = next((one for one in steps_of(document, plan, made_of) if one.id == step_id), None)
    if step is None or step.firming is None or step.row.firms is None or step.tier is None:
        raise WrongPace([complaint_at(("step",), "should be one at which a coat firms in the cold")])
    firming, level = step.firming, step.row.firms
    asked, done = document.design.tiers[step.tier - 1], plan.tiers[step.tier - 1]
    now, planned = getattr(usual, f"{firming.where}_pace"), firming.at(level)
    if planned is not None and abs(planned.value - took_min) <= AS_PLANNED_MIN:
        return Pace(where=firming.where, pace=now)
    shell = shell_at(step.row.kind, asked, done, InUse(usual, shelf(document.media), made_of))
    factor = pace_from(shell, Rooms.of(usual), firming.where == "freezer", level, took_min)
    if factor is None or not COLD_PACE.low <= factor * now <= COLD_PACE.high:
        words = f"{math.ceil(planned.value)} minutes are planned" if planned is not None else "it does not firm there"
        advice = "Check the temperatures, and what you timed"
        raise WrongPace([complaint_at(("took_min",), f"is too far off: {words}. {advice}")])
    return Pace(where=firming.where, pace=round(factor * now, 2))
