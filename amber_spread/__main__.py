"""What ./amber runs. Stopped at any moment, also while the program is still read, it ends without a fuss."""

import sys

from amber_spread.stopping import ends_at_once

with ends_at_once():
    from amber_spread.cli import main

try:
    sys.exit(main())
except KeyboardInterrupt:
    sys.exit("Stopped.")
