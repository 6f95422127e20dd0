"""What the command prints: short lines of progress, and errors that say what to do."""

from __future__ import annotations

import errno
import json
import os
import sys
import time
from collections.abc import Callable
from typing import TYPE_CHECKING

from . import ending

if TYPE_CHECKING:
    from ..core.errors import RuleError


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


def guarded(main: Callable[[list[str]], int], arguments: list[str]) -> int:
    """Run a command; what ends it early gets a sentence. The exit status."""
    ending.by_exit()
    try:
        return main(arguments)
    except Stop as e:
        return fail(str(e))
    except BrokenPipeError:  # whoever read has read enough
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except OSError as e:
        return fail(
            "the disk is full: make room and start again."
            if e.errno == errno.ENOSPC
            else f"{e.strerror}: {e.filename}. Check the folder's owner and rights."
        )
    except KeyboardInterrupt:
        return fail("stopped.")


def refused(e: RuleError) -> None:
    """Everything that is wrong with an input, as JSON where errors go."""
    first, *others = (
        {"code": x.code, "what": x.what, "where": x.where, "remedy": x.remedy} for x in (e, *e.also)
    )
    print(json.dumps({"error": {**first, "also": others}}, ensure_ascii=False), file=sys.stderr)
