"""Queries of homes that are alike, of what hangs on one, and of who asks for one. Every one is
scoped to a firm.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from sqlalchemy import ColumnElement, func, or_, select, update
from sqlalchemy.orm import Session

from .after_models import FeedRow, JobRow, ProvedRow, ServedRow
from .models import HomeRow, User, VisitRow
from .note_models import HomeAskRow, HomeNoteRow

MOST_ALIKE = 10
_BY_ID: dict[str, Any] = {"visits": VisitRow, "notes": HomeNoteRow, "feeds": FeedRow}
_NAME, _HOUSE = HomeRow.customer["name"].as_string(), HomeRow.home["name"].as_string()


def _same(column: Any, words: str) -> ColumnElement[bool]:
    found: ColumnElement[bool] = func.lower(func.trim(column)) == words.strip().lower()
    return found


def alike(db: Session, row: HomeRow, erased: str) -> list[HomeRow]:
    """Other homes of the same place and of the same name, the customer’s or the house’s."""
    name, house = row.customer["name"], row.home["name"]
    place = row.home.get("place", "")
    if not place.strip() or name == erased:
        return []
    query = select(HomeRow).where(
        HomeRow.firm_id == row.firm_id,
        func.lower(HomeRow.home["place"].as_string()) == place.lower(),
        HomeRow.id != row.id,
        HomeRow.merged_into.is_(None),
        or_(_same(_NAME, name), _same(_HOUSE, house)),
    )
    return list(db.scalars(query.order_by(HomeRow.id).limit(MOST_ALIKE)))


def merged_into(db: Session, firm: UUID, home: UUID) -> list[HomeRow]:
    """Homes that turned out to be this one."""
    query = select(HomeRow).where(HomeRow.firm_id == firm, HomeRow.merged_into == home)
    return list(db.scalars(query.order_by(HomeRow.id)))


def hangs_on(db: Session, firm: UUID, home: UUID) -> dict[str, list[str]]:
    """Ids of the visits, notes and calendars of a home."""
    return {
        name: [
            str(id)
            for id in db.scalars(
                select(kind.id).where(kind.firm_id == firm, kind.home_id == home).order_by(kind.id)
            )
        ]
        for name, kind in _BY_ID.items()
    }


def move(db: Session, firm: UUID, to: UUID, ids: dict[str, list[str]]) -> None:
    """Hang visits, notes and calendars on another home, and what hangs on those visits with them.
    No version moves: nobody edits them.
    """
    for name, kind in _BY_ID.items():
        _set(db, kind, (kind.firm_id == firm, kind.id.in_(map(UUID, ids[name]))), to)
    visits = [UUID(id) for id in ids["visits"]]
    _set(db, JobRow, (JobRow.firm_id == firm, JobRow.visit_id.in_(visits)), to)
    of = select(JobRow.id).where(JobRow.firm_id == firm, JobRow.visit_id.in_(visits))
    for kind in (ProvedRow, ServedRow):
        _set(db, kind, (kind.firm_id == firm, kind.job_id.in_(of)), to)
    db.expire_all()


def _set(db: Session, kind: Any, where: Iterable[ColumnElement[bool]], home: UUID) -> None:
    db.execute(
        update(kind).where(*where).values(home_id=home).execution_options(synchronize_session=False)
    )


def of_colleagues(db: Session, firm: UUID, consultant: UUID, words: str) -> list[HomeRow]:
    """Homes of exactly this name, the customer’s or the house’s, none of whose visits a consultant
    sees.
    """
    own = or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))
    theirs = select(VisitRow.id).where(VisitRow.home_id == HomeRow.id)
    query = select(HomeRow).where(
        HomeRow.firm_id == firm,
        HomeRow.merged_into.is_(None),
        or_(_same(_NAME, words), _same(_HOUSE, words)),
        theirs.exists(),
        ~theirs.where(own).exists(),
    )
    return list(db.scalars(query.order_by(HomeRow.id).limit(MOST_ALIKE)))


def asks(db: Session, firm: UUID, home: UUID | None = None) -> list[tuple[HomeAskRow, User]]:
    """Who asks for a home, or for any home of a firm; the first first."""
    query = select(HomeAskRow, User).join(User, User.id == HomeAskRow.user_id)
    query = query.where(HomeAskRow.firm_id == firm, User.active)
    if home is not None:
        query = query.where(HomeAskRow.home_id == home)
    return [(ask, user) for ask, user in db.execute(query.order_by(HomeAskRow.at))]


def looks_after(db: Session, firm: UUID, home: UUID) -> list[User]:
    """Active people whose visits a home has."""
    theirs = select(VisitRow.consultant_id).where(
        VisitRow.firm_id == firm, VisitRow.home_id == home
    )
    return list(db.scalars(select(User).where(User.id.in_(theirs), User.active).order_by(User.id)))


def give(db: Session, firm: UUID, home: UUID, to: User, of: UUID | None) -> None:
    """Give a home’s visits to somebody: all of them, or one person’s and nobody’s. What is still
    planned is made in the new name.
    """
    visits = [VisitRow.firm_id == firm, VisitRow.home_id == home]
    if of is not None:
        visits.append(or_(VisitRow.consultant_id == of, VisitRow.consultant_id.is_(None)))
    db.execute(update(VisitRow).where(*visits).values(consultant_id=to.id))
    planned = (VisitRow.made_at.is_(None), VisitRow.closed.is_(None))
    mine = (*visits[:2], VisitRow.consultant_id == to.id, *planned)
    db.execute(update(VisitRow).where(*mine).values(consultant=to.name))
