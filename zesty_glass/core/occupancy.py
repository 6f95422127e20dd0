"""When a home is lived in: which months, and whether on weekends alone. Parts wear in days lived
in; a calendar says on which day they are used up.
"""

from __future__ import annotations

import calendar
from datetime import date, timedelta

from .errors import RuleError
from .record import record

SATURDAY = 5  # date.weekday()
#: a year that has every day once, and its leap day's quarter beside it
DAYS_OF_YEAR = 365.25
MOST_DAYS = 40 * 366  # how far ahead a day is looked for


@record
class Occupancy:
    """The months of a year that a home is lived in, 1 to 12, none for all of them; ``weekends``: on
    Saturdays and Sundays alone.

    Raises:
        RuleError: ``home.occupancy``, a month that is none, or one given twice.
    """

    months: tuple[int, ...] = ()
    weekends: bool = False

    def __post_init__(self) -> None:
        if len(set(self.months)) < len(self.months) or not set(self.months) <= set(range(1, 13)):
            raise RuleError(
                "home.occupancy",
                "The months that the home is lived in are not months of a year.",
                "home.occupancy.months",
                "Give each once, 1 for January to 12 for December.",
            )

    def lived_in(self, day: date) -> bool:
        """Whether somebody may be there on a day."""
        in_month = not self.months or day.month in self.months
        return in_month and (not self.weekends or day.weekday() >= SATURDAY)

    @property
    def days_year(self) -> float:
        """Days of a year that it has [days].

        >>> Occupancy(months=(6, 7, 8)).days_year, Occupancy(months=(2,)).days_year
        (92.0, 28.25)
        """
        months = self.months or tuple(range(1, 13))
        days = sum(28.25 if m == 2 else float(calendar.monthrange(2025, m)[1]) for m in months)
        return days * 2 / 7 if self.weekends else days

    @property
    def empty_months(self) -> tuple[int, ...]:
        """Months in which nobody is there."""
        return tuple(m for m in range(1, 13) if self.months and m not in self.months)


ALL_YEAR = Occupancy()


def day_used_up(since: date, days_lived: float, each: Occupancy, lived_year: float) -> date:
    """The day by which somebody was there for so many days, counted from the day after ``since``.

    Args:
        days_lived: of use that a part takes [days lived in]. each: the home's calendar;
            lived_year: days a year that somebody is there, on those of the calendar [days/year].

    >>> summer = Occupancy(months=(6, 7, 8))
    >>> day_used_up(date(2026, 1, 10), 28.0, summer, 92.0)  # the 28th day of June
    datetime.date(2026, 6, 28)
    """
    share = min(1.0, lived_year / each.days_year) if each.days_year > 0 else 0.0
    left, day = days_lived, since
    for _ in range(MOST_DAYS):
        day += timedelta(days=1)
        left -= share if each.lived_in(day) else 0.0
        if left <= 1e-9:
            break
    return day
