"""The kit a kitchen owns. Every save is kept; the newest counts."""

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from amber_spread.core.kit import STARTING, Kit
from amber_spread.store.tables import KitRow


class KitShelf:
    """The kit of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def open(self) -> Kit:
        """The kit as it was last saved, the starting set where it never was."""
        with Session(self.engine) as session:
            row = session.scalars(select(KitRow).order_by(KitRow.number.desc()).limit(1)).first()
            return STARTING if row is None else Kit.model_validate(row.kit)

    def save(self, kit: Kit) -> Kit:
        """Keep `kit` as the newest."""
        with Session(self.engine) as session, session.begin():
            session.add(KitRow(kit=kit.model_dump(mode="json")))
        return kit
