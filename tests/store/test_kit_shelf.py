"""The kit in PostgreSQL: the starting set until it is saved, then the newest save; a stale one stays beside it."""

import pytest
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from amber_spread.core.stock.kit import Kit, Mat
from amber_spread.store.orders import StaleSave
from amber_spread.store.shelves import KitShelf
from amber_spread.store.tables import KitRow


def test_the_kit_is_the_starting_set_until_one_is_saved(book):
    shelf = KitShelf(book.engine)
    assert shelf.open() == (0, Kit(), "")
    own = Kit(discs_mm=(159.0, 210.0), mat=Mat(width_mm=500, length_mm=400))
    kept = shelf.save(own, 0)
    assert KitShelf(book.engine).open() == kept == (kept.number, own, "")


def test_every_save_is_kept_and_the_newest_that_was_not_stale_counts(book):
    shelf = KitShelf(book.engine)
    number = 0
    for pin in (300.0, 400.0, 500.0):
        number = shelf.save(Kit(pin_mm=pin), number).number
    with pytest.raises(StaleSave) as caught:
        shelf.save(Kit(pin_mm=600), 0)
    assert caught.value.what == "What you own"
    assert shelf.open().content.pin_mm == 500
    with Session(book.engine) as session:
        assert session.scalar(select(func.count()).select_from(KitRow)) == 4
