"""Ids of the parts of a design: tiers, pieces, borders, regions, openings and colours.

An id stays with its part when parts are reordered, copied or merged, so figures, addresses and two people's edits refer
to the same part throughout. People see the part's place instead: "tier 2".
"""

from collections.abc import Iterator
from typing import Annotated, Any, TypeVar

from pydantic import BaseModel, StringConstraints

from amber_spread.core.kernel.base import Frozen, at

PartId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{0,12}$")]
"""Up to 12 lower-case letters and digits. Empty only until the list the part is in gives it one."""


class Identified(Frozen):
    """A part with an id that is unique in its list."""

    id: PartId = ""


P = TypeVar("P", bound=Identified)


def with_ids(parts: tuple[P, ...]) -> tuple[P, ...]:
    """The parts, each with an id: one without takes its place, counted from 1, or the next number that is free.

    Raises PydanticCustomError at the id of a part that has the id of an earlier one.
    """
    taken = {part.id for part in parts}
    if "" not in taken and len(taken) == len(parts):
        return parts
    seen = set[str]()
    for index, part in enumerate(parts):
        if part.id in seen:
            raise at((index, "id"), f"is also the id of an earlier one, “{part.id}”. Leave it out to get a new one")
        if part.id:
            seen.add(part.id)
    return tuple(_filled(parts, taken))


def _filled(parts: tuple[P, ...], taken: set[str]) -> Iterator[P]:
    for place, part in enumerate(parts, 1):
        if part.id:
            yield part
            continue
        number = place
        while str(number) in taken:
            number += 1
        taken.add(str(number))
        yield part.model_copy(update={"id": str(number)})


def typed_fields(model: type[BaseModel]) -> list[str]:
    """The fields of a part that people decide: all but its id."""
    return [name for name in model.model_fields if name != "id"]


def ids_carried_over(written: Any, before: Any) -> Any:
    """A copy of a design as JSON, in which every part has the id of the part at the same place in `before`.

    >>> ids_carried_over({"tiers": [{"name": "new"}, {}]}, {"tiers": [{"id": "k7", "name": "old"}]})
    {'tiers': [{'name': 'new', 'id': 'k7'}, {}]}
    """
    if isinstance(written, dict) and isinstance(before, dict):
        carried = {name: ids_carried_over(value, before.get(name)) for name, value in written.items()}
        return carried | ({"id": before["id"]} if "id" in before else {})
    if isinstance(written, list) and isinstance(before, list):
        rest = [None] * max(0, len(written) - len(before))
        return [ids_carried_over(one, old) for one, old in zip(written, [*before, *rest], strict=False)]
    return written
