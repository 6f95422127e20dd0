"""What waits beside the parts that fall due: bottles near their end, kits to be checked, proposals
that run out, well water to be tested again, messages that failed.
"""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any, Literal, NamedTuple
from uuid import UUID

from sqlalchemy import ColumnElement, Select, exists, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Session, aliased

from ..core.errors import RuleError
from ..core.home import Source
from ..core.testing.instruments import Instrument
from ..core.testing.laboratory import KIND_BY_ID, LabSample
from ..documents.codec import load
from ..records import jobs, one_home, store
from ..records.after_models import JobRow
from ..records.models import HomeRow, LabSampleRow, MailRow, ProposalRow, VisitRow
from ..records.note_models import HomeNoteRow
from ..records.standing import LAST_DAY
from . import looking_again
from .jobs import whose
from .person import Person, now

Kind = Literal["bottle", "kit", "proposal", "again", "unmade", "case", "asked", "retest", "mail"]
REPORT_AFTER = timedelta(days=10)  # a laboratory's report takes so long: trade practice (2024)
KIT_AHEAD, PROPOSAL_AHEAD = timedelta(days=21), timedelta(days=14)
PROPOSAL_BEHIND = timedelta(days=60)
RAN_OUT = "A proposal has run out: give it a later day, revise it, or say that it is declined"
#: these stand first, whatever their day
FIRST = ("unmade", "again")
#: a private well’s water is tested every year: US CDC, private ground water wells (2024)
RETEST = timedelta(days=365)
RETEST_AHEAD, RETEST_BACK = timedelta(days=14), timedelta(days=120)
MOST = 100  # of each kind


class Waits(NamedTuple):
    """One thing that waits: until when, whose, and where it is looked at."""

    kind: Kind
    what: str
    whose: str
    on: date
    path: str


def waiting(db: Session, who: Person, at: datetime | None = None) -> list[Waits]:
    """Everything that waits for this person, the most pressing first; a fitter sees the kits."""
    time = at or now()
    if who.role == "installer":
        return sorted(_kits(db, who, time.date()), key=lambda w: (w.on, w.what))
    found = [
        *_bottles(db, who, time),
        *_kits(db, who, time.date()),
        *_proposals(db, who, time),
        *_moved_on(db, who, time),
        *_without_job(db, who, time),
        *_cases(db, who),
        *_asked(db, who),
        *_retests(db, who, time),
        *_mails(db, who),
    ]
    return sorted(found, key=lambda w: (w.kind not in FIRST, w.on, w.kind, w.whose, w.what))


def _visible(query: Select[Any], who: Person) -> Select[Any]:
    own = whose(who)
    if own is None:
        return query
    return query.where(or_(VisitRow.consultant_id == own, VisitRow.consultant_id.is_(None)))


_NAME = HomeRow.customer["name"].as_string()


def _bottles(db: Session, who: Person, at: datetime) -> list[Waits]:
    query = (
        select(LabSampleRow.data, VisitRow.id, _NAME)
        .join(VisitRow, VisitRow.id == LabSampleRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == who.firm_id)
        .where(LabSampleRow.data["reported_at"].as_string().is_(None))
        .where(LabSampleRow.data["struck_at"].as_string().is_(None))
        .order_by(LabSampleRow.data["drawn_at"].as_string().desc())
        .limit(MOST)
    )
    out = []
    for data, visit, name in db.execute(_visible(query, who)):
        try:
            bottle: LabSample = load(LabSample, data)
        except RuleError:  # its visit says what cannot be read; it shuts no list
            continue
        path = f"/visits/{visit}/test?kit=lab"
        on, what = _bottle(bottle, at)
        out.append(Waits(kind="bottle", what=what, whose=name, on=on, path=path))
    return out


def _bottle(bottle: LabSample, at: datetime) -> tuple[date, str]:
    """What a bottle waits for, and by when, until it is reported or struck."""
    kind = KIND_BY_ID[bottle.kind]
    if bottle.received_at is not None:
        on = (bottle.received_at + REPORT_AFTER).date()
        return on, f"Report: {kind.name}, at the laboratory since {bottle.received_at:%B %-d}"
    end = bottle.drawn_at + timedelta(hours=kind.holding_h)
    if end < at:
        said = f"Bottle: {kind.name}, too old since {end:%B %-d}: draw another, or strike it"
        return end.date(), said
    return end.date(), f"Bottle: {kind.name}, to the laboratory until {end:%d %B, %H:%M} UTC"


def _kits(db: Session, who: Person, today: date) -> list[Waits]:
    out = []
    for row in store.instruments(db, who.firm_id):
        try:
            kit: Instrument = load(Instrument, row.data)
        except RuleError:
            continue
        days = []
        if kit.reagent_expiry is not None:
            days.append((kit.reagent_expiry, "its reagent ends"))
        if kit.last_check is not None and kit.check_every_days is not None:
            days.append((kit.last_check + timedelta(days=kit.check_every_days), "to be checked"))
        out += [
            Waits(kind="kit", what=f"{kit.name}: {why}", whose="", on=day, path="/firm")
            for day, why in days
            if day <= today + KIT_AHEAD
        ]
    return out


def _of_proposals(who: Person) -> Select[Any]:
    """Proposals of the homes that a person sees, each with whose it is."""
    query = (
        select(ProposalRow, LAST_DAY, _NAME)
        .join(VisitRow, VisitRow.id == ProposalRow.visit_id)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(VisitRow.firm_id == who.firm_id)
        .limit(MOST)
    )
    return _visible(query, who)


def _signed_here(visit: InstrumentedAttribute[UUID]) -> ColumnElement[bool]:
    """That somebody signed a proposal of a visit."""
    signed = aliased(ProposalRow)
    return exists().where(signed.visit_id == visit, signed.state == "accepted")


def _proposals(db: Session, who: Person, at: datetime) -> list[Waits]:
    """Proposals that run out, or have run out lately, where nobody has signed another."""
    first, last = (at - PROPOSAL_BEHIND).date(), (at + PROPOSAL_AHEAD).date()
    query = _of_proposals(who).where(
        ProposalRow.state == "presented",
        LAST_DAY.between(first.isoformat(), last.isoformat()),
        ~_signed_here(ProposalRow.visit_id),
    )
    return [
        Waits(
            kind="proposal",
            what="A proposal runs out" if date.fromisoformat(day) >= at.date() else RAN_OUT,
            whose=name,
            on=date.fromisoformat(day),
            path=f"/proposals/{row.id}",
        )
        for row, day, name in db.execute(query)
    ]


_BEFORE = {"presented": "anybody signs", "accepted": "it is fitted"}


def _moved_on(db: Session, who: Person, at: datetime) -> list[Waits]:
    """Presented proposals that would say something else today, and signed ones that are not yet
    fitted and that a finding of health came after.
    """
    presented = (ProposalRow.state == "presented") & (at.date().isoformat() <= LAST_DAY)
    to_fit = exists().where(JobRow.proposal_id == ProposalRow.id, jobs.not_fitted())
    signed = (ProposalRow.state == "accepted") & to_fit
    query = _of_proposals(who).where(
        or_(presented, signed), or_(ProposalRow.stale, ProposalRow.moved.is_not(None))
    )
    out = []
    for row, _, name in db.execute(query):
        try:
            moved = looking_again.moved(db, row)
        except RuleError:  # its page says what cannot be read; it shuts no list
            continue
        why = next(iter((*moved.health, *(d.what for d in moved.changes))), "")
        if why:
            what = f"To be looked at again before {_BEFORE[row.state]}: {why}"
            path = f"/proposals/{row.id}"
            out.append(Waits(kind="again", what=what, whose=name, on=at.date(), path=path))
    return out


_CASES = {"complaint": "Complaint", "warranty": "Warranty"}


def _cases(db: Session, who: Person) -> list[Waits]:
    """Complaints and warranty cases that nobody has closed."""
    query = (
        select(HomeNoteRow, _NAME)
        .join(HomeRow, HomeRow.id == HomeNoteRow.home_id)
        .where(HomeNoteRow.firm_id == who.firm_id, HomeNoteRow.kind != "note")
        .where(HomeNoteRow.closed_on.is_(None), HomeNoteRow.struck_at.is_(None))
        .order_by(HomeNoteRow.on)
        .limit(MOST)
    )
    own = whose(who)
    if own is not None:
        mine = or_(VisitRow.consultant_id == own, VisitRow.consultant_id.is_(None))
        query = query.where(exists().where(VisitRow.home_id == HomeRow.id).where(mine))
    return [
        Waits(
            kind="case",
            what=f"{_CASES[row.kind]}: {row.text[:120]}",
            whose=name,
            on=row.on,
            path=f"/homes/{row.home_id}",
        )
        for row, name in db.execute(query)
    ]


def _asked(db: Session, who: Person) -> list[Waits]:
    """Who asks for a home that this person may give."""
    out = []
    for ask, user in one_home.asks(db, who.firm_id):
        home = store.get(db, HomeRow, who.firm_id, ask.home_id, "home")
        if who.role == "manager" or who.id in {
            u.id for u in one_home.looks_after(db, who.firm_id, home.id)
        }:
            what, path = f"{user.name} asks for this home", f"/homes/{home.id}"
            name = home.customer["name"]
            out.append(Waits(kind="asked", what=what, whose=name, on=ask.at.date(), path=path))
    return out


def _without_job(db: Session, who: Person, at: datetime) -> list[Waits]:
    """What was signed and could be made no job."""
    made = exists().where(JobRow.proposal_id == ProposalRow.id)
    query = _of_proposals(who).where(
        ProposalRow.state == "accepted",
        ProposalRow.data["recommended"].as_string() != "today",
        ~made,
    )
    return [
        Waits(
            kind="unmade",
            what="Signed, and its job could not be made",
            whose=name,
            on=at.date(),
            path=f"/proposals/{row.id}",
        )
        for row, _, name in db.execute(query)
    ]


_PRIVATE = tuple(s.value for s in Source if s is not Source.CITY)


def _retests(db: Session, who: Person, at: datetime) -> list[Waits]:
    """Homes on water of their own whose last visit was a year ago."""
    query = (
        select(VisitRow.home_id, VisitRow.id, VisitRow.started_at, _NAME)
        .join(HomeRow, HomeRow.id == VisitRow.home_id)
        .where(
            VisitRow.firm_id == who.firm_id,
            VisitRow.made_at.is_not(None),
            VisitRow.started_at > at - RETEST - RETEST_BACK,
            VisitRow.started_at < at - RETEST + RETEST_AHEAD,
            HomeRow.home["source"].as_string().in_(_PRIVATE),
        )
        .order_by(VisitRow.started_at.desc())
        .limit(MOST)
    )
    found: dict[UUID, Waits] = {}
    for home, visit, started, name in db.execute(_visible(query, who)):
        found.setdefault(
            home,
            Waits(
                kind="retest",
                what="Own water: coliform and nitrate once a year",
                whose=name,
                on=(started + RETEST).date(),
                path=f"/visits/{visit}",
            ),
        )
    return [w for home, w in found.items() if not _seen_since(db, who, home, at)]


def _seen_since(db: Session, who: Person, home: UUID, at: datetime) -> bool:
    """Whether a home was visited since; a visit that is only planned tests nothing."""
    made = exists().where(
        VisitRow.firm_id == who.firm_id,
        VisitRow.home_id == home,
        VisitRow.made_at.is_not(None),
        VisitRow.started_at > at - RETEST + RETEST_AHEAD,
    )
    return bool(db.scalar(select(made)))


def _mails(db: Session, who: Person) -> list[Waits]:
    if who.role != "manager":
        return []
    query = select(MailRow).where(MailRow.firm_id == who.firm_id, MailRow.state == "failed")
    rows = db.scalars(query.order_by(MailRow.at.desc()).limit(MOST))
    return [
        Waits(
            kind="mail",
            what=f"A message failed: {m.subject}",
            whose=m.to,
            on=m.at.date(),
            path="/outbox",
        )
        for m in rows
    ]
