"""Queries of what a manager asks on a Monday. Every one is scoped to a firm."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import Select, cast, func, or_, select, type_coerce
from sqlalchemy.dialects.postgresql import JSONB, JSONPATH
from sqlalchemy.orm import Session, aliased

from .after_models import JobRow, PaymentRow, ProvedRow
from .jobs import WHOSE
from .models import HomeRow, LabSampleRow, MailRow, ProposalRow, VisitRow
from .standing import LAST_DAY

MOST = 2000  # rows behind one number: a firm of that size asks by month
_PERSON = VisitRow.consultant


class Whose(NamedTuple):
    """A row with who it concerns: the person of the firm, the customer, house and place."""

    row: Any
    person: str
    customer: str
    home: str
    place: str


def _found(db: Session, query: Select[Any]) -> list[Whose]:
    return [Whose(*row) for row in db.execute(query.limit(MOST))]


def visits(db: Session, firm: UUID, start: datetime, end: datetime) -> list[Whose]:
    """Visits of a span that are not closed, in order of time."""
    query = (
        select(VisitRow, _PERSON, *WHOSE)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == firm, VisitRow.closed.is_(None))
        .where(VisitRow.started_at >= start, VisitRow.started_at < end)
    )
    return _found(db, query.order_by(VisitRow.started_at, VisitRow.id))


def never_made(db: Session, firm: UUID, before: datetime) -> list[Whose]:
    """Visits that were planned for an earlier day, and neither made nor closed."""
    query = (
        select(VisitRow, _PERSON, *WHOSE)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == firm, VisitRow.started_at < before)
        .where(VisitRow.made_at.is_(None), VisitRow.closed.is_(None))
    )
    return _found(db, query.order_by(VisitRow.started_at, VisitRow.id))


def _jobs(firm: UUID) -> Select[Any]:
    return (
        select(JobRow, _PERSON, *WHOSE)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(JobRow.firm_id == firm)
        .order_by(JobRow.planned_on, JobRow.id)
    )


_STATE = JobRow.summary["state"].as_string()


def jobs_on(db: Session, firm: UUID, day: date) -> list[Whose]:
    """Jobs that are planned for a day and are not in use yet."""
    return _found(db, _jobs(firm).where(JobRow.planned_on == day, _STATE == "planned"))


def jobs_without_day(db: Session, firm: UUID) -> list[Whose]:
    """Jobs that nobody has planned."""
    return _found(db, _jobs(firm).where(_STATE == "to plan"))


def rented(db: Session, firm: UUID) -> list[Whose]:
    """Jobs with something rented that is in use."""
    lets = func.jsonb_path_exists(type_coerce(JobRow.data, JSONB), cast(RENTED, JSONPATH))
    return _found(db, _jobs(firm).where(lets, _STATE.not_in(("to plan", "planned", "ended"))))


RENTED = '$.bought[*].terms ? (@ != "buy")'


def _proposals(firm: UUID) -> Select[Any]:
    """Proposals with whose they are; drafts are left out."""
    return (
        select(ProposalRow, _PERSON, *WHOSE)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(ProposalRow.firm_id == firm)
        .order_by(ProposalRow.written_on, ProposalRow.id)
    )


def decided(db: Session, firm: UUID, since: date, before: date) -> list[Whose]:
    """Proposals that were signed or declined in a span of days; signed ones that were cancelled
    since, too.
    """
    day = ProposalRow.data["decided_at"].as_string()
    query = _proposals(firm).where(
        ProposalRow.state.in_(("accepted", "declined", "cancelled")),
        day >= since.isoformat(),
        day < before.isoformat(),
    )
    return _found(db, query)


def signed(db: Session, firm: UUID) -> list[tuple[Whose, dict[str, Any] | None]]:
    """Every signed proposal that holds, with the document of its job."""
    query = (
        select(ProposalRow, _PERSON, *WHOSE, JobRow.data)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .outerjoin(JobRow, JobRow.proposal_id == ProposalRow.id)
        .where(ProposalRow.firm_id == firm, ProposalRow.state == "accepted")
        .order_by(ProposalRow.written_on, ProposalRow.id)
    )
    return [(Whose(*row[:5]), row[5]) for row in db.execute(query)]


def expired(db: Session, firm: UUID, since: date, today: date) -> list[Whose]:
    """Proposals whose last day was since a day, and that nobody decided about."""
    query = _proposals(firm).where(
        ProposalRow.state == "presented",
        since.isoformat() <= LAST_DAY,
        today.isoformat() > LAST_DAY,
    )
    return _found(db, query)


def payments(db: Session, firm: UUID, since: date, before: date) -> list[Whose]:
    """Payments received in a span of days."""
    query = (
        select(PaymentRow, _PERSON, *WHOSE)
        .join(ProposalRow, ProposalRow.id == PaymentRow.proposal_id)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(PaymentRow.firm_id == firm, PaymentRow.struck_at.is_(None))
        .where(PaymentRow.on >= since, PaymentRow.on < before)
    )
    return _found(db, query.order_by(PaymentRow.on, PaymentRow.id))


def bottles(db: Session, firm: UUID) -> list[Whose]:
    """Bottles at a laboratory whose report has not come."""
    query = (
        select(LabSampleRow, _PERSON, *WHOSE)
        .join(VisitRow, VisitRow.id == LabSampleRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(LabSampleRow.firm_id == firm)
        .where(LabSampleRow.data["received_at"].as_string().is_not(None))
        .where(LabSampleRow.data["reported_at"].as_string().is_(None))
        .where(LabSampleRow.data["struck_at"].as_string().is_(None))
    )
    return _found(db, query.order_by(LabSampleRow.id))


def homes_with(db: Session, firm: UUID, analytes: tuple[str, ...]) -> list[Whose]:
    """Homes whose latest readings found one of some analytes, each with its latest visit's
    consultant.
    """
    made = aliased(VisitRow)
    last = (
        select(made.id)
        .where(made.home_id == HomeRow.id, made.made_at.is_not(None))
        .order_by(made.started_at.desc())
        .limit(1)
        .scalar_subquery()
    )
    any_of = or_(*(type_coerce(HomeRow.found, JSONB).contains([a]) for a in analytes))
    query = (
        select(HomeRow, _PERSON, *WHOSE)
        .join(VisitRow, VisitRow.id == last)
        .where(HomeRow.firm_id == firm, any_of)
    )
    return _found(db, query.order_by(HomeRow.words, HomeRow.id))


def questions(db: Session, firm: UUID) -> list[Whose]:
    """Messages that came by a link about a proposal and that nobody has answered since, by mail."""
    later = aliased(MailRow)
    answered = select(later.id).where(
        later.proposal_id == MailRow.proposal_id, later.at > MailRow.at, later.about == ""
    )
    query = (
        select(MailRow, _PERSON, *WHOSE)
        .join(ProposalRow, ProposalRow.id == MailRow.proposal_id)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(MailRow.firm_id == firm, MailRow.about.in_(("question", "visit")))
        .where(MailRow.answered_at.is_(None), ~answered.exists())
    )
    return _found(db, query.order_by(MailRow.at, MailRow.id))


def mended(db: Session, firm: UUID) -> list[Whose]:
    """Promises that fell short at first and do so no more."""
    query = (
        select(ProvedRow, _PERSON, *WHOSE)
        .join(JobRow, JobRow.id == ProvedRow.job_id)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == ProvedRow.home_id)
        .where(ProvedRow.firm_id == firm, ProvedRow.first_verdict == "short")
        .where(ProvedRow.verdict != "short")
    )
    return _found(db, query.order_by(HomeRow.words, ProvedRow.analyte))
