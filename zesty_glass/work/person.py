"""Who acts, what they may do, and how changes by two people are kept apart."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any
from uuid import UUID


@dataclass(frozen=True, slots=True)
class Person:
    """A signed-in person of a firm."""

    id: UUID
    firm_id: UUID
    name: str
    role: str
    email: str = ""
    session: UUID | None = None
    proved_at: datetime | None = None


class Forbidden(Exception):
    """This person may not do that."""


class Conflict(Exception):
    """Somebody else changed the thing meanwhile; nothing was overwritten."""

    def __init__(self, what: str, changed: list[str], by: str, version: int) -> None:
        super().__init__(what)
        self.what, self.changed, self.by, self.version = what, changed, by, version


def clock() -> datetime:
    """The server's clock: the one place that asks for it, so that a test can move it."""
    return datetime.now(UTC)


def now() -> datetime:
    """The time, with its zone."""
    return clock()


def manager_only(who: Person) -> None:
    """Refuse everybody but a manager."""
    if who.role != "manager":
        raise Forbidden("Only a manager of the firm may do this.")


def changed_fields(before: dict[str, Any], after: dict[str, Any], prefix: str = "") -> list[str]:
    """Names of fields that differ, one level into nested ones."""
    out = []
    for key in dict.fromkeys((*before, *after)):
        a, b = before.get(key), after.get(key)
        if a != b:
            out += (
                changed_fields(a, b, f"{key}.")
                if isinstance(a, dict) and isinstance(b, dict) and not prefix
                else [prefix + key]
            )
    return out
