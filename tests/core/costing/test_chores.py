"""The work of a line in a year, counted by hand."""

import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.core.costing.test_waste import line
from zesty_glass.core.costing.chores import Chores, chores, stage_minutes
from zesty_glass.core.treating.report import Chore, Due


def due(months: float | None = 6.0, **more) -> Due:
    base = {
        "code": "x",
        "label": "Filter",
        "kind": "filter",
        "price": Decimal(20),
        "months": months,
        "capacity_gal": None,
        "gallons_year": 1000.0,
        "minutes": 15,
    }
    return Due(**{**base, **more})


def with_work(*dues: Due, work: tuple[Chore, ...] = ()):
    one = line("soft-1.5")
    return replace(one, stages=(replace(one.stages[0], dues=dues, chores=work),))


def of(*dues: Due, work: tuple[Chore, ...] = ()) -> Chores:
    return chores(with_work(*dues, work=work))


class Parts(unittest.TestCase):
    def test_twice_a_year_a_quarter_of_an_hour(self):
        c = of(due(6.0))
        self.assertEqual((c.chores[0].times_year, c.chores[0].minutes_year), (2.0, 30.0))
        self.assertEqual(c.own_minutes, 30.0)

    def test_by_its_gallons_where_they_are_used_up_sooner(self):
        # 250 gal of 1,000 a year: every 3 months, 4 times
        c = of(due(6.0, capacity_gal=250.0))
        self.assertEqual((c.chores[0].times_year, c.own_minutes), (4.0, 60.0))

    def test_what_the_firm_changes_is_not_the_households_work(self):
        c = of(due(6.0, own=False), due(12.0))
        self.assertEqual(c.own_minutes, 15.0)
        self.assertEqual([x.own for x in c.chores], [False, True])
        self.assertEqual(stage_minutes(with_work(due(6.0, own=False)).stages[0]), 0.0)

    def test_what_never_falls_due_is_no_chore(self):
        c = of(due(None, capacity_gal=250.0, gallons_year=0.0))
        self.assertEqual((c.chores, c.own_minutes), ((), 0.0))


class Strip(unittest.TestCase):
    def months(self, step: float) -> list[int]:
        return [i for i, m in enumerate(of(due(step)).strip) if "filter" in m]

    def test_months_in_which_something_falls_due(self):
        for step, months in (
            (12.0, [11]),
            (6.0, [5, 11]),
            (3.0, [2, 5, 8, 11]),
            (1.0, list(range(12))),
            (5.0, [4, 9]),
            (7.4, [6]),
            (18.0, []),
        ):
            self.assertEqual(self.months(step), months, step)

    def test_oftener_than_monthly_stands_in_the_month_more_than_once(self):
        # every half month: 24 times, of which 0.5 and 1.0 are both of the first month
        strip = of(due(0.5)).strip
        self.assertEqual(sum(len(m) for m in strip), 24)
        self.assertGreaterEqual(strip[0].count("filter"), 2)

    def test_bags_are_spread_over_the_year(self):
        carried = (Chore(label="Carry salt", times_year=2, minutes=10, bags=4.0),)
        strip = of(work=carried).strip
        self.assertEqual([i for i, m in enumerate(strip) if "salt" in m], [0, 3, 6, 9])

    def test_half_a_bag_is_none_in_the_strip(self):
        carried = (Chore(label="Carry salt", times_year=1, minutes=10, bags=0.4),)
        c = of(work=carried)
        self.assertEqual(sum(map(len, c.strip)), 0)
        self.assertEqual((c.bags, c.chores[0].kind), (0.4, "salt"))

    @given(st.floats(0.05, 40))
    def test_it_has_as_many_marks_as_fall_due_in_a_year(self, step):
        marks = sum(len(m) for m in of(due(step)).strip)
        self.assertLessEqual(abs(marks - 12 / step), 1)


class Work(unittest.TestCase):
    def test_work_without_salt(self):
        c = of(work=(Chore(label="Clean", times_year=4, minutes=20),))
        self.assertEqual((c.chores[0].kind, c.chores[0].minutes_year, c.bags), ("work", 80, 0))
        self.assertEqual(c.own_minutes, 80)

    def test_topping_up_is_counted_once_where_media_falls_due_by_itself(self):
        work = (Chore(label="Top up media", times_year=1, minutes=45),)
        self.assertEqual(of(work=work).own_minutes, 45)
        media = due(12.0, kind="media", minutes=45)
        both = of(media, work=work)
        self.assertEqual([x.label for x in both.chores], ["Filter"])
        self.assertEqual(both.own_minutes, 45)
        other = (Chore(label="Clean", times_year=1, minutes=5),)
        self.assertEqual(of(media, work=other).own_minutes, 50)

    def test_minutes_of_a_stage_are_its_parts_and_its_work(self):
        work = (
            Chore(label="Clean", times_year=4, minutes=20),
            Chore(label="Serviced", times_year=1, minutes=60, own=False),
        )
        stage = with_work(due(4.0), work=work).stages[0]
        self.assertEqual(stage_minutes(stage), 3 * 15 + 4 * 20)


if __name__ == "__main__":
    unittest.main()
