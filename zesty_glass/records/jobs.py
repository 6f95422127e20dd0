"""Queries of jobs and of what falls due. Every one is scoped to a firm."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import delete, func, insert, or_, select
from sqlalchemy.orm import Session

from .after_models import DueRow, JobRow, ProvedRow, ServedRow
from .models import HomeRow, VisitRow

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
    person: str = ""


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


def dues(
    db: Session, firm: UUID, until: date, consultant: UUID | None, after: tuple[date, UUID, str]
) -> list[Listed]:
    """What falls due up to a day, the earliest first, from behind ``after`` on; of one consultant's
    homes, or of all.
    """
    from_day, from_job, from_key = after
    query = (
        select(DueRow, JobRow.id, *WHOSE, PERSON)
        .join(JobRow, JobRow.id == DueRow.job_id)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(DueRow.firm_id == firm, DueRow.due_on >= from_day, DueRow.due_on <= until)
        .where(
            or_(
                DueRow.due_on > from_day,
                DueRow.job_id > from_job,
                (DueRow.job_id == from_job) & (DueRow.key > from_key),
            )
        )
        .order_by(DueRow.due_on, DueRow.job_id, DueRow.key)
        .limit(MOST_LISTED)
    )
    if consultant is not None:
        query = query.where(
            or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))
        )
    return [Listed(*row) for row in db.execute(query)]


def jobs(db: Session, firm: UUID, consultant: UUID | None, most: int = MOST_LISTED) -> list[Listed]:
    """Summaries of the jobs of a firm or of one consultant that are not proved yet: those without
    a day first, then the latest days.
    """
    query = (
        select(JobRow.summary, JobRow.id, *WHOSE)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(JobRow.firm_id == firm, JobRow.summary["state"].as_string() != "proved")
        .order_by(JobRow.planned_on.desc().nulls_first(), JobRow.id)
        .limit(most)
    )
    if consultant is not None:
        query = query.where(
            or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))
        )
    return [Listed(*row) for row in db.execute(query)]
