"""A bottle by post: the cut-off, the weekend, and what is left of the radon; worked by hand."""

import unittest
from datetime import UTC, datetime, time, timedelta

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.laboratory import KIND_BY_ID, KINDS
from zesty_glass.core.testing.posting import cutoff, posting, radon_left, travel

FOUR = time(16, 0)


def at(day, hour, minute=0):
    """A time in the week of Monday 2 March 2026."""
    return datetime(2026, 3, 2 + day, hour, minute, tzinfo=UTC)


MONDAY, WEDNESDAY, THURSDAY, FRIDAY, SATURDAY, SUNDAY = 0, 2, 3, 4, 5, 6


class Travel(unittest.TestCase):
    def test_before_the_cutoff_it_leaves_the_same_day(self):
        self.assertEqual(travel(at(MONDAY, 15, 59), FOUR), (at(MONDAY, 16), at(1, 12)))
        self.assertEqual(travel(at(MONDAY, 16), FOUR), (at(MONDAY, 16), at(1, 12)))

    def test_after_it_on_the_next_working_day(self):
        self.assertEqual(travel(at(MONDAY, 16, 1), FOUR), (at(1, 16), at(2, 12)))

    def test_the_weekend_lies_still(self):
        self.assertEqual(travel(at(FRIDAY, 10), FOUR), (at(FRIDAY, 16), at(7, 12)))
        self.assertEqual(travel(at(FRIDAY, 17), FOUR), (at(7, 16), at(8, 12)))
        self.assertEqual(travel(at(SATURDAY, 9), FOUR), (at(7, 16), at(8, 12)))
        self.assertEqual(travel(at(SUNDAY, 9), FOUR), (at(7, 16), at(8, 12)))

    def test_a_cutoff_of_its_own(self):
        self.assertEqual(cutoff("17:30"), time(17, 30))
        self.assertEqual(cutoff(""), FOUR)
        for wrong in ("24:00", "9:00", "16:60", "soon", "16:00:00"):
            with self.assertRaises(RuleError, msg=wrong):
                cutoff(wrong)


class Posted(unittest.TestCase):
    def told(self, kind, drawn):
        return posting(KIND_BY_ID[kind], drawn, FOUR)

    def test_bacteria_keep_thirty_hours(self):
        self.assertTrue(self.told("bacteria", at(MONDAY, 9)).in_time)  # 27 h later
        self.assertTrue(self.told("bacteria", at(MONDAY, 6)).in_time)  # 30 h later
        early = self.told("bacteria", at(MONDAY, 5, 59))
        self.assertFalse(early.in_time)
        self.assertIn("take it there by Tuesday 11:59", early.sentence)
        self.assertIn("draw it on Tuesday morning", early.sentence)

    def test_on_a_friday_they_wait_for_monday(self):
        friday = self.told("bacteria", at(FRIDAY, 10))
        self.assertFalse(friday.in_time)
        self.assertIn("draw it on Monday morning", friday.sentence)

    def test_radon_keeps_four_days_but_not_its_strength(self):
        friday = self.told("radon", at(FRIDAY, 12))  # Monday noon: 72 h, 58 %
        self.assertTrue(friday.in_time)
        self.assertIn("after 72 h, 58 % of the radon is left", friday.sentence)
        late = self.told("radon", at(FRIDAY, 17))  # Tuesday noon: 91 h, half of it
        self.assertIn("after 91 h, 50 %", late.sentence)

    def test_nothing_is_said_of_radon_for_others(self):
        self.assertNotIn("radon", self.told("nitrate", at(MONDAY, 9)).sentence)

    def test_half_of_it_after_its_half_life(self):
        self.assertAlmostEqual(radon_left(0.0), 1.0)
        self.assertAlmostEqual(radon_left(91.764), 0.5, 5)
        self.assertAlmostEqual(radon_left(48.0), 0.6959, 3)

    @given(
        st.sampled_from(KINDS),
        st.datetimes(datetime(2026, 1, 1), datetime(2027, 1, 1)),
        st.integers(6, 20),
    )
    def test_it_never_arrives_before_it_leaves_nor_on_a_weekend(self, kind, drawn, hour):
        p = posting(kind, drawn.replace(tzinfo=UTC), time(hour, 0))
        self.assertLess(p.posted, p.arrives)
        self.assertLessEqual(drawn.replace(tzinfo=UTC), p.posted)
        self.assertLess(p.arrives.weekday(), 5)
        self.assertLess(p.posted.weekday(), 5)
        self.assertLessEqual(p.arrives - p.posted, timedelta(days=4))


if __name__ == "__main__":
    unittest.main()
