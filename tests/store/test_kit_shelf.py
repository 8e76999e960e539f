"""The kit in PostgreSQL: the starting set until it is saved, then the newest save; a stale one stays beside it."""

import pytest
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from amber_spread.core.clock import Places
from amber_spread.core.stock.kit import Kit, Mat
from amber_spread.store.orders import StaleSave
from amber_spread.store.shelves import KitShelf, PlacesShelf
from amber_spread.store.tables import KitRow, PracticeRow


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


def test_hands_and_places_begin_with_the_hours_that_the_kitchens_usual_once_had(book):
    shelf = PlacesShelf(book.engine)
    assert shelf.open() == (0, Places(), "")
    with Session(book.engine) as session, session.begin():
        for number, begins in ((2, 300.0), (2, 360.0), (3, None)):
            hours = {} if begins is None else {"hands": 2, "day_begins_min": begins}
            session.add(PracticeRow(began_from=0, format=number, content={"bead_mm": 5.0} | hours))
            session.flush()
    kept = shelf.open()
    assert kept.number == 0 and [len(one.week) for one in kept.content.hands] == [7, 7]
    assert {day.begins_min for one in kept.content.hands for day in one.week} == {360.0}
    saved = shelf.save(Places(ovens=2), 0)
    assert shelf.open() == saved and len(saved.content.hands) == 1


@pytest.mark.parametrize("content", [{"day_begins_min": "early"}, {"hands": 99}, {"day_ends_min": 0}])
def test_hours_that_cannot_be_are_left_for_those_a_kitchen_starts_from(book, content):
    with Session(book.engine) as session, session.begin():
        session.add(PracticeRow(began_from=0, format=2, content=content))
    assert PlacesShelf(book.engine).open().content == Places()
