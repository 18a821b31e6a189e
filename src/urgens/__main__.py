"""Run Urgens with ``python -m urgens``."""

import sys

from urgens.cli.main import main

if __name__ == "__main__":
    sys.exit(main())
