"""Queries of what has an item of the catalog. Every one is scoped to a firm."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import func, select, type_coerce
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session

from .after_models import JobRow
from .models import OptionRow


def uses(db: Session, firm: UUID, code: str) -> tuple[int, int]:
    """How many lines of visits have an item, and how many jobs that have not ended."""
    lines = select(func.count()).where(
        OptionRow.firm_id == firm,
        type_coerce(OptionRow.data, JSONB).contains({"stages": [{"item": code}]}),
    )
    jobs = select(func.count()).where(
        JobRow.firm_id == firm,
        type_coerce(JobRow.data, JSONB).contains({"stages": [{"code": code}]}),
        JobRow.summary["state"].as_string() != "ended",
    )
    return db.scalar(lines) or 0, db.scalar(jobs) or 0
