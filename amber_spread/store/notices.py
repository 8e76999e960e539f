"""What was saved, told to everyone who listens, through the database that they all share: PostgreSQL's NOTIFY.

A notice goes out with the save it tells of, when that is kept and not before.
"""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

import psycopg
from pydantic import ValidationError
from sqlalchemy import Engine, func, select
from sqlalchemy.orm import Session

from amber_spread.core.document import FileKind
from amber_spread.core.kernel.base import Frozen
from amber_spread.store.engine import CONNECT_S, address_of

CHANNEL = "amber_spread_saved"


class Away(Exception):
    """The database cannot be reached just now."""


class Notice(Frozen):
    """Something was saved: an order, of which `id` says which, or a whole; `number` is what its newest save is called.

    An order that was taken off the shelf or put back keeps its number.
    """

    what: FileKind
    id: str
    number: int


def tell(session: Session, what: FileKind, number: int, id: object = "") -> None:
    """Tell everyone who listens of a save, once the session's work is kept."""
    session.execute(select(func.pg_notify(CHANNEL, Notice(what=what, id=str(id), number=number).model_dump_json())))


@asynccontextmanager
async def listening(engine: Engine) -> AsyncIterator[AsyncIterator[Notice]]:
    """Listen on a connection of one's own: gives the notices from then on, as they come.

    Raises Away when the database cannot be reached, or is reached no longer.
    """
    try:
        connection = await psycopg.AsyncConnection.connect(
            address_of(engine), autocommit=True, connect_timeout=CONNECT_S
        )
        async with connection:
            await connection.execute(f"listen {CHANNEL}")
            yield _read(connection)
    except psycopg.Error as error:
        raise Away from error


async def _read(connection: "psycopg.AsyncConnection[tuple[object, ...]]") -> AsyncIterator[Notice]:
    async for one in connection.notifies():
        try:
            yield Notice.model_validate_json(one.payload)
        except ValidationError:
            continue  # a version of the program that says more than this one knows, on the same database
