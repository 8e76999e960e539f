"""Time a piece of work over many runs, and print how long it took."""

import statistics
import time
from collections.abc import Callable

RUNS = 200
GOAL_PLAN_MS = 5.0


def show(
    name: str,
    work: Callable[[], object],
    goal_ms: float | None = None,
    runs: int = RUNS,
    before: Callable[[], object] = lambda: None,
) -> float:
    """Time `work` with `before` done untimed ahead of it, print its distribution in ms, and return the median."""
    work()
    times = []
    for _ in range(runs):
        before()
        began = time.perf_counter()
        work()
        times.append((time.perf_counter() - began) * 1000)
    return report(name, times, goal_ms)


def report(name: str, times: list[float], goal_ms: float | None = None, nearly_all: bool = False) -> float:
    """Print a distribution of milliseconds, and return its median. The goal is the median's, or with `nearly_all` that
    of 95 in 100.
    """
    median, high = statistics.median(times), statistics.quantiles(times, n=20)[-1]
    goal = (
        ""
        if goal_ms is None
        else f"   goal {goal_ms:g} ms: {'met' if (high if nearly_all else median) <= goal_ms else 'MISSED'}"
    )
    print(f"{name:<52} min {min(times):8.3f}  median {median:8.3f}  p95 {high:8.3f} ms{goal}")
    return median
