"""The order book: every save is a revision, a stale one is kept aside, and nothing is ever lost."""

import uuid
from concurrent.futures import ThreadPoolExecutor
from datetime import date, datetime

import pytest
from alembic.autogenerate import compare_metadata
from alembic.runtime.migration import MigrationContext

from amber_spread.demo.week import fair_day, load_week, week
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderMissing, Sought, StaleSave
from amber_spread.store.tables import Base
from tests.designs import document, tier


def titled(title, **parts):
    return document(title=title, **parts)


def test_a_new_order_comes_back_as_it_was(book):
    made = book.create(titled("Comb cake", due=datetime(2026, 12, 5, 11)))
    found = book.open(made.id)
    assert found == made
    assert (found.revision, found.archived, found.document.due) == (1, False, datetime(2026, 12, 5, 11))


def test_every_save_is_a_revision_that_can_be_opened_again(book):
    id = book.create(titled("One")).id
    book.save(id, 1, titled("Two"))
    third = book.save(id, 2, titled("Three"))
    assert third.revision == 3
    assert [(one.number, one.title, one.aside) for one in book.revisions(id)] == [
        (3, "Three", False),
        (2, "Two", False),
        (1, "One", False),
    ]
    assert book.document_at(id, 1).title == "One"


def test_saving_what_is_already_current_changes_nothing(book):
    order = book.create(titled("One"))
    assert book.save(order.id, 1, titled("One")) == order
    assert book.save(order.id, 7, titled("One")).revision == 1


def test_a_stale_save_is_refused_and_both_are_kept(book):
    id = book.create(titled("One")).id
    book.save(id, 1, titled("Theirs"))
    with pytest.raises(StaleSave) as caught:
        book.save(id, 1, titled("Mine"))
    assert (caught.value.current, caught.value.aside) == (2, 3)
    assert book.open(id).document.title == "Theirs"
    assert book.document_at(id, 3).title == "Mine"
    assert [one.aside for one in book.revisions(id)] == [True, False, False]
    assert book.save(id, 2, titled("Mine after all")).revision == 4


def test_of_many_saves_at_once_one_wins_and_none_is_lost(book):
    id = book.create(titled("Start")).id

    def save(number):
        try:
            return book.save(id, 1, titled(f"Hand {number}")).revision
        except StaleSave:
            return None

    with ThreadPoolExecutor(8) as hands:
        won = [revision for revision in hands.map(save, range(16)) if revision]
    assert won == [2]
    titles = {one.title for one in book.revisions(id)}
    assert titles == {"Start", *(f"Hand {number}" for number in range(16))}


def test_the_shelf_is_in_due_order_with_undated_orders_last(book):
    book.create(titled("Undated"))
    book.create(titled("Later", due=datetime(2026, 12, 6, 9)))
    book.create(titled("Sooner", due=datetime(2026, 12, 5, 9)))
    assert [one.standing.title for one in book.shelf(Sought()).orders] == ["Sooner", "Later", "Undated"]


def test_an_archived_order_leaves_the_shelf_and_can_come_back(book):
    id = book.create(titled("One")).id
    assert book.archive(id, True).archived
    assert book.shelf(Sought()).orders == []
    assert [one.standing.id for one in book.shelf(Sought(archived=True)).orders] == [id]
    book.archive(id, False)
    assert [one.standing.id for one in book.shelf(Sought()).orders] == [id]


def test_a_copy_is_an_order_of_its_own(book):
    first = book.create(titled("x" * 80))
    copy = book.duplicate(first.id)
    assert copy.id != first.id
    assert copy.document.title.endswith("(copy)")
    assert copy.document.design == first.document.design


@pytest.mark.parametrize(
    "ask",
    [
        lambda book, id: book.open(id),
        lambda book, id: book.save(id, 1, titled("x")),
        lambda book, id: book.duplicate(id),
        lambda book, id: book.archive(id, True),
        lambda book, id: book.revisions(id),
        lambda book, id: book.document_at(id, 1),
    ],
)
def test_an_order_that_is_not_there_is_said_to_be_missing(book, ask):
    with pytest.raises(OrderMissing):
        ask(book, uuid.uuid4())


def test_a_revision_that_is_not_there_is_said_to_be_missing(book):
    with pytest.raises(OrderMissing, match="no such revision"):
        book.document_at(book.create(titled("One")).id, 9)


def test_migrations_make_the_tables_the_code_knows_and_can_run_again(shared_book):
    migrate(shared_book.engine)
    ours = {"include_name": lambda name, *_: not (name or "").startswith("procrastinate_")}
    with shared_book.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection, opts=ours), Base.metadata) == []


def test_the_demo_is_loaded_once_and_leaves_other_orders_alone(book):
    load_week(book, date(2026, 11, 24))
    titles = [one.standing.title for one in book.shelf(Sought()).orders]
    assert len(titles) == 10
    assert titles[0] == "Stone from the ford"
    load_week(book, date(2026, 11, 24))
    assert book.shelf(Sought()).in_all == 10
    book.archive(book.shelf(Sought()).orders[0].standing.id, True)
    load_week(book)
    assert book.shelf(Sought()).in_all == 9


@pytest.mark.parametrize("day", range(1, 15))
def test_the_fair_is_a_saturday_at_least_three_days_off(day):
    today = date(2026, 12, day)
    fair = fair_day(today)
    assert fair.weekday() == 5
    assert 3 <= (fair - today).days < 10
    assert all(one.due.date() > today for one in week(today))


def test_a_design_of_thirty_tiers_can_be_kept(book):
    many = document(*(tier(600 - 15 * index) for index in range(30)))
    assert len(book.open(book.create(many).id).document.design.tiers) == 30


def test_a_history_is_listed_without_reading_one_design(book):
    """Of 2,500 versions with a picture each, reading them took longer than anybody waits."""
    order = book.create(document(tier(), title="First"))
    book.save(order.id, 1, document(tier(), title="Second"))
    with book.engine.begin() as connection:
        connection.exec_driver_sql('update revisions set document = \'{"title": "read"}\' where number = 1')
    assert [one.title for one in book.revisions(order.id)] == ["Second", "First"]
    with book.engine.begin() as connection:
        connection.exec_driver_sql("update revisions set title = null where number = 1")
    assert [one.title for one in book.revisions(order.id)] == ["Second", "read"]
