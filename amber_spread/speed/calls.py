"""How many Python functions some work calls: a measure of cost that no busy machine changes."""

import gc
import sys
from collections.abc import Callable
from types import FrameType
from typing import Any


def calls_of(work: Callable[[], object]) -> int:
    """Python calls of some work, generators counted each time they go on; what is written in C is not counted."""
    count = 0

    def see(_: FrameType, event: str, __: Any) -> None:
        nonlocal count
        count += event == "call"

    # What others call when garbage is collected would count too.
    collects, before = gc.isenabled(), sys.getprofile()
    gc.disable()
    sys.setprofile(see)
    try:
        work()
    finally:
        sys.setprofile(before)
        if collects:
            gc.enable()
    return count
