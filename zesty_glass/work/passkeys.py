"""Passkeys (W3C WebAuthn, Level 2, 2021): signing in with a key that a telephone or computer holds,
opened by its owner's finger, face or PIN. It stands for password and second factor together, for a
device that is had and an owner that is recognised are two factors.
"""

from __future__ import annotations

import json
import secrets
from datetime import timedelta
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import delete, select
from sqlalchemy.orm import Session
from webauthn import (
    generate_authentication_options,
    generate_registration_options,
    options_to_json,
    verify_authentication_response,
    verify_registration_response,
)
from webauthn.helpers import base64url_to_bytes
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from ..core.errors import RuleError
from ..records.models import User
from ..records.passkey_models import Challenge, PasskeyRow
from . import signing_in
from .person import Person, now
from .versioning import note

ANSWERED_WITHIN = timedelta(minutes=5)
MOST_KEYS = 20


class Place(NamedTuple):
    """Where people sign in: the name that keys are bound to, and the page's whole address."""

    name: str
    origin: str


def listed(db: Session, who: Person) -> list[PasskeyRow]:
    """A person's own keys, the latest first."""
    query = select(PasskeyRow).where(PasskeyRow.user_id == who.id)
    return list(db.scalars(query.order_by(PasskeyRow.made_at.desc(), PasskeyRow.id)))


def begin(db: Session, who: Person, place: Place) -> dict[str, Any]:
    """What a device needs to make a key: as the browser's interface takes it."""
    have = _room_for_one(db, who)
    options = generate_registration_options(
        rp_id=place.name,
        rp_name="Zesty Glass",
        user_name=who.email,
        user_id=who.id.bytes,
        user_display_name=who.name,
        challenge=_ask(db, who.id),
        authenticator_selection=AuthenticatorSelectionCriteria(
            resident_key=ResidentKeyRequirement.REQUIRED,
            user_verification=UserVerificationRequirement.REQUIRED,
        ),
        exclude_credentials=[PublicKeyCredentialDescriptor(id=k.credential) for k in have],
    )
    told: dict[str, Any] = json.loads(options_to_json(options))
    return told


def _room_for_one(db: Session, who: Person) -> list[PasskeyRow]:
    """A person's keys; RuleError when they have enough."""
    have = listed(db, who)
    if len(have) >= MOST_KEYS:
        raise RuleError("passkey.many", f"{MOST_KEYS} passkeys are enough.", "", "Remove one.")
    return have


def add(db: Session, who: Person, place: Place, name: str, answer: dict[str, Any]) -> PasskeyRow:
    """Keep a new key.

    Raises:
        RuleError: no name, enough keys, or what the device answered does not hold.
    """
    if len(name.strip()) < 2:
        raise RuleError("passkey.name", "A passkey needs a name.", "name", "Say which device.")
    _room_for_one(db, who)
    challenge = _asked(db, answer, who.id)
    if challenge is None:
        raise _wrong()
    try:
        made = verify_registration_response(
            credential=answer,
            expected_challenge=challenge,
            expected_rp_id=place.name,
            expected_origin=place.origin,
            require_user_verification=True,
        )
    except Exception as e:  # a stranger's bytes, which parsers of three libraries have read
        raise _wrong() from e
    if db.scalar(select(PasskeyRow.id).where(PasskeyRow.credential == made.credential_id)):
        raise RuleError("passkey.twice", "This passkey is kept already.", "", "Use it to sign in.")
    row = PasskeyRow(
        id=UUID(bytes=secrets.token_bytes(16), version=4),
        user_id=who.id,
        credential=made.credential_id,
        public_key=made.credential_public_key,
        uses=made.sign_count,
        name=name.strip()[:100],
        made_at=now(),
        used_at=None,
    )
    db.add(row)
    note(db, who, who.id, "passkey added", 1, [row.name])
    return row


def remove(db: Session, who: Person, id: UUID) -> None:
    """Remove one of a person's keys; one that is gone already is no error."""
    row = db.get(PasskeyRow, id)
    if row is not None and row.user_id == who.id:
        db.delete(row)
        note(db, who, who.id, "passkey removed", 1, [row.name])


def offered(db: Session, place: Place) -> dict[str, Any]:
    """What a device needs to sign somebody in, whoever it is: they are asked which key."""
    db.execute(delete(Challenge).where(Challenge.until < now()))
    options = generate_authentication_options(
        rp_id=place.name,
        challenge=_ask(db, None),
        user_verification=UserVerificationRequirement.REQUIRED,
    )
    told: dict[str, Any] = json.loads(options_to_json(options))
    return told


def sign_in(
    db: Session, place: Place, answer: dict[str, Any], device: str
) -> tuple[str, Person] | None:
    """A new session's token and its person, by a key; None when it does not open. Throttling comes
    first.
    """
    challenge = _asked(db, answer, None)
    row = _key_of(db, answer)
    if challenge is None or row is None:
        return None
    try:
        done = verify_authentication_response(
            credential=answer,
            expected_challenge=challenge,
            expected_rp_id=place.name,
            expected_origin=place.origin,
            credential_public_key=row.public_key,
            credential_current_sign_count=row.uses,
            require_user_verification=True,
        )
    except Exception:  # as above
        return None
    user = db.get_one(User, row.user_id)
    if not user.active:
        return None
    row.uses, row.used_at = done.new_sign_count, now()
    return signing_in.enter(db, user, device)


def _wrong() -> RuleError:
    return RuleError(
        "passkey.wrong",
        "The device’s answer does not hold.",
        "credential",
        "Try again. If it fails again, use another device.",
    )


def _ask(db: Session, user: UUID | None) -> bytes:
    asked = secrets.token_bytes(32)
    db.add(Challenge(asked=asked, user_id=user, until=now() + ANSWERED_WITHIN))
    return asked


def _asked(db: Session, answer: dict[str, Any], user: UUID | None) -> bytes | None:
    """The question that an answer answers, which is used up by it; None when it was never asked of
    this person, or too long ago.
    """
    try:
        said = json.loads(base64url_to_bytes(answer["response"]["clientDataJSON"]))
        asked = base64url_to_bytes(said["challenge"])
    except Exception:  # whatever was sent in its place
        return None
    gone = delete(Challenge).where(Challenge.asked == asked).returning(Challenge)
    found = db.scalars(gone).one_or_none()
    if found is None or found.user_id != user or found.until < now():
        return None
    return asked


def _key_of(db: Session, answer: dict[str, Any]) -> PasskeyRow | None:
    try:
        credential = base64url_to_bytes(answer["rawId"])
    except Exception:  # whatever was sent in its place
        return None
    query = select(PasskeyRow).where(PasskeyRow.credential == credential)
    return db.scalars(query.with_for_update()).one_or_none()
