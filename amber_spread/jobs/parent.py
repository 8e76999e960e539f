"""Processes that end with the one that started them: killed, it cannot tell them to stop."""

import os
import signal
import threading
from collections.abc import Callable

STOPS_S = 5.0
"""Longest time from the terminate signal to the end."""


def end_when(gone: Callable[[], object]) -> None:
    """Stop this process once `gone` returns: by a terminate signal, and for good if that is not enough."""

    def wait() -> None:
        gone()
        os.kill(os.getpid(), signal.SIGTERM)
        threading.Event().wait(STOPS_S)
        os._exit(1)

    threading.Thread(target=wait, daemon=True).start()
