"""The proposal: a dated snapshot with its states."""

from __future__ import annotations

import hashlib
from datetime import date, datetime
from decimal import Decimal
from typing import Annotated, Literal

from ..errors import RuleError
from ..record import Personal, Words, record

State = Literal[
    "draft",
    "presented",
    "accepted",
    "declined",
    "expired",
    "withdrawn",
    "replaced",
    "cancelled",
    "brought_in",
]

#: from -> allowed to
MOVES: dict[str, tuple[str, ...]] = {
    "draft": ("presented",),
    "presented": ("accepted", "declined", "withdrawn", "replaced"),
    "expired": ("declined", "withdrawn", "replaced"),
    "accepted": ("cancelled", "replaced"),
}
#: what asks for a reason, in a line
WITH_REASON = ("withdrawn", "cancelled")
COOLING_OFF = (
    "Home sales commonly have a statutory cooling-off period; local law decides (US: 16 CFR 429,"
    " three business days)."
)


@record
class Plan:
    """A payment plan: down payment, monthly payment and months."""

    down: Decimal = Decimal("0")
    monthly: Decimal
    months: int


@record
class Signature:
    """An acceptance: who, when, the drawn strokes (SVG path data; empty where the name was typed
    instead), the digest of what was signed, and what was read first.
    """

    name: Words
    at: datetime
    path: Annotated[str, Personal("M0,0 L0,0")]
    digest: str
    read: tuple[str, ...] = ()
    typed: bool = False


@record
class Correction:
    """What was noted beside a sealed signature, as of a name misspelt: by whom and when."""

    said: Words
    by: str
    at: datetime


@record
class Proposal:
    """One revision of a proposal. ``snapshot`` is the canonical JSON of every figure shown;
    ``digest`` is its SHA-256.

    A proposal that came in by a file is history and in state ``brought_in``: it was not signed
    here, and ``said`` tells what the file said of it.

    Args:
        because: why it was declined, withdrawn or cancelled; terms: on which a sale was cancelled
            when the right to do so without a penalty was over.
        two_sign: two people decide, and it is accepted once both have signed; second: who signed
            after the first.
        own_words: the reasons are the consultant's own, and not the tool's draft.
        extended_until: a later last day than the paper says.
        beside: presented as a second offer, without replacing the first.
        replaced_by: the revision that took its place. corrections: noted beside the signature.
    """

    id: str
    number: str
    revision: int = 1
    state: State = "draft"
    recommended: str
    reasons: Words
    horizon: int = 10
    plan: Plan | None = None
    created_at: datetime
    valid_until: date
    presented_at: datetime | None = None
    decided_at: datetime | None = None
    signature: Signature | None = None
    snapshot: str
    digest: str
    said: Words = ""
    because: Words = ""
    terms: Words = ""
    own_words: bool = False
    two_sign: bool = False
    second: Signature | None = None
    extended_until: date | None = None
    beside: bool = False
    replaced_by: str = ""
    corrections: tuple[Correction, ...] = ()

    @property
    def until(self) -> date:
        """The last day on which it can be accepted."""
        return self.extended_until or self.valid_until

    def state_on(self, day: date) -> State:
        """How it stands on a day: what was presented has expired once its last day is over."""
        return "expired" if self.state == "presented" and day > self.until else self.state


def digest(snapshot: str) -> str:
    """SHA-256 of a snapshot, in hexadecimal."""
    return hashlib.sha256(snapshot.encode()).hexdigest()


def move(state: str, to: str, until: date) -> None:
    """Refuse a move between states that is not allowed.

    Args:
        state: as it is today, which is "expired" once the last day is over. until: that day.
    """
    if state == to == "accepted":
        raise RuleError(
            "proposal.signed",
            "This proposal is accepted already.",
            "proposal",
            "Revise it to make the next version.",
        )
    if state == "expired" and to == "accepted":
        raise RuleError(
            "proposal.expired",
            f"This proposal was valid until {until.isoformat()}.",
            "proposal",
            "Give it a later day, or revise it to make one of today.",
        )
    if state == "replaced":
        raise RuleError(
            "proposal.replaced",
            "A newer revision has taken the place of this one.",
            "proposal",
            "Open the newer one.",
        )
    if to not in MOVES.get(state, ()):
        raise RuleError(
            "proposal.state",
            f"A proposal that is {state} cannot become {to}.",
            "proposal",
            "Revise it to make the next version." if state != "draft" else "Present it first.",
        )
