"""How a tier sweats: dew points and vapour against tables and another formula, minutes against a solver of differential
equations.
"""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from amber_spread.core.clock import clock_of
from amber_spread.core.clock.heat.air import BENCH_FILM, Air, Rooms
from amber_spread.core.clock.heat.conduction import Layers, Slice
from amber_spread.core.clock.heat.materials import Material
from amber_spread.core.clock.heat.sweating import CONVECTION_FILM, dew_point_degc, sweat_of
from amber_spread.core.design.finishes import DrapeCover
from amber_spread.core.design.practice import Practice
from amber_spread.core.document import plan_document
from tests.core.test_clock import ordered
from tests.designs import tier

METAL = Material(conductivity=200.0, heat_capacity=2400.0)
"""So well does it conduct that all of it is as warm as its face."""


def rooms(degc=22.0, humidity=0.5):
    return Rooms(Air(degc, BENCH_FILM), Air(4.0, 9.0), Air(-18.0, 12.0), humidity)


# Dew points as psychrometric tables print them (handbook values, from memory).
@pytest.mark.parametrize(
    ("degc", "humidity", "dew"),
    [(20, 0.5, 9.3), (25, 0.6, 16.7), (30, 0.7, 23.9), (22, 0.5, 11.1), (15, 0.8, 11.6), (35, 0.4, 19.4)],
)
def test_dew_points_are_those_of_the_tables(degc, humidity, dew):
    assert dew_point_degc(degc, humidity) == pytest.approx(dew, abs=0.15)


@given(degc=st.floats(5, 45), humidity=st.floats(0.1, 0.95))
def test_dew_points_agree_with_the_formula_of_magnus(degc, humidity):
    """With the constants of the World Meteorological Organization's guide (CIMO, 2008): 17.62 and 243.12 °C."""
    logged = math.log(humidity) + 17.62 * degc / (243.12 + degc)
    magnus = 243.12 * logged / (17.62 - logged)
    if magnus > 0.5:  # below freezing, tables of ice differ from those of water
        assert dew_point_degc(degc, humidity) == pytest.approx(magnus, abs=0.15)


def vapour(degc, at_degc=None):
    """The most vapour in air, g/m³, by Magnus (WMO) and the gas law; the same pressure in air `at_degc`."""
    pressure = 611.2 * math.exp(17.62 * degc / (243.12 + degc))
    return 1000 * pressure / (461.5 * ((degc if at_degc is None else at_degc) + 273.15))


# Saturated air holds so much water (handbook table of saturated vapour, g/m³; from memory).
@pytest.mark.parametrize(("degc", "grams"), [(0, 4.85), (10, 9.40), (20, 17.3), (30, 30.4)])
def test_the_formula_that_this_file_checks_by_agrees_with_a_table(degc, grams):
    assert vapour(degc) == pytest.approx(grams, rel=0.01)


@pytest.mark.parametrize(("degc", "humidity", "cold"), [(22, 0.5, 4), (26, 0.7, 4), (20, 0.6, 2), (24, 0.45, 6)])
def test_minutes_and_water_are_those_of_a_solver_of_differential_equations(degc, humidity, cold):
    """A plate 20 mm thick, warming by exp(-t/tau); water is followed until there is none."""
    thick_m, air = 0.02, humidity * vapour(degc)
    tau_min = thick_m * 1000 * METAL.heat_capacity / BENCH_FILM / 60

    def rate(minute, _):
        face = degc + (cold - degc) * math.exp(-minute / tau_min)
        return [60 * CONVECTION_FILM / 1200 * (air - vapour(face, degc))]

    def dry(minute, water):
        return water[0] if minute > 1 else 1.0

    dry.terminal, dry.direction = True, -1
    found = solve_ivp(rate, (0, 3000), [0.0], events=dry, max_step=2.0)
    sweat = sweat_of([Layers([Slice(20.0, METAL, cold)])], rooms(degc, humidity), cold)
    assert sweat.wet_min == pytest.approx(float(found.t_events[0][0]), rel=0.05)
    assert sweat.most_g_per_m2 == pytest.approx(float(np.max(found.y)), rel=0.03)


FACE = [Layers([Slice(8.0, METAL, 4.0)])]


@settings(max_examples=40, deadline=None)
@given(degc=st.floats(12, 40), humidity=st.floats(0.1, 0.85), cold=st.floats(-20, 10))
def test_more_vapour_and_more_cold_make_it_wetter_for_longer(degc, humidity, cold):
    one = sweat_of(FACE, rooms(degc, humidity), cold)
    assume(abs(cold - one.dew_degc) > 0.5)
    assert (one.wet_min == 0) == (cold >= one.dew_degc) == (one.wetness == "")
    damper, colder = sweat_of(FACE, rooms(degc, humidity + 0.1), cold), sweat_of(FACE, rooms(degc, humidity), cold - 5)
    for other in (damper, colder):
        assert other.wet_min >= one.wet_min and other.most_g_per_m2 >= one.most_g_per_m2


def clocked(**usual):
    document = ordered(tier(203, cover=DrapeCover()), practice=Practice(**usual))
    return clock_of(document, plan_document(document))


def test_a_cover_that_sweats_is_a_check_and_one_in_dry_air_is_not():
    """A covered cake out of the fridge is wet for half an hour to an hour in a usual kitchen (common practice)."""
    usual, dry = clocked(), clocked(kitchen_humidity=0.2)
    (check,) = [one for one in usual.checks if one.code == "clock.sweats"]
    humid = clocked(kitchen_degc=27.0, kitchen_humidity=0.75)
    severities = [one.severity for each in (usual, humid) for one in each.checks if one.code == "clock.sweats"]
    assert severities == ["caution", "care"]
    assert 30 <= check.values["wet"].value <= 75 and check.values["dew"].value == pytest.approx(11.1, abs=0.1)
    assert "6 to 24 h" not in check.text
    assert "clock.sweats" not in {one.code for one in dry.checks}
    frozen = clocked(firm_in="freezer")
    assert any("6 to 24 h" in one.text for one in frozen.checks if one.code == "clock.sweats")
    firming = next(one.firming for id, one in usual.steps.items() if id.endswith("chill_cover"))
    assert firming.wet.value == check.values["wet"].value and firming.wetness in ("a film", "beads")
