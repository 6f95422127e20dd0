"""Queries of notes on homes and of checks of instruments. Every one is scoped to a firm."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from .note_models import HomeNoteRow, InstrumentCheckRow


def of_home(db: Session, firm: UUID, home: UUID) -> list[HomeNoteRow]:
    """Notes on a home, the oldest day first, struck ones too."""
    found = select(HomeNoteRow).where(HomeNoteRow.firm_id == firm, HomeNoteRow.home_id == home)
    return list(db.scalars(found.order_by(HomeNoteRow.on, HomeNoteRow.at, HomeNoteRow.id)))


def find(db: Session, firm: UUID, home: UUID, id: UUID) -> HomeNoteRow | None:
    """A note on a home, locked."""
    found = select(HomeNoteRow).where(
        HomeNoteRow.firm_id == firm, HomeNoteRow.home_id == home, HomeNoteRow.id == id
    )
    return db.scalars(found.with_for_update()).one_or_none()


def blank(db: Session, firm: UUID, home: UUID, words: str) -> None:
    """Free words out of every note on a home."""
    db.execute(
        update(HomeNoteRow)
        .where(HomeNoteRow.firm_id == firm, HomeNoteRow.home_id == home)
        .values(text=words, struck_because="", outcome="")
    )


def checks(db: Session, firm: UUID, key: str = "", most: int = 0) -> list[InstrumentCheckRow]:
    """Checks of the firm's instruments, or of one, each one's oldest first.

    Args:
        most: of the latest of each instrument; 0: all.
    """
    of = InstrumentCheckRow
    nth = func.row_number().over(partition_by=of.key, order_by=(of.on.desc(), of.at.desc()))
    latest = select(of.id, nth.label("nth")).where(of.firm_id == firm)
    if key:
        latest = latest.where(of.key == key)
    listed = latest.subquery()
    found = select(of).join(listed, of.id == listed.c.id)
    if most:
        found = found.where(listed.c.nth <= most)
    return list(db.scalars(found.order_by(of.key, of.on, of.at, of.id)))


def check(db: Session, firm: UUID, id: UUID) -> InstrumentCheckRow | None:
    """A check by its id."""
    of = InstrumentCheckRow
    return db.scalars(select(of).where(of.firm_id == firm, of.id == id)).one_or_none()


def known(db: Session, kind: type[Any], id: UUID) -> bool:
    """Whether an id is used, by whomever."""
    return db.scalar(select(kind.id).where(kind.id == id)) is not None
