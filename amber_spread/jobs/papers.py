"""Papers and shopping lists as jobs: functions of plain values, like those of `designs`."""

from collections.abc import Callable, Sequence
from datetime import datetime
from typing import NamedTuple, TypeVar

from amber_spread.core.clock import Around, Kitchen, Variant, clock_of, gives_of, pace_of
from amber_spread.core.document import Document, plan_document
from amber_spread.core.plan import Plan
from amber_spread.core.shop import Asked, Shopping, bill_of, shop
from amber_spread.core.stock.composition import Compositions
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.pantry import Pantry

T = TypeVar("T")


def paper_of(
    write: Callable[..., T],
    choices: tuple[object, ...],
    document: Document,
    kit: Kit | None,
    contents: Contents | None,
) -> T:
    """A paper of a design, planned for it. Raises FileError if it cannot be planned."""
    return write(document, plan_document(document, kit, contents), *choices)


def shopping_of(
    write: Callable[..., T],
    choices: tuple[object, ...],
    asked: Sequence[Asked],
    pantry: Pantry,
    pooled: bool = False,
    left_out: Sequence[str] = (),
) -> T:
    """The shopping of several orders together, written as JSON, CSV or PDF."""
    return write(shop(asked, pantry, pooled, left_out), *choices)


def shopping_of_one(pantry: Pantry, document: Document, kit: Kit | None, contents: Contents | None) -> str:
    """The shopping of one design as JSON. Raises FileError if it cannot be planned."""
    bill = bill_of(document, plan_document(document, kit, contents))
    return shopping_of(shopping_json, (), [Asked("order", document, bill)], pantry)


def shopping_json(shopping: Shopping) -> str:
    """A list as JSON."""
    return shopping.model_dump_json()


def clock_json(
    now: datetime | None,
    kitchen: Kitchen,
    around: Around,
    document: Document,
    kit: Kit | None,
    contents: Contents | None,
) -> str:
    """The clock of one design as JSON, as of `now`, by the hands, places and recipes of a kitchen, around the
    other orders. Raises FileError if
    it cannot be planned, or has no due hour.
    """
    return clock_of(document, plan_document(document, kit, contents), now, kitchen, around).model_dump_json()


def gives_json(
    now: datetime,
    kitchen: Kitchen,
    around: Around,
    variants: Sequence[Variant],
    document: Document,
    kit: Kit | None,
    contents: Contents | None,
) -> str:
    """What gives for one design that cannot be ready in time, as JSON. Raises what `clock_json` does."""

    def planned(changed: Document) -> Plan:
        return plan_document(changed, kit, contents)

    return gives_of(document, planned, now, kitchen, around, variants).model_dump_json()


class Took(NamedTuple):
    """How many minutes a step of a clock took."""

    step: str
    minutes: float


def pace_json(took: Took, made_of: Compositions, document: Document, kit: Kit | None, contents: Contents | None) -> str:
    """How well the fridge or the freezer cools by what a step of a design took, as JSON. Raises FileError."""
    plan = plan_document(document, kit, contents)
    return pace_of(document, plan, took.step, took.minutes, made_of).model_dump_json()
