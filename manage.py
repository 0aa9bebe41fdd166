#!/usr/bin/env python3
"""Django's management commands for Fair Stand."""

import sys

from fairstand.cli import main

if __name__ == "__main__":
    sys.exit(main(["manage", *sys.argv[1:]]))
