"""Sign in and out: argon2 passwords, random session tokens kept as hashes, and a brake on guessing."""

from __future__ import annotations

import hashlib
import hmac
import secrets
from datetime import timedelta
from uuid import UUID, uuid4

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..records import store
from ..records.models import Attempt, SignIn, User
from .person import Person, now

LASTS = timedelta(hours=14)
WINDOW = timedelta(minutes=15)
MOST_FAILURES = 8
_hasher = PasswordHasher()
_NOBODY = _hasher.hash("nobody has this password")


class TooMany(Exception):
    """Too many failed sign-ins lately."""


def hash_password(password: str) -> str:
    """An argon2id hash; refuses passwords under 10 characters."""
    if len(password) < 10:
        raise RuleError(
            "password.short",
            "A password has at least 10 characters.",
            "password",
            "Use a few words.",
        )
    if len(password) > 200:
        raise RuleError(
            "password.long",
            "A password has at most 200 characters.",
            "password",
            "Use a shorter one.",
        )
    return _hasher.hash(password)


def token_hash(token: str) -> str:
    """What is kept of a session token."""
    return hashlib.sha256(token.encode()).hexdigest()


def forgery_token(secret: str, token: str) -> str:
    """The token that unsafe requests of a session must carry, bound to that session."""
    return hmac.new(secret.encode(), token_hash(token).encode(), hashlib.sha256).hexdigest()


def person(user: User) -> Person:
    """A user as the acting person."""
    return Person(
        id=user.id, firm_id=user.firm_id, name=user.name, role=user.role, email=user.email
    )


def sign_in(db: Session, email: str, password: str, address: str) -> tuple[str, Person] | None:
    """A new session's token and its person; None when address or password is wrong. TooMany after too many failures."""
    keys = (f"email:{email.strip().lower()}", f"from:{address}")
    since = now() - WINDOW
    if (
        store.failed_attempts(db, keys[0], since) >= MOST_FAILURES
        or store.failed_attempts(db, keys[1], since) >= 5 * MOST_FAILURES
    ):
        raise TooMany
    user = store.user_by_email(db, email)
    try:
        _hasher.verify(user.password_hash if user else _NOBODY, password[:200])
        good = user is not None
    except (VerifyMismatchError, InvalidHashError):
        good = False
    if user is None or not good:
        db.add_all(Attempt(key=k, at=now()) for k in keys)
        return None
    store.forget_attempts(db, keys[0])
    token = secrets.token_urlsafe(32)
    db.add(
        SignIn(
            token_hash=token_hash(token),
            user_id=user.id,
            created_at=now(),
            expires_at=now() + LASTS,
        )
    )
    return token, person(user)


def whose(db: Session, token: str) -> Person | None:
    """The person of a session token, or None."""
    user = store.signed_in(db, token_hash(token), now())
    return None if user is None else person(user)


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
