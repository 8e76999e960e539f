"""The bowl walk: the order chosen is never beaten by any other, and pooling never costs."""

import itertools

import numpy
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.bowls import sample
from amber_spread.core.bowls.bowls import LIKE, Care, best_order, fill_bowl, kept_order, levels
from amber_spread.core.bowls.reserve import walk
from amber_spread.core.kernel.figures import Figure, Quantity
from amber_spread.core.tier.uses import STEPS, Use, bowl_key
from tests.designs import alike, planned, tier


def use(tier, step, stays, lost, in_hand):
    def grams(value):
        return Figure(value=value, unit="g", rule="test")

    return Use(
        tier=tier,
        tier_id=str(tier),
        step=step,
        medium="fondant",
        colour=None,
        stays=grams(stays),
        lost=grams(lost),
        in_hand=grams(in_hand),
        variation=Quantity(value=0.1, unit="ratio"),
    )


amounts = st.floats(0, 1000).map(lambda value: round(value, 3))
places = st.tuples(st.integers(1, 4), st.sampled_from(STEPS))
few_uses = st.lists(places, min_size=1, max_size=6, unique=True).flatmap(
    lambda found: st.tuples(
        *(st.builds(use, st.just(tier), st.just(step), amounts, amounts, amounts) for tier, step in found)
    )
)


def keeps_each_tiers_order(uses):
    last = {}
    for one in uses:
        at = STEPS.index(one.step)
        if last.get(one.tier, -1) > at:
            return False
        last[one.tier] = at
    return True


@given(few_uses)
def test_no_other_order_of_working_needs_less(uses):
    chosen = best_order(uses)
    assert keeps_each_tiers_order(chosen)
    assert sorted(map(id, chosen)) == sorted(map(id, uses))
    needed = max(levels(chosen).values())
    for other in itertools.permutations(uses):
        if keeps_each_tiers_order(other):
            assert needed <= max(levels(other).values()) + 1e-6


def test_the_sheet_that_leaves_most_trimmings_is_rolled_first():
    sheets = [use(1, "cover", 900, 20, 300), use(2, "cover", 600, 15, 500), use(3, "cover", 400, 10, 100)]
    assert [one.tier for one in best_order(sheets)] == [2, 1, 3]
    assert max(levels(best_order(sheets)).values()) == 615 + 920 + 410 + 100


def test_the_walk_by_hand():
    steps = [use(1, "final", 500, 40, 250), use(2, "final", 300, 20, 150)]
    assert levels(steps) == {"tier_1_final": 790, "tier_2_final": 540 + 320 + 150}


def test_ties_keep_lower_tiers_and_earlier_steps_first():
    same = [use(2, "final", 1, 0, 5), use(1, "final", 1, 0, 5), use(1, "crumb", 1, 0, 5)]
    assert [(one.tier, one.step) for one in best_order(same)] == [(1, "crumb"), (1, "final"), (2, "final")]


@given(few_uses)
def test_one_bowl_needs_no_more_than_bowls_apart(uses):
    together = fill_bowl(uses, "Fondant", "#FFFFFF", Care(0.05, 5))
    assert together.need.value <= together.apart.value + 1e-6


def test_a_smaller_risk_asks_for_a_larger_reserve_and_an_even_chance_for_none():
    uses = [use(1, "final", 1000, 0, 0)]
    reserves = [fill_bowl(uses, "x", "#FFFFFF", Care(risk, 5)).reserve.value for risk in (0.5, 0.2, 0.05, 0.01)]
    assert reserves == sorted(reserves)
    assert reserves[0] == 0


def test_one_bowl_for_all_takes_less_reserve_than_bowls_apart():
    uses = [use(tier, "final", 500, 40, 0) for tier in (1, 2, 3, 4)]
    together = fill_bowl(uses, "x", "#FFFFFF", Care(0.05, 5)).reserve.value
    assert together < 0.7 * sum(fill_bowl([one], "x", "#FFFFFF", Care(0.05, 5)).reserve.value for one in uses)


@given(few_uses, st.floats(0.01, 0.4))
def test_what_is_mixed_runs_short_no_oftener_than_was_risked(uses, risk):
    bowl = fill_bowl(uses, "x", "#FFFFFF", Care(risk, 5))
    assert bowl.risk.value <= risk + 1 / 1024
    assert bowl.risk.value <= bowl.risk_bare.value
    left = [bowl.left[name].value for name in ("least", "likely", "most")]
    assert left == sorted(left) and left[0] >= 0
    mixes = [figure.value for figure in bowl.at_risk.values()]
    assert mixes == sorted(mixes)


@given(few_uses, st.randoms())
def test_a_wanted_order_is_kept_as_far_as_each_tiers_work_allows_and_costs_what_it_costs(uses, random):
    wanted = [one.step_key for one in uses]
    random.shuffle(wanted)
    ordered = kept_order(uses, wanted)
    assert keeps_each_tiers_order(ordered)
    assert sorted(one.step_key for one in ordered) == sorted(wanted)
    bowl = fill_bowl(uses, "x", "#FFFFFF", Care(0.05, 5), wanted)
    assert bowl.order_cost.value >= -1e-6
    assert bowl.need.value == pytest.approx(
        fill_bowl(uses, "x", "#FFFFFF", Care(0.05, 5)).need.value + bowl.order_cost.value
    )


def test_a_step_that_is_not_there_is_left_out_and_one_not_named_comes_after():
    sheets = [use(1, "cover", 900, 20, 300), use(2, "cover", 600, 15, 500), use(3, "cover", 400, 10, 100)]
    assert [one.tier for one in kept_order(sheets, ["tier_9_cover", "tier_3_cover"])] == [3, 2, 1]
    assert fill_bowl(sheets, "x", "#FFFFFF", Care(0.05, 5)).order_cost is None


def test_the_same_bowl_is_the_same_every_time():
    uses = [use(1, "final", 700, 40, 300), use(2, "final", 400, 20, 150)]
    one, other = (fill_bowl(uses, "x", "#FFFFFF", Care(0.05, 5)) for _ in range(2))
    assert one is not other and alike(one, other)


def test_a_bowl_serves_at_least_one_use():
    with pytest.raises(ValueError, match="at least one"):
        fill_bowl([], "x", "#FFFFFF", Care(0.05, 5))


def test_bowls_are_told_apart_by_medium_and_colour():
    keys = {bowl_key("fondant", None), bowl_key("fondant", "Pale Blush"), bowl_key("ganache", None)}
    assert keys == {"fondant", "fondant~pale-blush", "ganache"}


def test_twenty_cakes_stand_for_all_walks():
    bowl = planned(tier(254), tier()).bowls["meringue_buttercream"]
    assert len(bowl.spread_g) == LIKE
    assert bowl.spread_g == sorted(bowl.spread_g)
    short = sum(grams > bowl.mix.value for grams in bowl.spread_g) / LIKE
    assert abs(short - bowl.risk.value) <= 1 / LIKE
    assert bowl.spread_g[LIKE // 2 - 1] <= walk(list(bowl.steps.values())).enough(0.5) <= bowl.spread_g[LIKE // 2]


def test_one_bowl_for_all_tiers_takes_less_than_one_for_each_with_its_own_reserve():
    whole = planned(tier(254), tier(), tier(152.4))
    apart = [planned(tier(tin)).bowls["meringue_buttercream"].mix.value for tin in (254, 203.2, 152.4)]
    bowl = whole.bowls["meringue_buttercream"]
    assert bowl.mix.value < bowl.mixed_apart.value
    assert bowl.mixed_apart.value == pytest.approx(sum(apart), rel=0.01)  # the same walks, by other steps of the sample
    assert planned(tier()).bowls["meringue_buttercream"].mixed_apart is None


def test_the_sample_of_walks_is_the_one_that_a_library_makes():
    """Number by number: scipy's scrambled Sobol sample of that seed."""
    from scipy.stats import qmc

    made = qmc.Sobol(sample.STEPS, scramble=True, rng=sample.SEED, bits=sample.BITS).random(sample.WALKS)
    assert numpy.array_equal(sample.places(), made)
