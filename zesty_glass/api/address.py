"""What a body says it is against what its address says."""

from __future__ import annotations

from uuid import UUID

from ..core.errors import RuleError
from ..work import versioning


def same_id(given: str, address: UUID | str, area: str, thing: str) -> None:
    """RuleError ``area.id`` unless a body's id is the one in its address."""
    known = versioning.same_id(given) if isinstance(address, UUID) else given
    if known != address:
        raise RuleError(
            f"{area}.id",
            f"The {thing}’s id is not the one in the address.",
            "id",
            "Send the same id.",
        )
