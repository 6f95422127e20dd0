"""Months on a calendar."""

from __future__ import annotations

from calendar import monthrange
from datetime import date


def month_on(day: date, months: int) -> date:
    """The same day some months on, or the last of a shorter month.

    >>> month_on(date(2026, 1, 31), 1)
    datetime.date(2026, 2, 28)
    """
    year, month = divmod(day.year * 12 + day.month - 1 + months, 12)
    return date(year, month + 1, min(day.day, monthrange(year, month + 1)[1]))
