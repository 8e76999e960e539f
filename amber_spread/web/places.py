"""Hands and places over HTTP: who works in this kitchen and when, and what it has room for."""

from typing import Annotated

from fastapi import APIRouter, Depends

from amber_spread.core.clock import Places
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.shelves import Kept, PlacesShelf
from amber_spread.web.orders import BeganFrom, Book

router = APIRouter(prefix="/places", tags=["places"])


async def places_shelf(book: Book) -> PlacesShelf:
    """The hands and places kept beside the orders."""
    return PlacesShelf(book.engine)


PlacesShelfOf = Annotated[PlacesShelf, Depends(places_shelf)]


def places_now(shelf: PlacesShelfOf) -> Places:
    """The hands and places of the kitchen, for those who only look."""
    return shelf.open().content


PlacesNow = Annotated[Places, Depends(places_now)]


class KeptPlaces(Frozen):
    """The hands and places of the kitchen, and the number they were saved under; 0 is what a kitchen starts from.

    Where this version cannot read what was saved last, `unread` says so, and `places` is the newest it can read.
    """

    number: int
    places: Places
    unread: str


class PlacesSave(Frozen):
    """A save names the number of the places it began from."""

    began_from: BeganFrom
    places: Places


def _shown(kept: Kept[Places]) -> KeptPlaces:
    return KeptPlaces(number=kept.number, places=kept.content, unread=kept.unread)


@router.get("")
def open_places(shelf: PlacesShelfOf) -> KeptPlaces:
    """Who works in the kitchen and when, and what it has room for."""
    return _shown(shelf.open())


@router.put("")
def save_places(save: PlacesSave, shelf: PlacesShelfOf) -> KeptPlaces:
    """Keep the hands and places as they are now. A save that began from older ones is refused with 409, and kept."""
    return _shown(shelf.save(save.places, save.began_from))
