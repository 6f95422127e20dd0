"""A second factor for signing in: six digits from a program on one's telephone (TOTP, RFC 6238),
and codes on paper for when it is lost.
"""

from __future__ import annotations

import hashlib
import hmac
import secrets

import pyotp
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..records.models import User
from . import passwords
from .person import Person, now
from .versioning import note

RECOVERY_CODES = 10
STEP_S = 30  # RFC 6238


def begin(db: Session, who: Person, firm: str) -> tuple[str, str]:
    """A new secret, not in force yet: it, and the address that programs read from a picture.

    Raises:
        RuleError: a second factor is in force already.
    """
    user = db.get_one(User, who.id, with_for_update=True)
    if user.totp_on:
        raise RuleError(
            "factor.on",
            "A second factor is in force.",
            "",
            "Take it off first, then set a new one.",
        )
    user.totp_secret = pyotp.random_base32()
    user.version += 1
    name = f"{firm}: {user.email}"
    return user.totp_secret, pyotp.TOTP(user.totp_secret).provisioning_uri(
        name=name, issuer_name="Zesty Glass"
    )


def confirm(db: Session, who: Person, code: str) -> tuple[str, ...]:
    """Put the new secret in force with its first code; the codes for paper, shown this once.

    Raises:
        RuleError: nothing was begun, or the code is not right.
    """
    user = db.get_one(User, who.id, with_for_update=True)
    if not user.totp_secret or user.totp_on:
        raise RuleError("factor.none", "Nothing was begun.", "", "Begin anew.")
    if not _digits(user, code):
        raise RuleError(
            "factor.code",
            "These digits are not right.",
            "code",
            "Type those that show now; the telephone’s clock must be right.",
        )
    codes = tuple(secrets.token_hex(5) for _ in range(RECOVERY_CODES))
    user.totp_on, user.recovery = True, [_hash(c) for c in codes]
    user.version += 1
    note(db, who, who.id, "second factor on", user.version, [])
    return codes


def off(db: Session, who: Person, password: str) -> bool:
    """Take the second factor off; False when the password is wrong. ``admit`` comes first."""
    user = db.get_one(User, who.id, with_for_update=True)
    if not passwords.right(user, password):
        return False
    take_off(db, who, user)
    return True


def take_off(db: Session, who: Person, user: User) -> None:
    """Take somebody's second factor off, by whoever may."""
    user.totp_on, user.totp_secret, user.recovery = False, "", []
    user.version += 1
    note(db, who, user.id, "second factor off", user.version, [])


def passes(db: Session, user: User, code: str) -> bool:
    """Whether a code opens: six digits that were not used before, or a code from paper, which is
    used up by it.
    """
    db.refresh(user, with_for_update=True)
    if not user.totp_on or _digits(user, code):
        return True
    given = _hash("".join(c for c in code.lower() if c.isalnum()))
    left = [h for h in user.recovery if not hmac.compare_digest(h, given)]
    if len(left) == len(user.recovery):
        return False
    user.recovery = left
    user.version += 1
    return True


def _digits(user: User, code: str) -> bool:
    """Whether six digits are those of now, or of a step before or after, and later than the last
    that were used.
    """
    typed = "".join(c for c in code if c.isdigit())
    if len(typed) != 6 or len(code) > 20:
        return False
    totp, step = pyotp.TOTP(user.totp_secret), int(now().timestamp()) // STEP_S
    for at in (step - 1, step, step + 1):
        if at > user.totp_last and hmac.compare_digest(totp.at(at * STEP_S), typed):
            user.totp_last = at
            user.version += 1
            return True
    return False


def _hash(code: str) -> str:
    return hashlib.sha256(code.encode()).hexdigest()
