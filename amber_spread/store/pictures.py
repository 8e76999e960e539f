"""Pictures in designs are stored once, by digest, however many revisions contain them.

A stored design has a picture's digest in place of its data, and its revision lists the digests.
"""

import hashlib
from collections.abc import Mapping, Sequence
from typing import Any

from sqlalchemy import Connection, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from amber_spread.core.kernel.base import with_fields
from amber_spread.store.tables import PictureRow

FIELD = "jpeg"
"""The field with a picture's data, in base 64."""


def take_out(session: Session, written: Mapping[str, Any]) -> tuple[dict[str, Any], list[str]]:
    """A written design as it is stored, and the digests of its pictures, which are stored too."""
    found: dict[str, str] = {}

    def stored(data: str) -> str:
        digest = hashlib.sha256(data.encode()).hexdigest()
        found[digest] = data
        return digest

    changed: dict[str, Any] = with_fields(dict(written), FIELD.__eq__, stored)
    if found:
        rows = [{"digest": digest, "data": data} for digest, data in sorted(found.items())]
        session.execute(insert(PictureRow).values(rows).on_conflict_do_nothing())
    return changed, sorted(found)


def put_back(database: Session | Connection, stored: dict[str, Any], digests: Sequence[str]) -> dict[str, Any]:
    """A stored design as it was written."""
    if not digests:
        return stored
    rows = database.execute(select(PictureRow.digest, PictureRow.data).where(PictureRow.digest.in_(digests)))
    pictures = {digest: data for digest, data in rows}
    whole: dict[str, Any] = with_fields(stored, FIELD.__eq__, lambda digest: pictures.get(digest, digest))
    return whole
