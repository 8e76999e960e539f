"""The pantry in PostgreSQL: every save kept, a stale one beside the newest, and a change that fails changes nothing."""

from concurrent.futures import ThreadPoolExecutor

import pytest
from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_spread.core.stock.pantry import Pack, Pantry, Stock
from amber_spread.store.orders import StaleSave
from amber_spread.store.shelves import PantryShelf
from amber_spread.store.tables import PantryRow


def butter(price):
    return Pantry(packs=(Pack(item="butter", size=250, price=price),))


@pytest.fixture
def shelf(book):
    return PantryShelf(book.engine)


def rows(shelf):
    with Session(shelf.engine) as session:
        return [(row.number, row.began_from, row.aside) for row in session.scalars(select(PantryRow))]


def test_an_empty_shelf_is_the_programs_own_pantry_and_number_nothing(shelf):
    assert shelf.open().content == Pantry()
    assert shelf.open().number == 0


def test_a_save_counts_from_then_on_and_saying_the_same_again_adds_nothing(shelf):
    first = shelf.save(butter(2), 0)
    assert shelf.open() == first
    assert shelf.save(butter(2), first.number) == first
    second = shelf.save(butter(3), first.number)
    assert second.number > first.number
    assert [aside for _, _, aside in rows(shelf)] == [False, False]


def test_a_save_that_began_from_an_older_pantry_stays_beside_the_newest(shelf):
    first = shelf.save(butter(2), 0)
    second = shelf.save(butter(3), first.number)
    with pytest.raises(StaleSave) as caught:
        shelf.save(butter(4), first.number)
    assert caught.value.current == second.number
    assert caught.value.what == "What you make and buy"
    assert shelf.open() == second
    assert rows(shelf)[-1] == (caught.value.aside, first.number, True)


def test_of_changes_at_once_none_is_lost(shelf):
    items = ["butter", "sugar", "salt", "honey", "cocoa", "cream", "egg", "water"]

    def put(item):
        def how(pantry):
            return pantry.model_copy(update={"larder": (*pantry.larder, Stock(item=item, amount=100))})

        return shelf.change(how)

    with ThreadPoolExecutor(8) as hands:
        numbers = {kept.number for kept in hands.map(put, items)}
    assert len(numbers) == len(items)
    assert sorted(stock.item for stock in shelf.open().content.larder) == sorted(items)


def test_a_change_that_cannot_be_made_leaves_no_trace(shelf):
    kept = shelf.save(butter(2), 0)

    def fail(pantry):
        raise ValueError("a bad line")

    with pytest.raises(ValueError, match="a bad line"):
        shelf.change(fail)
    assert shelf.open() == kept
    assert len(rows(shelf)) == 1
