"""The kit over HTTP."""

from typing import Annotated

from fastapi import APIRouter, Depends

from amber_spread.core.kernel.base import Frozen
from amber_spread.core.stock.kit import Kit
from amber_spread.store.shelves import Kept, KitShelf
from amber_spread.web.orders import BeganFrom, Book

router = APIRouter(prefix="/kit", tags=["kit"])


async def kit_shelf(book: Book) -> KitShelf:
    """The kit kept beside the orders."""
    return KitShelf(book.engine)


KitShelfOf = Annotated[KitShelf, Depends(kit_shelf)]


def kit_owned(shelf: KitShelfOf) -> Kit:
    """What the kitchen owns, for those who only look."""
    return shelf.open().content


OwnedKit = Annotated[Kit, Depends(kit_owned)]


class KeptKit(Frozen):
    """What the kitchen owns, and the number it was saved under; 0 is the starting set.

    Where this version cannot read what was saved last, `unread` says so, and `kit` is the newest it can read.
    """

    number: int
    kit: Kit
    unread: str


class KitSave(Frozen):
    """A save names the number of the kit it began from."""

    began_from: BeganFrom
    kit: Kit


def _shown(kept: Kept[Kit]) -> KeptKit:
    return KeptKit(number=kept.number, kit=kept.content, unread=kept.unread)


@router.get("")
def open_kit(shelf: KitShelfOf) -> KeptKit:
    """What the kitchen owns."""
    return _shown(shelf.open())


@router.put("")
def save_kit(save: KitSave, shelf: KitShelfOf) -> KeptKit:
    """Keep what the kitchen owns now. A save that began from an older kit is refused with 409, and kept."""
    return _shown(shelf.save(save.kit, save.began_from))
