"""The ground every type of the core stands on: frozen models and text that can be stored and printed anywhere."""

import re
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Generic, NoReturn, Self, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints
from pydantic_core import PydanticCustomError

from amber_spread.core.kernel.caching import cached

T = TypeVar("T")


@dataclass(frozen=True)
class Usual:
    """Beside the type of a field that may be left open: the field of the kitchen's usual that is taken then."""

    name: str

    def __get_pydantic_json_schema__(self, schema: Any, handler: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        """The schema says it too, for whoever fills in the form."""
        return handler(schema) | {"usual": self.name}


class Frozen(BaseModel):
    """An immutable value that refuses fields it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def refuse(*_: Any, **__: Any) -> NoReturn:
    """What whoever holds a piece of a plan is told on trying to change it."""
    raise TypeError("a plan cannot be changed; plan again")


class FrozenDict(dict[str, Any]):
    """A dict that nobody can change, since it is kept from plan to plan."""

    __slots__ = ()
    if not TYPE_CHECKING:
        __setitem__ = __delitem__ = __ior__ = clear = pop = popitem = setdefault = update = refuse

    def __reduce__(self) -> tuple[type, tuple[dict[str, Any]]]:
        return FrozenDict, (dict(self),)


class FrozenList(list[Any]):
    """A list that nobody can change, likewise."""

    __slots__ = ()
    if not TYPE_CHECKING:
        __setitem__ = __delitem__ = __iadd__ = __imul__ = append = clear = extend = insert = refuse
        pop = remove = reverse = sort = refuse

    def __reduce__(self) -> tuple[type, tuple[list[Any]]]:
        return FrozenList, (list(self),)


_set_values, _set_names, _set_extra, _set_private = (
    BaseModel.__dict__[slot].__set__
    for slot in ("__dict__", "__pydantic_fields_set__", "__pydantic_extra__", "__pydantic_private__")
)
"""Straight into the places a model has, past its refusal: half as slow again by way of the model's class."""


class PlanPart(Frozen):
    """A piece of a plan, which the core makes itself out of values it has just worked out.

    Its fields' values are checked by the type checker and not again at run time, only that it has such fields: a plan
    holds some two hundred of these, and making them was a tenth of the time of planning. Two pieces are equal only if
    they are the same object, so a cache finds one again without looking at its fields.
    """

    defaults: ClassVar[dict[str, Any]] = {}
    names: ClassVar[set[str]] = set()
    in_order: ClassVar[tuple[str, ...]] = ()
    """The names of its fields as they are written."""

    if not TYPE_CHECKING:

        def __init__(self, **values: Any) -> None:
            if not self.names.issuperset(values):
                raise TypeError(f"{type(self).__name__} has no {', '.join(sorted(values.keys() - self.names))}")
            _set_values(self, self.defaults | values if self.defaults else values)
            _set_names(self, self.names)
            _set_extra(self, None)
            _set_private(self, None)

        # As BaseModel marks its own, so that reading one back from data still goes through validation.
        __init__.__pydantic_base_init__ = True
        __eq__ = object.__eq__

    def replace(self, **changes: Any) -> Self:
        """The same piece with some of its fields changed."""
        kept = {name: value for name, value in self.__dict__.items() if name in self.names}
        return type(self)(**kept | changes)

    @classmethod
    def from_fields_of(cls, other: "PlanPart", **own: Any) -> Self:
        """One with the fields that another has too, and its own."""
        return cls(**{name: own[name] if name in own else getattr(other, name) for name in cls.in_order})

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        if not TYPE_CHECKING:
            cls.__hash__ = object.__hash__  # pydantic gives each frozen model one of its fields
        cls.in_order = tuple(cls.model_fields)
        cls.names = set(cls.in_order)
        cls.defaults = {name: each.default for name, each in cls.model_fields.items() if not each.is_required()}


class Interned(Generic[T]):
    """A value in a key of a cache. Two of them are equal only if they are the same object (see `interned`)."""

    __slots__ = ("value",)

    def __init__(self, value: T) -> None:
        self.value = value


_interned: Callable[[Any], Interned[Any]] = cached(256)(Interned)


def interned(value: T) -> Interned[T]:
    """The one `Interned` of all values equal to this one. Every request brings a kit and a practice of its own;
    comparing two of them field by field, for each tier, takes longer than much that is cached.
    """
    return _interned(value)


def printable(text: str) -> str:
    """Return `text` unchanged when every character of it can be stored, printed and sent.

    Raises PydanticCustomError for control characters, NUL and lone surrogates, which
    neither PostgreSQL nor UTF-8 can hold.
    """
    for character in text:
        if unicodedata.category(character) in ("Cc", "Cs"):
            raise PydanticCustomError("unprintable", "contains a character that cannot be stored")
    return text


def printable_lines(text: str) -> str:
    """Likewise of a text of several lines. Raises PydanticCustomError likewise."""
    for line in text.split("\n"):
        printable(line.replace("\t", " "))
    return text


def at(path: tuple[str | int, ...], message: str) -> PydanticCustomError:
    """A complaint about the field at `path`, below the model whose validator raises it."""
    return PydanticCustomError("misplaced", "{message}", {"message": message, "path": list(path)})


def slug(name: str) -> str:
    """A name as it stands in a path: lower case, with a hyphen for all that is not a letter, digit or underscore."""
    return re.sub(r"\W+", "-", name.casefold())


Key = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,39}$")]
"""A short lower-case name that code and files refer to, such as `meringue_buttercream`."""

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80), AfterValidator(printable)]
"""A name or title as people write it, 1 to 80 characters."""

Note = Annotated[str, StringConstraints(max_length=400), AfterValidator(printable)]
"""A sentence or two, up to 400 characters, or nothing."""

Hex = Annotated[str, StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$")]
"""A colour on screen, `#RRGGBB`."""


def with_fields(part: Any, wanted: Callable[[str], bool], change: Callable[[Any], Any]) -> Any:
    """A copy of JSON data with every wanted field changed, by its name, at any depth.

    >>> with_fields([{"colour": 1, "kind": {"base_colour": 2, "at": 3}}], lambda name: "colour" in name, str)
    [{'colour': '1', 'kind': {'base_colour': '2', 'at': 3}}]
    """
    if isinstance(part, dict):
        return {name: change(one) if wanted(name) else with_fields(one, wanted, change) for name, one in part.items()}
    return [with_fields(one, wanted, change) for one in part] if isinstance(part, list) else part


def without_fields(part: Any, wanted: Callable[[str], bool]) -> Any:
    """A copy of JSON data with null in every wanted field, by its name, at any depth.

    >>> without_fields([{"colour": 1, "kind": {"base_colour": 2, "at": 3}}], lambda name: "colour" in name)
    [{'colour': None, 'kind': {'base_colour': None, 'at': 3}}]
    """
    return with_fields(part, wanted, lambda _: None)
