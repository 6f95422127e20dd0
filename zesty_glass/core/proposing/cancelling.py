"""Until when a sale made at home can be cancelled without a penalty."""

from __future__ import annotations

from datetime import date, timedelta

MONDAY, THURSDAY, SUNDAY = 0, 3, 6
#: the same day every year, as (month, day): 5 U.S.C. 6103, federal holidays (2021)
_FIXED = ((1, 1), (6, 19), (7, 4), (11, 11), (12, 25))
#: month, weekday, and which of the month: the last is −1
_MOVING = (
    (1, MONDAY, 3),
    (2, MONDAY, 3),
    (5, MONDAY, -1),
    (9, MONDAY, 1),
    (10, MONDAY, 2),
    (11, THURSDAY, 4),
)


def _of_month(year: int, month: int, weekday: int, which: int) -> date:
    days = [date(year, month, 1) + timedelta(days=n) for n in range(31)]
    those = [d for d in days if d.month == month and d.weekday() == weekday]
    return those[which] if which < 0 else those[which - 1]


def federal_holiday(day: date) -> bool:
    """Whether a day is a federal holiday of the United States.

    Source: 5 U.S.C. 6103 (2021).

    >>> federal_holiday(date(2026, 11, 26)), federal_holiday(date(2026, 11, 27))
    (True, False)
    """
    if (day.month, day.day) in _FIXED:
        return True
    return any(day == _of_month(day.year, *m) for m in _MOVING if m[0] == day.month)


def business_day(day: date) -> bool:
    """Every day but Sundays and federal holidays: 16 CFR 429.0(f) (2015).

    >>> business_day(date(2026, 11, 28)), business_day(date(2026, 11, 29))
    (True, False)
    """
    return day.weekday() != SUNDAY and not federal_holiday(day)


def cancel_until(signed: date, days: int) -> date:
    """The last day on which a sale can be cancelled without a penalty, its midnight included.

    Args:
        signed: the day of the signature. days: business days after it, 3 by 16 CFR 429.1 (2015).

    >>> cancel_until(date(2026, 11, 24), 3)
    datetime.date(2026, 11, 28)
    """
    last = signed
    for _ in range(days):
        last += timedelta(days=1)
        while not business_day(last):
            last += timedelta(days=1)
    return last
