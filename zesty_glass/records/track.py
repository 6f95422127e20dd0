"""Queries of what a firm has learnt, and of the homes behind each number. Every one is scoped to a
firm.
"""

from __future__ import annotations

from collections import Counter
from datetime import date
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session

from ..core.units import DAYS_PER_MONTH
from .after_models import JobRow, ProvedRow, ServedRow
from .homes import seen_by
from .models import HomeRow, ItemRow, ProposalRow, VisitRow
from .standing import state_on

MOST_BEHIND = 200  # of one number: nobody opens them one by one


class Tally(NamedTuple):
    """How often one technology's promise of an analyte stood how, at how many homes, by how much it
    was short in the middle, and at how many homes it was short when it was read first.
    """

    kind: str
    item: str
    analyte: str
    verdict: str
    many: int
    short_by: float | None
    short_first: int


def tallies(db: Session, firm: UUID) -> list[Tally]:
    """All promises of a firm's jobs, counted."""
    middle: Any = func.percentile_cont(0.5).within_group(ProvedRow.short_by)
    homes = func.count(func.distinct(ProvedRow.home_id))
    query = (
        select(
            ProvedRow.kind,
            ProvedRow.item,
            ProvedRow.analyte,
            ProvedRow.verdict,
            homes,
            middle,
            homes.filter(ProvedRow.first_verdict == "short"),
        )
        .where(ProvedRow.firm_id == firm)
        .group_by(ProvedRow.kind, ProvedRow.item, ProvedRow.analyte, ProvedRow.verdict)
    )
    return [Tally(*row) for row in db.execute(query)]


MOST_PARTS = 40  # of the record, the most often changed


def lasted(db: Session, firm: UUID) -> list[tuple[str, str, float, float, int, int]]:
    """Label, kind, months predicted and real (the middle ones), changes and homes of each part."""
    months: Any = func.percentile_cont(0.5).within_group(ServedRow.months)
    days: Any = func.percentile_cont(0.5).within_group(ServedRow.days)
    many = func.count()
    query = (
        select(
            ServedRow.label,
            ServedRow.kind,
            months,
            days / DAYS_PER_MONTH,
            many,
            func.count(func.distinct(ServedRow.home_id)),
        )
        .where(ServedRow.firm_id == firm)
        .group_by(ServedRow.label, ServedRow.kind)
        .order_by(many.desc(), ServedRow.label)
        .limit(MOST_PARTS)
    )
    return [(r[0], r[1], float(r[2]), float(r[3]), int(r[4]), int(r[5])) for r in db.execute(query)]


def outcomes(db: Session, firm: UUID, today: date) -> list[tuple[int, int, str, int]]:
    """How many proposals stand how today: year, quarter, state, count; drafts and what nobody
    decides about are left out.
    """
    month, state = func.substr(ProposalRow.written_on, 1, 7), state_on(today)
    query = (
        select(month, state, func.count())
        .where(
            ProposalRow.firm_id == firm,
            ProposalRow.state.in_(DECIDED),
            ProposalRow.written_on.is_not(None),
        )
        .group_by(month, state)
    )
    found: Counter[tuple[int, int, str]] = Counter()
    for said, state, many in db.execute(query):
        year, of_year = said.split("-")
        found[int(year), (int(of_year) + 2) // 3, state] += many
    return [(*key, many) for key, many in found.items()]


DECIDED = ("presented", "accepted", "declined", "expired")


def makers(db: Session, firm: UUID) -> dict[str, str]:
    """Who makes what, by the item's name."""
    name, maker = (ItemRow.data[k].as_string() for k in ("name", "maker"))
    return {n: m for n, m in db.execute(select(name, maker).where(ItemRow.firm_id == firm))}


class Behind(NamedTuple):
    """A job or a proposal behind a number: whose it is."""

    id: UUID
    customer: str
    place: str


_WHO = (HomeRow.customer["name"].as_string(), HomeRow.home["place"].as_string())


def _rows(db: Session, query: Select[Any]) -> list[Behind]:
    found = db.execute(query.limit(MOST_BEHIND))
    return [Behind(id, customer or "", place or "") for id, customer, place in found]


def _jobs(consultant: UUID | None) -> Select[Any]:
    return (
        select(JobRow.id, *_WHO)
        .join(VisitRow, VisitRow.id == JobRow.visit_id)
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(seen_by(consultant))
    )


def behind_promises(
    db: Session, firm: UUID, kind: str, items: list[str], analyte: str, consultant: UUID | None
) -> list[Behind]:
    """The jobs behind one line of the record, as far as somebody may see them."""
    those = select(ProvedRow.job_id).where(
        ProvedRow.firm_id == firm,
        ProvedRow.kind == kind,
        ProvedRow.item.in_(items),
        ProvedRow.analyte == analyte,
    )
    return _rows(db, _jobs(consultant).where(JobRow.id.in_(those)))


def behind_part(
    db: Session, firm: UUID, label: str, kind: str, consultant: UUID | None
) -> list[Behind]:
    """The jobs at which a part was changed, as far as somebody may see them."""
    those = select(ServedRow.job_id).where(
        ServedRow.firm_id == firm, ServedRow.label == label, ServedRow.kind == kind
    )
    return _rows(db, _jobs(consultant).where(JobRow.id.in_(those)))


def behind_outcome(
    db: Session,
    firm: UUID,
    state: str,
    since: str,
    before: str,
    consultant: UUID | None,
    today: date,
) -> list[Behind]:
    """Proposals that stand so today, written from one day on and before another (ISO dates)."""
    query = (
        select(ProposalRow.id, *_WHO)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(
            seen_by(consultant),
            ProposalRow.firm_id == firm,
            state_on(today) == state,
            ProposalRow.written_on >= since,
            ProposalRow.written_on < before,
        )
        .order_by(ProposalRow.written_on.desc())
    )
    return _rows(db, query)


def behind_waters(
    db: Session, firm: UUID, visits: list[UUID], consultant: UUID | None
) -> list[Behind]:
    """The visits whose raw waters are drawn, as far as somebody may see them; the latest first."""
    query = (
        select(VisitRow.id, *_WHO)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(seen_by(consultant), VisitRow.firm_id == firm, VisitRow.id.in_(visits))
        .order_by(VisitRow.started_at.desc())
    )
    return _rows(db, query)
