"""Runs the command line of the core."""

import json
import os
import sys

from yenzo.core.cli import run
from yenzo.core.errors import YenzoError


def main() -> int:
    """Print what a command has to say; return its exit status."""
    try:
        outcome = run(sys.argv[1:])
    except YenzoError as error:
        print(error.message, file=sys.stderr)
        return 2
    try:
        print(json.dumps(outcome.value, ensure_ascii=False, indent=1), flush=True)
    except BrokenPipeError:
        # Whoever reads has enough, like `head`: what the interpreter still flushes at its end goes nowhere.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    return outcome.status


if __name__ == "__main__":
    sys.exit(main())
