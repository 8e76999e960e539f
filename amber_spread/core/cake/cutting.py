"""The cutting list: supports of every length out of as few stock pieces as will do."""

import math
from collections.abc import Sequence

import numpy

from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.figures import COMMON_PRACTICE, Figure, carry_over, rule
from amber_spread.core.kernel.naming import named

PATTERNS = 4000
"""Beyond so many ways to cut one piece, the simple way is taken: the longest first, into the first that has room."""


class Cut(PlanPart):
    """One stock piece, so many times over, and the lengths cut from each, longest first."""

    times: int
    lengths: dict[str, Figure]
    rest: Figure


class CuttingList(PlanPart):
    """All pieces of one sort: how many to buy, how each is cut, and what is left over in all."""

    sort: str
    many: str
    stock: Figure
    pieces: Figure
    rods: Figure
    rest: Figure
    cuts: dict[str, Cut]
    too_long: bool


@rule(
    "stack.rods",
    unit="each",
    formula="rods",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The fewest stock pieces these lengths can all be cut from.",
)
def fewest_rods(rods_count: float) -> float:
    """Stock pieces to take: the least number that holds every length (one-dimensional cutting stock).

    Source: published (Gilmore and Gomory 1961, as patterns; solved as an integer programme by HiGHS; from memory).

    >>> fewest_rods(3)
    3
    """
    return rods_count


@cached(TIERS)
def fewest_cuts(lengths_mm: tuple[float, ...], stock_mm: float, kerf_mm: float) -> tuple[tuple[float, ...], ...]:
    """Every stock piece to cut, as the lengths cut from it, so that as few as possible are taken.

    Longest first into the first with room; where that takes more than the sum of lengths would, an integer programme
    over all ways to cut one piece. A length longer than the stock takes a piece to itself. Source: published
    (Gilmore and Gomory 1961, from memory).
    """
    own = [(one,) for one in lengths_mm if one > stock_mm]
    fitting = sorted([one for one in lengths_mm if one <= stock_mm], reverse=True)
    simple = _first_fit(fitting, stock_mm, kerf_mm)
    least = math.ceil((sum(fitting) + kerf_mm * len(fitting)) / (stock_mm + kerf_mm) - 1e-9)
    if len(simple) > least:
        simple = _by_patterns(fitting, stock_mm, kerf_mm, simple)
    return tuple(own + sorted(simple, reverse=True))


def _first_fit(lengths: Sequence[float], stock_mm: float, kerf_mm: float) -> list[tuple[float, ...]]:
    rods: list[list[float]] = []
    for length in lengths:
        for rod in rods:
            if sum(rod) + len(rod) * kerf_mm + length <= stock_mm + 1e-9:
                rod.append(length)
                break
        else:
            rods.append([length])
    return [tuple(rod) for rod in rods]


def _by_patterns(
    lengths: Sequence[float], stock_mm: float, kerf_mm: float, simple: list[tuple[float, ...]]
) -> list[tuple[float, ...]]:
    from scipy.optimize import Bounds, LinearConstraint, milp

    sizes = sorted(set(lengths), reverse=True)
    wanted = [lengths.count(size) for size in sizes]
    patterns = _patterns(sizes, wanted, stock_mm, kerf_mm)
    if not patterns:
        return simple
    found = milp(
        numpy.ones(len(patterns)),
        constraints=LinearConstraint(numpy.array(patterns).T, lb=wanted),
        integrality=numpy.ones(len(patterns)),
        bounds=Bounds(0, len(lengths)),
        options={"time_limit": 1.0},
    )
    if found.x is None or round(found.fun) >= len(simple):
        return simple
    left = list(wanted)
    rods: list[tuple[float, ...]] = []
    for times, pattern in zip(found.x.round().astype(int), patterns, strict=True):
        for _ in range(times):
            taken = [min(count, left[index]) for index, count in enumerate(pattern)]
            left = [have - count for have, count in zip(left, taken, strict=True)]
            cut = tuple(size for size, count in zip(sizes, taken, strict=True) for _ in range(count))
            if cut:
                rods.append(cut)
    return rods


def _patterns(
    sizes: Sequence[float], wanted: Sequence[int], stock_mm: float, kerf_mm: float
) -> list[tuple[int, ...]] | None:
    """Every way to cut one piece that leaves no room for another length; None where there are too many."""
    found: list[tuple[int, ...]] = []

    def go_on(index: int, room: float, taken: tuple[int, ...]) -> bool:
        if index == len(sizes):
            if any(taken):
                found.append(taken)
            return len(found) <= PATTERNS
        most = min(wanted[index], int((room + 1e-9) // (sizes[index] + kerf_mm)))
        return all(
            go_on(index + 1, room - count * (sizes[index] + kerf_mm), (*taken, count)) for count in range(most, -1, -1)
        )

    return found if go_on(0, stock_mm + kerf_mm, ()) else None


def cutting_list(sort: str, many: str, lengths_mm: Sequence[float], stock_mm: float, kerf_mm: float) -> CuttingList:
    """The cutting list of one sort of support, its figures called as they stand in the plan."""
    return _listed(sort, many, tuple(lengths_mm), stock_mm, kerf_mm)


@cached(TIERS)
def _listed(sort: str, many: str, lengths_mm: tuple[float, ...], stock_mm: float, kerf_mm: float) -> CuttingList:
    rods = fewest_cuts(tuple(sorted([round(one, 2) for one in lengths_mm])), stock_mm, kerf_mm)
    cuts: dict[str, Cut] = {}
    for rod in dict.fromkeys(rods):
        rest = max(0.0, stock_mm - sum(rod) - kerf_mm * (len(rod) if sum(rod) < stock_mm else len(rod) - 1))
        cuts[f"cut_{len(cuts) + 1}"] = Cut(
            times=rods.count(rod),
            lengths={f"piece_{at}": carry_over("length to cut", length, "mm") for at, length in enumerate(rod, 1)},
            rest=carry_over("left of one", rest, "mm", "down"),
        )
    found = CuttingList(
        sort=sort,
        many=many,
        stock=carry_over("length it is sold in", stock_mm, "mm"),
        pieces=carry_over("supports in all", len(lengths_mm), "each"),
        rods=fewest_rods.figure(sum([math.ceil(sum(rod) / stock_mm - 1e-9) or 1 for rod in rods])),
        rest=carry_over("left over in all", sum(one.rest.value * one.times for one in cuts.values()), "mm", "down"),
        cuts=cuts,
        too_long=max(lengths_mm) > stock_mm,
    )
    return named(found, f"stack.cutting.{sort}")
