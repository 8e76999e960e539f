"""Unit factors against pint's registry and the definitions they rest on.

Definitions: International Yard and Pound Agreement of 1959 (1 in = 25.4 mm, 1 lb = 453.59237 g exactly);
NIST Handbook 44, Appendix C (US liquid pint 473.176 473 ml, of which a cup is half).
"""

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.kernel import units

REGISTRY = pint.UnitRegistry()


def test_factors_are_the_defined_ones():
    assert units.MM_PER_INCH == 25.4
    assert units.G_PER_POUND == 453.59237
    assert pytest.approx(236.588, abs=5e-4) == units.ML_PER_US_CUP
    assert REGISTRY("1 inch").to("mm").magnitude == pytest.approx(units.MM_PER_INCH, rel=1e-12)
    assert REGISTRY("1 pound").to("gram").magnitude == pytest.approx(units.G_PER_POUND, rel=1e-12)
    assert REGISTRY("1 US_liquid_cup").to("ml").magnitude == pytest.approx(units.ML_PER_US_CUP, rel=1e-9)
    assert pytest.approx(473.176473 / 2, rel=1e-9) == units.ML_PER_US_CUP


@given(st.floats(0, 1000).map(lambda value: round(value, 4)), st.sampled_from(["in", "cm", "mm", "m", "ft"]))
def test_lengths_read_as_pint_reads_them(number, unit):
    text = f"{number:.4f} {unit}"
    assert units.parse_length(text, "mm") == pytest.approx(REGISTRY(text.replace("in", "inch")).to("mm").magnitude)


@given(st.floats(0, 1000).map(lambda value: round(value, 4)), st.sampled_from(["g", "kg", "oz", "lb"]))
def test_weights_read_as_pint_reads_them(number, unit):
    text = f"{number:.4f} {unit}"
    assert units.parse_weight(text, "g") == pytest.approx(REGISTRY(text).to("gram").magnitude)


@given(st.floats(0, 250).map(lambda value: round(value, 2)))
def test_temperatures_read_as_pint_reads_them(degrees):
    fahrenheit = REGISTRY.Quantity(degrees, "degF")
    assert units.parse_temperature(f"{degrees:.2f} F", "degC") == pytest.approx(
        fahrenheit.to("degC").magnitude, abs=1e-9
    )
