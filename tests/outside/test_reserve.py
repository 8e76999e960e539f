"""The reserve against scipy's exact log-normal for one step, and a large independent Monte Carlo for many."""

import math

import numpy
import pytest
from scipy import stats

from amber_spread.core.bowls.bowls import Care, best_order, fill_bowl
from amber_spread.core.bowls.reserve import WALKS, factors, walk
from amber_spread.core.kernel.figures import Figure, Quantity
from amber_spread.core.tier.uses import Use


def use(tier, stays, lost, in_hand, variation):
    def grams(value):
        return Figure(value=value, unit="g", rule="test")

    return Use(
        tier=tier,
        tier_id=str(tier),
        step="final",
        medium="x",
        colour=None,
        stays=grams(stays),
        lost=grams(lost),
        in_hand=grams(in_hand),
        variation=Quantity(value=variation, unit="ratio"),
    )


def exact(mean, variation):
    """The log-normal of that mean and coefficient of variation, as scipy parametrises it."""
    sigma = math.sqrt(math.log(1 + variation**2))
    return stats.lognorm(s=sigma, scale=mean * math.exp(-(sigma**2) / 2))


@pytest.mark.parametrize("variation", [0.05, 0.2, 0.3])
@pytest.mark.parametrize("odds", [5, 20, 50])
def test_one_step_is_the_exact_quantile(variation, odds):
    walks = walk([use(1, 950, 50, 0, variation)])
    assert walks.enough(1 / odds) == pytest.approx(exact(1000, variation).ppf(1 - 1 / odds), rel=0.006)


@pytest.mark.parametrize("variation", [0.1, 0.25])
def test_the_sample_keeps_the_mean_and_the_spread_it_was_made_for(variation):
    sample = factors(0, variation)
    assert len(sample) == WALKS
    assert sample.mean() == pytest.approx(1, abs=0.002)
    assert sample.std() == pytest.approx(variation, rel=0.03)


def test_many_steps_agree_with_a_million_independent_walks():
    steps = best_order(
        [use(1, 620, 50, 310, 0.2), use(2, 480, 40, 240, 0.2), use(3, 300, 24, 150, 0.15), use(4, 160, 13, 20, 0.25)]
    )
    rng = numpy.random.default_rng(7)
    taken = needed = numpy.zeros(1_000_000)
    for one in steps:
        factor = exact(1, one.variation.value).rvs(len(needed), random_state=rng)
        taken = taken + (one.stays.value + one.lost.value) * factor
        needed = numpy.maximum(needed, taken + one.in_hand.value * factor)
    walks = walk(steps)
    for risk in (0.2, 0.05, 0.02):
        assert walks.enough(risk) == pytest.approx(float(numpy.quantile(needed, 1 - risk)), rel=0.01)
    mixed = walks.enough(0.05)
    assert walks.risk_of(mixed) == pytest.approx(float((needed > mixed).mean()), abs=0.01)
    assert walks.left_of(mixed, 0.5) == pytest.approx(float(numpy.median(mixed - taken)), rel=0.03)


def test_the_bowl_mixes_what_the_exact_quantile_asks_for():
    bowl = fill_bowl([use(1, 1000, 0, 0, 0.2)], "x", "#FFFFFF", Care(0.05, 5))
    wanted = exact(1000, 0.2).ppf(0.95)
    assert wanted - 6 <= bowl.mix.value <= wanted + 11
