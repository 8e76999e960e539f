"""The kit over HTTP."""

from typing import Annotated

from fastapi import APIRouter, Depends

from amber_spread.core.kit import Kit
from amber_spread.store.kit import KitShelf
from amber_spread.web.orders import Book

router = APIRouter(prefix="/kit", tags=["kit"])


def kit_shelf(book: Book) -> KitShelf:
    """The kit kept beside the orders."""
    return KitShelf(book.engine)


KitShelfOf = Annotated[KitShelf, Depends(kit_shelf)]


@router.get("")
def open_kit(shelf: KitShelfOf) -> Kit:
    """What the kitchen owns."""
    return shelf.open()


@router.put("")
def save_kit(kit: Kit, shelf: KitShelfOf) -> Kit:
    """Keep what the kitchen owns now; earlier saves are kept too."""
    return shelf.save(kit)
