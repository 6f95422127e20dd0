"""The proposal: a dated snapshot with its states."""

from __future__ import annotations

import hashlib
from datetime import date, datetime
from decimal import Decimal
from typing import Literal

from ..errors import RuleError
from ..record import record

State = Literal["draft", "presented", "accepted", "declined", "expired", "brought_in"]

#: from -> allowed to
MOVES: dict[str, tuple[str, ...]] = {
    "draft": ("presented",),
    "presented": ("accepted", "declined", "expired"),
    "accepted": (),
    "declined": (),
    "expired": (),
    "brought_in": (),
}
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

    name: str
    at: datetime
    path: str
    digest: str
    read: tuple[str, ...] = ()
    typed: bool = False


@record
class Proposal:
    """One revision of a proposal. ``snapshot`` is the canonical JSON of every figure shown;
    ``digest`` is its SHA-256.

    A proposal that came in by a file is history and in state ``brought_in``: it was not signed
    here, and ``said`` tells what the file said of it.
    """

    id: str
    number: str
    revision: int = 1
    state: State = "draft"
    recommended: str
    reasons: str
    horizon: int = 10
    plan: Plan | None = None
    created_at: datetime
    valid_until: date
    presented_at: datetime | None = None
    decided_at: datetime | None = None
    signature: Signature | None = None
    snapshot: str
    digest: str
    said: str = ""


def digest(snapshot: str) -> str:
    """SHA-256 of a snapshot, in hexadecimal."""
    return hashlib.sha256(snapshot.encode()).hexdigest()


def move(state: str, to: str, on: date, valid_until: date) -> None:
    """Refuse a move between states that is not allowed, and accepting what has expired."""
    if state == to == "accepted":
        raise RuleError(
            "proposal.signed",
            "This proposal is accepted already.",
            "proposal",
            "Revise it to make the next version.",
        )
    if to == "accepted" and on > valid_until:
        raise RuleError(
            "proposal.expired",
            f"This proposal was valid until {valid_until.isoformat()}.",
            "proposal",
            "Revise it to make one of today.",
        )
    if to not in MOVES.get(state, ()):
        raise RuleError(
            "proposal.state",
            f"A proposal that is {state} cannot become {to}.",
            "proposal",
            "Revise it to make the next version." if state != "draft" else "Present it first.",
        )
