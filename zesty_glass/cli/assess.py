"""``./zesty assess visit.json``: everything that can be worked out of a visit file, as JSON. No
database, no server.
"""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path

from ..core.assess import Assessment, assess
from ..core.errors import RuleError
from ..documents.codec import plain
from ..documents.visit_file import read
from .say import guarded, refused


def contents(file: Path) -> bytes:
    """What a file holds.

    Raises:
        RuleError: it cannot be read.
    """
    try:
        return file.read_bytes()
    except OSError as e:
        raise RuleError(
            "file.unread",
            f"It cannot be read: {e.strerror or type(e).__name__}.",
            str(file),
            "Name a file that is there and that you may read.",
        ) from e


def report(data: bytes, years: int | None = None) -> str:
    """The assessment of a visit file as JSON text."""
    return json.dumps(
        plain(assess(read(data), years=years, use_bands=True), Assessment),
        indent=2,
        ensure_ascii=False,
    )


def main(arguments: list[str]) -> int:
    """Print the assessment; a clear error and status 2 when the file cannot be used."""
    parser = argparse.ArgumentParser(
        prog="./zesty assess", description="Work out a visit file and print JSON."
    )
    parser.add_argument("file", type=Path)
    parser.add_argument(
        "--years",
        type=int,
        choices=(5, 10, 15, 20),
        help="horizon of the costs; the visit's own unless given",
    )
    given = parser.parse_args(arguments)
    try:
        print(report(contents(given.file), given.years))
    except RuleError as e:
        refused(e)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
