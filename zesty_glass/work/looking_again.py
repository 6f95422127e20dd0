"""Whether what was presented still says what is known: compared anew after every change at its
home, which the database marks (migration 0016), so that no way of changing something can forget it.
"""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.assess import Assessment, assess
from ..core.errors import RuleError
from ..core.presenting.metric import in_units
from ..core.presenting.offer import Offer, offered_today
from ..core.presenting.revision import Difference, MovedOn, moved_on
from ..core.testing.finding import Finding
from ..core.visit import Visit
from ..documents.codec import load_json, plain
from ..records import opening, store
from ..records.models import ProposalRow, VisitRow
from . import visiting
from .firm import rules_of
from .mending import worked
from .person import Person, now

LATER_VISITS = 3  # to a home, the latest of them: what they found of health is held against it


def moved(db: Session, row: ProposalRow) -> MovedOn:
    """What would be said otherwise today than in a presented proposal; of a signed one, what was
    found of health since; nothing of one that is decided otherwise.
    """
    state = row.data["state"]
    if state not in ("presented", "accepted"):
        return MovedOn()
    if row.stale:
        row.moved, row.stale = plain(compared(db, row)), False
        db.flush()
    kept = row.moved or {}  # our own words, of any length: they open as they are
    changes = (Difference(**c) for c in kept.get("changes", ()) if state == "presented")
    return MovedOn(health=tuple(kept.get("health", ())), changes=tuple(changes))


def compared(db: Session, row: ProposalRow) -> MovedOn:
    """What would be said otherwise today than in a proposal, however it stands."""
    firm = Person(id=UUID(int=0), firm_id=row.firm_id, name="", role="manager")
    visit_row = visiting.get(db, firm, row.visit_id)
    then: Offer = load_json(Offer, row.data["snapshot"], "snapshot")
    visit, today = _today(db, firm, visit_row)
    later: list[Finding] = []
    for id, at, _ in opening.visits_of_home(db, row.firm_id, visit_row.home_id)[:LATER_VISITS]:
        if visit_row.started_at < at <= now():
            later += _findings(*_today(db, firm, visiting.get(db, firm, id)))
    line = None if today is None else offered_today(visit, today, then.recommended)
    return moved_on(then, _findings(visit, today), line, tuple(later))


def _today(db: Session, who: Person, row: VisitRow) -> tuple[Visit, Assessment | None]:
    """A visit worked out by the firm's limits of today; None where it cannot be."""
    visit, _ = visiting.document(db, who, row, snapshots=False)
    if visit.brought is None:
        visit = replace(visit, rules=rules_of(store.firm(db, row.firm_id)))
    try:
        return visit, worked(visit, assess)
    except (RuleError, ArithmeticError, ValueError, LookupError):
        return visit, None


def _findings(visit: Visit, a: Assessment | None) -> tuple[Finding, ...]:
    found = () if a is None or a.meaning is None else a.meaning.findings
    return tuple(in_units(f, visit) for f in found)
