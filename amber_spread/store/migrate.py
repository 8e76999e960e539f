"""Bring a database to the tables this version knows, by Alembic; safe when several processes start at once."""

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, text

from amber_spread.store.engine import lift_limits

ONE_AT_A_TIME = 7_204_118


def migrate(engine: Engine) -> None:
    """Run every migration the database lacks. Raises sqlalchemy.exc.OperationalError when it cannot be reached."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.begin() as connection:
        # A large book takes as long as it takes, and another process that brings it up to date is waited for.
        lift_limits(connection, "statement_timeout", "lock_timeout")
        connection.execute(text("select pg_advisory_xact_lock(:key)"), {"key": ONE_AT_A_TIME})
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
