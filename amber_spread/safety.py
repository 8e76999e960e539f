"""./amber backup and ./amber restore: everything of the studio out into one archive of open files, and back in."""

import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy.exc import ArgumentError, SQLAlchemyError

from amber_spread.papers.pantry_tables import recipes_json, write_larder, write_prices
from amber_spread.serve import CannotServe, data_folder, own_database, served_database
from amber_spread.store.archive import ArchiveError, restore_archive, write_archive
from amber_spread.store.engine import DATABASE_URL
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import PostgresFailed, PostgresMissing, PrivatePostgres
from amber_spread.store.shelves import PantryShelf
from amber_spread.web.errors import database_trouble

TROUBLES = (ArchiveError, CannotServe, PostgresFailed, PostgresMissing, SQLAlchemyError, ArgumentError, OSError)


def backup(path: Path, over: bool) -> int:
    """Write everything to an archive; also while Amber Spread is running. Returns the exit status."""
    try:
        with _book(while_running=True) as book:
            pantry = PantryShelf(book.engine).open().content
            files = {
                "prices.csv": write_prices(pantry).encode(),
                "larder.csv": write_larder(pantry).encode(),
                "recipes.json": recipes_json(list(pantry.recipe_shelf().values())).encode(),
            }
            written = write_archive(book.engine, path, files, over)
    except TROUBLES as error:
        print(_said(error), file=sys.stderr)
        return 1
    print(f"{path}: {_words(written)}, read back and found as they are.")
    return 0


def restore(path: Path, over: bool) -> int:
    """Bring everything back from an archive, or nothing of it. Returns the exit status."""
    try:
        with _book(while_running=False) as book:
            written = restore_archive(book.engine, path, over)
    except TROUBLES as error:
        print(_said(error), file=sys.stderr)
        return 1
    print(f"Brought back from {path}: {_words(written)}.")
    return 0


@contextmanager
def _book(while_running: bool) -> Iterator[OrderBook]:
    """The order book that `start` serves: of the database named, of the server that runs, or of one begun for this."""
    url = os.environ.get(DATABASE_URL)
    if url is None and while_running:
        served = served_database()
        url = served and PrivatePostgres(data_folder() / "postgres").url_of_running(served)
    if url is not None:
        with _opened(url) as book:
            yield book
        return
    with own_database(demo=False) as own, _opened(own) as book:
        yield book


@contextmanager
def _opened(url: str) -> Iterator[OrderBook]:
    book = OrderBook.at(url)
    try:
        migrate(book.engine)
        yield book
    finally:
        book.engine.dispose()


def _said(error: Exception) -> str:
    """An error in words. Database trouble has the same words as on screen."""
    if isinstance(error, SQLAlchemyError) and not isinstance(error, ArgumentError):
        return ". ".join(database_trouble(error))
    return str(error)


def _words(written: dict[str, int]) -> str:
    """How many rows there are of each, as people say it."""
    said = {"revisions": "versions of them"}
    return ", ".join(f"{count} {said.get(name, name)}" for name, count in written.items())
