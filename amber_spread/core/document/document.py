"""The design file: one JSON document that is saved, sent, opened again and scripted."""

import json
import re
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from datetime import datetime
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, Field, StringConstraints, ValidationError, model_validator

from amber_spread.core.design.complaints import Complaint, complaint_at, complaints_of
from amber_spread.core.design.design import Design
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import settle
from amber_spread.core.document.upgrades import FromLater, upgraded
from amber_spread.core.geometry.bodies.bare import BareBody
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Name, at, printable, printable_lines, without_fields
from amber_spread.core.kernel.check import Check, checker
from amber_spread.core.plan import Plan, plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import STARTING, Kit
from amber_spread.core.stock.media import Medium, shelf
from amber_spread.core.tier import PlannedTier, Unmade, carved_of, work_tiers

FORMAT: Literal["amber-spread/5"] = "amber-spread/5"
_NAME = re.compile(r"amber-spread/([1-9][0-9]{0,5})")


class Document(Frozen):
    """A design with its title, when it is due (the kitchen's own clock), and all that its figures rest on.

    `minutes` is the work it takes, where that is not the kitchen's usual by the tier; `servings` how many are to eat of
    it. `customer` and `notes` are the kitchen's own: they leave it only where that is asked for.
    """

    format: Literal["amber-spread/5"]
    title: Name
    due: datetime | None = None
    servings: Annotated[int, limits.SERVINGS.field()] | None = None
    customer: Annotated[str, StringConstraints(max_length=80), AfterValidator(printable)] = ""
    notes: Annotated[str, StringConstraints(max_length=2000), AfterValidator(printable_lines)] = ""
    design: Design
    minutes: Annotated[float, limits.MINUTES.field()] | None = None
    practice: Practice = Practice()
    media: Annotated[tuple[Medium, ...], Field(max_length=int(limits.OWN_MEDIA.high))] = ()

    @model_validator(mode="before")
    @classmethod
    def as_today(cls, data: Any) -> Any:
        """A file of an earlier format, as today's says it."""
        if not isinstance(data, dict) or data.get("format") == FORMAT:
            return data
        try:
            return {**upgraded("order", format_number(data), data), "format": FORMAT}
        except FromLater as error:
            raise at(("format",), str(error)) from error

    @model_validator(mode="after")
    def media_are_known(self) -> Self:
        """Every medium the design takes is in the library or in `media`, and each key stands there once."""
        keys = [medium.key for medium in self.media]
        for index, key in enumerate(keys):
            if key in keys[:index]:
                raise at(("media", index, "key"), f"is the second medium called “{key}”")
        known = shelf(self.media)
        for path, key, _ in self.design.taken():
            if key not in known:
                raise at(
                    ("design", *path),
                    f"asks for “{key}”, which is not known here; known are {', '.join(sorted(known))}",
                )
        return self

    @model_validator(mode="after")
    def due_has_no_zone(self) -> Self:
        """The due hour is the hour on the kitchen's wall."""
        if self.due is not None and self.due.tzinfo is not None:
            raise at(("due",), "carries a time zone; write the hour on the kitchen's clock, such as 2026-12-05T11:00")
        return self


def format_number(data: Mapping[str, Any]) -> int:
    """The number of the format a design file says it is written in. Raises FromLater where it says none."""
    found = _NAME.fullmatch(str(data.get("format")))
    if found is None:
        raise FromLater(f"should be “{FORMAT}”")
    return int(found[1])


class FileError(ValueError):
    """A text that is not a design file; `complaints` says where and why."""

    def __init__(self, complaints: list[Complaint]) -> None:
        super().__init__(complaints)
        self.complaints = complaints

    def __str__(self) -> str:
        return "; ".join(f"{complaint.field}: {complaint.message}" for complaint in self.complaints)

    def within(self, field: str) -> "FileError":
        """The same of a design file that stands in that field of something larger."""
        moved = (
            one.model_copy(update={"pointer": f"#/{field}{one.pointer[1:]}", "field": f"{field}.{one.field}"})
            for one in self.complaints
        )
        return FileError(list(moved))


@contextmanager
def said_at_its_field() -> Iterator[None]:
    """What cannot be made is said of the field that is at fault. Raises FileError."""
    try:
        yield
    except Unmade as error:
        raise FileError([complaint_at(("design", "tiers", *error.path), f"cannot be made: {error}")]) from error


def plan_document(document: Document, kit: Kit | None = None, contents: Contents | None = None) -> Plan:
    """The plan of a design file, with the practice and the media it brings, held against what the kitchen owns and by
    what its recipes come to. Raises FileError, naming the field, where a tier cannot be made.
    """
    with said_at_its_field():
        found = plan(document.design, document.practice, shelf(document.media), kit, contents)
    return found.replace(checks=[*found.checks, *_servings(document.servings, found.stack.portions.value)])


def _servings(asked: int | None, portions: float) -> Iterator[Check]:
    """Whether the cake is cut into as many portions as are asked for."""
    if asked is not None and portions < asked:
        yield checker(None)(
            "brief.servings",
            "care",
            "order",
            f"It cuts into {portions:.0f} portions, {asked - portions:.0f} fewer than asked for. Add a tier, take "
            "wider tins, or cut it smaller.",
        )


def worked_tiers(document: Document, kit: Kit | None = None) -> list[PlannedTier]:
    """Every tier of a design file as its rooms left it. Raises FileError where one cannot be made."""
    cake = settle(document.design, document.practice)
    with said_at_its_field():
        return work_tiers(cake, shelf(document.media), (kit or STARTING).mat)


def carved_bodies(document: Document) -> list[BareBody]:
    """The carved bodies of a design file, each with all that was worked out of it so far (see `tier.carved_of`)."""
    return carved_of(settle(document.design, document.practice))


def read_document(text: str | bytes) -> Document:
    """The design file in `text`. Raises FileError, naming each field, when it is not one."""
    if len(text) > limits.MAX_FILE_BYTES:
        raise FileError([_whole(f"is larger than {limits.MAX_FILE_BYTES // 1024} kB, the most that is read")])
    try:
        found = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FileError([_whole("is not JSON, which a design file is written in")]) from error
    if not isinstance(found, dict):
        raise FileError([complaint_at(("format",), f"should be “{FORMAT}”")])
    try:
        return Document.model_validate(found)
    except ValidationError as error:
        raise FileError(complaints_of(error.errors(include_url=False, include_input=False))) from error


PRIVATE = ("customer", "notes")
"""Private fields of a document."""
PICTURES = ("picture", "front_picture", "above_picture")
"""Fields of a carved tier with a picture that a view was traced over."""


def without_private(written: Mapping[str, Any]) -> dict[str, Any]:
    """A written document of any format, ready to share: without its customer, its notes and its traced pictures."""
    shared = {name: "" if name in PRIVATE else value for name, value in written.items()}
    return (
        shared | {"design": without_fields(shared["design"], PICTURES.__contains__)} if "design" in shared else shared
    )


def file_text(written: Mapping[str, Any]) -> str:
    """What was written of a document as the text of a file, indented, ending in a newline."""
    return json.dumps(written, ensure_ascii=False, indent=2) + "\n"


def write_document(document: Document) -> str:
    """A design file as text; read back it is the same document."""
    return file_text(document.model_dump(mode="json"))


def _whole(message: str) -> Complaint:
    return complaint_at((), message)
