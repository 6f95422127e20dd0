"""What a manager asks on a Monday: who is where, what was sold and is owed, what was forgotten."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from decimal import Decimal
from typing import Any, Literal
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.equipment import rent_ends, rents
from ..core.aftercare.job import Job, ended_on
from ..core.analytes import ANALYTES, MICROBES
from ..core.errors import RuleError
from ..core.months import month_on
from ..core.presenting.paying import Owed, Sold, owed
from ..core.testing.laboratory import KIND_BY_ID, LabSample
from ..core.treating.letting import TERMS
from ..documents.codec import load
from ..records import monday as records
from ..records.monday import Whose
from . import money
from .person import Person, manager_only, now
from .waiting import REPORT_AFTER

What = Literal[
    "today",
    "sold",
    "discounts",
    "owed",
    "received",
    "decided",
    "declined",
    "expired",
    "reports",
    "bacteria",
    "never_made",
    "no_day",
    "rented",
    "questions",
    "mended",
]
EXPIRED_BACK = timedelta(days=90)
#: [share] of presented proposals that are decided about and were signed: too few say nothing
FEW = 5


@dataclass(frozen=True, slots=True)
class Row:
    """One line behind a number: the person of the firm, what, whose, when, how much [money], and
    where it is looked at.
    """

    person: str
    what: str
    whose: str
    place: str
    on: date | None
    path: str
    until: date | None = None
    amount: Decimal | None = None
    currency: str = ""


@dataclass(frozen=True, slots=True)
class Month:
    """The days a number counts: its first, and the first of the next month."""

    first: date
    next: date
    today: date


def month_of(day: date, today: date) -> Month:
    """The month that a day is in."""
    first = day.replace(day=1)
    return Month(first, month_on(first, 1), today)


def _row(x: Whose, what: str, on: date | None, path: str, **more: Any) -> Row:
    place = ", ".join(p for p in (x.home, x.place) if p)
    return Row(x.person, what, x.customer, place, on, path, **more)


def _start(day: date) -> datetime:
    return datetime.combine(day, time(), UTC)


def _today(db: Session, firm: UUID, m: Month) -> list[Row]:
    visits = records.visits(db, firm, _start(m.today), _start(m.today + timedelta(days=1)))
    out = [
        _row(x, f"{x.row.started_at:%H:%M} visit", m.today, f"/visits/{x.row.id}") for x in visits
    ]
    for x in records.jobs_on(db, firm, m.today):
        at, fitter = x.row.summary["planned_at"], x.row.summary["fitter"]
        what = f"{at} job: {x.row.summary['line']}".strip()
        path = f"/jobs/{x.row.id}"
        out.append(_row(x._replace(person=fitter or x.person), what, m.today, path))
    return sorted(out, key=lambda r: (r.person, r.what))


def _decided_on(x: Whose) -> date:
    return date.fromisoformat(x.row.data["decided_at"][:10])


def _path(x: Whose) -> str:
    return f"/proposals/{x.row.id}"


def _signed(db: Session, firm: UUID, m: Month) -> list[tuple[Whose, Sold | None]]:
    """What was signed in the month and holds."""
    found = records.decided(db, firm, m.first, m.next)
    return [(x, money.sold_of(x.row)) for x in found if x.row.data["state"] == "accepted"]


def _sold(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(
            x,
            f"Proposal {x.row.data['number']}, revision {x.row.data['revision']}",
            _decided_on(x),
            _path(x),
            amount=None if of is None else of.total,
            currency="" if of is None else of.currency,
        )
        for x, of in _signed(db, firm, m)
    ]


def _discounts(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, "Discount", _decided_on(x), _path(x), amount=of.discount, currency=of.currency)
        for x, of in _signed(db, firm, m)
        if of is not None and of.discount
    ]


def _owed(db: Session, firm: UUID, m: Month) -> list[Row]:
    span = (m.first, m.next - timedelta(days=1))
    out = []
    for x, data in records.signed(db, firm):
        of = money.sold_of(x.row)
        if of is None:
            continue
        job: Job | None = None if data is None else load(Job, data)
        in_use = None if job is None else job.fitted_on
        ended = None if job is None else ended_on(job)
        ends = (
            ()
            if job is None
            else tuple(
                rent_ends(n, job.moves, ended) for n, b in enumerate(job.bought) if b.terms != "buy"
            )
        )
        due = owed(of.payments, _decided_on(x), in_use, ended, span, ends)
        out += [
            _row(x, o.label, o.on, _path(x), amount=o.amount, currency=of.currency)
            for o in (*due, *_bought_out(job, span))
        ]
    return sorted(out, key=lambda r: (r.on or m.first, r.whose))


def _bought_out(job: Job | None, span: tuple[date, date]) -> list[Owed]:
    """What was bought out of its rent in a span of days."""
    return [
        Owed(label=f"{job.bought[m.piece].label}, bought out", amount=m.price, on=m.on)
        for m in (() if job is None else job.moves)
        if job is not None and m.price and span[0] <= m.on <= span[1]
    ]


def _received(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(
            x,
            x.row.label,
            x.row.on,
            f"/proposals/{x.row.proposal_id}",
            amount=x.row.amount,
        )
        for x in records.payments(db, firm, m.first, m.next)
    ]


_STATES = {"accepted": "signed", "cancelled": "signed, and cancelled since"}


def _decided(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, _STATES.get(x.row.data["state"], x.row.data["state"]), _decided_on(x), _path(x))
        for x in records.decided(db, firm, m.first, m.next)
    ]


def _declined(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, x.row.data.get("because") or "no reason given", _decided_on(x), _path(x))
        for x in records.decided(db, firm, m.first, m.next)
        if x.row.data["state"] == "declined"
    ]


def _expired(db: Session, firm: UUID, m: Month) -> list[Row]:
    out = []
    for x in records.expired(db, firm, m.today - EXPIRED_BACK, m.today):
        last = x.row.data.get("extended_until") or x.row.data["valid_until"]
        what = f"Proposal {x.row.data['number']}, revision {x.row.data['revision']}"
        out.append(_row(x, what, date.fromisoformat(last), _path(x)))
    return out


def _reports(db: Session, firm: UUID, m: Month) -> list[Row]:
    out = []
    for x in records.bottles(db, firm):
        try:
            bottle: LabSample = load(LabSample, x.row.data)
        except RuleError:
            continue
        assert bottle.received_at is not None  # it is asked for
        on = (bottle.received_at + REPORT_AFTER).date()
        if on < m.today:
            path = f"/visits/{x.row.visit_id}/test?kit=lab"
            out.append(_row(x, KIND_BY_ID[bottle.kind].name, on, path))
    return out


def _bacteria(db: Session, firm: UUID, m: Month) -> list[Row]:
    out = []
    for x in records.homes_with(db, firm, MICROBES):
        what = ", ".join(ANALYTES[a].name for a in MICROBES if a in x.row.found)
        out.append(_row(x, what, None, f"/homes/{x.row.id}"))
    return out


def _never_made(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, "Visit", x.row.started_at.date(), f"/visits/{x.row.id}")
        for x in records.never_made(db, firm, _start(m.today))
    ]


def _no_day(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, x.row.summary["line"], None, f"/jobs/{x.row.id}?part=plan")
        for x in records.jobs_without_day(db, firm)
    ]


def _rented(db: Session, firm: UUID, m: Month) -> list[Row]:
    out = []
    for x in records.rented(db, firm):
        job: Job = load(Job, x.row.data)
        for r in rents(job.bought, job.moves, job.fitted_on, ended_on(job), m.today):
            if r.state == "rented":
                how = TERMS[job.bought[r.piece].terms]
                what, path = f"{r.label}, {how}", f"/jobs/{x.row.id}?part=care"
                out.append(_row(x, what, r.start, path, until=r.until))
    return out


def _questions(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(x, x.row.text.partition("\n\n")[2][:300], x.row.at.date(), "/outbox")
        for x in records.questions(db, firm)
    ]


def _mended(db: Session, firm: UUID, m: Month) -> list[Row]:
    return [
        _row(
            x,
            f"{ANALYTES[x.row.analyte].name}: short at first, {x.row.verdict} now",
            None,
            f"/jobs/{x.row.job_id}?part=proof",
        )
        for x in records.mended(db, firm)
    ]


BEHIND: dict[What, Callable[[Session, UUID, Month], list[Row]]] = {
    "today": _today,
    "sold": _sold,
    "discounts": _discounts,
    "owed": _owed,
    "received": _received,
    "decided": _decided,
    "declined": _declined,
    "expired": _expired,
    "reports": _reports,
    "bacteria": _bacteria,
    "never_made": _never_made,
    "no_day": _no_day,
    "rented": _rented,
    "questions": _questions,
    "mended": _mended,
}


def behind(db: Session, who: Person, what: What, day: date | None = None) -> list[Row]:
    """What stands behind one number, of the month that a day is in; managers only."""
    manager_only(who)
    today = now().date()
    return BEHIND[what](db, who.firm_id, month_of(day or today, today))


def monday(db: Session, who: Person, day: date | None = None) -> dict[What, list[Row]]:
    """Everything that a manager asks on a Monday."""
    return {what: behind(db, who, what, day) for what in BEHIND}


def total(rows: Iterable[Row]) -> Decimal:
    """What the amounts of some rows come to [money]."""
    return sum((r.amount for r in rows if r.amount is not None), Decimal(0))
