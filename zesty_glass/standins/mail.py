"""Outgoing mail: the interface a real sender would fill, and the stand-in that keeps every message
to be looked at.
"""

from __future__ import annotations

from typing import Protocol

from ..core.record import record


@record
class Message:
    """One message: address, subject, plain text, and the name and bytes of what is attached
    (empty: nothing).
    """

    to: str
    subject: str
    text: str
    attachment: str = ""
    file: bytes = b""


def ascii_address(to: str) -> str:
    """An address as mail servers take it: its domain by IDNA (RFC 3490), before the @ in ASCII.

    Raises:
        ValueError: it cannot be written so.
    """
    name, at, domain = to.strip().rpartition("@")
    if not name.isascii() or not name.isprintable() or not at:
        raise ValueError("what stands before the @ has letters that mail servers do not take")
    try:
        return f"{name}@{domain.encode('idna').decode()}"
    except UnicodeError as e:
        raise ValueError("what stands behind the @ is no domain") from e


class Mailer(Protocol):
    """Something that sends mail."""

    simulated: bool

    def send(self, message: Message) -> None:
        """Hand a message over; OSError when that is not possible."""
        ...


class SimulatedMail:
    """Sends nothing; what it was given stays in the outbox."""

    simulated = True

    def __init__(self) -> None:
        self.sent: list[Message] = []

    def send(self, message: Message) -> None:
        """Keep the message."""
        self.sent.append(message)
