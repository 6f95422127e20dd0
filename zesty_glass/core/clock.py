"""A time of day as people write it."""

from __future__ import annotations

import re
from datetime import time

from .errors import RuleError

_CLOCK = re.compile(r"([01]\d|2[0-3]):([0-5]\d)")


def time_of_day(text: str, where: str) -> time:
    """The hour and minute of "HH:MM"; ``where`` names the field in the error.

    Raises:
        RuleError: ``clock``, when it is no time of day.

    >>> time_of_day("17:30", "settings.post_cutoff")
    datetime.time(17, 30)
    """
    found = _CLOCK.fullmatch(text)
    if found is None:
        raise RuleError(
            "clock", f"“{text[:20]}” is no time of day.", where, "Write it as 16:30, from 00:00."
        )
    return time(int(found[1]), int(found[2]))
