"""Bring a firm's old notes in: homes and what was read at them, all or nothing."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, datetime, time
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..documents import old_notes, sheets
from ..documents.codec import plain
from ..documents.old_notes import OldNotes, OldVisit
from ..records import homes, store
from ..records.models import HomeRow, ReadingRow, SampleRow, VisitRow
from .firm import rules_of
from .person import Person, manager_only
from .versioning import note

COLUMNS = ("customer", "house", "place", "source", "people", "bathrooms", "visits", "last", "due")
MOST_PAGES = 4_000  # of 50 homes


def preview(who: Person, data: bytes) -> OldNotes:
    """What becomes of a file, row by row; nothing is stored."""
    return old_notes.read(data, who.firm_id)[0]


def bring_in(db: Session, who: Person, data: bytes) -> OldNotes:
    """Store a file's homes and visits. The same file again changes nothing; a manager's work.

    Raises:
        RuleError: a row that is not good; nothing was stored.
    """
    manager_only(who)
    seen, visits = old_notes.read(data, who.firm_id)
    if not seen.good:
        first = next((r for r in seen.rows if r.error), None)
        raise RuleError(
            "notes.row",
            "The file holds no row." if first is None else f"Row {first.row}: {first.error}",
            "file" if first is None else f"row {first.row}, {first.where}",
            f"{first.remedy if first else 'Is it the right file?'} Nothing was stored.",
        )
    firm = store.firm(db, who.firm_id)
    rules = plain(rules_of(firm))
    for v in visits:
        home = _home(db, who, v)
        if v.sample is not None:
            _visit(db, who, v, home, firm.settings, rules)
    db.flush()
    return seen


def _home(db: Session, who: Person, v: OldVisit) -> UUID:
    """The home of a row: one that was brought in before, or a new one."""
    id = uuid5(who.firm_id, f"notes:{v.customer.name}:{v.home.name}:{v.home.place}")
    have = db.get(HomeRow, id)
    if have is None:
        row = HomeRow(
            id=id,
            firm_id=who.firm_id,
            customer=plain(v.customer),
            home=plain(v.home),
            version=1,
        )
        db.add(row)
        db.flush()
        note(db, who, id, "brought in from old notes", 1, [])
    return id


def _visit(
    db: Session,
    who: Person,
    v: OldVisit,
    home: UUID,
    settings: dict[str, object],
    rules: dict[str, object],
) -> None:
    assert v.sample is not None and v.on is not None
    sample, id = UUID(v.sample.id), uuid5(home, f"visit:{v.on}")
    if db.get(VisitRow, id) is not None or db.get(SampleRow, sample) is not None:
        return
    db.add(
        VisitRow(
            id=id,
            firm_id=who.firm_id,
            home_id=home,
            consultant_id=None,
            consultant="old notes",
            started_at=datetime.combine(v.on, time(12), UTC),
            complaints=[],
            step="test",
            recommended=None,
            horizon=10,
            assumptions_off=[],
            note=v.note,
            settings=settings,
            rules=rules,
            version=1,
            request="",
            brought=None,
            own_items=[],
            made_at=datetime.combine(v.on, time(12), UTC),
        )
    )
    data = plain(v.sample)
    data.pop("readings")
    common = {"firm_id": who.firm_id, "visit_id": id}
    db.flush()
    db.add(SampleRow(id=sample, position=1, data=data, version=1, **common))
    db.flush()
    db.add_all(
        ReadingRow(
            id=UUID(r.id),
            sample_id=sample,
            position=n,
            data=plain(r),
            struck_at=None,
            struck_because="",
            kept_at=None,
            **common,
        )
        for n, r in enumerate(v.sample.readings, 1)
    )


def table(db: Session, who: Person, wanted: homes.Wanted) -> Iterator[str]:
    """The homes that this person sees, as CSV, a page at a time."""
    head: tuple[str, ...] = COLUMNS
    after: tuple[str, UUID] | None = None
    for _ in range(MOST_PAGES):
        rows, _ = homes.found(db, who.firm_id, wanted, after)
        text = sheets.write(head, (_cells(x) for x in rows))
        yield text
        if len(rows) < homes.PAGE:
            return
        head, after = (), (rows[-1].row.words, rows[-1].row.id)


def _cells(x: homes.Found) -> tuple[object, ...]:
    home = x.row.home
    return (
        x.row.customer["name"],
        home["name"],
        home.get("place", ""),
        home.get("source", ""),
        home.get("people", ""),
        home.get("bathrooms", ""),
        x.visits,
        "" if x.last_at is None else x.last_at.date().isoformat(),
        "" if x.due_on is None else x.due_on.isoformat(),
    )


__all__ = ["bring_in", "preview", "table"]
