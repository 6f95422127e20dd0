"""Queries of payments. Every one is scoped to a firm."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from .after_models import PaymentRow


def of_proposal(db: Session, firm: UUID, proposal: UUID) -> list[PaymentRow]:
    """Payments noted for a proposal, in the order of their days; struck ones too."""
    query = select(PaymentRow).where(PaymentRow.firm_id == firm, PaymentRow.proposal_id == proposal)
    return list(db.scalars(query.order_by(PaymentRow.on, PaymentRow.at)))
