"""What a kitchen keeps as a whole, its kit and its pantry. Every save is kept; the newest that was not stale counts."""

from collections.abc import Callable
from datetime import datetime
from typing import ClassVar, Generic, NamedTuple, TypeVar

from pydantic import ValidationError
from sqlalchemy import Engine, select, text
from sqlalchemy.orm import Session

from amber_spread.core.clock import Places
from amber_spread.core.design.practice import Practice
from amber_spread.core.document import (
    LAST_WITH_HOURS,
    NOW,
    FileKind,
    FromLater,
    complaint_at,
    complaints_of,
    hours_once,
    upgraded,
)
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.stock.kit import STARTING, Kit
from amber_spread.core.stock.pantry import Pantry
from amber_spread.store.notices import tell
from amber_spread.store.orders import OrderMissing, StaleSave, Unread
from amber_spread.store.tables import KitRow, PantryRow, PlacesRow, PracticeRow, WholeRow

T = TypeVar("T", bound=Frozen)
LOOKED_BACK = 50
"""So many earlier ones are tried where the newest cannot be read."""


class Kept(NamedTuple, Generic[T]):
    """What is kept, and the number it was saved under; 0 is what a kitchen starts from.

    Where this version cannot read what was saved last, `unread` says why, and `content` is the newest it can read.
    """

    number: int
    content: T
    unread: str = ""


class Earlier(NamedTuple):
    """One that was saved, without its contents."""

    number: int
    saved_at: datetime
    aside: bool


class Shelf(Generic[T]):
    """One whole of one database: its kit, its pantry. Safe to use from many threads and processes at once."""

    row: ClassVar[type[WholeRow]]
    kind: ClassVar[FileKind]
    what: ClassVar[str]
    start: T

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def open(self) -> Kept[T]:
        """The whole as it was last saved."""
        with Session(self.engine) as session:
            return self._newest(session)

    def save(self, content: T, began_from: int) -> Kept[T]:
        """Keep `content`, which was made out of the one numbered `began_from`.

        Raises StaleSave when another was saved meanwhile; what was sent is then kept aside.
        """
        with Session(self.engine) as session, session.begin():
            self._lock(session)
            current = self._newest(session)
            if current.content == content and not current.unread:
                return current
            stale = current.number != began_from
            number = self._add(session, content, began_from, aside=stale)
            if not stale:
                return Kept(number, content)
        raise StaleSave(current.number, number, self.what)

    def change(self, how: Callable[[T], T]) -> Kept[T]:
        """Keep what `how` makes of the whole as it stands; nothing is saved in between. Raises what `how` does."""
        with Session(self.engine) as session, session.begin():
            self._lock(session)
            current = self._newest(session)
            changed = how(current.content)
            return Kept(self._add(session, changed, current.number, aside=False), changed)

    def history(self) -> list[Earlier]:
        """Every one that was saved, the newest first."""
        with Session(self.engine) as session:
            rows = session.scalars(select(self.row).order_by(self.row.number.desc()))
            return [Earlier(row.number, row.saved_at, row.aside) for row in rows]

    def at(self, number: int) -> T:
        """What was saved under a number. Raises OrderMissing, and Unread where this version cannot read it."""
        with Session(self.engine) as session:
            row = session.get(self.row, number)
            if row is None:
                raise OrderMissing("nothing was saved under that number")
            try:
                return self._read(row)
            except (ValidationError, FromLater) as error:
                raise Unread(self.what, [complaint_at((), _reason(error))]) from error

    def _newest(self, session: Session) -> Kept[T]:
        """The newest that was not stale; where this version cannot read it, the newest of the others that it can."""
        newest, unread = 0, ""
        query = select(self.row).where(~self.row.aside).order_by(self.row.number.desc()).limit(1)
        for back in range(LOOKED_BACK):
            row = session.scalars(query.offset(back)).first()
            if row is None:
                break
            newest = newest or row.number
            try:
                return Kept(newest, self._read(row), unread)
            except (ValidationError, FromLater) as error:
                unread = unread or f"What was saved last {_reason(error)}."
        return Kept(newest, self.first(session), unread)

    def first(self, session: Session) -> T:
        """What a kitchen starts from, or what is shown where nothing that was saved can be read."""
        return self.start

    def _read(self, row: WholeRow) -> T:
        return type(self.start).model_validate(upgraded(self.kind, row.format, row.content))

    def _lock(self, session: Session) -> None:
        session.execute(text(f"lock table {self.row.__tablename__} in share row exclusive mode"))

    def _add(self, session: Session, content: T, began_from: int, aside: bool) -> int:
        written = content.model_dump(mode="json")
        row = self.row(began_from=began_from, aside=aside, format=NOW[self.kind], content=written)
        session.add(row)
        session.flush()
        if not aside:
            tell(session, self.kind, row.number)
        return row.number


def _reason(error: ValidationError | FromLater) -> str:
    """Why something that was saved cannot be read, by its first field at fault."""
    if isinstance(error, FromLater):
        return f"is of a format that {error}"
    first = complaints_of(error.errors(include_url=False, include_input=False))[0]
    return f"cannot be read by this version: {first.field} {first.message}"


class KitShelf(Shelf[Kit]):
    """The kit: what the kitchen owns."""

    row = KitRow
    kind = "kit"
    what = "What you own"
    start = STARTING


class PracticeShelf(Shelf[Practice]):
    """The practice: how the kitchen works, where an order does not say."""

    row = PracticeRow
    kind = "practice"
    what = "The kitchen’s usual"
    start = Practice()


class PantryShelf(Shelf[Pantry]):
    """The pantry: what the kitchen makes and buys."""

    row = PantryRow
    kind = "pantry"
    what = "What you make and buy"
    start = Pantry()


class PlacesShelf(Shelf[Places]):
    """The hands and places: who works when, and what the kitchen has room for."""

    row = PlacesRow
    kind = "places"
    what = "Hands and places"
    start = Places()

    def first(self, session: Session) -> Places:
        """What a kitchen starts from: the hands and hours that its usual once had, where it had set any."""
        newest = select(PracticeRow).where(~PracticeRow.aside, PracticeRow.format <= LAST_WITH_HOURS)
        row = session.scalars(newest.order_by(PracticeRow.number.desc()).limit(1)).first()
        hours = hours_once(row.content) if row is not None else None
        try:
            return self.start if hours is None else Places.model_validate(hours)
        except ValidationError:
            return self.start
