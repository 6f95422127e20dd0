"""``./zesty migrate``: bring the database named in ZESTY_DATABASE to the newest shape."""

from __future__ import annotations

import os
import sys

from ..records.db import migrate
from .say import fail, guarded


def main(_: list[str]) -> int:
    """Migrate."""
    url = os.environ.get("ZESTY_DATABASE")
    if not url:
        return fail("set ZESTY_DATABASE to the database's address.")
    migrate(url)
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
