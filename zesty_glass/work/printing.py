"""A proposal as PDF, made apart from the requests."""

from __future__ import annotations

from sqlalchemy.orm import Session

from ..core.presenting.offer import Offer
from ..core.proposing.proposal import Proposal
from ..records.models import MailRow, ProposalRow
from . import proposing
from .apart import Busy, TooMuch, papers
from .seals import Standing


def _pdf(offer: Offer, proposal: Proposal, seal: Standing, link: str) -> bytes:
    from ..documents.pdf import proposal_pdf  # takes more than a second to import: in the worker

    return proposal_pdf(offer, proposal, seal, link)


def pdf(offer: Offer, proposal: Proposal, seal: Standing, link: str = "") -> bytes:
    """The PDF's bytes; ``link``: the address of its page, for a telephone's camera.

    Raises:
        Busy: too many wait already. TooMuch: it takes more time or memory than it may.
    """
    return papers().run(_pdf, offer, proposal, seal, link)


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
