"""``./zesty migrate``: bring the database named in ZESTY_DATABASE to the newest shape."""

from __future__ import annotations

import sys

from ..records.db import migrate
from .say import guarded
from .settings import database


def main(_: list[str]) -> int:
    """Migrate."""
    migrate(database())
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
