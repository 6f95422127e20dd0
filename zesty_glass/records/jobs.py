"""Queries of jobs and of what falls due. Every one is scoped to a firm."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import ColumnElement, bindparam, delete, func, insert, or_, select
from sqlalchemy.orm import Session

from .after_models import DueRow, JobRow, ProvedRow, ServedRow
from .models import HomeRow, User, VisitRow
from .opening import plain_rows

MOST_LISTED = 300  # in one answer; the days asked for are made fewer, not the list longer


#: a customer's name, their house and its place, without the rest of what is kept of them
WHOSE = (
    HomeRow.customer["name"].as_string(),
    HomeRow.home["name"].as_string(),
    func.coalesce(HomeRow.home["place"].as_string(), ""),
)


class Listed(NamedTuple):
    """Something of a job with whom it concerns."""

    row: Any
    job: UUID
    customer: str
    home: str
    place: str


#: whose work it is: who fitted it, else the consultant of its visit
PERSON = func.coalesce(func.nullif(JobRow.summary["fitter"].as_string(), ""), VisitRow.consultant)


def of_proposal(db: Session, firm: UUID, proposal: UUID) -> JobRow | None:
    """The job that a proposal became."""
    query = select(JobRow).where(JobRow.firm_id == firm, JobRow.proposal_id == proposal)
    return db.scalars(query).one_or_none()


def of_home(db: Session, firm: UUID, home: UUID) -> list[JobRow]:
    """Jobs at a home, in no order."""
    return list(db.scalars(select(JobRow).where(JobRow.firm_id == firm, JobRow.home_id == home)))


def of_visit(db: Session, firm: UUID, visit: UUID) -> list[JobRow]:
    """Jobs that came of a visit."""
    found = select(JobRow).where(JobRow.firm_id == firm, JobRow.visit_id == visit)
    return list(db.scalars(found.order_by(JobRow.id)))


def planned_on(db: Session, firm: UUID, day: date) -> list[JobRow]:
    """Jobs that are planned for a day, and neither in use nor ended."""
    query = select(JobRow).where(
        JobRow.firm_id == firm,
        JobRow.planned_on == day,
        JobRow.summary["state"].as_string() == "planned",
    )
    return list(db.scalars(query))


def not_fitted() -> ColumnElement[bool]:
    """That a job is neither in use nor ended."""
    found: ColumnElement[bool] = JobRow.summary["state"].as_string().in_(("to plan", "planned"))
    return found


_FITTER, _FITTER_ID = JobRow.summary["fitter"], JobRow.summary["fitter_id"]


def to_be_fitted_by(db: Session, firm: UUID, fitter: User) -> list[JobRow]:
    """Jobs that are neither in use nor ended and that a person of the firm is to fit, by id or, as
    an older release planned them, by name alone.
    """
    named = (func.coalesce(_FITTER_ID.as_string(), "") == "") & (
        func.lower(_FITTER.as_string()) == fitter.name.lower()
    )
    query = select(JobRow).where(
        JobRow.firm_id == firm,
        or_(_FITTER_ID.as_string() == str(fitter.id), named),
        not_fitted(),
    )
    return list(db.scalars(query.with_for_update()))


def outside_fitters(db: Session, firm: UUID, most: int = 50) -> list[str]:
    """Fitters outside the firm that jobs were planned for."""
    query = (
        select(_FITTER.as_string())
        .where(JobRow.firm_id == firm, _FITTER.as_string() != "")
        .where(func.coalesce(_FITTER_ID.as_string(), "") == "")
        .distinct()
        .order_by(_FITTER.as_string())
    )
    return list(db.scalars(query.limit(most)))


def set_dues(db: Session, job: JobRow, dues: Iterable[dict[str, Any]]) -> None:
    """Write anew when each part of a job falls due."""
    db.execute(delete(DueRow).where(DueRow.firm_id == job.firm_id, DueRow.job_id == job.id))
    rows = [{"job_id": job.id, "firm_id": job.firm_id, **d} for d in dues]
    if rows:
        db.execute(insert(DueRow), rows)


def set_proved(db: Session, job: JobRow, proved: Iterable[dict[str, Any]]) -> None:
    """Write anew how each promise of a job stands."""
    db.execute(
        delete(ProvedRow).where(ProvedRow.firm_id == job.firm_id, ProvedRow.job_id == job.id)
    )
    own = {"job_id": job.id, "firm_id": job.firm_id, "home_id": job.home_id}
    rows = [{**own, **p} for p in proved]
    if rows:
        db.execute(insert(ProvedRow), rows)


def set_served(db: Session, job: JobRow, served: Iterable[dict[str, Any]]) -> None:
    """Write anew how long each part of a job served."""
    db.execute(
        delete(ServedRow).where(ServedRow.firm_id == job.firm_id, ServedRow.job_id == job.id)
    )
    own = {"job_id": job.id, "firm_id": job.firm_id, "home_id": job.home_id}
    rows = [{**own, **s} for s in served]
    if rows:
        db.execute(insert(ServedRow), rows)


class Falls(NamedTuple):
    """A part that falls due, of which job and whose it is."""

    key: str
    stage: str
    label: str
    kind: str
    own: bool
    minutes: int
    due_on: date
    job: UUID
    customer: str
    home: str
    place: str
    person: str


_d = DueRow
_DUES = (
    select(
        _d.key,
        _d.stage,
        _d.label,
        _d.kind,
        _d.own,
        _d.minutes,
        _d.due_on,
        _d.job_id,
        *WHOSE,
        PERSON,
    )
    .join(JobRow, JobRow.id == _d.job_id)
    .join(VisitRow, VisitRow.id == JobRow.visit_id)
    .join(HomeRow, HomeRow.id == JobRow.home_id)
    .where(
        _d.firm_id == bindparam("firm"),
        _d.due_on >= bindparam("from_day"),
        _d.due_on <= bindparam("until"),
        or_(
            _d.due_on > bindparam("from_day"),
            _d.job_id > bindparam("from_job"),
            (_d.job_id == bindparam("from_job")) & (_d.key > bindparam("from_key")),
        ),
    )
    .order_by(_d.due_on, _d.job_id, _d.key)
    .limit(MOST_LISTED)
)
_OWN_DUES = _DUES.where(
    or_(VisitRow.consultant_id == bindparam("consultant"), VisitRow.consultant_id.is_(None))
)


def dues(
    db: Session, firm: UUID, until: date, consultant: UUID | None, after: tuple[date, UUID, str]
) -> list[Falls]:
    """What falls due up to a day, the earliest first, from behind ``after`` on; of one consultant's
    homes, or of all.
    """
    day, job, key = after
    asked = {"firm": firm, "until": until, "from_day": day, "from_job": job, "from_key": key}
    found = (
        plain_rows(db, _DUES, **asked)
        if consultant is None
        else plain_rows(db, _OWN_DUES, **asked, consultant=consultant)
    )
    return [Falls(*row) for row in found]


def jobs(db: Session, firm: UUID, consultant: UUID | None, most: int = MOST_LISTED) -> list[Listed]:
    """Summaries of the jobs of a firm or of one consultant that are neither proved nor ended:
    those without a day first, then the latest days.
    """
    query = (
        select(JobRow.summary, JobRow.id, *WHOSE)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(
            JobRow.firm_id == firm,
            JobRow.summary["state"].as_string().not_in(("proved", "ended")),
        )
        .order_by(JobRow.planned_on.desc().nulls_first(), JobRow.id)
        .limit(most)
    )
    if consultant is not None:
        query = query.where(
            or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))
        )
    return [Listed(*row) for row in db.execute(query)]
