"""How well a removal figure is supported, strongest first."""

from __future__ import annotations

from datetime import date
from enum import StrEnum

from .record import record


class Level(StrEnum):
    """Strength of evidence. ``NO_CLAIM`` and ``DOES_NOT_REMOVE`` are different answers, and both
    are shown.
    """

    MEASURED_HERE = "measured_here"
    CERTIFIED = "certified"
    TESTED = "tested"
    MAKER_STATES = "maker_states"
    TYPICAL = "typical"
    NO_CLAIM = "no_claim"
    DOES_NOT_REMOVE = "does_not_remove"


STRENGTH = {level: i for i, level in enumerate(Level)}
LEVEL_WORDS = {
    Level.MEASURED_HERE: "measured here",
    Level.CERTIFIED: "certified",
    Level.TESTED: "tested",
    Level.MAKER_STATES: "maker states",
    Level.TYPICAL: "typical",
    Level.NO_CLAIM: "no claim",
    Level.DOES_NOT_REMOVE: "does not remove",
}
#: health contaminants may be proposed for on these only
ESTABLISHES_HEALTH = frozenset({Level.MEASURED_HERE, Level.CERTIFIED})


@record
class Evidence:
    """Where a removal figure comes from; a certificate counts for its own contaminant only."""

    level: Level
    certifier: str = ""
    standard: str = ""
    certificate: str = ""
    checked_on: date | None = None
    note: str = ""

    def sentence(self) -> str:
        """The evidence in words."""
        parts = [LEVEL_WORDS[self.level]]
        if self.standard:
            parts.append(f"to {self.standard}")
        if self.certificate:
            parts.append(
                f"by {self.certifier}, certificate {self.certificate}"
                if self.certifier
                else f"certificate {self.certificate}"
            )
        if self.checked_on:
            parts.append(f"checked {self.checked_on.isoformat()}")
        if self.note:
            parts.append(f"({self.note})")
        return " ".join(parts)
