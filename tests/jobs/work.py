"""Calls for workers to run in the tests."""

import os
import time
from pathlib import Path

from amber_spread.core.kernel.progress import begun
from amber_spread.jobs.calls import WithEntry


def spin(seconds):
    """Use processor time, s."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return "done"


def noted(path, seconds=0.0):
    """Write a line when it begins and when it ends, and return the process that it ran in and its parent."""
    with Path(path).open("a") as file:
        file.write("begun\n")
    time.sleep(seconds)
    with Path(path).open("a") as file:
        file.write("ended\n")
    return os.getpid(), os.getppid()


def carved(path, name, seconds=0.0, entry=None):
    """Compute bodies if none are known, and note which."""
    with Path(path).open("a") as file:
        file.write("known\n" if entry else "computed\n")
    time.sleep(seconds)
    return WithEntry(name, None if entry else b"bodies")


def parted(*parts):
    """Report parts."""
    for part in parts:
        begun(part)
        # On a busy machine the result of a job that takes no time overtakes the word of its parts.
        time.sleep(0.5)
    return len(parts)
