"""What a kitchen keeps as a whole, its kit and its pantry. Every save is kept; the newest that was not stale counts."""

from collections.abc import Callable
from typing import ClassVar, Generic, NamedTuple, TypeVar

from sqlalchemy import Engine, select, text
from sqlalchemy.orm import Session

from amber_spread.core.base import Frozen
from amber_spread.core.kit import STARTING, Kit
from amber_spread.core.pantry import Pantry
from amber_spread.store.orders import StaleSave
from amber_spread.store.tables import KitRow, PantryRow, WholeRow

T = TypeVar("T", bound=Frozen)


class Kept(NamedTuple, Generic[T]):
    """What is kept, and the number it was saved under; 0 is what a kitchen starts from."""

    number: int
    content: T


class Shelf(Generic[T]):
    """One whole of one database: its kit, its pantry. Safe to use from many threads and processes at once."""

    row: ClassVar[type[WholeRow]]
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
            if current.content == content:
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

    def _newest(self, session: Session) -> Kept[T]:
        query = select(self.row).where(~self.row.aside).order_by(self.row.number.desc()).limit(1)
        row = session.scalars(query).first()
        return Kept(0, self.start) if row is None else Kept(row.number, type(self.start).model_validate(row.content))

    def _lock(self, session: Session) -> None:
        session.execute(text(f"lock table {self.row.__tablename__} in share row exclusive mode"))

    def _add(self, session: Session, content: T, began_from: int, aside: bool) -> int:
        row = self.row(began_from=began_from, aside=aside, content=content.model_dump(mode="json"))
        session.add(row)
        session.flush()
        return row.number


class KitShelf(Shelf[Kit]):
    """The kit: what the kitchen owns."""

    row = KitRow
    what = "What you own"
    start = STARTING


class PantryShelf(Shelf[Pantry]):
    """The pantry: what the kitchen makes and buys."""

    row = PantryRow
    what = "What you make and buy"
    start = Pantry()
