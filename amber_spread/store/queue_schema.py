"""The tables and functions of the queue (procrastinate), as the installed version has them.

Only unfinished jobs are in them, and whoever waits for one asks again. So for another version of procrastinate, write a
migration that calls `drop_queue` and then `create_queue`.
"""

from procrastinate.schema import SchemaManager
from sqlalchemy import Connection

DROP = r"""
do $$
declare
  one record;
begin
  for one in select oid::regprocedure as name from pg_proc where proname like 'procrastinate\_%' loop
    execute format('drop function %s cascade', one.name);
  end loop;
  for one in select oid::regclass as name from pg_class where relname like 'procrastinate\_%' and relkind = 'r' loop
    execute format('drop table %s cascade', one.name);
  end loop;
  for one in select oid::regtype as name from pg_type
    where typname like 'procrastinate\_%' and typtype in ('e', 'c') loop
    execute format('drop type %s cascade', one.name);
  end loop;
end
$$
"""


def create_queue(connection: Connection) -> None:
    """Create everything the queue needs."""
    _run(connection, SchemaManager.get_schema())


def drop_queue(connection: Connection) -> None:
    """Drop everything `create_queue` made, with the jobs in it."""
    _run(connection, DROP)


def _run(connection: Connection, statements: str) -> None:
    """Run statements as they are; a percent sign is no parameter."""
    driver = connection.connection.driver_connection
    assert driver is not None
    driver.execute(statements)
