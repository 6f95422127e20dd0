"""What the firm keeps of a customer: given out on request, and erased on request or by the firm's
own rule.

Erasing takes the person out and leaves what the firm must account for: proposals stay with their
figures, dates and states, without a name, an address or a signature; readings stay as readings of a
home nobody can find.
"""

from __future__ import annotations

import base64
from dataclasses import replace
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.job import Job
from ..core.home import Customer, Home
from ..core.presenting.offer import Offer
from ..core.proposing.proposal import Proposal, digest
from ..core.record import ERASED
from ..core.testing.complaints import Complaint
from ..documents.codec import load, load_json, plain, to_json
from ..documents.erasing import scrubbed, without_person, words_of
from ..records import audit, files, jobs, money, notes, one_home, opening, store
from ..records.after_models import JobRow
from ..records.models import (
    DemonstrationRow,
    HomeRow,
    LabSampleRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    VisitRow,
)
from . import jobs as job_work
from . import seals, visiting
from .person import Person, now
from .versioning import DOCUMENTS, change, note


def given_out(db: Session, who: Person, visit_id: UUID) -> dict[str, Any]:
    """Everything kept of the customer of a visit: the home, every visit to it that this person may
    see, mails, links.
    """
    visit = visiting.get(db, who, visit_id)
    home: HomeRow = store.get(db, HomeRow, who.firm_id, visit.home_id, "home")
    visits, mails, links, taken, paid = [], [], [], [], []
    for id, _, _ in opening.visits_of_home(db, who.firm_id, home.id):
        try:
            row = visiting.get(db, who, id)
        except store.NotFound:
            continue
        visits.append(plain(visiting.document(db, who, row)[0]))
        taken += [_picture(db, who, f.id) for f in files.of_visit(db, who.firm_id, id)]
        for p in store.of_visit(db, ProposalRow, who.firm_id, id):
            links += [
                {"made_at": x.made_at, "expires_at": x.expires_at, "opened": x.opened}
                for x in store.links(db, who.firm_id, p.id)
            ]
            paid += [
                {
                    "on": x.on,
                    "amount": x.amount,
                    "label": x.label,
                    "note": x.note,
                    "struck_because": x.struck_because,
                }
                for x in money.of_proposal(db, who.firm_id, p.id)
            ]
            mails += [
                {"at": m.at, "to": m.to, "subject": m.subject, "text": m.text}
                for m in store.mails_of(db, who.firm_id, p.id)
            ]
    return {
        "customer": home.customer,
        "others": home.others,
        "former": home.former,
        "home": home.home,
        "merged": [
            {"customer": h.customer, "others": h.others, "former": h.former, "home": h.home}
            for h in one_home.merged_into(db, who.firm_id, home.id)
        ],
        "visits": visits,
        "mails": mails,
        "links": links,
        "payments": paid,
        "pictures": taken,
        "notes": [
            {
                "on": n.on,
                "text": n.text,
                "by": n.by,
                "kind": n.kind,
                "outcome": n.outcome,
                "struck_because": n.struck_because,
            }
            for n in notes.of_home(db, who.firm_id, home.id)
        ],
        "jobs": [j.data for j in jobs.of_home(db, who.firm_id, home.id)],
    }


def _picture(db: Session, who: Person, id: UUID) -> dict[str, Any]:
    row = files.find(db, who.firm_id, id, whole=True)
    assert row is not None  # it was listed in this transaction
    data = base64.b64encode(row.data).decode()
    return {"at": row.at, "about": row.about, "of": row.of, "media": row.media, "base64": data}


def erase(db: Session, who: Person, visit_id: UUID) -> None:
    """Take the person out of a home, of all its visits, proposals, mails and links.
    Twice is once.
    """
    visit = visiting.get(db, who, visit_id, lock=True)
    erase_home(db, who, visit.home_id)


def erase_home(db: Session, who: Person, home_id: UUID) -> None:
    """The same, by the home: every field that is declared to go with a person loses what it says,
    and what it said is taken out of the papers that repeat it.
    """
    home: HomeRow = store.get(db, HomeRow, who.firm_id, home_id, "home", lock=True)
    seen = [id for id, _, _ in opening.visits_of_home(db, who.firm_id, home_id)]
    words = _words_of_home(db, home, seen)
    addresses = {p.get("email", "").strip() for p in (home.customer, *home.others)} - {""}
    change(db, who, home, _home_without_person(home), "erased")
    for gone in one_home.merged_into(db, who.firm_id, home_id):
        erase_home(db, who, gone.id)
    files.erase_of_visits(db, who.firm_id, seen)
    notes.blank(db, who.firm_id, home_id, ERASED)
    store.erase_mails_to(db, who.firm_id, addresses, ERASED)
    targets = [home_id]
    for id in seen:
        targets += [id, *_erase_visit(db, who, id, words)]
    for job in jobs.of_home(db, who.firm_id, home_id):
        _erase_job(db, who, job, words)
        targets.append(job.id)
    audit.take_out(db, who.firm_id, targets, ERASED, seals.newest_key(db))


def erase_former(db: Session, who: Person, home_id: UUID) -> None:
    """Take those who owned a home before out of it: their names, and what was said and written at
    visits of their time. The home's readings, jobs and owner stay. Twice is once.
    """
    home: HomeRow = store.get(db, HomeRow, who.firm_id, home_id, "home", lock=True)
    if not home.former:
        return
    until = max(date.fromisoformat(f["until"]) for f in home.former)
    every = opening.visits_of_home(db, who.firm_id, home_id)
    theirs = [id for id, at, _ in every if at.date() < until]
    words = {f["name"] for f in home.former}
    for id in theirs:
        row: VisitRow = store.get(db, VisitRow, who.firm_id, id, "visit", lock=True)
        for value in load(list[Complaint], row.complaints):
            words.update(words_of(value))
    change(db, who, home, {"former": []}, "former owners erased")
    files.erase_of_visits(db, who.firm_id, theirs)
    targets = [home_id]
    for id in theirs:
        targets += [id, *_erase_visit(db, who, id, words)]
    audit.take_out(db, who.firm_id, targets, ERASED, seals.newest_key(db))


def _home_without_person(home: HomeRow) -> dict[str, Any]:
    told: Home = load(Home, home.home)
    brought = home.brought and {**home.brought, "by": ERASED, "people": [], "former": []}
    return {
        "home": plain(replace(without_person(told), place="", note="")),
        "customer": plain(Customer(name=ERASED)),
        "former": [],
        "others": [],
        "brought": brought,
    }


def _words_of_home(db: Session, home: HomeRow, visits: list[UUID]) -> set[str]:
    """Everything that a home and its visits say in fields that go with a person."""
    words = {f["name"] for f in home.former}
    told = [load(Home, home.home), *load(list[Customer], [home.customer, *home.others])]
    for id in visits:
        row: VisitRow = store.get(db, VisitRow, home.firm_id, id, "visit", lock=True)
        told += load(list[Complaint], row.complaints)
        told += [load(DOCUMENTS[type(x)], x.data) for x in _parts(db, home.firm_id, id)]
    for value in told:
        words.update(words_of(value))
    return words - _COMMON


#: in every home: no sentence is without them
_COMMON = {"Kitchen cold", "kitchen cold", "outside tap"}


def _parts(db: Session, firm: UUID, visit: UUID) -> list[Any]:
    """Rows of a visit whose documents may hold what goes with a person."""
    return [row for kind in _PARTS for row in store.of_visit(db, kind, firm, visit)]


_PARTS: tuple[Any, ...] = (SampleRow, ReadingRow, OptionRow, DemonstrationRow, LabSampleRow)


def _erase_visit(db: Session, who: Person, id: UUID, words: set[str]) -> list[UUID]:
    """A visit, its parts and its proposals without the person; the ids of all of them."""
    row: VisitRow = store.get(db, VisitRow, who.firm_id, id, "visit", lock=True)
    complaints = load(tuple[Complaint, ...], row.complaints)
    bare = {
        "complaints": [plain(without_person(c)) for c in complaints],
        "note": "",
        "closed": row.closed and {**row.closed, "because": ERASED},
        "brought": row.brought and {**row.brought, "consultant": ERASED},
    }
    change(db, who, row, bare, "erased")
    parts = _parts(db, who.firm_id, id)
    for part in parts:
        _erase_part(part)
    proposals = store.of_visit(db, ProposalRow, who.firm_id, id)
    for p in proposals:
        _without_the_person(db, who, p, words)
    return [x.id for x in (*parts, *proposals)]


def _erase_part(row: Any) -> None:
    """A part of a visit without the person."""
    bare = plain(without_person(load(DOCUMENTS[type(row)], row.data)))
    data = {key: bare[key] for key in row.data}
    if isinstance(row, ReadingRow):
        row.struck_because = ERASED if row.struck_because else ""
    if data != row.data:
        row.data = data
        if not isinstance(row, ReadingRow):
            row.version += 1


def _erase_job(db: Session, who: Person, row: JobRow, words: set[str]) -> None:
    """Free words out of a job; what was fitted and changed stays."""
    bare = scrubbed(plain(without_person(job_work.opened(row))), words)
    job_work.keep(db, who, row, load(Job, bare), "erased")


def _without_the_person(db: Session, who: Person, row: ProposalRow, words: set[str]) -> None:
    store.erase_mails_and_links(db, who.firm_id, row.id, now(), ERASED)
    offer: Offer = load_json(Offer, row.data["snapshot"])
    if offer.customer.name == ERASED:
        return
    bare = replace(without_person(offer), customer=Customer(name=ERASED), place="")
    snapshot = to_json(load(Offer, scrubbed(plain(bare), words)), Offer).decode()
    said = f"The person was erased on {now():%Y-%m-%d}; its digest was {row.data['digest']}."
    own = without_person(load(Proposal, row.data))
    data = {**plain(own), "snapshot": snapshot, "digest": digest(snapshot), "said": said}
    data["corrections"] = []
    money.blank_notes(db, who.firm_id, row.id)
    for key in ("signature", "second"):
        if data.get(key):
            data[key] = {**scrubbed(data[key], words), "digest": digest(snapshot)}
    row.data, row.version, row.basis, row.moved = data, row.version + 1, "", None
    seals.set_on(db, row)
    note(db, who, row.id, "erased", row.version, [])


def forget_old(db: Session, who: Person, years: int) -> int:
    """Erase every home whose last visit is longer ago than the firm keeps people; how many there
    were.
    """
    before = now() - timedelta(days=round(365.25 * years))
    homes = store.homes_last_seen_before(db, who.firm_id, before, ERASED)
    for home in homes:
        erase_home(db, who, home)
    return len(homes)
