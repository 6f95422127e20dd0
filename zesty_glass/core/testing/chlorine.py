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
    """total − free, not below 0, from total_low − free_high to total_high − free_low.

    >>> r = combined(Range.of(0.25, 0.3, 0.35), Range.of(1.5, 1.6, 1.7)).range
    >>> [round(x, 2) for x in (r.low, r.best, r.high)]  # 1.5 - 0.35, 1.6 - 0.3, 1.7 - 0.25
    [1.15, 1.3, 1.45]
    """
    if total.high is not None and free.low > total.high:
        return Combined(range=None, shown=False, error=True)
    r = total.minus(free)
    return Combined(range=r, shown=not free.overlaps(total))
