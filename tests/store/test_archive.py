"""Everything out into one archive and back in: the same rows, the same figures, and nothing written over unasked."""

import json
import zipfile

import pytest
from sqlalchemy import select

from amber_spread.core.document.document import plan_document, read_document
from amber_spread.core.stock.kit import Kit
from amber_spread.demo.week import load_week
from amber_spread.store.archive import TABLES, ArchiveError, restore_archive, write_archive
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook, Sought, StaleSave
from amber_spread.store.shelves import KitShelf, PantryShelf


@pytest.fixture
def filled(book):
    """A week of orders, one of them saved again, one aside, one taken off; a kit and a pantry."""
    load_week(book)
    first, second, *_ = book.shelf(Sought()).orders
    document = book.open(first.standing.id).document
    book.save(first.standing.id, 1, document.model_copy(update={"title": "Again: ½ & “all”"}))
    with pytest.raises(StaleSave):
        book.save(first.standing.id, 1, document.model_copy(update={"title": "Too late"}))
    book.archive(second.standing.id, True)
    KitShelf(book.engine).save(Kit(pin_mm=321), 0)
    return book


@pytest.fixture
def other(postgres):
    book = OrderBook.at(postgres.url("brought_back"))
    migrate(book.engine)
    with book.engine.begin() as connection:
        connection.exec_driver_sql("truncate orders, kits, pantries, practices cascade")
    yield book
    book.engine.dispose()


def rows(book):
    with book.engine.connect() as connection:
        return {table.name: connection.execute(select(table).order_by(*table.primary_key)).all() for table in TABLES}


def test_what_goes_out_comes_back_row_for_row_and_gives_the_same_figures(filled, other, tmp_path):
    path = tmp_path / "studio.zip"
    written = write_archive(filled.engine, path, {"prices.csv": b"item\n"})
    assert written == {"orders": 10, "revisions": 12, "kits": 1, "pantries": 1, "practices": 0}
    assert restore_archive(other.engine, path) == written
    assert rows(other) == rows(filled)
    for one in filled.shelf(Sought()).orders:
        id = one.standing.id
        assert plan_document(other.open(id).document) == plan_document(filled.open(id).document)
    assert PantryShelf(other.engine).open() == PantryShelf(filled.engine).open()
    kept = KitShelf(other.engine).save(Kit(pin_mm=400), KitShelf(other.engine).open().number)
    assert kept.content.pin_mm == 400


def test_an_archive_is_open_files_that_can_be_read_by_themselves(filled, tmp_path):
    path = tmp_path / "studio.zip"
    write_archive(filled.engine, path, {"prices.csv": b"item\n"})
    with zipfile.ZipFile(path) as archive:
        names = archive.namelist()
        orders = [name for name in names if name.startswith("orders/")]
        assert len(orders) == 10
        assert {read_document(archive.read(name)).title for name in orders} >= {"Again: ½ & “all”"}
        assert archive.read("prices.csv") == b"item\n"
        assert json.loads(archive.read("studio.json"))["tables"]["orders"]["rows"] == 10


def test_nothing_is_written_over_unasked(filled, other, tmp_path):
    path = tmp_path / "studio.zip"
    path.write_text("mine")
    with pytest.raises(ArchiveError, match="left as it is"):
        write_archive(filled.engine, path, {})
    assert path.read_text() == "mine"
    write_archive(filled.engine, path, {}, over=True)
    load_week(other)
    before = rows(other)
    with pytest.raises(ArchiveError, match="left as they are"):
        restore_archive(other.engine, path)
    assert rows(other) == before
    restore_archive(other.engine, path, over=True)
    assert rows(other) == rows(filled)


def _changed(path, name, change):
    """The archive with one file in it changed."""
    with zipfile.ZipFile(path) as archive:
        files = {one: archive.read(one) for one in archive.namelist()}
    files[name] = change(files[name])
    with zipfile.ZipFile(path, "w") as archive:
        for one, content in files.items():
            if content is not None:
                archive.writestr(one, content)


@pytest.mark.parametrize(
    ("name", "change", "words"),
    [
        ("rows/revisions.jsonl", lambda content: content.replace(b"honey", b"hanoy", 1), "damaged"),
        ("rows/orders.jsonl", lambda content: content.split(b"\n", 1)[1], "damaged"),
        ("rows/kits.jsonl", lambda content: None, "cannot be read"),
        ("studio.json", lambda content: b"{}", "another kind"),
        ("studio.json", lambda content: b"[1]", "cannot be read"),
        ("studio.json", lambda content: b"\xff", "cannot be read"),
    ],
)
def test_a_damaged_archive_is_told_and_changes_nothing(filled, other, tmp_path, name, change, words):
    path = tmp_path / "studio.zip"
    write_archive(filled.engine, path, {})
    _changed(path, name, change)
    load_week(other)
    before = rows(other)
    with pytest.raises(ArchiveError, match=words):
        restore_archive(other.engine, path, over=True)
    assert rows(other) == before


def test_what_is_no_archive_is_told(other, tmp_path):
    with pytest.raises(ArchiveError, match="There is no"):
        restore_archive(other.engine, tmp_path / "none.zip")
    (tmp_path / "text.zip").write_text("not a zip")
    with pytest.raises(ArchiveError, match="cannot be read"):
        restore_archive(other.engine, tmp_path / "text.zip")
