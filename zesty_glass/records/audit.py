"""The audit trail: rows are added, chained by hash, and never changed.

The chain of a firm is extended when a transaction commits, after all its other locks are taken, so
that two writers wait for each other there and nowhere else. Each row's hash covers the row and the
hash before it; whoever changes, drops or adds a row afterward breaks the chain from there on, and
``./zesty audit`` says where.
"""

from __future__ import annotations

import hashlib
import hmac
import json
from collections.abc import Iterator, Sequence
from datetime import UTC, date, datetime, time
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import event, select, text
from sqlalchemy.orm import Session

from .models import Audit

_WAITING = "audit"


def append(db: Session, row: Audit) -> None:
    """Add a row to the trail when the transaction commits."""
    db.info.setdefault(_WAITING, []).append(row)


def hash_of(row: Audit) -> str:
    """SHA-256 over everything a row says, the hash of the row before it included."""
    said: list[Any] = [
        str(row.firm_id),
        str(row.user_id),
        row.who,
        row.at.astimezone(UTC).isoformat(),
        str(row.target),
        row.action,
        row.version,
        row.fields,
        row.before,
        row.after,
        row.previous,
    ]
    return hashlib.sha256(json.dumps(said, ensure_ascii=True).encode()).hexdigest()


def _lock(db: Session, firm: UUID) -> None:
    key = int.from_bytes(firm.bytes[:8], signed=True)
    db.execute(text("select pg_advisory_xact_lock(:key)"), {"key": key})


@event.listens_for(Session, "before_commit")
def _extend(db: Session) -> None:
    waiting: list[Audit] = db.info.pop(_WAITING, [])
    if not waiting:
        return
    db.flush()
    for firm in sorted({r.firm_id for r in waiting}):
        _lock(db, firm)
        last = select(Audit.hash).where(Audit.firm_id == firm).order_by(Audit.id.desc()).limit(1)
        previous = db.scalar(last) or ""
        for row in waiting:
            if row.firm_id == firm:
                row.previous = previous
                previous = row.hash = hash_of(row)
                db.add(row)
                db.flush()


@event.listens_for(Session, "after_rollback")
def _forget(db: Session) -> None:
    db.info.pop(_WAITING, None)


def _taken(row: Audit, key: bytes) -> str:
    """A keyed digest of what an erased row says now, and of the hash of what it said before."""
    said = json.dumps([row.id, row.hash, hash_of(row)], ensure_ascii=True)
    return hmac.new(key, said.encode(), hashlib.sha256).hexdigest()


def take_out(db: Session, firm: UUID, targets: list[UUID], instead: str, key: bytes | None) -> None:
    """Take what rows said of some things out of the trail, and who of the customers did it: lines
    of older releases hold it, newer ones do not. The chain holds: each row keeps its hash, and a
    keyed digest of that and of what is left, so that nobody without the key can do the same.
    """
    db.flush()
    db.execute(text("select set_config('zesty.erasing', 'on', true)"))
    query = select(Audit).where(Audit.firm_id == firm, Audit.target.in_(targets))
    for row in db.scalars(query.with_for_update()):
        by_link = row.who.endswith(" (by link)")
        if not row.taken_out and (by_link or row.before or row.after):
            row.before, row.after = "", ""
            row.who = instead if by_link else row.who
            row.taken_out = "-" if key is None else _taken(row, key)
    db.flush()
    db.execute(text("select set_config('zesty.erasing', '', true)"))


def breaks(db: Session, firm: UUID, keys: Sequence[bytes] = ()) -> Iterator[str]:
    """What does not fit in a firm's chain, in words; nothing when all of it does. Without keys,
    what erased rows say is not looked at.

    Rows from before the chain began carry no hash; after the first hash none may lack one.
    """
    previous, begun = "", False
    query = select(Audit).where(Audit.firm_id == firm).order_by(Audit.id)
    for row in db.scalars(query.execution_options(yield_per=500)):
        if not begun and row.hash == "":
            continue
        begun = True
        if row.previous != previous:
            yield f"row {row.id} of {row.at:%Y-%m-%d %H:%M} does not follow the row before it"
        if row.taken_out:
            if keys and row.taken_out not in {_taken(row, key) for key in keys}:
                yield f"row {row.id} of {row.at:%Y-%m-%d %H:%M} was changed after it was erased"
        elif row.hash != hash_of(row):
            yield f"row {row.id} of {row.at:%Y-%m-%d %H:%M} was changed after it was written"
        previous = row.hash


class Filters(NamedTuple):
    """What a manager looks for: part of a name, part of an action, one thing, from a day on."""

    who: str = ""
    action: str = ""
    target: UUID | None = None
    since: date | None = None


def rows(db: Session, firm: UUID, wanted: Filters, before: int | None, most: int) -> list[Audit]:
    """Lines of a firm's trail, the latest first, below an id."""
    query = select(Audit).where(Audit.firm_id == firm)
    if before is not None:
        query = query.where(Audit.id < before)
    if wanted.who.strip():
        query = query.where(Audit.who.icontains(wanted.who.strip(), autoescape=True))
    if wanted.action.strip():
        query = query.where(Audit.action.icontains(wanted.action.strip(), autoescape=True))
    if wanted.target is not None:
        query = query.where(Audit.target == wanted.target)
    if wanted.since is not None:
        query = query.where(Audit.at >= datetime.combine(wanted.since, time.min, UTC))
    return list(db.scalars(query.order_by(Audit.id.desc()).limit(most)))
