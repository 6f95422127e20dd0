"""How proposals stand on a day, for queries: what was presented has expired once its last day is
over. The same as ``Proposal.state_on``, in SQL.
"""

from __future__ import annotations

from datetime import date

from sqlalchemy import ColumnElement, case, func

from .models import ProposalRow

#: the last day on which a proposal can be accepted (YYYY-MM-DD)
LAST_DAY: ColumnElement[str] = func.coalesce(
    ProposalRow.data["extended_until"].as_string(), ProposalRow.data["valid_until"].as_string()
)


def state_on(day: date) -> ColumnElement[str]:
    """The state of a proposal on a day."""
    over = (ProposalRow.state == "presented") & (day.isoformat() > LAST_DAY)
    return case((over, "expired"), else_=ProposalRow.state)
