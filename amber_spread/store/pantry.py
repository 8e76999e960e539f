"""The pantry of a kitchen. Every save is kept; the newest that was not stale counts."""

from collections.abc import Callable

from sqlalchemy import Engine, select, text
from sqlalchemy.orm import Session

from amber_spread.core.base import Frozen
from amber_spread.core.pantry import Pantry
from amber_spread.store.orders import StaleSave
from amber_spread.store.tables import PantryRow


class KeptPantry(Frozen):
    """A pantry and the number it was saved under; 0 is the empty one it starts from."""

    number: int
    pantry: Pantry


class PantryShelf:
    """The pantry of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def open(self) -> KeptPantry:
        """The pantry as it was last saved."""
        with Session(self.engine) as session:
            return self._newest(session)

    def save(self, pantry: Pantry, began_from: int) -> KeptPantry:
        """Keep `pantry`, which was made out of the one numbered `began_from`.

        Raises StaleSave when another was saved meanwhile; what was sent is then kept aside.
        """
        with Session(self.engine) as session, session.begin():
            self._lock(session)
            current = self._newest(session)
            if current.pantry == pantry:
                return current
            row = self._add(session, pantry, began_from, aside=current.number != began_from)
            number = row.number
            if not row.aside:
                return KeptPantry(number=number, pantry=pantry)
        raise StaleSave(current.number, number, "What you make and buy")

    def change(self, how: Callable[[Pantry], Pantry]) -> KeptPantry:
        """Keep what `how` makes of the pantry as it stands; nothing is saved in between. Raises what `how` does."""
        with Session(self.engine) as session, session.begin():
            self._lock(session)
            current = self._newest(session)
            changed = how(current.pantry)
            row = self._add(session, changed, current.number, aside=False)
            return KeptPantry(number=row.number, pantry=changed)

    def _newest(self, session: Session) -> KeptPantry:
        query = select(PantryRow).where(~PantryRow.aside).order_by(PantryRow.number.desc()).limit(1)
        row = session.scalars(query).first()
        if row is None:
            return KeptPantry(number=0, pantry=Pantry())
        return KeptPantry(number=row.number, pantry=Pantry.model_validate(row.pantry))

    def _lock(self, session: Session) -> None:
        session.execute(text("lock table pantries in share row exclusive mode"))

    def _add(self, session: Session, pantry: Pantry, began_from: int, aside: bool) -> PantryRow:
        row = PantryRow(began_from=began_from, aside=aside, pantry=pantry.model_dump(mode="json"))
        session.add(row)
        session.flush()
        return row
