"""How a tier looks while a step of its work lasts."""

from collections.abc import Sequence
from typing import Literal

from amber_spread.core.clock.steps import Step
from amber_spread.core.kernel.task import State

Look = Literal["warm", "soft", "cold", "firm", "covered"]
"""How something looks while a step lasts."""


def looks_of(steps: Sequence[Step]) -> dict[str, Look]:
    """How each of some steps looks, in the order of the clock: by where it is, and by what was done before."""
    left: dict[int | None, set[State]] = {}
    found: dict[str, Look] = {}
    for one in steps:
        states = left.setdefault(one.tier, set())
        if one.row.leaves is not None and one.on == "tier":
            states.add(one.row.leaves)
        found[one.id] = _look(one, states)
    return found


def _look(step: Step, states: set[State]) -> Look:
    if step.row.place in ("oven", "rack"):
        return "warm"
    if step.on == "cake" or "covered" in states:
        return "covered"
    if step.hands is None and step.row.place in ("fridge", "freezer"):
        return "firm" if "coat soft" in states else "cold"
    return "soft"
