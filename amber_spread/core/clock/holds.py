"""Nothing stands about: where a tier would wait out of the fridge for hands to be free, it waits in it."""

from collections.abc import Mapping, Sequence
from itertools import pairwise

from amber_spread.core.clock.hours import DAY_MIN, Span
from amber_spread.core.clock.schedule import Timing
from amber_spread.core.clock.step_kinds import STEP_KINDS
from amber_spread.core.clock.steps import Step, step_name
from amber_spread.core.kernel.check import Said
from amber_spread.core.kernel.figures import carry_over

HOLD_FROM_MIN = 20
"""A tier that would stand about for so long is put in the fridge (from memory)."""


def with_holds(steps: Sequence[Step], timings: Mapping[str, Timing]) -> tuple[list[Step], dict[str, Timing]]:
    """The same steps and timings, and a wait in the fridge wherever a tier would stand about for `HOLD_FROM_MIN`
    between two of them, or overnight in one that is split.
    """
    found, timed = {one.id: one for one in steps}, dict(timings)
    whole = min((one for one in steps if one.on == "cake"), key=lambda one: timings[one.id].whole, default=None)
    for tier in sorted({one.tier for one in steps if one.tier is not None}):
        stays = [(span, one) for one in steps if one.tier == tier for span in timings[one.id].spans]
        stays += [(timings[whole.id].whole, whole)] if whole is not None else []
        stays.sort(key=lambda stay: stay[0])
        for (before, one), (after, then) in pairwise(stays):
            if after.start - before.end >= HOLD_FROM_MIN:
                hold = _hold(one, then is one, Span(before.end, after.start))
                found[hold.id], timed[hold.id] = hold, Timing((Span(before.end, after.start),), None, 0)
                if then is not one:
                    found[then.id] = found[then.id]._replace(after=(*found[then.id].after, hold.id))
    return list(found.values()), timed


def _hold(one: Step, split: bool, span: Span) -> Step:
    """The wait after a step, or between two parts of one that is `split`."""
    row = STEP_KINDS["hold"]
    return one._replace(
        id=f"{one.id}_hold_{span.start // DAY_MIN}" if split else f"{one.id}_hold",
        row=row,
        name=step_name(row, one.on, one.of),
        said=Said(text=row.does),
        hands=None,
        wait=carry_over("until the next step", span.end - span.start, "min"),
        waits=row.wait,
        firming=None,
        after=one.after if split else (one.id,),
        tasks=(),
    )
