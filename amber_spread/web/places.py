"""Hands and places over HTTP."""

from typing import Annotated

from fastapi import Depends

from amber_spread.core.clock import Places
from amber_spread.store.shelves import PlacesShelf
from amber_spread.web.orders import Book
from amber_spread.web.wholes import routes_of

router = routes_of(PlacesShelf, "places", "Who works in the kitchen and when, and what it has room for", "the start")


def places_now(book: Book) -> Places:
    """The hands and places of the kitchen, for those who only look."""
    return PlacesShelf(book.engine).open().content


PlacesNow = Annotated[Places, Depends(places_now)]
