"""The cheapest way to cut all layers out of tins, exactly and in bounded time: a dynamic programme over sets of layers.

A set of layers is a number, a bit a layer. Tins are gone through one after another; for each set of layers cut so far,
and each number of layers that the last bake of the tin in hand still holds, the least cost is known. At most 12 layers
are 4,096 sets (a set-partition problem; Held and Karp 1962, "A dynamic programming approach to sequencing problems").
"""

from typing import NamedTuple, TypeAlias

import numpy
from numpy.typing import NDArray

Costs: TypeAlias = NDArray[numpy.float64]
Taken: TypeAlias = list[tuple[int, int]]
"""What is taken: the offer and its group, by their numbers."""


class Offer(NamedTuple):
    """A tin: the groups of layers that may be cut from one layer out of it, each as a set, and what each costs; what a
    bake costs more, and how many layers it gives.
    """

    groups: tuple[int, ...]
    costs: tuple[float, ...]
    bake: float
    each: int

    def beats(self, other: "Offer") -> bool:
        """Whether whatever is cut out of the other is cut out of this one at no more."""
        if self.bake > other.bake or self.each < other.each:
            return False
        own = dict(zip(self.groups, self.costs, strict=True))
        return all(own.get(group, numpy.inf) <= cost for group, cost in zip(other.groups, other.costs, strict=True))


class Cheapest:
    """The least cost of every set of layers out of some offers, gone through one after another.

    Costs are an array of the sets, shape (2 ** layers, bakes + 1), where bakes are counted; else (2 ** layers, 1).
    """

    def __init__(self, layers: int, counted: bool = False) -> None:
        self.layers = layers
        self.counted = counted
        self.offers: list[Offer] = []
        first = numpy.full((1 << layers, layers + 1 if counted else 1), numpy.inf)
        first[0, 0] = 0.0
        self._after: list[Costs] = [first]
        self._sets = numpy.arange(1 << layers)

    def with_offer(self, offer: Offer) -> "Cheapest":
        """The same with one offer more."""
        found = Cheapest(self.layers, self.counted)
        found.offers = [*self.offers, offer]
        found._after = [*self._after, self._through(offer, self._after[-1])[-1].min(axis=1)]
        return found

    def least(self, most: int | None = None) -> tuple[float, Taken]:
        """The least cost of all layers and what is taken for it, in at most so many bakes where they are counted; in as
        few as there can be where there are no so few. The cost is infinite where a layer is in no group.
        """
        whole = (1 << self.layers) - 1
        ends = self._after[-1][whole]
        if not numpy.isfinite(ends).any():
            return numpy.inf, []
        bakes = int(numpy.argmin(ends))
        if self.counted and most is not None:
            within = ends[: most + 1]
            fewest = int(numpy.flatnonzero(numpy.isfinite(ends))[0])
            bakes = int(numpy.argmin(within)) if numpy.isfinite(within).any() else fewest
        return float(ends[bakes]), self._taken(whole, bakes)

    def _through(self, offer: Offer, before: Costs, all_steps: bool = False) -> list[Costs]:
        """Least costs by set, layers left of the last bake, and bakes, after each group of an offer; the last alone
        unless all are wanted.
        """
        now = numpy.full((len(before), offer.each, before.shape[1]), numpy.inf)
        now[:, 0] = before
        steps = [now]
        for group, cost in zip(offer.groups, offer.costs, strict=True):
            free = self._sets[(self._sets & group) == 0]
            if all_steps:
                now = now.copy()
                steps.append(now)
            cut = numpy.full((len(free), offer.each, before.shape[1]), numpy.inf)
            cut[:, :-1] = now[free, 1:] + cost
            baked = now[free, 0] + (cost + offer.bake)
            if self.counted:
                cut[:, -1, 1:] = numpy.minimum(cut[:, -1, 1:], baked[:, :-1])
            else:
                cut[:, -1] = numpy.minimum(cut[:, -1], baked)
            now[free | group] = numpy.minimum(now[free | group], cut)
        return steps

    def _taken(self, sets: int, bakes: int) -> Taken:
        """What is taken on the way to a set of layers in so many bakes, found backwards."""
        found: Taken = []
        for at in range(len(self.offers) - 1, -1, -1):
            before, after, offer = self._after[at], self._after[at + 1], self.offers[at]
            if after[sets, bakes] == before[sets, bakes]:
                continue
            steps = self._through(offer, before, all_steps=True)
            left = int(numpy.argmin(steps[-1][sets, :, bakes]))
            for which in range(len(offer.groups) - 1, -1, -1):
                if steps[which + 1][sets, left, bakes] == steps[which][sets, left, bakes]:
                    continue
                found.append((at, which))
                sets &= ~offer.groups[which]
                begun = left == offer.each - 1
                left = 0 if begun else left + 1
                bakes -= 1 if begun and self.counted else 0
        return found
