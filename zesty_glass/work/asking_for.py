"""A home that a colleague looks after: that it exists is seen, and nothing of it but its place; it
can be asked for, and is given by who has it or by a manager.
"""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import delete
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..records import one_home as records
from ..records import store
from ..records.models import HomeRow, User
from ..records.note_models import HomeAskRow
from . import logbook, mailing
from .person import Person, now
from .versioning import note

FEWEST_LETTERS = 3


def elsewhere(db: Session, who: Person, words: str) -> list[tuple[UUID, str, bool]]:
    """Homes of exactly this name that colleagues look after: id, place, and whether this person
    asked for it already. Nothing for anybody who sees every home anyway, or who never sees one.
    """
    if who.role != "consultant" or len(words.strip()) < FEWEST_LETTERS:
        return []
    asked = {ask.home_id for ask, user in records.asks(db, who.firm_id) if user.id == who.id}
    found = records.of_colleagues(db, who.firm_id, who.id, words)
    return [(h.id, h.home.get("place", ""), h.id in asked) for h in found]


def _sees(db: Session, who: Person, home: UUID) -> bool:
    try:
        logbook.home(db, who, home)
    except store.NotFound:
        return False
    return True


def ask(db: Session, who: Person, home: UUID) -> None:
    """Ask for a home; whoever looks after it is told. Twice is once, and nobody asks for what they
    see.
    """
    store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    if _sees(db, who, home):
        return
    row = {"home_id": home, "user_id": who.id, "firm_id": who.firm_id, "at": now()}
    written = insert(HomeAskRow).values(row).on_conflict_do_nothing().returning(HomeAskRow.at)
    if db.execute(written).first() is None:
        return
    note(db, who, home, "asked for", 0, [])
    if not mailing.queues(db):
        return
    subject = f"{who.name} asks for a home of yours"
    said = f"{who.name} asks to take on a home that you look after. Answer it under What is due."
    for person in records.looks_after(db, who.firm_id, home):
        mailing.put(db, who, person.email, subject, said)


def asked(db: Session, who: Person, row: HomeRow) -> list[tuple[HomeAskRow, User]]:
    """Who asks for a home; nothing for a fitter, who gives none."""
    return [] if who.role == "installer" else records.asks(db, who.firm_id, row.id)


def answer(db: Session, who: Person, home: UUID, to: UUID, give: bool) -> None:
    """Give a home to who asked for it, or do not. A consultant gives their own visits to it, a
    manager all. Twice is once.

    Raises:
        RuleError: somebody who can have no visits.
    """
    logbook.home(db, who, home)
    store.get(db, HomeRow, who.firm_id, home, "home", lock=True)
    if give:
        person = db.get(User, to)
        if person is None or person.firm_id != who.firm_id:
            raise store.NotFound("person")
        if not person.active or person.role == "installer":
            raise RuleError(
                "home.give",
                f"{person.name} cannot look after a home.",
                "to",
                "Choose a consultant or manager who is active.",
            )
        of = who.id if who.role == "consultant" else None
        records.give(db, who.firm_id, home, person, of)
        note(db, who, home, f"given to {person.name}", 0, [])
    else:
        note(db, who, home, "not given", 0, [])
    db.execute(delete(HomeAskRow).where(HomeAskRow.home_id == home, HomeAskRow.user_id == to))
