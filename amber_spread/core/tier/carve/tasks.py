"""The tasks of carving a tier, from the film below it to the last line scored, and a row for each of their kinds.

The minutes are from memory.
"""

from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise
from typing import Any, NamedTuple

from amber_spread.core.geometry.bodies.sliced import Slice
from amber_spread.core.kernel.check import RoundedQuantity, grams, measure, mm
from amber_spread.core.kernel.task import Task, TaskKind, by_kind, task
from amber_spread.core.tier.carve.openings import OpeningPlan
from amber_spread.core.tier.layers.hidden import CavityPlan

READY, CUT, CARVE = "Make ready", "Cut the layers", "Carve"

CARVE_TASKS = by_kind(
    # kind, verb, place, heading, minutes, minutes for each piece
    TaskKind("lay_film", "spread", "bench", READY, 1),
    TaskKind("keep_cold", "mind", "fridge", READY, leaves="cold", caution=True),
    TaskKind("level_layers", "trim", "bench", CUT, 0, 2, needs="cold"),
    TaskKind("cut_layers", "cut", "bench", CUT, 2, 4, needs="cold"),
    TaskKind("cut_two", "cut", "bench", CUT),
    TaskKind("stack_layers", "stack", "bench", CUT, 2, 3, leaves="filled"),
    TaskKind("carve_down", "carve", "bench", CARVE, 15, 5, needs="cold", leaves="carved"),
    TaskKind("carve_most", "mind", "bench", CARVE),
    TaskKind("mind_room", "mind", "bench", CARVE),
    TaskKind("cut_empty", "cut", "bench", CUT, 0, 4),
    TaskKind("cut_and_fill", "cut", "bench", CARVE, 10),
    TaskKind("fill_inside", "build", "bench", CUT, 0, 5),
    TaskKind("mind_wall", "mind", "bench", CARVE),
    TaskKind("mind_knife", "mind", "bench", CARVE, caution=True),
    TaskKind("keep_offcuts", "mind", "bench", CARVE),
    TaskKind("score_lines", "score", "bench", CARVE, 10, needs="sheet soft", leaves="covered"),
)
ALIKE_MM = 3.0
"""Layers beside each other whose edges lie nowhere farther apart are cut as one (from memory)."""
CHILL_MIN = 20.0, 30.0
"""So long layers that slide are chilled before they are carved (common practice)."""


class Carved(NamedTuple):
    """What carving a tier depends on: its id, its slices, a room hidden in it, openings cut out of it by their keys,
    how far apart lines are scored, and the dome left on its top layer.
    """

    tier_id: str
    slices: Sequence[Slice]
    room: CavityPlan | None
    openings: Mapping[str, OpeningPlan]
    scored_mm: float | None
    dome_mm: float = 0.0

    @property
    def on(self) -> str:
        """Where its carving stands in the plan."""
        return f"tiers.{self.tier_id}.carving"

    @property
    def cut(self) -> list[str]:
        """The id of the task that cuts its layers."""
        return [f"{self.on}.cut_layers"]

    @property
    def stacked(self) -> list[str]:
        """The id of the task that stacks them."""
        return [f"{self.on}.stack_layers"]

    def task(self, kind: str, text: str, after: Sequence[str] = (), count: int = 1, **more: Any) -> Task:
        """A task of carving it, by the name of its kind."""
        return task(CARVE_TASKS[kind], self.on, text, after, count, **more)


def alike(slices: Sequence[Slice]) -> list[tuple[int, int]]:
    """Layers beside each other that are cut two at a time, by their numbers; each in one pair at most."""
    found: list[tuple[int, int]] = []
    for lower, upper in pairwise(slices):
        taken = found and found[-1][1] == lower.number
        if not taken and lower.whole.hausdorff_distance(upper.whole) <= ALIKE_MM:
            found.append((lower.number, upper.number))
    return found


def carving_tasks(cake: Carved) -> Iterator[Task]:
    """Every task of carving a tier, in order. Source: common practice."""
    opened = [
        each for number, (key, one) in enumerate(cake.openings.items(), 1) for each in _open(cake, number, key, one)
    ]
    yield from _ready(cake)
    yield from _cut(cake)
    yield from (one for one in opened if one.part == CUT)
    yield from _carve(cake)
    yield from (one for one in opened if one.part != CUT)
    carved = [f"{cake.on}.carve_down"]
    yield cake.task(
        "mind_knife",
        "The knife moves away from your hand, and the turntable is held.",
        cake.stacked,
    )
    yield cake.task(
        "keep_offcuts",
        "Keep the offcuts covered. Crumbled with a little of the coat they build up a point, a swoop or what hangs "
        "out.",
        carved,
    )
    if cake.scored_mm is not None:
        yield cake.task(
            "score_lines",
            "Score the lines once the cover is on and still soft: {apart} apart, along the templates of both views, "
            "with the back of a knife, no deeper than half of it.",
            carved,
            apart=mm(cake.scored_mm),
        )


def _ready(cake: Carved) -> Iterator[Task]:
    yield cake.task(
        "lay_film",
        "Lay film below the work, with enough of it to fold up round the cake: crumbs go off with it, and the cake "
        "does not dry while it waits.",
    )
    yield cake.task(
        "keep_cold",
        "Bake the day before and keep the layers cold: firm cake is cut clean. Keep what has to stay cold out of it no "
        "longer than local rules allow.",
    )


def _cut(cake: Carved) -> Iterator[Task]:
    count, ready = len(cake.slices), [f"{cake.on}.lay_film"]
    if cake.dome_mm:
        levelled = cake.task(
            "level_layers",
            f"Level every layer but the last, {cake.slices[-1].number}: {{dome}} of its dome stays on. It goes on top, "
            "and the knife follows its rise.",
            ready,
            count - 1,
            dome=mm(cake.dome_mm),
        )
        yield levelled
        ready = [levelled.id]
    yield cake.task(
        "cut_layers",
        "Cut each layer to its own template: axis on axis, the front mark to the front, from layer 1 up.",
        ready,
        count,
    )
    for lower, upper in alike(cake.slices):
        yield cake.task(
            "cut_two",
            f"Layers {lower} and {upper} are alike: lay one on the other and cut both along the template of layer "
            f"{lower}. What is cut is the guide for the rest.",
            ready,
            detail=f"{lower}_{upper}",
        )
    least, most = (RoundedQuantity(minutes, "min") for minutes in CHILL_MIN)
    yield cake.task(
        "stack_layers",
        "Fill and stack them on their axis. If they slide, chill them for {least} to {most} before a knife goes near, "
        "and again whenever they begin to.",
        cake.cut,
        count,
        least=least,
        most=most,
    )


def _carve(cake: Carved) -> Iterator[Task]:
    yield cake.task(
        "carve_down",
        "Hold the boards of both views against the cake and carve from the top down, in thin slices: what is off "
        "cannot be put back.",
        cake.stacked,
        len(cake.slices),
    )
    deepest = max(cake.slices, key=lambda one: one.moves)
    if deepest.moves >= ALIKE_MM:
        yield cake.task(
            "carve_most",
            f"Most is carved in layer {deepest.number}: its edge moves by {{moves}} between its faces.",
            cake.stacked,
            figures=[f"{cake.on}.slices.layer_{deepest.number}.moves"],
            moves=mm(deepest.moves),
        )
    if cake.room is not None:
        yield cake.task(
            "mind_room",
            "Mind the room inside: {wall} of cake is all there is round it at its thinnest. Try it with a skewer "
            "before you carve there, and take the skewer out.",
            cake.stacked,
            figures=[f"tiers.{cake.tier_id}.layers.cavity.wall"],
            wall=measure(cake.room.wall),
        )


def _open(cake: Carved, number: int, key: str, opening: OpeningPlan) -> Iterator[Task]:
    on = f"{cake.on}.openings.{key}"
    out, weight = grams(opening.cake.value + opening.filling.value), [f"{on}.weight"]
    count = len(cake.slices)
    if opening.weight is None:
        yield task(
            CARVE_TASKS["cut_empty"],
            on,
            f"Opening {number} is left empty: cut it out of each layer as you stack, {{out}} in all.",
            cake.cut,
            count,
            out=out,
        )
    elif opening.open:
        yield task(
            CARVE_TASKS["cut_and_fill"],
            on,
            f"Cut opening {number} out by its templates; {{out}} of cake and filling comes out. Chill the cake, press "
            "{filled} in a little at a time, and draw the knife over it level with the cake.",
            [f"{cake.on}.carve_down"],
            figures=weight,
            out=out,
            filled=measure(opening.weight),
        )
    else:
        yield task(
            CARVE_TASKS["fill_inside"],
            on,
            f"Opening {number} opens nowhere: cut it out of each layer as you stack, {{out}} in all, and fill each up "
            "level with {filled} in all before the next goes on.",
            cake.cut,
            count,
            figures=weight,
            out=out,
            filled=measure(opening.weight),
        )
    if opening.wall is not None and opening.volume.value > 0:
        yield task(
            CARVE_TASKS["mind_wall"],
            on,
            f"Mind opening {number} inside: {{wall}} of cake is all there is about it at its thinnest. Try it with a "
            "skewer before you carve there, and take the skewer out.",
            cake.stacked,
            figures=[f"{on}.wall"],
            wall=measure(opening.wall),
        )
