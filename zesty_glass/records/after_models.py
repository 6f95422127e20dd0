"""Tables of what comes after the sale: jobs, what falls due, how promises and parts did,
calendars.
"""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Any
from uuid import UUID

from sqlalchemy import Computed, ForeignKey, Index, Numeric
from sqlalchemy.orm import Mapped, mapped_column

from .base import PERSONAL, Base, Json, Words, compared

#: kinds of what a job fits, from its document
JOB_KINDS = "jsonb_path_query_array(data, '$.stages[*].kind')"


class JobRow(Base):
    """A job: the accepted line, its steps, its proof and its care, as one document; ``summary`` is
    what a list says of it, written with it. Without a proposal it is equipment that others fitted,
    taken into care.
    """

    __tablename__ = "jobs"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    home_id: Mapped[UUID] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"), index=True)
    proposal_id: Mapped[UUID | None] = mapped_column(
        ForeignKey("proposals.id", ondelete="CASCADE"), unique=True
    )
    planned_on: Mapped[date | None]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    summary: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)
    kinds: Mapped[list[Any]] = mapped_column(Json, Computed(JOB_KINDS, persisted=True))
    __table_args__ = (
        Index("jobs_by_day", "firm_id", "planned_on"),
        Index(
            "jobs_by_kinds",
            "kinds",
            postgresql_using="gin",
            postgresql_ops={"kinds": "jsonb_path_ops"},
        ),
    )


class DueRow(Base):
    """When a part of a job falls due next; written anew with every change of the job."""

    __tablename__ = "dues"
    job_id: Mapped[UUID] = mapped_column(
        ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True
    )
    key: Mapped[str] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    due_on: Mapped[date]
    stage: Mapped[str]
    label: Mapped[str]
    kind: Mapped[str]
    own: Mapped[bool]
    minutes: Mapped[int]
    __table_args__ = (Index("dues_by_day", "firm_id", "due_on"),)


class ProvedRow(Base):
    """How one promise of a job stands, and how it stood when it was read first; written anew with
    every change of the job.
    """

    __tablename__ = "proved"
    job_id: Mapped[UUID] = mapped_column(
        ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True
    )
    analyte: Mapped[str] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    home_id: Mapped[UUID] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"))
    kind: Mapped[str]
    item: Mapped[str]
    verdict: Mapped[str]
    short_by: Mapped[float | None]
    first_verdict: Mapped[str | None]
    first_short_by: Mapped[float | None]
    __table_args__ = (Index("proved_by_kind", "firm_id", "kind", "item", "analyte"),)


class ServedRow(Base):
    """How long a part of a job served between two changes; written anew with every change of the
    job. ``months``: as it was predicted; ``days``: as it was.
    """

    __tablename__ = "served"
    job_id: Mapped[UUID] = mapped_column(
        ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True
    )
    key: Mapped[str] = mapped_column(primary_key=True)
    time: Mapped[int] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    home_id: Mapped[UUID] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"))
    label: Mapped[str]
    kind: Mapped[str]
    months: Mapped[float]
    days: Mapped[int]
    __table_args__ = (Index("served_by_part", "firm_id", "label", "kind"),)


class ReminderRow(Base):
    """That a part's day was reminded of: whoever writes this row sends the message, and nobody
    twice.
    """

    __tablename__ = "reminders"
    job_id: Mapped[UUID] = mapped_column(
        ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True
    )
    key: Mapped[str] = mapped_column(primary_key=True)
    due_on: Mapped[date] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    at: Mapped[datetime]


class PaymentRow(Base):
    """A payment that somebody noted as received for a signed proposal; no card data."""

    __tablename__ = "payments"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    proposal_id: Mapped[UUID] = mapped_column(ForeignKey("proposals.id", ondelete="CASCADE"))
    on: Mapped[date]
    amount: Mapped[Decimal] = mapped_column(Numeric(12, 2))
    label: Mapped[Words]
    note: Mapped[Words]
    by: Mapped[str]
    at: Mapped[datetime]
    struck_at: Mapped[datetime | None]
    struck_because: Mapped[Words] = mapped_column(default="")
    __table_args__ = (
        Index("payments_by_day", "firm_id", "on"),
        Index("payments_by_proposal", "proposal_id"),
    )


class FeedRow(Base):
    """A calendar that is read by its secret address: of a home, or of a person's round; only the
    hash of the address is kept.
    """

    __tablename__ = "feeds"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[UUID] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"), index=True)
    home_id: Mapped[UUID | None] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"))
    token_hash: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[datetime]
    revoked_at: Mapped[datetime | None]
