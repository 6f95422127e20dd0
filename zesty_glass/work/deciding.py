"""Decide a proposal: present, sign, decline, withdraw, extend, cancel, note a correction."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Any, Literal, NamedTuple
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.presenting.offer import Offer
from ..core.proposing.cancelling import cancel_until
from ..core.proposing.proposal import WITH_REASON, Correction, Proposal, Signature, move
from ..core.rules import Settings
from ..core.visit import Visit
from ..documents.codec import load, load_json, plain
from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language
from ..records import store
from ..records.models import ProposalRow
from . import job_days, jobs, money, seals, versioning, visiting
from .person import Conflict, Person, now
from .proposing import Opened, get, opened
from .versioning import expect

LONGEST_EXTENSION = timedelta(days=366)
MOST_CORRECTIONS = 20

Decision = Literal["presented", "accepted", "declined", "withdrawn", "cancelled"]


class Why(NamedTuple):
    """Why a proposal is declined, withdrawn or cancelled, and the terms of a late cancellation."""

    because: str = ""
    terms: str = ""


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
    to: Decision,
    signed: Signed = Signed(),
    at: datetime | None = None,
    why: Why = Why(),
    beside: bool = False,
    two_sign: bool = False,
) -> ProposalRow:
    """Move a proposal on. Accepting records name, time, signature and digest, and freezes it.

    Args:
        at: that of ``make``. why: it is declined, withdrawn or cancelled. beside: present it as a
            second offer; else it takes the place of what was presented before it. two_sign: present
            it to two who decide together.
    """
    row = _locked(db, who, id)
    if row.data["state"] == to == "presented":
        return row
    expect(db, "proposal", row, version)
    time = at or now()
    if to == "accepted":
        return _accept(db, who, row, signed, time)
    if to == "presented":
        return _present(db, who, row, time, beside, two_sign)
    _with_reason(why, to)
    if to == "cancelled":
        return _cancel(db, who, row, time, why)
    _to(db, who, row, to, time, because=why.because.strip())
    return row


def _with_reason(why: Why, to: str) -> None:
    if to in WITH_REASON and not why.because.strip():
        raise RuleError(
            "proposal.because", "This needs a reason.", "because", "Write why, in a line."
        )


def _locked(db: Session, who: Person, id: UUID) -> ProposalRow:
    """A proposal with its visit, both locked, so that of two decisions the second sees the first.

    The visit comes first, as everywhere.
    """
    visiting.get(db, who, get(db, who, id).visit_id, lock=True)
    return get(db, who, id, lock=True)


def accept_shown(
    db: Session, who: Person, row: ProposalRow, digest: str, signed: Signed
) -> ProposalRow:
    """Accept a proposal as it was shown elsewhere; the same signature twice is once.

    Args:
        row: locked. digest: of what was shown, which is what is signed.

    Raises:
        Superseded: a newer revision has taken its place. Conflict: it was decided otherwise
            meanwhile. RuleError: see ``decide``.
    """
    proposal, _, _ = opened(db, row)
    names = [s.name for s in (proposal.signature, proposal.second) if s is not None]
    if proposal.state in ("accepted", "presented") and signed.name.strip() in names:
        return row
    if newer(db, row) is not None:
        raise Superseded
    if proposal.state == "expired" and proposal.digest == digest:
        move("expired", "accepted", proposal.until)
    if proposal.state != "presented" or proposal.digest != digest:
        raise Conflict("proposal", ["state"], "", row.version)
    return _accept(db, who, row, signed, now())


class Superseded(RuleError):
    """A newer revision has taken the place of what somebody wants to sign."""

    def __init__(self) -> None:
        super().__init__(
            "proposal.replaced",
            "A newer revision has taken the place of this one. Nothing was signed.",
            "proposal",
            "Open the newer one, and read what changed.",
        )

    def __reduce__(self) -> tuple[type[RuleError], tuple[object, ...]]:
        return (type(self), ())


def newer(db: Session, row: ProposalRow) -> ProposalRow | None:
    """The revision that has taken the place of a proposal; None while nothing has."""
    every = store.of_visit(db, ProposalRow, row.firm_id, row.visit_id)
    by_id = {str(p.id): p for p in every}
    found: ProposalRow | None = None
    here = row
    while here.data["state"] == "replaced" and here.data["replaced_by"] in by_id:
        found = here = by_id[here.data["replaced_by"]]
    if found is not None or row.data["state"] != "presented":
        return found
    later = [
        p
        for p in every
        if p.data["revision"] > row.data["revision"]
        and p.data["state"] in ("presented", "accepted")
        and not p.data.get("beside")
    ]
    return later[-1] if later else None  # as an older release left them, both presented


def _sealed(db: Session, row: ProposalRow) -> Opened:
    """A proposal that is about to be decided; RuleError where its seal is broken."""
    found = opened(db, row)
    if found.seal == "broken":
        raise RuleError(
            "proposal.seal",
            "This proposal was changed outside of the program: its seal does not fit.",
            "proposal",
            "Do not sign it. Write the next revision, and have the database looked at.",
        )
    return found


def _to(
    db: Session, who: Person, row: ProposalRow, to: str, at: datetime, **changed: Any
) -> Proposal:
    """Move a locked proposal to a state; as it was before. RuleError where it may not."""
    _sealed(db, row)
    proposal: Proposal = load(Proposal, row.data)
    move(proposal.state_on(at.date()), to, proposal.until)
    when = "presented_at" if to == "presented" else "decided_at"
    stamp = at.isoformat().replace("+00:00", "Z")
    _keep(db, who, row, to, **changed, **{"state": to, when: stamp})
    return proposal


def _keep(db: Session, who: Person, row: ProposalRow, action: str, **changed: Any) -> None:
    """Change fields of a locked proposal, and seal it anew."""
    versioning.change(db, who, row, {"data": {**row.data, **changed}}, action)
    seals.set_on(db, row)
    db.flush()


def _present(
    db: Session, who: Person, row: ProposalRow, at: datetime, beside: bool, two_sign: bool
) -> ProposalRow:
    """Present a proposal; what was presented before it is replaced, unless it stands beside it."""
    every = store.of_visit(db, ProposalRow, row.firm_id, row.visit_id)
    before = _presented_before(row, every)
    if beside and not may_stand_beside(row, every):
        raise RuleError(
            "proposal.beside",
            "A second offer beside the first recommends another line.",
            "beside",
            "Recommend another line, or let this revision take the place of the first.",
        )
    _to(db, who, row, "presented", at, beside=beside, two_sign=two_sign)
    for p in () if beside else before:
        _keep(db, who, p, "replaced", state="replaced", replaced_by=str(row.id))
    return row


def _presented_before(row: ProposalRow, every: list[ProposalRow]) -> list[ProposalRow]:
    return [p for p in every if p.id != row.id and p.data["state"] == "presented"]


def may_stand_beside(row: ProposalRow, every: list[ProposalRow]) -> bool:
    """Whether a proposal can be a second offer: others are presented, and recommend other lines."""
    lines = {p.data["recommended"] for p in _presented_before(row, every)}
    return bool(lines) and row.data["recommended"] not in lines


def _accept(
    db: Session, who: Person, row: ProposalRow, signed: Signed, at: datetime
) -> ProposalRow:
    """Accept a presented proposal; what it was made from becomes its job."""
    proposal, offer, _ = _sealed(db, row)
    if newer(db, row) is not None:
        raise Superseded
    move(load(Proposal, row.data).state_on(at.date()), "accepted", proposal.until)
    signature = _signature(signed, at, proposal.digest)
    _all_read(in_language(offer, signed.language), signed.read)
    first = proposal.signature
    if proposal.two_sign and first is None:
        _keep(db, who, row, "signed by the first of two", signature=plain(signature))
        return row
    if first is not None and first.name.casefold() == signature.name.casefold():
        raise RuleError(
            "signature.twice",
            f"{first.name} has signed already.",
            "name",
            "The second signature is of the other one who decides.",
        )
    if not proposal.beside:
        _take_the_place_of_what_was_signed(db, who, row)
    _to(db, who, row, "accepted", at, **{"second" if first else "signature": plain(signature)})
    of = money.sold_of(row)
    row.money = None if of is None else plain(of)
    if proposal.recommended != "today":
        jobs.make_if_possible(db, who, row)
    return row


def _take_the_place_of_what_was_signed(db: Session, who: Person, row: ProposalRow) -> None:
    """An earlier revision that was signed is replaced and its job ended, so that one sale makes one
    job; RuleError where that job is in use already.
    """
    for p in store.of_visit(db, ProposalRow, row.firm_id, row.visit_id):
        if p.id != row.id and p.data["state"] == "accepted" and not p.data.get("beside"):
            job_days.end_of_proposal(db, who, p, f"Replaced by revision {row.data['revision']}.")
            _keep(db, who, p, "replaced", state="replaced", replaced_by=str(row.id))


def _cancel(db: Session, who: Person, row: ProposalRow, at: datetime, why: Why) -> ProposalRow:
    """Cancel a sale, and end its job with it: without a penalty while the right to do so lasts,
    after that on terms that are written down.
    """
    proposal: Proposal = load(Proposal, row.data)
    last = right_to_cancel_until(db, row)
    if last is not None and at.date() > last and not why.terms.strip():
        raise RuleError(
            "proposal.terms",
            f"The right to cancel without a penalty ended on {last:%B %-d, %Y}.",
            "terms",
            "Write the terms on which it is cancelled now.",
        )
    because = why.because.strip()
    _to(db, who, row, "cancelled", at, because=because, terms=why.terms.strip())
    if proposal.recommended != "today":
        job_days.end_of_proposal(db, who, row, because, even_in_use=True)
    return row


def right_to_cancel_until(db: Session, row: ProposalRow) -> date | None:
    """The last day on which a signed sale can be cancelled without a penalty; None for a proposal
    that was not signed.
    """
    proposal: Proposal = load(Proposal, row.data)
    if proposal.signature is None:
        return None
    settings: Settings = load(Settings, store.firm(db, row.firm_id).settings)
    if row.basis:
        settings = load_json(Visit, row.basis, "basis").settings
    return cancel_until(proposal.signature.at.date(), settings.cancel_days)


def extend(db: Session, who: Person, id: UUID, version: int, until: date) -> ProposalRow:
    """Give a presented or expired proposal a later last day; the paper stays as it was written.

    Raises:
        RuleError: another state, or a day that is not later or more than a year ahead.
    """
    row = _locked(db, who, id)
    expect(db, "proposal", row, version)
    proposal = _sealed(db, row).proposal
    if row.data["state"] != "presented":
        raise RuleError(
            "proposal.state",
            f"A proposal that is {proposal.state} cannot be extended.",
            "proposal",
            "Revise it to make the next version.",
        )
    today = now().date()
    if not max(today, proposal.until) < until <= today + LONGEST_EXTENSION:
        raise RuleError(
            "proposal.until",
            f"It can be extended to a day after {max(today, proposal.until):%B %-d, %Y}, a year"
            " ahead at most.",
            "until",
            "Choose such a day.",
        )
    _keep(db, who, row, "extended", extended_until=until.isoformat())
    return row


def correct(db: Session, who: Person, id: UUID, version: int, said: str) -> ProposalRow:
    """Note a correction beside a signature, as of a name misspelt; the signature stays as it is."""
    row = _locked(db, who, id)
    expect(db, "proposal", row, version)
    proposal = _sealed(db, row).proposal
    if proposal.signature is None or not said.strip():
        raise RuleError(
            "signature.correction",
            "A correction is noted beside a signature, in a line.",
            "said",
            "Write what is right.",
        )
    if len(proposal.corrections) >= MOST_CORRECTIONS:
        raise RuleError("signature.full", "Enough was noted here.", "said", "Nothing was stored.")
    noted = (*proposal.corrections, Correction(said=said.strip(), by=who.name, at=now()))
    _keep(db, who, row, "correction noted", corrections=[plain(c) for c in noted])
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
