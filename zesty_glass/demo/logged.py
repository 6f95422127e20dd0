"""What the demo firm wrote beside its work: checks of its meters in standards, and why the water of
a home changed.
"""

from __future__ import annotations

import random
from datetime import datetime, timedelta
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.testing.checking import InstrumentCheck
from ..records.models import VisitRow
from ..work import instrument_checks
from ..work.person import Person
from .homes import uid

SEED = 20261126
QUARTERS = 8  # of checks, the last of them a week ago
QUARTER_DAYS = 91
#: kit, standard [its unit], drift a quarter and noise of a check [share]
METERS = (("tds-1", 342.0, 0.0022, 0.003), ("ph-1", 7.01, -0.0011, 0.002))
#: visit, days ago, why
NOTES = (
    ("home-1", 210, "The supplier mixes in a second spring since March."),
    ("home-2", 95, "The pump was set three metres lower after the dry summer."),
)


def _checks(db: Session, who: Person, now: datetime) -> None:
    rng = random.Random(SEED)
    for key, standard, a_quarter, noise in METERS:
        for n in range(QUARTERS):
            off = a_quarter * n + rng.gauss(0, noise / 2)
            id = UUID(uid(f"check-{key}-{n}"))
            ago = timedelta(days=7 + QUARTER_DAYS * (QUARTERS - 1 - n))
            made = InstrumentCheck(
                id=str(id),
                on=(now - ago).date(),
                standard=standard,
                shown=round(standard * (1 + off), 2 if standard < 20 else 0),
                by=who.name,
            )
            instrument_checks.check(db, who, key, id, made)


def load_logged(db: Session, who: Person, now: datetime) -> None:
    """Checks and notes of the demo firm, by seed."""
    _checks(db, who, now)
    for key, ago, why in NOTES:
        visit = db.get(VisitRow, UUID(uid(f"{key}-visit")))
        assert visit is not None  # loaded just before
        day = (now - timedelta(days=ago)).date()
        instrument_checks.add_note(db, who, visit.home_id, UUID(uid(f"note-{key}")), day, why)
