"""The tables: orders, as they are searched, and every revision ever saved of each."""

import uuid
from datetime import datetime
from typing import Any

from sqlalchemy import (
    ARRAY,
    JSON,
    BigInteger,
    DateTime,
    ForeignKey,
    Index,
    LargeBinary,
    MetaData,
    Text,
    Uuid,
    false,
    func,
)
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

CONVENTION = {
    "ix": "ix_%(table_name)s_%(column_0_name)s",
    "pk": "pk_%(table_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s",
}


class Base(DeclarativeBase):
    """The root of every table."""

    metadata = MetaData(naming_convention=CONVENTION)


class OrderRow(Base):
    """One order. Title and due hour repeat what the current revision says, to be searched and sorted by.

    `card` is how it stands on the shelf and `bill` what it asks of the shop, made when it was saved; `card_made_by`
    says by what program and for what kit, so that both are made again when either is another. `work` is the work on
    it, computed when the week is first asked for, and `work_made_by` says by what. `hours` are its pinned hours, and
    `marks` what has been done of it, each with an id of its own.
    """

    __tablename__ = "orders"
    __table_args__ = (Index("ix_orders_shelf", "archived", "due"),)

    id: Mapped[uuid.UUID] = mapped_column(Uuid, primary_key=True)
    title: Mapped[str]
    due: Mapped[datetime | None] = mapped_column(DateTime(timezone=False))
    archived: Mapped[bool] = mapped_column(server_default=false())
    revision: Mapped[int]
    created_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    card: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    bill: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True), deferred=True)
    card_made_by: Mapped[str | None] = mapped_column(Text)
    work: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True), deferred=True)
    work_made_by: Mapped[str | None] = mapped_column(Text)
    hours: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True), deferred=True)
    marks: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True), deferred=True)


class RevisionRow(Base):
    """One saved state of an order, as it was written, with the number of its format.

    `aside` marks a save that came too late and was kept beside the current one. `title` repeats the
    design's title, so that a list of versions reads no designs. `pictures` lists the pictures taken out of the design.
    """

    __tablename__ = "revisions"

    order_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("orders.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    began_from: Mapped[int | None]
    aside: Mapped[bool] = mapped_column(server_default=false())
    saved_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    format: Mapped[int]
    title: Mapped[str | None] = mapped_column(Text)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    pictures: Mapped[list[str]] = mapped_column(ARRAY(Text), server_default="{}")


class PictureRow(Base):
    """A picture that a view is traced over, as JPEG in base 64, by its digest."""

    __tablename__ = "pictures"

    digest: Mapped[str] = mapped_column(Text, primary_key=True)
    data: Mapped[str] = mapped_column(Text)


class CachedBodyRow(Base):
    """A carved body with its computed results, by a digest of everything they depend on."""

    __tablename__ = "cached_bodies"
    __table_args__ = (Index("ix_cached_bodies_used_at", "used_at"),)

    key: Mapped[str] = mapped_column(Text, primary_key=True)
    content: Mapped[bytes] = mapped_column(LargeBinary)
    used_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())


class JobRow(Base):
    """A long job: what to run, and what came of it. `job_id` is its id in the queue."""

    __tablename__ = "jobs"
    __table_args__ = (Index("ix_jobs_client", "client"), {"prefixes": ["UNLOGGED"]})

    key: Mapped[str] = mapped_column(Text, primary_key=True)
    job_id: Mapped[int] = mapped_column(BigInteger)
    client: Mapped[str] = mapped_column(Text)
    slot: Mapped[int]
    background: Mapped[bool]
    seconds: Mapped[float]
    call: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    bodies_key: Mapped[str] = mapped_column(Text)
    asked_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    finished_at: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    outcome: Mapped[str | None] = mapped_column(Text)
    result: Mapped[bytes | None] = mapped_column(LargeBinary, deferred=True)


class JobWaiterRow(Base):
    """A process that waits for a job, and until when it does unless it renews its interest."""

    __tablename__ = "job_waiters"
    __table_args__ = ({"prefixes": ["UNLOGGED"]},)

    key: Mapped[str] = mapped_column(Text, primary_key=True)
    process: Mapped[str] = mapped_column(Text, primary_key=True)
    until: Mapped[datetime] = mapped_column(DateTime(timezone=True))


class WholeRow(Base):
    """Something kept as a whole, as it was when it was saved; the greatest number that is not `aside` counts."""

    __abstract__ = True

    number: Mapped[int] = mapped_column(primary_key=True)
    began_from: Mapped[int]
    aside: Mapped[bool] = mapped_column(server_default=false())
    saved_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    format: Mapped[int]
    content: Mapped[dict[str, Any]] = mapped_column(JSON)


class KitRow(WholeRow):
    """What the kitchen owned."""

    __tablename__ = "kits"


class PracticeRow(WholeRow):
    """How the kitchen worked, where an order did not say."""

    __tablename__ = "practices"


class PantryRow(WholeRow):
    """What the kitchen made and bought."""

    __tablename__ = "pantries"


class PlacesRow(WholeRow):
    """The hands and places of the kitchen."""

    __tablename__ = "places"
