"""The kitchen's usual over HTTP: how it works where an order does not say."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Depends

from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.shelves import Kept, PracticeShelf
from amber_spread.web.orders import BeganFrom, Book, Number

router = APIRouter(prefix="/practice", tags=["practice"])


class KeptPractice(Frozen):
    """The kitchen's usual, and the number it was saved under; 0 is the program's own.

    Where this version cannot read what was saved last, `unread` says so, and `practice` is the newest it can read.
    """

    number: int
    practice: Practice
    unread: str


class PracticeSave(Frozen):
    """A save names the number of the practice it began from."""

    began_from: BeganFrom
    practice: Practice


class EarlierPractice(Frozen):
    """What was the kitchen's usual once; `aside` marks what was sent too late and kept beside it."""

    number: int
    saved_at: datetime
    aside: bool


async def practice_shelf(book: Book) -> PracticeShelf:
    """The practice kept beside the orders."""
    return PracticeShelf(book.engine)


PracticeShelfOf = Annotated[PracticeShelf, Depends(practice_shelf)]


def _shown(kept: Kept[Practice]) -> KeptPractice:
    return KeptPractice(number=kept.number, practice=kept.content, unread=kept.unread)


@router.get("")
def open_practice(shelf: PracticeShelfOf) -> KeptPractice:
    """How the kitchen works."""
    return _shown(shelf.open())


@router.put("")
def save_practice(save: PracticeSave, shelf: PracticeShelfOf) -> KeptPractice:
    """Keep how the kitchen works now. A save that began from an older practice is refused with 409, and kept."""
    return _shown(shelf.save(save.practice, save.began_from))


@router.get("/history")
def earlier_practices(shelf: PracticeShelfOf) -> list[EarlierPractice]:
    """Every practice that was saved, the newest first."""
    return [EarlierPractice(number=one.number, saved_at=one.saved_at, aside=one.aside) for one in shelf.history()]


@router.get("/history/{number}")
def earlier_practice(number: Number, shelf: PracticeShelfOf) -> Practice:
    """What was the kitchen's usual under that number."""
    return shelf.at(number)
