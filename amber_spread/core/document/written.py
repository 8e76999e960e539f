"""A plan as JSON, of which nothing is written anew that an edit left as it was.

Most edits change one tier. The pieces of the others are the very objects that earlier plans held, since their tiers
were not worked again; what was written of those is kept. What is new is written here rather than by pydantic, which
would first make quantities of all the numbers put into every figure.
"""

from functools import cache, lru_cache
from json.encoder import JSONEncoder, encode_basestring
from typing import Any

from amber_spread.core.bowls import Bowl
from amber_spread.core.kernel.base import Made, Same
from amber_spread.core.kernel.figures import Figure, Quantity, Rounding, Unit, told_of
from amber_spread.core.plan import Plan
from amber_spread.core.stock.kit import KitNeed
from amber_spread.core.tier import (
    BorderPlan,
    CoatsPlan,
    CoverPlan,
    FootPlan,
    GaugeMark,
    LayersPlan,
    OnTopPlan,
    Part,
    Silhouette,
    Use,
)

STAYS = frozenset(
    {LayersPlan, CoatsPlan, CoverPlan, FootPlan, OnTopPlan, BorderPlan, GaugeMark, Part, Silhouette, Use, Bowl, KitNeed}
)
"""The pieces that stay from plan to plan where nothing about them changed."""
KEPT = 4096
"""So many written pieces are kept, the ones asked for last: those of some hundred cakes being edited."""
_plain = JSONEncoder(ensure_ascii=False, separators=(",", ":"), allow_nan=False).encode


def written(plan: Plan) -> str:
    """The plan as JSON: what its `model_dump_json()` says."""
    return _made(plan)


def _of(value: Any) -> str:
    kind = type(value)
    if kind is Figure:
        return _figure(value)
    if kind is str:
        return encode_basestring(value)
    if kind is float:
        return repr(value)
    if value is None:
        return "null"
    if kind is int:
        return str(value)
    if kind in STAYS:
        return _kept(Same(value))
    if isinstance(value, Made):
        return _made(value)
    if isinstance(value, dict):
        return "{" + ",".join([f"{encode_basestring(name)}:{_of(one)}" for name, one in value.items()]) + "}"
    if isinstance(value, list) and value and isinstance(value[0], Made):
        return "[" + ",".join(map(_of, value)) + "]"
    if isinstance(value, Quantity):
        return f'{{"value":{float(value.value)!r},"unit":"{value.unit}"}}'
    return _plain(value)


def _made(piece: Made) -> str:
    values = piece.__dict__
    return "{" + ",".join([f"{quoted}{_of(values[name])}" for name, quoted in _names(type(piece))]) + "}"


@cache
def _names(kind: type[Made]) -> list[tuple[str, str]]:
    return [(name, f'"{name}":') for name in kind.model_fields]


@lru_cache(maxsize=KEPT)
def _kept(piece: Same[Made]) -> str:
    return _made(piece.one)


def _figure(figure: Figure) -> str:
    """A figure, and the numbers put into it."""
    names, units, numbers = told_of(figure)
    form = _form(figure.unit, figure.rule, figure.rounding, names, units)
    return form % (figure.value, *numbers, encode_basestring(figure.id))


@lru_cache(maxsize=KEPT)
def _form(unit: Unit, rule: str, rounding: Rounding, names: tuple[str, ...], units: tuple[Unit, ...]) -> str:
    """What all figures of a rule have in common, with places for their numbers and their id."""
    given = [f'{_escaped(name)}:{{"value":%s,"unit":"{one}"}}' for name, one in zip(names, units, strict=True)]
    said = f'"unit":"{unit}","rule":"{rule}","rounding":"{rounding}"'
    return f'{{"value":%s,{said},"given":{{{",".join(given)}}},"id":%s}}'


def _escaped(name: str) -> str:
    return encode_basestring(name).replace("%", "%%")
