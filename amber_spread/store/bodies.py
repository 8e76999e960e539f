"""A cache of carved bodies in the database, shared by every process and kept over a restart.

Backups leave it out: every entry can be computed again. The least recently used entries are dropped.
"""

from sqlalchemy import Engine, delete, func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from amber_spread.store.tables import CachedBodyRow

MAX_ENTRIES = 400
"""An entry takes about 1 MB."""
MAX_BYTES = 32 * 1024 * 1024
"""Larger entries are not cached."""


class BodyStore:
    """The cache of one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine, max_entries: int = MAX_ENTRIES) -> None:
        self.engine = engine
        self.max_entries = max_entries

    def get(self, key: str) -> bytes | None:
        """The entry under a key, marked as used now; None if there is none."""
        with Session(self.engine) as session, session.begin():
            used = update(CachedBodyRow).where(CachedBodyRow.key == key).values(used_at=func.now())
            return session.execute(used.returning(CachedBodyRow.content)).scalar_one_or_none()

    def put(self, key: str, content: bytes) -> None:
        """Insert or replace an entry, and drop the least recently used ones beyond the limit."""
        if len(content) > MAX_BYTES:
            return
        with Session(self.engine) as session, session.begin():
            session.execute(
                insert(CachedBodyRow)
                .values(key=key, content=content)
                .on_conflict_do_update(index_elements=["key"], set_={"content": content, "used_at": func.now()})
            )
            surplus = select(CachedBodyRow.key).order_by(CachedBodyRow.used_at.desc()).offset(self.max_entries)
            session.execute(delete(CachedBodyRow).where(CachedBodyRow.key.in_(surplus.scalar_subquery())))
