"""The cheapest way to cut every layer out of tins: an exact dynamic programme over sets of layers.

A set of layers is a bit mask. The programme adds one tin after another. It finds the least cost of each set, by the
number of free layers left in the tin's last bake and by the number of bakes. Twelve layers make 4,096 sets.

Source: set partitioning by dynamic programming over subsets (published: M. Held and R. M. Karp, "A dynamic programming
approach to sequencing problems", 1962; from memory).
"""

from typing import NamedTuple, TypeAlias

import numpy
from numpy.typing import NDArray

Costs: TypeAlias = NDArray[numpy.float64]
Cuts: TypeAlias = list[tuple[int, int]]
"""Pairs of numbers: the offer, and its group."""


class Offer(NamedTuple):
    """A tin: the groups of layers that one layer out of it can be cut into, as bit masks, with their costs; the cost of
    a bake, and the number of layers out of one bake.
    """

    groups: tuple[int, ...]
    costs: tuple[float, ...]
    bake: float
    each: int

    def dominates(self, other: "Offer") -> bool:
        """Whether this tin can replace the other at no higher cost."""
        if self.bake > other.bake or self.each < other.each:
            return False
        own = dict(zip(self.groups, self.costs, strict=True))
        return all(own.get(group, numpy.inf) <= cost for group, cost in zip(other.groups, other.costs, strict=True))


class SetPartition:
    """The least cost of every set of layers, for a list of offers.

    `counted` also tells costs apart by the number of bakes. Cost arrays have the shape (sets, bakes): bakes from 0 to
    the number of layers if counted, else one column.
    """

    def __init__(self, layers: int, counted: bool) -> None:
        self.layers = layers
        self.counted = counted
        self._sets = numpy.arange(1 << layers)
        none = numpy.full((1 << layers, layers + 1 if counted else 1), numpy.inf)
        none[0, 0] = 0.0
        self._offers: tuple[Offer, ...] = ()
        self._costs: tuple[Costs, ...] = (none,)
        """Before the first offer, and after each."""

    def with_offer(self, offer: Offer) -> "SetPartition":
        """The same problem with one more offer."""
        found = SetPartition(self.layers, self.counted)
        found._offers = (*self._offers, offer)
        found._costs = (*self._costs, self._steps(offer, self._costs[-1])[-1].min(axis=1))
        return found

    def cheapest(self, max_bakes: int | None = None) -> Cuts:
        """The cuts of least total cost that cover every layer; empty if a layer is in no group.

        With `max_bakes`, in no more bakes than that; if that cannot be, in as few as possible.
        """
        whole = (1 << self.layers) - 1
        costs = self._costs[-1][whole]
        possible = numpy.flatnonzero(numpy.isfinite(costs))
        if not len(possible):
            return []
        within = possible if max_bakes is None else possible[possible <= max(max_bakes, possible[0])]
        return self._cuts(whole, int(within[numpy.argmin(costs[within])]))

    def _steps(self, offer: Offer, before: Costs, every: bool = False) -> list[NDArray[numpy.float64]]:
        """Costs of shape (sets, free layers in the last bake, bakes) after each group of an offer; only the last unless
        `every` is wanted.
        """
        now = numpy.full((len(before), offer.each, before.shape[1]), numpy.inf)
        now[:, 0] = before
        steps = [now]
        for group, cost in zip(offer.groups, offer.costs, strict=True):
            if every:
                now = now.copy()
                steps.append(now)
            without = self._sets[(self._sets & group) == 0]
            cut = numpy.full((len(without), offer.each, before.shape[1]), numpy.inf)
            cut[:, :-1] = now[without, 1:] + cost
            baked = now[without, 0] + (cost + offer.bake)
            if self.counted:
                cut[:, -1, 1:] = numpy.minimum(cut[:, -1, 1:], baked[:, :-1])
            else:
                cut[:, -1] = numpy.minimum(cut[:, -1], baked)
            now[without | group] = numpy.minimum(now[without | group], cut)
        return steps

    def _cuts(self, layers: int, bakes: int) -> Cuts:
        """Trace the cuts behind the least cost of a set, from the last offer back to the first."""
        found: Cuts = []
        for at in range(len(self._offers) - 1, -1, -1):
            before, after, offer = self._costs[at], self._costs[at + 1], self._offers[at]
            if after[layers, bakes] == before[layers, bakes]:
                continue
            steps = self._steps(offer, before, every=True)
            free = int(numpy.argmin(steps[-1][layers, :, bakes]))
            for which in range(len(offer.groups) - 1, -1, -1):
                if steps[which + 1][layers, free, bakes] == steps[which][layers, free, bakes]:
                    continue
                found.append((at, which))
                layers &= ~offer.groups[which]
                new_bake = free == offer.each - 1
                free = 0 if new_bake else free + 1
                bakes -= int(new_bake and self.counted)
        return found
