"""Checks of the firm's instruments in standards, and notes on why something changed at a home."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Literal
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.testing.checking import InstrumentCheck, InstrumentDrift, check_made, drift
from ..core.testing.instruments import Instrument, fitness
from ..documents.codec import load, plain
from ..records import notes as records
from ..records import store
from ..records.models import HomeRow, InstrumentRow
from ..records.note_models import HomeNoteRow, InstrumentCheckRow
from . import logbook, versioning
from .person import Person, now
from .versioning import another, note

MOST_SHOWN = 24  # checks of an instrument that are looked at, the latest
MOST_NOTES = 200
NOTE_AT_MOST = 500  # [characters]


def _made(row: InstrumentCheckRow) -> InstrumentCheck:
    return InstrumentCheck(
        id=str(row.id), on=row.on, standard=row.standard, shown=row.shown, by=row.by
    )


def drifts(db: Session, who: Person, key: str = "") -> tuple[InstrumentDrift, ...]:
    """How the firm's instruments did in their standards, in the order of the kits; those that were
    never checked in one are left out.
    """
    by: dict[str, list[InstrumentCheck]] = {}
    for row in records.checks(db, who.firm_id, key, MOST_SHOWN):
        by.setdefault(row.key, []).append(_made(row))
    kits = (load(Instrument, r.data) for r in store.instruments(db, who.firm_id))
    return tuple(drift(k, tuple(by[k.id])) for k in kits if k.id in by)


def check(db: Session, who: Person, key: str, id: UUID, made: InstrumentCheck) -> InstrumentDrift:
    """Keep a check of an instrument. One that holds moves the day of its last check; after one that
    does not it is due.

    Raises:
        NotFound: no such kit. RuleError: as ``check_made``, or an id that was another's.
    """
    check_made(made, now().date())
    kit = next((r for r in store.instruments(db, who.firm_id, lock=True) if r.key == key), None)
    if kit is None:
        raise store.NotFound("kit")
    known = records.check(db, who.firm_id, id)
    if known is None:
        if records.known(db, InstrumentCheckRow, id):
            raise another("check")
        row = InstrumentCheckRow(
            id=id,
            firm_id=who.firm_id,
            key=key,
            on=made.on,
            standard=made.standard,
            shown=made.shown,
            by=who.name,
            at=now(),
        )
        db.add(row)
        db.flush()
        said = {"standard": made.standard, "shown": made.shown, "on": made.on.isoformat()}
        note(db, who, kit.id, "checked", kit.version, [], None, said)
    elif (known.key, known.on, known.standard, known.shown) != (
        key,
        made.on,
        made.standard,
        made.shown,
    ):
        raise another("check")
    got = drifts(db, who, key)[0]
    if known is None and got.checks[-1].id == str(id) and got.within is not None:
        _checked(db, who, kit, made.on if got.within else None)
    return got


def _checked(db: Session, who: Person, row: InstrumentRow, held_on: date | None) -> None:
    """The day of a kit's last check moves to the one that held; after one that did not hold it has
    none, unless it is due already.
    """
    kit = load(Instrument, row.data)
    if held_on is None:
        day = kit.last_check if fitness(kit, now().date()) else None
    else:
        day = max(held_on, kit.last_check or held_on)
    versioning.change(db, who, row, {"data": plain(replace(kit, last_check=day))})


def of_home(db: Session, who: Person, home: UUID) -> list[HomeNoteRow]:
    """Notes on a home, struck ones too."""
    return records.of_home(db, who.firm_id, home)


NoteKind = Literal["note", "complaint", "warranty"]


def add_note(
    db: Session,
    who: Person,
    home: UUID,
    id: UUID,
    on: date,
    text: str,
    kind: NoteKind = "note",
) -> HomeNoteRow:
    """Keep a note on a home that this person sees, or a complaint or warranty case, which waits
    until it is closed; the same again changes nothing.
    """
    logbook.home(db, who, home)
    store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    said = text.strip()
    if not said:
        raise RuleError("note.empty", "There is nothing to keep.", "text", "Write why, in a word.")
    if len(said) > NOTE_AT_MOST:
        raise RuleError(
            "note.long",
            f"This note has {len(said)} characters; {NOTE_AT_MOST} are kept.",
            "text",
            "Say it shorter, or in two.",
        )
    if on > now().date():
        raise RuleError("note.day", "This day is still to come.", "on", "Use the day it happened.")
    row = records.find(db, who.firm_id, home, id)
    if row is not None and (row.on, row.text, row.kind) == (on, said, kind):
        return row
    if row is not None or records.known(db, HomeNoteRow, id):
        raise another("note")
    if len(records.of_home(db, who.firm_id, home)) >= MOST_NOTES:
        raise RuleError(
            "note.many", f"This home has {MOST_NOTES} notes.", "id", "Say it in the next visit’s."
        )
    row = HomeNoteRow(
        id=id,
        firm_id=who.firm_id,
        home_id=home,
        on=on,
        text=said,
        by=who.name,
        at=now(),
        kind=kind,
    )
    db.add(row)
    db.flush()
    note(db, who, home, "noted", 1, ["note"], None, {"note": said})
    return row


def close_case(db: Session, who: Person, home: UUID, id: UUID, outcome: str) -> HomeNoteRow:
    """Close a complaint or a warranty case with what came of it; without that it is open again."""
    logbook.home(db, who, home)
    row = records.find(db, who.firm_id, home, id)
    if row is None or row.kind == "note":
        raise store.NotFound("case")
    said = outcome.strip()
    if said != row.outcome:
        row.closed_on, row.outcome = (now().date(), said) if said else (None, "")
        note(db, who, home, f"{row.kind} {'closed' if said else 'opened again'}", 1, [])
    return row


def strike_note(db: Session, who: Person, home: UUID, id: UUID, because: str) -> HomeNoteRow:
    """Strike a note; it stays on record. Twice is once.

    An empty reason takes the strike back.
    """
    logbook.home(db, who, home)
    row = records.find(db, who.firm_id, home, id)
    if row is None:
        raise store.NotFound("note")
    struck = bool(because.strip())
    if struck != (row.struck_at is not None):
        row.struck_at, row.struck_because = (now(), because.strip()) if struck else (None, "")
        note(db, who, home, "struck a note" if struck else "took a strike back", 1, [])
    return row
