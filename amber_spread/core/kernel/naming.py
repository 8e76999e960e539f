"""Ids: every figure of a plan is called by the path where it stands."""

from collections.abc import Callable, Iterator
from functools import cache
from typing import Any, TypeVar

from amber_spread.core.kernel.base import Frozen, FrozenDict, FrozenList
from amber_spread.core.kernel.figures import Figure, assign_id, copy_with_id

N = TypeVar("N", bound=Frozen | dict[str, Any])


def named(node: N, path: str) -> N:
    """Write its path into every figure of a piece of the plan; a figure that stands in two places becomes two, and one
    that has its id already keeps it.

    Nothing outside has seen the plan yet, so this is done in place: copying it all would take longer than planning.
    From then on nobody can change it: its dicts and lists are those that refuse.
    """
    values = node if isinstance(node, dict) else node.__dict__
    below = path + "."
    for name, value in values.items():
        kind = type(value)
        if kind is Figure:
            own = below + name
            if not value.id:
                assign_id(value, own)
            elif value.id != own:
                values[name] = copy_with_id(value, own)
        elif kind in _LEAVES:
            continue
        elif kind is list:
            values[name] = FrozenList(value)
        elif kind is dict:
            values[name] = FrozenDict(named(value, below + name))
        elif _holds(kind):
            named(value, below + name)
    return node


_LEAVES = frozenset({float, int, str, bool, tuple, FrozenDict, FrozenList, type(None)})
"""What most values that are no figures are; no figure stands in a list."""


_holds: Callable[[Any], bool] = cache(lambda kind: issubclass(kind, Frozen | dict))
"""Whether values of a type hold figures; asked once a type, since asking a model's class is slow."""


def figures(node: Any) -> Iterator[Figure]:
    """Every figure of a plan or of a piece of one, in the plan's order; each carries its id."""
    if isinstance(node, Figure):
        yield node
    elif isinstance(node, dict):
        for value in node.values():
            yield from figures(value)
    elif isinstance(node, list):
        for value in node:
            yield from figures(value)
    elif isinstance(node, Frozen):
        for name in type(node).model_fields:
            yield from figures(getattr(node, name))
