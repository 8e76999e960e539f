"""Pictures in designs are stored once, by digest, however many revisions contain them.

A stored design has `picture:DIGEST` in place of each picture's data; reading puts the data back.
"""

import hashlib
from collections.abc import Callable, Mapping
from typing import Any

from sqlalchemy import Connection, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from amber_spread.store.tables import PictureRow

FIELD = "jpeg"
"""The field with a picture's data, in base 64."""
STORED = "picture:"
"""Comes before the digest. Base 64 has no colon, so nothing else begins like this."""


def take_out(session: Session, written: Mapping[str, Any]) -> dict[str, Any]:
    """A written design as it is stored, once its pictures are."""
    found: dict[str, str] = {}

    def stored(data: str) -> str:
        if data.startswith(STORED):
            return data
        digest = hashlib.sha256(data.encode()).hexdigest()
        found[digest] = data
        return STORED + digest

    changed: dict[str, Any] = _with_data(written, stored)
    if found:
        rows = [{"digest": digest, "data": data} for digest, data in sorted(found.items())]
        session.execute(insert(PictureRow).values(rows).on_conflict_do_nothing())
    return changed


def put_back(database: Session | Connection, stored: Mapping[str, Any]) -> dict[str, Any]:
    """A stored design as it was written."""
    wanted: set[str] = set()

    def note(data: str) -> str:
        if data.startswith(STORED):
            wanted.add(data.removeprefix(STORED))
        return data

    whole: dict[str, Any] = _with_data(stored, note)
    if not wanted:
        return whole
    rows = database.execute(select(PictureRow.digest, PictureRow.data).where(PictureRow.digest.in_(wanted)))
    pictures = {STORED + digest: data for digest, data in rows}
    restored: dict[str, Any] = _with_data(stored, lambda data: pictures.get(data, data))
    return restored


def _with_data(part: Any, change: Callable[[str], str]) -> Any:
    """A copy of JSON data with every picture's data changed."""
    if isinstance(part, Mapping):
        return {
            name: change(value) if name == FIELD and isinstance(value, str) else _with_data(value, change)
            for name, value in part.items()
        }
    return [_with_data(one, change) for one in part] if isinstance(part, list) else part
