"""Queries of payments. Every one is scoped to a firm."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from ..core.record import ERASED
from .after_models import PaymentRow


def of_proposal(db: Session, firm: UUID, proposal: UUID) -> list[PaymentRow]:
    """Payments noted for a proposal, in the order of their days; struck ones too."""
    query = select(PaymentRow).where(PaymentRow.firm_id == firm, PaymentRow.proposal_id == proposal)
    return list(db.scalars(query.order_by(PaymentRow.on, PaymentRow.at)))


def blank_notes(db: Session, firm: UUID, proposal: UUID) -> None:
    """Free words out of every payment of a proposal; amounts and days stay."""
    db.execute(
        update(PaymentRow)
        .where(PaymentRow.firm_id == firm, PaymentRow.proposal_id == proposal)
        .values(label=ERASED, note="", struck_because="")
    )
