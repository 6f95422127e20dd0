"""Plan a visit: another day and time, another consultant, as long as nothing was read at it."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..records import store
from ..records.models import ReadingRow, User, VisitRow
from . import versioning, visiting
from .person import Forbidden, Person, now
from .versioning import expect

FARTHEST = timedelta(days=730)


def plan(
    db: Session, who: Person, id: UUID, version: int, at: datetime, consultant: UUID | None
) -> VisitRow:
    """Move a visit, and give it to a consultant of the firm (None: as it is).

    Raises:
        RuleError: something was read already, a day too far ahead, or nobody who may make it.
        Forbidden: giving it to somebody else without being a manager.
    """
    row = visiting.get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    if at > now() + FARTHEST:
        raise RuleError(
            "visit.far", "This day is too far ahead.", "started_at", "Plan within two years."
        )
    if store.counts(db, ReadingRow, [id]) and at != row.started_at:
        raise RuleError(
            "visit.begun",
            "Something was read at this visit: its day stays.",
            "started_at",
            "Visit the home again for another day.",
        )
    after: dict[str, object] = {"started_at": at, "closed": None}
    if at > now() + visiting.AHEAD:
        after["made_at"] = None
    if consultant is not None and consultant != row.consultant_id:
        after |= _given_to(db, who, consultant)
    versioning.change(db, who, row, after, "planned")
    return row


Closed = Literal["cancelled", "no_show", "not_made"]


def close(db: Session, who: Person, id: UUID, version: int, how: Closed, because: str) -> VisitRow:
    """Close a visit that is not made: it leaves the list, and stays on record with its reason.

    Raises:
        RuleError: it was begun, or no reason is given.
    """
    row = visiting.get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    if store.counts(db, ReadingRow, [id]):
        raise RuleError(
            "visit.begun", "Something was read at this visit.", "visit", "It is made, and stays."
        )
    if not because.strip():
        raise RuleError("visit.because", "This needs a reason.", "because", "Write why, in a line.")
    stamp = now().isoformat().replace("+00:00", "Z")
    closed = {"how": how, "because": because.strip(), "by": who.name, "at": stamp}
    versioning.change(db, who, row, {"closed": closed, "made_at": None}, "closed")
    return row


def open_again(db: Session, who: Person, id: UUID, version: int) -> VisitRow:
    """Take the closing of a visit back."""
    row = visiting.get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    versioning.change(db, who, row, {"closed": None}, "opened again")
    return row


def _given_to(db: Session, who: Person, consultant: UUID) -> dict[str, object]:
    if who.role != "manager":
        raise Forbidden("Only a manager of the firm gives a visit to somebody else.")
    user = db.get(User, consultant)
    fits = user is not None and user.firm_id == who.firm_id and user.active
    if user is None or not fits or user.role == "installer":
        raise RuleError(
            "visit.consultant",
            "This is nobody who makes visits.",
            "consultant",
            "Choose a consultant or manager of the firm.",
        )
    return {"consultant_id": user.id, "consultant": user.name}
