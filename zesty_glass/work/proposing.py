"""Write a proposal, open it, and revise it."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta
from typing import NamedTuple
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.presenting.offer import Offer, draft_letter, make_offer
from ..core.presenting.revision import Difference, differences
from ..core.proposing.price import Terms
from ..core.proposing.proposal import (
    Plan,
    Proposal,
    digest,
)
from ..core.visit import Visit
from ..documents.codec import load, load_json, plain, to_json
from ..records import store
from ..records.models import ProposalRow
from . import looking_again, seals, versioning, visiting
from .basis import basis_of
from .mending import worked
from .person import Person, now
from .versioning import note, request_of, same_request


class Draft(NamedTuple):
    """Reasons to begin with: the tool's draft, or the consultant's own words of the revision before
    with what changed since they were written.
    """

    fresh: str
    own: str = ""
    changes: tuple[Difference, ...] = ()


def draft(db: Session, who: Person, visit_id: UUID, recommended: str) -> Draft:
    """Reasons for an option to begin with."""
    visit, _ = visiting.document(db, who, visiting.get(db, who, visit_id))
    fresh = _drafted(visit, recommended)
    last = next(iter(store.of_visit(db, ProposalRow, who.firm_id, visit_id)[::-1]), None)
    if last is None or not last.data.get("own_words") or last.data["recommended"] != recommended:
        return Draft(fresh)
    moved = looking_again.compared(db, last)
    grave = (Difference(what="Found", before="not found", after=s) for s in moved.health)
    return Draft(fresh, last.data["reasons"], (*grave, *moved.changes))


def _drafted(visit: Visit, recommended: str) -> str:
    """The tool's own draft of the reasons for an option."""
    return worked(visit, lambda v: draft_letter(v, assess(v), recommended))


def make(
    db: Session,
    who: Person,
    visit_id: UUID,
    id: UUID,
    recommended: str,
    reasons: str,
    plan: Plan | None,
    answers: dict[str, str] | None = None,
    terms: Terms | None = None,
    at: datetime | None = None,
) -> ProposalRow:
    """Write a proposal from the visit as it is now. Sent twice with one id it is one proposal.

    ``at``: another time than now, for a past that is made up; no request can say it.

    A visit's later proposals are further revisions of the first one's number.
    """
    row = visiting.get(db, who, visit_id, lock=True)
    told: list[object] = [answers] if answers else []
    if terms is not None and terms != Terms():
        told.append(plain(terms))
    asked = request_of(visit_id, recommended, reasons, None if plan is None else plain(plan), *told)
    have = store.find(db, ProposalRow, who.firm_id, id)
    if have is not None:
        if have.visit_id != visit_id:
            raise store.NotFound("visit")
        same_request(have.request, asked, "proposal")
        return have
    every = store.of_visit(db, ProposalRow, who.firm_id, visit_id)
    earlier = [p for p in every if p.data["state"] != "brought_in"]
    if earlier and earlier[-1].data["state"] == "draft" and earlier[-1].made_by == who.id:
        versioning.note(db, who, earlier[-1].id, "draft replaced", earlier[-1].version, [])
        db.delete(earlier[-1])
        earlier = earlier[:-1]
        db.flush()
    visit, _ = visiting.document(db, who, row)
    visit = replace(visit, consultant=who.name)  # who writes it answers for it
    at = at or now()
    number = earlier[0].data["number"] if earlier else f"{at:%y%m%d}-{str(visit_id)[:4].upper()}"
    revision = max((p.data["revision"] for p in earlier), default=0) + 1
    valid = (at + timedelta(days=visit.settings.valid_days)).date()
    offer = worked(
        visit,
        lambda v: make_offer(
            v,
            number=number,
            revision=revision,
            created_at=at,
            valid_until=valid,
            recommended=recommended,
            reasons=reasons,
            plan=plan,
            answers=answers,
            terms=terms,
            priced_on=visiting.terms_of(row).date(),
        ),
    )
    snapshot = to_json(offer, Offer).decode()
    proposal = Proposal(
        id=str(id),
        number=number,
        revision=revision,
        recommended=recommended,
        reasons=offer.reasons,
        own_words=not offer.letter,
        horizon=visit.horizon,
        plan=plan,
        created_at=at,
        valid_until=valid,
        snapshot=snapshot,
        digest=digest(snapshot),
    )
    made = ProposalRow(
        id=id,
        firm_id=who.firm_id,
        visit_id=visit_id,
        position=store.next_position(db, ProposalRow, visit_id),
        data=plain(proposal),
        version=1,
        request=asked,
        made_by=who.id,
        basis="" if recommended == "today" else basis_of(visit, recommended),
    )
    seals.set_on(db, made)
    db.add(made)
    versioning.change(db, who, row, {"recommended": recommended})
    note(db, who, id, "written", 1, [], None, {"digest": proposal.digest})
    db.flush()
    return made


def get(db: Session, who: Person, id: UUID, lock: bool = False) -> ProposalRow:
    """A proposal this person may see."""
    row = store.get(db, ProposalRow, who.firm_id, id, "proposal", lock)
    visiting.get(db, who, row.visit_id)
    return row


class Opened(NamedTuple):
    """A proposal with its frozen offer, and how its seal stands: good, broken, or none."""

    proposal: Proposal
    offer: Offer
    seal: seals.Standing


def opened(db: Session, row: ProposalRow) -> Opened:
    """A proposal as it was written and stands today; RuleError when its snapshot cannot be read at
    all.
    """
    proposal: Proposal = load(Proposal, row.data)
    offer: Offer = load_json(Offer, proposal.snapshot, "snapshot")
    standing = seals.standing(db, row)
    return Opened(replace(proposal, state=proposal.state_on(now().date())), offer, standing)


def changed_since_the_one_before(
    db: Session, row: ProposalRow, every: list[ProposalRow]
) -> tuple[Difference, ...]:
    """What changed between a revision and the one before it; empty for the first."""
    earlier = [r for r in every if r.data["revision"] < row.data["revision"]]
    if not earlier:
        return ()
    before = max(earlier, key=lambda r: int(r.data["revision"]))
    return differences(opened(db, before).offer, opened(db, row).offer)
