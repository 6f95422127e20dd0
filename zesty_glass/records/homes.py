"""Queries of a firm's homes and of what it has learnt. Every one is scoped to a firm."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import (
    ColumnElement,
    Select,
    func,
    or_,
    select,
    tuple_,
    type_coerce,
    update,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session

from .after_models import DueRow, JobRow
from .models import HomeRow, ReadingRow, SampleRow, VisitRow
from .opening import Stored, StoredReading, readings_of, samples_of

PAGE = 50
MOST_COUNTED = 1000  # more are not counted: nobody reads them one by one


class Found(NamedTuple):
    """A home with what a list says of it."""

    row: HomeRow
    visits: int
    last_at: datetime | None
    last: UUID | None
    due_on: date | None


def seen_by(consultant: UUID | None) -> ColumnElement[bool]:
    """That somebody may see a visit: their own and nobody's; everybody's without a name."""
    if consultant is None:
        return VisitRow.id.is_not(None)
    return or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))


class Wanted(NamedTuple):
    """Which homes of a firm are looked for; what is empty asks nothing.

    Args:
        consultant: who sees only their own; fitter: sees only those with a job.
        fitted: kind of stage that the firm fitted there.
        due_by: something falls due there on this day or before.
        found: analyte that asked for something at the latest visit; there: kind of equipment that
            stands there, whoever sold it.
    """

    words: str = ""
    place: str = ""
    source: str = ""
    consultant: UUID | None = None
    fitter: bool = False
    fitted: str = ""
    due_by: date | None = None
    found: str = ""
    there: str = ""


def _with_fitted(firm: UUID, kind: str) -> Select[Any]:
    """Homes where the firm fitted a kind of stage."""
    return select(JobRow.home_id).where(
        JobRow.firm_id == firm,
        type_coerce(JobRow.kinds, JSONB).contains([kind]),
        JobRow.data["fitted_on"].as_string().is_not(None),
    )


def _with_due(firm: UUID, until: date) -> Select[Any]:
    """Homes where something falls due until a day."""
    return (
        select(JobRow.home_id)
        .join(DueRow, DueRow.job_id == JobRow.id)
        .where(DueRow.firm_id == firm, DueRow.due_on <= until)
    )


def _asked(firm: UUID, wanted: Wanted) -> Select[Any]:
    query = select(HomeRow).where(HomeRow.firm_id == firm, HomeRow.merged_into.is_(None))
    for word in wanted.words.lower().split()[:6]:
        like = word.replace("\\", "").replace("%", "").replace("_", "\\_")
        query = query.where(HomeRow.words.like(f"%{like}%"))
    if wanted.place:
        query = query.where(HomeRow.home["place"].as_string() == wanted.place)
    if wanted.source:
        query = query.where(HomeRow.home["source"].as_string() == wanted.source)
    if wanted.fitter:
        query = query.where(select(JobRow.id).where(JobRow.home_id == HomeRow.id).exists())
    if wanted.consultant is not None:
        seen = seen_by(wanted.consultant)
        query = query.where(
            select(VisitRow.id).where(VisitRow.home_id == HomeRow.id, seen).exists()
        )
    if wanted.fitted:
        query = query.where(HomeRow.id.in_(_with_fitted(firm, wanted.fitted)))
    for column, word in ((HomeRow.found, wanted.found), (HomeRow.there, wanted.there)):
        if word:
            query = query.where(type_coerce(column, JSONB).contains([word]))
    if wanted.due_by is not None:
        query = query.where(HomeRow.id.in_(_with_due(firm, wanted.due_by)))
    return query


def found(
    db: Session,
    firm: UUID,
    wanted: Wanted,
    after: tuple[str, UUID] | None,
) -> tuple[list[Found], int]:
    """A page of homes in the order of their names, from behind ``after`` on, and how many there are
    in all, up to one more than ``MOST_COUNTED``.
    """
    query = asked = _asked(firm, wanted)
    if after is not None:
        query = query.where(tuple_(HomeRow.words, HomeRow.id) > after)
    rows = list(db.scalars(query.order_by(HomeRow.words, HomeRow.id).limit(PAGE)))
    total = len(rows)
    if after is not None or total == PAGE:
        counted = asked.with_only_columns(HomeRow.id).limit(MOST_COUNTED + 1).subquery()
        total = db.scalar(select(func.count()).select_from(counted)) or 0
    ids = [r.id for r in rows]
    seen = (
        select(VisitRow.home_id, VisitRow.id, VisitRow.started_at)
        .where(VisitRow.firm_id == firm, VisitRow.home_id.in_(ids), seen_by(wanted.consultant))
        .order_by(VisitRow.made_at.is_not(None), VisitRow.started_at)
    )
    visits: dict[UUID, list[tuple[UUID, datetime]]] = {}
    for home, id, at in db.execute(seen):
        visits.setdefault(home, []).append((id, at))
    first = (
        select(JobRow.home_id, func.min(DueRow.due_on))
        .join(DueRow, DueRow.job_id == JobRow.id)
        .where(JobRow.firm_id == firm, JobRow.home_id.in_(ids))
        .group_by(JobRow.home_id)
    )
    due: dict[UUID, date] = {home: day for home, day in db.execute(first)}
    out = []
    for r in rows:
        own = visits.get(r.id, [])
        last = own[-1] if own else None
        out.append(
            Found(
                row=r,
                visits=len(own),
                last_at=None if last is None else last[1],
                last=None if last is None else last[0],
                due_on=due.get(r.id),
            )
        )
    return out, total


def latest_tested(db: Session, firm: UUID, home: UUID) -> VisitRow | None:
    """The latest visit to a home at which raw water was read; None while there is none."""
    raw = (
        select(ReadingRow.id)
        .join(SampleRow, SampleRow.id == ReadingRow.sample_id)
        .where(
            ReadingRow.visit_id == VisitRow.id,
            ReadingRow.struck_at.is_(None),
            SampleRow.data["raw"].as_boolean(),
        )
    )
    query = select(VisitRow).where(VisitRow.firm_id == firm, VisitRow.home_id == home)
    return db.scalars(
        query.where(raw.exists()).order_by(VisitRow.started_at.desc()).limit(1)
    ).first()


def keep_found(db: Session, firm: UUID, home: UUID, found: list[str]) -> None:
    """Keep what was found at a home with it. No version moves: nobody edits it."""
    db.execute(
        update(HomeRow)
        .where(HomeRow.firm_id == firm, HomeRow.id == home)
        .where(type_coerce(HomeRow.found, JSONB) != type_coerce(found, JSONB))
        .values(found=found)
        .execution_options(synchronize_session=False)
    )


def latest_raw(db: Session, firm: UUID, most: int) -> list[UUID]:
    """The latest visits of a firm."""
    query = select(VisitRow.id).where(VisitRow.firm_id == firm)
    return list(db.scalars(query.order_by(VisitRow.started_at.desc()).limit(most)))


def glasses(
    db: Session, firm: UUID, visits: list[UUID], analytes: tuple[str, ...]
) -> tuple[dict[UUID, list[Stored]], dict[UUID, list[StoredReading]]]:
    """Glasses and readings of some visits, by visit, in two queries; of some analytes alone, or
    all.
    """
    samples: dict[UUID, list[Stored]] = {}
    for visit, s in samples_of(db, firm, visits):
        samples.setdefault(visit, []).append(s)
    readings: dict[UUID, list[StoredReading]] = {}
    for r in readings_of(db, firm, visits, analytes):
        readings.setdefault(r.visit_id, []).append(r)
    return samples, readings
