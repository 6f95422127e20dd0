"""What falls due after a fitting, worked by hand."""

import unittest
from datetime import date, timedelta
from decimal import Decimal
from types import SimpleNamespace

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.aftercare.care import (
    Change,
    Part,
    check_change,
    falling,
    next_day,
    parts_of,
    reminder,
    state_on,
)
from zesty_glass.core.errors import RuleError
from zesty_glass.core.occupancy import Occupancy, day_used_up
from zesty_glass.core.treating.report import Due

FITTED = date(2026, 1, 15)


def part(key="0:A:c", months=12.0):
    return Part(
        key=key, stage="A", label="Cartridge", kind="filter", months=months, own=True, minutes=15
    )


def change(on, id="1", key="0:A:c"):
    return Change(id=id, part=key, on=on, by="P")


class Days(unittest.TestCase):
    def test_intervals_are_rounded_to_days_and_nowhere_before(self):
        # 6 × 30.4375 = 182.625: 183 days; 8.1 × 30.4375 = 246.54: 247 days
        self.assertEqual(next_day(FITTED, 6), FITTED + timedelta(days=183))
        self.assertEqual(next_day(FITTED, 8.1), FITTED + timedelta(days=247))

    def test_a_part_used_up_within_a_day_still_moves_on(self):
        self.assertEqual(next_day(FITTED, 0.001), FITTED + timedelta(days=1))

    def test_states(self):
        today = date(2026, 6, 1)
        for days, state in ((-1, "overdue"), (0, "due"), (14, "due"), (15, "soon"), (60, "soon")):
            self.assertEqual(state_on(today + timedelta(days=days), today), state, days)
        self.assertEqual(state_on(today + timedelta(days=61), today), "later")

    def test_counted_from_the_last_change(self):
        today = date(2026, 12, 1)
        first = falling((part(months=6),), (), FITTED, today)[0]
        self.assertEqual((first.last, first.changed, first.state), (FITTED, 0, "overdue"))
        done = falling((part(months=6),), (change(date(2026, 7, 20)),), FITTED, today)[0]
        self.assertEqual((done.last, done.changed), (date(2026, 7, 20), 1))
        self.assertEqual(done.next, date(2026, 7, 20) + timedelta(days=183))

    def test_the_earliest_first(self):
        parts = (part("b", 12), part("a", 3))
        self.assertEqual([f.part.key for f in falling(parts, (), FITTED, FITTED)], ["a", "b"])

    @given(
        st.floats(0.01, 400),
        st.lists(st.integers(0, 3000), max_size=6),
        st.integers(0, 3000),
    )
    def test_a_change_never_moves_a_date_back(self, months, before, later):
        made = [change(FITTED + timedelta(days=d), str(n)) for n, d in enumerate(before)]
        was = falling((part(months=months),), tuple(made), FITTED, FITTED)[0]
        last = was.last + timedelta(days=later)
        now = falling((part(months=months),), (*made, change(last, "x")), FITTED, FITTED)[0]
        self.assertGreaterEqual(now.next, was.next)
        self.assertGreater(now.next, now.last)


def stage(*dues):
    return SimpleNamespace(code="C1", name="Carbon", dues=dues)


def due(**more):
    base = {
        "code": "c",
        "label": "Cartridge",
        "kind": "filter",
        "price": Decimal("12.50"),
        "months": 12.0,
        "capacity_gal": None,
        "gallons_year": 6000.0,
    }
    return Due(**{**base, **more})


class InSeason(unittest.TestCase):
    """A home lived in from June to August: a part of 28 days’ use, put in on January 10, is used up
    on June 28, not half a year after it by the mean of a year."""

    SUMMER = Occupancy(months=(6, 7, 8))
    IN = date(2026, 1, 10)

    def due(self, **figures):
        fixed = Due(
            code="c",
            label="Cartridge",
            kind="filter",
            price=Decimal(20),
            **{"months": 12.0, "capacity_gal": 280.0, "gallons_year": 920.0, **figures},
        )
        stages = (SimpleNamespace(code="A", name="A", dues=(fixed,)),)
        parts = parts_of(stages, 92.0)
        return falling(parts, (), self.IN, self.IN, lived=self.SUMMER, lived_year=92.0)[0]

    def test_it_is_used_up_in_days_lived_in(self):
        # 280 gal of 920 a year in 92 days: 28 days lived in
        self.assertAlmostEqual(self.due().part.days_lived, 28.0)
        self.assertEqual(self.due().next, date(2026, 6, 28))

    def test_the_calendar_ends_it_sooner(self):
        # 3 months of 30.4375 days: 91 days after January 10
        self.assertEqual(self.due(months=3.0).next, self.IN + timedelta(days=91))

    def test_what_outlasts_a_season_goes_on_in_the_next(self):
        # 1,000 gal: 100 days; 92 of the first summer, 8 of the next
        self.assertEqual(self.due(capacity_gal=1000.0, months=None).next, date(2027, 6, 8))

    def test_half_of_a_season_takes_twice_as_long(self):
        used = day_used_up(self.IN, 14.0, self.SUMMER, 46.0)
        self.assertEqual(used, date(2026, 6, 28))

    def test_weekends_alone(self):
        # Saturdays and Sundays from January 10, 2026, a Saturday: 11, 17, 18, 24
        self.assertEqual(
            day_used_up(self.IN, 4.0, Occupancy(weekends=True), 104.36), date(2026, 1, 24)
        )

    def test_a_lamp_that_is_laid_up_counts_the_days_it_burned(self):
        lamp = self.due(capacity_gal=None, lived_days=92.0)
        self.assertEqual(lamp.next, date(2026, 8, 31))

    def test_months_that_are_none(self):
        for months in ((0,), (13,), (6, 6)):
            with self.assertRaisesRegex(RuleError, "months"):
                Occupancy(months=months)


class Parts(unittest.TestCase):
    def test_by_the_calendar_or_by_use_whichever_is_sooner(self):
        # 1,000 gal at 6,000 a year are 2 months; 12,000 gal are 24
        for capacity, months, why in (
            (1000.0, 2.0, "by use"),
            (12000.0, 12.0, "by the calendar"),
            (6000.0, 12.0, "by the calendar"),
            (None, 12.0, "by the calendar"),
        ):
            found = parts_of((stage(due(capacity_gal=capacity)),))[0]
            self.assertAlmostEqual(found.months, months)
            self.assertEqual(found.why, why, capacity)

    def test_without_a_calendar_it_is_by_use(self):
        found = parts_of((stage(due(months=None, capacity_gal=3000.0)),))[0]
        self.assertEqual((found.months, found.why), (6.0, "by use"))

    def test_a_hard_life_shortens_the_calendar_too(self):
        found = parts_of((stage(due(life_factor=0.5)),))[0]
        self.assertEqual((found.months, found.why), (6.0, "by the calendar"))

    def test_what_nothing_runs_through_never_falls_due(self):
        unused = due(months=None, capacity_gal=100.0, gallons_year=0.0)
        self.assertEqual(parts_of((stage(unused),)), ())

    def test_two_stages_of_one_item_are_two_parts(self):
        keys = [p.key for p in parts_of((stage(due()), stage(due())))]
        self.assertEqual(keys, ["0:C1:c", "1:C1:c"])

    def test_of_several_changes_the_last_counts(self):
        made = (change(date(2026, 5, 1)), change(date(2026, 3, 1), "2"))
        self.assertEqual(falling((part(),), made, FITTED, FITTED)[0].last, date(2026, 5, 1))


class Reminder(unittest.TestCase):
    def test_blanks_are_filled_and_strange_ones_stay(self):
        text = reminder(
            "Dear {customer}: {parts} {nobody} {firm}",
            "Ann",
            "Firm",
            [("Lamp", "March 2, 2026", False), ("Carbon", "March 4, 2026", True)],
        )
        self.assertEqual(
            text,
            "Dear Ann: - Lamp, March 2, 2026\n"
            "- Carbon, March 4, 2026 (you can do this yourself) {nobody} Firm",
        )


class Refused(unittest.TestCase):
    def refused(self, c, fitted=FITTED):
        with self.assertRaises(RuleError) as e:
            check_change(c, (part(),), fitted, date(2026, 6, 1))
        return e.exception.code

    def test_what_cannot_be(self):
        self.assertEqual(self.refused(change(date(2026, 1, 14))), "change.before_fitting")
        self.assertEqual(self.refused(change(date(2026, 6, 2))), "change.future")
        self.assertEqual(self.refused(change(date(2026, 3, 1), key="other")), "change.part")
        self.assertEqual(self.refused(change(date(2026, 3, 1)), None), "change.not_fitted")
        check_change(change(FITTED), (part(),), FITTED, date(2026, 6, 1))
        check_change(change(date(2026, 6, 1)), (part(),), FITTED, date(2026, 6, 1))
