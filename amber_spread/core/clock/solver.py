"""Scheduling by constraint programming: tasks with alternatives, resources with capacities, and lags.

A general model: the work of a kitchen is one case (`week_problem.py`), a job shop another. Times are whole minutes.
OR-tools' CP-SAT solves it exactly if there is time, else gives the best solution it found, and a bound.
"""

from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

WORKERS = 2
"""Search threads. A job runs in one process, and a computer has few processors."""
MOST_S = 25.0
"""Limit by the clock, s, so that a job stays within its processor time."""


class Use(NamedTuple):
    """A task uses an amount of a resource, from and to so many minutes after its start."""

    resource: str
    from_min: int
    to_min: int
    amount: int = 1


class Way(NamedTuple):
    """An alternative of a task: its uses, and the windows (from, to, min) that it must lie in, whole."""

    uses: tuple[Use, ...]
    windows: tuple[tuple[int, int], ...]


class Task(NamedTuple):
    """A task of fixed length, done in one of several ways. Each minute that it starts later is worth `worth_later`, and
    each minute that it starts before `not_before` costs `early_costs`.
    """

    id: str
    minutes: int
    ways: tuple[Way, ...]
    worth_later: int = 0
    not_before: int = 0
    early_costs: int = 0


class Lag(NamedTuple):
    """Minimum lag: task `after` starts at least `least_min` after a point of task `before`, given in minutes after its
    start.
    """

    before: str
    point_min: int
    after: str
    least_min: int


class Spoils(NamedTuple):
    """Maximum lag: the first of some `uses` (a task, and minutes after its start) should come within `lasts_min` of a
    point of task `before`. Each minute over that costs `costs`.
    """

    before: str
    point_min: int
    uses: tuple[tuple[str, int], ...]
    lasts_min: int
    costs: int


class Between(NamedTuple):
    """An amount of a resource is used from a point of task `before` until task `after` starts."""

    before: str
    point_min: int
    after: str
    resource: str
    amount: int


class Busy(NamedTuple):
    """An amount of a resource is used in a fixed span."""

    resource: str
    from_min: int
    to_min: int
    amount: int = 1


class Problem(NamedTuple):
    """A scheduling problem. Resources without a capacity have 1. Each minute that the first task starts later is worth
    `worth_first`.
    """

    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...] = ()
    spoils: tuple[Spoils, ...] = ()
    between: tuple[Between, ...] = ()
    busy: tuple[Busy, ...] = ()
    capacity: Mapping[str, int] = {}
    worth_first: int = 0

    @property
    def horizon(self) -> tuple[int, int]:
        """The first and the last minute of any window."""
        windows = [window for task in self.tasks for way in task.ways for window in way.windows]
        return min((begins for begins, _ in windows), default=0), max((ends for _, ends in windows), default=0)


class Chosen(NamedTuple):
    """The start of a task, and the number of its way."""

    start_min: int
    way: int


class Solution(NamedTuple):
    """A schedule, its worth, and an upper bound of the worth of any. `optimal` if there is none better."""

    chosen: dict[str, Chosen]
    worth: float
    bound: float
    optimal: bool


def worth_of(problem: Problem, chosen: Mapping[str, Chosen]) -> float:
    """The worth of a schedule: the objective that `solve` maximizes."""
    starts, (first, _) = {id: one.start_min for id, one in chosen.items()}, problem.horizon
    worth = float(problem.worth_first * (min(starts.values(), default=first) - first))
    for task in problem.tasks:
        worth += task.worth_later * (starts[task.id] - first)
        worth -= task.early_costs * max(0, task.not_before - starts[task.id])
    for one in problem.spoils:
        used = min(starts[id] + offset for id, offset in one.uses)
        worth -= one.costs * max(0, used - starts[one.before] - one.point_min - one.lasts_min)
    return worth


def solve(
    problem: Problem,
    effort: float,
    hint: Mapping[str, Chosen] | None = None,
    better: Callable[[], None] | None = None,
) -> Solution | None:
    """The best solution found with a deterministic `effort` (a unit takes some 2 to 10 s by the clock); None if there
    is none, or none was found. The search begins at the `hint`, and calls `better` at every solution that is better.

    Source: constraint programming with interval variables and cumulative resources (Laborie and others, 2018).
    """
    from ortools.sat.python import cp_model

    class Callback(cp_model.CpSolverSolutionCallback):
        def on_solution_callback(self) -> None:
            if better is not None:
                better()

    model = _Model(cp_model, problem)
    model.hint(hint or {})
    solver = cp_model.CpSolver()
    solver.parameters.max_deterministic_time = effort
    solver.parameters.max_time_in_seconds = MOST_S
    solver.parameters.num_workers = WORKERS
    solver.parameters.random_seed = 1
    status = solver.solve(model.model, Callback())
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return Solution(
        model.chosen(solver), solver.objective_value, solver.best_objective_bound, status == cp_model.OPTIMAL
    )


class _Model:
    """A problem as a CP-SAT model."""

    def __init__(self, cp_model: Any, problem: Problem) -> None:
        self.cp, self.problem, self.model = cp_model, problem, cp_model.CpModel()
        self.first, self.last = problem.horizon
        self.intervals: dict[str, list[tuple[Any, int]]] = {}
        """The intervals and amounts in which each resource is used."""
        self.worth: list[Any] = []
        self.starts: dict[str, Any] = {}
        self.ways: dict[str, list[Any]] = {}
        for task in problem.tasks:
            self._add_task(task)
        for lag in problem.lags:
            self.model.add(self.starts[lag.after] - self.starts[lag.before] - lag.point_min >= lag.least_min)
        for spoils in problem.spoils:
            self._add_spoils(spoils)
        for one in problem.between:
            start, end = self.starts[one.before] + one.point_min, self.starts[one.after]
            self._use(one.resource, self.model.new_interval_var(start, self._new_duration(), end, ""), one.amount)
        for busy in problem.busy:
            length = busy.to_min - busy.from_min
            self._use(busy.resource, self.model.new_fixed_size_interval_var(busy.from_min, length, ""), busy.amount)
        for resource, used in self.intervals.items():
            self._limit(resource, used)
        if problem.worth_first and problem.tasks:
            first = self.model.new_int_var(self.first, self.last, "first")
            self.model.add_min_equality(first, list(self.starts.values()))
            self.worth.append(problem.worth_first * (first - self.first))
        self.model.maximize(sum(self.worth))

    def _add_task(self, task: Task) -> None:
        self.starts[task.id] = start = self.model.new_int_var(self.first, self.last, f"start {task.id}")
        self.ways[task.id] = ways = [
            self.model.new_bool_var(f"way {number} {task.id}") for number in range(len(task.ways))
        ]
        self.model.add_exactly_one(ways)
        for chosen, way in zip(ways, task.ways, strict=True):
            windows = [[begins, ends - task.minutes] for begins, ends in way.windows if ends - begins >= task.minutes]
            allowed = self.cp.Domain.from_intervals(windows)
            self.model.add_linear_expression_in_domain(start, allowed).only_enforce_if(chosen)
            for use in way.uses:
                length = use.to_min - use.from_min
                interval = self.model.new_optional_fixed_size_interval_var(start + use.from_min, length, chosen, "")
                self._use(use.resource, interval, use.amount)
        if task.early_costs:
            early = self.model.new_int_var(0, max(0, task.not_before - self.first), "")
            self.model.add(early >= task.not_before - start)
            self.worth.append(-task.early_costs * early)
        if task.worth_later:
            self.worth.append(task.worth_later * (start - self.first))

    def _add_spoils(self, one: Spoils) -> None:
        used, over = self.model.new_int_var(self.first, self.last, ""), self._new_duration()
        self.model.add_min_equality(used, [self.starts[id] + offset for id, offset in one.uses])
        self.model.add(over >= used - self.starts[one.before] - one.point_min - one.lasts_min)
        self.worth.append(-one.costs * over)

    def _new_duration(self) -> Any:
        return self.model.new_int_var(0, self.last - self.first, "")

    def _use(self, resource: str, interval: Any, amount: int) -> None:
        self.intervals.setdefault(resource, []).append((interval, amount))

    def _limit(self, resource: str, used: Sequence[tuple[Any, int]]) -> None:
        capacity = self.problem.capacity.get(resource, 1)
        intervals, amounts = [one for one, _ in used], [amount for _, amount in used]
        if capacity == 1:
            self.model.add_no_overlap(intervals)
        else:
            self.model.add_cumulative(intervals, amounts, capacity)

    def hint(self, hint: Mapping[str, Chosen]) -> None:
        """Begin the search at a schedule, or at part of one."""
        for id, chosen in hint.items():
            self.model.add_hint(self.starts[id], chosen.start_min)
            for number, way in enumerate(self.ways[id]):
                self.model.add_hint(way, number == chosen.way)

    def chosen(self, solver: Any) -> dict[str, Chosen]:
        """The schedule that a solver found."""
        return {
            id: Chosen(
                solver.value(start), next(number for number, way in enumerate(self.ways[id]) if solver.value(way))
            )
            for id, start in self.starts.items()
        }
