"""Calendars by a secret address: a person's round, or what falls due at a home. An address can be
taken back, and shows nothing but days, parts and places.
"""

from __future__ import annotations

import secrets
from datetime import date, datetime, time, timedelta
from functools import lru_cache
from typing import Any
from uuid import UUID

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..documents.calendar import Entry, round_calendar
from ..records import jobs as records
from ..records import opening, signing, store
from ..records.after_models import DueRow, FeedRow, JobRow
from ..records.models import HomeRow, User, VisitRow
from . import jobs, logbook, visiting
from .person import Person, now
from .sharing import MOST_OPENED, MOST_WRONG
from .signing_in import FORGOTTEN_AFTER, TooMany, place_of, token_hash
from .versioning import note

AHEAD = timedelta(days=180)  # it refreshes itself: what is farther off comes in time
BEHIND = timedelta(days=30)
MOST_ENTRIES = 250  # of jobs, and of parts
MOST_FEEDS = 20


def make(db: Session, who: Person, id: UUID, home: UUID | None) -> tuple[FeedRow, str]:
    """A calendar of a person's own round, or of a home; its address is shown once.

    Raises:
        RuleError: made already, or too many. NotFound: a home this person may not see.
    """
    if home is not None:
        logbook.home(db, who, home)
    if db.get(FeedRow, id) is not None:
        raise RuleError(
            "feed.twice",
            "This calendar was made already; its address was shown then.",
            "id",
            "Make another.",
        )
    if len([f for f in listed(db, who) if f.revoked_at is None]) >= MOST_FEEDS:
        raise RuleError(
            "feed.many", f"More than {MOST_FEEDS} calendars.", "feeds", "Take one back first."
        )
    token = secrets.token_urlsafe(32)
    row = FeedRow(
        id=id,
        firm_id=who.firm_id,
        user_id=who.id,
        home_id=home,
        token_hash=token_hash(token),
        made_at=now(),
        revoked_at=None,
    )
    db.add(row)
    note(db, who, id, "calendar made", 1, [])
    db.flush()
    return row, token


def listed(db: Session, who: Person) -> list[FeedRow]:
    """A person's own calendars, the latest first."""
    query = select(FeedRow).where(FeedRow.firm_id == who.firm_id, FeedRow.user_id == who.id)
    return list(db.scalars(query.order_by(FeedRow.made_at.desc())))


def revoke(db: Session, who: Person, id: UUID) -> None:
    """Make a calendar's address worthless at once; twice is once."""
    row = next((f for f in listed(db, who) if f.id == id), None)
    if row is None:
        raise store.NotFound("calendar")
    if row.revoked_at is None:
        row.revoked_at = now()
        note(db, who, id, "calendar taken back", 1, [])


def read(db: Session, token: str, address: str) -> bytes | None:
    """The calendar behind an address; None when there is none, it was taken back, or its person
    works here no more: all alike from outside.

    Raises:
        TooMany: too many tries from this address, or readings of this calendar.
    """
    query = select(FeedRow).where(FeedRow.token_hash == token_hash(token))
    row = db.scalars(query).one_or_none() if 20 <= len(token) <= 100 else None
    user = None if row is None else db.get(User, row.user_id)
    if row is None or user is None or not _counts(db, row, user):
        wrong = f"link-from:{place_of(address)}"
        if signing.admitted(db, wrong, now(), MOST_WRONG, FORGOTTEN_AFTER) is None:
            raise TooMany
        return None
    if signing.admitted(db, f"feed:{row.id}", now(), MOST_OPENED, FORGOTTEN_AFTER) is None:
        raise TooMany
    name = f"{user.name}, round" if row.home_id is None else "Water treatment"
    return _written(name, tuple(_entries(db, row, user)))


def _counts(db: Session, feed: FeedRow, user: User) -> bool:
    """Whether a calendar is given out: it was not taken back, its person works here, and may see
    the home that it is of.
    """
    if feed.revoked_at is not None or not user.active:
        return False
    if feed.home_id is None:
        return True
    who = Person(id=user.id, firm_id=user.firm_id, name=user.name, role=user.role)
    every = opening.visits_of_home(db, feed.firm_id, feed.home_id)
    return bool(visiting.seen_of(db, who, every))


@lru_cache(maxsize=64)
def _written(name: str, entries: tuple[Entry, ...]) -> bytes:
    """A calendar as it is sent; kept while nothing in it changes, for programs ask every hour."""
    return round_calendar(name, list(entries), now())


def _entries(db: Session, feed: FeedRow, user: User) -> list[Entry]:
    day = jobs.today()
    consultant = user.id if user.role == "consultant" else None
    due = (
        select(JobRow.home_id, DueRow, *records.WHOSE)
        .join(JobRow, JobRow.id == DueRow.job_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .where(DueRow.firm_id == feed.firm_id, DueRow.due_on <= day + AHEAD)
        .order_by(DueRow.due_on)
        .limit(MOST_ENTRIES)
    )
    planned = (
        select(JobRow.id, JobRow.planned_on, JobRow.summary, *records.WHOSE)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .where(JobRow.firm_id == feed.firm_id, JobRow.planned_on >= day - BEHIND)
        .order_by(JobRow.planned_on)
        .limit(MOST_ENTRIES)
    )
    if feed.home_id is not None:
        due, planned = (q.where(JobRow.home_id == feed.home_id) for q in (due, planned))
    elif consultant is not None:
        own = or_(VisitRow.consultant_id == consultant, VisitRow.consultant_id.is_(None))
        due, planned = (q.where(own) for q in (due, planned))
    return [
        *_visits(db, feed, user),
        *(_planned(*x) for x in db.execute(planned)),
        *_by_day([(x[0], _due(*x[1:])) for x in db.execute(due)]),
    ]


def _visits(db: Session, feed: FeedRow, user: User) -> list[Entry]:
    """Visits, planned and of the last days; a fitter has none."""
    if user.role == "installer":
        return []
    visits = (
        select(VisitRow.id, VisitRow.started_at, VisitRow.consultant, *records.WHOSE)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == feed.firm_id, VisitRow.started_at >= now() - BEHIND)
        .order_by(VisitRow.started_at)
        .limit(MOST_ENTRIES)
    )
    if feed.home_id is not None:
        visits = visits.where(VisitRow.home_id == feed.home_id)
    elif user.role == "consultant":
        visits = visits.where(
            or_(VisitRow.consultant_id == user.id, VisitRow.consultant_id.is_(None))
        )
    return [_visit(*x) for x in db.execute(visits)]


def _visit(
    id: UUID, started: datetime, consultant: str, customer: str, home: str, place: str
) -> Entry:
    return Entry(
        uid=f"{id}-visit",
        on=started.date(),
        at=None,
        title=f"{customer}: visit",
        place=f"{home}, {place}".rstrip(", "),
        words=consultant,
        start=started,
    )


def _by_day(entries: list[tuple[UUID, Entry]]) -> list[Entry]:
    """Parts of one home on one day as one entry; homes that are called alike stay two."""
    out: dict[tuple[date, UUID], Entry] = {}
    for home, e in entries:
        have = out.get((e.on, home))
        part = e.title.partition(": ")[2]
        out[e.on, home] = e if have is None else have._replace(title=f"{have.title}, {part}")
    return list(out.values())


def _planned(
    id: UUID, on: date, job: dict[str, Any], customer: str, home: str, place: str
) -> Entry:
    return Entry(
        uid=f"{id}-job",
        on=on,
        at=time.fromisoformat(job["planned_at"]) if job["planned_at"] else None,
        title=f"{customer}: fit {job['line']}",
        place=f"{home}, {place}".rstrip(", "),
        words=job["fitter"],
    )


def _due(row: DueRow, customer: str, home: str, place: str) -> Entry:
    return Entry(
        uid=f"{row.job_id}-{row.key}-{row.due_on:%Y%m%d}",
        on=row.due_on,
        at=None,
        title=f"{customer}: {row.label}",
        place=f"{home}, {place}".rstrip(", "),
        words=f"{row.stage}; {'by the household' if row.own else 'by the firm'}",
    )
