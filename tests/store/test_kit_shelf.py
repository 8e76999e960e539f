"""The kit in PostgreSQL: the starting set until it is saved, then the newest save; earlier ones are kept."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from amber_spread.core.kit import Kit, Mat
from amber_spread.store.kit import KitShelf
from amber_spread.store.tables import KitRow


def test_the_kit_is_the_starting_set_until_one_is_saved(book):
    shelf = KitShelf(book.engine)
    assert shelf.open() == Kit()
    own = Kit(discs_mm=(159.0, 210.0), mat=Mat(width_mm=500, length_mm=400))
    shelf.save(own)
    assert shelf.open() == own
    assert KitShelf(book.engine).open() == own


def test_every_save_is_kept_and_the_newest_counts(book):
    shelf = KitShelf(book.engine)
    for pin in (300.0, 400.0, 500.0):
        shelf.save(Kit(pin_mm=pin))
    assert shelf.open().pin_mm == 500
    with Session(book.engine) as session:
        assert session.scalar(select(func.count()).select_from(KitRow)) >= 3
