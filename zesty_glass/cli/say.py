"""What the command prints: short lines of progress, and errors that say what to do."""

from __future__ import annotations

import contextlib
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
        code = main(arguments)
        sys.stdout.flush()  # a full disk is told here, not on the way out
        return code
    except Stop as e:
        return fail(str(e))
    except BrokenPipeError:  # whoever read has read enough
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except OSError as e:
        return fail(_of_the_system(e))
    except KeyboardInterrupt:
        return fail("stopped.")
    except Exception as e:
        if os.environ.get("ZESTY_DEBUG"):
            raise
        return fail(_sentence(e))


#: what went wrong with the database, by the name of its error, and what to do; what it says itself
#: may hold a secret, and is told only of a connection
_KNOWN = {
    "UndefinedTable": "The database has none of our tables, or older ones: run ./zesty migrate.",
    "UndefinedColumn": "The database has an older shape: run ./zesty migrate.",
    "InsufficientPrivilege": "The role named in ZESTY_DATABASE may not do this: give it its rights"
    " (docs/operating.md).",
    "UniqueViolation": "This is there already: nothing was changed.",
    "DiskFull": "The database's disk is full: make room and start again.",
}


def _of_the_system(e: OSError) -> str:
    """What a fault of disk, folder or network means for the person at the terminal."""
    if e.errno == errno.ENOSPC:
        with contextlib.suppress(OSError):  # what waits to be written fails again at the end
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return "The disk is full: make room and start again."
    where = f": {e.filename}. Check the folder's owner and rights." if e.filename else "."
    return f"{e.strerror or type(e).__name__}{where}"


def _sentence(e: Exception) -> str:
    """What an error of a library means for the person at the terminal."""
    origin = getattr(e, "orig", None) or e
    name = type(origin).__name__
    if name == "OperationalError":
        told = str(origin).strip().splitlines()[-1].strip()
        return f"The database does not answer: {told}. Check ZESTY_DATABASE, and that it runs."
    return _KNOWN.get(name) or (
        f"It failed with {name}. Set ZESTY_DEBUG=1 to see where, and tell whoever maintains it."
    )


def refused(e: RuleError) -> None:
    """Everything that is wrong with an input, as JSON where errors go."""
    first, *others = (
        {"code": x.code, "what": x.what, "where": x.where, "remedy": x.remedy} for x in (e, *e.also)
    )
    print(json.dumps({"error": {**first, "also": others}}, ensure_ascii=False), file=sys.stderr)
