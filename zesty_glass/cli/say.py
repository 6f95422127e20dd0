"""What the command prints: short lines of progress, and errors that say what to do."""

from __future__ import annotations

import sys
import time


class Stop(Exception):
    """An end with a sentence for the person at the terminal."""


_START = time.monotonic()


def step(text: str) -> None:
    """A line of progress with the seconds since the start."""
    print(f"  {time.monotonic() - _START:5.1f} s  {text}", file=sys.stderr, flush=True)


def fail(text: str) -> int:
    """Print why it ended; the exit status for it."""
    print(f"\nzesty: {text}", file=sys.stderr, flush=True)
    return 1
