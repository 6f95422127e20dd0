"""The second test: what was measured behind the flush is measured again days later."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from tests.core.aftercare.test_job import AT, hardness, job
from zesty_glass.core.aftercare.job import standing
from zesty_glass.core.aftercare.second_test import KEY, as_falling

FITTED = date(2026, 11, 2)


class SecondTest(unittest.TestCase):
    def of(self, *proofs, fitted=FITTED):
        return standing(replace(job("SO-15"), fitted_on=fitted, proofs=proofs), FITTED).second

    def test_it_is_a_week_after_the_fitting_and_of_what_was_measured(self):
        second = self.of(hardness(0))
        self.assertEqual(second.on, date(2026, 11, 9))
        self.assertEqual([(p.analyte, p.where) for p in second.promises], [("hardness", "house")])

    def test_nothing_measured_or_not_fitted_asks_for_no_second(self):
        self.assertIsNone(self.of())
        self.assertIsNone(self.of(hardness(0), fitted=None))

    def test_a_reading_days_later_ends_it_and_a_struck_one_does_not(self):
        later = replace(hardness(0, id="r2"), phase="later")
        self.assertIsNone(self.of(hardness(0), later))
        struck = replace(later.reading, struck_at=AT, struck_because="wrong glass")
        self.assertIsNotNone(self.of(hardness(0), replace(later, reading=struck)))
        first = replace(hardness(0).reading, struck_at=AT, struck_because="wrong glass")
        self.assertIsNone(self.of(replace(hardness(0), reading=first)))

    def test_it_falls_due_once(self):
        second = self.of(hardness(0))
        for days, state in ((7, "due"), (8, "overdue")):
            f = as_falling(second, FITTED + timedelta(days=days))
            self.assertEqual((f.part.key, f.next, f.state), (KEY, second.on, state))
            self.assertEqual((f.last, f.changed, f.part.months), (FITTED, 0, 0.0))
        self.assertFalse(as_falling(second, FITTED).part.own)


if __name__ == "__main__":
    unittest.main()
