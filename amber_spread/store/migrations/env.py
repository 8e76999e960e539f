"""Alembic's entry: migrations run on the connection that `amber_spread.store.migrate` hands over."""

from alembic import context

from amber_spread.store.tables import Base

context.configure(connection=context.config.attributes["connection"], target_metadata=Base.metadata)
with context.begin_transaction():
    context.run_migrations()
