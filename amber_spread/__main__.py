"""What ./amber runs. Stopped at any moment, also while the program is still read, it ends without a fuss."""

import os
import signal
import sys
from typing import NoReturn


def _stopped(*_: object) -> NoReturn:
    """End at once: while the program is read nothing is begun that would have to be ended, and an interruption raised
    then may come out of a library dressed as an error of its own.
    """
    os.write(2, b"Stopped.\n")
    os._exit(1)


signal.signal(signal.SIGINT, _stopped)
from amber_spread.cli import main  # noqa: E402

signal.signal(signal.SIGINT, signal.default_int_handler)
try:
    sys.exit(main())
except KeyboardInterrupt:
    sys.exit("Stopped.")
