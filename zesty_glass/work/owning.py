"""Who is at a home, and a home that changes hands: its history is the home's, what was offered was
the seller's.
"""

from __future__ import annotations

from datetime import date
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import Customer, Relation, check_names
from ..documents.codec import load, plain
from ..messages.catalogue import languages
from ..records import opening, store
from ..records.models import HomeRow, ProposalRow
from . import deciding, logbook, versioning, visiting
from .person import Person, now
from .sharing import fits_address
from .versioning import expect, note

MOST_FORMER = 20


def change_owner(
    db: Session, who: Person, home: UUID, version: int, customer: Customer, since: date
) -> HomeRow:
    """Give a home a new owner from a day on. Links of the owner before end, and what was offered to
    them and nobody signed is withdrawn; who was there with them leaves too, but a tenant stays.
    Readings, jobs and what falls due stay the home's.

    Raises:
        RuleError: no name, the same name, or a day to come.
    """
    logbook.home(db, who, home)
    row: HomeRow = store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    expect(db, "home", row, version)
    check_names(customer)
    name = customer.name.strip()
    if len(name) < 2 or name == row.customer["name"]:
        raise RuleError(
            "owner.name", "A new owner has a name of their own.", "customer.name", "Write it."
        )
    if since > now().date():
        raise RuleError("owner.day", "This day is still to come.", "since", "Change it then.")
    before = {"name": row.customer["name"], "until": since.isoformat()}
    former = [*row.former, before][-MOST_FORMER:]
    stay = [p for p in row.others if p.get("part") == Relation.TENANT]
    after = {"customer": plain(customer), "former": former, "others": stay}
    versioning.change(db, who, row, after, "new owner")
    for id, _, _ in opening.visits_of_home(db, who.firm_id, home):
        for p in store.of_visit(db, ProposalRow, who.firm_id, id):
            _ended_for_the_seller(db, who, p, since)
    return row


MOST_OTHERS = 8


def people(db: Session, who: Person, visit: UUID) -> tuple[Customer, ...]:
    """Who is at the home of a visit, the customer first."""
    row: HomeRow = store.get(db, HomeRow, who.firm_id, visiting.get(db, who, visit).home_id, "home")
    found: tuple[Customer, ...] = load(tuple[Customer, ...], [row.customer, *row.others])
    return found


def set_people(
    db: Session, who: Person, home: UUID, version: int, people: tuple[Customer, ...]
) -> HomeRow:
    """Say who is at a home: the customer first, then the others.

    Raises:
        RuleError: nobody, too many, no name, an address that nobody can write to, or the customer’s
            name, which a new owner changes. Conflict: they changed meanwhile.
    """
    logbook.home(db, who, home)
    row: HomeRow = store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    expect(db, "home", row, version)
    if not 1 <= len(people) <= MOST_OTHERS + 1:
        raise RuleError(
            "people.many",
            f"A home has a customer and at most {MOST_OTHERS} others.",
            "people",
            "Keep those who decide or are written to.",
        )
    for n, person in enumerate(people):
        _check_person(person, f"people[{n}]")
    customer, *others = (plain(p) for p in people)
    versioning.change(db, who, row, {"customer": customer, "others": others}, "people")
    return row


def _check_person(person: Customer, where: str) -> None:
    check_names(person, where)
    if len(person.name.strip()) < 2:
        raise RuleError("people.name", "Somebody has no name.", f"{where}.name", "Write it.")
    if person.email.strip() and not fits_address(person.email):
        raise RuleError(
            "people.email",
            f"“{person.email[:60]}” is not an address that can be written to.",
            f"{where}.email",
            "Write it as name@place.example, or leave it empty.",
        )
    if person.language not in languages():
        raise RuleError(
            "people.language",
            f"Nothing is said in the language “{person.language[:20]}”.",
            f"{where}.language",
            f"Use one of {', '.join(languages())}.",
        )


def _ended_for_the_seller(db: Session, who: Person, row: ProposalRow, since: date) -> None:
    for link in store.links(db, who.firm_id, row.id):
        if link.revoked_at is None:
            link.revoked_at = now()
            note(db, who, row.id, "link revoked", 0, [])
    if row.data["state"] == "presented" and visiting.sees(db, who, row.visit_id, None):
        why = deciding.Why(f"The home has a new owner since {since:%B %-d, %Y}.")
        deciding.decide(db, who, row.id, row.version, "withdrawn", why=why)
