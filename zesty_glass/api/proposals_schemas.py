"""What goes over the wire of proposals."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Annotated
from uuid import UUID

from pydantic import Field

from ..core.home import Customer
from ..core.presenting.offer import Offer
from ..core.presenting.paying import Sold
from ..core.presenting.revision import Difference, MovedOn
from ..core.proposing.price import Terms
from ..core.proposing.proposal import Correction, Plan, Signature
from ..core.record import record
from ..messages.catalogue import ORIGINAL, Language
from ..work.seals import Standing
from .schemas import Body


class ProposalBody(Body):
    """A proposal to write; without reasons the tool writes the first draft. ``answers``: how each
    stop of the recommended line is answered, by the stop's sentence.
    """

    id: UUID
    recommended: str = Field(max_length=80)
    reasons: str = Field(default="", max_length=8000)
    plan: Plan | None = None
    terms: Terms | None = None
    answers: dict[Annotated[str, Field(max_length=600)], Annotated[str, Field(max_length=2000)]] = (
        Field(default={}, max_length=40)
    )


@record
class Draft:
    """Reasons to begin with: the tool's draft, and the consultant's own words of the revision
    before, with what changed since they were written.
    """

    reasons: str
    own: str
    changes: tuple[Difference, ...]


class DecideBody(Body):
    """Move a proposal on."""

    version: int
    name: str = Field(default="", max_length=200)
    path: str = Field(default="", max_length=60_001)
    read: list[str] = Field(default=[], max_length=200)
    typed: bool = False
    language: Language = Field(default=ORIGINAL, description="That it was read in.")
    because: str = Field(default="", max_length=600)
    terms: str = Field(default="", max_length=2000)
    beside: bool = False
    two_sign: bool = False


class ExtendBody(Body):
    """A later last day for a proposal."""

    version: int
    until: date


class CorrectBody(Body):
    """What is noted beside a signature."""

    version: int
    said: str = Field(max_length=600)


class PaymentBody(Body):
    """A payment that was received, or paid back where the amount is below 0; no card data."""

    on: date
    amount: Decimal = Field(max_digits=9, decimal_places=2)
    label: str = Field(min_length=1, max_length=80)
    note: str = Field(default="", max_length=200)


@record
class Received:
    """A payment that was noted."""

    id: UUID
    on: date
    amount: Decimal
    label: str
    note: str
    by: str
    struck_because: str


@record
class ProposalView:
    """A proposal with its frozen offer, what changed since the revision before, and what would be
    said otherwise today; ``people``: who is at the home now, the customer first.
    """

    id: str
    visit: str
    state: str
    version: int
    digest: str
    presented_at: datetime | None
    decided_at: datetime | None
    signature: Signature | None
    offer: Offer
    latest: bool
    changed: tuple[Difference, ...]
    seal: Standing
    said: str
    until: date
    moved: MovedOn = MovedOn()
    because: str = ""
    terms: str = ""
    replaced_by: str = ""
    beside: bool = False
    beside_others: bool = False
    corrections: tuple[Correction, ...] = ()
    two_sign: bool = False
    second: Signature | None = None
    right_to_cancel_until: date | None = None
    sold: Sold | None = None
    received: tuple[Received, ...] = ()
    job: str = ""
    people: tuple[Customer, ...] = ()
