"""Bottles for the laboratory, their chain, and results brought in from a file."""

from __future__ import annotations

import hashlib
from datetime import datetime, timedelta
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.testing.laboratory import KIND_BY_ID, LabSample, unexplained_times
from ..core.testing.reading import Reading
from ..documents import lab_csv
from ..documents.codec import load, plain
from ..records import store
from ..records.models import LabSampleRow, ReadingRow, SampleRow
from . import visiting
from .person import Person, now
from .versioning import keep_part, note, same_id


def put(
    db: Session, who: Person, visit_id: UUID, bottle: LabSample, version: int | None
) -> LabSampleRow:
    """Write a bottle down or move its chain on. Sent twice with one id it is one bottle."""
    visiting.get(db, who, visit_id, lock=True)
    late = now() + timedelta(minutes=5)
    for name in ("drawn_at", "handed_at", "received_at", "reported_at", "struck_at"):
        at: datetime | None = getattr(bottle, name)
        if at is not None and at > late:
            raise RuleError(
                "lab.future", "A time of the chain lies in the future.", name, "Check the clock."
            )
    sample = store.get(db, SampleRow, who.firm_id, same_id(bottle.sample, "sample"), "sample")
    if sample.visit_id != visit_id:
        raise store.NotFound("sample")
    if bottle.kind == "radon" and sample.data.get("treated"):
        raise RuleError(
            "lab.radon_treated",
            "Radon is drawn ahead of all treatment.",
            "sample",
            "Choose the raw sample.",
        )
    have = store.find(db, LabSampleRow, who.firm_id, same_id(bottle.id), lock=True)
    if have is not None and have.visit_id == visit_id and have.version == version:
        _explained(load(LabSample, have.data), bottle)
    return keep_part(
        db,
        who,
        LabSampleRow,
        visit_id,
        same_id(bottle.id),
        plain(bottle),
        version,
        "laboratory sample",
        f"drew {KIND_BY_ID[bottle.kind].name}",
    )


def _explained(kept: LabSample, new: LabSample) -> None:
    """RuleError when a time that stood already is another one and nobody wrote why."""
    left = unexplained_times(kept, new)
    if left:
        raise RuleError(
            "lab.corrected",
            f"{left[0].replace('_', ' ')} stood already, and is another time now.",
            left[0],
            "Put it right with a reason; what stood there is kept.",
        )


def bring_results(
    db: Session,
    who: Person,
    visit_id: UUID,
    sample_id: UUID,
    data: bytes,
    made_at: datetime,
    without: frozenset[int] = frozenset(),
) -> lab_csv.LabPreview:
    """Store every result of a file as a reading of a sample, or none when a row has an error; rows
    ``without`` are left out by choice. Twice is once."""
    visit = visiting.get(db, who, visit_id, lock=True)
    sample = store.get(db, SampleRow, who.firm_id, sample_id, "sample")
    if sample.visit_id != visit_id:
        raise store.NotFound("sample")
    if made_at > now() + timedelta(minutes=5):
        raise RuleError(
            "reading.future", "The report’s time lies in the future.", "made_at", "Check the clock."
        )
    preview = lab_csv.read(data, without)
    if not preview.good:
        first = next(r for r in preview.rows if r.error)
        raise RuleError(
            "csv.row",
            f"Row {first.row}: {first.error}",
            f"row {first.row}, {first.where}",
            first.remedy + " Nothing was stored.",
        )
    digest = hashlib.sha256(data).hexdigest()
    position = store.next_position(db, ReadingRow, visit_id)
    for r in preview.rows:
        id = uuid5(sample_id, f"{digest}:{r.row}")
        if r.result is None or store.find(db, ReadingRow, who.firm_id, id) is not None:
            continue
        reading = Reading(
            id=str(id),
            analyte=r.analyte,
            instrument=lab_csv.instrument_for(r.analyte),
            observation=r.result,
            made_at=made_at,
            by=who.name,
            note="from a laboratory file",
        )
        db.add(
            ReadingRow(
                id=id,
                firm_id=who.firm_id,
                visit_id=visit_id,
                sample_id=sample_id,
                position=position,
                data=plain(reading),
                struck_at=None,
                struck_because="",
                kept_at=now(),
            )
        )
        position += 1
    note(db, who, sample_id, "laboratory results", 1, [])
    db.flush()
    visiting.keep_found(db, who, visit.home_id)
    return preview
