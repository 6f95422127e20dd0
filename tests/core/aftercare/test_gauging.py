"""Lamps by days powered and beds by what is left, by hand; what cannot be; a reading before a
change counts no more.
"""

import unittest
from datetime import date, timedelta

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.aftercare.care import Change, Part, falling
from zesty_glass.core.aftercare.gauging import GAUGED, Gauge, check_gauge, gauged, next_by_gauge
from zesty_glass.core.errors import RuleError

FITTED = date(2025, 6, 1)
TODAY = date(2026, 11, 1)


def gauge(value, on=date(2026, 3, 1), part="0:L:lamp", id="g"):
    return Gauge(id=id, part=part, on=on, value=float(value), by="Ansgar")


def part(kind="lamp", months=12.0):
    return Part(
        key=f"0:L:{kind}", stage="S", label="P", kind=kind, months=months, own=False, minutes=20
    )


class Lamps(unittest.TestCase):
    def test_what_is_left_of_its_rated_days(self):
        # 12 months are 365 days; 273 powered leave 92: March 1 and 92 days is June 1
        self.assertEqual(
            next_by_gauge("lamp", 12.0, FITTED, gauge(273)), date(2026, 3, 1) + timedelta(92)
        )

    def test_one_that_was_off_lasts_longer_than_the_calendar_says(self):
        # a house lived in by seasons: 120 days powered in 273
        due = falling((part(),), (), FITTED, TODAY, (gauge(120),))[0]
        self.assertEqual(due.next, date(2026, 3, 1) + timedelta(245))
        self.assertGreater(due.next, FITTED + timedelta(365))
        self.assertEqual(due.read.value, 120)

    def test_past_its_days_it_is_due_on_the_day_it_was_read(self):
        self.assertEqual(next_by_gauge("lamp", 12.0, FITTED, gauge(400)), date(2026, 3, 1))


class Beds(unittest.TestCase):
    def next(self, left, on=FITTED + timedelta(100)):
        return next_by_gauge("media", 24.0, FITTED, gauge(left, on))

    def test_at_the_pace_it_went(self):
        # a tenth gone in 100 days: a third, 33 %, in 330
        self.assertEqual(self.next(90), FITTED + timedelta(330))

    def test_a_third_gone_is_due_at_once(self):
        self.assertEqual(self.next(67), FITTED + timedelta(100))
        self.assertEqual(self.next(40), FITTED + timedelta(100))
        self.assertGreater(self.next(68), FITTED + timedelta(100))  # 33/32 × 100 days: 103
        self.assertEqual(self.next(68), FITTED + timedelta(103))

    def test_a_full_bed_leaves_it_to_the_calendar(self):
        self.assertIsNone(self.next(100))
        bed = part("media", 24.0)
        read = gauge(100, FITTED + timedelta(100), bed.key)
        self.assertEqual(
            falling((bed,), (), FITTED, TODAY, (read,))[0].next,
            falling((bed,), (), FITTED, TODAY)[0].next,
        )


class WhereItSaysSomething(unittest.TestCase):
    def test_a_lamp_and_a_bed_that_dissolves(self):
        self.assertEqual(gauged("lamp", "uv").unit, "days")
        self.assertEqual(gauged("media", "neutraliser").unit, "%")
        for part, stage in (("media", "carbon"), ("lamp", "neutraliser"), ("filter", "uv")):
            self.assertIsNone(gauged(part, stage))

    def test_a_bed_of_which_hardly_anything_is_gone(self):
        # one in a hundred in 100 days: 33 in 3,300
        self.assertEqual(
            next_by_gauge("media", 24.0, FITTED, gauge(99, FITTED + timedelta(100))),
            FITTED + timedelta(3300),
        )

    def test_read_today(self):
        check_gauge(gauge(3, TODAY), "lamp", FITTED, TODAY)


class SinceTheChange(unittest.TestCase):
    def test_a_reading_before_the_change_counts_no_more(self):
        change = Change(id="c", part="0:L:lamp", on=date(2026, 3, 2), by="A")
        due = falling((part(),), (change,), FITTED, TODAY, (gauge(273),))[0]
        self.assertIsNone(due.read)
        self.assertEqual(due.next, date(2026, 3, 2) + timedelta(365))

    def test_the_last_one_counts(self):
        reads = (gauge(273), gauge(300, date(2026, 4, 1), id="h"))
        self.assertEqual(falling((part(),), (), FITTED, TODAY, reads)[0].read.id, "h")
        self.assertEqual(falling((part(),), (), FITTED, TODAY, reads[::-1])[0].read.id, "h")

    def test_another_parts_reading_does_not_count(self):
        due = falling((part(),), (), FITTED, TODAY, (gauge(273, part="1:L:lamp"),))[0]
        self.assertIsNone(due.read)

    @given(st.sampled_from(sorted(GAUGED)), st.floats(0, 100), st.integers(1, 900))
    def test_a_day_never_falls_before_what_it_is_counted_from(self, kind, value, days):
        on = FITTED + timedelta(days)
        got = next_by_gauge(kind, 12.0, FITTED, gauge(value, on))
        self.assertTrue(got is None or got > FITTED)


class CannotBe(unittest.TestCase):
    def test_refused(self):
        on = date(2026, 3, 1)
        for code, read, kind, since in (
            ("gauge.not_fitted", gauge(3, on), "lamp", None),
            ("gauge.part", gauge(3, on), "filter", FITTED),
            ("gauge.part", gauge(3, on), None, FITTED),
            ("gauge.value", gauge(-1, on), "lamp", FITTED),
            ("gauge.value", gauge("nan", on), "lamp", FITTED),
            ("gauge.value", gauge(100.5, on), "media", FITTED),
            ("gauge.future", gauge(3, TODAY + timedelta(1)), "lamp", FITTED),
            ("gauge.before_change", gauge(0, FITTED), "lamp", FITTED),
            ("gauge.not_reset", gauge(276, on), "lamp", FITTED),  # in for 273 days, 2 are let go
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                check_gauge(read, kind, since, TODAY)
            self.assertEqual(e.exception.code, code)

    def test_a_counter_a_little_ahead_is_let_go(self):
        check_gauge(gauge(275, date(2026, 3, 1)), "lamp", FITTED, TODAY)
