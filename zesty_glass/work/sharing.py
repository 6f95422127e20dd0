"""Share a proposal: links that are random, expire and can be revoked; mail; what a stranger with a
link may see.
"""

from __future__ import annotations

import re
import secrets
from dataclasses import replace
from datetime import datetime, timedelta
from typing import NamedTuple
from uuid import UUID, uuid4, uuid5

from sqlalchemy.orm import Session

from ..core.aftercare.job import Job, Standing
from ..core.errors import RuleError
from ..core.home import Customer
from ..core.presenting import letter
from ..core.presenting.offer import Offer
from ..core.presenting.revision import MovedOn
from ..core.proposing.proposal import Proposal
from ..messages.catalogue import ORIGINAL, Language, day_in, say_in
from ..records import signing, store
from ..records.models import LinkRow, MailRow, ProposalRow, VisitRow
from ..standins.mail import Mailer, Message, SimulatedMail, ascii_address
from . import deciding, jobs, looking_again, mailing, proposing, seals
from .person import Person, now
from .signing_in import FORGOTTEN_AFTER, TooMany, place_of, token_hash
from .versioning import note, request_of, same_request

LONGEST_DAYS = 90
MOST_WRONG, MOST_OPENED = (
    30,
    240,
)  # tries with wrong tokens from one address, and openings of one link, in a window
_ADDRESS = re.compile(r"[^@\s,;<>]+@[^@\s,;<>]+\.[^@\s,;<>]+")
NOT_SHARED = ("draft", "brought_in")


def fits_address(to: str) -> bool:
    """Whether a text is an address that can be written to."""
    if len(to) > 200 or _ADDRESS.fullmatch(to.strip()) is None:
        return False
    try:
        ascii_address(to)
    except ValueError:
        return False
    return True


def make_link(db: Session, who: Person, proposal: UUID, id: UUID, days: int) -> tuple[LinkRow, str]:
    """A new link to a proposal that was presented; its token is shown once and never again.

    Raises:
        RuleError: a draft, or a time outside 1 to 90 days.
    """
    row = proposing.get(db, who, proposal)
    if row.data["state"] in NOT_SHARED:
        raise RuleError("link.draft", "A draft is not shared.", "proposal", "Present it first.")
    if row.data["state"] in ("withdrawn", "replaced"):
        raise RuleError(
            "link.gone",
            f"This proposal is {row.data['state']}: nobody is sent to it any more.",
            "proposal",
            "Share the revision that holds.",
        )
    if not 1 <= days <= LONGEST_DAYS:
        raise RuleError(
            "link.days",
            f"A link of {days} days is not possible.",
            "days",
            f"Use 1 to {LONGEST_DAYS}.",
        )
    if db.get(LinkRow, id) is not None:
        raise RuleError(
            "link.twice",
            "This link was made already; its address was shown then.",
            "id",
            "Make another.",
        )
    token = secrets.token_urlsafe(32)
    made = LinkRow(
        id=id,
        firm_id=who.firm_id,
        proposal_id=proposal,
        token_hash=token_hash(token),
        made_at=now(),
        made_by=who.name,
        expires_at=now() + timedelta(days=days),
        revoked_at=None,
        opened_at=None,
        opened=0,
    )
    db.add(made)
    note(db, who, proposal, "link made", row.version, [])
    db.flush()
    return made, token


def links(db: Session, who: Person, proposal: UUID) -> list[LinkRow]:
    """Links to a proposal that this person may see."""
    proposing.get(db, who, proposal)
    return store.links(db, who.firm_id, proposal)


def revoke(db: Session, who: Person, id: UUID) -> LinkRow:
    """Make a link worthless at once; twice is once."""
    row = store.link(db, who.firm_id, id)
    proposing.get(db, who, row.proposal_id)
    if row.revoked_at is None:
        row.revoked_at = now()
        note(db, who, row.proposal_id, "link revoked", 0, [])
    return row


def _for_the_customer(offer: Offer) -> Offer:
    """The offer without what a stranger with the link has no need of."""
    return replace(offer, customer=Customer(name=offer.customer.name))


class ByLink(NamedTuple):
    """What a link leads to: the proposal it was made for, or the newer revision that has taken its
    place; and what moved on since.
    """

    proposal: Proposal
    offer: Offer
    seal: seals.Standing
    replaced: bool
    moved: MovedOn


def open_link(db: Session, token: str, address: str) -> ByLink | None:
    """The proposal behind a token, and nothing else; None when the link is not one of ours, has
    expired or was revoked: all three look alike from outside.

    Raises:
        TooMany: too many tries from this address, or openings of this link.
    """
    row = _standing_link(db, token)
    if row is None:
        wrong = f"link-from:{place_of(address)}"
        if signing.admitted(db, wrong, now(), MOST_WRONG, FORGOTTEN_AFTER) is None:
            raise TooMany
        return None
    if signing.admitted(db, f"link:{row.id}", now(), MOST_OPENED, FORGOTTEN_AFTER) is None:
        raise TooMany
    row.opened, row.opened_at = row.opened + 1, now()
    asked = _proposal_of(db, row)
    shown = deciding.newer(db, asked) or asked
    proposal, offer, seal = proposing.opened(db, shown)
    moved = looking_again.moved(db, shown)
    return ByLink(proposal, _for_the_customer(offer), seal, shown.id != asked.id, moved)


def _proposal_of(db: Session, link: LinkRow, lock: bool = False) -> ProposalRow:
    """The proposal that a link was made for."""
    found: ProposalRow = store.get(
        db, ProposalRow, link.firm_id, link.proposal_id, "proposal", lock
    )
    return found


def job_behind(db: Session, token: str) -> tuple[Job, Standing] | None:
    """The job behind a link that was opened just now, and how it stands."""
    row = store.link_by_token(db, token_hash(token))
    if row is None:
        return None
    asked = _proposal_of(db, row)
    return jobs.behind(db, row.firm_id, (deciding.newer(db, asked) or asked).id)


MOST_ASKED = 5  # questions by one link that need not wait
MOST_SIGNED = 10  # tries to accept by one link that need not wait
LONGEST_QUESTION = 2000  # [characters]
ABOUT = {"question": "has a question", "visit": "asks for a visit"}


def _standing_link(db: Session, token: str) -> LinkRow | None:
    """A link that still counts; None for one that does not, whatever the cause."""
    row = store.link_by_token(db, token_hash(token)) if 20 <= len(token) <= 100 else None
    if row is None or row.revoked_at is not None or row.expires_at <= now():
        return None
    return row


BY_LINK = "the customer, by link"


def _stranger(row: LinkRow) -> Person:
    """Who acts by a link: the customer, whom nobody signed in. They are named by the link alone,
    which leads to them for as long as they are not erased.
    """
    return Person(id=row.id, firm_id=row.firm_id, name=BY_LINK, role="")


def _tell_the_firm(
    db: Session, who: Person, shown: ProposalRow, id: UUID, subject: str, said: str, about: str
) -> None:
    """A message to whoever made the visit; it waits in the outbox where mail goes out."""
    to = store.consultant_of(db, shown.firm_id, shown.visit_id)
    if mailing.queues(db) and to:
        mailing.put(db, who, to, subject, said, proposal=shown.id, id=id, about=about)
        return
    db.add(
        MailRow(
            id=id,
            firm_id=shown.firm_id,
            proposal_id=shown.id,
            at=now(),
            by=who.name,
            to=to,
            subject=subject,
            text=said,
            attachment="",
            simulated=True,
            request="",
            about=about,
        )
    )


def ask(db: Session, token: str, id: UUID, about: str, text: str) -> bool:
    """A question, or the wish for a visit, from whoever holds a link; it goes to who made the
    visit. False for a link that does not count. Sent twice with one id it is one.

    Raises:
        RuleError: nothing was written, or too much. TooMany: too many by this link.
    """
    row = _standing_link(db, token)
    if row is None:
        return False
    have = db.get(MailRow, id)
    if have is not None:
        return have.firm_id == row.firm_id and have.proposal_id == row.proposal_id
    if not 3 <= len(text.strip()) <= LONGEST_QUESTION or about not in ABOUT:
        raise RuleError(
            "ask.text",
            f"Write 3 to {LONGEST_QUESTION:,} characters.",
            "text",
            "Say what you want to know, or when somebody may come.",
        )
    if signing.admitted(db, f"ask:{row.id}", now(), MOST_ASKED, FORGOTTEN_AFTER) is None:
        raise TooMany
    shown = _proposal_of(db, row)
    offer = proposing.opened(db, shown).offer
    who = _stranger(row)
    subject = f"{offer.customer.name} {ABOUT[about]}: proposal {offer.number}"
    said = f"{offer.customer.name}, {offer.home}, writes by the link:\n\n{text.strip()}"
    _tell_the_firm(db, who, shown, id, subject, said, about)
    note(db, who, shown.id, f"asked: {about}", 0, [])
    db.flush()
    return True


def try_to_accept(db: Session, token: str) -> None:
    """Count a try to accept by a link, to be kept whatever becomes of it.

    Raises:
        TooMany: too many by this link.
    """
    row = _standing_link(db, token)
    if row is None:
        return
    if signing.admitted(db, f"accept:{row.id}", now(), MOST_SIGNED, FORGOTTEN_AFTER) is None:
        raise TooMany


def accept(db: Session, token: str, digest: str, signed: deciding.Signed) -> bool:
    """Accept a proposal by its link, with the rules of signing on the screen; the firm is told.
    False for a link that does not count. The same signature twice is once.

    Args:
        digest: of the proposal as it was shown behind the link.

    Raises:
        RuleError: see ``deciding.decide``. Conflict: it was decided meanwhile, or is not what was
            shown.
    """
    row = _standing_link(db, token)
    if row is None:
        return False
    asked = _proposal_of(db, row)
    store.get(db, VisitRow, row.firm_id, asked.visit_id, "visit", lock=True)  # as in decide
    shown = _signed_for(db, row, digest)
    before = shown.data["state"]
    offer = proposing.opened(db, shown).offer
    # the signature is the customer's; the job that follows from it is made for the firm
    who = replace(_stranger(row), role="manager")
    deciding.accept_shown(db, who, shown, digest, signed)
    if before != "accepted" and shown.data["state"] != "accepted":
        subject = f"{offer.customer.name}: one of two signed proposal {offer.number}"
        said = f"{signed.name.strip()} signed by the link. The second signature is wanted."
        told = uuid5(shown.id, "first")
        if db.get(MailRow, told) is None:
            _tell_the_firm(db, who, shown, told, subject, said, "signature")
    elif before != "accepted":
        subject = f"{offer.customer.name} accepted proposal {offer.number}"
        said = f"{signed.name.strip()} signed by the link for {offer.home}. {_its_job(db, shown)}"
        told = uuid5(shown.id, "accepted")
        _tell_the_firm(db, who, shown, told, subject, said, "signature")
    db.flush()
    return True


def _signed_for(db: Session, link: LinkRow, digest: str) -> ProposalRow:
    """Which revision is signed by a link: the newer one where that is what was shown, else its own,
    locked.
    """
    asked = _proposal_of(db, link, lock=True)
    newer = deciding.newer(db, asked)
    if newer is None or newer.data["digest"] != digest:
        return asked
    found: ProposalRow = store.get(db, ProposalRow, link.firm_id, newer.id, "proposal", lock=True)
    return found


def _its_job(db: Session, signed: ProposalRow) -> str:
    """What the firm is told of the job that follows from a signature."""
    if signed.data["recommended"] == "today":
        return "Nothing was sold: there is nothing to fit."
    if jobs.behind(db, signed.firm_id, signed.id) is not None:
        return "Its job is made."
    return "Its job could not be made: it stands at the top of what is due."


def mail(
    db: Session,
    who: Person,
    proposal: UUID,
    id: UUID,
    to: str,
    text: str,
    days: int,
    base: str,
    mailer: Mailer | None = None,
    language: Language = ORIGINAL,
) -> MailRow:
    """Send a proposal's link in the language of whoever gets it, with its PDF named as attached.
    Sent twice with one id it is one message.

    Raises:
        RuleError: no address that can be written to, a draft, or a text that is too long.
    """
    asked = request_of(proposal, to, text, days, language)
    found = proposing.get(db, who, proposal)
    have = db.get(MailRow, id)
    if have is not None:
        if have.firm_id != who.firm_id or have.proposal_id != proposal:
            raise store.NotFound("message")
        same_request(have.request, asked, "message")
        return have
    if not fits_address(to):
        raise RuleError(
            "mail.address",
            f"“{to[:60]}” is not an address that can be written to.",
            "to",
            "Write it as name@place.example.",
        )
    if len(text) > 5000:
        raise RuleError(
            "mail.long", "The text is longer than 5,000 characters.", "text", "Shorten it."
        )
    offer = proposing.opened(db, found).offer
    link, token = make_link(db, who, proposal, uuid4(), days)
    waits = mailer is None and mailing.queues(db)
    last = day_in(language, link.expires_at.date())
    say = say_in(language, frozenset({last}))
    read = "" if language == ORIGINAL else f"?language={language}"
    lines = [
        text.strip(),
        say(letter.read_until(last)),
        (mailing.PLACE if waits else f"{base}/p/{token}") + read,
        f"{offer.consultant}, {offer.firm}",
    ]
    message = Message(
        to=to.strip(),
        subject=say(letter.subject(offer.number, offer.revision)),
        text="\n\n".join(x for x in lines if x),
        attachment=f"proposal-{offer.number}-{offer.revision}.pdf",
    )
    if waits:
        row = mailing.put(
            db,
            who,
            message.to,
            message.subject,
            message.text,
            attachment=message.attachment,
            fresh=f"link:{link.id}",
            proposal=proposal,
            id=id,
            request=asked,
        )
        note(db, who, proposal, "mailed", 0, [])
        return row
    sender = mailer or SimulatedMail()
    sender.send(message)
    row = MailRow(
        id=id,
        firm_id=who.firm_id,
        proposal_id=proposal,
        at=now(),
        by=who.name,
        to=message.to,
        subject=message.subject,
        text=message.text.replace(token, mailing.UNKEPT),
        attachment=message.attachment,
        simulated=sender.simulated,
        request=asked,
    )
    db.add(row)
    note(db, who, proposal, "mailed", 0, [])
    db.flush()
    return row


def outbox(db: Session, who: Person, most: int = 100) -> list[MailRow]:
    """The latest that went out; a consultant sees what they may see the proposals of."""
    out: list[MailRow] = []
    for m in store.mails(db, who.firm_id):
        try:
            if m.proposal_id is not None:
                proposing.get(db, who, m.proposal_id)
        except store.NotFound:
            continue
        out.append(m)
        if len(out) == most:
            break
    return out


def answered(db: Session, who: Person, id: UUID) -> MailRow:
    """Say that a question was answered, as by telephone; twice is once."""
    row = next((m for m in outbox(db, who, most=10_000) if m.id == id), None)
    if row is None or row.about not in ABOUT:
        raise store.NotFound("question")
    if row.answered_at is None:
        row.answered_at = now()
        note(db, who, row.id, "answered", 0, [])
    return row


def standing(row: LinkRow, at: datetime) -> str:
    """Whether a link still counts: open, expired or revoked."""
    if row.revoked_at is not None:
        return "revoked"
    return "expired" if row.expires_at <= at else "open"
