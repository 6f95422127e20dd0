"""What goes home as PDF, made apart from the requests."""

from __future__ import annotations

import pickle
from hashlib import sha256

from sqlalchemy.orm import Session

from .. import __version__
from ..core.presenting.filter_check import FilterCheck
from ..core.presenting.offer import Offer
from ..core.proposing.proposal import Proposal
from ..messages.catalogue import ORIGINAL, Language
from ..records.models import MailRow, ProposalRow
from . import proposing
from .apart import Busy, TooMuch, papers
from .held import Held
from .seals import Standing

MOST_BYTES = 32_000_000  # of finished PDFs, some 200 of them
_made = Held(MOST_BYTES)


def _pdf(offer: Offer, proposal: Proposal, seal: Standing, link: str, language: Language) -> bytes:
    from ..documents.pdf import proposal_pdf  # takes more than a second to import: in the worker

    return proposal_pdf(offer, proposal, seal, link, language)


def pdf(
    offer: Offer,
    proposal: Proposal,
    seal: Standing,
    link: str = "",
    language: Language = ORIGINAL,
) -> bytes:
    """The PDF's bytes; ``link``: the address of its page, for a telephone's camera. One that was
    made of the very same before is given again.

    Raises:
        Busy: too many wait already. TooMuch: it takes more time or memory than it may.
    """
    key = sha256(pickle.dumps((__version__, offer, proposal, seal, link, language))).hexdigest()
    made = _made.get(key)
    if made is None:
        made = papers().run(_pdf, offer, proposal, seal, link, language)
        _made.put(key, made)
    return made


def _check_pdf(check: FilterCheck) -> bytes:
    from ..documents.pdf import filter_check_pdf  # as above

    return filter_check_pdf(check)


def filter_check(check: FilterCheck) -> bytes:
    """The page of a filter check as a PDF; Busy and TooMuch as above."""
    return papers().run(_check_pdf, check)


def attached(db: Session, mail: MailRow) -> bytes:
    """The PDF that goes with a message; empty where it cannot be made now."""
    row = None if mail.proposal_id is None else db.get(ProposalRow, mail.proposal_id)
    if row is None:
        return b""
    found = proposing.opened(db, row)
    try:
        return pdf(found.offer, found.proposal, found.seal)
    except (Busy, TooMuch):
        return b""
