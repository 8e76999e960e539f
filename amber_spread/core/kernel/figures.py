"""A figure: a value with its unit, the rule that gave it and the numbers that were put in.

A rule of the craft is one public function decorated with `rule`. Called plainly it returns a
number; its `figure` method returns the same number as a `Figure` that remembers what went in.
The unit of each number put in is read from the name of its parameter (`width_mm`, `stays_g`).
A rule's `formula` is the same arithmetic as a line people can read, in those parameters' names
without their units; the tests work every formula out again and hold it against the function.
"""

import inspect
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import partial
from typing import TYPE_CHECKING, Any, Generic, Literal, ParamSpec

from amber_spread.core.kernel.base import Frozen, FrozenDict, Note, refuse

Unit = Literal["mm", "mm2", "ml", "g", "g_per_ml", "g_per_cm2", "min", "degC", "deg", "each", "ratio", "money"]
Rounding = Literal["up", "down", "nearest"]
Origin = Literal["definition", "geometry", "published", "common practice", "from memory", "this kitchen"]
P = ParamSpec("P")

_SUFFIXES: tuple[tuple[str, Unit], ...] = (
    ("_g_per_ml", "g_per_ml"), ("_g_per_cm2", "g_per_cm2"), ("_mm2", "mm2"), ("_mm", "mm"), ("_ml", "ml"), ("_g", "g"),
    ("_min", "min"), ("_degc", "degC"), ("_deg", "deg"), ("_count", "each"), ("_money", "money"),
)  # fmt: skip


@dataclass(slots=True)
class _OpenQuantity:
    value: float
    unit: Unit


class _OpenFigure:
    """A figure as it is made. `raw_inputs` is what was put in: (names, units, numbers) until somebody looks, or
    the name alone of a number that it takes over as it is.
    """

    __slots__ = ("value", "unit", "rule", "rounding", "raw_inputs", "id")


_RawInputs = tuple[tuple[str, ...], tuple[Unit, ...], tuple[float, ...]]


@dataclass(frozen=True)
class _Leaf:
    """The fields of a figure as they are read and written."""

    value: float
    unit: Unit
    rule: str
    rounding: Rounding = "nearest"
    given: dict[str, "Quantity"] | None = field(default_factory=dict)
    id: str = ""


_with_workings: ContextVar[bool] = ContextVar("with_workings", default=True)


@contextmanager
def without_workings() -> Iterator[None]:
    """In this context the `given` of every figure is None: two thirds of a plan's JSON time and half of its bytes are
    workings, and few of them are ever opened.
    """
    before = _with_workings.set(False)
    try:
        yield
    finally:
        _with_workings.reset(before)


if TYPE_CHECKING:

    @dataclass(frozen=True)
    class Quantity:
        """A number with its unit."""

        value: float
        unit: Unit

    class Figure(_Leaf, Quantity):
        """A leaf of the plan. `id` is its path there, set by `amber_spread.core.plan`."""

        given: dict[str, Quantity]

else:
    # Handed out, these cannot be changed: what is kept from plan to plan is in everybody's hands. A dataclass that is
    # frozen takes twice as long to make, and a plan makes some fifteen hundred: so each is made open and then shut.
    # The numbers put into a figure become quantities when they are first looked at; most plans are only drawn.

    class _Made(type):
        def __call__(cls, *args: Any, **values: Any) -> Any:
            return cls.make(*args, **values)

    class Quantity(_OpenQuantity, metaclass=_Made):
        """A number with its unit."""

        __slots__ = ()
        __setattr__ = __delattr__ = refuse

        @staticmethod
        def make(value: float, unit: Unit) -> "Quantity":
            made = _OpenQuantity(value, unit)
            made.__class__ = Quantity
            return made

        def __reduce__(self) -> tuple[Any, ...]:
            return Quantity, (self.value, self.unit)

    class Figure(_OpenFigure, metaclass=_Made):
        """A leaf of the plan. `id` is its path there, set by `amber_spread.core.plan`."""

        __slots__ = ()
        __annotations__ = _Leaf.__annotations__
        __dataclass_fields__ = _Leaf.__dataclass_fields__
        __setattr__ = __delattr__ = refuse

        @staticmethod
        def make(value, unit, rule, rounding="nearest", given=(), id=""):
            return of_part(rule, FrozenDict(given), value, unit, rounding, id)

        @property
        def given(self) -> FrozenDict | None:
            if not _with_workings.get():
                return None
            raw_inputs = self.raw_inputs
            if type(raw_inputs) is str:
                raw_inputs = (raw_inputs,), (self.unit,), (self.value,)
            if type(raw_inputs) is tuple:
                raw_inputs = FrozenDict(
                    {name: Quantity(number, unit) for name, unit, number in zip(*raw_inputs, strict=False)}
                )
                _set_raw_inputs(self, raw_inputs)
            return raw_inputs

        @given.setter
        def given(self, given: dict[str, Quantity] | None) -> None:
            """Reached only when a plan is read back: whoever holds a figure is refused before this."""
            _set_raw_inputs(self, FrozenDict(given or {}))

        def __eq__(self, other: object) -> bool:
            return type(other) is Figure and all(getattr(self, name) == getattr(other, name) for name in _LEAF)

        __hash__ = None

        def __reduce__(self) -> tuple[Any, ...]:
            return Figure, tuple(getattr(self, name) for name in _LEAF)

        def __repr__(self) -> str:
            return f"Figure({', '.join(f'{name}={getattr(self, name)!r}' for name in _LEAF)})"


_LEAF = tuple(_Leaf.__dataclass_fields__)
_set_raw_inputs = _OpenFigure.__dict__["raw_inputs"].__set__
_set_id: Callable[[Any, str], None] = _OpenFigure.__dict__["id"].__set__


def of_part(
    rule_id: str,
    inputs: "str | _RawInputs | FrozenDict",
    value: float,
    unit: Unit,
    rounding: Rounding = "nearest",
    id: str = "",
) -> Figure:
    """A figure by a rule from `parts_rule`. `inputs` are names, units and numbers, or only the name of a number that it
    takes over as it is.
    """
    made: Any = _OpenFigure()
    made.value = value
    made.unit = unit
    made.rule = rule_id
    made.rounding = rounding
    made.raw_inputs = inputs
    made.id = id
    made.__class__ = Figure
    return made  # type: ignore[no-any-return]


def copy_with_id(figure: Figure, id: str) -> Figure:
    """The same figure where it stands a second time, under the path it has there."""
    inputs: str | _RawInputs = figure.raw_inputs  # type: ignore[attr-defined]
    return of_part(figure.rule, inputs, figure.value, figure.unit, figure.rounding, id)


assign_id: Callable[[Figure, str], None] = _set_id
"""Write its path into a figure that nobody outside has seen yet."""


class Source(Frozen):
    """Where a rule or a value comes from, and for `published` the reference."""

    origin: Origin
    reference: Note = ""


GEOMETRY = Source(origin="geometry")
COMMON_PRACTICE = Source(origin="common practice")
FROM_MEMORY = Source(origin="from memory")
DEFINITION = Source(origin="definition")
THIS_KITCHEN = Source(origin="this kitchen")


class RuleText(Frozen):
    """What a person is told of a rule: its words, its formula and its source."""

    id: str
    words: str
    formula: str
    unit: Unit | None
    source: Source


class Rule(Generic[P]):
    """One rule of the craft: a function that also yields figures and can explain itself."""

    def __init__(self, function: Callable[P, float], text: RuleText, rounding: Rounding) -> None:
        self.function = function
        self.text = text
        self.rounding = rounding
        self.__doc__ = function.__doc__
        self.__name__ = function.__name__
        self.figure: Callable[P, Figure] = self._written_out()
        """The rule's value as a figure that remembers its unit and the numbers put in."""

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> float:
        return self.function(*args, **kwargs)

    def _written_out(self) -> Callable[P, Figure]:
        """`figure` as one function with the rule's own parameters, written out once as dataclasses write theirs: a
        plan makes some two hundred figures so. Pairing names with values each time took half as long again, and
        calling `of_part` is one call more for each.
        """
        parameters = list(inspect.signature(self.function).parameters)
        split = [_split(name) for name in parameters]
        names, units = tuple(zip(*split, strict=True)) or ((), ())
        arguments = ", ".join(parameters)
        known: dict[str, Any] = {
            "Open": _OpenFigure, "Figure": Figure, "function": self.function, "names": names, "units": units,
        }  # fmt: skip
        exec(
            f"""def figure({arguments}):
            made = Open()
            made.value = function({arguments})
            made.unit, made.rule, made.rounding = {(self.text.unit, self.text.id, self.rounding)!r}
            made.raw_inputs = names, units, ({"".join(name + "," for name in parameters)})
            made.id = ""
            made.__class__ = Figure
            return made""",
            known,
        )
        found: Callable[P, Figure] = known["figure"]
        return found


RULES: dict[str, RuleText] = {}
"""Every rule by its id, filled as the rooms of the core are imported."""


def rule(
    id: str, *, words: str, formula: str, unit: Unit, source: Source = GEOMETRY, rounding: Rounding = "nearest"
) -> Callable[[Callable[P, float]], Rule[P]]:
    """Make a function a rule and enter it in `RULES`. Raises ValueError when the id is taken."""

    def enter(function: Callable[P, float]) -> Rule[P]:
        text = _free(RuleText(id=id, words=words, formula=formula, unit=unit, source=source))
        made = Rule(function, text, rounding)
        RULES[id] = text
        return made

    return enter


def _free(text: RuleText) -> RuleText:
    if text.id in RULES:
        raise ValueError(f"two rules are called {text.id}")
    return text


def _enter(text: RuleText) -> RuleText:
    RULES[text.id] = _free(text)
    return text


_RATIOS = frozenset(
    (
        "all",
        "batches",
        "crumbs_share",
        "factor",
        "fill",
        "laps",
        "lean",
        "overhead",
        "parts",
        "settling",
        "share",
        "shares",
        "spread",
    )
    + ("step", "times")
)
"""Parameters that are plain ratios or counts of parts, without a unit to their name."""


def _split(name: str) -> tuple[str, Unit]:
    """A parameter's name without its unit, and the unit. Raises ValueError for one whose name says no known unit."""
    for suffix, unit in _SUFFIXES:
        if name.endswith(suffix):
            return name.removesuffix(suffix), unit
    if name not in _RATIOS:
        raise ValueError(f"what unit “{name}” is in cannot be read from its name")
    return name, "ratio"


def parts_rule(id: str, words: str, formula: str, origin: Origin, reference: Note = "") -> str:
    """Enter a rule that takes any number of named parts in any unit; gives back its id, for `of_parts`."""
    source = Source(origin=origin, reference=reference)
    return _enter(RuleText(id=id, words=words, formula=formula, unit=None, source=source)).id


_TOTAL = parts_rule("total", "All the parts named, added up.", "sum", "geometry")
_SAME = parts_rule("same", "The same measure as the one named.", "same", "definition")
_DECIDED = parts_rule("decided", "As you set it in this design.", "set", "definition")
_USUAL = parts_rule("usual", "This kitchen's usual, since the design does not say otherwise.", "usual", "this kitchen")


def total(parts: Mapping[str, float], unit: Unit, rounding: Rounding = "nearest") -> Figure:
    """The sum of named parts, all in `unit`; no parts make 0."""
    return of_parts(_TOTAL, sum(parts.values()), parts, unit, rounding)


def decided(value: float, unit: Unit) -> Figure:
    """A number the design itself gives."""
    return of_part(_DECIDED, "set", value, unit)


def decided_or_default(own: float | None, usual: float, unit: Unit) -> Figure:
    """The decorator's own decision where there is one, this kitchen's usual where there is none."""
    if own is None:
        return of_part(_USUAL, "usual", usual, unit)
    return decided(own, unit)


carry_over = partial(of_part, _SAME)
"""A measure worked out elsewhere in the plan and taken over as it is, by the name it has there."""


def of_parts(
    rule_id: str, value: float, parts: Mapping[str, float], unit: Unit, rounding: Rounding = "nearest"
) -> Figure:
    """A figure by a rule from `parts_rule`, with its named parts, all in `unit`, as the numbers put in."""
    inputs = tuple(parts), (unit,) * len(parts), tuple(parts.values())
    return of_part(rule_id, inputs, value, unit, rounding)
