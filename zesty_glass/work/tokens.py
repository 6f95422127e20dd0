"""Tokens for scripts: named, for some of the interface only, ending, revocable, kept as hashes."""

from __future__ import annotations

import secrets
from datetime import timedelta
from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..records import signing, store
from ..records.models import TokenRow, User
from .person import Person, manager_only, now
from .signing_in import FORGOTTEN_AFTER, SEEN_EVERY, TooMany, place_of, token_hash
from .versioning import note

SCOPES = ("read", "personal", "readings", "proposals", "catalogue")
LONGEST_DAYS = 366
MOST_TOKENS = 50
MOST_A_MINUTE = 300  # requests of one token
MOST_WRONG = 30  # tries with wrong tokens from one address
PREFIX = "zesty_"


def listed(db: Session, who: Person) -> list[TokenRow]:
    """The firm's tokens, the latest first."""
    manager_only(who)
    query = select(TokenRow).where(TokenRow.firm_id == who.firm_id)
    return list(db.scalars(query.order_by(TokenRow.made_at.desc())))


def make(
    db: Session, who: Person, id: UUID, name: str, scopes: tuple[str, ...], days: int
) -> tuple[TokenRow, str]:
    """A new token; it is shown this once.

    Raises:
        RuleError: no name, an unknown scope, too long a time, too many, or the id was used.
    """
    manager_only(who)
    if len(name.strip()) < 2:
        raise RuleError("token.name", "A token needs a name.", "name", "Say what it is for.")
    if not scopes or set(scopes) - set(SCOPES):
        raise RuleError(
            "token.scopes", "A token needs what it is for.", "scopes", f"Use {', '.join(SCOPES)}."
        )
    if not 1 <= days <= LONGEST_DAYS:
        raise RuleError(
            "token.days", f"{days} days are not possible.", "days", f"Use 1 to {LONGEST_DAYS}."
        )
    rows = listed(db, who)
    if len([r for r in rows if r.revoked_at is None]) >= MOST_TOKENS:
        raise RuleError("token.many", f"{MOST_TOKENS} tokens are enough.", "", "Revoke one.")
    if db.get(TokenRow, id) is not None:
        raise RuleError(
            "token.twice", "This token was made already; it was shown then.", "id", "Make another."
        )
    token = PREFIX + secrets.token_urlsafe(32)
    row = TokenRow(
        id=id,
        firm_id=who.firm_id,
        user_id=who.id,
        name=name.strip(),
        scopes=sorted(set(scopes)),
        token_hash=token_hash(token),
        made_at=now(),
        expires_at=now() + timedelta(days=days),
        revoked_at=None,
        used_at=None,
    )
    db.add(row)
    note(db, who, id, "token made", 1, [])
    db.flush()
    return row, token


def revoke(db: Session, who: Person, id: UUID) -> None:
    """Make a token worthless at once; twice is once."""
    manager_only(who)
    row = db.get(TokenRow, id)
    if row is None or row.firm_id != who.firm_id:
        raise store.NotFound("token")
    if row.revoked_at is None:
        row.revoked_at = now()
        note(db, who, id, "token revoked", 1, [])


def whose(db: Session, token: str, address: str) -> tuple[Person, tuple[str, ...]] | None:
    """The person that a token acts for, and what it is for; None for one that does not count.

    Raises:
        TooMany: too many requests of this token, or wrong ones from this address.
    """
    row = db.scalars(select(TokenRow).where(TokenRow.token_hash == token_hash(token))).first()
    user = None if row is None else db.get(User, row.user_id)
    good = row is not None and row.revoked_at is None and row.expires_at > now()
    if row is None or user is None or not good or not user.active:
        wrong = f"token-from:{place_of(address)}"
        if signing.admitted(db, wrong, now(), MOST_WRONG, FORGOTTEN_AFTER) is None:
            raise TooMany
        return None
    if not signing.within(db, f"token:{row.id}", now(), MOST_A_MINUTE):
        raise TooMany
    if row.used_at is None or now() - row.used_at > SEEN_EVERY:
        row.used_at = now()
    who = Person(
        id=user.id,
        firm_id=user.firm_id,
        name=f"{row.name} (a script)",
        role=user.role,
        email=user.email,
    )
    return who, tuple(row.scopes)
