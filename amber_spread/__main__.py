"""What ./amber runs. Stopped at any moment, also while the program is still read, it ends without a fuss."""

import sys

try:
    from amber_spread.cli import main

    sys.exit(main())
except KeyboardInterrupt:
    sys.exit("Stopped.")
