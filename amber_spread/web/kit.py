"""The kit over HTTP."""

from typing import Annotated

from fastapi import Depends

from amber_spread.core.stock.kit import Kit
from amber_spread.store.shelves import KitShelf
from amber_spread.web.orders import Book
from amber_spread.web.wholes import routes_of

router = routes_of(KitShelf, "kit", "What the kitchen owns", "the starting set")


def kit_owned(book: Book) -> Kit:
    """What the kitchen owns, for those who only look."""
    return KitShelf(book.engine).open().content


OwnedKit = Annotated[Kit, Depends(kit_owned)]
