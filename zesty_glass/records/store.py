"""Queries. Every one is scoped to a firm; what belongs to another firm does not exist."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any, NamedTuple, TypeVar
from uuid import UUID

from sqlalchemy import (
    ColumnElement,
    cast,
    delete,
    func,
    literal,
    literal_column,
    or_,
    select,
    union_all,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session

from .models import (
    Attempt,
    Audit,
    DemonstrationRow,
    Firm,
    HomeRow,
    InstrumentRow,
    ItemRow,
    LabSampleRow,
    LinkRow,
    MailRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    SignIn,
    User,
    VisitRow,
)

Part = TypeVar(
    "Part", SampleRow, ReadingRow, OptionRow, ProposalRow, LabSampleRow, DemonstrationRow
)
Row = TypeVar(
    "Row",
    HomeRow,
    VisitRow,
    SampleRow,
    ReadingRow,
    InstrumentRow,
    ItemRow,
    OptionRow,
    ProposalRow,
    LabSampleRow,
    DemonstrationRow,
)


class NotFound(Exception):
    """There is no such thing in this firm."""

    def __init__(self, what: str) -> None:
        super().__init__(what)
        self.what = what


def find(db: Session, kind: type[Row], firm: UUID, id: UUID, lock: bool = False) -> Row | None:
    """One row of a firm, or None."""
    query = select(kind).where(kind.id == id, kind.firm_id == firm)
    return db.scalars(query.with_for_update() if lock else query).one_or_none()


def get(db: Session, kind: type[Row], firm: UUID, id: UUID, what: str, lock: bool = False) -> Row:
    """One row of a firm; NotFound when it is not there."""
    row = find(db, kind, firm, id, lock)
    if row is None:
        raise NotFound(what)
    return row


def of_visit(db: Session, kind: type[Part], firm: UUID, visit: UUID) -> list[Part]:
    """Samples, readings, options or proposals of a visit, in their order."""
    return list(
        db.scalars(
            select(kind)
            .where(kind.visit_id == visit, kind.firm_id == firm)
            .order_by(kind.position, kind.id)
        )
    )


class Stored(NamedTuple):
    """A part of a visit as it is kept."""

    id: UUID
    version: int
    data: dict[str, Any]


_PARTS: tuple[type[SampleRow | OptionRow | LabSampleRow | DemonstrationRow], ...] = (
    SampleRow,
    OptionRow,
    LabSampleRow,
    DemonstrationRow,
)


def parts(
    db: Session, firm: UUID, visit: UUID
) -> tuple[list[Stored], list[Stored], list[Stored], list[Stored]]:
    """A visit's samples, lines, laboratory samples and demonstrations, each in their order, in one query."""
    each = (
        select(literal(n).label("sort"), kind.id, kind.version, kind.data, kind.position).where(
            kind.visit_id == visit, kind.firm_id == firm
        )
        for n, kind in enumerate(_PARTS)
    )
    found: tuple[list[Stored], list[Stored], list[Stored], list[Stored]] = [], [], [], []
    for sort, id, version, data, _ in db.execute(union_all(*each).order_by("position", "id")):
        found[sort].append(Stored(id, version, data))
    return found


def proposals(
    db: Session, firm: UUID, visit: UUID, snapshots: bool = True
) -> list[tuple[UUID, int, dict[str, Any]]]:
    """A visit's proposals as (id, version, data); without ``snapshots`` their figures stay in the database."""
    data = (
        ProposalRow.data
        if snapshots
        else cast(
            cast(ProposalRow.data, JSONB)
            .op("-")("snapshot")
            .op("||")(cast({"snapshot": ""}, JSONB)),
            JSONB,
        )
    )
    query = (
        select(ProposalRow.id, ProposalRow.version, data)
        .where(ProposalRow.visit_id == visit, ProposalRow.firm_id == firm)
        .order_by(ProposalRow.position)
    )
    return [(id, version, found) for id, version, found in db.execute(query).all()]


def next_position(db: Session, kind: type[Part], visit: UUID) -> int:
    """The place behind the last one."""
    return (
        int(
            db.scalar(
                select(func.coalesce(func.max(kind.position), 0)).where(kind.visit_id == visit)
            )
            or 0
        )
        + 1
    )


def firm(db: Session, id: UUID) -> Firm:
    """The firm itself."""
    return db.get_one(Firm, id)


def home_of(db: Session, firm: UUID, home: UUID) -> tuple[HomeRow, str]:
    """A home, and the name of its firm; NotFound when it is not there."""
    found = db.execute(
        select(HomeRow, Firm.name)
        .join(Firm, Firm.id == HomeRow.firm_id)
        .where(HomeRow.id == home, HomeRow.firm_id == firm)
    ).one_or_none()
    if found is None:
        raise NotFound("home")
    return found[0], found[1]


def visits_between(
    db: Session, firm: UUID, start: datetime, end: datetime
) -> list[tuple[VisitRow, HomeRow]]:
    """Visits that start in a span, with their homes, in order of time."""
    query = (
        select(VisitRow, HomeRow)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == firm, VisitRow.started_at >= start, VisitRow.started_at < end)
        .order_by(VisitRow.started_at)
    )
    return [(v, h) for v, h in db.execute(query).all()]


def visits_of_home(db: Session, firm: UUID, home: UUID) -> list[tuple[UUID, datetime, UUID | None]]:
    """Every visit to a home as (id, time, consultant), the latest first."""
    query = (
        select(VisitRow.id, VisitRow.started_at, VisitRow.consultant_id)
        .where(VisitRow.firm_id == firm, VisitRow.home_id == home)
        .order_by(VisitRow.started_at.desc())
    )
    return [(id, at, who) for id, at, who in db.execute(query).all()]


def homes(db: Session, firm: UUID, words: str, most: int = 12) -> list[HomeRow]:
    """Homes whose customer, name or place holds ``words``."""
    like = f"%{words.replace('%', '').replace('_', ' ')}%"
    query = select(HomeRow).where(
        HomeRow.firm_id == firm,
        or_(
            HomeRow.customer["name"].as_string().ilike(like),
            HomeRow.home["name"].as_string().ilike(like),
            HomeRow.home["place"].as_string().ilike(like),
        ),
    )
    return list(db.scalars(query.order_by(HomeRow.customer["name"].as_string()).limit(most)))


def counts(db: Session, kind: type[Part], visits: Iterable[UUID]) -> dict[UUID, int]:
    """How many samples, readings, options or proposals each visit has."""
    query = (
        select(kind.visit_id, func.count())
        .where(kind.visit_id.in_(list(visits)))
        .group_by(kind.visit_id)
    )
    return {v: n for v, n in db.execute(query).all()}


def instruments(db: Session, firm: UUID) -> list[InstrumentRow]:
    """Kits of the firm."""
    return list(
        db.scalars(
            select(InstrumentRow)
            .where(InstrumentRow.firm_id == firm)
            .order_by(InstrumentRow.position)
        )
    )


def items(db: Session, firm: UUID, codes: Iterable[str] | None = None) -> list[ItemRow]:
    """Catalogue items of the firm; only ``codes`` when given."""
    query = select(ItemRow).where(ItemRow.firm_id == firm).order_by(ItemRow.code)
    if codes is not None:
        query = query.where(ItemRow.code.in_(list(codes)))
    return list(db.scalars(query))


def item_marks(db: Session, firm: UUID, codes: Iterable[str]) -> list[tuple[UUID, str, str]]:
    """Items as (id, code, mark): the mark is another after every change of the row, whoever made it."""
    mark: ColumnElement[str] = literal_column("items.xmin::text")
    query = select(ItemRow.id, ItemRow.code, mark).where(
        ItemRow.firm_id == firm, ItemRow.code.in_(list(codes))
    )
    return [(id, code, mark) for id, code, mark in db.execute(query).all()]


def items_by_id(db: Session, firm: UUID, ids: Iterable[UUID]) -> list[ItemRow]:
    """Items of the firm by id."""
    return list(
        db.scalars(select(ItemRow).where(ItemRow.firm_id == firm, ItemRow.id.in_(list(ids))))
    )


def user_by_email(db: Session, email: str) -> User | None:
    """An active user by e-mail address."""
    return db.scalars(
        select(User).where(User.email == email.strip().lower(), User.active)
    ).one_or_none()


def signed_in(db: Session, token_hash: str, now: datetime) -> User | None:
    """Who holds a session that has not ended."""
    query = (
        select(User)
        .join(SignIn, SignIn.user_id == User.id)
        .where(SignIn.token_hash == token_hash, SignIn.expires_at > now, User.active)
    )
    return db.scalars(query).one_or_none()


def sign_out(db: Session, token_hash: str) -> None:
    """End a session."""
    db.execute(delete(SignIn).where(SignIn.token_hash == token_hash))


def failed_attempts(db: Session, key: str, since: datetime) -> int:
    """Failed sign-ins with a key since a time."""
    return int(
        db.scalar(
            select(func.count()).select_from(Attempt).where(Attempt.key == key, Attempt.at > since)
        )
        or 0
    )


def attempt(db: Session, key: str, at: datetime, forget_before: datetime) -> None:
    """Count one attempt with a key, and forget those that are too old to count."""
    db.execute(delete(Attempt).where(Attempt.key == key, Attempt.at < forget_before))
    db.add(Attempt(key=key, at=at))


def links(db: Session, firm: UUID, proposal: UUID) -> list[LinkRow]:
    """Links to a proposal, the latest first."""
    return list(
        db.scalars(
            select(LinkRow)
            .where(LinkRow.firm_id == firm, LinkRow.proposal_id == proposal)
            .order_by(LinkRow.made_at.desc())
        )
    )


def link(db: Session, firm: UUID, id: UUID) -> LinkRow:
    """A link of a firm; NotFound when it is not there."""
    row = db.scalars(select(LinkRow).where(LinkRow.firm_id == firm, LinkRow.id == id)).one_or_none()
    if row is None:
        raise NotFound("link")
    return row


def link_by_token(db: Session, token_hash: str) -> LinkRow | None:
    """Whatever link a token belongs to; the caller looks whether it still counts."""
    return db.scalars(select(LinkRow).where(LinkRow.token_hash == token_hash)).one_or_none()


def mails(db: Session, firm: UUID, most: int = 100) -> list[MailRow]:
    """Messages of a firm, the latest first."""
    return list(
        db.scalars(
            select(MailRow).where(MailRow.firm_id == firm).order_by(MailRow.at.desc()).limit(most)
        )
    )


def forget_attempts(db: Session, key: str) -> None:
    """Forget failed sign-ins after one that worked."""
    db.execute(delete(Attempt).where(Attempt.key == key))


def changes_since(db: Session, target: UUID, version: int) -> tuple[list[str], str]:
    """Fields changed after a version of a thing, and by whom last."""
    rows = list(
        db.scalars(
            select(Audit)
            .where(Audit.target == target, Audit.version > version)
            .order_by(Audit.version)
        )
    )
    fields: dict[str, Any] = {f: None for r in rows for f in r.fields}
    return list(fields), rows[-1].who if rows else ""
