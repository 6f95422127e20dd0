"""A device that holds passkeys, in software: it answers as WebAuthn (Level 2, 2021) says."""

from __future__ import annotations

import hashlib
import json
import secrets
from base64 import urlsafe_b64decode, urlsafe_b64encode

import cbor2
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec

PRESENT, VERIFIED, ATTESTED = 0x01, 0x04, 0x40


def text(data: bytes) -> str:
    return urlsafe_b64encode(data).rstrip(b"=").decode()


def data(said: str) -> bytes:
    return urlsafe_b64decode(said + "=" * (-len(said) % 4))


class Device:
    """One key of its own, for one place."""

    def __init__(self, origin: str) -> None:
        self.origin = origin
        self.id = secrets.token_bytes(32)
        self.key = ec.generate_private_key(ec.SECP256R1())
        self.uses, self.user, self.flags = 0, b"", PRESENT | VERIFIED

    def make(self, options: dict) -> dict:
        """Its answer to being asked for a new key."""
        self.user = data(options["user"]["id"])
        point = self.key.public_key().public_numbers()
        x, y = (n.to_bytes(32, "big") for n in (point.x, point.y))
        public = cbor2.dumps({1: 2, 3: -7, -1: 1, -2: x, -3: y})
        held = bytes(16) + len(self.id).to_bytes(2, "big") + self.id + public
        told = self._told(options["rp"]["id"], ATTESTED) + held
        attestation = cbor2.dumps({"fmt": "none", "attStmt": {}, "authData": told})
        client = self._client("webauthn.create", options["challenge"])
        said = {"clientDataJSON": text(client), "attestationObject": text(attestation)}
        return self._answer(said)

    def sign(self, options: dict) -> dict:
        """Its answer to being asked to sign somebody in."""
        self.uses += 1
        told = self._told(options["rpId"])
        client = self._client("webauthn.get", options["challenge"])
        signed = told + hashlib.sha256(client).digest()
        signature = self.key.sign(signed, ec.ECDSA(hashes.SHA256()))
        return self._answer(
            {
                "clientDataJSON": text(client),
                "authenticatorData": text(told),
                "signature": text(signature),
                "userHandle": text(self.user),
            }
        )

    def _answer(self, response: dict) -> dict:
        return {
            "id": text(self.id),
            "rawId": text(self.id),
            "type": "public-key",
            "response": response,
            "clientExtensionResults": {},
        }

    def _told(self, place: str, more: int = 0) -> bytes:
        flags = bytes([self.flags | more])
        return hashlib.sha256(place.encode()).digest() + flags + self.uses.to_bytes(4, "big")

    def _client(self, kind: str, challenge: str) -> bytes:
        said = {"type": kind, "challenge": challenge, "origin": self.origin, "crossOrigin": False}
        return json.dumps(said).encode()
