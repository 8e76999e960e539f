"""What was worked out and takes long, kept for every process by a digest of all that it depends on.

It can be worked out again, so that it is in no backup, and the longest unused goes when there is too much.
"""

from sqlalchemy import Engine, delete, func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from amber_spread.store.tables import WorkedRow

MOST_KEPT = 400
"""So many are kept, those used last; each is some 1 MB."""
MOST_BYTES = 32 * 1024 * 1024
"""What is larger than that is worked out again."""


class WorkedShelf:
    """All of it in one database. Safe to use from many threads and processes at once."""

    def __init__(self, engine: Engine, most: int = MOST_KEPT) -> None:
        self.engine = engine
        self.most = most

    def get(self, key: str) -> bytes | None:
        """What is kept under a key; it is used now."""
        with Session(self.engine) as session, session.begin():
            used = update(WorkedRow).where(WorkedRow.key == key).values(used_at=func.now())
            return session.execute(used.returning(WorkedRow.content)).scalar_one_or_none()

    def put(self, key: str, content: bytes) -> None:
        """Keep something under a key, in the place of what is there."""
        if len(content) > MOST_BYTES:
            return
        with Session(self.engine) as session, session.begin():
            session.execute(
                insert(WorkedRow)
                .values(key=key, content=content)
                .on_conflict_do_update(index_elements=["key"], set_={"content": content, "used_at": func.now()})
            )
            last = select(WorkedRow.key).order_by(WorkedRow.used_at.desc()).offset(self.most)
            session.execute(delete(WorkedRow).where(WorkedRow.key.in_(last.scalar_subquery())))
