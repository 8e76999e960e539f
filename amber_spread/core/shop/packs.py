"""Which packs to buy: a small integer programme, solved by scipy's `milp` (the HiGHS solver).

    least  sum of price_i n_i   over whole n_i >= 0   with   sum of size_i n_i >= wanted

and among those that cost the same, the one that leaves least over, then the one with fewest packs.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple


class Offer(NamedTuple):
    """A pack that can be bought: what it holds, in the item's own unit, and its price (None where it is not known)."""

    size: float
    price: float | None


def choose_packs(wanted: float, offers: Sequence[Offer]) -> list[int]:
    """How many of each pack to buy for `wanted`, at least cost.

    Packs without a price are bought only where none has one; then as little as can be is bought. Raises ValueError for
    a pack of no size. Source: linear integer programming; checked against exhaustive search.
    """
    if any(offer.size <= 0 for offer in offers):
        raise ValueError("a pack holds more than nothing")
    counts = [0] * len(offers)
    if wanted <= 0 or not offers:
        return counts
    priced = [index for index, offer in enumerate(offers) if offer.price is not None]
    usable = priced or list(range(len(offers)))
    if len(usable) == 1:
        (only,) = usable
        counts[only] = math.ceil(wanted / offers[only].size - 1e-9)
        return counts
    sizes = [offers[index].size / wanted for index in usable]
    costs = [float(offers[index].price or 0.0) for index in usable] if priced else sizes
    for index, count in zip(usable, _solve(sizes, costs), strict=True):
        counts[index] = count
    return counts


def _solve(sizes: Sequence[float], costs: Sequence[float]) -> list[int]:
    """Whole counts that hold 1 in all, at least cost, then least over, then fewest."""
    import numpy
    from scipy.optimize import Bounds, LinearConstraint, milp

    most = [math.ceil(1 / size) for size in sizes]
    enough = LinearConstraint(numpy.array([sizes]), lb=1 - 1e-9)
    limits = [enough]
    found = list(most)
    scale = max(costs) or 1.0
    # Each aim in turn, with what the ones before it reached kept.
    for aim in ([cost / scale for cost in costs], list(sizes), [1.0] * len(sizes)):
        answer = milp(
            numpy.array(aim),
            constraints=limits,
            integrality=numpy.ones(len(sizes)),
            bounds=Bounds(0, most),
            options={"mip_rel_gap": 0.0, "time_limit": 2.0},
        )
        if answer.x is None:
            break
        whole = [round(value) for value in answer.x]
        if sum(size * count for size, count in zip(sizes, whole, strict=True)) < 1 - 1e-6:
            break
        found = whole
        reached = sum(each * count for each, count in zip(aim, found, strict=True))
        limits = [*limits, LinearConstraint(numpy.array([aim]), ub=reached + 1e-9)]
    return found
