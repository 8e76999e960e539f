"""The reserve: how far the amounts of one bowl may run over, by walking it many times with amounts that vary.

What stays at each step is taken as log-normal about what was planned, with the coefficient of variation v of its
technique: factor = exp(s z - s² / 2), s² = ln(1 + v²), z standard normal, so that the mean is what was planned
(published: N. L. Johnson, S. Kotz, N. Balakrishnan, Continuous Univariate Distributions 1, chapter 14). What is
lost and what must be in hand follow the same factor. The z are a fixed scrambled Sobol sample, which fills the room
of all steps evenly and is the same in every plan (published: A. B. Owen, "Scrambling Sobol' and Niederreiter-Xing
points", Journal of Complexity 14, 1998; as scipy's qmc.Sobol). Both are cited from memory.
"""

import math
from collections.abc import Sequence
from functools import cached_property, lru_cache

import numpy
from numpy.typing import NDArray

from amber_spread.core.bowls.sample import SEED, WALKS, Sample, normals
from amber_spread.core.kernel.caching import cached
from amber_spread.core.tier import Use

Draw = tuple[float, float, float]
"""One step: what it takes out for good, g; what must be in hand, g; and its coefficient of variation."""


@cached(512)
def factors(step: int, variation: float) -> Sample:
    """By what each walk's amount differs at a step (from 0), for a coefficient of variation. Their mean is 1."""
    sigma = math.sqrt(math.log1p(variation**2))
    found: Sample = numpy.exp(sigma * _normals_of(step) - sigma**2 / 2)
    return found


@lru_cache(512)
def _normals_of(step: int) -> Sample:
    """The sample's normals at a step. Beyond those it has, each step has one to each of as many equal shares, in an
    order of its own (published: Latin hypercube sampling, McKay, Beckman and Conover, Technometrics 21, 1979; from
    memory).
    """
    sample = normals()
    if step < len(sample):
        own: Sample = sample[step]
        return own
    from scipy.special import ndtri

    order = numpy.random.default_rng((SEED, step)).permutation(WALKS)
    found: Sample = ndtri((order + 0.5) / WALKS)
    return found


def walk(ordered: Sequence[Use]) -> "Walks":
    """Every walk of a bowl over its steps in order. Those of the bowls asked for last are kept."""
    return _walk(tuple([(use.kept_g, use.in_hand.value, use.variation.value) for use in ordered]))


@cached(512)
def _walk(draws: tuple[Draw, ...]) -> "Walks":
    return Walks(draws)


@cached(64)
def _in_order(variation: float) -> Sample:
    """The factors of the first step, from the least to the greatest."""
    return numpy.sort(factors(0, variation))


@cached(256)
def _steps(variations: tuple[float, ...]) -> Sample:
    """The factors of each step of a bowl, one row a step and one column a walk."""
    return numpy.stack([factors(step, variation) for step, variation in enumerate(variations)])


class Walks:
    """What each walk of a bowl needs and takes out for good, in order of size."""

    def __init__(self, draws: Sequence[Draw]) -> None:
        if len(draws) == 1:
            ((kept_g, in_hand_g, variation),) = draws
            ordered = _in_order(variation)
            self._needed, self._as_taken = (kept_g + in_hand_g) * ordered, kept_g * ordered
            return
        # All walks at once: a row for what each step finds taken and must have in hand, the last for what is taken.
        kept = [draw[0] for draw in draws]
        rows = [
            [*kept[:step], kept_g + in_hand_g, *[0.0] * (len(draws) - step - 1)]
            for step, (kept_g, in_hand_g, _) in enumerate(draws)
        ]
        walked = numpy.array([*rows, kept]) @ _steps(tuple([draw[2] for draw in draws]))
        self._needed, self._as_taken = walked[:-1].max(axis=0), walked[-1]
        self._needed.sort()

    @cached_property
    def _taken(self) -> Sample:
        return numpy.sort(self._as_taken)

    def enough(self, risk: float) -> float:
        """What is enough in all walks but a share `risk` of them, g: the quantile 1 - risk of what they need."""
        return float(self._needed[_place(1 - risk)])

    def like(self, count: int) -> list[float]:
        """What each of so many cakes would need, g, from the least to the most: evenly spaced quantiles, to 0.1 g."""
        found: list[float] = self._needed[_places(count)].round(1).tolist()
        return found

    def risk_of(self, mixed_g: float) -> float:
        """The share of walks that need more than was mixed."""
        return 1 - int(self._needed.searchsorted(mixed_g + 1e-9, side="right")) / WALKS

    def left_of(self, mixed_g: float, share: float) -> float:
        """What is left of a mixed amount, g, in the walk below which that share of them leave less; never below 0."""
        return max(0.0, mixed_g - float(self._taken[_place(1 - share)]))


@cached(8)
def _places(count: int) -> NDArray[numpy.intp]:
    return numpy.array([_place((number + 0.5) / count) for number in range(count)])


@cached(256)
def _place(share: float) -> int:
    return min(WALKS - 1, max(0, math.ceil(share * WALKS) - 1))
