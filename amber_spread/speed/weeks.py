"""How long a week of orders takes: placed one after the other, and improved by the solver."""

import time
from datetime import date, datetime

from amber_spread.core.clock import OrderWork, week_of, work_of
from amber_spread.core.clock.better import better_hours
from amber_spread.core.clock.solver import solve
from amber_spread.core.document import plan_document
from amber_spread.core.kernel.caching import forget
from amber_spread.demo.places import PLACES
from amber_spread.demo.week import week
from amber_spread.speed.job_shops import TEN_BY_TEN, TEN_TAKES, job_shop
from amber_spread.speed.timing import show

GOAL_WEEK_MS = 2000.0
EFFORT, TEN_EFFORT = 1.5, 60.0
UNTIL = 1500


def bench_weeks() -> None:
    """Time the hours of the demo's week, and print how good they are beside the solver's."""
    documents = week(date(2026, 12, 1))
    now = datetime(2026, 12, 1, 18)
    works = [(one, work_of(one, plan_document(one))) for one in documents]
    orders = [OrderWork(str(at), "bench", one.title, work.ready, work) for at, (one, work) in enumerate(works)]
    orders.sort(key=lambda one: (one.due, one.id), reverse=True)
    steps = sum(len(one.work.steps) for one in orders)
    print("\nweek")
    show(
        f"hours of {len(orders)} orders, {steps} steps",
        lambda: week_of(orders, PLACES, now),
        GOAL_WEEK_MS,
        runs=5,
        before=forget,
    )
    began = time.perf_counter()
    better = better_hours(orders, PLACES, now, EFFORT)
    took = time.perf_counter() - began
    if better is None:
        print(f"  no better hours found in {took:.1f} s")
    else:
        was, now_is = (100 * (better.bound - worth) / better.bound for worth in (better.before, better.worth))
        print(
            f"  better hours in {took:.1f} s: below the bound by {was:.1f} % before, by {now_is:.1f} % after (goal 2 %)"
        )
    began = time.perf_counter()
    shop = solve(job_shop(TEN_BY_TEN, UNTIL), TEN_EFFORT)
    found = "nothing" if shop is None else f"{UNTIL - shop.worth:.0f}, at least {UNTIL - shop.bound:.0f}"
    print(f"  job shop of ten by ten: {found} (known: {TEN_TAKES}) in {time.perf_counter() - began:.1f} s")
