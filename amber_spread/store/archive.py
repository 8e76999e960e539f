"""Everything a studio has, as one archive of open files: to keep in another place, to look into, and to bring back.

An archive is a ZIP file. `rows/` holds every row of every table, a line of JSON each, which is what is brought back;
`orders/` holds each order's design file as it stands, and `studio.json` says how many rows there are and what they
come to. Every other file that is put in is for people and other programs.
"""

import hashlib
import json
import uuid
import zipfile
import zlib
from collections.abc import Iterable, Iterator, Mapping
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, Table, func, select, text

from amber_spread.store.engine import lift_limits
from amber_spread.store.pictures import put_back
from amber_spread.store.tables import Base, KitRow, OrderRow, PantryRow, PictureRow, PlacesRow, PracticeRow, RevisionRow

FORMAT = "amber-spread-studio/1"
TABLES: tuple[Table, ...] = tuple(
    Base.metadata.tables[row.__tablename__]
    for row in (OrderRow, RevisionRow, KitRow, PantryRow, PracticeRow, PlacesRow, PictureRow)
)
"""In the order in which they can be filled again."""
LONGEST_LINE = 16 * 1024 * 1024
AT_ONCE, BYTES_AT_ONCE = 500, 4 * 1024 * 1024
"""Rows per insert, and a limit on their bytes."""
READ_AT_ONCE = 20
"""Rows per fetch; each may contain a picture."""


LATER = {PictureRow.__tablename__, PlacesRow.__tablename__}
"""Tables that older archives lack."""
NO_ROWS = {"rows": 0, "sha256": hashlib.sha256().hexdigest()}
NEWER = "Bring it back with the version that wrote it, or a later one. Nothing was changed."
SLOW = "statement_timeout", "idle_in_transaction_session_timeout"
"""The time limits that a large book would run into."""
WITHOUT_REVISION = (
    select(OrderRow.title)
    .outerjoin(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
    .where(RevisionRow.number.is_(None))
)


class ArchiveError(ValueError):
    """An archive that cannot be written or brought back; the message says why, and nothing was changed."""


def write_archive(engine: Engine, path: Path, files: Mapping[str, bytes], over: bool = False) -> dict[str, int]:
    """Write everything in the database, and `files` beside it, to a new archive. Returns how many rows of each table.

    It is read back and held against the database before it takes its name. Raises ArchiveError when `path` is there
    already and is not to be written over.
    """
    if path.exists() and not over:
        raise ArchiveError(f"{path} is there already, and was left as it is. Write over it with --over.")
    fresh = path.with_name(f"{path.name}.new")
    try:
        with engine.connect().execution_options(isolation_level="REPEATABLE READ") as connection, connection.begin():
            lift_limits(connection, *SLOW)
            connection = connection.execution_options(yield_per=READ_AT_ONCE)
            with zipfile.ZipFile(fresh, "w", zipfile.ZIP_DEFLATED) as archive:
                told = {table.name: _write_rows(archive, table, connection) for table in TABLES}
                _write_orders(archive, connection)
                for name, content in files.items():
                    archive.writestr(name, content)
                studio = {"format": FORMAT, "made_at": datetime.now(UTC).isoformat(), "tables": told}
                archive.writestr("studio.json", json.dumps(studio, indent=1) + "\n")
        # After the transaction: of a large book this takes longer than a transaction may rest.
        if _told(fresh) != told:
            raise ArchiveError(f"{path} could not be read back as it was written. It was not kept.")
        fresh.replace(path)
    finally:
        fresh.unlink(missing_ok=True)
    return {name: one["rows"] for name, one in told.items()}


def restore_archive(engine: Engine, path: Path, over: bool = False) -> dict[str, int]:
    """Bring back everything an archive holds, or nothing of it. Returns how many rows of each table.

    Raises ArchiveError if the file is no archive or is damaged, if a newer version wrote it, and if there are orders
    already and `over` is false.
    """
    told = _told(path)
    with engine.begin() as connection:
        lift_limits(connection, *SLOW)
        if not over and any(connection.scalar(select(func.count()).select_from(table)) for table in TABLES):
            raise ArchiveError(
                "There are orders here already, and they were left as they are. Put the archive in their place with "
                "--over."
            )
        for table in reversed(TABLES):
            connection.execute(table.delete())
        with zipfile.ZipFile(path) as archive:
            for table in TABLES:
                for rows in _some_at_once(_rows(archive, table)):
                    connection.execute(table.insert(), rows)
        lost = connection.scalars(WITHOUT_REVISION).all()
        if lost:
            raise ArchiveError(f"{path} is not whole: “{lost[0]}” has no design in it. Nothing was changed.")
        for row in (KitRow, PantryRow, PracticeRow, PlacesRow):
            name = row.__tablename__
            connection.execute(
                text(
                    f"select setval(pg_get_serial_sequence('{name}', 'number'), max(number)) from {name} "
                    "having max(number) is not null"
                )
            )
    return {name: one["rows"] for name, one in told.items()}


def _write_rows(archive: zipfile.ZipFile, table: Table, connection: Connection) -> dict[str, Any]:
    digest, count = hashlib.sha256(), 0
    with archive.open(f"rows/{table.name}.jsonl", "w", force_zip64=True) as file:
        for row in connection.execute(select(table).order_by(*table.primary_key)).mappings():
            line = json.dumps(dict(row), ensure_ascii=False, default=_plain).encode() + b"\n"
            file.write(line)
            digest.update(line)
            count += 1
    return {"rows": count, "sha256": digest.hexdigest()}


def _write_orders(archive: zipfile.ZipFile, connection: Connection) -> None:
    query = (
        select(OrderRow.title, RevisionRow.document, RevisionRow.pictures)
        .join(RevisionRow, (RevisionRow.order_id == OrderRow.id) & (RevisionRow.number == OrderRow.revision))
        .order_by(OrderRow.created_at, OrderRow.id)
    )
    for number, (title, document, pictures) in enumerate(connection.execute(query), 1):
        name = "".join(letter if letter.isalnum() or letter in " -_&" else "_" for letter in title)
        content = json.dumps(put_back(connection, document, pictures), ensure_ascii=False, indent=2) + "\n"
        archive.writestr(f"orders/{number:04} {name}.amber.json", content)


def _told(path: Path) -> dict[str, Any]:
    """What an archive says of its rows, once each of them has been read and found to be as it says."""
    try:
        with zipfile.ZipFile(path) as archive:
            studio = json.loads(archive.read("studio.json"))
            if studio.get("format") != FORMAT:
                raise ArchiveError(f"{path} is an archive of another kind: {FORMAT} is what is read here.")
            told: dict[str, Any] = studio["tables"]
            unknown = sorted(told.keys() - {table.name for table in TABLES})
            if unknown:
                raise ArchiveError(f"{path} holds {', '.join(unknown)}, which this version does not know. {NEWER}")
            told = dict.fromkeys(LATER, NO_ROWS) | told
            for table in TABLES:
                digest, count = hashlib.sha256(), 0
                for line in _lines(archive, table):
                    digest.update(line)
                    count += 1
                if told[table.name] != {"rows": count, "sha256": digest.hexdigest()}:
                    raise ArchiveError(f"{path} is damaged: its {table.name} are not as they were written.")
            return told
    except ArchiveError:
        raise
    except FileNotFoundError as error:
        raise ArchiveError(f"There is no {path}.") from error
    except (
        OSError,
        zipfile.BadZipFile,
        zlib.error,
        KeyError,
        TypeError,
        AttributeError,
        ValueError,
        EOFError,
    ) as error:
        raise ArchiveError(f"{path} cannot be read as an archive of a studio: {error}.") from error


def _lines(archive: zipfile.ZipFile, table: Table) -> Iterator[bytes]:
    name = f"rows/{table.name}.jsonl"
    if table.name in LATER and name not in archive.namelist():
        return
    with archive.open(name) as file:
        while line := file.readline(LONGEST_LINE):
            yield line


def _rows(archive: zipfile.ZipFile, table: Table) -> Iterator[tuple[int, dict[str, Any]]]:
    """Each row of a table, with how many bytes its line has."""
    kinds = {column.name: column.type.python_type for column in table.columns}
    for line in _lines(archive, table):
        row = json.loads(line)
        unknown = sorted(row.keys() - kinds.keys())
        if unknown:
            words = f"The {table.name} in this archive say {', '.join(unknown)}, which this version does not know."
            raise ArchiveError(f"{words} {NEWER}")
        yield len(line), {name: _typed(kinds[name], value) for name, value in row.items()}


def _some_at_once(rows: Iterable[tuple[int, dict[str, Any]]]) -> Iterator[list[dict[str, Any]]]:
    some: list[dict[str, Any]] = []
    size = 0
    for bytes_of_it, row in rows:
        some.append(row)
        size += bytes_of_it
        if len(some) == AT_ONCE or size > BYTES_AT_ONCE:
            yield some
            some, size = [], 0
    if some:
        yield some


def _plain(value: object) -> str:
    return value.isoformat() if isinstance(value, datetime) else str(value)


def _typed(kind: type, value: Any) -> Any:
    if value is None:
        return None
    if kind is datetime:
        return datetime.fromisoformat(value)
    return uuid.UUID(value) if kind is uuid.UUID else value
