"""Equipment that others fitted, taken into the firm's care."""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from ..core.aftercare.job import job_of
from ..core.errors import RuleError
from ..core.in_place import KINDS
from ..core.treating.existing_equipment import code_of
from ..core.treating.option import Option, StageChoice
from ..documents.codec import plain
from ..records import store
from ..records.after_models import JobRow
from . import jobs, versioning, visiting
from .basis import line_of
from .person import Person, now


def take_into_care(db: Session, who: Person, visit_id: UUID, device: str) -> JobRow:
    """Equipment that others fitted, from now on among what the firm looks after; asked for twice it
    is one. Nothing is promised of it, and there is nothing to fit.

    Raises:
        RuleError: it is not there, or nothing of it is known to fall due.
    """
    row = visiting.get(db, who, visit_id, lock=True)
    visit, _ = visiting.document(db, who, row)
    there = next((d for d in visit.home.in_place if d.id == device), None)
    if there is None:
        raise store.NotFound("equipment in place")
    id = uuid5(row.home_id, f"care:{device}")
    have = store.find(db, JobRow, who.firm_id, id)
    if have is not None:
        return have
    name = there.name or KINDS[there.kind].name
    kept = StageChoice(item=code_of(device, "keep"))
    alone = replace(visit, options=(Option(id="care", name=name, stages=(kept,)),))
    job = job_of(
        line_of(alone, "care"),
        visit.home,
        id=str(id),
        visit=str(row.id),
        proposal="",
        units=visit.settings.units,
        made_at=now(),
    )
    if not job.parts:
        raise RuleError(
            "care.nothing",
            f"Nothing of “{name}” is known to fall due.",
            "device",
            "Write down the months or gallons of its part, then take it into care.",
        )
    since = there.changed_on or there.fitted_on or visit.started_at.date()
    job = replace(job, sheets=(), promises=(), fitted_on=since)
    made = JobRow(
        id=id,
        firm_id=who.firm_id,
        visit_id=row.id,
        home_id=row.home_id,
        proposal_id=None,
        planned_on=None,
        data=plain(job),
        summary={},
        version=1,
    )
    db.add(made)
    db.flush()
    jobs.write_rows(db, made, job)
    versioning.note(db, who, id, "taken into care", 1, [])
    return made
