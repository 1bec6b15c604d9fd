"""`python -m kobrix`."""

import sys

from kobrix.cli.main import main

sys.exit(main())
