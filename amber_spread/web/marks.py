"""What has been done of an order, over HTTP: mark a step, move it, and see what that moves and breaks."""

import uuid
from collections.abc import Callable
from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Body
from pydantic import Field, NaiveDatetime

from amber_spread.core.clock import Changes, Mark, OrderWork, Progress, changes_of, in_turn, minute_of
from amber_spread.core.document import FileError, complaint_at
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.limits import HANDS
from amber_spread.web.week import BlockId
from amber_spread.web.works import Works, WorksOf

router = APIRouter(prefix="/orders/{id}", tags=["clock"])
Now = Annotated[NaiveDatetime, Body()]
Keep = Annotated[bool, Body()]


class StepMark(Frozen):
    """What to note at a step, by the kitchen's clock: when it was `begun` and when it was `done`, by which pair of
    hands, counted from 1; or the hour at which it is to `start`.
    """

    begun: NaiveDatetime | None = None
    done: NaiveDatetime | None = None
    start: NaiveDatetime | None = None
    hand: Annotated[int, Field(ge=1, le=int(HANDS.high))] | None = None

    def mark(self) -> Mark:
        """It as a mark."""
        begun, done, start = (None if one is None else minute_of(one) for one in (self.begun, self.done, self.start))
        return Mark(begun, done, start, None if self.hand is None else self.hand - 1)


@router.post("/marks")
def mark_step(
    id: uuid.UUID,
    works: WorksOf,
    now: Now,
    step: Annotated[BlockId, Body()],
    mark: Annotated[StepMark | None, Body()] = None,
    seen: Annotated[StepMark | None, Body()] = None,
    keep: Keep = False,
) -> Changes:
    """Mark a step of an order, or move it; null takes its mark away. Answers what that moves and breaks, in this order
    and in others. It is stored only if you `keep` it; `seen` is the mark it replaces, to notice that somebody else
    changed it meanwhile.
    """
    new, old = (None if one is None else one.mark() for one in (mark, seen))

    def marked(order: OrderWork, none: Progress) -> Progress | None:
        found = next((one for one in order.work.steps if one.id == step), None)
        if found is None:
            raise FileError([complaint_at(("step",), "is no longer part of this order")])
        trouble = None if new is None else new.trouble(found.hands, none.now, minute_of(order.due))
        if trouble is not None:
            raise FileError([complaint_at(("mark", trouble[0]), trouble[1])])
        return (order.progress or none).with_mark(step, new)

    changes = _changes(works, id, now, marked)
    if keep:
        works.store.mark(id, step, old, new)
    return changes


@router.post("/from-now")
def from_now(
    id: uuid.UUID, works: WorksOf, now: Now, on: Annotated[bool, Body()] = True, keep: Keep = False
) -> Changes:
    """Plan an order of which nothing has begun from now, or no longer. Answers what that moves and breaks; it is stored
    only if you `keep` it.
    """

    def planned(order: OrderWork, none: Progress) -> Progress | None:
        progress = (order.progress or none)._replace(from_now=on)
        return progress if on or progress.marks else None

    changes = _changes(works, id, now, planned)
    if keep:
        works.store.plan_from_now(id, on)
    return changes


def _changes(
    works: Works, id: uuid.UUID, now: datetime, change: Callable[[OrderWork, Progress], Progress | None]
) -> Changes:
    """What changes with the progress of an order. `change` is called with its work and an empty progress."""
    order, orders = works.among(id, now)
    after = order._replace(progress=change(order, Progress({}, minute_of(now))), revision=uuid.uuid4().hex)
    places = works.kitchen.places
    then = [after if one is order else one for one in orders]
    return changes_of(in_turn(orders, places), in_turn(then, places), places, now)
