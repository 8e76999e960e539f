"""A step of the work on an order, and the steps of a whole order: those of its bowls, its tiers, and of putting it
together.
"""

import math
from collections.abc import Iterable, Mapping
from typing import Literal, NamedTuple

from amber_spread.core.bowls import COVER_TASKS
from amber_spread.core.cake import STACK_TASKS
from amber_spread.core.clock.heat import Firming
from amber_spread.core.clock.step_kinds import STEP_KINDS, StepKind, Wait
from amber_spread.core.kernel.check import RoundedQuantity, Said
from amber_spread.core.kernel.figures import Figure, of_parts, parts_rule, total
from amber_spread.core.kernel.task import Task, TaskKind, by_kind
from amber_spread.core.tier import CARVE_TASKS

MIX_TASKS = by_kind(
    # kind, verb, place, heading
    TaskKind("mind_hot", "mind", "bench", "Mix", caution=True),
)
TASK_KINDS = STACK_TASKS | CARVE_TASKS | COVER_TASKS | MIX_TASKS
HANDS_ON = parts_rule(
    "clock.hands_on",
    "Minutes to begin, and some more for every layer, litre or piece, or by the area. You may be faster or slower.",
    "sum",
    "from memory",
)
_WAIT_WORDS = "The wait that is planned, between the shortest and the longest. Go by the sign, not by the clock."
WAITS: dict[str, str] = {
    "common practice": parts_rule("clock.wait", _WAIT_WORDS, "usual", "common practice"),
    "from memory": parts_rule("clock.wait_from_memory", _WAIT_WORDS, "usual", "from memory"),
}
"""The rule of a wait, by where its minutes come from."""
PER_WORDS = {"dm2": "cm² of it", "kg": "kg", "m": "m", "min": "min", "litre": "litres"}


On = Literal["bowl", "tier", "cake"]
"""What a step is done to."""


class Size(NamedTuple):
    """How much room something takes in the cold, mm."""

    width_mm: float
    depth_mm: float
    height_mm: float


class Step(NamedTuple):
    """One step: its id among the steps of the order, its kind, what it is done to and what that is called, its name and
    the sentence that says what to do.

    `hands` are its minutes of work; or it `waits`, for the minutes in `wait`, which come from its `firming` where a
    coat firms in the cold. `after` are the ids of the steps it follows, the one it is chained to first. `tasks` are the
    tasks of the plan that are done in it. A tier and the whole cake have a `size`.
    """

    id: str
    row: StepKind
    on: On
    tier: int | None
    of: str
    name: str
    said: Said
    hands: Figure | None
    wait: Figure | None
    waits: Wait | None
    after: tuple[str, ...]
    firming: Firming | None = None
    tasks: tuple[Task, ...] = ()
    size: Size | None = None

    @property
    def minutes(self) -> int:
        """The whole minutes it takes at least, work or wait."""
        figure = self.hands or self.wait
        if figure is None:
            return 0
        return max(1, math.ceil(figure.value) if figure.rounding == "up" else round(figure.value))

    @property
    def flexible(self) -> bool:
        """Whether it may last longer than that: a wait that does not end by the clock."""
        return self.hands is None and not self.row.at_once


class StepList:
    """The steps of one tier, one bowl or the whole cake, each after the one before it.

    `key` comes before the kind in their ids, `called` is what people call the tier or the bowl, `size` is that of the
    tier or the cake.
    """

    def __init__(self, on: On, key: str, called: str, tier: int | None = None, size: Size | None = None) -> None:
        self.on, self.key, self.called, self.tier, self.size = on, key, called, tier, size
        self.steps: list[Step] = []

    @property
    def last(self) -> tuple[str, ...]:
        """The id of the last step so far, if there is one."""
        return (self.steps[-1].id,) if self.steps else ()

    def id_of(self, kind: str) -> str:
        """The id of its step of a kind."""
        return f"{self.key}_{kind}"

    def has(self, kind: str) -> bool:
        """Whether it has a step of that kind."""
        return any(one.row.kind == kind for one in self.steps)

    def add(
        self,
        kind: str,
        text: str = "",
        amount: float = 1.0,
        *,
        wait: Figure | Firming | None = None,
        sooner: bool = False,
        tasks: Iterable[Task] = (),
        after: Iterable[str] = (),
        **values: RoundedQuantity,
    ) -> None:
        """Add a step of a kind after the last one and after those in `after`.

        `amount` is how much of what its minutes grow with (area in cm²); the minutes of its tasks are added. A `wait`
        is given where it is not that of the row, which is another where the medium sets `sooner`; that of a coat which
        firms in the cold is in the place where it does.
        """
        row, own = STEP_KINDS[kind], tuple(tasks)
        waits = row.sooner if sooner and row.sooner is not None else row.wait
        firming = wait if isinstance(wait, Firming) else None
        figure = None if isinstance(wait, Firming) else wait
        level = row.firms
        if firming is not None and level is not None:
            row, figure = _row_in(row, firming.where), firming.at(level)
            if figure is not None and waits is not None:
                waits = _within(waits, figure, firming)
        if figure is None and waits is not None:
            figure = wait_of(waits)
        self.steps.append(
            Step(
                id=self.id_of(kind),
                row=row,
                on=self.on,
                tier=self.tier,
                of=self.called,
                name=step_name(row, self.on, self.called),
                said=Said(text=text or row.does, values=values),
                hands=None if figure is not None else _hands(row, amount, own),
                wait=figure,
                waits=waits,
                after=(*self.last, *after),
                firming=firming,
                tasks=own,
                size=self.size,
            )
        )


def _row_in(row: StepKind, where: Literal["fridge", "freezer"]) -> StepKind:
    """The row of a wait in the fridge or the freezer. A freezer freezes what is left in it: the wait begins as soon as
    the step before it ends, and lasts no longer than it has to.
    """
    return row._replace(place=where, at_once=row.at_once or where == "freezer")


def step_name(row: StepKind, on: On, called: str) -> str:
    """The name of a step: of a tier it says which one."""
    name = row.name.replace("{}", called)
    return f"{name}, {called}" if on == "tier" and called else name


def wait_of(waits: Wait) -> Figure:
    """The wait that is planned, min: the usual one."""
    given = {"usual": waits.usual_min, "least": waits.least_min, "most": waits.most_min}
    return of_parts(WAITS[waits.origin], waits.usual_min, given, "min")


def _within(waits: Wait, figure: Figure, firming: Firming) -> Wait:
    """A wait with the minutes a coat takes to firm in the cold, from the least to the most."""
    range_min = [figure.value, *(one.value for one in (firming.least, firming.most) if one is not None)]
    return waits._replace(least_min=min(range_min), usual_min=figure.value, most_min=max(range_min))


def _hands(row: StepKind, amount: float, tasks: Iterable[Task]) -> Figure:
    """Minutes of work: base + each x amount + the minutes of the tasks done in it, each part up to a whole minute, so
    that hours and minutes add up as they are shown. Source: from memory.
    """
    parts: dict[str, float] = {}
    if row.base_min:
        parts["to begin"] = row.base_min
    if row.each_min:
        per = amount / 100 if row.per == "dm2" else amount
        words = PER_WORDS.get(row.per, row.per if amount == 1 else f"{row.per}s")
        parts[f"for {amount:.4g} {words}"] = row.each_min * per
    for task in tasks:
        kind = TASK_KINDS[task.kind]
        minutes = kind.base_min + kind.each_min * task.count
        if minutes:
            parts[kind.part.lower()] = parts.get(kind.part.lower(), 0.0) + minutes
    whole = {name: float(math.ceil(minutes - 1e-9)) for name, minutes in parts.items()}
    return of_parts(HANDS_ON, sum(whole.values()), whole, "min", "up")


def work_by_tier(steps: Iterable[Step], names: Mapping[int, str]) -> Figure:
    """All the minutes of work of some steps, by tier."""
    parts: dict[str, float] = {}
    for one in steps:
        if one.hands is not None:
            where = "the whole cake" if one.tier is None else names[one.tier]
            parts[where] = parts.get(where, 0.0) + one.hands.value
    return total(parts, "min", "up")
