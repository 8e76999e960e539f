"""How fast this computer is just now."""

import time

REFERENCE_MS = 1.6
"""Processor time of the work in `slowness` on the computer that the limits were chosen on, ms."""


def slowness() -> float:
    """Processor time of a fixed piece of work over REFERENCE_MS, at least 1: more on a slow or busy computer."""
    began = time.thread_time()
    sum(one * one for one in range(20_000))
    return max(1.0, 1000 * (time.thread_time() - began) / REFERENCE_MS)
