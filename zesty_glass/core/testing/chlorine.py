"""Free, total and combined chlorine."""

from __future__ import annotations

from ..ranges import Range
from ..record import record


@record
class Combined:
    """Combined chlorine (chloramine) [mg/L]; ``shown`` False: ranges overlap; ``error``: free above
    total.
    """

    range: Range | None
    shown: bool
    error: bool = False


def combined(free: Range, total: Range) -> Combined:
    """total − free, not below 0, from total_low − free_high to total_high − free_low."""
    if total.high is not None and free.low > total.high:
        return Combined(range=None, shown=False, error=True)
    r = total.minus(free)
    return Combined(range=r, shown=not free.overlaps(total))
