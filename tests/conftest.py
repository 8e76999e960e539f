"""What many tests need: designs to plan, a PostgreSQL of their own, and the application over it."""

import os

import pytest
from hypothesis import HealthCheck, Phase, settings

from amber_spread.jobs.command import job_worker
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.store.private_postgres import PrivatePostgres, temporary_folder

# The same examples on every run of continuous integration; new ones at every run by hand.
EXAMPLES = int(os.environ.get("AMBER_EXAMPLES", "14"))
CI = "CI" in os.environ
# Where nobody waits at the screen, the same examples are tried each time, and one that fails is not made smaller first.
PHASES = [phase for phase in Phase if not (CI and phase is Phase.shrink)]
# Whether a made-up tier can be made is found by working it, which takes long for a carved one on a busy machine.
settings.register_profile(
    "amber",
    deadline=None,
    max_examples=EXAMPLES,
    derandomize=CI,
    phases=PHASES,
    suppress_health_check=[HealthCheck.too_slow],
)
settings.load_profile("amber")


@pytest.fixture(scope="session")
def postgres():
    with temporary_folder() as folder, PrivatePostgres(folder / "postgres") as server:
        yield server


@pytest.fixture(scope="session")
def shared_book(postgres):
    """An order book with a worker for its long jobs."""
    url = postgres.url("tests")
    book = OrderBook.at(url)
    migrate(book.engine)
    with job_worker(url, 8):
        yield book
    book.engine.dispose()


@pytest.fixture
def book(shared_book):
    """An empty order book."""
    with shared_book.engine.begin() as connection:
        connection.exec_driver_sql(
            "truncate orders, kits, pantries, practices, places, cached_bodies, pictures cascade"
        )
    for table in ("job_waiters", "jobs"):
        with shared_book.engine.begin() as connection:
            connection.exec_driver_sql(f"delete from {table}")
    return shared_book
