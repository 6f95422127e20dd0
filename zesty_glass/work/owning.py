"""A home that changes hands: its history is the home's, what was offered was the seller's."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import Customer
from ..documents.codec import plain
from ..records import opening, store
from ..records.models import HomeRow, ProposalRow
from . import deciding, keeping, logbook, visiting
from .keeping import expect, note
from .person import Person, now

MOST_FORMER = 20


def change_owner(
    db: Session, who: Person, home: UUID, version: int, customer: Customer, since: date
) -> HomeRow:
    """Give a home a new owner from a day on. Links of the owner before end, and what was offered to
    them and nobody signed is withdrawn; readings, jobs and what falls due stay the home's.

    Raises:
        RuleError: no name, the same name, or a day to come.
    """
    logbook.home(db, who, home)
    row: HomeRow = store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    expect(db, "home", row, version)
    name = customer.name.strip()
    if len(name) < 2 or name == row.customer["name"]:
        raise RuleError(
            "owner.name", "A new owner has a name of their own.", "customer.name", "Write it."
        )
    if since > now().date():
        raise RuleError("owner.day", "This day is still to come.", "since", "Change it then.")
    before = {"name": row.customer["name"], "until": since.isoformat()}
    former = [*row.former, before][-MOST_FORMER:]
    keeping.change(db, who, row, {"customer": plain(customer), "former": former}, "new owner")
    for id, _, _ in opening.visits_of_home(db, who.firm_id, home):
        for p in store.of_visit(db, ProposalRow, who.firm_id, id):
            _ended_for_the_seller(db, who, p, since)
    return row


def _ended_for_the_seller(db: Session, who: Person, row: ProposalRow, since: date) -> None:
    for link in store.links(db, who.firm_id, row.id):
        if link.revoked_at is None:
            link.revoked_at = now()
            note(db, who, row.id, "link revoked", 0, [])
    if row.data["state"] == "presented" and visiting.sees(db, who, row.visit_id, None):
        why = deciding.Why(f"The home has a new owner since {since:%B %-d, %Y}.")
        deciding.decide(db, who, row.id, row.version, "withdrawn", why=why)
