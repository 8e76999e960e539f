"""One piece of work, read from the input, in a process by itself; what came of it is written to the output."""

import pickle
import sys

from amber_spread.web.workers import bounded


def main() -> None:
    """Work, and say what came of it: true and the result, or false and the error."""
    out, sys.stdout = sys.stdout.buffer, sys.stderr
    work, args, kwargs = pickle.load(sys.stdin.buffer)
    try:
        told: tuple[bool, object] = True, bounded(work, *args, **kwargs)
    except Exception as error:
        told = False, error
    pickle.dump(told, out)


if __name__ == "__main__":
    main()
