"""Glasses and readings of a visit: kept at once, added to, struck with a reason."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any, NamedTuple, cast
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.testing.instruments import Instrument, InstrumentKind
from ..core.testing.observations import MeterDisplays
from ..core.testing.reading import Reading, extends, work_out
from ..core.testing.water import Sample
from ..documents import lab_csv
from ..documents.codec import load, plain
from ..records import saving, store
from ..records.models import ReadingRow, SampleRow
from . import versioning
from .person import Person, now
from .versioning import expect, keep_part, note, same_id
from .visiting import MOST_READINGS, MOST_SAMPLES, begun, get, keep_found, sees


def put_sample(
    db: Session,
    who: Person,
    visit_id: UUID,
    sample: Sample,
    version: int | None,
    instead: bool = False,
) -> SampleRow:
    """Draw a glass, or change what is written of it. Sent twice with one id it is one sample.

    ``instead``: a new raw glass takes the place of the one that is the raw one now; without that
    somebody is asked which of the two is.
    """
    visit = get(db, who, visit_id, lock=True)
    if sample.drawn_at > now() + timedelta(minutes=5):
        raise RuleError(
            "sample.future", "The sample’s time lies in the future.", "drawn_at", "Check the clock."
        )
    if sample.raw and sample.treated:
        raise RuleError(
            "samples.raw_treated",
            "A raw sample is drawn ahead of all treatment.",
            "raw",
            "Mark it raw or treated, not both.",
        )
    data = plain(sample)
    data.pop("readings", None)
    id = same_id(sample.id)
    rows = store.of_visit(db, SampleRow, who.firm_id, visit_id)
    row = next((r for r in rows if r.id == id), None)
    if row is None and (store.taken_id(db, SampleRow, id) or len(rows) >= MOST_SAMPLES):
        raise RuleError(
            "sample.elsewhere",
            "This glass cannot be drawn here: its id is in use, or the visit has too many glasses.",
            "id",
            "Draw a new one.",
        )
    if row is not None and row.data != data:
        expect(db, "sample", row, version or 0)
    if sample.raw:
        for other in rows:
            if other.id != id and other.data.get("raw"):
                if row is None and not instead:
                    raise _raw_twice(other)
                versioning.change(db, who, other, {"data": {**other.data, "raw": False}})
    begun(db, who, visit)
    return keep_part(db, who, SampleRow, visit_id, id, data, version, "sample", "drawn")


def kit_of(db: Session, who: Person, reading: UUID, key: str) -> Instrument:
    """The firm's kit by its key: as it was where the reading is kept already, else as it is today.

    Raises:
        RuleError: the firm has no such kit.
    """
    row = store.find(db, ReadingRow, who.firm_id, reading)
    made_with = None if row is None else row.data["instrument"]
    if made_with is not None and made_with["id"] == key:
        return cast(Instrument, load(Instrument, made_with))
    found = store.instrument(db, who.firm_id, key)
    if found is None:
        raise RuleError(
            "reading.kit",
            f"Your firm has no kit “{key[:80]}”.",
            "key",
            "GET /api/instruments lists them, each with its id.",
        )
    return cast(Instrument, load(Instrument, found.data))


def _raw_twice(other: SampleRow) -> RuleError:
    """The question which of two glasses is the raw one, as where two people test one home."""
    by = f" by {other.data['by']}" if other.data.get("by") else ""
    return RuleError(
        "sample.raw_twice",
        f"“{other.data['name']}”, drawn{by}, is the raw glass of this visit.",
        "raw",
        "Say which of the two is ahead of all treatment: everything is designed from it.",
    )


def as_here(db: Session, who: Person, reading: Reading) -> Reading:
    """A reading as the server vouches for it: who made it, and the firm's own kit as it is now.

    The time stays the device's; when it was kept stands beside it.
    """
    row = store.instrument(db, who.firm_id, reading.instrument.id)
    return _vouched(who, reading, row.data if row else None)


def _vouched(who: Person, reading: Reading, kit: dict[str, Any] | None) -> Reading:
    if reading.instrument.kind is InstrumentKind.LABORATORY:
        own = lab_csv.instrument_for(reading.analyte)
    elif kit is None or kit["analyte"] != reading.analyte:
        raise RuleError(
            "reading.kit",
            "This kit is not one of the firm’s.",
            "instrument",
            "Choose one from the kit roll; a manager adds kits under “Kits and catalog”.",
        )
    else:
        own = load(Instrument, kit)
    return replace(reading, instrument=own, by=who.name, struck_at=None, struck_because="")


def not_to_come(reading: Reading) -> None:
    """RuleError for a reading whose time lies ahead of the server's clock."""
    if reading.made_at > now() + timedelta(minutes=5):
        raise RuleError(
            "reading.future",
            "The reading’s time lies in the future.",
            "made_at",
            "Check the clock of this device.",
        )


class KeptRow(NamedTuple):
    """A reading as it was kept just now."""

    data: dict[str, Any]
    struck_at: datetime | None
    struck_because: str
    kept_at: datetime


def put_reading(
    db: Session, who: Person, visit_id: UUID, sample_id: UUID, reading: Reading
) -> KeptRow | None:
    """Keep a reading as made; None when its id is known already (then see ``put_again``). Each of
    its statements is whole by itself, so that it needs no transaction around it.

    A reading that cannot be worked out is refused.
    """
    id = same_id(reading.id)
    ahead = saving.ahead_of(db, who.firm_id, visit_id, sample_id, id, reading.instrument.id)
    if ahead is None or not sees(db, who, visit_id, ahead.consultant_id):
        raise store.NotFound("visit")
    if not ahead.glass:
        raise store.NotFound("sample")
    if ahead.kept:
        return None
    if ahead.last >= MOST_READINGS:
        raise RuleError(
            "readings.many", "This visit has too many readings.", "reading", "Start another visit."
        )
    reading = _vouched(who, reading, ahead.kit)
    not_to_come(reading)
    work_out(reading)
    row = KeptRow(plain(reading), None, "", now())
    new = saving.keep_reading(
        db,
        id=id,
        firm_id=who.firm_id,
        visit_id=visit_id,
        sample_id=sample_id,
        position=ahead.last + 1,
        data=row.data,
        struck_because=row.struck_because,
        kept_at=row.kept_at,
    )
    return row if new else None


def put_again(
    db: Session, who: Person, visit_id: UUID, sample_id: UUID, reading: Reading
) -> ReadingRow:
    """A reading whose id is known. Sent twice it is one reading; a meter's repeats may be added to
    it, never changed, and anything else under that id is refused.
    """
    get(db, who, visit_id, lock=True)
    id = same_id(reading.id)
    have = store.find(db, ReadingRow, who.firm_id, id, lock=True)
    if have is None or have.sample_id != sample_id:
        raise RuleError(
            "reading.elsewhere", "This reading belongs to another sample.", "id", "Make a new one."
        )
    kept: Reading = load(Reading, {**have.data, "struck_at": have.struck_at})
    reading = replace(reading, instrument=kept.instrument)
    if kept.observation == reading.observation or extends(reading, kept):
        return have
    if not extends(kept, reading) or not isinstance(reading.observation, MeterDisplays):
        raise RuleError(
            "reading.other",
            "This reading was kept already, and showed something else.",
            "observation",
            "What was kept stays. Strike it through, and make another.",
        )
    work_out(reading)
    have.data = {**have.data, "observation": plain(reading.observation)}
    many = len(reading.observation.displays)
    note(db, who, have.id, "repeat added", many, [])
    db.flush()
    return have


def strike(db: Session, who: Person, visit_id: UUID, reading_id: UUID, because: str) -> ReadingRow:
    """Strike a reading through; it stays on record. Striking twice is striking once."""
    visit = get(db, who, visit_id, lock=True)
    row = store.get(db, ReadingRow, who.firm_id, reading_id, "reading", lock=True)
    if row.visit_id != visit_id:
        raise store.NotFound("reading")
    if row.struck_at is None:
        row.struck_at, row.struck_because = now(), because[:500]
        note(db, who, row.id, "struck", 1, ["because"], None, {"because": because[:500]})
        keep_found(db, who, visit.home_id)
    return row
