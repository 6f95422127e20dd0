"""Checks of instruments in standards, by hand: accuracy, drift, what is said."""

import unittest
from dataclasses import replace
from datetime import date

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.checking import (
    InstrumentCheck,
    allowed,
    check_made,
    drift,
    per_year,
)
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind

METER = Instrument(
    id="m",
    name="A meter",
    kind=InstrumentKind.METER,
    analyte="tds",
    accuracy_share=0.02,
    accuracy_of="reading",
    resolution=1.0,
    factor=0.5,
)
FULL_SCALE = replace(METER, accuracy_of="full_scale", full_scale=1000.0)
PH = Instrument(
    id="p",
    name="A pH meter",
    kind=InstrumentKind.DISPLAY,
    analyte="ph",
    accuracy_plus=0.1,
    resolution=0.01,
)
BARE = replace(METER, accuracy_share=None, accuracy_of=None)


def check(shown, on=date(2026, 11, 1), standard=342.0):
    return InstrumentCheck(id="x", on=on, standard=standard, shown=shown, by="Somebody")


class Accuracy(unittest.TestCase):
    def test_a_share_of_the_reading_and_half_a_step(self):
        # 2 % of 342 is 6.84, and half of 1
        self.assertAlmostEqual(allowed(METER, 342.0), 7.34)

    def test_a_share_of_full_scale(self):
        # 2 % of 1,000 is 20, wherever it is read
        self.assertAlmostEqual(allowed(FULL_SCALE, 342.0), 20.5)

    def test_a_plain_accuracy(self):
        self.assertAlmostEqual(allowed(PH, 7.0), 0.105)

    def test_none_is_stated(self):
        self.assertIsNone(allowed(BARE, 342.0))
        got = drift(BARE, (check(400.0),))
        self.assertIsNone(got.within)
        self.assertIn("not stated", got.sentence)

    def test_at_its_edge_it_holds(self):
        # 342 + 7.34
        self.assertTrue(drift(METER, (check(349.34),)).within)
        self.assertFalse(drift(METER, (check(349.4),)).within)
        self.assertFalse(drift(METER, (check(334.6),)).within)


class Words(unittest.TestCase):
    def test_too_much_is_not_counted_on(self):
        said = drift(METER, (check(360.0),)).sentence
        self.assertIn("Shows 18 mg/L too much in a standard of 342 mg/L", said)
        self.assertIn("its accuracy allows 7.34 mg/L", said)
        self.assertIn("do not count on it", said)

    def test_too_little_within(self):
        said = drift(METER, (check(340.0),)).sentence
        self.assertIn("2 mg/L too little", said)
        self.assertNotIn("count on it", said)

    def test_right_on(self):
        said = drift(METER, (check(342.0),)).sentence
        self.assertEqual(said, "Shows the 342 mg/L of its standard.")

    def test_no_unit_is_said_of_ph(self):
        self.assertIn(
            "0.2 too much in a standard of 7;", drift(PH, (check(7.2, standard=7.0),)).sentence
        )

    def test_a_drift_is_said_with_its_way(self):
        up = tuple(check(s, d) for s, d in ((342, DAYS[0]), (344, DAYS[1]), (346, DAYS[2])))
        down = tuple(check(s, d) for s, d in ((342, DAYS[0]), (338, DAYS[1]), (334, DAYS[2])))
        self.assertIn("drifts by about 1.2% a year upwards", drift(METER, up).sentence)
        self.assertIn("a year down", drift(METER, down).sentence)


DAYS = (date(2025, 1, 1), date(2025, 7, 2), date(2026, 1, 1))


class Drift(unittest.TestCase):
    def test_a_straight_line(self):
        # 0, 1 and 2 % over a year
        made = tuple(check(x, d, 100.0) for x, d in zip((100, 101, 102), DAYS, strict=True))
        self.assertAlmostEqual(per_year(made), 0.02, 4)

    def test_standards_of_other_values_are_told_as_shares(self):
        # 0 % of 100, 1 % of 1,000, 2 % of 500
        made = tuple(
            check(x, d, s)
            for x, d, s in zip((100, 1010, 510), DAYS, (100.0, 1000.0, 500.0), strict=True)
        )
        self.assertAlmostEqual(per_year(made), 0.02, 4)

    def test_two_say_nothing(self):
        made = tuple(check(x, d) for x, d in zip((342, 350), DAYS, strict=False))
        self.assertIsNone(per_year(made))
        self.assertTrue(drift(METER, made).few)

    def test_three_are_enough(self):
        self.assertFalse(drift(METER, tuple(check(342, d) for d in DAYS)).few)

    def test_three_within_two_months_say_nothing(self):
        days = (date(2026, 1, 1), date(2026, 2, 1), date(2026, 3, 1))  # 59 days
        self.assertIsNone(per_year(tuple(check(342, d) for d in days)))
        self.assertIsNotNone(
            per_year(tuple(check(342, d) for d in (*days[:2], date(2026, 3, 2))))  # 60 days
        )

    def test_a_standard_of_nothing_has_no_share(self):
        self.assertIsNone(per_year(tuple(check(1, d, 0.0) for d in DAYS)))

    @given(st.lists(st.floats(1, 2000), min_size=3, max_size=9))
    def test_showing_the_standard_is_no_drift(self, standards):
        made = tuple(check(s, date(2025, 1 + n, 1), s) for n, s in enumerate(standards))
        got = per_year(made)
        self.assertTrue(got is None or abs(got) < 1e-9)


class CannotBe(unittest.TestCase):
    def test_refused(self):
        today = date(2026, 11, 20)
        check_made(check(342, today), today)
        for code, made in (
            ("check.day", check(342, date(2026, 11, 21))),
            ("check.value", check(float("nan"))),
            ("check.value", check(342, standard=float("inf"))),
            ("check.value", check(1e8)),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                check_made(made, today)
            self.assertEqual(e.exception.code, code)
