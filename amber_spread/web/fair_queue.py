"""A queue of jobs that is fair to every client."""

from collections import Counter, OrderedDict, deque
from dataclasses import dataclass, field
from typing import Generic, NamedTuple, TypeVar

from amber_spread.web.not_ready import NotReady

J = TypeVar("J")
MAX_PER_CLIENT = 2
"""Jobs of one client that may run at once."""
MAX_RUNNING = 8
"""Jobs that may run at once. The system shares its cores among them."""
MAX_WAITING = 40
"""Jobs of one client that may wait."""


class QueueFull(NotReady):
    """A client has too many jobs in the queue."""

    def __init__(self) -> None:
        super().__init__(f"You have {MAX_WAITING} requests waiting already. We try this one again in a moment.")


class Owner(NamedTuple):
    """The client a job is for. Nobody watches the screen for a `background` job."""

    client: str = ""
    background: bool = False


@dataclass
class FairQueue(Generic[J]):
    """Waiting jobs and running counts by owner. Not thread-safe: hold a lock around every call.

    The next job is that of the owner with the fewest running; ties go to the owner who has waited longest for a turn.
    Background jobs run one at a time, and only while no client is waiting.
    """

    waiting: "OrderedDict[Owner, deque[J]]" = field(default_factory=OrderedDict)
    running: "Counter[Owner]" = field(default_factory=Counter)

    def add(self, owner: Owner, job: J) -> None:
        """Append a job. Raises QueueFull."""
        jobs = self.waiting.setdefault(owner, deque())
        if not owner.background and len(jobs) >= MAX_WAITING:
            raise QueueFull
        jobs.append(job)

    def remove(self, owner: Owner, job: J) -> None:
        """Drop a job that is still waiting."""
        jobs = self.waiting.get(owner, deque())
        if job in jobs:
            jobs.remove(job)
        if not jobs:
            self.waiting.pop(owner, None)

    def clear(self) -> list[J]:
        """Drop and return every waiting job."""
        jobs = [job for each in self.waiting.values() for job in each]
        self.waiting.clear()
        return jobs

    def start_next(self) -> tuple[Owner, J] | None:
        """Take the next job and count it as running. None if no job may start now."""
        if self.running.total() >= MAX_RUNNING:
            return None
        ready = [owner for owner in self.waiting if self._may_start(owner)]
        if not ready:
            return None
        owner = min(ready, key=self.running.__getitem__)
        jobs = self.waiting.pop(owner)
        job = jobs.popleft()
        if jobs:
            self.waiting[owner] = jobs  # behind all others
        self.running[owner] += 1
        return owner, job

    def finished(self, owner: Owner) -> None:
        """Count one running job less."""
        self.running -= Counter({owner: 1})

    def _may_start(self, owner: Owner) -> bool:
        if not owner.background:
            return self.running[owner] < MAX_PER_CLIENT
        return not any(one.background for one in self.running) and all(one.background for one in self.waiting)
