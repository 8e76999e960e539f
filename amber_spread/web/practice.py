"""The kitchen's usual over HTTP: how it works where an order does not say."""

from datetime import datetime

from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.shelves import PracticeShelf
from amber_spread.web.orders import Book, Number
from amber_spread.web.wholes import routes_of

router = routes_of(PracticeShelf, "practice", "How the kitchen works", "the program's own")


class EarlierPractice(Frozen):
    """What was the kitchen's usual once; `aside` marks what was sent too late and kept beside it."""

    number: int
    saved_at: datetime
    aside: bool


@router.get("/history")
def earlier_practices(book: Book) -> list[EarlierPractice]:
    """Every practice that was saved, the newest first."""
    earlier = PracticeShelf(book.engine).history()
    return [EarlierPractice(number=one.number, saved_at=one.saved_at, aside=one.aside) for one in earlier]


@router.get("/history/{number}")
def earlier_practice(number: Number, book: Book) -> Practice:
    """What was the kitchen's usual under that number."""
    return PracticeShelf(book.engine).at(number)
