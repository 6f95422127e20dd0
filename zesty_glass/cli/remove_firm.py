"""``./zesty remove-firm NAME``: a firm that leaves, with everything that is kept of it."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Iterator
from uuid import UUID

from sqlalchemy import Table, delete, func, select, text
from sqlalchemy.orm import Session

from ..records.base import Base
from ..records.db import make_engine, make_sessions
from ..records.models import Firm
from .say import Stop, guarded
from .settings import database


def _firm(db: Session, name: str) -> Firm:
    found = [f for f in db.scalars(select(Firm)) if name in (f.name, str(f.id))]
    if not found:
        raise Stop(f"There is no firm “{name}”.")
    if len(found) > 1:
        ids = ", ".join(str(f.id) for f in found)
        raise Stop(f"{len(found)} firms are named so. Name one by its id: {ids}.")
    return found[0]


def _tables() -> Iterator[Table]:
    """Tables that hold a firm's rows, those that name others first; what hangs on a row goes with
    it.
    """
    return (t for t in reversed(Base.metadata.sorted_tables) if "firm_id" in t.c)


def held(db: Session, firm: UUID) -> dict[str, int]:
    """How many rows a firm has, by table."""
    counts = {
        t.name: db.scalar(select(func.count()).select_from(t).where(t.c.firm_id == firm))
        for t in _tables()
    }
    return {name: many for name, many in sorted(counts.items()) if many}


def remove(db: Session, firm: UUID) -> None:
    """Delete every row of a firm. Its audit goes too, which nothing else may do: whoever owns the
    tables is asked to let it.
    """
    db.execute(text("alter table audit disable trigger audit_rows_stay"))
    for t in _tables():
        db.execute(delete(t).where(t.c.firm_id == firm))
    db.execute(delete(Firm).where(Firm.id == firm))
    db.execute(text("alter table audit enable trigger audit_rows_stay"))


def main(arguments: list[str]) -> int:
    """Say what a firm holds; with ``--for-good``, remove it, all of it or nothing."""
    parser = argparse.ArgumentParser(prog="./zesty remove-firm")
    parser.add_argument("name", help="the firm's name, or its id")
    parser.add_argument(
        "--for-good", action="store_true", help="remove it; there is no way back but a backup"
    )
    given = parser.parse_args(arguments)
    with make_sessions(make_engine(database())).begin() as db:
        firm = _firm(db, given.name)
        name, rows = firm.name, held(db, firm.id)
        told = ", ".join(f"{many} {table}" for table, many in rows.items())
        if given.for_good:
            remove(db, firm.id)
    if not given.for_good:
        print(f"{name} holds {told}.\n\nNothing was removed. Back up, then add --for-good.")
        return 0
    print(f"{name} is removed: {told}. Backups made before still hold it.")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
