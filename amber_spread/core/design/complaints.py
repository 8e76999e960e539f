"""What is wrong with a design, in sentences about its fields."""

from collections.abc import Iterable, Mapping
from typing import Annotated, Any, get_args, get_origin

from amber_spread.core.design.builds import Build
from amber_spread.core.design.design import MeasuredBake, TinBake
from amber_spread.core.design.finishes import Cover, Filling, FinalCoat
from amber_spread.core.design.shapes import Shape
from amber_spread.core.kernel.base import Frozen


class Complaint(Frozen):
    """What is wrong with one field: its JSON pointer, its path as people read it, and what would be accepted."""

    pointer: str
    field: str
    message: str


def complaints_of(problems: Iterable[Mapping[str, Any]], skip: int = 0) -> list[Complaint]:
    """Pydantic's error details as sentences about fields; `skip` leaves out so many levels at the head of each path."""
    problems = list(problems)
    # A list whose entries are all refused is also called too short, which would only confuse.
    spoilt = {tuple(problem["loc"][:-depth]) for problem in problems for depth in range(1, len(problem["loc"]))}
    return [
        _complaint(
            (*problem["loc"][skip:], *problem.get("ctx", {}).get("path", ())),
            problem["type"],
            problem.get("ctx", {}),
            problem["msg"],
        )
        for problem in problems
        if not (problem["type"] == "too_short" and tuple(problem["loc"]) in spoilt)
    ]


def complaint_at(path: tuple[str | int, ...], message: str) -> Complaint:
    """A complaint about the field at `path`; tiers and other lists are counted from 1 in the words."""
    path = tuple(part if isinstance(part, int) else _sendable(part) for part in path)
    pointer = "#" + "".join(f"/{str(part).replace('~', '~0').replace('/', '~1')}" for part in path)
    field = ".".join(str(part + 1) if isinstance(part, int) else part for part in path)
    return Complaint(pointer=pointer, field=field or "the file", message=message)


_UNITS = {"g_per_ml": " g per ml", "mm": " mm", "ml": " ml", "g": " g", "each": "", "ratio": ""}
_CHOICES: dict[str, Any] = {
    "shape": Shape, "build": Build, "bake": MeasuredBake | TinBake, "filling": Filling, "final": FinalCoat,
    "cover": Cover,
}  # fmt: skip


def _kinds(choice: Any) -> set[str]:
    """The tags of a union of kinds, whether or not it carries its discriminator with it."""
    union = get_args(choice)[0] if get_origin(choice) is Annotated else choice
    return {kind.model_fields["kind"].default for kind in get_args(union)}


_KINDS = {field: _kinds(choice) for field, choice in _CHOICES.items()}


def _complaint(path: tuple[str | int, ...], kind: str, context: Mapping[str, Any], message: str) -> Complaint:
    # Pydantic puts the tag of a discriminated union into the path; the file has no such level.
    path = tuple(
        part for index, part in enumerate(path) if not (index and part in _KINDS.get(str(path[index - 1]), ()))
    )
    unit = _unit_of(path)
    words = {
        "missing": "is missing",
        "extra_forbidden": "is not a field of this format",
        "float_type": "should be a number",
        "int_type": "should be a whole number",
        "int_from_float": "should be a whole number",
        "finite_number": "should be an ordinary number",
        "greater_than_equal": f"should be {_bound(context.get('ge', 0), unit)} or more",
        "less_than_equal": f"should be {_bound(context.get('le', 0), unit)} or less",
        "string_type": "should be text",
        "string_too_short": "should not be empty",
        "string_too_long": f"should be at most {context.get('max_length')} characters long",
        "too_long": f"has too many entries; at most {context.get('max_length')} are allowed",
        "too_short": f"has too few entries; at least {context.get('min_length')} is needed",
        "literal_error": f"should be {context.get('expected')}",
        "union_tag_invalid": f"should have a “kind” that is one of {context.get('expected_tags')}",
        "union_tag_not_found": "needs a “kind”",
        "misplaced": str(context.get("message")),
        "unprintable": message,
        "unprintable_key": message,
    }.get(kind)
    if words is None and kind.startswith(("datetime", "date_")):
        words = "should be a day and hour such as 2026-12-05T11:00"
    if words is None and kind.startswith("uuid"):
        words = "should be the id of an order"
    if words is None and kind == "string_pattern_mismatch":
        words = (
            "should be written like “#F3E6C8”" if path[-1] == "hex" else "should be lower-case letters, digits and _"
        )
    return complaint_at(path, words or _lower(message))


def _bound(value: Any, unit: str) -> str:
    """A bound as people read it: a number with its unit, or a day as it stands."""
    return f"{value:g}{unit}" if isinstance(value, int | float) else str(value)


def _unit_of(path: tuple[str | int, ...]) -> str:
    """The unit of a field, read from its name."""
    name = next((part for part in reversed(path) if isinstance(part, str)), "")
    return next((words for suffix, words in _UNITS.items() if name.endswith(f"_{suffix}")), "")


def _sendable(name: str) -> str:
    """A field's name as somebody typed it, short and without what cannot be sent."""
    return name.encode("utf-8", "replace").decode("utf-8")[:80]


def _lower(message: str) -> str:
    return message[:1].lower() + message[1:]
