"""Passwords: kept as argon2id hashes, and checked."""

from __future__ import annotations

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from argon2.profiles import RFC_9106_LOW_MEMORY

from ..core.errors import RuleError
from ..records.models import User

#: what checking a password costs, on purpose (RFC 9106, 2021, its second recommended option)
COST = RFC_9106_LOW_MEMORY
_hasher = PasswordHasher.from_parameters(COST)
_NOBODY = _hasher.hash("nobody has this password")


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


def right(user: User | None, password: str) -> bool:
    """Whether a password is a user's; as slow for nobody's."""
    try:
        _hasher.verify(user.password_hash if user else _NOBODY, password[:200])
    except (VerifyMismatchError, InvalidHashError):
        return False
    return user is not None
