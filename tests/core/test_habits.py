"""Every value of a practice has a row that says what it is called, what it does and whence it comes."""

from typing import get_args

from amber_spread.core.design.habits import HABITS, HANDLINGS, SHARES
from amber_spread.core.design.practice import Practice, Technique, Techniques
from amber_spread.core.kernel.limits import LIMITS


def test_every_value_and_every_technique_has_one_row():
    names = [habit.name for habit in HABITS]
    assert len(names) == len(set(names))
    assert set(names) == set(Practice.model_fields) - {"techniques"}
    assert [handling.name for handling in HANDLINGS] == list(Techniques.model_fields)
    assert list(SHARES) == list(Technique.model_fields)
    assert len({row.words for row in (*HABITS, *HANDLINGS)}) >= len(HABITS) + len(HANDLINGS) - 4


def test_a_row_keeps_to_the_limits_its_field_has():
    for habit in HABITS:
        field = Practice.model_fields[habit.name]
        if habit.choices:
            assert tuple(one.value for one in habit.choices) == get_args(field.annotation) and not habit.limit
            continue
        limit = LIMITS[habit.limit]
        low, high = (next(getattr(one, side) for one in field.metadata if hasattr(one, side)) for side in ("ge", "le"))
        assert (low, high) == (limit.low, limit.high), habit.name
        assert limit.low <= field.default <= limit.high
        assert habit.percent == (limit.unit == "ratio")


def test_the_words_are_sentences():
    for row in (*HABITS, *HANDLINGS):
        assert row.effect.endswith(".")
        assert not row.words.endswith(".")
