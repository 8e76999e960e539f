"""Cooling and warming, checked against series solutions, a handbook's tables and what hands report."""

import math
from datetime import datetime, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.optimize import brentq
from scipy.special import j0, j1

from amber_spread.core.clock import Kitchen, WrongPace, clock_of, pace_of
from amber_spread.core.clock.heat import Air, Rooms, Shell, Spread, minutes_of, pace_from
from amber_spread.core.clock.heat.air import BENCH_FILM, FREEZER_FILM, FRIDGE_FILM
from amber_spread.core.clock.heat.conduction import TIMES_MIN, Cooling, Layers, Slice
from amber_spread.core.clock.heat.materials import (
    FATS,
    Material,
    conductivity,
    heat_capacity,
    holds_degc,
    material,
    solid_share,
    with_air,
)
from amber_spread.core.design.finishes import CrumbCoat, DrapeCover, FreehandFinal, InvertedFinal
from amber_spread.core.document import plan_document
from amber_spread.core.stock.composition import (
    BAKED_CAKE,
    BOUGHT,
    INGREDIENTS,
    NO_RECIPES,
    Composition,
    composition_of,
    compositions_of,
)
from amber_spread.core.stock.ingredients import INGREDIENTS as SHELF
from amber_spread.core.stock.ingredients import Ingredient
from amber_spread.core.stock.media import LIBRARY
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import Recipe, RecipeLine
from tests.designs import document, tier

MEDIA = {one.key: one for one in LIBRARY}
DUE = datetime(2026, 12, 5, 11)


# Composition and materials


def test_everything_the_program_brings_has_a_composition_that_adds_up():
    assert {one.key for one in SHELF} == set(INGREDIENTS)
    for key, one in (INGREDIENTS | BOUGHT).items():
        assert sum(one) == pytest.approx(100, abs=1.5), key
    for one in LIBRARY:
        found = composition_of(one, NO_RECIPES)
        assert sum(found) == pytest.approx(1) and min(found) >= 0, one.key


def test_the_composition_of_a_recipe_is_that_of_its_lines():
    """Butter is 81 % fat, icing sugar is sugar (published: USDA FoodData Central; from memory)."""
    found = composition_of(MEDIA["american_buttercream"], NO_RECIPES)
    assert found.milk_fat == pytest.approx(250 * 0.81 / 785, rel=0.02)
    assert found.carbohydrate == pytest.approx(500 / 785, rel=0.02)
    assert composition_of(MEDIA["dark_ganache"], NO_RECIPES).cocoa_butter == pytest.approx(0.38 * 2 / 3, rel=0.02)


def own_recipe(*lines):
    made = Recipe(
        key="mine",
        name="Mine",
        makes="meringue_buttercream",
        lines=tuple(RecipeLine(item=item, amount=amount) for item, amount in lines),
    )
    nuts = Ingredient(key="nuts", name="Nuts", density_g_per_ml=0.5)
    return compositions_of(Pantry(recipes=(made,), ingredients=(nuts,)))


def test_a_kitchens_own_recipe_says_what_its_medium_is_made_of():
    """A buttercream of shortening alone holds in a warmer kitchen than one of butter."""
    own = own_recipe(("shortening", 500.0), ("icing_sugar", 500.0))
    found = composition_of(MEDIA["meringue_buttercream"], own)
    assert found.shortening == pytest.approx(0.5) and found.milk_fat == 0
    assert holds_degc(found) == FATS["shortening"].holds_degc
    one = ordered()
    plan = plan_document(one)
    usual, mine = (
        firmings(clock_of(one, plan, kitchen=Kitchen(made_of=made_of)))["firm_final"] for made_of in (NO_RECIPES, own)
    )
    assert mine.firming.holds.value > usual.firming.holds.value and mine.wait.value < usual.wait.value


def test_an_ingredient_nothing_is_known_of_counts_as_the_rest_does_unless_there_is_much_of_it():
    little = own_recipe(("butter", 500.0), ("icing_sugar", 450.0), ("nuts", 50.0))["meringue_buttercream"]
    assert little.milk_fat == pytest.approx(500 * 0.81 / 950, rel=0.01) and sum(little) == pytest.approx(1)
    assert "meringue_buttercream" not in own_recipe(("butter", 500.0), ("nuts", 500.0))


FOODS = {
    # Water, protein, fat, carbohydrate without fibre, fibre, ash in %, and heat capacity above freezing, kJ/(kg K).
    "whole milk": ((87.69, 3.28, 3.66, 4.65, 0, 0.72), 3.89),
    "butter": ((16.0, 0.85, 81.11, 0.04, 0, 2.0), 2.40),
    "apples, fresh": ((83.93, 0.19, 0.36, 12.55, 2.7, 0.27), 3.81),
    "honey": ((17.1, 0.3, 0, 82.2, 0.2, 0.2), 2.03),
    "whole egg": ((75.33, 12.49, 10.02, 1.22, 0, 0.94), 3.63),
    "lean beef": ((71.7, 22.03, 4.98, 0, 0, 1.1), 3.52),
}
"""Published: ASHRAE Handbook, Refrigeration, thermal properties of foods, table of unfrozen compositions; cited from
memory. Its heat capacities come from another formula (Chen, 1985)."""


def food(name):
    water, protein, fat, carbohydrate, fibre, ash = FOODS[name][0]
    return Composition(water=water, protein=protein, oil=fat, carbohydrate=carbohydrate, fibre=fibre, ash=ash).shares()


@pytest.mark.parametrize("name", FOODS)
def test_heat_capacities_agree_with_the_handbook(name):
    assert heat_capacity(food(name), 20, 20) == pytest.approx(FOODS[name][1], rel=0.09 if name == "butter" else 0.05)


@pytest.mark.parametrize(
    ("name", "degc", "published"), [("whole milk", 28, 0.580), ("butter", 46, 0.197), ("lean beef", 6, 0.48)]
)
def test_conductivities_agree_with_the_handbook(name, degc, published):
    """Published: the same handbook, table of conductivities; cited from memory."""
    assert conductivity(food(name), degc) == pytest.approx(published, rel=0.08)


def test_air_keeps_heat_in():
    """No bubbles leave it as it is; all bubbles are air; sponge measures 0.1 to 0.2 W/(m K) (published ranges for cake
    crumb; from memory).
    """
    assert with_air(0.3, 0) == pytest.approx(0.3) and with_air(0.3, 1) == pytest.approx(0.025)
    assert 0.09 <= material(BAKED_CAKE, 0.5, 22, 12).conductivity <= 0.2


@pytest.mark.parametrize("name", FATS)
def test_a_fat_gives_off_all_its_heat_as_it_sets(name):
    """However the range of temperatures is cut up, the heat is the same."""
    fat, whole = FATS[name], Composition(**{name: 1.0})
    assert solid_share(fat, 60) == 0 and solid_share(fat, -30) == fat.solid[0][1]
    latent = 50 * (heat_capacity(whole, 50, 0) - heat_capacity(Composition(oil=1.0), 50, 0))
    assert latent == pytest.approx(fat.latent_kj_per_kg * fat.solid[0][1])
    shares = [solid_share(fat, degc) for degc in range(55)]
    assert shares == sorted(shares, reverse=True)


def test_what_has_little_fat_does_not_firm_in_the_cold():
    firm = {key for key, one in MEDIA.items() if holds_degc(composition_of(one, NO_RECIPES)) is not None}
    assert not firm & {"raspberry_jam", "syrup", "fondant", "gum_paste"}
    assert firm >= {"american_buttercream", "meringue_buttercream", "dark_ganache", "cream_cheese_frosting"}


# Conduction


def cells(thick_mm, radius_mm=None, k=0.3, kept=2500.0, degc=22.0, fine=6):
    return Layers([Slice(thick_mm, Material(k, kept), degc)], radius_mm, fine)


def slab_roots(biot, count):
    return [
        brentq(lambda x: x * math.tan(x) - biot, n * math.pi + 1e-9, n * math.pi + math.pi / 2 - 1e-9)
        for n in range(count)
    ]


def cylinder_roots(biot, count):
    found, at = [], 1e-6
    while len(found) < count:
        if (at * j1(at) - biot * j0(at)) * ((at + 0.01) * j1(at + 0.01) - biot * j0(at + 0.01)) <= 0:
            found.append(brentq(lambda x: x * j1(x) - biot * j0(x), at, at + 0.01))
        at += 0.01
    return found


@pytest.mark.parametrize("film", [4.0, 9.0, 30.0])
@pytest.mark.parametrize("minutes", [5, 30, 120, 600])
def test_a_slab_cools_as_the_series_solution_says(film, minutes):
    """Published: Carslaw and Jaeger, Conduction of Heat in Solids, 2nd edition, section 3.11."""
    half_mm, k, kept = 50.0, 0.3, 2500.0
    found = Cooling(cells(half_mm, k=k, kept=kept), Air(4.0, film)).cells(minutes)
    biot = film * half_mm / 1000 / k
    fourier = k / (1000 * kept) * 60 * minutes / (half_mm / 1000) ** 2
    centres = 1 - (np.arange(len(found)) + 0.5) / len(found)
    exact = sum(
        4 * math.sin(zeta) / (2 * zeta + math.sin(2 * zeta)) * math.exp(-(zeta**2) * fourier) * np.cos(zeta * centres)
        for zeta in slab_roots(biot, 80)
    )
    assert found == pytest.approx(4 + 18 * exact, abs=0.05)


@pytest.mark.parametrize("film", [4.0, 9.0, 30.0])
@pytest.mark.parametrize("minutes", [5, 30, 120, 600])
def test_a_long_cylinder_cools_as_the_series_solution_says(film, minutes):
    """Published: the same, section 7.7, with Bessel functions."""
    radius_mm, k, kept = 75.0, 0.2, 1800.0
    found = Cooling(cells(radius_mm, radius_mm, k, kept), Air(4.0, film)).cells(minutes)
    biot = film * radius_mm / 1000 / k
    fourier = k / (1000 * kept) * 60 * minutes / (radius_mm / 1000) ** 2
    centres = 1 - (np.arange(len(found)) + 0.5) / len(found)
    exact = sum(
        2 * j1(zeta) / (zeta * (j0(zeta) ** 2 + j1(zeta) ** 2)) * math.exp(-(zeta**2) * fourier) * j0(zeta * centres)
        for zeta in cylinder_roots(biot, 60)
    )
    assert found == pytest.approx(4 + 18 * exact, abs=0.06)


@pytest.mark.parametrize(
    ("biot", "slab", "cylinder"), [(0.1, 0.3111, 0.4417), (1.0, 0.8603, 1.2558), (10.0, 1.4289, 2.1795)]
)
def test_the_slowest_mode_is_that_of_the_handbook(biot, slab, cylinder):
    """Published: Incropera and DeWitt, Fundamentals of Heat and Mass Transfer, table 5.1; cited from memory."""
    size_mm, k, kept = 60.0, 0.25, 2000.0
    for radius_mm, zeta in ((None, slab), (size_mm, cylinder)):
        cooling = Cooling(cells(size_mm, radius_mm, k, kept), Air(0.0, biot * k / (size_mm / 1000)))
        fourier_per_min = 60 * k / (1000 * kept) / (size_mm / 1000) ** 2
        assert math.sqrt(min(cooling.rates) / fourier_per_min) == pytest.approx(zeta, rel=0.003)


def test_layers_of_two_kinds_cool_as_a_solver_of_differential_equations_finds():
    """scipy's implicit solver, on a grid of its own; nothing of the program is in it."""
    coat_mm, cake_mm, film, air = 8.0, 60.0, 9.0, 4.0
    coat, cake = Material(0.18, 2300.0), Material(0.12, 1300.0)
    layers = Layers([Slice(coat_mm, coat, 22.0), Slice(cake_mm, cake, 12.0)], None, 4)
    count, dx = 340, (coat_mm + cake_mm) / 1000 / 340
    at = (np.arange(count) + 0.5) * dx
    outer = at < coat_mm / 1000
    k, kept = (
        np.where(outer, coat.conductivity, cake.conductivity),
        1000 * np.where(outer, coat.heat_capacity, cake.heat_capacity),
    )
    joint = 2 * k[:-1] * k[1:] / (k[:-1] + k[1:]) / dx

    def change(_, degc):
        flow = np.zeros(count + 1)
        flow[0] = (air - degc[0]) / (1 / film + dx / 2 / k[0])
        flow[1:-1] = joint * (degc[:-1] - degc[1:])
        return (flow[:-1] - flow[1:]) / (kept * dx)

    minutes = [2, 10, 30, 90]
    solved = solve_ivp(
        change, (0, 60 * 90), np.where(outer, 22.0, 12.0), "BDF", [60 * one for one in minutes], rtol=1e-7, atol=1e-8
    )
    cooling = Cooling(layers, Air(air, film))
    ends = np.cumsum(
        [coat_mm / layers.ends[0]] * layers.ends[0]
        + [cake_mm / (layers.ends[1] - layers.ends[0])] * (layers.ends[1] - layers.ends[0])
    )
    centres = (np.concatenate(([0], ends[:-1])) + ends) / 2000
    for column, one in enumerate(minutes):
        assert cooling.cells(one) == pytest.approx(np.interp(centres, at, solved.y[:, column]), abs=0.12)


def test_an_edge_is_the_product_of_its_two_faces():
    """A quarter of a square bar, by a plain explicit scheme in two dimensions: its corner against the product rule
    (published: Carslaw and Jaeger, section 1.15).
    """
    half_mm, k, kept, film, air = 40.0, 0.3, 2500.0, 20.0, 22.0
    count = 40
    dx = half_mm / 1000 / count
    degc = np.full((count, count), 5.0)
    step_s = 0.2 * dx**2 * 1000 * kept / k
    face = 1 / (1 / film + dx / 2 / k)
    for _ in range(round(1200 / step_s)):
        flow = np.zeros_like(degc)
        for axis in (0, 1):
            moved = np.moveaxis(degc, axis, 0)
            into = np.moveaxis(flow, axis, 0)
            between = k / dx * (moved[:-1] - moved[1:])
            into[:-1] -= between
            into[1:] += between
            into[0] += face * (air - moved[0])
        degc = degc + flow * step_s / (1000 * kept * dx)
    one = Cooling(cells(half_mm, k=k, kept=kept, degc=5.0, fine=4), Air(air, film))
    minutes = round(1200 / step_s) * step_s / 60
    left = (air - np.interp(dx * 500, [0.4166667, 1.25], one.cells(minutes)[:2])) / (air - 5)
    assert degc[0, 0] == pytest.approx(air - (air - 5) * left**2, abs=0.35)


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.tuples(st.floats(0.2, 30), st.floats(0.05, 0.6), st.floats(300, 4200), st.floats(-5, 45)), min_size=1),
    st.floats(-30, 45),
    st.floats(1, 40),
    st.booleans(),
)
def test_nothing_is_ever_warmer_or_colder_than_all_there_was(given_layers, air_degc, film, round_wall):
    """The maximum principle of heat conduction, and in the end everything is as warm as the air."""
    slices = [Slice(thick, Material(k, kept), degc) for thick, k, kept, degc in given_layers]
    cooling = Cooling(Layers(slices, sum(one.thick_mm for one in slices) if round_wall else None), Air(air_degc, film))
    low = min(air_degc, *(one.degc for one in slices)) - 1e-6
    high = max(air_degc, *(one.degc for one in slices)) + 1e-6
    for minutes in (0, 1, 17, 300):
        found = cooling.cells(minutes)
        assert low <= found.min() and found.max() <= high
    assert cooling.cells(1e7) == pytest.approx(np.full(len(cooling.cells(0)), air_degc), abs=1e-3)
    assert low <= cooling.face().min() and cooling.face().max() <= high and len(cooling.face()) == len(TIMES_MIN)


def test_layers_thicker_than_the_radius_are_refused():
    with pytest.raises(ValueError, match="radius"):
        cells(80, 60)


# Firming


def spread(key, thick_mm, fresh=True):
    medium = MEDIA[key]
    return Spread(thick_mm, composition_of(medium, NO_RECIPES), medium.density_g_per_ml, not medium.soft, fresh)


def shell(*worn, radius_mm=100.0, **more):
    return Shell(worn, worn, radius_mm, 100.0, BAKED_CAKE, 0.5, **more)


def crumbed(key="meringue_buttercream", thick_mm=1.0):
    return shell(spread(key, thick_mm))


def coated(key="meringue_buttercream", thick_mm=6.0, **more):
    return shell(spread(key, thick_mm), spread(key, 1.0, False), **more)


def rooms(kitchen=22.0, fridge=4.0, freezer=-18.0, pace=1.0):
    return Rooms(Air(kitchen, BENCH_FILM), Air(fridge, pace * FRIDGE_FILM), Air(freezer, FREEZER_FILM), 0.5)


HANDS = {
    # What is firmed, the kitchen, in the freezer or the fridge, and the minutes that hands report.
    "crumb coat": (crumbed(thick_mm=1), 22, False, (30, 30)),
    "crumb coat, freezer": (crumbed(thick_mm=2), 22, True, (15, 15)),
    "crumb coat at 40 °C": (crumbed(thick_mm=1), 40, False, (60, 60)),
    "final coat": (coated(), 22, False, (10, 60)),
    "final coat, freezer": (coated(), 22, True, (10, 20)),
    "final coat upside-down in the heat": (coated(thick_mm=8, on_its_top=True), 38, False, (150, 150)),
    "ganache": (coated("dark_ganache"), 22, False, (10, 30)),
}
"""Common practice: what decorators report for coats of buttercream, in a fridge and a freezer."""


@pytest.mark.parametrize("name", HANDS)
def test_coats_firm_in_about_the_time_hands_report(name):
    """The range planned reaches to half the least and twice the most that hands report, and does not miss theirs."""
    worn, kitchen, freezer, (least, most) = HANDS[name]
    found = minutes_of(worn, rooms(kitchen), freezer)
    assert least / 1.6 <= found.through <= most * 1.6
    assert found.least <= most * 1.1 and least <= found.most * 1.5


def test_a_freezer_is_quicker_and_heat_is_slower():
    def through(worn, kitchen=22, freezer=False):
        return minutes_of(worn, rooms(kitchen), freezer).through

    assert through(coated(), freezer=True) < 0.6 * through(coated())
    assert 1.6 < through(coated(), 40) / through(coated()) < 4
    assert through(coated("dark_ganache")) < through(coated())
    assert through(coated(on_its_top=True)) > 1.5 * through(coated())


WORN = st.builds(
    lambda key, thick, fresh, radius: shell(spread(key, thick), spread(key, 1.0, fresh), radius_mm=radius),
    st.sampled_from(["american_buttercream", "meringue_buttercream", "dark_ganache", "cream_cheese_frosting"]),
    st.floats(0.5, 25),
    st.booleans(),
    st.floats(30, 200),
)


@settings(max_examples=60, deadline=None)
@given(WORN, st.floats(17, 40), st.floats(0, 7), st.floats(0.5, 3), st.booleans())
def test_what_is_firmer_takes_longer_and_what_is_colder_is_quicker(worn, kitchen, fridge, pace, freezer):
    found = minutes_of(worn, rooms(kitchen, fridge, pace=pace), freezer)
    assert 10 <= found.touch <= found.through <= found.lift and found.least <= found.through <= found.most
    assert found.stays > 0
    colder = minutes_of(worn, rooms(kitchen, fridge - 2, pace=pace), freezer)
    fanned = minutes_of(worn, rooms(kitchen, fridge, pace=pace * 1.5), freezer)
    assert colder.through <= found.through * 1.001 and fanned.through <= found.through * 1.001
    thicker = worn._replace(side=(worn.side[0]._replace(thick_mm=worn.side[0].thick_mm + 2), worn.side[1]))
    if worn.side[1].fresh is False:
        assert minutes_of(thicker, rooms(kitchen, fridge, pace=pace), freezer).through >= found.through * 0.97


@pytest.mark.parametrize("worn", [crumbed(), coated(), coated(thick_mm=15), coated("dark_ganache")])
def test_cells_three_times_as_fine_change_little(worn):
    coarse, fine = (minutes_of(worn, rooms(), False, fine=fine) for fine in (1, 3))
    for level in ("touch", "through", "lift"):
        assert getattr(coarse, level) == pytest.approx(getattr(fine, level), rel=0.06)


@settings(max_examples=25, deadline=None)
@given(st.floats(0.4, 2.5), st.floats(2, 12), st.sampled_from(["through", "lift"]))
def test_what_a_coat_took_finds_how_well_the_fridge_cools(pace, thick, level):
    worn = coated(thick_mm=thick)
    took = getattr(minutes_of(worn, rooms(pace=pace), False), level)
    found = pace_from(worn, rooms(), False, level, took)
    again = minutes_of(worn, rooms(pace=found), False)
    assert getattr(again, level) == pytest.approx(took, rel=0.02)


def test_no_fridge_takes_a_minute_or_a_week():
    assert pace_from(coated(), rooms(), False, "through", 1) is None
    assert pace_from(coated(), rooms(), False, "through", 10_000) is None


# In the clock


def ordered(*tiers, **practice):
    return document(*(tiers or (tier(203, cover=DrapeCover()),)), title="Skep", due=DUE, practice=practice)


def clocked(found):
    return clock_of(found, plan_document(found))


def firmings(clock):
    return {one.kind: one for one in clock.steps.values() if one.firming is not None}


def test_the_waits_of_coats_come_from_heat_and_are_where_they_firm():
    fridge, freezer = (firmings(clocked(ordered(firm_in=where))) for where in ("fridge", "freezer"))
    assert set(fridge) == set(freezer) == {"firm_crumb", "firm_final", "chill_cover"}
    for kind, one in fridge.items():
        level = one.firming.lift if kind == "chill_cover" else one.firming.through
        assert one.wait.value == level.value and one.place == "fridge" and one.wait.rule == "clock.firm"
        assert freezer[kind].place == "freezer" and freezer[kind].wait.value < one.wait.value
        assert freezer[kind].firming.through.value == pytest.approx(one.firming.other.value)
        assert one.end - one.start >= timedelta(minutes=one.wait.value - 1)
        # A freezer freezes what is left in it.
        assert freezer[kind].end - freezer[kind].start <= timedelta(minutes=freezer[kind].wait.value + 1)


def test_a_warm_kitchen_waits_longer_and_a_cold_one_does_not_soften_it():
    warm, cold = (firmings(clocked(ordered(kitchen_degc=degc)))["firm_final"].firming for degc in (32.0, 16.0))
    assert warm.through.value > cold.through.value and warm.stays.value < 60 and cold.stays is None


def test_a_fridge_that_is_too_warm_is_said_with_what_helps():
    found = clocked(ordered(fridge_degc=13.0))
    (warm,) = {one.text for one in found.checks if one.code == "clock.too_warm" and "crumb coat" in one.text}
    assert "the fridge is too warm" in warm and "firm it in the freezer" in warm
    one = firmings(found)["firm_crumb"]
    assert one.firming.through is None and one.wait.rule == "clock.wait" and one.firming.other is not None
    assert not [one for one in clocked(ordered()).checks if one.code == "clock.too_warm"]


def test_what_stays_soft_keeps_the_wait_hands_report():
    soft = tier(203, crumb=CrumbCoat(medium="whipped_cream"), final=FreehandFinal(medium="whipped_cream"))
    steps = clocked(ordered(soft)).steps.values()
    assert not [one for one in steps if one.firming is not None]
    assert {one.wait.rule for one in steps if one.kind in ("firm_crumb", "firm_final")} == {"clock.wait"}


def test_a_tier_upside_down_takes_longest():
    upright, inverted = (
        firmings(clocked(ordered(tier(203, final=final))))
        for final in (FreehandFinal(), InvertedFinal(disc_diameter_mm=215))
    )
    assert inverted["firm_inverted"].wait.value > 1.3 * upright["firm_final"].wait.value


def test_how_long_it_took_corrects_the_fridge():
    found = ordered()
    plan = plan_document(found)
    step = next(id for id, one in clock_of(found, plan).steps.items() if one.kind == "firm_final")
    planned = clock_of(found, plan).steps[step].wait.value
    pace = pace_of(found, plan, step, 1.5 * planned)
    assert pace.where == "fridge" and pace.pace < 0.8
    again = ordered(fridge_pace=pace.pace)
    assert clocked(again).steps[step].wait.value == pytest.approx(1.5 * planned, rel=0.05)
    assert pace_of(found, plan, step, planned).pace == 1
    for wrong, minutes in ((step, 1.0), (step, 4000.0), ("tier_1_level", 30.0), ("nothing", 30.0)):
        with pytest.raises(WrongPace):
            pace_of(found, plan, wrong, minutes)
