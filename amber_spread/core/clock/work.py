"""The work on an order in plain numbers: all that scheduling needs, stored so that the order need not be planned."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from typing import NamedTuple

from amber_spread.core.clock.cake_steps import steps_of
from amber_spread.core.clock.clock import ready_of
from amber_spread.core.clock.kitchen import STARTING_KITCHEN, Kitchen
from amber_spread.core.clock.step_kinds import STEP_KINDS, Wait
from amber_spread.core.clock.steps import On, Size, Step
from amber_spread.core.document import Document
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.check import Said
from amber_spread.core.kernel.figures import carry_over
from amber_spread.core.kernel.task import Place
from amber_spread.core.plan import Plan


class WorkStep(NamedTuple):
    """One step of an order, with its `minutes` of work (`hands`) or of waiting. A wait lasts at most `most_min`; if it
    `spoils`, longer does harm.
    """

    id: str
    kind: str
    place: Place
    at_once: bool
    on: On
    tier: int | None
    of: str
    name: str
    hands: bool
    minutes: int
    most_min: float | None
    spoils: bool
    after: tuple[str, ...]
    size: Size | None


class Work(Frozen):
    """The work on an order: its steps, each after those it follows, and the hour by which all must be ready."""

    ready: datetime
    steps: tuple[WorkStep, ...]


def work_of(document: Document, plan: Plan, kitchen: Kitchen = STARTING_KITCHEN) -> Work:
    """The work on an order. Raises FileError if it has no due hour."""
    steps = steps_of(document, plan, kitchen.made_of)
    return Work(ready=ready_of(document), steps=tuple(_plain(steps)))


def _plain(steps: Sequence[Step]) -> Iterator[WorkStep]:
    for one in steps:
        yield WorkStep(
            id=one.id,
            kind=one.row.kind,
            place=one.row.place,
            at_once=one.row.at_once,
            on=one.on,
            tier=one.tier,
            of=one.of,
            name=one.name,
            hands=one.hands is not None,
            minutes=one.minutes,
            most_min=None if one.waits is None else one.waits.most_min,
            spoils=one.waits is not None and bool(one.waits.too_long),
            after=one.after,
            size=one.size,
        )


def steps_from(work: Work) -> list[Step]:
    """The steps of some work, without their sentences and figures."""
    return [_step(one) for one in work.steps]


def _step(one: WorkStep) -> Step:
    row = STEP_KINDS[one.kind]._replace(place=one.place, at_once=one.at_once)
    figure = carry_over("minutes", one.minutes, "min")
    waits = None
    if one.most_min is not None:
        too_long = row.wait.too_long if one.spoils and row.wait is not None else ""
        waits = Wait(one.minutes, one.minutes, one.most_min, "", too_long)
    return Step(
        id=one.id,
        row=row,
        on=one.on,
        tier=one.tier,
        of=one.of,
        name=one.name,
        said=Said(text=""),
        hands=figure if one.hands else None,
        wait=None if one.hands else figure,
        waits=waits,
        after=one.after,
        size=one.size,
    )
