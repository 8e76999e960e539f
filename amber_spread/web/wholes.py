"""What the kitchen stores as a whole, over HTTP: its kit, its usual, its hands and places."""

from typing import Any, TypeVar

from fastapi import APIRouter
from pydantic import create_model

from amber_spread.core.kernel.base import Frozen
from amber_spread.store.shelves import Kept, Shelf
from amber_spread.web.orders import BeganFrom, Book

T = TypeVar("T", bound=Frozen)


def routes_of(shelf: type[Shelf[T]], name: str, what: str, first: str) -> APIRouter:
    """Routes at `/name` that open and save a whole, in a field of that name. The description says `what` it is, and
    what it is at `first`.
    """
    content = type(shelf.start)
    shown_fields: Any = {"number": (int, ...), name: (content, ...), "unread": (str, ...)}
    save_fields: Any = {"began_from": (BeganFrom, ...), name: (content, ...)}
    about = (
        f"{what}, and the number it was saved under; 0 is {first}.\n\nIf this version cannot read what was saved last, "
        f"`unread` says so, and `{name}` is the newest that it can read."
    )
    kept: Any = create_model(f"Kept{content.__name__}", __base__=Frozen, __doc__=about, **shown_fields)
    about = "A save names the number of what it began from."
    save = create_model(f"{content.__name__}Save", __base__=Frozen, __doc__=about, **save_fields)
    router = APIRouter(prefix=f"/{name}", tags=[name])

    def shown(found: Kept[T]) -> Any:
        return kept(**{"number": found.number, name: found.content, "unread": found.unread})

    def open_whole(book: Book) -> Any:
        return shown(shelf(book.engine).open())

    def save_whole(sent: Any, book: Book) -> Any:
        return shown(shelf(book.engine).save(getattr(sent, name), sent.began_from))

    save_whole.__annotations__["sent"] = save
    described: dict[str, Any] = {"response_model": kept}
    router.get("", name=f"open_{name}", description=f"{what}.", **described)(open_whole)
    router.put(
        "",
        name=f"save_{name}",
        description=f"Save {what[0].lower()}{what[1:]}. A save that began from an older one is refused with 409, and "
        "stored beside the newest.",
        **described,
    )(save_whole)
    return router
