"""Units: the table of cases shared with the screen, and the round trip from shown to read."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.kernel import units

CASES = json.loads((Path(__file__).parents[1] / "units.json").read_text())


@pytest.mark.parametrize(("text", "unit", "mm"), CASES["lengths"])
def test_lengths_are_read(text, unit, mm):
    assert units.parse_length(text, unit) == pytest.approx(mm)


@pytest.mark.parametrize("text", CASES["bad_lengths"])
def test_what_is_not_a_length_is_refused_with_advice(text):
    with pytest.raises(units.UnitError, match=r"Type a length|fraction|comma|Is that 8 1/4"):
        units.parse_length(text, "in")


@pytest.mark.parametrize(("text", "unit", "grams"), CASES["weights"])
def test_weights_are_read(text, unit, grams):
    assert units.parse_weight(text, unit) == pytest.approx(grams)


@pytest.mark.parametrize("text", CASES["bad_weights"])
def test_what_is_not_a_weight_is_refused(text):
    with pytest.raises(units.UnitError):
        units.parse_weight(text, "g")


@pytest.mark.parametrize(("mm", "unit", "rounding", "shown"), CASES["read_lengths"])
def test_lengths_are_shown_as_a_ruler_reads(mm, unit, rounding, shown):
    assert units.format_length(mm, unit, rounding) == shown


@pytest.mark.parametrize(("grams", "unit", "rounding", "shown"), CASES["read_weights"])
def test_weights_are_shown_as_a_scale_reads(grams, unit, rounding, shown):
    assert units.format_weight(grams, unit, rounding) == shown


@given(st.floats(0, 3000), st.sampled_from(["in", "cm", "mm"]), st.sampled_from(["up", "down", "nearest"]))
def test_a_shown_length_reads_back_on_the_safe_side_within_one_step(mm, unit, rounding):
    back = units.parse_length(units.format_length(mm, unit, rounding), unit)
    step = units.length_step(mm, unit)
    assert abs(back - mm) <= step + 1e-6
    if rounding == "up":
        assert back >= mm - step * 1e-5
    if rounding == "down":
        assert back <= mm + step * 1e-5


@pytest.mark.parametrize(
    ("text", "unit", "celsius"),
    [
        ("21", "degC", 21),
        ("70 °F", "degC", 21.111),
        ("-4F", "degC", -20),
        ("212", "degF", 100),
        ("37,5 C", "degF", 37.5),
    ],
)
def test_temperatures_are_read(text, unit, celsius):
    assert units.parse_temperature(text, unit) == pytest.approx(celsius, abs=1e-3)


def test_temperatures_are_shown_and_refused():
    assert units.format_temperature(21.1, "degF") == "70 °F"
    assert units.format_temperature(-18, "degC") == "-18 °C"
    with pytest.raises(units.UnitError, match="temperature"):
        units.parse_temperature("warm", "degC")
