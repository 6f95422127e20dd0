"""What a signed proposal comes to, and the payments that were noted for it."""

from __future__ import annotations

import json
from datetime import date, timedelta
from decimal import Decimal
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.presenting.offer import PlanTerms
from ..core.presenting.paying import Sold, sold
from ..core.proposing.price import PriceLine
from ..documents.codec import load
from ..records import money as records
from ..records import store
from ..records.after_models import PaymentRow
from ..records.models import ProposalRow
from .person import Person, now
from .versioning import another, note

MOST_PAYMENTS = 600  # of one proposal
MOST = Decimal("9999999.99")  # [money] of one payment


def sold_of(row: ProposalRow) -> Sold | None:
    """What a proposal comes to, as it was written; None where it cannot be read any more, or is
    erased.
    """
    if row.money is not None:
        kept: Sold = load(Sold, row.money)
        return kept
    try:
        said = json.loads(row.data["snapshot"])
        plan = None if said["plan"] is None else load(PlanTerms, said["plan"])
        price = tuple(load(PriceLine, x) for x in said.get("price", ()))
    except (ValueError, KeyError, TypeError, RuleError):
        return None
    return sold(price, plan, str(said.get("currency", "")))


def put(
    db: Session,
    who: Person,
    proposal: ProposalRow,
    id: UUID,
    on: date,
    amount: Decimal,
    label: str,
    said: str = "",
) -> PaymentRow:
    """Note a payment that was received, or paid back where the amount is below 0. A repeat changes
    nothing, another under its id is refused.

    Args:
        proposal: locked. label: what it was for. said: how it came, in a line; no card data.

    Raises:
        RuleError: nothing was signed, a day to come or before the proposal, or no amount.
    """
    have = store.find(db, PaymentRow, who.firm_id, id)
    if have is not None:
        as_kept = (have.proposal_id, have.on, have.amount, have.label, have.note)
        if as_kept != (proposal.id, on, amount, label.strip(), said.strip()):
            raise another("payment")
        return have
    if proposal.data["state"] not in ("accepted", "cancelled", "replaced"):
        raise RuleError("payment.unsigned", "Nothing was signed yet.", "proposal", "Sign it first.")
    written = date.fromisoformat(proposal.data["created_at"][:10])
    if not written - timedelta(days=1) <= on <= now().date():
        raise RuleError(
            "payment.day",
            f"No payment for it is of {on:%B %-d, %Y}.",
            "on",
            "Use the day it was received.",
        )
    if not 0 < abs(amount) <= MOST or amount != amount.quantize(Decimal("0.01")):
        raise RuleError(
            "payment.amount", "This is no amount of money.", "amount", "Type it with two decimals."
        )
    if len(records.of_proposal(db, who.firm_id, proposal.id)) >= MOST_PAYMENTS:
        raise RuleError("payment.full", "Enough payments are noted.", "payment", "")
    row = PaymentRow(
        id=id,
        firm_id=who.firm_id,
        proposal_id=proposal.id,
        on=on,
        amount=amount,
        label=label.strip(),
        note=said.strip(),
        by=who.name,
        at=now(),
        struck_at=None,
    )
    db.add(row)
    told = {"amount": str(amount), "on": on.isoformat()}
    note(db, who, proposal.id, "payment noted", proposal.version, [], None, told)
    db.flush()
    return row


def strike(db: Session, who: Person, proposal: ProposalRow, id: UUID, because: str) -> PaymentRow:
    """Strike a payment that was noted by mistake; it stays on record."""
    row: PaymentRow = store.get(db, PaymentRow, who.firm_id, id, "payment", lock=True)
    if row.proposal_id != proposal.id:
        raise store.NotFound("payment")
    if not because.strip():
        raise RuleError("strike.reason", "Striking needs a reason.", "because", "Write why.")
    if row.struck_at is None:
        row.struck_at, row.struck_because = now(), because.strip()[:500]
        note(db, who, proposal.id, "payment struck", proposal.version, [])
    return row
