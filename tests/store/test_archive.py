"""Everything out into one archive and back in: the same rows, the same figures, and nothing written over unasked."""

import hashlib
import json
import tracemalloc
import zipfile

import pytest
from sqlalchemy import select, text

from amber_spread.core.document.document import plan_document, read_document
from amber_spread.core.stock.kit import Kit
from amber_spread.demo.week import load_week
from amber_spread.store import archive
from amber_spread.store.archive import TABLES, ArchiveError, restore_archive, write_archive
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook, Sought, StaleSave
from amber_spread.store.shelves import KitShelf, PantryShelf
from tests.designs import alike


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
        connection.exec_driver_sql("truncate orders, kits, pantries, practices, places, pictures cascade")
    yield book
    book.engine.dispose()


def rows(book):
    with book.engine.connect() as connection:
        return {table.name: connection.execute(select(table).order_by(*table.primary_key)).all() for table in TABLES}


def test_no_transaction_rests_while_an_archive_is_read_back(filled, tmp_path, monkeypatch):
    """Of 5 GB that took longer than a transaction may rest, and the backup failed."""
    seen, told = [], archive._told

    def reads(path):
        seen.append(filled.engine.pool.checkedout())
        return told(path)

    monkeypatch.setattr(archive, "_told", reads)
    write_archive(filled.engine, tmp_path / "studio.zip", {})
    assert seen == [0]


def test_what_goes_out_comes_back_row_for_row_and_gives_the_same_figures(filled, other, tmp_path):
    path = tmp_path / "studio.zip"
    written = write_archive(filled.engine, path, {"prices.csv": b"item\n"})
    assert written == {
        "orders": 10,
        "revisions": 12,
        "kits": 1,
        "pantries": 1,
        "practices": 0,
        "places": 1,
        "pictures": 0,
    }
    assert restore_archive(other.engine, path) == written
    assert rows(other) == rows(filled)
    for one in filled.shelf(Sought()).orders:
        id = one.standing.id
        assert alike(plan_document(other.open(id).document), plan_document(filled.open(id).document))
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


def _rewritten(path, table, change):
    """The archive with the rows of a table changed, and its digest with them, as another version would write it."""
    with zipfile.ZipFile(path) as archive:
        rows = [json.loads(line) for line in archive.read(f"rows/{table}.jsonl").splitlines()]
    lines = [json.dumps(row).encode() + b"\n" for row in change(rows)]
    content = b"".join(lines)

    def told(studio):
        found = json.loads(studio)
        found["tables"][table] = {"rows": len(lines), "sha256": hashlib.sha256(content).hexdigest()}
        return json.dumps(found).encode()

    _changed(path, f"rows/{table}.jsonl", lambda _: content)
    _changed(path, "studio.json", told)


@pytest.mark.parametrize(
    ("table", "change", "words"),
    [
        ("revisions", lambda rows: [row for row in rows if row["number"] > 1], "has no design in it"),
        ("orders", lambda rows: [row | {"oven": 3} for row in rows], "say oven, which this version does not know"),
    ],
)
def test_an_archive_of_another_version_or_without_its_designs_is_refused_whole(
    filled, other, tmp_path, table, change, words
):
    path = tmp_path / "studio.zip"
    write_archive(filled.engine, path, {})
    _rewritten(path, table, change)
    before = rows(other)
    with pytest.raises(ArchiveError, match=words):
        restore_archive(other.engine, path)
    assert rows(other) == before


def test_a_table_this_version_does_not_know_is_not_dropped_in_silence(filled, other, tmp_path):
    path = tmp_path / "studio.zip"
    write_archive(filled.engine, path, {})
    _changed(
        path,
        "studio.json",
        lambda studio: json.dumps(
            (found := json.loads(studio)) | {"tables": found["tables"] | {"clocks": {"rows": 1, "sha256": ""}}}
        ).encode(),
    )
    with pytest.raises(ArchiveError, match="holds clocks, which this version does not know"):
        restore_archive(other.engine, path)


def test_a_large_book_goes_out_and_comes_back_a_few_rows_at_a_time(filled, other, tmp_path):
    """What is held at once does not grow with the book: counted by what the allocator gives, not by a clock."""
    first, *_ = filled.shelf(Sought()).orders
    with filled.engine.begin() as connection:
        connection.execute(
            text(
                "insert into revisions (order_id, number, aside, format, document) select :id, 100 + n, true, 3, "
                "json_build_object('title', repeat('x', 200000)) from generate_series(1, 300) n"
            ),
            {"id": first.standing.id},
        )
    path = tmp_path / "studio.zip"
    tracemalloc.start()
    try:
        write_archive(filled.engine, path, {})
        restore_archive(other.engine, path)
        assert tracemalloc.get_traced_memory()[1] < 40 * 1024 * 1024
    finally:
        tracemalloc.stop()
    assert rows(other)["revisions"] == rows(filled)["revisions"]
