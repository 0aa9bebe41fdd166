#!/usr/bin/env python3
"""Django's management commands for Fair Stand."""

import sys

from fairstand.cli.manage import run

if __name__ == "__main__":
    sys.exit(run(sys.argv[1:]))
