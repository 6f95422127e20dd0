"""Tables of notes on a home's years, and of checks of instruments."""

from __future__ import annotations

from datetime import date, datetime
from uuid import UUID

from sqlalchemy import ForeignKey, Index
from sqlalchemy import text as sql
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, Words


class HomeNoteRow(Base):
    """Why something changed at a home, in a sentence and with its day; or a complaint or a warranty
    case, with what came of it. Struck, never deleted.
    """

    __tablename__ = "home_notes"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    home_id: Mapped[UUID] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"))
    on: Mapped[date]
    text: Mapped[Words]
    by: Mapped[str]
    at: Mapped[datetime]
    struck_at: Mapped[datetime | None]
    struck_because: Mapped[Words] = mapped_column(default="")
    kind: Mapped[str] = mapped_column(default="note")
    closed_on: Mapped[date | None]
    outcome: Mapped[Words] = mapped_column(default="")
    __table_args__ = (
        Index("home_notes_by_day", "home_id", "on"),
        Index(
            "home_cases_open",
            "firm_id",
            "on",
            postgresql_where=sql("kind <> 'note' and closed_on is null and struck_at is null"),
        ),
    )


class HomeAskRow(Base):
    """That somebody asks for a home which a colleague looks after."""

    __tablename__ = "home_asks"
    home_id: Mapped[UUID] = mapped_column(
        ForeignKey("homes.id", ondelete="CASCADE"), primary_key=True
    )
    user_id: Mapped[UUID] = mapped_column(
        ForeignKey("users.id", ondelete="CASCADE"), primary_key=True
    )
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    at: Mapped[datetime]


class InstrumentCheckRow(Base):
    """What an instrument, by its key, showed in a standard of known value, both in its own unit."""

    __tablename__ = "instrument_checks"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    key: Mapped[str]
    on: Mapped[date]
    standard: Mapped[float]
    shown: Mapped[float]
    by: Mapped[str]
    at: Mapped[datetime]
    __table_args__ = (Index("instrument_checks_by_day", "firm_id", "key", "on"),)
