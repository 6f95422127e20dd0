"""Queries. Every one is scoped to a firm; what belongs to another firm does not exist."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import datetime
from functools import cache
from typing import Any, TypeVar
from uuid import UUID

from sqlalchemy import (
    Select,
    bindparam,
    func,
    or_,
    select,
    union_all,
    update,
)
from sqlalchemy.orm import Session

from .after_models import JobRow, PaymentRow
from .models import (
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
    JobRow,
    PaymentRow,
)


class NotFound(Exception):
    """There is no such thing in this firm."""

    def __init__(self, what: str) -> None:
        super().__init__(what)
        self.what = what


def find(db: Session, kind: type[Row], firm: UUID, id: UUID, lock: bool = False) -> Row | None:
    """One row of a firm, or None."""
    return db.scalars(_one(kind, lock), {"one": id, "of": firm}).one_or_none()


@cache
def _one(kind: type[Any], lock: bool) -> Select[Any]:
    query = select(kind).where(kind.id == bindparam("one"), kind.firm_id == bindparam("of"))
    return query.with_for_update().execution_options(populate_existing=True) if lock else query


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


def firm(db: Session, id: UUID, lock: bool = False) -> Firm:
    """The firm itself; locked when it is about to be changed."""
    return db.get_one(Firm, id, with_for_update=True if lock else None, populate_existing=lock)


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


def homes(db: Session, firm: UUID, words: str, most: int = 12) -> list[HomeRow]:
    """Homes whose customer, name or place holds ``words``."""
    like = f"%{words.replace('%', '').replace('_', ' ')}%"
    query = select(HomeRow).where(
        HomeRow.firm_id == firm,
        HomeRow.merged_into.is_(None),
        or_(
            HomeRow.customer["name"].as_string().ilike(like),
            HomeRow.home["name"].as_string().ilike(like),
            HomeRow.home["place"].as_string().ilike(like),
        ),
    )
    return list(db.scalars(query.order_by(HomeRow.customer["name"].as_string()).limit(most)))


def accepted(db: Session, firm: UUID, visits: Iterable[UUID]) -> set[UUID]:
    """Those of some visits that have a proposal that was signed, cancelled since or not."""
    query = select(ProposalRow.visit_id).where(
        ProposalRow.firm_id == firm,
        ProposalRow.visit_id.in_(list(visits)),
        ProposalRow.data["state"].as_string().in_(("accepted", "cancelled")),
    )
    return set(db.scalars(query))


def taken_id(db: Session, kind: type[Any], id: UUID) -> bool:
    """Whether an id is in use, in whatever firm."""
    return db.scalar(select(kind.id).where(kind.id == id)) is not None


def any_taken(db: Session, ids: Iterable[UUID]) -> bool:
    """Whether any of some ids is in use by a visit or a part of one, in whatever firm."""
    listed = list(ids)
    kinds = (
        VisitRow,
        SampleRow,
        ReadingRow,
        OptionRow,
        ProposalRow,
        LabSampleRow,
        DemonstrationRow,
    )
    found = union_all(*(select(k.id).where(k.id.in_(listed)) for k in kinds)).limit(1)
    return db.execute(found).first() is not None


def counts(db: Session, kind: type[Part], visits: Iterable[UUID]) -> dict[UUID, int]:
    """How many samples, readings, options or proposals each visit has."""
    query = (
        select(kind.visit_id, func.count())
        .where(kind.visit_id.in_(list(visits)))
        .group_by(kind.visit_id)
    )
    return {v: n for v, n in db.execute(query).all()}


def instruments(db: Session, firm: UUID, lock: bool = False) -> list[InstrumentRow]:
    """Kits of the firm; locked when one is about to be changed."""
    query = select(InstrumentRow).where(InstrumentRow.firm_id == firm)
    if lock:
        query = query.with_for_update().execution_options(populate_existing=True)
    return list(db.scalars(query.order_by(InstrumentRow.position)))


def instrument(db: Session, firm: UUID, key: str) -> InstrumentRow | None:
    """A kit of the firm by its key, or None."""
    query = select(InstrumentRow).where(InstrumentRow.firm_id == firm, InstrumentRow.key == key)
    return db.scalars(query).one_or_none()


def items(
    db: Session, firm: UUID, codes: Iterable[str] | None = None, lock: bool = False
) -> list[ItemRow]:
    """Catalog items of the firm; only ``codes`` when given; locked when they are about to be
    changed.
    """
    query = select(ItemRow).where(ItemRow.firm_id == firm).order_by(ItemRow.code)
    if lock:
        query = query.with_for_update().execution_options(populate_existing=True)
    if codes is not None:
        query = query.where(ItemRow.code.in_(list(codes)))
    return list(db.scalars(query))


def items_by_id(db: Session, firm: UUID, ids: Iterable[UUID]) -> list[ItemRow]:
    """Items of the firm by id."""
    return list(
        db.scalars(select(ItemRow).where(ItemRow.firm_id == firm, ItemRow.id.in_(list(ids))))
    )


def consultant_of(db: Session, firm: UUID, visit: UUID) -> str:
    """The address of who made a visit, or of a manager where they are gone; empty without one."""
    own = select(User.email).join(VisitRow, VisitRow.consultant_id == User.id)
    found = db.scalar(own.where(VisitRow.id == visit, VisitRow.firm_id == firm, User.active))
    managers = select(User.email).where(User.firm_id == firm, User.role == "manager", User.active)
    return found or db.scalars(managers.order_by(User.email).limit(1)).first() or ""


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


def mails(db: Session, firm: UUID) -> Iterator[MailRow]:
    """Messages of a firm, the latest first, fetched as they are looked at."""
    query = select(MailRow).where(MailRow.firm_id == firm)
    query = query.order_by(MailRow.at.desc(), MailRow.id)
    return iter(db.scalars(query.execution_options(yield_per=100)))


def mails_of(db: Session, firm: UUID, proposal: UUID) -> list[MailRow]:
    """Messages about a proposal."""
    query = select(MailRow).where(MailRow.firm_id == firm, MailRow.proposal_id == proposal)
    return list(db.scalars(query.order_by(MailRow.at)))


def erase_mails_and_links(
    db: Session, firm: UUID, proposal: UUID, at: datetime, instead: str
) -> None:
    """Take addresses and texts out of a proposal's messages, and make its links worthless."""
    db.execute(
        update(MailRow)
        .where(MailRow.firm_id == firm, MailRow.proposal_id == proposal)
        .values(to=instead, text=instead, subject=instead)
    )
    db.execute(
        update(LinkRow)
        .where(
            LinkRow.firm_id == firm, LinkRow.proposal_id == proposal, LinkRow.revoked_at.is_(None)
        )
        .values(revoked_at=at)
    )


def erase_mails_to(db: Session, firm: UUID, addresses: Iterable[str], instead: str) -> None:
    """Take the messages to some addresses out, as reminders that belong to no proposal."""
    db.execute(
        update(MailRow)
        .where(MailRow.firm_id == firm, MailRow.to.in_(list(addresses)))
        .values(to=instead, text=instead, subject=instead)
    )


def homes_last_seen_before(db: Session, firm: UUID, at: datetime, erased: str) -> list[UUID]:
    """Homes of people who are still named, whose last visit was before a time."""
    query = (
        select(HomeRow.id)
        .join(VisitRow, VisitRow.home_id == HomeRow.id)
        .where(HomeRow.firm_id == firm, HomeRow.customer["name"].as_string() != erased)
        .group_by(HomeRow.id)
        .having(func.max(VisitRow.started_at) < at)
    )
    return list(db.scalars(query))


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
