"""``./zesty check``: every visit of a database is opened and worked out; what does not work out is
listed.
"""

from __future__ import annotations

import argparse
import sys
from uuid import UUID

from sqlalchemy import select

from ..core.errors import RuleError
from ..records.db import make_engine, make_sessions
from ..records.models import Firm, ItemRow, VisitRow
from ..work import mending, visiting
from ..work.person import Person
from .say import guarded
from .settings import database


def _as_manager(firm: UUID) -> Person:
    return Person(id=UUID(int=0), firm_id=firm, name="./zesty check", role="manager")


def main(arguments: list[str]) -> int:
    """List what cannot be read or worked out; the exit status is 1 when there is any."""
    parser = argparse.ArgumentParser(prog="./zesty check")
    parser.add_argument(
        "--strike", action="store_true", help="take out what cannot be read; the audit keeps it"
    )
    given = parser.parse_args(arguments)
    sessions = make_sessions(make_engine(database()))
    bad = seen = 0
    with sessions() as db:
        firms = list(db.execute(select(Firm.id, Firm.name)))
    for firm, name in firms:
        with sessions() as db:
            visits = list(db.scalars(select(VisitRow.id).where(VisitRow.firm_id == firm)))
            bad += _items(db.scalars(select(ItemRow).where(ItemRow.firm_id == firm)), name)
        for id in visits:
            seen += 1
            with sessions.begin() as db:
                bad += _visit(db, _as_manager(firm), name, id, given.strike)
    print(f"{seen} visits of {len(firms)} firms looked at; {bad} parts do not work out.")
    return 1 if bad and not given.strike else 0


def _items(rows: object, firm: str) -> int:
    from ..core.treating.items import Item
    from ..documents.codec import load

    bad = 0
    for row in rows:  # type: ignore[attr-defined]
        try:
            load(Item, row.data)
        except RuleError as e:
            bad += 1
            print(f"{firm}: item {row.code}: {e.what} ({e.where})")
    return bad


def _visit(db: object, who: Person, firm: str, id: UUID, strike: bool) -> int:
    row = visiting.get(db, who, id, lock=strike)  # type: ignore[arg-type]
    visit, _, unreadable = visiting.opened(db, who, row)  # type: ignore[arg-type]
    try:
        _, more = mending.workable(visit)
    except RuleError as e:
        print(f"{firm}: visit {id}: {e.what}")
        return 1
    for x in (*unreadable, *more):
        print(f"{firm}: visit {id}: {x.part} {x.id}: {x.because}")
        if strike and x.part not in ("item", "complaint"):
            mending.strike(db, who, row, x.part, UUID(x.id))  # type: ignore[arg-type]
    return len(unreadable) + len(more)


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
