"""How the program talks to its database: what it waits for, and no longer."""

from sqlalchemy import Engine, create_engine

CONNECT_S = 5
WAIT_S = 5
"""So long a request waits for a connection of its own, and a statement for its answer."""
POOL, OVERFLOW = 10, 10


def engine_at(url: str) -> Engine:
    """The database at a PostgreSQL address. Nothing asked of it goes on for longer than WAIT_S."""
    return create_engine(
        url,
        pool_pre_ping=True,
        pool_size=POOL,
        max_overflow=OVERFLOW,
        pool_timeout=WAIT_S,
        connect_args={
            "connect_timeout": CONNECT_S,
            "options": f"-c statement_timeout={WAIT_S}s -c lock_timeout={WAIT_S}s"
            f" -c idle_in_transaction_session_timeout={4 * WAIT_S}s",
            "tcp_user_timeout": 2000 * WAIT_S,
        },
    )
