"""The third business day after a signature, by the calendar: 16 CFR 429.0 and 5 U.S.C. 6103."""

import unittest
from datetime import date, timedelta

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.proposing.cancelling import business_day, cancel_until, federal_holiday

DAYS = st.dates(date(2021, 1, 1), date(2090, 1, 1))


class Cancelling(unittest.TestCase):
    def test_by_the_calendar(self):
        for signed, last in (
            (date(2026, 12, 1), date(2026, 12, 4)),  # Tuesday: Wednesday, Thursday, Friday
            (date(2026, 12, 4), date(2026, 12, 8)),  # Friday: Saturday counts, Sunday does not
            (date(2026, 11, 25), date(2026, 11, 30)),  # Thanksgiving and a Sunday between
            (date(2026, 12, 24), date(2026, 12, 29)),  # Christmas and a Sunday
            (date(2027, 1, 15), date(2027, 1, 20)),  # Sunday, and the holiday of January
            (date(2027, 5, 28), date(2027, 6, 2)),  # Saturday, Sunday, the last Monday of May
        ):
            with self.subTest(signed):
                self.assertEqual(cancel_until(signed, 3), last)

    def test_holidays_of_a_year(self):
        year = [date(2027, 1, 1) + timedelta(days=n) for n in range(365)]
        self.assertEqual(
            [f"{d:%m-%d}" for d in year if federal_holiday(d)],
            ["01-01", "01-18", "02-15", "05-31", "06-19", "07-04", "09-06", "10-11", "11-11"]
            + ["11-25", "12-25"],
        )

    @given(DAYS, st.integers(1, 14))
    def test_so_many_business_days_lie_between(self, signed, days):
        last = cancel_until(signed, days)
        between = [signed + timedelta(days=n + 1) for n in range((last - signed).days)]
        self.assertEqual(sum(business_day(d) for d in between), days)
        self.assertTrue(business_day(last))
