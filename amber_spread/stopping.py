"""Signals that stop the program, at moments when they must not: during imports, and while something is started."""

import os
import signal
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from types import TracebackType
from typing import Any, NoReturn, Self

STOP_SIGNALS = {signal.SIGINT, signal.SIGTERM, signal.SIGHUP}


def _stopped(*_: object) -> NoReturn:
    """End at once: while the program is read nothing is begun that would have to be ended, and an interruption raised
    then may come out of a library dressed as an error of its own.
    """
    os.write(2, b"Stopped.\n")
    os._exit(1)


@contextmanager
def ends_at_once() -> Iterator[None]:
    """In this context, which is for imports alone, Ctrl-C ends the process at once; after it, it interrupts as usual,
    also where it was ignored before (as a shell has it for what it starts in the background).
    """
    signal.signal(signal.SIGINT, _stopped)
    try:
        yield
    finally:
        signal.signal(signal.SIGINT, signal.default_int_handler)


class SignalsWaiting:
    """In this context, signals that would stop the program wait until its end.

    This thread blocks them, and so do the processes started meanwhile. The libraries have threads of their own, which
    do not: what reaches one of those is noted, and raised at the end. Outside the main thread, which alone takes
    signals, this does nothing.
    """

    def __enter__(self) -> Self:
        self._came: list[int] = []
        self._handlers: dict[int, Any] = {}
        self._main = threading.current_thread() is threading.main_thread()
        if self._main:
            for number in STOP_SIGNALS:
                self._handlers[number] = signal.signal(number, lambda number, _: self._came.append(number))
            self._mask = signal.pthread_sigmask(signal.SIG_BLOCK, STOP_SIGNALS)
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, where: TracebackType | None
    ) -> None:
        self.restore_handlers()
        self.take()

    def restore_handlers(self) -> None:
        """Bring back the handlers there were. This thread goes on blocking the signals."""
        while self._handlers:
            number, handler = self._handlers.popitem()
            signal.signal(number, handler)

    def take(self) -> None:
        """Block the signals no longer, and raise those that came."""
        if self._main:
            signal.pthread_sigmask(signal.SIG_SETMASK, self._mask)
        while self._came:
            signal.raise_signal(self._came.pop())
