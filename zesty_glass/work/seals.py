"""Signed means signed: a keyed seal over what a proposal says and how it stands.

The digest of a snapshot shows that the snapshot was changed only as long as the digest was not
changed with it. The seal is an HMAC-SHA-256 with a key that the database does not hold, over the
snapshot's digest, the state, the times and the signature. It is set on every change that the
program makes, and compared whenever the proposal is opened.

Keys are derived from the server's secret (ZESTY_SECRET). To rotate it, put the old one under
ZESTY_OLD_SECRETS: old seals are known by their key's id and go on being checked; new ones are made
with the new key.
"""

from __future__ import annotations

import hashlib
import hmac
import json
from dataclasses import dataclass
from typing import Literal

from sqlalchemy.orm import Session

from ..core.proposing.proposal import digest
from ..records.models import ProposalRow

Standing = Literal["good", "broken", "none", "unknown_key"]
KEYS = "seal_keys"  # where a session carries them


@dataclass(frozen=True, slots=True)
class Keys:
    """The key that seals are made with, and all that they are checked with, by their ids."""

    newest: str
    by_id: dict[str, bytes]


def _derived(secret: str) -> bytes:
    return hmac.new(secret.encode(), b"zesty glass: seal of proposals, 1", hashlib.sha256).digest()


def _id(key: bytes) -> str:
    return hashlib.sha256(b"key id" + key).hexdigest()[:12]


def every_key(secret: str, old: tuple[str, ...] = ()) -> tuple[bytes, ...]:
    """Every key derived from the server's secrets."""
    return tuple(keys_from(secret, old).by_id.values())


def newest_key(db: Session) -> bytes | None:
    """The key that seals now; None where a session carries none."""
    keys: Keys | None = db.info.get(KEYS)
    return None if keys is None else keys.by_id[keys.newest]


def keys_from(secret: str, old: tuple[str, ...] = ()) -> Keys:
    """Keys derived from the server's secret, and from those it had before."""
    derived = [_derived(s) for s in (secret, *old)]
    return Keys(newest=_id(derived[0]), by_id={_id(k): k for k in derived})


def _said(row: ProposalRow) -> bytes:
    """Everything that a seal stands for. The snapshot counts by its own digest, worked out anew."""
    data = {k: v for k, v in row.data.items() if k not in ("snapshot", "digest")}
    signed = data.get("signature")
    body = [str(row.id), str(row.visit_id), digest(row.data.get("snapshot", "")), data, signed]
    if row.basis:  # older ones have none
        body.append(digest(row.basis))
    return json.dumps(body, sort_keys=True, ensure_ascii=True).encode()


def _mac(key: bytes, row: ProposalRow) -> str:
    return hmac.new(key, _said(row), hashlib.sha256).hexdigest()


def set_on(db: Session, row: ProposalRow) -> None:
    """Seal a proposal as it is now; without keys, as when a demo is loaded by hand, it stays
    unsealed.
    """
    keys: Keys | None = db.info.get(KEYS)
    if keys is not None:
        row.seal_key, row.seal = keys.newest, _mac(keys.by_id[keys.newest], row)


def standing(db: Session, row: ProposalRow) -> Standing:
    """Whether a proposal is as it was sealed."""
    if digest(row.data.get("snapshot", "")) != row.data.get("digest"):
        return "broken"
    if not row.seal:
        return "none"
    keys: Keys | None = db.info.get(KEYS)
    key = None if keys is None else keys.by_id.get(row.seal_key)
    if key is None:
        return "unknown_key"
    return "good" if hmac.compare_digest(_mac(key, row), row.seal) else "broken"
