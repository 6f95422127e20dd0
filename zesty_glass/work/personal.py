"""What the firm keeps of a customer: given out on request, and erased on request or by the firm's
own rule.

Erasing takes the person out and leaves what the firm must account for: proposals stay with their
figures, dates and states, without a name, an address or a signature; readings stay as readings of a
home nobody can find.
"""

from __future__ import annotations

import base64
from dataclasses import replace
from datetime import timedelta
from typing import Any
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.home import Care, Customer, Home
from ..core.presenting.offer import Offer
from ..core.proposing.proposal import digest
from ..documents.codec import load, load_json, plain, to_json
from ..records import files, jobs, money, notes, one_home, opening, store
from ..records.after_models import JobRow
from ..records.models import HomeRow, ProposalRow, VisitRow
from . import seals, visiting
from .keeping import change, note
from .person import Person, now

ERASED = "(erased)"


def given_out(db: Session, who: Person, visit_id: UUID) -> dict[str, Any]:
    """Everything kept of the customer of a visit: the home, every visit to it that this person may
    see, mails, links.
    """
    visit = visiting.get(db, who, visit_id)
    home: HomeRow = store.get(db, HomeRow, who.firm_id, visit.home_id, "home")
    visits, mails, links, taken = [], [], [], []
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
        "pictures": taken,
        "notes": [
            {"on": n.on, "text": n.text, "by": n.by}
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
    """The same, by the home."""
    home: HomeRow = store.get(db, HomeRow, who.firm_id, home_id, "home", lock=True)
    told: Home = load(Home, home.home)
    bare = replace(told, name=ERASED, place="", note="", care=Care())
    erased = {"home": plain(bare), "customer": plain(Customer(name=ERASED)), "former": []}
    brought = home.brought and {**home.brought, "by": ERASED, "people": [], "former": []}
    change(db, who, home, {**erased, "others": [], "brought": brought}, "erased")
    for gone in one_home.merged_into(db, who.firm_id, home_id):
        erase_home(db, who, gone.id)
    seen = [id for id, _, _ in opening.visits_of_home(db, who.firm_id, home_id)]
    files.erase_of_visits(db, who.firm_id, seen)
    notes.blank(db, who.firm_id, home_id, ERASED)
    for job in jobs.of_home(db, who.firm_id, home_id):
        _job_without_words(db, who, job)
    for id, _, _ in opening.visits_of_home(db, who.firm_id, home_id):
        row: VisitRow = store.get(db, VisitRow, who.firm_id, id, "visit", lock=True)
        complaints = [{**c, "words": ERASED} for c in row.complaints]
        closed = None if row.closed is None else {**row.closed, "because": ERASED}
        bare_visit = {"complaints": complaints, "note": "", "closed": closed}
        change(db, who, row, bare_visit, "erased")
        store.blank_notes(db, who.firm_id, id, ERASED)
        for p in store.of_visit(db, ProposalRow, who.firm_id, id):
            _without_the_person(db, who, p)


def _job_without_words(db: Session, who: Person, row: JobRow) -> None:
    """Free words out of a job; what was fitted and changed stays."""
    data = {**row.data, "note": ""}
    data["changes"] = [{**c, "note": ""} for c in row.data.get("changes", ())]
    data["reopened"] = [{**x, "because": ERASED} for x in row.data.get("reopened", ())]
    if data.get("ended"):
        data["ended"] = {**data["ended"], "because": ERASED}
    change(db, who, row, {"data": data}, "erased")


def _without_the_person(db: Session, who: Person, row: ProposalRow) -> None:
    store.erase_mails_and_links(db, who.firm_id, row.id, now(), ERASED)
    offer: Offer = load_json(Offer, row.data["snapshot"])
    if offer.customer.name == ERASED:
        return
    bare = replace(
        offer,
        customer=Customer(name=ERASED),
        home=ERASED,
        place="",
        reasons=ERASED,
        rows=tuple(replace(r, complaints=()) for r in offer.rows),
        findings=tuple(replace(f, explains=()) for f in offer.findings),
    )
    snapshot = to_json(bare, Offer).decode()
    said = f"The person was erased on {now():%Y-%m-%d}; its digest was {row.data['digest']}."
    data = {**row.data, "snapshot": snapshot, "digest": digest(snapshot), "said": said}
    data |= {"reasons": ERASED, "corrections": []}
    data |= {key: ERASED for key in ("because", "terms") if data.get(key)}
    money.blank_notes(db, who.firm_id, row.id)
    for key in ("signature", "second"):
        if data.get(key):
            bare_one = {"name": ERASED, "path": "M0,0 L0,0", "digest": digest(snapshot)}
            data[key] = {**data[key], **bare_one}
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
