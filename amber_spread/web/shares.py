"""Whose turn it is: work that waits, shared out fairly among those who asked for it."""

from collections import Counter, OrderedDict, deque
from dataclasses import dataclass, field
from typing import Generic, NamedTuple, TypeVar

from amber_spread.web.still import StillWorking

J = TypeVar("J")
MOST_OF_ONE = 2
"""So much of one client's work is done at once."""
MOST_AT_ONCE = 8
"""So much is done at once, however many ask: the machine shares its cores among them."""
MOST_WAITING = 40
"""So much of one client's work may wait."""


class Crowded(StillWorking):
    """One client has too much work waiting already."""

    def __init__(self) -> None:
        super().__init__(f"{MOST_WAITING} things you asked for are waiting already. It is tried again in a moment.")


class Whose(NamedTuple):
    """Whom a piece of work is for, and whether anybody looks at the screen for it."""

    client: str = ""
    waited_for: bool = True


@dataclass
class Shares(Generic[J]):
    """The work that waits and what is under way, by client. Not safe for threads: whoever uses it holds a lock.

    The next piece is that of the client with the least under way, of those the one whose turn is longest ago. What
    nobody waits for is done one piece at a time, while nothing else is waiting.
    """

    waiting: "OrderedDict[Whose, deque[J]]" = field(default_factory=OrderedDict)
    under_way: "Counter[Whose]" = field(default_factory=Counter)

    def add(self, whose: Whose, job: J) -> None:
        """Have a piece of work wait for its turn. Raises Crowded."""
        queue = self.waiting.setdefault(whose, deque())
        if whose.waited_for and len(queue) >= MOST_WAITING:
            raise Crowded
        queue.append(job)

    def drop(self, whose: Whose, job: J) -> None:
        """Leave out a piece of work that is waiting."""
        queue = self.waiting.get(whose, deque())
        if job in queue:
            queue.remove(job)
        if not queue:
            self.waiting.pop(whose, None)

    def next(self) -> tuple[Whose, J] | None:
        """The piece whose turn it is, which is under way from now on; None where nothing may begin."""
        if self.under_way.total() >= MOST_AT_ONCE:
            return None
        ready = [whose for whose in self.waiting if self._may_begin(whose)]
        if not ready:
            return None
        whose = min(ready, key=self.under_way.__getitem__)
        queue = self.waiting.pop(whose)
        job = queue.popleft()
        if queue:
            self.waiting[whose] = queue  # behind all others
        self.under_way[whose] += 1
        return whose, job

    def done(self, whose: Whose) -> None:
        """A piece of somebody's work is under way no longer."""
        self.under_way -= Counter({whose: 1})

    def _may_begin(self, whose: Whose) -> bool:
        if whose.waited_for:
            return self.under_way[whose] < MOST_OF_ONE
        unasked = sum(count for one, count in self.under_way.items() if not one.waited_for)
        return unasked < 1 and not any(one.waited_for for one in self.waiting)
