"""Processes and a queue to run jobs with."""

import pytest

from amber_spread.jobs.processes import Processes
from amber_spread.jobs.queue import Jobs
from amber_spread.store.notices import Listener


@pytest.fixture
def processes():
    found = Processes()
    yield found
    found.stop()


@pytest.fixture
def jobs(book):
    """The queue of a database that a worker serves."""
    found = Jobs(Listener(book.engine))
    yield found
    found.stop()
