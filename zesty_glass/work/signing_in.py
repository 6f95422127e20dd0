"""Sign in and out: random session tokens kept as hashes, and a
brake on guessing.
"""

from __future__ import annotations

import hashlib
import hmac
import secrets
from datetime import timedelta
from ipaddress import ip_address, ip_network
from uuid import UUID, uuid4

from sqlalchemy import Connection
from sqlalchemy.orm import Session

from ..records import signing
from ..records.models import SignIn, User
from . import second_factor
from .passwords import hash_password, right
from .person import Person, now

LASTS = timedelta(hours=14)  # of a session, however busy
IDLE = timedelta(hours=4)  # after which a session ends by itself
SEEN_EVERY = timedelta(minutes=5)
PROVED_FOR = timedelta(hours=1)  # prices, limits and people ask for the password again after it
FORGOTTEN_AFTER = timedelta(hours=1)
MOST_FAILURES = 8  # tries that need not wait, for one account from one address


class TooMany(Exception):
    """Too many failed sign-ins lately."""


def token_hash(token: str) -> str:
    """What is kept of a session token."""
    return hashlib.sha256(token.encode()).hexdigest()


def forgery_token(secret: str, token: str) -> str:
    """The token that unsafe requests of a session must carry, bound to that session."""
    return hmac.new(secret.encode(), token_hash(token).encode(), hashlib.sha256).hexdigest()


def person(user: User, session: SignIn) -> Person:
    """A user as the acting person, through a session."""
    return Person(
        id=user.id,
        firm_id=user.firm_id,
        name=user.name,
        role=user.role,
        email=user.email,
        session=session.id,
        proved_at=session.proved_at,
    )


def place_of(address: str) -> str:
    """Where a request comes from: an address, or the network of 64 bits that one household has in
    version 6.
    """
    try:
        known = ip_address(address)
    except ValueError:
        return "unknown"
    if known.version == 6:
        return str(ip_network((known, 64), strict=False))
    return str(known)


def _keys(email: str, address: str) -> tuple[str, str]:
    return (
        f"who:{email.strip().lower()[:200]} from:{place_of(address)}",
        f"from:{place_of(address)}",
    )


def admit(db: Session, email: str, address: str) -> None:
    """Count a try to sign in, in a transaction of its own; it counts whatever becomes of it.

    A stranger who guesses slows down only their own address: the person signs in from theirs.

    Raises:
        TooMany: the try comes too soon after too many others.
    """
    pair, place = _keys(email, address)
    for key, most in ((pair, MOST_FAILURES), (place, 5 * MOST_FAILURES)):
        if signing.admitted(db, key, now(), most, FORGOTTEN_AFTER) is None:
            raise TooMany


def admit_code(db: Session, address: str) -> None:
    """Count a try with an invitation's code, as ``admit`` does.

    Raises:
        TooMany: too many from this address.
    """
    key = f"code-from:{place_of(address)}"
    if signing.admitted(db, key, now(), 3 * MOST_FAILURES, FORGOTTEN_AFTER) is None:
        raise TooMany


def admit_key(db: Session, address: str) -> None:
    """Count a step of signing in with a passkey, as ``admit`` does; a sign-in takes two.

    Raises:
        TooMany: too many from this address.
    """
    key = f"key-from:{place_of(address)}"
    if signing.admitted(db, key, now(), 10 * MOST_FAILURES, FORGOTTEN_AFTER) is None:
        raise TooMany


class CodeWanted(Exception):
    """The password is right, and the second factor is wanted or wrong."""


def sign_in(
    db: Session, email: str, password: str, address: str, device: str = "", code: str = ""
) -> tuple[str, Person] | None:
    """A new session's token and its person; None when address or password is wrong. ``admit`` comes
    first.

    Raises:
        CodeWanted: the account has a second factor, and ``code`` is missing or wrong.
    """
    user = signing.user_by_email(db, email)
    if not right(user, password) or user is None:
        return None
    if user.totp_on and not second_factor.passes(db, user, code):
        raise CodeWanted
    signing.forget_tries(db, _keys(email, address)[0])
    return enter(db, user, device)


def enter(db: Session, user: User, device: str) -> tuple[str, Person]:
    """A new session of somebody who proved who they are."""
    signing.purge(db, now(), IDLE)
    token = secrets.token_urlsafe(32)
    made = SignIn(
        token_hash=token_hash(token),
        id=uuid4(),
        user_id=user.id,
        created_at=now(),
        expires_at=now() + LASTS,
        seen_at=now(),
        proved_at=now(),
        device=device[:200],
    )
    db.add(made)
    return token, person(user, made)


def prove(db: Session, who: Person, password: str) -> bool:
    """Whether the password is right; if so the session counts as proved from now on. ``admit``
    comes first.
    """
    user = signing.user(db, who.id)
    if not right(user, password):
        return False
    for row in signing.sign_ins(db, who.id):
        if row.id == who.session:
            row.proved_at = now()
    return True


def whose(db: Connection, token: str) -> Person | None:
    """The person of a session token, or None. The session counts as seen, to within
    some minutes.
    """
    at, key = now(), token_hash(token)
    found = signing.signed_in(db, key, at, IDLE)
    if found is None:
        return None
    if at - found.seen_at > SEEN_EVERY:
        signing.seen(db, key, at)
    return Person(
        id=found.id,
        firm_id=found.firm_id,
        name=found.name,
        role=found.role,
        email=found.email,
        session=found.session,
        proved_at=found.proved_at,
    )


def add_user(db: Session, firm: UUID, email: str, name: str, role: str, password: str) -> User:
    """A new user of a firm."""
    user = User(
        id=uuid4(),
        firm_id=firm,
        email=email.strip().lower(),
        name=name,
        role=role,
        password_hash=hash_password(password),
    )
    db.add(user)
    return user
