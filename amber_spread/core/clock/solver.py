"""Scheduling by constraint programming: tasks on resources with capacities, lags between them, and hours.

A general model, of which the work of a kitchen is one case (`better.py`) and a job shop another. Times are whole
minutes; a task may begin at every `step_min`-th of them. It is solved by CP-SAT of OR-tools, exactly where time allows,
else as well as it can, with a bound on how much better it could be.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

WORKERS = 2
"""So many threads search at once; a job has a process and few processors."""
MOST_S = 25.0
"""It never searches longer than this by the clock, so that a job stays within its processor time."""


class Use(NamedTuple):
    """How much of a resource a task takes, from and to how long after it begins, min."""

    resource: str
    begins_min: int
    ends_min: int
    amount: int = 1


class Way(NamedTuple):
    """One way of doing a task: what it uses, and the windows (from, to, min) within one of which it is done whole."""

    uses: tuple[Use, ...]
    windows: tuple[tuple[int, int], ...]


class Task(NamedTuple):
    """Something that takes so many minutes, in one of several ways. `late_is_good` is what one more minute until it
    begins is worth, and `early_costs` what each minute costs that it begins before `not_before`.
    """

    id: str
    minutes: int
    ways: tuple[Way, ...]
    late_is_good: int = 0
    not_before: int | None = None
    early_costs: int = 0


class Lag(NamedTuple):
    """A task begins at least so many minutes after a moment of another, counted from that one's beginning."""

    before: str
    after_min: int
    after: str
    least_min: int


class Spoils(NamedTuple):
    """From a moment of a task on, counted from its beginning, something lasts so long: the first of some moments, each
    of a task and counted from its beginning, should come before that. Every minute later costs `costs`.
    """

    before: str
    after_min: int
    uses: tuple[tuple[str, int], ...]
    lasts_min: int
    costs: int


class Between(NamedTuple):
    """A resource is taken from a moment of one task, counted from its beginning, until another begins."""

    before: str
    after_min: int
    after: str
    resource: str
    amount: int


class Busy(NamedTuple):
    """A resource is taken from one minute to another, whatever is decided."""

    resource: str
    begins_min: int
    ends_min: int
    amount: int = 1


class Problem(NamedTuple):
    """Tasks to be done; `capacity` is how much there is of each resource, and `busy` what is taken of it already.
    `first_is_worth` is what one more minute until the first task begins is worth.
    """

    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...] = ()
    spoils: tuple[Spoils, ...] = ()
    between: tuple[Between, ...] = ()
    busy: tuple[Busy, ...] = ()
    capacity: Mapping[str, int] = {}
    first_is_worth: int = 0
    step_min: int = 1


class Chosen(NamedTuple):
    """When a task begins, and in which of its ways it is done."""

    begins_min: int
    way: int


class Solution(NamedTuple):
    """Every task with its hour; what it is `worth`, and a `bound` that no other exceeds. It is `optimal` where no other
    is better.
    """

    chosen: dict[str, Chosen]
    worth: float
    bound: float
    optimal: bool


def solve(
    problem: Problem,
    effort: float,
    hint: Mapping[str, Chosen] | None = None,
    better: Callable[[float], None] | None = None,
    seed: int = 1,
) -> Solution | None:
    """The best solution that is found with so much effort, in the solver's own deterministic measure (some 2 to 5 s of
    the clock each); None where there is none, or none was found. `hint` is a solution to begin from, `better` is told
    the worth of each one found.

    Source: constraint programming with interval variables and cumulative resources (Laborie and others, 2018).
    """
    from ortools.sat.python import cp_model

    model = _Model(cp_model, problem)
    model.hint(hint or {})
    solver = cp_model.CpSolver()
    solver.parameters.max_deterministic_time = effort
    solver.parameters.max_time_in_seconds = MOST_S
    solver.parameters.num_workers = WORKERS
    solver.parameters.random_seed = seed
    status = solver.solve(model.model, _told(cp_model, better) if better is not None else None)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return model.read(solver, status == cp_model.OPTIMAL)


def _told(cp_model: Any, better: Callable[[float], None]) -> Any:
    class Told(cp_model.CpSolverSolutionCallback):  # type: ignore[misc]
        def on_solution_callback(self) -> None:
            better(self.objective_value)

    return Told()


class _Model:
    """A problem in the solver's own terms."""

    def __init__(self, cp_model: Any, problem: Problem) -> None:
        self.cp, self.problem, self.model = cp_model, problem, cp_model.CpModel()
        self.taken: dict[str, list[tuple[Any, int]]] = {}
        self.worth: list[Any] = []
        ends = [window[1] for task in problem.tasks for way in task.ways for window in way.windows]
        begins = [window[0] for task in problem.tasks for way in task.ways for window in way.windows]
        self.first, self.last = min(begins, default=0), max(ends, default=0)
        self.count: dict[str, Any] = {}
        self.ways: dict[str, list[Any]] = {}
        for task in problem.tasks:
            self._add(task)
        for lag in problem.lags:
            self.model.add(self.begins(lag.after) - self.begins(lag.before) - lag.after_min >= lag.least_min)
        for spoils in problem.spoils:
            self._spoil(spoils)
        for one in problem.between:
            start = self.begins(one.before) + one.after_min
            end = self.begins(one.after)
            size = self.model.new_int_var(0, self.last - self.first, "")
            self._take(one.resource, self.model.new_interval_var(start, size, end, ""), one.amount)
        for busy in problem.busy:
            length = busy.ends_min - busy.begins_min
            self._take(busy.resource, self.model.new_fixed_size_interval_var(busy.begins_min, length, ""), busy.amount)
        for resource, taken in self.taken.items():
            self._limit(resource, taken)
        if problem.first_is_worth and problem.tasks:
            first = self.model.new_int_var(self.first, self.last, "first")
            for task in problem.tasks:
                self.model.add(first <= self.begins(task.id))
            self.worth.append(problem.first_is_worth * (first - self.first))
        self.model.maximize(sum(self.worth))

    def begins(self, id: str) -> Any:
        """When a task begins."""
        return self.problem.step_min * self.count[id]

    def _add(self, task: Task) -> None:
        step = self.problem.step_min
        self.count[task.id] = count = self.model.new_int_var(
            math.ceil(self.first / step), self.last // step, f"begin {task.id}"
        )
        ways = [self.model.new_bool_var(f"way {number} {task.id}") for number in range(len(task.ways))]
        self.ways[task.id] = ways
        self.model.add_exactly_one(ways)
        for chosen, way in zip(ways, task.ways, strict=True):
            windows = [
                (math.ceil(begins / step), (ends - task.minutes) // step)
                for begins, ends in way.windows
                if math.ceil(begins / step) <= (ends - task.minutes) // step
            ]
            if not windows:
                self.model.add(chosen == 0)
                continue
            allowed = self.cp.Domain.from_intervals([list(one) for one in windows])
            self.model.add_linear_expression_in_domain(count, allowed).only_enforce_if(chosen)
            for use in way.uses:
                length = use.ends_min - use.begins_min
                interval = self.model.new_optional_fixed_size_interval_var(
                    self.begins(task.id) + use.begins_min, length, chosen, ""
                )
                self._take(use.resource, interval, use.amount)
        if task.not_before is not None and task.early_costs:
            early = self.model.new_int_var(0, max(0, task.not_before - self.first), "")
            self.model.add(early >= task.not_before - self.begins(task.id))
            self.worth.append(-task.early_costs * early)
        if task.late_is_good:
            self.worth.append(task.late_is_good * (self.begins(task.id) - self.first))

    def _take(self, resource: str, interval: Any, amount: int) -> None:
        self.taken.setdefault(resource, []).append((interval, amount))

    def _spoil(self, one: Spoils) -> None:
        used = self.model.new_int_var(self.first, self.last + self.problem.step_min, "")
        self.model.add_min_equality(used, [self.begins(id) + offset for id, offset in one.uses])
        over = self.model.new_int_var(0, self.last - self.first, "")
        self.model.add(over >= used - self.begins(one.before) - one.after_min - one.lasts_min)
        self.worth.append(-one.costs * over)

    def _limit(self, resource: str, taken: Sequence[tuple[Any, int]]) -> None:
        capacity = self.problem.capacity.get(resource, 1)
        intervals, amounts = [one for one, _ in taken], [amount for _, amount in taken]
        if capacity == 1:
            self.model.add_no_overlap(intervals)
        else:
            self.model.add_cumulative(intervals, amounts, capacity)

    def hint(self, hint: Mapping[str, Chosen]) -> None:
        """Begin from a solution, or from part of one."""
        for id, chosen in hint.items():
            self.model.add_hint(self.count[id], chosen.begins_min // self.problem.step_min)
            for number, way in enumerate(self.ways[id]):
                self.model.add_hint(way, number == chosen.way)

    def read(self, solver: Any, optimal: bool) -> Solution:
        """What the solver found."""
        chosen = {
            id: Chosen(
                self.problem.step_min * solver.value(count),
                next(number for number, way in enumerate(self.ways[id]) if solver.value(way)),
            )
            for id, count in self.count.items()
        }
        return Solution(chosen, solver.objective_value, solver.best_objective_bound, optimal)
