"""Work as data: what is done to which part of a cake, where, after what, and how long it keeps your hands busy.

A kind of work is one row (`TaskKind`) and one function that makes its tasks and writes their sentences. Papers and
screens print those sentences; what plans the time reads the rest.
"""

from collections.abc import Iterable, Mapping
from typing import Literal, NamedTuple, Protocol, TypeVar

from amber_spread.core.kernel.check import RoundedQuantity, Said, measure
from amber_spread.core.kernel.figures import Figure, of_parts, parts_rule

Verb = Literal[
    "attach",
    "build",
    "carve",
    "chill",
    "coat",
    "count",
    "cover",
    "cut",
    "drive",
    "lift",
    "mark",
    "measure",
    "mind",
    "pack",
    "pipe",
    "punch",
    "push",
    "remove",
    "score",
    "settle",
    "spread",
    "stack",
    "trim",
]
Place = Literal["oven", "rack", "bench", "fridge", "freezer", "car", "table"]
"""Where it is done; the table is where the cake is served."""
State = Literal[
    "warm",
    "cool",
    "cold",
    "filled",
    "settled",
    "coat soft",
    "skin dry",
    "coat hard",
    "turned back",
    "sheet soft",
    "carved",
    "covered",
    "stacked",
]
"""What a part of the cake must be before a task, or is after it."""


class TaskKind(NamedTuple):
    """One kind of work: what is done and where, under which heading, from which state to which.

    It takes `base_min` minutes of hands-on time and `each_min` more for every piece. A `caution` guards somebody and
    takes no time of its own.
    """

    kind: str
    verb: Verb
    place: Place
    part: str
    base_min: float = 0.0
    each_min: float = 0.0
    needs: State | None = None
    leaves: State | None = None
    caution: bool = False


class Task(Said):
    """Something to do, as a sentence and as data.

    `id` is the path of what it works on in the plan and then its kind, `after` are the ids of the tasks it follows,
    `count` is how many pieces it is done to, and `figures` are the ids of the figures in its sentence.
    """

    id: str
    kind: str
    after: list[str] = []
    count: int = 1
    figures: list[str] = []

    @property
    def on(self) -> str:
        """The path in the plan of what it works on."""
        return self.id.rpartition(".")[0]


def task(
    kind: TaskKind,
    on: str,
    text: str,
    after: Iterable[str] = (),
    count: int = 1,
    figures: Iterable[str] = (),
    detail: str = "",
    **values: Figure | RoundedQuantity,
) -> Task:
    """A task of a kind on the part of the plan at the path `on`.

    A measure in the sentence is a figure, or a quantity whose figures are named in `figures`: those have no ids yet, or
    are only a share of one. `detail` tells tasks of one kind on one part from each other.
    """
    shown, ids = dict[str, RoundedQuantity](), list[str]()
    for name, value in values.items():
        if isinstance(value, Figure):
            ids.append(value.id)
            value = measure(value)
        shown[name] = value
    return Task(
        id=f"{on}.{kind.kind}{detail and f'_{detail}'}",
        kind=kind.kind,
        text=text,
        values=shown,
        part=kind.part,
        caution=kind.caution,
        after=list(after),
        count=count,
        figures=[*ids, *figures],
    )


class _Kind(Protocol):
    @property
    def kind(self) -> str: ...


K = TypeVar("K", bound=_Kind)


def by_kind(*kinds: K) -> dict[str, K]:
    """A table of kinds by their names. Raises ValueError where two have one name."""
    found = {one.kind: one for one in kinds}
    if len(found) < len(kinds):
        raise ValueError("two kinds have one name")
    return found


_HANDS_ON = parts_rule(
    "task.hands_on",
    "Each kind of task takes its minutes, and some more for every piece. Added up by heading; waiting is not in it.",
    "sum",
    "from memory",
)


def hands_on(tasks: Iterable[Task], kinds: Mapping[str, TaskKind]) -> Figure:
    """Hands-on time of tasks by heading, min: the sum of base + each x count. Source: from memory.

    >>> cutting = by_kind(TaskKind("cut", "cut", "bench", "Cut", base_min=2, each_min=0.5))
    >>> hands_on([task(cutting["cut"], "stack", "Cut six.", count=6)], cutting).value
    5.0
    """
    parts: dict[str, float] = {}
    for one in tasks:
        kind = kinds[one.kind]
        parts[one.part] = parts.get(one.part, 0.0) + kind.base_min + kind.each_min * one.count
    return of_parts(_HANDS_ON, sum(parts.values()), parts, "min", "up")
