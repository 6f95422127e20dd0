"""Two homes that turned out to be one: what hangs on the one goes to the other, and back again
within a day. The home that was given up stays as it was, and is in no list.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.record import ERASED
from ..records import one_home as records
from ..records import store
from ..records.models import HomeRow
from . import logbook, versioning, visiting
from .person import Person, now
from .versioning import expect

UNDONE_WITHIN = timedelta(days=1)


def alike(db: Session, who: Person, row: HomeRow) -> list[tuple[HomeRow, int]]:
    """Homes that may be this one, with how many visits each has; those that this person sees."""
    found = []
    for other in records.alike(db, row, ERASED):
        try:
            found.append((other, len(logbook.home(db, who, other.id)[1])))
        except store.NotFound:
            continue
    return found


def merged(db: Session, who: Person, row: HomeRow) -> list[HomeRow]:
    """Homes that turned out to be this one."""
    return records.merged_into(db, who.firm_id, row.id)


def may_undo(gone: HomeRow) -> bool:
    """Whether a merger can still be undone."""
    return gone.brought is not None and now() < _at(gone.brought) + UNDONE_WITHIN


def _at(brought: dict[str, Any]) -> datetime:
    return datetime.fromisoformat(brought["at"])


def merge(db: Session, who: Person, kept: UUID, gone: UUID, version: int) -> HomeRow:
    """Make two homes one: visits, jobs, notes and calendars of the second hang on the first from
    now on, and its people are named there. Twice is once.

    Raises:
        RuleError: one and the same, or a home that was merged into a third. Conflict: the first
            changed meanwhile.
    """
    rows = {id: _locked(db, who, id) for id in sorted({kept, gone})}
    row, other = rows[kept], rows[gone]
    if other.merged_into == kept and kept != gone:
        return row
    if kept == gone or row.merged_into or other.merged_into:
        raise RuleError(
            "home.one", "These are one home already.", "with_home", "Choose another home."
        )
    for id in rows:
        logbook.home(db, who, id)  # seen by this person
    expect(db, "home", row, version)
    brought: dict[str, Any] = records.hangs_on(db, who.firm_id, gone)
    there = [row.customer, *row.others]
    brought["people"] = [p for p in (other.customer, *other.others) if p not in there]
    brought["former"] = [f for f in other.former if f not in row.former]
    brought |= {"at": now().isoformat(), "by": who.name}
    after = {
        "others": [*row.others, *brought["people"]],
        "former": [*row.former, *brought["former"]],
    }
    versioning.change(db, who, other, {"merged_into": kept, "brought": brought}, "merged")
    versioning.change(db, who, row, after, "took another home in")
    db.flush()
    records.move(db, who.firm_id, kept, brought)
    visiting.keep_found(db, who, kept)
    return row


def undo(db: Session, who: Person, gone: UUID) -> HomeRow:
    """Take a merger back: everything that came hangs where it hung before. Twice is once.

    Raises:
        RuleError: it is longer ago than a day.
    """
    kept = store.get(db, HomeRow, who.firm_id, gone, "home").merged_into
    if kept is None:
        logbook.home(db, who, gone)
        return _locked(db, who, gone)
    rows = {id: _locked(db, who, id) for id in sorted({kept, gone})}
    row, other = rows[kept], rows[gone]
    logbook.home(db, who, kept)
    brought = other.brought
    if brought is None or not may_undo(other):
        raise RuleError(
            "home.merged_long",
            "These homes became one more than a day ago.",
            "id",
            "Start a visit to a new home, and strike what does not belong to this one.",
        )
    after = {name: _without(getattr(row, of), brought[name]) for name, of in _OF.items()}
    versioning.change(db, who, other, {"merged_into": None, "brought": None}, "no longer merged")
    versioning.change(
        db, who, row, {of: after[name] for name, of in _OF.items()}, "gave the other home back"
    )
    db.flush()
    records.move(db, who.firm_id, gone, brought)
    visiting.keep_found(db, who, kept)
    return _locked(db, who, gone)


_OF = {"people": "others", "former": "former"}


def _without(of: list[Any], taken: list[Any]) -> list[Any]:
    return [x for x in of if x not in taken]


def _locked(db: Session, who: Person, id: UUID) -> HomeRow:
    row: HomeRow = store.get(db, HomeRow, who.firm_id, id, "home", lock=True)
    return row
