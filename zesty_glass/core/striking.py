"""Striking: what was written down wrongly stays on record with its reason, and counts no more."""

from __future__ import annotations

from datetime import datetime

from .errors import RuleError

__all__ = ["REASON_AT_LEAST", "check_struck"]

REASON_AT_LEAST = 3  # [characters] fewer say nothing


def check_struck(at: datetime | None, because: str) -> None:
    """RuleError unless both are said, or neither: a time with its offset, and a reason."""
    if at is None and because == "":
        return
    if at is None or at.tzinfo is None:
        raise RuleError(
            "struck.at",
            "When it was crossed out is not said.",
            "struck_at",
            "Say it with its offset.",
        )
    if len(because.strip()) < REASON_AT_LEAST:
        raise RuleError(
            "struck.because",
            "What is crossed out needs its reason.",
            "struck_because",
            "Write why.",
        )
