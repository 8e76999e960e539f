"""CSV as people send it: any usual encoding and separator, numbers of either locale; faults are said line by line.

A file is read whole or not at all: one bad line refuses it, and every bad line is named.
"""

import csv
import io
import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import NamedTuple, TypeVar

from amber_spread.core.document import Complaint
from amber_spread.core.kernel.limits import MAX_FILE_BYTES

T = TypeVar("T")
MAX_LINES = 5000
MAX_NAMED = 60
"""So many bad lines are named; the rest are counted."""
SEPARATORS = ",;\t|"
_MONEY = re.compile(r"^[€$£¥\s]+|[€$£¥\s]+$|\s*[A-Z]{3}$|^[A-Z]{3}\s*")
_GAP = "[ \u00a0\u202f'’]"
_SPACED = re.compile(rf"\d{{1,3}}({_GAP}\d{{3}})+([.,]\d*)?")
_GROUPED = {",": re.compile(r"\d{1,3}(,\d{3})+"), ".": re.compile(r"\d{1,3}(\.\d{3})+")}


class Column(NamedTuple):
    """A column by its name, the other words for it, and whether a file must have it."""

    name: str
    also: tuple[str, ...] = ()
    needed: bool = True


class Row(NamedTuple):
    """One line of a table: its number in the file, and its cells by column."""

    line: int
    cells: Mapping[str, str]


class TableError(ValueError):
    """A table that cannot be used; `complaints` name each line and what would be accepted there."""

    def __init__(self, complaints: Sequence[Complaint]) -> None:
        super().__init__(f"{complaints[0].field}: {complaints[0].message}")
        self.complaints = list(complaints)


class CannotUse(ValueError):
    """A cell that cannot be used: its column, and what would be accepted."""

    def __init__(self, column: str, message: str) -> None:
        super().__init__(message)
        self.column = column


def at_line(line: int, column: str | None, message: str) -> Complaint:
    """A complaint about a line of a file, or about one cell of it."""
    where = f"line {line}" + (f", {column}" if column else "")
    return Complaint(pointer=f"#/lines/{line}" + (f"/{column}" if column else ""), field=where, message=message)


def decode(content: bytes) -> str:
    """The text of a file in UTF-8, UTF-16 with its mark, or the Western European of older spreadsheets.

    Raises TableError for what is too large or no text.
    """
    if len(content) > MAX_FILE_BYTES:
        raise TableError([at_line(1, None, f"is of a file over {MAX_FILE_BYTES // 1024} kB, the most that is read")])
    if content.startswith((b"\xff\xfe", b"\xfe\xff")):
        text = content.decode("utf-16", "replace")
    else:
        try:
            text = content.decode("utf-8-sig")
        except UnicodeDecodeError:
            text = content.decode("cp1252", "replace")
    bad = next((index for index, sign in enumerate(text) if sign < " " and sign not in "\t\r\n"), text.find("\ufffd"))
    if bad >= 0:
        line = text.count("\n", 0, bad) + 1
        raise TableError([at_line(line, None, "holds what is no text; save the file as CSV in UTF-8 and try again")])
    return text


def read_table(content: bytes, columns: Sequence[Column]) -> list[Row]:
    """The rows of a CSV file whose first line names its columns. Raises TableError."""
    text = decode(content)
    lines = text.splitlines()
    skipped = 1 if lines and re.fullmatch(r"sep=.", lines[0].strip()) else 0
    lines = lines[skipped:]
    if len(lines) > MAX_LINES:
        raise TableError([at_line(1, None, f"begins a file of {len(lines)} lines; {MAX_LINES} are read at a time")])
    if not any(line.strip() for line in lines):
        raise TableError([at_line(1, None, f"is empty; it should name the columns {_listed(columns)}")])
    separator = max(SEPARATORS, key=lambda sign: len(_head(lines, sign, columns)))
    return list(_rows(lines, separator, columns, skipped))


def _head(lines: Sequence[str], separator: str, columns: Sequence[Column]) -> dict[int, str]:
    """Which column stands in which place, by the first line that is not empty."""
    first = next(line for line in lines if line.strip())
    words = {word: column.name for column in columns for word in (column.name, *column.also)}
    cells = next(csv.reader([first], delimiter=separator))
    found: dict[int, str] = {}
    for place, cell in enumerate(cells):
        name = words.get(cell.strip().lower().replace(" ", "_"))
        if name is not None and name not in found.values():
            found[place] = name
    return found


def _rows(lines: Sequence[str], separator: str, columns: Sequence[Column], skipped: int) -> Iterator[Row]:
    places = _head(lines, separator, columns)
    missing = [column.name for column in columns if column.needed and column.name not in places.values()]
    if missing:
        raise TableError(
            [at_line(1 + skipped, None, f"should name the columns {_listed(columns)}; missing: {', '.join(missing)}")]
        )
    reader = csv.reader(io.StringIO("\n".join(lines)), delimiter=separator, strict=True)
    headed, before = False, 0
    try:
        for cells in reader:
            line, before = before + 1 + skipped, reader.line_num
            if not any(cell.strip() for cell in cells):
                continue
            if headed:
                yield Row(line, {name: _cell(cells, at) for at, name in places.items()})
            headed = True
    except csv.Error as error:
        raise TableError([at_line(before + 1 + skipped, None, f"cannot be read as CSV: {error}")]) from error


def _cell(cells: Sequence[str], at: int) -> str:
    """A cell without the quote that keeps a spreadsheet from taking it for a formula."""
    text = cells[at].strip() if at < len(cells) else ""
    return text[1:] if re.match(r"'[=+\-@]", text) else text


def _listed(columns: Sequence[Column]) -> str:
    return ", ".join(column.name if column.needed else f"{column.name} (may be left out)" for column in columns)


def each_row(rows: Sequence[Row], read: Callable[[Row], T]) -> list[T]:
    """What `read` makes of every row. Raises TableError naming every row for which it raised CannotUse."""
    found: list[T] = []
    complaints: list[Complaint] = []
    for row in rows:
        try:
            found.append(read(row))
        except CannotUse as error:
            complaints.append(at_line(row.line, error.column, str(error)))
    if complaints:
        more = len(complaints) - MAX_NAMED
        if more > 0:
            last = at_line(rows[-1].line, None, f"ends the file; {more} more lines cannot be used either")
            complaints = [*complaints[:MAX_NAMED], last]
        raise TableError(complaints)
    return found


def read_decimal(text: str, column: str) -> float:
    """A number, 0 or more, with a decimal point or comma. Raises CannotUse where it is none, or could be two.

    `1.234,50`, `1,234.50`, `1 234.5` and `1'234.5` are all read; `1,234` alone is refused, since it is a thousand in
    one place and one and a bit in another.
    """
    plain = _MONEY.sub("", text.strip())
    if _SPACED.fullmatch(plain):
        plain = re.sub(_GAP, "", plain)
    if re.match(r"[-−]", plain):
        raise CannotUse(column, f"“{text[:40]}” is less than nothing; write it without the minus sign")
    marks = [sign for sign in plain if sign in ".,"]
    if len(set(marks)) == 2:
        decimal = marks[-1]
        thousands = "," if decimal == "." else "."
        whole, _, rest = plain.rpartition(decimal)
        if decimal in whole or not _GROUPED[thousands].fullmatch(whole):
            raise CannotUse(column, f"“{text[:40]}” is not a number; write it like 1234.50")
        plain = whole.replace(thousands, "") + "." + rest
    elif len(marks) > 1:
        if not _GROUPED[marks[0]].fullmatch(plain):
            raise CannotUse(column, f"“{text[:40]}” is not a number; write it like 1234.50")
        plain = plain.replace(marks[0], "")
    elif re.fullmatch(r"[1-9]\d{0,2}[.,]\d{3}", plain):
        short, long = plain.replace(",", "."), plain.replace(",", "").replace(".", "")
        raise CannotUse(column, f"“{text[:40]}” could be {float(short):g} or {long}; write one of those")
    plain = plain.replace(",", ".")
    if not re.fullmatch(r"[0-9]+(\.[0-9]*)?|\.[0-9]+", plain) or len(plain) > 18:
        raise CannotUse(column, f"“{text[:40]}” is not a number; write it like 2.40")
    return float(plain)
