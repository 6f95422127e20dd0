"""A proposal as PDF, made apart from the requests."""

from __future__ import annotations

from ..core.presenting.offer import Offer
from ..core.proposing.proposal import Proposal
from .apart import papers
from .seals import Standing


def _pdf(offer: Offer, proposal: Proposal, seal: Standing) -> bytes:
    from ..documents.pdf import proposal_pdf  # takes more than a second to import: in the worker

    return proposal_pdf(offer, proposal, seal)


def pdf(offer: Offer, proposal: Proposal, seal: Standing) -> bytes:
    """The PDF's bytes.

    Raises:
        Busy: too many wait already. TooMuch: it takes more time or memory than it may.
    """
    return papers().run(_pdf, offer, proposal, seal)
