"""Figures and rules: units come from names, what went in is remembered, and no id is taken twice."""

import doctest
import importlib
import json
import pkgutil
from concurrent.futures import ThreadPoolExecutor

import pytest
from pydantic import TypeAdapter

from amber_spread import core
from amber_spread.core.kernel import figures
from amber_spread.core.kernel.figures import (
    RULES,
    Figure,
    Quantity,
    Rule,
    carry_over,
    decided,
    decided_or_default,
    rule,
    total,
    without_workings,
)


@pytest.fixture
def density():
    @rule("test.density", unit="g_per_ml", formula="weight / volume", words="By the scale.", rounding="up")
    def density_of(weight_g, volume_ml, spare_count=1):
        """Density, g per ml."""
        return weight_g / volume_ml * spare_count

    yield density_of
    del RULES["test.density"]


def test_a_rule_called_plainly_is_its_function(density):
    assert density(30, 20) == 1.5
    assert density.__doc__ == "Density, g per ml."


def test_a_rules_figure_remembers_the_numbers_with_units_read_from_their_names(density):
    figure = density.figure(30, volume_ml=20, spare_count=2)
    assert (figure.value, figure.unit, figure.rule, figure.rounding) == (3.0, "g_per_ml", "test.density", "up")
    assert figure.given == {
        "weight": Quantity(30, "g"),
        "volume": Quantity(20, "ml"),
        "spare": Quantity(2, "each"),
    }


def test_figures_are_written_without_their_workings_only_where_that_is_asked_for(density):
    figure, written = density.figure(30, 20, 1), TypeAdapter(Figure)
    whole = {
        name: {"value": value, "unit": unit}
        for name, value, unit in (("weight", 30, "g"), ("volume", 20, "ml"), ("spare", 1, "each"))
    }
    with without_workings(), ThreadPoolExecutor(1) as other:
        assert json.loads(written.dump_json(figure))["given"] is None
        assert json.loads(other.submit(written.dump_json, figure).result())["given"] == whole
    assert json.loads(written.dump_json(figure))["given"] == whole
    read = written.validate_json(b'{"value": 1, "unit": "g", "rule": "total", "given": null}')
    assert (read.value, read.given) == (1, {})


def test_an_id_cannot_be_taken_twice(density):
    with pytest.raises(ValueError, match=r"test\.density"):
        rule("test.density", unit="g", formula="x", words="Again.")(lambda x: x)


@pytest.mark.parametrize(
    ("name", "split"),
    [
        ("width_mm", ("width", "mm")),
        ("area_mm2", ("area", "mm2")),
        ("density_g_per_ml", ("density", "g_per_ml")),
        ("share", ("share", "ratio")),
        ("layers_count", ("layers", "each")),
        ("room_degc", ("room", "degC")),
    ],
)
def test_a_parameters_name_ends_in_its_unit(name, split):
    assert figures._split(name) == split


def test_sums_choices_and_measures_taken_over():
    assert total({}, "g").value == 0
    assert total({"a": 2, "b": 3}, "g").given["b"] == Quantity(3, "g")
    assert (decided_or_default(None, 6, "mm").rule, decided_or_default(4, 6, "mm").rule) == ("usual", "decided")
    assert decided(4, "mm").value == carry_over("height", 4, "mm").value == 4


def every_rule():
    for found in pkgutil.walk_packages(core.__path__, "amber_spread.core."):
        module = importlib.import_module(found.name)
        yield from (
            one for one in vars(module).values() if isinstance(one, Rule) and one.function.__module__ == found.name
        )


@pytest.mark.parametrize("one", list(every_rule()), ids=lambda one: one.text.id)
def test_every_rule_has_a_worked_example_that_comes_out(one):
    example = doctest.DocTestParser().get_doctest(
        one.__doc__, {one.__name__: one, "round": round}, one.text.id, None, 0
    )
    assert example.examples, f"{one.text.id} has no example"
    assert doctest.DocTestRunner(verbose=False).run(example).failed == 0
