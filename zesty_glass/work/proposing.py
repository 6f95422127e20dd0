"""Make, present, decide and revise a proposal."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any, Literal, NamedTuple
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.errors import RuleError
from ..core.presenting.metric import in_units
from ..core.presenting.offer import Offer, draft_reasons, make_offer
from ..core.presenting.revision import Difference, differences
from ..core.proposing.price import Terms
from ..core.proposing.proposal import Plan, Proposal, Signature, digest, move
from ..documents.codec import load, load_json, plain, to_json
from ..messages.catalogue import ORIGINAL, Language
from ..messages.records import in_language
from ..records import store
from ..records.models import ProposalRow
from . import jobs, keeping, seals, visiting
from .keeping import expect, note, request_of, same_request
from .mending import worked
from .person import Conflict, Person, now


def draft(db: Session, who: Person, visit_id: UUID, recommended: str) -> str:
    """The tool's first draft of the reasons for an option."""
    visit, _ = visiting.document(db, who, visiting.get(db, who, visit_id))
    return in_units(worked(visit, lambda v: draft_reasons(assess(v), recommended)), visit)


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
        keeping.note(db, who, earlier[-1].id, "draft replaced", earlier[-1].version, [])
        db.delete(earlier[-1])
        earlier = earlier[:-1]
        db.flush()
    visit, _ = visiting.document(db, who, row)
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
        ),
    )
    snapshot = to_json(offer, Offer).decode()
    proposal = Proposal(
        id=str(id),
        number=number,
        revision=revision,
        recommended=recommended,
        reasons=offer.reasons,
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
    )
    seals.set_on(db, made)
    db.add(made)
    keeping.change(db, who, row, {"recommended": recommended})
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
    """A proposal as it was written; RuleError when its snapshot cannot be read at all."""
    proposal: Proposal = load(Proposal, row.data)
    offer: Offer = load_json(Offer, proposal.snapshot, "snapshot")
    standing = seals.standing(db, row)
    return Opened(proposal, offer, standing)


class Signed(NamedTuple):
    """What a customer signs with: the full name, drawn strokes or the name typed instead, and what
    they ticked as read."""

    name: str = ""
    path: str = ""
    read: tuple[str, ...] = ()
    typed: bool = False
    language: Language = ORIGINAL  # that it was read in


def decide(
    db: Session,
    who: Person,
    id: UUID,
    version: int,
    to: Literal["presented", "accepted", "declined"],
    signed: Signed = Signed(),
    at: datetime | None = None,
) -> ProposalRow:
    """Move a proposal on. Accepting records name, time, signature and digest, and freezes it.

    ``at``: that of ``make``.
    """
    row = get(db, who, id, lock=True)
    if row.data["state"] == to == "presented":
        return row
    expect(db, "proposal", row, version)
    return _move_on(db, who, row, to, signed, at or now())


def accept_shown(
    db: Session, who: Person, row: ProposalRow, digest: str, signed: Signed
) -> ProposalRow:
    """Accept a proposal as it was shown elsewhere; the same signature twice is once.

    Args:
        row: locked. digest: of what was shown, which is what is signed.

    Raises:
        Conflict: it was decided otherwise meanwhile. RuleError: see ``decide``.
    """
    proposal, _, _ = opened(db, row)
    done = proposal.signature
    if proposal.state == "accepted" and done and done.name == signed.name.strip():
        return row
    if proposal.state != "presented" or proposal.digest != digest:
        raise Conflict("proposal", ["state"], "", row.version)
    return _move_on(db, who, row, "accepted", signed, now())


def _move_on(
    db: Session, who: Person, row: ProposalRow, to: str, signed: Signed, at: datetime
) -> ProposalRow:
    proposal, offer, seal = opened(db, row)
    if seal == "broken":
        raise RuleError(
            "proposal.seal",
            "This proposal was changed outside of the program: its seal does not fit.",
            "proposal",
            "Do not sign it. Write the next revision, and have the database looked at.",
        )
    to_state = to
    if proposal.state == "presented" and at.date() > proposal.valid_until and to != "accepted":
        to_state = "expired"
    else:
        move(proposal.state, to, at.date(), proposal.valid_until)
    data: dict[str, Any] = dict(row.data)
    if to_state == "accepted":
        signature = _signature(signed, at, proposal.digest)
        _all_read(in_language(offer, signed.language), signed.read)
        data["signature"] = plain(signature)
    stamp = at.isoformat().replace("+00:00", "Z")
    data["state"] = to_state
    data["presented_at" if to_state == "presented" else "decided_at"] = stamp
    keeping.change(db, who, row, {"data": data}, to_state)
    seals.set_on(db, row)
    db.flush()
    if to_state == "accepted" and proposal.recommended != "today":
        jobs.make_if_possible(db, who, row)
    return row


def _all_read(offer: Offer, read: tuple[str, ...]) -> None:
    """RuleError when something that stands under “before you sign” was not ticked as read."""
    left = [k for k in offer.before_signing if k.sentence not in read]
    if left:
        raise RuleError(
            "signature.unread",
            f"{len(left)} of {len(offer.before_signing)} things to know before signing were not"
            " ticked as read.",
            "read",
            "Read them with the customer, and tick each.",
        )


SHORTEST_PATH, LONGEST_PATH = 12, 60_000  # [characters] of a drawn signature


def _signature(signed: Signed, at: datetime, digest: str) -> Signature:
    """An acceptance; RuleError without a full name, or without a signature that can be read: drawn,
    or the name typed in its place.
    """
    name, path = signed.name.strip(), "" if signed.typed else signed.path
    if len(name) < 2:
        raise RuleError(
            "signature.name",
            "An acceptance needs the full name.",
            "name",
            "Let the customer write it.",
        )
    drawn = path.startswith("M") and SHORTEST_PATH <= len(path) <= LONGEST_PATH
    if not signed.typed and not drawn:
        raise RuleError(
            "signature.path",
            "An acceptance needs a drawn signature.",
            "path",
            "Let the customer sign on the screen, or sign by typing the name.",
        )
    if set(path) - set("ML0123456789.,- "):
        raise RuleError(
            "signature.path",
            "The drawn signature could not be read.",
            "path",
            "Clear it and sign again.",
        )
    return Signature(
        name=name, at=at, path=path, digest=digest, read=signed.read, typed=signed.typed
    )


def changed_since_the_one_before(
    db: Session, row: ProposalRow, every: list[ProposalRow]
) -> tuple[Difference, ...]:
    """What changed between a revision and the one before it; empty for the first."""
    earlier = [r for r in every if r.data["revision"] < row.data["revision"]]
    if not earlier:
        return ()
    before = max(earlier, key=lambda r: int(r.data["revision"]))
    return differences(opened(db, before).offer, opened(db, row).offer)
