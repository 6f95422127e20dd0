"""What is said in a message that brings a proposal, or a reminder."""

from __future__ import annotations

REMINDS = "Your water treatment: what is due"


def subject(number: str, revision: int) -> str:
    """What a message with a proposal is about."""
    return f"Your water: proposal {number}, revision {revision}"


def read_until(last: str) -> str:
    """The line before the address of a proposal, with its last day."""
    return f"Your proposal, to read until {last}:"
